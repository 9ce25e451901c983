// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"
#include "core/heat/quenchant.h"
#include "core/judge/heat_book.h"
#include "core/judge/rules/rules.h"

#include <cmath>

namespace rollcall {

namespace {

/// What is known of one blade at Heat.
struct HeatOfBlade {
    const HeatAnswer& answer;
    std::optional<bool> in_limits;
    const Grade* grade;
    const Batch& batch;
    const Tables& tables;

    /// It came out of the oven, and when is known.
    bool isThrough() const {
        return answer.run != nullptr && (answer.heat->in_s || answer.by_note) && answer.clock_minutes;
    }
    NextStep::With with(Act act, const Findings&) const {
        // What the long soak did to the grain is seen on a coupon that soaked as long (M30).
        if (act == Act::breakCoupon) return CouponStep{*answer.minutes()};
        return {};
    }
};

void marks(const HeatOfBlade& h, Findings& f) {
    if (h.answer.run == nullptr) return f.say(Fact::noHeatLogged, Tone::open, "heat");
    if (!h.isThrough()) f.say(h.answer.heat->in_s ? Fact::notOutYet : Fact::notInYet, Tone::open, "M22");
}

void soak(const HeatOfBlade& h, Findings& f) {
    if (!h.isThrough()) return;
    const double minutes = *h.answer.minutes();
    const double equivalent = h.answer.soak ? h.answer.soak->equivalent_minutes : 0;
    if (h.answer.by_note)
        f.say(Fact::soakByNote, Tone::note, "M22", {minutes});
    else if (!h.answer.soak)
        f.say(Fact::soakByClock, Tone::note, "M22", {minutes});
    else if (!h.answer.soak->by_steel)
        f.say(Fact::soakByOven, Tone::note, "M23");
    const std::optional<double>& least = h.answer.least_minutes;
    const std::optional<double>& most = h.answer.most_minutes;
    const char* rule = h.answer.by_grade ? "E46" : "M22";
    std::vector<std::string> whose;
    if (h.answer.by_grade) whose.push_back(h.grade->name);
    if (most && !atMost(minutes, *most))
        f.say(Fact::soakOver, Tone::caution, rule, {minutes, *most, equivalent}, whose);
    else if (least && !atLeast(minutes, *least))
        f.say(Fact::soakUnder, Tone::caution, rule, {minutes, *least}, whose);
    else
        f.say(Fact::soakGood, h.in_limits ? Tone::good : Tone::note, rule,
              {minutes, least.value_or(0), most.value_or(0), equivalent}, whose);
    if (h.answer.soak && h.answer.soak->gap_minutes > 0)
        f.say(Fact::traceGap, Tone::caution, "E46", {h.answer.soak->gap_minutes, h.answer.soak->gap_from_s / 60});
}

// E46. What was set and planned against what the grade asks for, also where nobody typed a limit.
void planned(const HeatOfBlade& h, Findings& f) {
    if (h.answer.run == nullptr) return;
    const HeatRun& run = *h.answer.run;
    if (h.grade == nullptr) return f.say(Fact::heatUnchecked, Tone::caution, "E46", {}, {h.batch.grade});
    const Range& range = h.grade->austenitise_c;
    if (range.known() && !range.holds(run.set_c)) {
        // Under its lower critical point nothing hardens; far above the range the grain has grown and the soak is lost.
        constexpr double barely = 10;
        constexpr double farAbove = 50;
        const bool hopeless = run.set_c < h.grade->ac1_c.value_or(0) + barely || run.set_c > *range.high + farAbove;
        f.say(Fact::setOutside, hopeless ? Tone::bad : Tone::caution, "E46", {run.set_c, *range.low, *range.high},
              {h.grade->name});
    }
    const Range& soak = h.grade->soak_minutes;
    const bool shorter = run.min_minutes && soak.known() && !atLeast(*run.min_minutes, *soak.low);
    const bool longer = run.max_minutes && soak.known() && !atMost(*run.max_minutes, *soak.high);
    if (shorter || longer)
        f.say(Fact::planOutside, Tone::caution, "E46",
              {run.min_minutes.value_or(0), run.max_minutes.value_or(0), *soak.low, *soak.high}, {h.grade->name});
    const double thickness = h.answer.thickness_mm;
    switch (fitOf(run.medium, *h.grade, thickness)) {
    case MediumFit::fits:
        break;
    case MediumFit::slow:
        f.say(Fact::mediumSlow, Tone::bad, "E46", {}, {run.medium, h.grade->name});
        break;
    case MediumFit::harsh:
        f.say(Fact::mediumHarsh, Tone::caution, "E46", {}, {run.medium, h.grade->name});
        break;
    case MediumFit::unknown:
        f.say(Fact::mediumUnknown, Tone::note, "E46", {}, {run.medium});
        break;
    }
    // Fast and medium oils flash from some 150 °C up, where nobody has said at what this one does.
    constexpr double usual = 150;
    constexpr double apart = 50;
    const auto flash = flashPointOf(run.medium);
    const double oil_c = std::max(h.answer.heat->quenchant_c.value_or(0), run.medium_c.value_or(0));
    if (isOil(run.medium) && oil_c > flash.value_or(usual) - apart) {
        std::vector<double> told{oil_c, apart};
        if (flash) told.push_back(*flash);
        f.say(Fact::oilHot, Tone::caution, "E46", std::move(told));
    }
}

void oven(const HeatOfBlade& h, Findings& f) {
    if (!h.isThrough()) return;
    const HeatRun& run = *h.answer.run;
    if (run.trace_damaged) f.say(Fact::traceDamaged, Tone::caution, "record");
    if (!h.answer.faults.empty())
        f.say(Fact::probeFault, Tone::note, "E25",
              {double(h.answer.faults.size()), h.answer.faults.front().c, h.answer.faults.front().s / 60});
    if (h.answer.soak && h.answer.soak->apart)
        f.say(Fact::soakApart, Tone::caution, "M22", {h.answer.soak->equivalent_minutes, h.answer.median_equivalent});
    // A factor of 1.5 in grain growth is what ten degrees make.
    if (h.answer.soak && h.answer.soak->peak_c > run.set_c + run.near_c + limitTolerance)
        f.say(Fact::ovenOvershot, Tone::caution, "M22", {h.answer.soak->peak_c, run.set_c});
    if (!run.oven_checked) f.say(Fact::ovenNeverChecked, Tone::note, "M22");
}

// How far apart the places are at which a mark can stand: the trace's samples, one second without any.
double cursorStep(const HeatOfBlade& h) {
    const auto& trace = h.answer.run->trace;
    if (!trace || trace->samples().size() < 2) return 1;
    return std::max(1.0, (trace->end() - trace->start()) / static_cast<double>(trace->samples().size() - 1));
}

void transfer(const HeatOfBlade& h, Findings& f) {
    if (!h.isThrough()) return;
    const auto seconds = h.answer.heat->transfer_s();
    if (!seconds || !h.answer.entering_c) return f.say(Fact::transferNotNoted, Tone::unseen, "M23");
    // E23. A time typed from a watch goes before the marks, which step with the samples of the trace.
    const auto marked = h.answer.heat->marked_transfer_s();
    if (marked && std::abs(*marked - *seconds) > cursorStep(h) + limitTolerance)
        f.say(Fact::transferApart, Tone::caution, "E23", {*seconds, *marked});
    if (h.grade != nullptr && h.grade->hardensSlowly()) {
        constexpr double slow = 60; // s
        if (*seconds > slow + limitTolerance) return f.say(Fact::transferSlow, Tone::caution, "E23", {*seconds, slow});
    } else if (const auto least = h.grade != nullptr ? h.grade->leastEntering_c() : std::nullopt) {
        if (*h.answer.entering_c < *least)
            return f.say(Fact::transferLate, Tone::caution, "E23",
                         {*seconds, *h.answer.entering_c, *least, *h.grade->ac1_c});
    }
    f.say(Fact::transferGood, Tone::good, "M23", {*seconds, *h.answer.entering_c});
}

void quenchant(const HeatOfBlade& h, Findings& f) {
    if (!h.isThrough()) return;
    const auto& at = h.answer.heat->quenchant_c;
    if (!at) return f.say(Fact::quenchantNotNoted, Tone::unseen, "heat");
    const HeatRun& run = *h.answer.run;
    if (run.medium_c && std::abs(*at - *run.medium_c) > run.medium_tolerance_c + limitTolerance)
        return f.say(Fact::quenchantOff, Tone::caution, "heat", {*at, *run.medium_c});
    f.say(Fact::quenchantGood, Tone::good, "heat", {*at});
}

// E39. Steels in one blade are soaked together: the window they share, and what the set point is to each.
void steels(const HeatOfBlade& h, Findings& f) {
    if (h.batch.other_steels.empty() || h.grade == nullptr) return;
    Range shared = h.grade->austenitise_c;
    std::vector<std::string> names{h.grade->name};
    std::vector<std::pair<const Grade*, std::string>> all{{h.grade, "edge"}};
    for (const SteelPart& part : h.batch.other_steels) {
        const Grade* other = h.tables.grade(part.grade);
        if (other == nullptr) {
            f.say(Fact::gradeUnknown, Tone::note, "tables", {}, {part.grade});
            continue;
        }
        names.push_back(other->name);
        all.emplace_back(other, part.place);
        shared.low = std::max(*shared.low, *other->austenitise_c.low);
        shared.high = std::min(*shared.high, *other->austenitise_c.high);
    }
    if (*shared.low <= *shared.high)
        f.say(Fact::steelsShare, Tone::note, "E39", {*shared.low, *shared.high}, names);
    else
        f.say(Fact::steelsShareNothing, Tone::caution, "E39", {}, names);
    if (h.answer.run == nullptr) return;
    for (const auto& [grade, place] : all) {
        if (!grade->austenitise_c.holds(h.answer.run->set_c))
            f.say(Fact::partOutside, Tone::caution, "E39",
                  {h.answer.run->set_c, *grade->austenitise_c.low, *grade->austenitise_c.high}, {grade->name, place});
        if (quenchesTooSlowly(h.answer.run->medium, *grade))
            f.say(Fact::partQuench, Tone::caution, "E39", {}, {h.answer.run->medium, grade->name, place});
    }
}

// What was written down against what the trace says: both shown, neither chosen.
void noted(const HeatOfBlade& h, Findings& f) {
    if (h.answer.run == nullptr) return;
    constexpr double degreesApart = 10;
    constexpr double minutesApart = 2;
    const double set = h.answer.run->set_c;
    const BladeHeat& heat = *h.answer.heat;
    if (heat.noted_c && std::abs(*heat.noted_c - set) > degreesApart + limitTolerance)
        f.say(Fact::noteAgainstTrace, Tone::caution, "heat", {*heat.noted_c, set}, {"temperature"});
    const auto minutes = h.answer.minutes();
    if (heat.noted_minutes && minutes && std::abs(*heat.noted_minutes - *minutes) > minutesApart + limitTolerance)
        f.say(Fact::noteAgainstTrace, Tone::caution, "heat", {*heat.noted_minutes, *minutes}, {"soak"});
}

GateRules<HeatOfBlade> heatRules() {
    const Condition off{"off its plan",
                        {Fact::traceDamaged, Fact::traceGap, Fact::oilHot, Fact::soakUnder, Fact::soakApart,
                         Fact::ovenOvershot, Fact::transferLate, Fact::transferSlow, Fact::transferApart,
                         Fact::quenchantOff, Fact::noteAgainstTrace}};
    return {
        Gate::heat,
        {{{"marks", "a heat of this round", {Fact::noHeatLogged, Fact::notInYet, Fact::notOutYet}}, marks},
         {{"soak",
           "both marks; a trace, else the clock",
           {Fact::soakByNote, Fact::soakByClock, Fact::soakByOven, Fact::soakOver, Fact::soakUnder, Fact::soakGood,
            Fact::traceGap}},
          soak},
         {{"against the grade",
           "a heat; a known grade",
           {Fact::heatUnchecked, Fact::setOutside, Fact::planOutside, Fact::mediumSlow, Fact::mediumHarsh,
            Fact::mediumUnknown, Fact::oilHot}},
          planned},
         {{"oven",
           "both marks; a trace",
           {Fact::traceDamaged, Fact::probeFault, Fact::soakApart, Fact::ovenOvershot, Fact::ovenNeverChecked}},
          oven},
         {{"transfer",
           "both marks",
           {Fact::transferNotNoted, Fact::transferApart, Fact::transferSlow, Fact::transferLate, Fact::transferGood}},
          transfer},
         {{"quenchant", "both marks", {Fact::quenchantNotNoted, Fact::quenchantOff, Fact::quenchantGood}}, quenchant},
         {{"steels",
           "another steel in the blade; known grades",
           {Fact::steelsShare, Fact::steelsShareNothing, Fact::partOutside, Fact::partQuench, Fact::gradeUnknown}},
          steels},
         {{"noted", "what was written down", {Fact::noteAgainstTrace}}, noted}},
        {{{Fact::noHeatLogged}, State::notYet, Act::startHeat},
         {{Condition{"not through", {Fact::notInYet, Fact::notOutYet}}}, State::notYet, Act::markBlade},
         {{Condition{"hopeless by the grade", {{Fact::setOutside, Tone::bad}, Fact::mediumSlow}}},
          State::fail,
          Act::makerDecides},
         {{Fact::soakOver}, State::borderline, Act::breakCoupon},
         {{Condition{"outside what the grade asks for",
                     {Fact::setOutside, Fact::planOutside, Fact::mediumHarsh, Fact::heatUnchecked}}},
          State::borderline,
          Act::makerDecides},
         {{off}, State::borderline, Act::makerDecides},
         {{}, State::pass, Act::done}}};
}

const GateRules<HeatOfBlade>& heatGate() {
    static const GateRules<HeatOfBlade> gate = heatRules();
    return gate;
}

} // namespace

GateTable heatTable() {
    return heatGate().table();
}

Verdict judgeHeat(const Batch& batch, std::size_t index, const HeatBook& book, const Tables& tables) {
    const Blade& blade = batch.blades[index];
    if (auto excused = excusedVerdict(blade, Gate::heat)) return *excused;
    Verdict verdict =
        heatGate().judge(blade, {book.of(index), book.soakInLimits(index), tables.grade(batch.grade), batch, tables});
    verdict.cautions = {Caution::hotWork, Caution::quenchOil};
    return verdict;
}

} // namespace rollcall
