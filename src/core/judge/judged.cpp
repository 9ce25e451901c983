// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/judged.h"

#include "core/judge/edge_judge.h"
#include "core/judge/gate_case.h"

namespace rollcall {

Judged::Judged(const Batch& batch, const Tables& tables, const std::optional<Instant>& now)
    : m_batch(batch), m_tables(tables), m_now(now), m_heats(batch, tables), m_runs(batch, tables),
      m_steel(batch, tables, m_heats, m_runs), m_tempered(casesAt(batch, Gate::temper, m_runs, tables)),
      m_tempers(batch, tables, &m_tempered), m_unasked(batch.blades.size()) {
    const std::size_t count = batch.blades.size();
    m_verdicts.blades.resize(count);
    for (const Gate gate : {Gate::steel, Gate::heat}) {
        for (std::size_t i = 0; i < count && batch.planOf(gate).required; ++i) keep(i, judge(i, gate));
    }
    for (const Gate gate : {Gate::quench, Gate::temper}) {
        if (!batch.planOf(gate).required) continue;
        std::vector<Verdict> verdicts = judgeRead(gate);
        for (std::size_t i = 0; i < count; ++i) keep(i, std::move(verdicts[i]));
    }
    if (batch.sample_asked && batch.planOf(Gate::temper).required) sayWhatWasSampled(batch, sample(), m_verdicts);
    m_means = readMeans(batch, m_verdicts);
    m_proof.emplace(batch, m_heats, m_means);
    for (const Gate gate : {Gate::edge, Gate::proof}) {
        for (std::size_t i = 0; i < count && batch.planOf(gate).required; ++i) keep(i, judge(i, gate));
    }
    for (std::size_t i = 0; i < count; ++i) {
        m_release.push_back(releaseAnswer(batch, i, m_verdicts.blades[i], tables));
        if (batch.planOf(Gate::release).required) keep(i, judge(i, Gate::release));
    }
}

std::vector<Verdict> Judged::judgeRead(Gate gate) const {
    if (gate == Gate::temper)
        return judgeReadings(m_batch, m_tables, m_tempered, outlooksOf(m_batch, m_tempered, m_tempers, m_tables),
                             m_steel, m_heats, m_runs, m_verdicts, m_now);
    const std::vector<Case> cases = casesAt(m_batch, gate, m_runs, m_tables);
    return judgeReadings(m_batch, m_tables, cases, std::vector<Outlook>(cases.size()), m_steel, m_heats, m_runs,
                         m_verdicts, m_now);
}

Verdict Judged::judge(std::size_t blade, Gate gate) const {
    switch (gate) {
    case Gate::steel:
        return judgeSteel(m_batch, blade, m_steel, m_tables);
    case Gate::heat:
        return judgeHeat(m_batch, blade, m_heats, m_tables);
    case Gate::quench:
    case Gate::temper:
        return judgeRead(gate)[blade];
    case Gate::edge:
        return judgeEdge(m_batch, blade, m_means[blade], m_tables);
    case Gate::proof:
        return judgeProof(m_batch, blade, *m_proof);
    case Gate::release:
        return judgeRelease(m_batch, blade, m_verdicts.blades[blade], m_tables);
    }
    return {};
}

// A gate that is not asked is judged when somebody looks, once.
const Verdict& Judged::unasked(std::size_t blade, Gate gate) const {
    std::optional<Verdict>& known = m_unasked[blade][indexOf(gate)];
    if (!known) {
        known = judge(blade, gate);
        known->asked = false;
    }
    return *known;
}

void Judged::keep(std::size_t blade, Verdict verdict) {
    verdict.asked = true;
    const std::size_t gate = indexOf(verdict.gate);
    m_verdicts.blades[blade][gate] = std::move(verdict);
}

const SampleState& Judged::sample() const {
    if (!m_sample) m_sample = sampleState(m_batch, m_verdicts, m_heats);
    return *m_sample;
}

} // namespace rollcall
