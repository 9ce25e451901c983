// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/gates.h"

#include "core/heat/quenchant.h"
#include "core/judge/blade_spread.h"
#include "core/judge/gate_case.h"
#include "core/judge/heat_book.h"
#include "core/judge/judged.h"
#include "core/judge/rules/readings.h"
#include "core/judge/standing.h"
#include "core/judge/steel_book.h"

namespace rollcall {

namespace {

// E64. What the next step may cost or hurt.
std::vector<StepCaution> cautionsOf(const ReadBlade& read, const Verdict& verdict) {
    std::vector<StepCaution> cautions;
    const Act act = verdict.next.act;
    const bool hardens = act == Act::reharden || act == Act::hardenFiner || act == Act::startHeat;
    if (read.finished) return cautions;
    if (isUntempered(read.batch, read.blade()) && act != Act::done) cautions.push_back(StepCaution::glassHard);
    if (const auto* temper = verdict.next.as<TemperStep>();
        temper != nullptr && temper->advised && read.grade != nullptr) {
        if (read.grade->embrittle_c.holds(temper->advised->temperature_c))
            cautions.push_back(StepCaution::brittleRange);
        if (verdict.has(Fact::overHump)) cautions.push_back(StepCaution::overHump);
    }
    if (hardens) cautions.push_back(StepCaution::crackFirst);
    if (hardens && (read.grade == nullptr || isOil(read.grade->quench_class)))
        cautions.push_back(StepCaution::quenchOil);
    if (act == Act::coldTreat) cautions.push_back(StepCaution::coldBurns);
    return cautions;
}

Verdict judgeRead(const ReadBlade& read) {
    const Case& c = read.c;
    std::optional<Verdict> excused = excusedVerdict(*c.blade, c.gate);
    Verdict verdict =
        excused ? std::move(*excused) : (c.gate == Gate::quench ? quenchGate() : temperGate()).judge(*c.blade, read);
    if (!excused) {
        // Beside a finished knife there is no oven.
        if (!read.finished) verdict.cautions.push_back(c.gate == Gate::quench ? Caution::glassHard : Caution::hotWork);
        constexpr double overhangs_mm = 200;
        if (c.blade->shape.length() > overhangs_mm) verdict.cautions.push_back(Caution::overhang);
    }
    verdict.planned = read.planned;
    verdict.taken = read.taken;
    verdict.verification = c.set.verification;
    verdict.measurement = c.measurement;
    if (!excused) verdict.next.cautions = cautionsOf(read, verdict);
    for (const Reading* r : c.set.standing) verdict.standing.push_back(r->id);
    for (const Reading* r : c.set.left_out) verdict.left_out.push_back(r->id);
    return verdict;
}

} // namespace

std::optional<MeasurementInput> measurementInput(const Batch& batch, std::size_t blade, Gate gate,
                                                 const Tables& tables) {
    return caseOf(batch, batch.blades[blade], gate, VerificationBook(batch, tables), tables).input;
}

std::vector<std::optional<double>> readMeans(const Batch& batch, const BatchVerdicts& verdicts) {
    std::vector<std::optional<double>> means(batch.blades.size());
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        // A blade that was tempered has its as-quenched readings behind it.
        for (const Gate gate : {Gate::temper, Gate::quench}) {
            const std::optional<Verdict>& verdict = verdicts.at(i, gate);
            if (gate == Gate::quench && lastTemper(batch.blades[i]) > 0) continue;
            if (!means[i] && verdict && verdict->measurement) means[i] = verdict->measurement->decided_mean;
        }
    }
    return means;
}

std::vector<Case> casesAt(const Batch& batch, Gate gate, const VerificationBook& book, const Tables& tables) {
    std::vector<Case> cases;
    cases.reserve(batch.blades.size());
    for (const Blade& blade : batch.blades) cases.push_back(caseOf(batch, blade, gate, book, tables));
    addPriors(batch, cases);
    return cases;
}

std::vector<Verdict> judgeReadings(const Batch& batch, const Tables& tables, const std::vector<Case>& cases,
                                   const std::vector<Outlook>& outlooks, const SteelBook& steel, const HeatBook& heats,
                                   const VerificationBook& runs, const std::map<std::size_t, Verdict>& heat,
                                   const std::optional<Instant>& now) {
    const Family family(batch, cases);
    std::vector<Verdict> verdicts;
    verdicts.reserve(cases.size());
    for (std::size_t i = 0; i < cases.size(); ++i) {
        const Siblings siblings = family.siblingsOf(cases[i]);
        verdicts.push_back(
            judgeRead(ReadBlade(batch, tables, cases[i], siblings, outlooks[i], steel.standsTo(i),
                                heats.soakInLimits(i), heat.contains(i) ? &heat.at(i) : nullptr, runs, now)));
    }
    return verdicts;
}

BatchVerdicts judgeBatch(const Batch& batch, const Tables& tables, const std::optional<Instant>& now) {
    return Judged(batch, tables, now).verdicts();
}

} // namespace rollcall
