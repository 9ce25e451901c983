// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"
#include "core/heat/quenchant.h"
#include "core/judge/rules/readings.h"
#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

namespace {

constexpr double muchLower = 3.0; // HRC: beyond what a short soak or warm oil explains

bool isSoft(const ReadBlade& b) {
    return b.enoughReadings() && b.at(Side::soft);
}

void standing(const ReadBlade& b, Findings& f) {
    constexpr double snapTemperAfterMinutes = 60;
    if (!b.now || !b.blade().quenched_at || lastTemper(b.blade()) > 0) return;
    const double minutes = double(b.now->utc_ms - b.blade().quenched_at->utc_ms) / 60000.0;
    if (minutes > snapTemperAfterMinutes) f.say(Fact::longSinceQuench, Tone::caution, "quench", {minutes});
}

void minimum(const ReadBlade& b, Findings& f) {
    if (!b.window.low) return f.say(Fact::noMinimumSet, Tone::open, "quench");
    if (b.enoughReadings() && !b.batch.quench_minimum && b.grade != nullptr && b.grade->confidence == Confidence::low)
        f.say(Fact::lowConfidenceRow, Tone::note, "tables", {}, {"quench minimum"});
}

void gradeMaximum(const ReadBlade& b, Findings& f) {
    if (!b.enoughReadings() || b.grade == nullptr) return;
    const Measurement& m = *b.measured();
    if (atMost(m.decided_mean - m.decided_uncertainty, b.grade->as_quenched_max)) return;
    // E29. By a tester verified near it the number is true: then it is the library, the steel or the cold.
    constexpr double near = 5;
    const bool sure = b.c.set.verified && b.c.set.block_hrc && std::abs(*b.c.set.block_hrc - m.decided_mean) <= near;
    f.say(sure ? Fact::aboveGradeVerified : Fact::aboveGradeMaximum, Tone::caution, "quench",
          {m.decided_mean, b.grade->as_quenched_max});
}

void scatter(const ReadBlade& b, Findings& f) {
    if (!isSoft(b)) return;
    const double spread = rangeOf(b.c.set.hrc);
    if (spread > muchLower) f.say(Fact::scatterOverThree, Tone::caution, "quench", {spread});
}

// Low along the edge but not elsewhere: thin metal cooled before the quench, or lost its carbon.
void edgeLine(const ReadBlade& b, Findings& f) {
    if (!isSoft(b)) return;
    constexpr double band_mm = 4.0;
    std::vector<double> along;
    std::vector<double> elsewhere;
    for (std::size_t i = 0; i < b.c.set.standing.size(); ++i) {
        const std::optional<Spot>& spot = b.c.set.standing[i]->spot;
        if (!spot) return;
        const bool onLine = spot->x_mm >= 0 && std::abs(spot->y_mm - b.blade().shape.reading_line_mm) <= band_mm;
        (onLine ? along : elsewhere).push_back(b.c.set.hrc[i]);
    }
    if (along.empty() || elsewhere.empty()) return;
    if (meanOf(elsewhere) - meanOf(along) > 3.5 * b.c.set.tester.pooled_sd)
        f.say(Fact::edgeLineLow, Tone::caution, "quench", {meanOf(along), meanOf(elsewhere)});
}

void company(const ReadBlade& b, Findings& f) {
    if (!isSoft(b) || b.siblings.judged == 0) return;
    if (2 * b.siblings.soft < b.siblings.judged)
        return f.say(Fact::onlyThisBladeLow, Tone::note, "quench", {*b.siblings.median});
    const double shortfall = *b.window.low - std::min(*b.siblings.median, b.measured()->decided_mean);
    f.say(shortfall > muchLower ? Fact::allBladesVeryLow : Fact::allBladesLow, Tone::caution, "quench", {shortfall});
}

// E26. What the Heat gate knows accounts for the softness, the slowest medium first.
void heatCauses(const ReadBlade& b, Findings& f) {
    if (!isSoft(b)) return;
    const BladeHeat* heat = nullptr;
    for (const BladeHeat& one : b.blade().heats) {
        if (one.round == b.blade().round) heat = &one;
    }
    for (const HeatRun& run : b.batch.heat_runs) {
        if (heat != nullptr && run.id == heat->run && b.grade != nullptr && quenchesTooSlowly(run.medium, *b.grade))
            f.say(Fact::heatExplains, Tone::caution, "E26", {}, {"medium", run.medium});
    }
    if (b.heat == nullptr) return;
    for (const auto& [fact, name] : {std::pair(Fact::soakUnder, "soak"), std::pair(Fact::transferLate, "transfer"),
                                     std::pair(Fact::quenchantOff, "quenchant")}) {
        if (b.heat->has(fact)) f.say(Fact::heatExplains, Tone::caution, "E26", {}, {name});
    }
}

void before(const ReadBlade& b, Findings& f) {
    if (!isSoft(b)) return;
    if (b.grade != nullptr && b.grade->needsFullAnneal()) f.say(Fact::softAlloyTwoCauses, Tone::caution, "quench");
    sayBeforeHardening(b, f);
}

GateRules<ReadBlade> quenchRules() {
    GateRules<ReadBlade> gate{Gate::quench, evidenceRules(), {}};
    gate.rules.insert(
        gate.rules.end(),
        {{{"standing", "the quench's time", {Fact::longSinceQuench}}, standing},
         {{"minimum", "a minimum of batch or grade", {Fact::noMinimumSet, Fact::lowConfidenceRow}}, minimum},
         windowRule(),
         {{"grade's maximum", "the readings; a known grade", {Fact::aboveGradeMaximum, Fact::aboveGradeVerified}},
          gradeMaximum},
         {{"scatter", "a soft mean", {Fact::scatterOverThree}}, scatter},
         {{"edge line", "a soft mean; places", {Fact::edgeLineLow}}, edgeLine},
         {{"company",
           "a soft mean; siblings read",
           {Fact::onlyThisBladeLow, Fact::allBladesLow, Fact::allBladesVeryLow}},
          company},
         {{"heat's causes", "a soft mean; the Heat gate", {Fact::heatExplains}}, heatCauses},
         {{"before hardening",
           "a soft mean",
           {Fact::softAlloyTwoCauses, Fact::overHardeningLimit, Fact::gradeUnknown, Fact::fullAnnealFirst,
            Fact::normaliseFirst}},
          before}});
    gate.decisions = {
        {{Fact::noMinimumSet}, State::notYet, Act::setWindow},
    };
    for (DecisionRow& row : filesAloneRows()) gate.decisions.push_back(std::move(row));
    for (DecisionRow& row : std::vector<DecisionRow>{
             {{tooFewReadings(), Fact::tooThin}, State::notYet, Act::readThicker},
             {{tooFewReadings()}, State::notYet, Act::takeReadings},
             {{Fact::aboveGradeMaximum}, State::borderline, Act::verifyOnHarderBlock},
         })
        gate.decisions.push_back(std::move(row));
    for (DecisionRow& row : validityRows()) gate.decisions.push_back(std::move(row));
    for (DecisionRow& row : std::vector<DecisionRow>{
             {{Fact::soft, Fact::scatterOverThree}, State::fail, Act::mapReadings},
             {{Fact::soft, Fact::heatExplains}, State::fail, Act::lookAtHeat},
             {{Fact::soft, Fact::allBladesVeryLow}, State::fail, Act::backToSteel},
             {{Fact::soft}, State::fail, Act::falseSoftness},
         })
        gate.decisions.push_back(std::move(row));
    for (DecisionRow& row : settlingRows()) gate.decisions.push_back(std::move(row));
    return gate;
}

} // namespace

const GateRules<ReadBlade>& quenchGate() {
    static const GateRules<ReadBlade> gate = quenchRules();
    return gate;
}

GateTable quenchTable() {
    return quenchGate().table();
}

} // namespace rollcall
