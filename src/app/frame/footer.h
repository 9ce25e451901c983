// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/day_clock.h"
#include "app/store/document.h"
#include "plot/look.h"

#include <QAbstractButton>
#include <QTimer>
#include <QWidget>
#include <vector>

namespace rollcall {

/// A word with its key at the foot of the window; a click does what the key does.
class FooterButton : public QAbstractButton {
    Q_OBJECT

public:
    FooterButton(const QString& text, const QString& key, const Look& look, QWidget* parent);
    QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    const Look& m_look;
    QString m_key;
};

/// The Now line: what to do next in the whole shop, large; person, menu, help and time beside it.
class Footer : public QWidget {
    Q_OBJECT

public:
    struct Message {
        QString text;
        bool trouble = false;
    };

    /// A message that stood in the one before stands on.
    Footer(const Document& document, const DayClock& day, const Look& look, Message message);
    void refresh();
    /// A message instead of the Now line until the next key: what went wrong, or what was just done.
    void say(const QString& message, bool trouble);
    const Message& message() const { return m_message; }
    void hush();
    /// All of it, also what the window has no room for.
    QString text() const { return m_message.text.isEmpty() ? m_now.join(between()) : m_message.text; }
    /// What is in sight: whole parts only, and how many more there are; one long sentence smaller, or on two lines.
    struct Seen {
        QString text;
        int size = 0; ///< of its letters
    };
    Seen inSight(int width) const;
    int nowWidth() const { return m_nowButton->width(); }

signals:
    void nowClicked();
    void wanted(const QString& command);

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override { arrange(); }

private:
    void arrange();
    QString clockText() const;
    static QString between() { return QStringLiteral("   ·   "); }
    QStringList nowParts() const;

    const Document& m_document;
    const DayClock& m_day;
    const Look& m_look;
    QStringList m_now;
    QAbstractButton* m_nowButton; ///< over the Now line, which is painted under it
    std::vector<FooterButton*> m_buttons;
    FooterButton* m_person;
    Message m_message; ///< without text: the Now line
    QTimer m_clock;
};

} // namespace rollcall
