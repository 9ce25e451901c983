// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/store/document.h"

#include <QObject>
#include <QTimer>

namespace rollcall {

/// The ovens' day of the whole shop: what is next, and the alarm when its moment has come. The alarm is seen in the Now
/// line and heard until it is answered or hushed; it is in the logbook, so it survives a restart.
class DayClock : public QObject {
    Q_OBJECT

public:
    explicit DayClock(const Document& document, QObject* parent = nullptr);

    std::vector<DayEvent> events() const;
    /// What is next, such as "Oven 1 out at 14:20"; empty when nothing is planned. due tells whether its moment has
    /// come.
    QString nextText(bool* due = nullptr) const;
    QString textOf(const DayEvent& event) const;
    /// No more sound for what is due now.
    void hush();
    bool ringing() const;

    static QString clockText(std::int64_t utc_ms);

signals:
    void changed();
    /// The alarm sounds, again and again until it is hushed.
    void rang();

private:
    void tick();

    const Document& m_document;
    QTimer m_timer;
    std::string m_hushed; ///< the event that was hushed
    std::string m_rung;   ///< the event that was told last
    int m_ticks = 0;
};

} // namespace rollcall
