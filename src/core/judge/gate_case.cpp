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

namespace {

// How often the metal has been changed before a reading, by the cold and by grinding, in its present round.
struct Changes {
    int cold = 0;
    int ground = 0;

    int both() const { return cold + ground; }
};

int coldsBefore(const Blade& blade, int temper, const std::optional<Instant>& at) {
    return static_cast<int>(std::count_if(blade.colds.begin(), blade.colds.end(), [&](const ColdTreatment& one) {
        return one.round == blade.round && one.after_temper == temper && at && one.at.utc_ms <= at->utc_ms;
    }));
}

Changes changesBefore(const Blade& blade, const Reading& reading, int temper) {
    return {coldsBefore(blade, temper, reading.time), reading.surface};
}

Changes changesToNow(const Blade& blade, int temper) {
    const auto colds = std::count_if(blade.colds.begin(), blade.colds.end(), [&](const ColdTreatment& one) {
        return one.round == blade.round && one.after_temper == temper;
    });
    return {static_cast<int>(colds), blade.surface};
}

std::vector<const Reading*> unstruckAt(const Blade& blade, Gate gate, int temper, Zone zone) {
    std::vector<const Reading*> readings;
    for (const Reading& reading : blade.readings) {
        if (reading.gate != gate || reading.round != blade.round || reading.struck || reading.zone != zone) continue;
        if (gate == Gate::temper && reading.after_temper.value_or(0) != temper) continue;
        readings.push_back(&reading);
    }
    return readings;
}

// Of some readings those before as many changes as any of them.
std::vector<const Reading*> latestOf(const Blade& blade, const std::vector<const Reading*>& readings, int temper) {
    if (blade.surface == 0 && blade.colds.empty()) return readings;
    int most = 0;
    for (const Reading* reading : readings) most = std::max(most, changesBefore(blade, *reading, temper).both());
    std::vector<const Reading*> latest;
    for (const Reading* reading : readings) {
        if (changesBefore(blade, *reading, temper).both() == most) latest.push_back(reading);
    }
    return latest;
}

} // namespace

std::vector<const Reading*> candidatesAt(const Blade& blade, Gate gate, int temper, Zone zone) {
    return latestOf(blade, unstruckAt(blade, gate, temper, zone), temper);
}

MetalState metalState(const Blade& blade, Gate gate, int temper) {
    MetalState state;
    if (blade.surface == 0 && blade.colds.empty()) return state;
    std::vector<const Reading*> all = unstruckAt(blade, gate, temper, Zone::edge);
    const std::vector<const Reading*> latest = latestOf(blade, all, temper);
    if (latest.empty()) return state;
    const Changes then = changesBefore(blade, *latest.front(), temper);
    const Changes now = changesToNow(blade, temper);
    state.outdated = now.both() > then.both();
    state.outdated_by_cold = now.cold > then.cold;
    std::erase_if(
        all, [&](const Reading* reading) { return std::find(latest.begin(), latest.end(), reading) != latest.end(); });
    state.before = latestOf(blade, all, temper);
    if (!state.before.empty()) state.before_cold = then.cold > changesBefore(blade, *state.before.front(), temper).cold;
    return state;
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
    input.enough = enoughReadings(batch.rule, batch.planOf(gate).planned_readings);
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

DamageClass classOf(const DamageMark& mark) {
    const std::string kind = lowered(mark.kind);
    const auto says = [&](const char* word) { return kind.find(word) != std::string::npos; };
    if (says("crack")) return DamageClass::stops;
    if (says("chip") || says("tip") || says("bend") || says("bent") || says("burn")) return DamageClass::repair;
    return says("break") || says("broke") || says("snap") ? DamageClass::stops : DamageClass::none;
}

std::optional<OpenCrack> openCrack(const Blade& blade) {
    std::optional<Instant> cleared; // when the last crack was ground out or found to be none
    for (const DamageMark& mark : blade.damage) {
        if (classOf(mark) != DamageClass::stops) continue;
        if (mark.cleared.empty()) return OpenCrack{mark.kind, mark.place_mm, mark.id};
        if (!cleared || cleared->utc_ms < mark.at.utc_ms) cleared = mark.at;
    }
    for (const EdgeRung& rung : blade.rungs) {
        if (rung.outcome == EdgeOutcome::crack && !rung.struck && rung.round == blade.round &&
            (!cleared || cleared->utc_ms < rung.at.utc_ms))
            return OpenCrack{"crack", rung.place_mm, {}};
    }
    return std::nullopt;
}

const DamageMark* openDamage(const Blade& blade) {
    const auto found = std::find_if(blade.damage.begin(), blade.damage.end(), [](const DamageMark& mark) {
        return classOf(mark) == DamageClass::repair && mark.cleared.empty();
    });
    return found == blade.damage.end() ? nullptr : &*found;
}

bool isUntempered(const Batch& batch, const Blade& blade) {
    if (batch.isFinished(blade) || lastTemper(blade) > 0) return false;
    const bool heated = std::any_of(blade.heats.begin(), blade.heats.end(),
                                    [&](const BladeHeat& heat) { return heat.round == blade.round; });
    const bool read = std::any_of(blade.readings.begin(), blade.readings.end(), [&](const Reading& reading) {
        return reading.gate == Gate::quench && reading.round == blade.round && !reading.struck;
    });
    const bool filed = std::any_of(blade.file_tests.begin(), blade.file_tests.end(), [&](const FileTest& test) {
        return test.gate == Gate::quench && test.round == blade.round;
    });
    // A batch that asks for Quench or Temper is of ours, and hardened before anything is tried on it.
    const bool ours = batch.planOf(Gate::quench).required || batch.planOf(Gate::temper).required;
    return heated || read || filed || (ours && blade.quenched_at.has_value());
}

int repeatedFiles(const Blade& blade, Gate gate) {
    const int temper = gate == Gate::temper ? lastTemper(blade) : 0;
    return static_cast<int>(std::count_if(blade.file_tests.begin(), blade.file_tests.end(), [&](const FileTest& t) {
        return t.gate == gate && t.round == blade.round && t.after_temper == temper && t.surface == Surface::bare;
    }));
}

std::string purposeThatHolds(const std::string& own, double hrc, const Tables& tables) {
    for (const PurposeProfile& profile : tables.purposes()) {
        if (profile.purpose != own && atLeast(hrc, profile.window_low) && atMost(hrc, profile.window_high))
            return profile.purpose;
    }
    return {};
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
