// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/day_clock.h"

#include <QDateTime>
#include <QLocale>

namespace rollcall {

namespace {

std::string nameOf(const DayEvent& event, const PlannedRun& run) {
    return run.id + "/" + std::to_string(static_cast<int>(event.kind));
}

} // namespace

DayClock::DayClock(const Document& document, QObject* parent) : QObject(parent), m_document(document) {
    m_timer.setInterval(1000);
    connect(&m_timer, &QTimer::timeout, this, &DayClock::tick);
    m_timer.start();
}

std::vector<DayEvent> DayClock::events() const {
    return dayEvents(m_document.state().shop().day, m_document.now().utc_ms);
}

QString DayClock::clockText(std::int64_t utc_ms) {
    return QLocale().toString(QDateTime::fromMSecsSinceEpoch(utc_ms), QStringLiteral("HH:mm"));
}

QString DayClock::textOf(const DayEvent& event) const {
    const PlannedRun& run = m_document.state().shop().day[event.run];
    const QString oven = QString::fromStdString(run.oven_name);
    const QString what = tr("%1, %2").arg(QString::fromStdString(run.batch_name), QString::fromStdString(run.what));
    switch (event.kind) {
    case DayEvent::Kind::putIn:
        return event.due ? tr("put %1 into %2").arg(what, oven)
                         : tr("%1 in at %2: %3").arg(oven, clockText(event.at_ms), what);
    case DayEvent::Kind::takeOut:
        return event.due ? tr("take %1 out of %2").arg(what, oven)
                         : tr("%1 out at %2: %3").arg(oven, clockText(event.at_ms), what);
    case DayEvent::Kind::cooled:
        return tr("%1 free at %2").arg(oven, clockText(event.at_ms));
    }
    return {};
}

QString DayClock::nextText(bool* due) const {
    const std::vector<DayEvent> next = events();
    if (due != nullptr) *due = !next.empty() && next.front().due;
    return next.empty() ? QString() : textOf(next.front());
}

bool DayClock::ringing() const {
    const std::vector<DayEvent> next = events();
    if (next.empty() || !next.front().due) return false;
    return nameOf(next.front(), m_document.state().shop().day[next.front().run]) != m_hushed;
}

void DayClock::hush() {
    const std::vector<DayEvent> next = events();
    if (next.empty()) return;
    m_hushed = nameOf(next.front(), m_document.state().shop().day[next.front().run]);
    emit changed();
}

void DayClock::tick() {
    constexpr int secondsBetween = 10; // of the sound
    const std::vector<DayEvent> next = events();
    const bool due = !next.empty() && next.front().due;
    const std::string name =
        due ? nameOf(next.front(), m_document.state().shop().day[next.front().run]) : std::string();
    if (name != m_rung) {
        m_rung = name;
        m_ticks = 0;
        emit changed();
    }
    if (ringing() && m_ticks++ % secondsBetween == 0) emit rang();
}

} // namespace rollcall
