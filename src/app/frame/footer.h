// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/day_clock.h"
#include "app/store/document.h"
#include "plot/look.h"

#include <QAbstractButton>
#include <QTimer>
#include <QWidget>

namespace rollcall {

/// The Now line: what to do next in the whole shop, large; person, menu, help and time beside it.
class Footer : public QWidget {
    Q_OBJECT

public:
    Footer(const Document& document, const DayClock& day, const Look& look, QWidget* parent = nullptr);
    void refresh();
    /// A message instead of the Now line until the next key: what went wrong, or what was just done.
    void say(const QString& message, bool trouble);
    void hush();
    /// All of it, also what the window has no room for.
    QString text() const { return m_message.isEmpty() ? m_now.join(between()) : m_message; }
    /// What is in sight: whole parts only, and how many more there are.
    QString inSight(int width) const;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    static QString between() { return QStringLiteral("   ·   "); }
    QStringList nowParts() const;

    const Document& m_document;
    const DayClock& m_day;
    const Look& m_look;
    QStringList m_now;
    QString m_message;
    bool m_trouble = false;
    QTimer m_clock;
};

} // namespace rollcall
