// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/help_text.h"
#include "plot/look.h"

#include <QDialog>

class QBoxLayout;
class QVBoxLayout;

namespace rollcall {

/// A key and what it does, as the help lists it.
struct KeyLine {
    QString key;
    QString text;
    QString help;
};
/// Under one heading.
struct KeyLines {
    QString heading;
    std::vector<KeyLine> lines;
};

/// Help of a place, or the keys alone, in one or two columns by its width; Esc, Enter or Space closes it.
class HelpDialog : public QDialog {
    Q_OBJECT

public:
    /// text null: keys alone.
    HelpDialog(const QString& title, const HelpText* text, const std::vector<KeyLines>& keys, const Look& look,
               QWidget* parent);

protected:
    void keyPressEvent(QKeyEvent* event) override;

private:
    void tell(const HelpText& text, QBoxLayout* column);
    void list(const KeyLines& keys, QBoxLayout* column);
    /// Where the rules stand, with their limits; nothing for a place without any.
    void rules(const HelpText& text, QBoxLayout* column);
    QWidget* line(const QString& text, int size, bool bold = false, bool muted = false) const;

    const Look& m_look;
};

} // namespace rollcall
