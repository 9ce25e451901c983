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
    const bool close = b.c.set.block_hrc && std::abs(*b.c.set.block_hrc - m.decided_mean) <= near;
    const bool sure = b.c.set.verified && (close || b.c.set.verified_since);
    f.say(sure ? Fact::aboveGradeVerified : Fact::aboveGradeMaximum, Tone::caution, "quench",
          {m.decided_mean, b.grade->as_quenched_max});
}

void scatter(const ReadBlade& b, Findings& f) {
    if (!isSoft(b)) return;
    const double spread = rangeOf(b.c.set.hrc);
    if (spread > muchLower) f.say(Fact::scatterOverThree, Tone::caution, "quench", {spread});
}

// Softer than the scale begins: nothing of it was hardened.
void belowScale(const ReadBlade& b, Findings& f) {
    double hardest = 0;
    std::size_t below = 0;
    for (const Reading* reading : b.c.set.left_out) {
        const Result<RockwellScale> scale = b.tables.scale(reading->scale);
        if (!scale || !scale->low || reading->value >= *scale->low) continue;
        hardest = std::max(hardest, reading->value);
        ++below;
    }
    // One number among them that lies on the scale may be another blade's.
    if (below < 2 || below <= b.c.set.standing.size() || b.enoughReadings()) return;
    f.say(Fact::notHardened, Tone::bad, "quench", {double(below), hardest});
    if (b.steelLooked()) f.say(Fact::steelSettled, Tone::note, "steel");
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
    // The steel is asked about once.
    f.say(shortfall > muchLower && !b.steelLooked() ? Fact::allBladesVeryLow : Fact::allBladesLow, Tone::caution,
          "quench", {shortfall});
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

// E54. A hot or long soak dissolves what keeps austenite: cold turns it, a longer soak would only keep more. Only in
// steels whose martensite ends below the room's temperature, some 215 degrees under its start.
void austenite(const ReadBlade& b, Findings& f) {
    if (!isSoft(b) || b.grade == nullptr || !b.grade->austenitise_c.known()) return;
    constexpr double finish = 215;
    constexpr double room = 20;
    const bool keeps =
        b.grade->martensite_start_c ? *b.grade->martensite_start_c - finish < room : b.grade->needsFullAnneal();
    const bool treated = std::any_of(b.blade().colds.begin(), b.blade().colds.end(),
                                     [&](const ColdTreatment& one) { return one.round == b.blade().round; });
    if (!keeps || treated || b.blade().heats.empty()) return;
    const auto heat = std::find_if(b.blade().heats.rbegin(), b.blade().heats.rend(),
                                   [&](const BladeHeat& one) { return one.round == b.blade().round; });
    if (heat == b.blade().heats.rend()) return;
    const auto run = std::find_if(b.batch.heat_runs.begin(), b.batch.heat_runs.end(),
                                  [&](const HeatRun& one) { return one.id == heat->run; });
    if (run == b.batch.heat_runs.end()) return;
    const double top = *b.grade->austenitise_c.high;
    const bool hot = run->set_c > top + limitTolerance;
    const bool tooLong = b.heat != nullptr && b.heat->has(Fact::soakOver);
    if (hot || tooLong) f.say(Fact::keepsAustenite, Tone::caution, "E54", {run->set_c, top}, {hot ? "hot" : "long"});
}

void looked(const ReadBlade& b, Findings& f) {
    if (const SurpriseLook* look = b.blade().lookedAfter(0))
        f.say(Fact::surpriseLooked, Tone::note, "E27", {}, {look->reason, look->by});
}

void before(const ReadBlade& b, Findings& f) {
    if (!isSoft(b)) return;
    if (b.grade != nullptr && b.grade->needsFullAnneal()) f.say(Fact::softAlloyTwoCauses, Tone::caution, "quench");
    if (b.measured()->outcome == Outcome::fail) sayWhatIsLeft(b, f);
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
         {{"below the scale", "readings under the scale's range", {Fact::notHardened, Fact::steelSettled}}, belowScale},
         {{"scatter", "a soft mean", {Fact::scatterOverThree}}, scatter},
         {{"edge line", "a soft mean; places", {Fact::edgeLineLow}}, edgeLine},
         {{"company",
           "a soft mean; siblings read",
           {Fact::onlyThisBladeLow, Fact::allBladesLow, Fact::allBladesVeryLow}},
          company},
         {{"heat's causes", "a soft mean; the Heat gate", {Fact::heatExplains}}, heatCauses},
         {{"austenite", "a soft mean; the soak; a known grade", {Fact::keepsAustenite}}, austenite},
         {{"looked", "a look into it", {Fact::surpriseLooked}}, looked},
         {{"before hardening",
           "a soft mean",
           {Fact::softAlloyTwoCauses, Fact::softOnClean, Fact::rehardenLeft, Fact::useFits, Fact::noWayLeft,
            Fact::overHardeningLimit, Fact::gradeUnknown, Fact::fullAnnealFirst, Fact::normaliseFirst}},
          before}});
    gate.decisions = firstRows();
    const auto add = [&](std::vector<DecisionRow> rows) {
        for (DecisionRow& row : rows) gate.decisions.push_back(std::move(row));
    };
    add({{{Fact::noMinimumSet}, State::notYet, Act::setWindow}});
    add(filesAloneRows());
    add({
        {{tooFewReadings(), Fact::tooThin}, State::notYet, Act::readThicker},
        {{Fact::notHardened, Fact::surpriseLooked}, State::fail, Act::makerDecides},
        {{Fact::notHardened, Fact::steelSettled}, State::fail, Act::lookAtHeat},
        {{Fact::notHardened}, State::fail, Act::backToSteel},
        {{tooFewReadings()}, State::notYet, Act::takeReadings},
    });
    add(validityRows());
    add({
        {{Fact::aboveGradeMaximum}, State::borderline, Act::verifyOnHarderBlock},
        {{Fact::soft, Fact::scatterOverThree}, State::fail, Act::mapReadings, {{Fact::mapped}}},
        {{Fact::soft, Fact::keepsAustenite}, State::fail, Act::coldTreat},
        {{Fact::soft, Fact::heatExplains}, State::fail, Act::lookAtHeat, {{Fact::surpriseLooked}}},
        {{Fact::soft, Fact::allBladesVeryLow}, State::fail, Act::backToSteel},
    });
    add(softRows());
    add(settlingRows(Gate::quench));
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
