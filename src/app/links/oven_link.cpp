// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/links/oven_link.h"
#include "logbook/actions/heat.h"

#include <QPointer>

namespace rollcall {

OvenLink::OvenLink(Document& document, QObject* parent)
    : QObject(parent), m_document(document), m_wire(QStringLiteral("oven")) {
    m_flush.setInterval(30000);
    connect(&m_flush, &QTimer::timeout, this, &OvenLink::flush);
    connect(&m_wire, &Wire::reading, this, &OvenLink::take);
    connect(&m_wire, &Wire::changed, this, [this] {
        if (!m_wire.connected()) m_now.reset();
        emit changed();
    });
}

OvenLink::~OvenLink() {
    flush(); // the storage thread does it before the logbook is closed
}

QString OvenLink::stateText() const {
    const QString state = m_wire.stateText();
    return state.isEmpty() ? state : tr("oven %1").arg(state);
}

void OvenLink::record(const std::string& run, const Instant& zero) {
    if (run == m_run) return;
    flush();
    m_run = run;
    m_zero = zero;
    m_begun = false;
    m_fresh.clear();
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
        const double s = static_cast<double>(m_document.now().utc_ms - m_zero.utc_ms) / 1000.0;
        if (m_fresh.empty() || s > m_fresh.back().s) m_fresh.push_back({s, line.value});
    }
    emit changed();
}

void OvenLink::flush() {
    if (m_run.empty() || m_fresh.size() < 2 || m_storing) return;
    Result<Trace> trace = Trace::of(m_fresh);
    if (!trace) return;
    TraceDraft draft;
    draft.run = m_run;
    draft.name = tr("from the oven's line");
    draft.fresh = !m_begun;
    draft.trace = std::move(trace).value();
    // What is sent stays here until the logbook has it: a full disk costs no sample.
    m_storing = true;
    m_document.perform(
        [draft](Logbook& logbook) { return addTrace(logbook, draft); },
        [guard = QPointer<OvenLink>(this), run = m_run, sent = m_fresh.size()](const Result<Done>& done) {
            if (guard == nullptr) return;
            guard->m_storing = false;
            if (!done || guard->m_run != run) return;
            guard->m_begun = true;
            // The last sample begins the next part, so that the line between two parts is kept.
            guard->m_fresh.erase(guard->m_fresh.begin(),
                                 guard->m_fresh.begin() + static_cast<std::ptrdiff_t>(sent - 1));
        });
}

} // namespace rollcall
