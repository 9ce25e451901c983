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
    const QString& text() const { return m_message.isEmpty() ? m_now : m_message; }

protected:
    void paintEvent(QPaintEvent*) override;

private:
    QString nowText() const;

    const Document& m_document;
    const DayClock& m_day;
    const Look& m_look;
    QString m_now;
    QString m_message;
    bool m_trouble = false;
    QTimer m_clock;
};

} // namespace rollcall
