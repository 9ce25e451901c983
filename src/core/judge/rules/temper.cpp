// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"
#include "core/judge/doubts.h"
#include "core/judge/rules/readings.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

namespace {

void rise(const ReadBlade& b, Findings& f) {
    for (const Rise& one : b.rises)
        f.say(Fact::roseAfterTemper, Tone::caution, "temper", {one.before, one.after, double(one.temper)});
}

void windowSet(const ReadBlade& b, Findings& f) {
    if (!b.window.low && !b.window.high) f.say(Fact::noWindowSet, Tone::open, "temper");
    const bool guards = b.batch.rule == DecisionRule::guarded || b.batch.rule == DecisionRule::chance;
    if (!b.window.low || !b.window.high || !guards || b.byFiles) return;
    const double width = *b.window.high - *b.window.low;
    // Before any reading nothing is known of the verification it will rest on: the best advised one is assumed.
    constexpr int advisedOnBlock = 5;
    const BlockBias bias = b.c.set.bias.value_or(BlockBias{0, advisedOnBlock});
    const double u = expectedUncertainty(b.c.set.tester, std::max(b.planned, b.taken), bias) * guardOf(b.batch.rule) /
                     guardOf(DecisionRule::guarded);
    if (width < 2 * u) f.say(Fact::windowTooNarrow, Tone::caution, "M15", {width, 2 * u});
}

void untied(const ReadBlade& b, Findings& f) {
    const auto count = std::count_if(b.blade().readings.begin(), b.blade().readings.end(), [&](const Reading& r) {
        return r.gate == Gate::temper && r.round == b.blade().round && !r.struck && !r.after_temper && b.logged > 0;
    });
    if (count > 0) f.say(Fact::readingsNotTiedToTemper, Tone::caution, "temper", {double(count)});
}

// M25. A colour on bare metal that the oven's number does not explain.
void colours(const ReadBlade& b, Findings& f) {
    const Blade& blade = b.blade();
    for (const ColourNote& seen : blade.colours) {
        if (seen.round != blade.round || seen.torch || b.grade == nullptr) continue;
        for (const Temper& temper : blade.tempers) {
            if (temper.round != seen.round || temper.number != seen.after_temper || !temper.temperature_c ||
                !temper.hours)
                continue;
            const auto range = colourRange(b.tables, seen.colour, *temper.hours, seen.surface,
                                           b.grade->chromium_percent, b.grade->isStainless());
            if (!range || range->chart_of_minutes || std::abs(offColour(*range, *temper.temperature_c)) <= colourOff_c)
                continue;
            f.say(Fact::colourAgainstOven, Tone::caution, "M25", {range->low_c, range->high_c, *temper.temperature_c},
                  {seen.colour});
        }
    }
}

// E44. A temper that would make sense in another unit is asked about once; a look into the blade answers it too.
void doubts(const ReadBlade& b, Findings& f) {
    for (const Temper& temper : b.blade().tempers) {
        if (temper.round != b.blade().round || !isDoubted(temper, b.grade, b.window)) continue;
        f.say(Fact::temperDoubted, b.outlook.look != nullptr ? Tone::note : Tone::caution, "E44",
              {*temper.temperature_c, fahrenheitToCelsius(*temper.temperature_c), double(temper.number)});
    }
}

void tempers(const ReadBlade& b, Findings& f) {
    // E20. Some makers temper there on purpose, and prove it.
    for (const Temper& temper : b.blade().tempers) {
        if (temper.round == b.blade().round && temper.temperature_c && b.grade != nullptr &&
            b.grade->embrittle_c.holds(*temper.temperature_c))
            f.say(Fact::temperEmbrittles, Tone::caution, "E20",
                  {*temper.temperature_c, *b.grade->embrittle_c.low, *b.grade->embrittle_c.high});
    }
    for (const SteelPart& part : b.batch.other_steels) { // E39
        const Grade* other = b.tables.grade(part.grade);
        for (const Temper& temper : b.blade().tempers) {
            if (other != nullptr && temper.round == b.blade().round && temper.temperature_c &&
                other->embrittle_c.holds(*temper.temperature_c))
                f.say(Fact::partEmbrittles, Tone::note, "E39",
                      {*temper.temperature_c, *other->embrittle_c.low, *other->embrittle_c.high},
                      {other->name, part.place});
        }
    }
    if (b.logged < b.needed) {
        f.say(Fact::tempersMissing, Tone::open, "temper", {double(b.logged), double(b.needed)});
        if (b.grade == nullptr && !b.batch.minimum_tempers)
            f.say(Fact::gradeUnknown, Tone::note, "tables", {}, {b.batch.grade});
        return;
    }
    if (b.taken == 0 && b.logged > 0 && !b.byFiles)
        f.say(Fact::noReadingsAfterLastTemper, Tone::open, "temper", {double(b.logged)});
    if (b.enoughReadings() && b.logged == 1 && b.needed == 1)
        f.say(Fact::oneTemperAdvised, Tone::note, "temper", {1, 2});
}

// M21. The next temper with what it promises; what stands in its way.
void nextTemper(const ReadBlade& b, Findings& f) {
    if (b.decidable() && b.outOfReach()) return f.say(Fact::noTemperReaches, Tone::bad, "M21");
    if (b.wantsTemper()) f.say(Fact::notYetDone, Tone::note, "temper");
    if (b.finished) return;
    // E52. Where its own evidence contradicts itself nothing can be predicted, and another temper leads nowhere.
    if (b.wantsTemper() && b.grade != nullptr && (!b.outlook.advice || !b.outlook.advice->best)) {
        f.say(Fact::temperBlind, Tone::caution, "E45");
        if (const SurpriseLook* look = b.outlook.look; look != nullptr && !f.has(Fact::surpriseLooked))
            f.say(Fact::surpriseLooked, Tone::note, "E27", {}, {look->reason, look->by});
    }
    const bool sound = b.c.set.verified && !(b.measured() != nullptr && b.measured()->agreement.uneven);
    const bool overHump = b.decidable() && b.at(Side::soft) && sound; // E53: then it is the way up
    // Asked by files there is advice only where their bracket lies above the window.
    const bool helps = sound && b.hotterHelps();
    if (helps)
        f.say(Fact::hotterHelps, Tone::note, "M21",
              {b.measured()->probability_inside, b.outlook.advice->best->chance_inside});
    if (!b.outlook.advice || !(b.logged < b.needed || (b.wantsTemper() && sound) || helps || overHump || b.byFiles))
        return;
    const auto told = [](const NextTemper& t) {
        return std::vector<double>{t.temperature_c, t.hours, t.expect.hrc, t.chance_inside, t.chance_soft};
    };
    const TemperAdvice& advice = *b.outlook.advice;
    if (advice.best) f.say(Fact::nextTemper, Tone::note, "M21", told(*advice.best));
    if (advice.best && !b.outlook.load.empty())
        f.say(Fact::temperLoad, Tone::note, "E22",
              {advice.best->temperature_c, b.outlook.alone_c.value_or(advice.best->temperature_c),
               b.outlook.split ? 1.0 : 0.0},
              b.outlook.load);
    if (advice.cautious) f.say(Fact::nextTemperCautious, Tone::note, "M21", told(*advice.cautious));
    for (const TemperWarning warning : advice.warnings) {
        if (warning == TemperWarning::insideEmbrittlement) {
            // Only inside what the grade is to avoid: it is offered, to be proved before release (E20).
            const bool inside = advice.best && b.grade->embrittle_c.holds(advice.best->temperature_c);
            f.say(Fact::temperAvoided, inside ? Tone::caution : Tone::note, "M21",
                  {*b.grade->embrittle_c.low, *b.grade->embrittle_c.high});
        }
        if (warning == TemperWarning::readAfter && advice.best)
            f.say(Fact::temperThenRead, Tone::note, "E21", {advice.best->temperature_c, advice.best->chance_soft});
        if (warning == TemperWarning::smallerStep && advice.best)
            f.say(Fact::smallerStep, Tone::note, "E43", {b.outlook.furthest_c, advice.best->temperature_c});
        if (warning == TemperWarning::overHump && advice.best)
            f.say(Fact::overHump, Tone::caution, "E53", {advice.best->temperature_c}, {b.grade->family});
        if (warning == TemperWarning::lowConfidence)
            f.say(Fact::lowConfidenceRow, Tone::note, "tables", {}, {"temper curve"});
    }
    if (!b.outlook.doubted_runs.empty()) f.say(Fact::runsDoubted, Tone::note, "E42", {}, b.outlook.doubted_runs);
    // E19. What moved the advice, or could not.
    constexpr double worthSaying = 1.2;
    if (b.outlook.scatter > worthSaying) f.say(Fact::curveScatters, Tone::note, "E19", {b.outlook.scatter});
    if (!b.outlook.doubted.empty()) f.say(Fact::siblingsDoubted, Tone::note, "E19", {}, b.outlook.doubted);
    if (b.outlook.not_believed > 0)
        f.say(Fact::readingNotBelieved, Tone::note, "E19", {double(b.outlook.not_believed), b.grade->as_quenched_max});
}

void softened(const ReadBlade& b, Findings& f) {
    if (!b.decidable() || !b.at(Side::soft)) return;
    if (b.finished) return f.say(Fact::ruleOutFalseSoftness, Tone::note, "temper");
    if (!f.has(Fact::overHump)) f.say(Fact::temperingCannotRaise, Tone::caution, "temper");
    if (!b.cleaned()) f.say(Fact::ruleOutFalseSoftness, Tone::note, "temper");
    if (b.measured()->outcome == Outcome::fail) sayWhatIsLeft(b, f);
    sayBeforeHardening(b, f);
}

void shifted(const ReadBlade& b, Findings& f) {
    if (!b.decidable() || b.siblings.judged < 2) return;
    const bool all = (b.at(Side::hard) && b.siblings.hard == b.siblings.judged) ||
                     (b.at(Side::soft) && b.siblings.soft == b.siblings.judged);
    if (all) f.say(Fact::siblingsShiftedToo, Tone::caution, "temper", {*b.siblings.median});
}

// A finished knife can be taken as it is, put to another use or sent back; nothing is done to its steel.
void finishedKnife(const ReadBlade& b, Findings& f) {
    if (b.finished) f.say(Fact::finishedKnife, Tone::note, "record");
}

GateRules<ReadBlade> temperRules() {
    GateRules<ReadBlade> gate{Gate::temper, evidenceRules(), {}};
    gate.rules.insert(
        gate.rules.end(),
        {{{"rise", "readings before and after a temper", {Fact::roseAfterTemper}}, rise},
         {{"window set", "a window", {Fact::noWindowSet, Fact::windowTooNarrow}}, windowSet},
         {{"untied", "tempers", {Fact::readingsNotTiedToTemper}}, untied},
         {{"colours", "a colour, its temper, a known grade", {Fact::colourAgainstOven}}, colours},
         windowRule(),
         {{"finished", "that it came finished", {Fact::finishedKnife}}, finishedKnife},
         {{"doubts", "a temper's temperature; a window", {Fact::temperDoubted}}, doubts},
         {{"tempers",
           "recipe or grade",
           {Fact::temperEmbrittles, Fact::partEmbrittles, Fact::tempersMissing, Fact::gradeUnknown,
            Fact::noReadingsAfterLastTemper, Fact::oneTemperAdvised}},
          tempers},
         {{"next temper",
           "a curve of the grade",
           {Fact::noTemperReaches, Fact::notYetDone, Fact::temperBlind, Fact::surpriseLooked, Fact::nextTemper,
            Fact::temperLoad, Fact::nextTemperCautious, Fact::temperThenRead, Fact::temperAvoided, Fact::hotterHelps,
            Fact::smallerStep, Fact::overHump, Fact::lowConfidenceRow, Fact::runsDoubted, Fact::curveScatters,
            Fact::siblingsDoubted, Fact::readingNotBelieved}},
          nextTemper},
         {{"softened",
           "a soft mean",
           {Fact::temperingCannotRaise, Fact::ruleOutFalseSoftness, Fact::softOnClean, Fact::rehardenLeft,
            Fact::useFits, Fact::noWayLeft, Fact::overHardeningLimit, Fact::gradeUnknown, Fact::fullAnnealFirst,
            Fact::normaliseFirst}},
          softened},
         {{"shifted", "two siblings read", {Fact::siblingsShiftedToo}}, shifted}});
    gate.decisions = firstRows();
    const auto add = [&](std::vector<DecisionRow> rows) {
        for (DecisionRow& row : rows) gate.decisions.push_back(std::move(row));
    };
    add({
        {{Fact::noWindowSet}, State::notYet, Act::setWindow},
        {{{Fact::temperDoubted, Tone::caution}}, State::notYet, Act::lookIntoSurprise},
        {{Fact::tempersMissing}, State::notYet, Act::logTemper},
        {{Fact::finishedKnife, Fact::filesSoft}, State::fail, Act::acceptOrReturn},
        {{Fact::finishedKnife, Fact::filesHard}, State::fail, Act::acceptOrReturn},
        {{Fact::finishedKnife, Fact::filesStay}, State::borderline, Act::acceptOrReturn},
    });
    add(filesAloneRows());
    add({
        {{tooFewReadings(), Fact::tooThin}, State::notYet, Act::readThicker},
        {{tooFewReadings()}, State::notYet, Act::takeReadings},
    });
    add(validityRows());
    add({
        {{Fact::finishedKnife, Fact::hard}, State::fail, Act::acceptOrReturn},
        {{Fact::finishedKnife, Fact::soft}, State::fail, Act::acceptOrReturn},
        // E45. What nobody has explained is looked into before anything is done to the blade.
        {{Fact::surpriseFar}, State::borderline, Act::lookIntoSurprise},
        {{Fact::notYetDone, uneven()}, State::borderline, Act::mapReadings, {{Fact::mapped}}},
        {{Fact::soft, uneven()}, State::borderline, Act::mapReadings, {{Fact::mapped}}},
        {{Fact::noTemperReaches}, State::fail, Act::makerDecides},
        {{Fact::temperBlind, Fact::surpriseLooked}, State::borderline, Act::makerDecides},
        {{Fact::temperBlind}, State::borderline, Act::lookIntoSurprise},
        {{Fact::notYetDone}, State::borderline, Act::temperAgain},
        {{Fact::soft, Fact::overHump}, State::borderline, Act::temperAgain},
    });
    add(softRows());
    add(settlingRows(Gate::temper));
    return gate;
}

} // namespace

const GateRules<ReadBlade>& temperGate() {
    static const GateRules<ReadBlade> gate = temperRules();
    return gate;
}

GateTable temperTable() {
    return temperGate().table();
}

} // namespace rollcall
