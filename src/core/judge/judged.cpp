// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/judged.h"

#include "core/judge/edge_judge.h"
#include "core/judge/gate_case.h"

namespace rollcall {

Judged::Judged(const Batch& batch, const Tables& tables, const std::optional<Instant>& now, const Judged* before)
    : m_batch(batch), m_tables(tables), m_groups(groupsOf(batch, tables)) {
    const std::size_t count = batch.blades.size();
    // Grades are pointed at where they stand in the tables.
    const bool same = before != nullptr && &before->m_tables == &tables;
    for (const BladeGroup& group : m_groups) {
        const std::size_t part = m_parts.size();
        m_parts.emplace_back(group.own ? *group.own : batch, tables, now,
                             same && part < before->m_parts.size() ? &before->m_parts[part] : nullptr);
    }
    if (m_groups.front().own) {
        m_places.resize(count);
        m_verdicts.blades.resize(count);
        for (std::size_t part = 0; part < m_groups.size(); ++part) {
            for (std::size_t place = 0; place < m_groups[part].blades.size(); ++place) {
                const std::size_t blade = m_groups[part].blades[place];
                m_places[blade] = {part, place};
                m_verdicts.blades[blade] = std::move(m_parts[part].verdicts().blades[place]);
            }
        }
    } else {
        m_verdicts = std::move(m_parts.front().verdicts());
    }
    for (BladeVerdicts& own : m_verdicts.blades) {
        for (std::optional<Verdict>& verdict : own) {
            if (verdict) verdict->asked = true;
        }
    }
    m_means = readMeans(batch, m_verdicts);
    std::vector<const HeatAnswer*> heats;
    for (std::size_t i = 0; i < count; ++i) heats.push_back(&heat(i));
    m_proof.emplace(batch, heats, m_means);
    for (const Gate gate : {Gate::edge, Gate::proof}) {
        for (std::size_t i = 0; i < count && batch.planOf(gate).required; ++i) keep(i, judge(i, gate));
    }
    for (std::size_t i = 0; i < count; ++i) {
        m_release.push_back(releaseAnswer(batch, i, m_verdicts.blades[i], tables));
        if (batch.planOf(Gate::release).required) keep(i, judge(i, Gate::release));
    }
}

Verdict Judged::judge(std::size_t blade, Gate gate) const {
    switch (gate) {
    case Gate::edge:
        return judgeEdge(batchOf(blade), placeOf(blade), m_means[blade], m_tables);
    case Gate::proof:
        return judgeProof(m_batch, blade, *m_proof, m_tables);
    case Gate::release:
        return judgeRelease(m_batch, blade, m_verdicts.blades[blade], m_tables);
    default:
        return partOf(blade).judge(placeOf(blade), gate);
    }
}

// A gate that is not asked is judged when somebody looks, once.
const Verdict& Judged::unasked(std::size_t blade, Gate gate) const {
    const auto known = m_unasked.find({blade, gate});
    if (known != m_unasked.end()) return known->second;
    Verdict& made = m_unasked[{blade, gate}] = judge(blade, gate);
    made.asked = false;
    return made;
}

void Judged::keep(std::size_t blade, Verdict verdict) {
    verdict.asked = true;
    const std::size_t gate = indexOf(verdict.gate);
    m_verdicts.blades[blade][gate] = std::move(verdict);
}

SampleState Judged::sample(std::size_t blade) const {
    JudgedPart& part = partOf(blade);
    if (m_places.empty()) return sampleState(m_batch, m_verdicts, part.heats());
    const std::vector<std::size_t>& blades = m_groups[m_places[blade].first].blades;
    BatchVerdicts own;
    for (const std::size_t i : blades) own.blades.push_back(m_verdicts.blades[i]);
    SampleState state = sampleState(part.batch(), own, part.heats());
    for (std::vector<std::size_t>* places : {&state.read, &state.unread, &state.next}) {
        for (std::size_t& place : *places) place = blades[place];
    }
    for (SampleState::Uncovered& one : state.uncovered) one.blade = blades[one.blade];
    return state;
}

} // namespace rollcall
