// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QLabel>
#include <QToolTip>

/// Names, notes and fields of files are shown as they stand: Qt takes a text that looks like one for a page of the web
/// and would fetch and draw what it names. Nothing else makes a label or a tip; tests/lint looks.
namespace rollcall {

/// A label that shows its text to the letter.
class PlainLabel : public QLabel {
public:
    explicit PlainLabel(const QString& text = {}, QWidget* parent = nullptr) : QLabel(parent) {
        setTextFormat(Qt::PlainText);
        setText(text);
    }
};

/// A tip that shows its text to the letter.
inline QString plainTip(const QString& text) {
    return Qt::mightBeRichText(text) ? QStringLiteral("<p>") + text.toHtmlEscaped() + QStringLiteral("</p>") : text;
}

/// Shows such a tip at once; hides it where the text is empty.
inline void showTip(const QPoint& onScreen, const QString& text, QWidget* widget) {
    QToolTip::showText(onScreen, plainTip(text), widget);
}

} // namespace rollcall
