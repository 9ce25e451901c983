// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/gate_case.h"

#include "core/base/number.h"
#include "core/measure/statistics.h"
#include "core/measure/verification.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

int rankOf(Tone tone) {
    switch (tone) {
    case Tone::bad:
    case Tone::caution:
        return 0;
    case Tone::open:
        return 1;
    case Tone::note:
        return 2;
    case Tone::good:
        return 3;
    case Tone::unseen:
        return 4;
    }
    return 4;
}

Verdict emptyVerdict(const Blade& blade, Gate gate) {
    Verdict verdict;
    verdict.gate = gate;
    verdict.blade = blade.id;
    verdict.tables_edition = Tables::edition;
    return verdict;
}

std::optional<Verdict> excusedVerdict(const Blade& blade, Gate gate) {
    const auto excuse =
        std::find_if(blade.excuses.begin(), blade.excuses.end(), [&](const Excuse& e) { return e.gate == gate; });
    const bool isExcused = excuse != blade.excuses.end();
    if (!isExcused && !isOutBefore(blade, gate)) return std::nullopt;
    Verdict verdict = emptyVerdict(blade, gate);
    verdict.state = State::excused;
    if (isExcused)
        verdict.reasons.push_back({Fact::excusedBecause, Tone::note, "record", {}, {excuse->reason, excuse->by}});
    else
        verdict.reasons.push_back({Fact::outBecause, Tone::note, "record", {}, {blade.fate->reason}});
    verdict.next = {Act::out};
    return verdict;
}

std::vector<const Reading*> candidatesAt(const Blade& blade, Gate gate, int temper, Zone zone) {
    std::vector<const Reading*> candidates;
    for (const Reading& reading : blade.readings) {
        if (reading.gate != gate || reading.round != blade.round || reading.struck || reading.zone != zone) continue;
        if (gate == Gate::temper && reading.after_temper.value_or(0) != temper) continue;
        candidates.push_back(&reading);
    }
    return candidates;
}

namespace {

double alloyOf(const Batch& batch, const Tables& tables) {
    const Grade* grade = tables.grade(batch.grade);
    return grade != nullptr ? grade->alloy_percent : 0.0;
}

} // namespace

Case caseOf(const Batch& batch, const Blade& blade, Gate gate, const VerificationBook& book, const Tables& tables) {
    return caseAfter(batch, blade, gate, gate == Gate::temper ? lastTemper(blade) : 0, book, tables);
}

Case caseAfter(const Batch& batch, const Blade& blade, Gate gate, int temper, const VerificationBook& book,
               const Tables& tables, Zone zone) {
    Case c;
    c.blade = &blade;
    c.gate = gate;
    const std::vector<const Reading*> candidates = candidatesAt(blade, gate, temper, zone);
    if (candidates.empty()) return c;
    c.set = standingReadings(batch, blade, candidates, book, tables, alloyOf(batch, tables));
    if (c.set.hrc.empty()) return c;
    const Window window = windowOf(batch, blade, gate, tables);
    if (!window.low && !window.high) return c;
    MeasurementInput input;
    input.readings = c.set.hrc;
    input.tester = c.set.tester;
    input.bias = c.set.bias;
    input.window = window;
    input.rule = batch.rule;
    input.uncorrected = batch.uncorrected;
    input.conversion_u = c.set.conversion_u;
    input.convex_u = c.set.convex_u;
    input.aged_u = c.set.aged_u;
    const Result<ToleranceBand> allowed = toleranceFor(tables, "HRC", meanOf(c.set.hrc));
    // E1. Where no run tells the tester's error: its usual one, else what E18 allows, evenly spread.
    if (!c.set.bias && allowed) {
        const double known = c.set.usual ? c.set.usual->unknownError() : allowed->max_error / std::sqrt(3.0);
        // Never better than two readings on a block would be.
        input.unknown_error_u =
            std::max(known, std::hypot(c.set.tester.block_uncertainty / 2.0, c.set.tester.pooled_sd / std::sqrt(2.0)));
    }
    constexpr double perHrcAway = 0.03; // E2: judgement, low confidence
    if (c.set.block_hrc) input.block_distance_u = perHrcAway * std::abs(*c.set.block_hrc - meanOf(c.set.hrc));
    if (batch.allowance) {
        input.allowance = *batch.allowance;
    } else if (allowed) {
        input.allowance = allowed->max_error;
    }
    Result<Measurement> measurement = measure(input);
    if (measurement) c.measurement = std::move(measurement).value();
    c.input = std::move(input);
    return c;
}

int lastTemper(const Blade& blade) {
    int last = 0;
    for (const Temper& temper : blade.tempers) {
        if (temper.round == blade.round) last = std::max(last, temper.number);
    }
    return last;
}

const FileTest* fileTestAt(const Blade& blade, Gate gate) {
    const int temper = gate == Gate::temper ? lastTemper(blade) : 0;
    const auto test = std::find_if(blade.file_tests.rbegin(), blade.file_tests.rend(), [&](const FileTest& t) {
        return t.gate == gate && t.round == blade.round && t.after_temper == temper;
    });
    return test == blade.file_tests.rend() ? nullptr : &*test;
}

const DamageMark* openCrack(const Blade& blade) {
    const auto found = std::find_if(blade.damage.begin(), blade.damage.end(), [](const DamageMark& mark) {
        return (mark.kind == "crack" || mark.kind == "break") && mark.cleared.empty();
    });
    return found == blade.damage.end() ? nullptr : &*found;
}

bool isOutBefore(const Blade& blade, Gate gate) {
    return blade.fate && indexOf(blade.fate->gate) < indexOf(gate);
}

int requiredTempers(const Batch& batch, const Blade& blade, const Tables& tables) {
    std::optional<double> hottest;
    for (const Temper& temper : blade.tempers) {
        if (temper.round == blade.round && temper.temperature_c)
            hottest = std::max(hottest.value_or(*temper.temperature_c), *temper.temperature_c);
    }
    const BladeClaim claim = batch.claimOf(blade);
    if (claim.minimum_tempers) return *claim.minimum_tempers;
    // E39: of several steels the one that needs most.
    int most = 0;
    for (const SteelPart& part : batch.other_steels) {
        if (const Grade* other = tables.grade(part.grade)) most = std::max(most, other->minimumTempers(hottest));
    }
    const Grade* grade = tables.grade(claim.grade);
    if (grade != nullptr) return std::max(most, grade->minimumTempers(hottest));
    if (most > 0) return most;
    return hottest && atLeast(*hottest, 450.0) ? 2 : 1;
}

Window windowOf(const Batch& batch, const Blade& blade, Gate gate, const Tables& tables) {
    const BladeClaim claim = batch.claimOf(blade);
    if (gate != Gate::quench) return *claim.window;
    if (claim.quench_minimum) return {claim.quench_minimum, std::nullopt};
    const Grade* grade = tables.grade(claim.grade);
    return grade != nullptr ? Window{grade->as_quenched_min, std::nullopt} : Window{};
}

} // namespace rollcall
