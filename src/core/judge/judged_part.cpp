// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/judged_part.h"

#include <algorithm>

namespace rollcall {

namespace {

Batch asSeenBy(const Batch& batch, const std::vector<std::size_t>& blades, const Tables& tables) {
    const Blade& first = batch.blades[blades.front()];
    const BladeClaim claim = batch.claimOf(first);
    Batch own = batch;
    own.claimed = claim.claimed;
    own.grade = claim.grade;
    own.purpose = claim.purpose;
    own.window = *claim.window;
    own.quench_minimum = claim.quench_minimum;
    own.minimum_tempers = claim.minimum_tempers;
    own.blades.clear();
    for (const std::size_t i : blades) own.blades.push_back(batch.blades[i]);
    if (!batch.ofOneBar(first)) {
        own.lot.clear();
        own.certificate.clear();
        own.other_steels.clear();
        own.temper_history.clear(); // of the batch's grade
        std::erase_if(own.shots, [&](const SteelShot& shot) { return shot.blade != first.id; });
        std::erase_if(own.steel_notes, [](const SteelNote& note) { return note.kind != SteelNoteKind::changed; });
        return own;
    }
    // Of the same bar with another window: what its siblings gave after their tempers teaches these too.
    Batch others = batch;
    std::erase_if(others.blades, [&](const Blade& blade) {
        return !batch.ofOneBar(blade) ||
               std::any_of(blades.begin(), blades.end(), [&](std::size_t i) { return batch.blades[i].id == blade.id; });
    });
    for (TemperObservation& seen : temperObservations(others, tables)) own.temper_history.push_back(std::move(seen));
    return own;
}

} // namespace

std::vector<BladeGroup> groupsOf(const Batch& batch, const Tables& tables) {
    std::vector<BladeGroup> groups;
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const Blade& blade = batch.blades[i];
        const auto same = std::find_if(groups.begin(), groups.end(), [&](const BladeGroup& group) {
            const Blade& first = batch.blades[group.blades.front()];
            return batch.ofOneBar(blade) && batch.ofOneBar(first) && batch.claimOf(blade) == batch.claimOf(first);
        });
        (same != groups.end() ? *same : groups.emplace_back()).blades.push_back(i);
    }
    const bool uniform = groups.size() <= 1 && std::none_of(batch.blades.begin(), batch.blades.end(),
                                                            [](const Blade& blade) { return blade.own.has_value(); });
    if (uniform && groups.empty()) groups.emplace_back();
    for (BladeGroup& group : groups) {
        if (!uniform) group.own = std::make_unique<Batch>(asSeenBy(batch, group.blades, tables));
    }
    return groups;
}

JudgedPart::JudgedPart(const Batch& batch, const Tables& tables, const std::optional<Instant>& now,
                       const JudgedPart* before)
    : m_batch(batch), m_tables(tables), m_now(now), m_heats(batch, tables), m_runs(batch, tables),
      m_steel(batch, tables, m_heats, m_runs, before != nullptr ? &before->m_steel : nullptr),
      m_tempered(casesAt(batch, Gate::temper, m_runs, tables)), m_tempers(batch, tables, &m_tempered) {
    const std::size_t count = batch.blades.size();
    m_verdicts.blades.resize(count);
    const auto keep = [&](Gate gate, std::vector<Verdict> verdicts) {
        for (std::size_t i = 0; i < count; ++i) m_verdicts.blades[i][indexOf(gate)] = std::move(verdicts[i]);
    };
    if (batch.planOf(Gate::steel).required) keep(Gate::steel, judgeSteel(batch, m_steel, tables));
    for (std::size_t i = 0; i < count && batch.planOf(Gate::heat).required; ++i)
        m_verdicts.blades[i][indexOf(Gate::heat)] = judge(i, Gate::heat);
    for (std::size_t i = 0; i < count; ++i) {
        if (const auto& heat = m_verdicts.at(i, Gate::heat)) m_heatSays[i] = *heat;
    }
    if (batch.planOf(Gate::quench).required) keep(Gate::quench, judgeRead(Gate::quench));
    for (std::size_t i = 0; i < count && batch.planOf(Gate::quench).required; ++i) {
        // What failed at Quench, or contradicts itself there, joins no load.
        const std::optional<Verdict>& quench = m_verdicts.at(i, Gate::quench);
        const bool waits = quench && lastTemper(batch.blades[i]) == 0 && quench->next.act != Act::logTemper;
        m_held.push_back(waits && (quench->state == State::fail || quench->state == State::borderline));
    }
    if (batch.planOf(Gate::temper).required) keep(Gate::temper, judgeRead(Gate::temper));
    if (batch.sample_asked && batch.planOf(Gate::temper).required)
        sayWhatWasSampled(batch, sampleState(batch, m_verdicts, m_heats), m_verdicts);
}

std::vector<Verdict> JudgedPart::judgeRead(Gate gate) const {
    if (gate == Gate::temper) {
        return judgeReadings(m_batch, m_tables, m_tempered,
                             outlooksOf(m_batch, m_tempered, m_tempers, m_tables, m_held), m_steel, m_heats, m_runs,
                             m_heatSays, m_now);
    }
    const std::vector<Case> cases = casesAt(m_batch, gate, m_runs, m_tables);
    return judgeReadings(m_batch, m_tables, cases, std::vector<Outlook>(cases.size()), m_steel, m_heats, m_runs,
                         m_heatSays, m_now);
}

Verdict JudgedPart::judge(std::size_t blade, Gate gate) const {
    switch (gate) {
    case Gate::steel:
        return judgeSteel(m_batch, blade, m_steel, m_tables);
    case Gate::heat:
        return judgeHeat(m_batch, blade, m_heats, m_tables);
    default:
        return judgeRead(gate)[blade];
    }
}

} // namespace rollcall
