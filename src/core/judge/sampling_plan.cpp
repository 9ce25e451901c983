// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/sampling_plan.h"

#include "core/judge/blade_spread.h"
#include "core/judge/gates.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

namespace {

constexpr std::size_t fairSample = 5;

std::optional<double> soakOf(const HeatAnswer& heat) {
    return heat.soak ? std::optional(heat.soak->equivalent_minutes) : heat.clock_minutes;
}

// E10. The files tried on a blade that was not read leave room for the window.
bool filesFit(const Blade& blade, const Window& window) {
    const FileTest* test = fileTestAt(blade, Gate::temper);
    if (test == nullptr || test->surface != Surface::bare) return false;
    const FileBracket bracket = fileBracket(test->trials);
    if (bracket.conflict != FileConflict::none || (!bracket.lower && !bracket.upper)) return false;
    return !(window.low && bracket.upper && *bracket.upper + filesThemselves < *window.low) &&
           !(window.high && bracket.lower && *bracket.lower - filesThemselves > *window.high);
}

// E10. Hardened in the same round and tempered alike: each temperature within 5 degrees, hours within a tenth.
bool sameTreatment(const Batch& batch, const Blade& blade, const std::vector<std::size_t>& read) {
    const auto present = [](const Blade& one) {
        std::vector<const Temper*> tempers;
        for (const Temper& temper : one.tempers) {
            if (temper.round == one.round) tempers.push_back(&temper);
        }
        return tempers;
    };
    const auto alike = [](const Temper& a, const Temper& b) {
        constexpr double degrees = 5;
        constexpr double ofHours = 0.1;
        if (!a.temperature_c || !b.temperature_c) return a.temperature_c == b.temperature_c;
        return std::abs(*a.temperature_c - *b.temperature_c) <= degrees &&
               std::abs(a.hours.value_or(0) - b.hours.value_or(0)) <= ofHours * b.hours.value_or(0) + 1e-9;
    };
    const auto own = present(blade);
    return std::all_of(read.begin(), read.end(), [&](std::size_t i) {
        const Blade& other = batch.blades[i];
        const auto theirs = present(other);
        return other.round == blade.round &&
               std::equal(own.begin(), own.end(), theirs.begin(), theirs.end(),
                          [&](const Temper* a, const Temper* b) { return alike(*a, *b); });
    });
}

// What the mean of one blade is known to by its own readings, and what all blades share (E9).
SamplingFloor floorOf(const std::vector<const Measurement*>& measured) {
    SamplingFloor floor;
    double own = 0;
    for (const Measurement* one : measured) {
        own += std::pow(ownUncertainty(one->budget), 2) / static_cast<double>(measured.size());
        floor.common_u = std::max(floor.common_u, sharedUncertainty(one->budget));
    }
    floor.blade_u = std::sqrt(own);
    return floor;
}

} // namespace

bool SampleState::covers(std::size_t blade) const {
    return std::none_of(uncovered.begin(), uncovered.end(), [&](const Uncovered& one) { return one.blade == blade; });
}

SampleState sampleState(const Batch& batch, const BatchVerdicts& verdicts, const HeatBook& heats) {
    SampleState state;
    std::vector<double> means;
    std::vector<const Measurement*> measured;
    std::vector<std::size_t> whole; // those that are in the batch at Temper
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        if (isOutBefore(batch.blades[i], Gate::temper)) continue;
        whole.push_back(i);
        const std::optional<Verdict>& temper = verdicts.at(i, Gate::temper);
        const bool changed = !batch.changedBy(batch.blades[i]).empty(); // E18: it speaks for itself alone
        if (temper && temper->measurement && changed) continue;
        if (temper && temper->measurement) {
            state.read.push_back(i);
            means.push_back(temper->measurement->decided_mean);
            measured.push_back(&*temper->measurement);
        } else {
            state.unread.push_back(i);
        }
    }
    // In order out of the oven, as far as it is known; else as they lie in the roll.
    std::stable_sort(whole.begin(), whole.end(), [&](std::size_t a, std::size_t b) {
        const BladeHeat* x = heats.of(a).heat;
        const BladeHeat* y = heats.of(b).heat;
        return x != nullptr && y != nullptr && x->out_s && y->out_s && *x->out_s < *y->out_s;
    });
    const std::size_t wanted = std::min(fairSample, whole.size());
    for (std::size_t k = 0; k < wanted; ++k) {
        // First, last, middle, quarters.
        constexpr std::array<double, fairSample> places{0, 1, 0.5, 0.25, 0.75};
        const auto at = static_cast<std::size_t>(std::lround(places[k] * static_cast<double>(whole.size() - 1)));
        const std::size_t blade = whole[at];
        const bool open = std::find(state.unread.begin(), state.unread.end(), blade) != state.unread.end();
        const bool told = std::find(state.next.begin(), state.next.end(), blade) != state.next.end();
        if (open && !told) state.next.push_back(blade);
    }
    const auto rangeOf = [&](auto&& number) -> std::optional<Interval> {
        std::optional<Interval> range;
        for (const std::size_t i : state.read) {
            const std::optional<double> value = number(i);
            if (!value) return std::nullopt;
            if (!range) range = Interval{*value, *value};
            range = Interval{std::min(range->low, *value), std::max(range->high, *value)};
        }
        return range;
    };
    const auto soak = [&](std::size_t i) { return soakOf(heats.of(i)); };
    const auto thickness = [&](std::size_t i) { return std::optional<double>(batch.blades[i].shape.thickness_mm); };
    const auto outside = [](const std::optional<Interval>& range, const std::optional<double>& value) {
        constexpr double hair = 1e-9;
        return range && value && (*value < range->low - hair || *value > range->high + hair);
    };
    const std::optional<Interval> soaks = rangeOf(soak);
    const std::optional<Interval> thicknesses = rangeOf(thickness);
    for (const std::size_t i : state.unread) {
        const Blade& blade = batch.blades[i];
        if (outside(soaks, soak(i))) state.uncovered.push_back({i, SampleGap::soak});
        if (outside(thicknesses, thickness(i))) state.uncovered.push_back({i, SampleGap::thickness});
        if (!filesFit(blade, batch.window)) state.uncovered.push_back({i, SampleGap::files});
        if (!blade.damage.empty()) state.uncovered.push_back({i, SampleGap::damaged});
        if (!batch.changedBy(blade).empty() || (!state.read.empty() && !sameTreatment(batch, blade, state.read)))
            state.uncovered.push_back({i, SampleGap::treatment});
        const bool excused = std::any_of(blade.excuses.begin(), blade.excuses.end(),
                                         [](const Excuse& one) { return indexOf(one.gate) <= indexOf(Gate::temper); });
        if (excused) state.uncovered.push_back({i, SampleGap::excused});
    }
    if (state.unread.empty()) return state;
    SamplingFloor floor = floorOf(measured);
    const SpreadPrior spread = shopSpread(batch.temper_history);
    floor.spread_sd = spread.sd;
    floor.spread_dof = spread.dof;
    const auto chance = sampleChance(means, batch.window, static_cast<int>(state.unread.size()), floor);
    if (!chance) return state;
    state.chance = *chance;
    // Every blade of the sample passes itself, by a verified tester and of a steel that is not contradicted.
    const bool allPass = std::all_of(state.read.begin(), state.read.end(),
                                     [&](std::size_t i) { return verdicts.at(i, Gate::temper)->state == State::pass; });
    state.holds = batch.sample_asked && allPass && chance->all >= *batch.sample_asked;
    return state;
}

void sayWhatWasSampled(const Batch& batch, const SampleState& sample, BatchVerdicts& verdicts) {
    for (const std::size_t i : sample.unread) {
        std::optional<Verdict>& verdict = verdicts.blades[i][indexOf(Gate::temper)];
        if (!verdict || verdict->state != State::notYet || verdict->has(Fact::tempersMissing)) continue;
        const SampleChance chance = sample.chance.value_or(SampleChance{});
        const std::vector<double> numbers{chance.next, chance.all, double(sample.read.size()), *batch.sample_asked};
        if (sample.holds && sample.covers(i)) {
            verdict->state = State::excused;
            verdict->reasons.insert(verdict->reasons.begin(), {Fact::sampled, Tone::note, "M18", numbers, {}});
            verdict->next = {Act::done};
            continue;
        }
        if (sample.chance && !sample.holds)
            verdict->reasons.push_back({Fact::sampleTooWeak, Tone::caution, "M18", numbers, {}});
        for (const SampleState::Uncovered& gap : sample.uncovered) {
            if (gap.blade == i)
                verdict->reasons.push_back({Fact::sampleNotCovers, Tone::open, "M18", {}, {nameOf(gap.gap)}});
        }
    }
}

} // namespace rollcall
