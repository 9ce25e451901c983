// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/next_temper.h"

#include "core/base/number.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace rollcall {

namespace {

TemperBranch branchOf(const TemperCurve& curve, const Grade& grade, std::optional<double> hottest) {
    if (!curve.hump()) return TemperBranch::low;
    if (hottest) {
        return *hottest > curve.points()[curve.hump()->valley].temperature_c ? TemperBranch::high : TemperBranch::low;
    }
    return grade.isHighSpeed() ? TemperBranch::high : TemperBranch::low;
}

} // namespace

std::optional<bool> embrittles(const Grade& grade, double temperature_c) {
    if (!grade.embrittle_c.known()) return std::nullopt;
    return grade.embrittle_c.holds(temperature_c);
}

Result<NextTemper> predictTemper(const TemperModel& model, const TemperCandidate& blade, const TemperHeat& next,
                                 const Window& window) {
    std::vector<TemperHeat> tempers = blade.tempers;
    tempers.push_back(next);
    const Result<double> parameter = temperParameter(model.constant(), tempers);
    if (!parameter) return parameter.error();
    Result<TemperExpectation> expect =
        model.expect(*parameter, blade.heat, blade.blade, blade.hardened ? &*blade.hardened : nullptr);
    if (!expect) return expect.error();
    NextTemper answer{next.temperature_c, next.hours, std::move(expect).value(), 1, 0};
    answer.chance_soft = window.low ? answer.expect.chanceBelow(*window.low) : 0.0;
    const double below = window.high ? answer.expect.chanceBelow(*window.high) : 1.0;
    answer.chance_inside = below - answer.chance_soft;
    return answer;
}

Result<TemperAdvice> adviseTemper(const TemperModel& model, const Grade& grade, const TemperCandidate& blade,
                                  const TemperAim& aim) {
    if (!aim.window.low) return Error{ErrorKind::range, "", "the window needs a lower limit to aim at"};
    if (!(aim.hours > 0) || !(aim.oven.apart_c > 0))
        return Error{ErrorKind::range, "", "hours and the oven's step must be positive"};
    const TemperCurve& curve = model.curve();
    const double middle = aim.window.high ? (*aim.window.low + *aim.window.high) / 2.0 : *aim.window.low;
    std::optional<double> hottest;
    for (const TemperHeat& heat : blade.tempers)
        hottest = std::max(hottest.value_or(heat.temperature_c), heat.temperature_c);

    TemperAdvice advice;
    advice.branch = aim.branch.value_or(branchOf(curve, grade, hottest));
    const bool crosses =
        hottest && advice.branch == TemperBranch::high && branchOf(curve, grade, hottest) == TemperBranch::low;
    // The branch in parameters: up to the valley, or from the top of the hump on.
    double lowest = curve.lowest();
    double highest = curve.highest();
    if (curve.hump()) {
        if (advice.branch == TemperBranch::low)
            highest = curve.parameterOf(curve.hump()->valley);
        else
            lowest = curve.parameterOf(curve.hump()->peak);
    }
    const double step = aim.oven.apart_c;
    double from = temperatureFor(model.constant(), lowest, aim.hours);
    if (hottest) from = std::max(from, *hottest);
    const double nearest = aim.oven.nearest(from);
    const double first = nearest < from - limitTolerance ? nearest + step : nearest;
    const double last = temperatureFor(model.constant(), highest, aim.hours) + step;
    // E43. Only so far beyond what was read; a hump that nobody has read yet is the library's alone.
    constexpr double farthestStep_c = 40;
    std::optional<double> farthest;
    if (const auto read = model.furthestRead()) {
        const bool acrossHump = advice.branch == TemperBranch::high && *read < lowest - limitTolerance;
        if (!acrossHump) farthest = temperatureFor(model.constant(), *read, aim.hours) + farthestStep_c;
    }
    if (farthest && hottest) farthest = std::max(*farthest, *hottest);
    bool capped = false;    // hotter ones lie beyond that,
    bool shortened = false; // and one of them would do
    // E60. Where nothing was read of the grade yet, its table may be two points off: then less is risked.
    constexpr double untried = 0.4;
    const double risk = aim.softness_risk * (model.furthestRead() ? 1 : untried);

    bool avoided = false;
    bool wouldDo = false;
    bool reached = false;
    std::optional<NextTemper> coolest;
    std::optional<NextTemper> warmest;
    double softest = std::numeric_limits<double>::infinity(); // that this branch can give, also beyond what was read
    for (double t = first; t <= std::min(last, 750.0); t += step) {
        const auto answer = predictTemper(model, blade, {t, aim.hours}, aim.window);
        if (!answer || answer->expect.parameter > highest + limitTolerance) {
            if (reached) break; // beyond the branch's end
            continue;
        }
        reached = true;
        const bool highEnough = atLeast(answer->expect.hrc, middle);
        const bool keeps = highEnough && atMost(answer->chance_soft, risk);
        softest = std::min(softest, answer->expect.hrc);
        if (farthest && t > *farthest + limitTolerance) {
            capped = true;
            shortened = shortened || keeps;
            continue;
        }
        if (!aim.despite_embrittlement && embrittles(grade, t).value_or(false)) {
            avoided = true;
            wouldDo = wouldDo || keeps; // hotter than what was found so far, and what the grade is to avoid
            continue;
        }
        if (!coolest) coolest = *answer;
        warmest = *answer;
        if (keeps) {
            advice.best = *answer;
            wouldDo = false;
        }
        if (highEnough && atMost(answer->chance_soft, risk / 4.0)) advice.cautious = *answer;
    }
    const auto warn = [&](TemperWarning warning) { advice.warnings.push_back(warning); };
    if (!advice.best && wouldDo) {
        warn(TemperWarning::insideEmbrittlement);
    } else if (!advice.best && coolest) {
        warn(coolest->expect.hrc < *aim.window.low ? TemperWarning::alreadySoft : TemperWarning::onlyStepsTooSoft);
    } else if (!coolest && avoided) {
        warn(TemperWarning::insideEmbrittlement);
    }
    const double coolestUseful_c = aim.oven.nearest(150);
    if ((blade.tempers.empty() || crosses) &&
        (!advice.best || advice.best->temperature_c < coolestUseful_c - limitTolerance)) {
        std::optional<NextTemper> useful = advice.branch == TemperBranch::high ? coolest : std::nullopt;
        for (const double t : {coolestUseful_c, aim.oven.nearest(175)}) {
            if (advice.branch == TemperBranch::high) break;
            const auto answer = predictTemper(model, blade, {t, aim.hours}, aim.window);
            const bool keeps =
                answer && atLeast(answer->expect.hrc, middle) && atMost(answer->chance_soft, aim.softness_risk);
            if (answer && (!useful || keeps)) useful = *answer;
        }
        if (useful) {
            advice.best = useful;
            warmest = useful;
            warn(TemperWarning::readAfter);
        }
    }
    // Still too hard, and the mildest temper left most likely ends inside, if not nine times of ten: it is offered.
    if (!advice.best && coolest && !wouldDo && aim.window.high && atLeast(coolest->expect.hrc, middle)) {
        const auto now = temperParameter(model.constant(), blade.tempers);
        const auto is = now ? model.expect(*now, blade.heat, blade.blade, blade.hardened ? &*blade.hardened : nullptr)
                            : Result<TemperExpectation>(Error{});
        if (is && is->hrc > *aim.window.high) advice.best = warmest = coolest;
    }
    if (aim.due && !blade.tempers.empty() && !advice.best && coolest) {
        advice.best = coolest; // as hot as the one before
        warmest = coolest;
        warn(TemperWarning::readAfter);
    }
    if (advice.best) {
        const bool aimed = std::count(advice.warnings.begin(), advice.warnings.end(), TemperWarning::readAfter) == 0;
        const bool hopeless = capped && aim.window.high && softest > *aim.window.high;
        const bool atEnd = aimed && !capped && advice.best->temperature_c == warmest->temperature_c;
        if (hopeless || (atEnd && aim.window.high && advice.best->expect.hrc > *aim.window.high))
            warn(TemperWarning::staysHard);
        if (wouldDo) warn(TemperWarning::insideEmbrittlement);
        if (shortened && !hopeless) warn(TemperWarning::smallerStep);
        if (crosses) warn(TemperWarning::overHump);
        if (atEnd && !avoided) warn(TemperWarning::curveEnds);
        if (advice.best->expect.confidence == Confidence::low) warn(TemperWarning::lowConfidence);
        const auto inside = embrittles(grade, advice.best->temperature_c);
        if (inside.value_or(false) && !wouldDo) warn(TemperWarning::insideEmbrittlement);
        if (!inside) warn(TemperWarning::embrittlementUnknown);
        if (advice.cautious && advice.cautious->temperature_c == advice.best->temperature_c) advice.cautious.reset();
    }
    return advice;
}

std::vector<TemperLoad> temperLoads(const TemperModel& model, const std::vector<TemperCandidate>& blades,
                                    const std::vector<std::optional<TemperAdvice>>& advice, const Window& window) {
    std::vector<std::size_t> order;
    for (std::size_t i = 0; i < blades.size(); ++i) {
        if (i < advice.size() && advice[i] && advice[i]->best) order.push_back(i);
    }
    if (order.empty()) return {};
    const auto own = [&](std::size_t i) -> const NextTemper& { return *advice[i]->best; };
    std::stable_sort(order.begin(), order.end(),
                     [&](std::size_t a, std::size_t b) { return own(a).temperature_c < own(b).temperature_c; });
    constexpr double served = 0.5;
    // Blades from..to-1 at the coolest of their own temperatures: none of them softer than its advice allows.
    bool serves = true;
    const auto loadOf = [&](std::size_t from, std::size_t to) {
        TemperLoad load{own(order[from]).temperature_c, own(order[from]).hours, {}, 0};
        for (std::size_t k = from; k < to; ++k) {
            const std::size_t i = order[k];
            load.blades.push_back(i);
            const auto there = predictTemper(model, blades[i], {load.temperature_c, load.hours}, window);
            const double inside = there ? there->chance_inside : 0.0;
            load.expected_inside += inside;
            serves = serves && atLeast(inside, served * own(i).chance_inside);
        }
        return load;
    };
    TemperLoad one = loadOf(0, order.size());
    if (serves) return {std::move(one)};
    std::vector<TemperLoad> best{std::move(one)};
    double most = best.front().expected_inside;
    for (std::size_t split = 1; split < order.size(); ++split) {
        // Only where the temperature rises: blades of one temperature stay together.
        if (own(order[split]).temperature_c - own(order[split - 1]).temperature_c < limitTolerance) continue;
        TemperLoad cool = loadOf(0, split);
        TemperLoad hot = loadOf(split, order.size());
        const double inside = cool.expected_inside + hot.expected_inside;
        if (inside <= most + limitTolerance) continue;
        most = inside;
        best = {std::move(cool), std::move(hot)};
    }
    return best;
}

} // namespace rollcall
