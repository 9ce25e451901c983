// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/cycle/oven_link.h"

#include <QSettings>

namespace rollcall {

OvenLink::OvenLink(Document& document, QObject* parent) : QObject(parent), m_document(document) {
    m_flush.setInterval(30000);
    connect(&m_flush, &QTimer::timeout, this, &OvenLink::flush);
    connectOven();
}

LineSetup OvenLink::setup() {
    const QSettings settings;
    return {settings.value(QStringLiteral("oven/port")).toString(),
            settings.value(QStringLiteral("oven/baud"), 9600).toInt(),
            settings.value(QStringLiteral("oven/pattern")).toString()};
}

Result<Done> OvenLink::setUp(const LineSetup& setup) {
    if (!setup.port.isEmpty()) {
        if (const auto pattern = LinePattern::fromText(setup.pattern); !pattern) return pattern.error();
    }
    QSettings settings;
    settings.setValue(QStringLiteral("oven/port"), setup.port);
    settings.setValue(QStringLiteral("oven/baud"), setup.baud);
    settings.setValue(QStringLiteral("oven/pattern"), setup.pattern);
    connectOven();
    return Done{};
}

void OvenLink::connectOven() {
    m_line.reset();
    m_now.reset();
    const LineSetup wired = setup();
    if (wired.port.isEmpty()) return;
    auto pattern = LinePattern::fromText(wired.pattern);
    if (!pattern) return;
    m_line = std::make_unique<InstrumentLine>(serialTransport(wired.port, wired.baud), std::move(pattern).value());
    connect(m_line.get(), &InstrumentLine::reading, this, &OvenLink::take);
    connect(m_line.get(), &InstrumentLine::stateChanged, this, &OvenLink::changed);
    m_line->start();
}

QString OvenLink::stateText() const {
    if (!m_line) return {};
    return m_line->state() == InstrumentLine::State::open ? tr("oven line open")
                                                          : tr("oven line lost: %1").arg(m_line->trouble());
}

void OvenLink::record(const std::string& run, const Instant& zero) {
    if (run == m_run) return;
    flush();
    m_run = run;
    m_zero = zero;
    m_begun = false;
    if (run.empty())
        m_flush.stop();
    else
        m_flush.start();
    emit changed();
}

void OvenLink::take(const DeviceLine& line) {
    if (!(line.value > -100 && line.value < 1600)) return; // a thermocouple that is broken or not plugged in
    m_now = line.value;
    if (!m_run.empty()) {
        const double s = static_cast<double>(LogbookSeams::real().now().utc_ms - m_zero.utc_ms) / 1000.0;
        if (m_fresh.empty() || s > m_fresh.back().s) m_fresh.push_back({s, line.value});
    }
    emit changed();
}

void OvenLink::flush() {
    if (m_run.empty() || m_fresh.size() < 2) return;
    TraceDraft draft;
    draft.run = m_run;
    draft.name = tr("from the oven's line");
    draft.fresh = !m_begun;
    Result<Trace> trace = Trace::of(m_fresh);
    if (!trace) return;
    draft.trace = std::move(trace).value();
    // The last sample goes on in the next part, so that the line between two parts is kept.
    m_fresh.erase(m_fresh.begin(), m_fresh.end() - 1);
    m_begun = true;
    m_document.perform([draft](Logbook& logbook) { return logbook.addTrace(draft); });
}

} // namespace rollcall
