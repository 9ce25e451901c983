// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/proof_judge.h"

#include "core/judge/edge_judge.h"
#include "core/judge/gate_case.h"

#include <algorithm>
#include <fmt/format.h>

namespace rollcall {

namespace {

std::string tempersText(const Blade& blade) {
    std::string text;
    for (const Temper& temper : blade.tempers) {
        if (temper.round != blade.round) continue;
        text += text.empty() ? "" : ", ";
        text += temper.temperature_c && temper.hours
                    ? fmt::format("{:g} °C {:g} h", *temper.temperature_c, *temper.hours)
                    : "not noted";
    }
    return text.empty() ? "none" : text;
}

std::string spineText(const Blade& blade) {
    const auto passes = std::count_if(blade.colours.begin(), blade.colours.end(), [&](const ColourNote& note) {
        return note.round == blade.round && note.torch && note.zone == "spine";
    });
    return passes == 0 ? "" : fmt::format("torch, {} passes", passes);
}

PieceFacts factsOf(const Batch& batch, const Blade& blade, const HeatAnswer& heat, const std::optional<double>& hrc) {
    PieceFacts facts;
    facts.mark = blade.mark;
    facts.batch = batch.name;
    facts.grade = batch.claimOf(blade).grade;
    // A batch is cut from one bar, whether it has a name or not; a knife with a claim of its own is not.
    facts.lot = !batch.ofOneBar(blade) ? batch.name + " " + blade.mark : batch.lot.empty() ? batch.name : batch.lot;
    facts.changed = batch.changedBy(blade);
    facts.recipe = batch.recipe ? fmt::format("{} {}", batch.recipe->name, batch.recipe->version)
                                : fmt::format("{} without a recipe", batch.name);
    if (heat.run != nullptr) {
        facts.heat = heat.run->id;
        if (heat.soak) facts.equivalent_min = heat.soak->equivalent_minutes;
    }
    facts.tempers = tempersText(blade);
    facts.spine = spineText(blade);
    facts.hrc = hrc;
    if (blade.shape.thickness_mm > 0) facts.thickness_mm = blade.shape.thickness_mm;
    if (!blade.edges.empty()) {
        setEdge(facts, blade.edges.back());
    }
    return facts;
}

} // namespace

void setEdge(PieceFacts& facts, const EdgeGeometry& edge) {
    facts.edge_mm = edge.behind_edge_mm;
    facts.angle_deg = edge.angle_per_side_deg;
    facts.finish = edge.finish;
}

std::optional<EdgeGeometry> edgeThen(const Trial& trial, const Blade& blade) {
    const std::vector<EdgeGeometry> edges = edgesOf(blade);
    return edges.empty() ? std::nullopt : std::optional(edges[edgeAt(edges, trial.begun)]);
}

bool isPresent(const Trial& trial, const Blade& blade) {
    if (trial.round != blade.round || trial.after_temper != lastTemper(blade)) return false;
    const std::vector<EdgeGeometry> edges = edgesOf(blade);
    const std::size_t edge = edgeAt(edges, trial.begun);
    if (edges.empty() || edge + 1 == edges.size()) return true;
    return edges.back().asStoutAs(edges[edge]) && progressOf(trial).outcome == TrialOutcome::passed;
}

double grainLeastOf(const Batch& batch) {
    return batch.grain_least.value_or(8);
}

std::vector<FracturePhoto> fracturesOf(const Blade& blade) {
    std::vector<FracturePhoto> photos;
    for (const FracturePhoto& photo : blade.fractures) {
        if (photo.round == blade.round) photos.push_back(photo);
    }
    return photos;
}

ProofBook::ProofBook(const Batch& batch, const std::vector<const HeatAnswer*>& heats,
                     const std::vector<std::optional<double>>& hrc) {
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const Blade& blade = batch.blades[i];
        m_facts.push_back(rollcall::factsOf(batch, blade, *heats[i], hrc[i]));
        std::vector<std::string> seen;
        for (auto trial = blade.trials.rbegin(); trial != blade.trials.rend(); ++trial) {
            if (!isPresent(*trial, blade)) continue;
            const TrialOutcome outcome = progressOf(*trial).outcome;
            if (outcome != TrialOutcome::passed && outcome != TrialOutcome::failed) continue;
            if (trial->protocol.onlyMeasures()) continue;
            if (std::find(seen.begin(), seen.end(), trial->protocol.name) != seen.end()) continue;
            seen.push_back(trial->protocol.name);
            m_ended.push_back({i, &*trial, outcome == TrialOutcome::passed, false, edgeThen(*trial, blade)});
        }
        const GrainStands stands = standsTo(readFractures(fracturesOf(blade)), grainLeastOf(batch));
        if (stands != GrainStands::open)
            m_ended.push_back(
                {i, nullptr, stands != GrainStands::coarse, stands == GrainStands::between, std::nullopt});
    }
}

Speech ProofBook::speech(const EndedTest& ended, std::size_t blade) const {
    PieceFacts then = m_facts[ended.blade];
    if (ended.edge) setEdge(then, *ended.edge);
    return ended.trial != nullptr ? speaksFor(then, m_facts[blade], ended.passed)
                                  : grainSpeaksFor(m_facts[ended.blade], m_facts[blade], ended.passed);
}

} // namespace rollcall
