// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/measurement.h"

#include "core/base/number.h"
#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <random>

namespace rollcall {

namespace {

constexpr int mostReadings = 10;

Outcome decideGuarded(const Window& window, double c, double u, int n) {
    if (window.low && !atLeast(c + u, *window.low)) return Outcome::fail;
    if (window.high && !atMost(c - u, *window.high)) return Outcome::fail;
    const bool inside = (!window.low || atLeast(c - u, *window.low)) && (!window.high || atMost(c + u, *window.high));
    return inside && n >= 2 ? Outcome::pass : Outcome::borderline;
}

Budget budgetOf(const MeasurementInput& input, int n, std::optional<double> sd) {
    std::vector<BudgetPart> parts = budgetParts(input.tester, n, sd, input.bias);
    if (input.conversion_u > 0) {
        parts.push_back({BudgetPart::Source::conversion, input.conversion_u, std::numeric_limits<double>::infinity()});
    }
    if (input.convex_u > 0)
        parts.push_back({BudgetPart::Source::convex, input.convex_u, std::numeric_limits<double>::infinity()});
    constexpr double endless = std::numeric_limits<double>::infinity();
    if (input.unknown_error_u > 0) parts.push_back({BudgetPart::Source::unknownError, input.unknown_error_u, endless});
    if (input.block_distance_u > 0)
        parts.push_back({BudgetPart::Source::blockDistance, input.block_distance_u, endless});
    return combine(std::move(parts));
}

double biasOf(const MeasurementInput& input) {
    return input.bias ? input.bias->error : 0.0;
}

struct JudgedMean {
    Budget budget;
    double c = 0;
    double u = 0;
};

JudgedMean judgedMean(const MeasurementInput& input, double mean, int n, std::optional<double> sd) {
    JudgedMean judged;
    judged.budget = expanded(budgetOf(input, n, sd));
    const double bias = biasOf(input);
    judged.c = input.uncorrected ? mean : mean - bias;
    judged.u = judged.budget.expanded_uncertainty + (input.uncorrected ? std::abs(bias) : 0.0);
    return judged;
}

std::optional<int> moreReadings(const MeasurementInput& input, double c, int n, std::optional<double> sd) {
    for (int total = std::max(n + 1, 2); total <= mostReadings; ++total) {
        const Budget budget = budgetOf(input, total, sd);
        const double guard = input.uncorrected ? std::abs(biasOf(input)) : 0.0;
        // The coverage factor is never below the normal one, so most tries need no quantile.
        const double least = 1.9599 * budget.standard_uncertainty + guard;
        if (decideGuarded(input.window, c, least, total) == Outcome::borderline) continue;
        const double u = expanded(budget).expanded_uncertainty + guard;
        if (decideGuarded(input.window, c, u, total) != Outcome::borderline) return total - n;
    }
    return std::nullopt;
}

Result<Done> validate(const MeasurementInput& input) {
    if (input.readings.empty()) return Error{ErrorKind::range, "readings", "at least one reading is needed"};
    for (const double r : input.readings) {
        if (!std::isfinite(r)) return Error{ErrorKind::range, "readings", "a reading is not a number"};
    }
    const Window& window = input.window;
    if (!window.low && !window.high) return Error{ErrorKind::range, "window", "a window or a minimum is needed"};
    if ((window.low && !std::isfinite(*window.low)) || (window.high && !std::isfinite(*window.high)) ||
        (window.low && window.high && !(*window.low <= *window.high))) {
        return Error{ErrorKind::range, "window", "the lower limit must not be above the upper one"};
    }
    if (!(std::isfinite(input.allowance) && input.allowance >= 0)) {
        return Error{ErrorKind::range, "allowance", "the allowance must not be negative"};
    }
    const Result<Budget> probe =
        uncertaintyBudget(input.tester, static_cast<int>(input.readings.size()), std::nullopt, input.bias);
    if (!probe) return probe.error();
    return Done{};
}

} // namespace

Outcome decide(const Window& window, DecisionRule rule, double allowance, double c, double u, int n) {
    if (rule == DecisionRule::guarded) return decideGuarded(window, c, u, n);
    const double shown = roundToTenth(c);
    const auto outside = [&](double extra) {
        return (window.low && !atLeast(shown, *window.low - extra)) ||
               (window.high && !atMost(shown, *window.high + extra));
    };
    if (!outside(0)) return Outcome::pass;
    return rule == DecisionRule::allowance && !outside(allowance) ? Outcome::borderline : Outcome::fail;
}

Side sideOf(const Window& window, double c) {
    if (window.low && !atLeast(c, *window.low)) return Side::soft;
    if (window.high && !atMost(c, *window.high)) return Side::hard;
    return Side::inside;
}

double chanceInside(const Window& window, double c, double u, double dof) {
    const double below = window.low ? tProbability((*window.low - c) / u, dof) : 0.0;
    const double under = window.high ? tProbability((*window.high - c) / u, dof) : 1.0;
    return under - below;
}

Result<Measurement> measure(const MeasurementInput& input) {
    if (const Result<Done> valid = validate(input); !valid) return valid.error();
    Measurement m;
    m.n = static_cast<int>(input.readings.size());
    m.mean = meanOf(input.readings);
    m.corrected_mean = m.mean - biasOf(input);
    m.sd = sampleSd(input.readings);
    JudgedMean judged = judgedMean(input, m.mean, m.n, m.sd);
    m.budget = std::move(judged.budget);
    m.decided_mean = judged.c;
    m.decided_uncertainty = judged.u;
    m.probability_inside = chanceInside(input.window, m.corrected_mean, m.budget.standard_uncertainty, m.budget.dof);
    m.side = sideOf(input.window, judged.c);
    const Outcome byMean = decide(input.window, input.rule, input.allowance, judged.c, judged.u, m.n);
    m.outcome = byMean;

    m.agreement = agreementOf(input.readings, input.tester.pooled_sd, input.tester.pooled_dof, input.tester.resolution);
    if (m.agreement.mean_without_flagged) {
        std::vector<double> kept;
        for (std::size_t i = 0; i < input.readings.size(); ++i) {
            const auto& flagged = m.agreement.flagged;
            if (std::find(flagged.begin(), flagged.end(), i) == flagged.end()) kept.push_back(input.readings[i]);
        }
        const int n = static_cast<int>(kept.size());
        const JudgedMean without = judgedMean(input, meanOf(kept), n, sampleSd(kept));
        m.changed_by_flagged = decide(input.window, input.rule, input.allowance, without.c, without.u, n) != byMean;
    }
    if (m.changed_by_flagged || m.agreement.uneven || m.agreement.disagree) m.outcome = Outcome::borderline;

    if (m.outcome != Outcome::borderline)
        m.more_readings = 0;
    else if (m.agreement.uneven)
        m.more_readings = std::nullopt; // a mean of more readings would say no more of it (E4)
    else if (m.agreement.disagree)
        m.more_readings = 1;
    else if (byMean == Outcome::borderline)
        m.more_readings = moreReadings(input, judged.c, m.n, m.sd);
    return m;
}

double chanceSettledBy(const MeasurementInput& input, int further) {
    constexpr int draws = 400;
    std::mt19937_64 random(20260101);
    std::normal_distribution<double> normal;
    const int n = static_cast<int>(input.readings.size());
    const double mean = meanOf(input.readings);
    const double sigma = std::max(sampleSd(input.readings).value_or(0.0), input.tester.pooled_sd);
    int settled = 0;
    std::vector<double> all(input.readings);
    for (int draw = 0; draw < draws; ++draw) {
        all.resize(static_cast<std::size_t>(n));
        const double truth = mean + normal(random) * sigma / std::sqrt(n);
        for (int i = 0; i < further; ++i) all.push_back(truth + normal(random) * sigma);
        const JudgedMean judged = judgedMean(input, meanOf(all), n + further, sampleSd(all));
        if (decideGuarded(input.window, judged.c, judged.u, n + further) != Outcome::borderline) ++settled;
    }
    return static_cast<double>(settled) / draws;
}

double expectedUncertainty(const TesterModel& tester, int n, const std::optional<BlockBias>& bias) {
    return expanded(combine(budgetParts(tester, n, std::nullopt, bias))).expanded_uncertainty;
}

} // namespace rollcall
