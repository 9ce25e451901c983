// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/judged.h"

#include "core/judge/edge_judge.h"
#include "core/judge/gate_case.h"

namespace rollcall {

Judged::Judged(const Batch& batch, const Tables& tables, const std::optional<Instant>& now)
    : m_steel(batch, tables), m_heats(batch, tables), m_runs(batch, tables),
      m_tempered(casesAt(batch, Gate::temper, m_runs, tables)), m_tempers(batch, tables, &m_tempered),
      m_all(batch.blades.size()) {
    m_verdicts.blades.resize(batch.blades.size());
    const std::size_t count = batch.blades.size();
    for (std::size_t i = 0; i < count; ++i) {
        keep(batch, i, judgeSteel(batch, i, m_steel, tables));
        keep(batch, i, judgeHeat(batch, i, m_heats, tables));
    }
    const std::vector<Case> quenched = casesAt(batch, Gate::quench, m_runs, tables);
    const std::vector<Verdict> quench =
        rollcall::judgeReadings(batch, tables, quenched, std::vector<Outlook>(count), m_steel, m_heats, now);
    const std::vector<Outlook> outlooks = outlooksOf(batch, m_tempered, m_tempers, tables);
    const std::vector<Verdict> temper =
        rollcall::judgeReadings(batch, tables, m_tempered, outlooks, m_steel, m_heats, now);
    for (std::size_t i = 0; i < count; ++i) {
        keep(batch, i, quench[i]);
        keep(batch, i, temper[i]);
    }
    sample(batch);
    m_means = readMeans(batch, m_verdicts);
    m_proof.emplace(batch, m_heats, m_means);
    for (std::size_t i = 0; i < count; ++i) {
        keep(batch, i, judgeEdge(batch, i, m_means[i], tables));
        keep(batch, i, judgeProof(batch, i, *m_proof));
        m_release.push_back(releaseAnswer(batch, i, m_verdicts.blades[i], tables));
        keep(batch, i, judgeRelease(batch, i, m_verdicts.blades[i], tables));
    }
}

void Judged::keep(const Batch& batch, std::size_t blade, Verdict verdict) {
    verdict.asked = batch.planOf(verdict.gate).required;
    if (verdict.asked) m_verdicts.blades[blade][indexOf(verdict.gate)] = verdict;
    m_all[blade][indexOf(verdict.gate)] = std::move(verdict);
}

void Judged::sample(const Batch& batch) {
    std::vector<std::optional<Verdict>> temper;
    for (const BladeVerdicts& one : m_verdicts.blades) temper.push_back(one[indexOf(Gate::temper)]);
    m_sample = sampleState(batch, temper, m_heats);
    if (!batch.sample_asked || !batch.planOf(Gate::temper).required) return;
    sayWhatWasSampled(batch, m_sample, m_verdicts);
    for (const std::size_t i : m_sample.unread)
        m_all[i][indexOf(Gate::temper)] = *m_verdicts.blades[i][indexOf(Gate::temper)];
}

} // namespace rollcall
