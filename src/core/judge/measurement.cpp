// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/measurement.h"

#include "core/base/number.h"
#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>
#include <limits>

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
    if (input.unknown_error_u > 0) // no block, no certificate: its part is in what is not known
        std::erase_if(parts, [](const BudgetPart& part) { return part.source == BudgetPart::Source::certificate; });
    if (input.conversion_u > 0) {
        parts.push_back({BudgetPart::Source::conversion, input.conversion_u, std::numeric_limits<double>::infinity()});
    }
    if (input.convex_u > 0)
        parts.push_back({BudgetPart::Source::convex, input.convex_u, std::numeric_limits<double>::infinity()});
    constexpr double endless = std::numeric_limits<double>::infinity();
    if (input.unknown_error_u > 0) parts.push_back({BudgetPart::Source::unknownError, input.unknown_error_u, endless});
    if (input.aged_u > 0) parts.push_back({BudgetPart::Source::aged, input.aged_u, endless});
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

// The chance that the guarded rule decides after so many further readings: the mean to come, foretold from those so far
// (Student's t with their scatter), has to leave its interval inside the window or outside it.
double chanceSettled(const MeasurementInput& input, double c, int n, std::optional<double> sd, int further) {
    const int total = n + further;
    const JudgedMean then = judgedMean(input, meanOf(input.readings), total, sd);
    const double spread = std::max(sd.value_or(0.0), input.tester.pooled_sd);
    const double step = spread * std::sqrt(double(further) / (double(n) * total));
    const double dof = input.tester.pooled_dof + n - 1;
    const auto below = [&](double limit) { return tProbability((limit - c) / step, dof); };
    const bool byChance = input.rule == DecisionRule::chance;
    const double u = then.budget.standard_uncertainty;
    const double passes = byChance ? tQuantile(chanceThatPasses, then.budget.dof) * u : then.u;
    const double fails = byChance ? tQuantile(1 - chanceThatFails, then.budget.dof) * u : then.u;
    double chance = 0;
    if (input.window.low) chance += below(*input.window.low - fails);
    if (input.window.high) chance += 1 - below(*input.window.high + fails);
    const double from = input.window.low ? below(*input.window.low + passes) : 0.0;
    const double to = input.window.high ? below(*input.window.high - passes) : 1.0;
    return chance + std::max(0.0, to - from);
}

// E40. 'So many more would settle it' has to come true in eight of ten; a little is kept for readings that will
// disagree.
constexpr double oftenEnough = 0.84;

constexpr double worthwhile = 0.5; // as likely as not

std::optional<int> moreReadings(const MeasurementInput& input, double c, int n, std::optional<double> sd,
                                double often) {
    // The chance grows with their number: where all that may be asked do not suffice, none does.
    if (n >= mostReadings || chanceSettled(input, c, n, sd, mostReadings - n) < often) return std::nullopt;
    for (int total = std::max(n + 1, 2); total <= mostReadings; ++total) {
        if (chanceSettled(input, c, n, sd, total - n) >= often) return total - n;
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

Outcome byChance(double chance, int n) {
    if (chance < chanceThatFails) return Outcome::fail;
    return chance >= chanceThatPasses && n >= 2 ? Outcome::pass : Outcome::borderline;
}

// E59. The chance that the true mean is inside, with what the blade's siblings say of it. What both share, the tester's
// error, does not average out; siblings that the blade plainly does not belong to say nothing of it.
double chanceWith(const std::optional<MeanPrior>& prior, const Window& window, double c, const Budget& budget) {
    const double own = ownUncertainty(budget);
    constexpr double stranger = 3;
    if (!prior || std::abs(c - prior->mean) > stranger * std::hypot(own, prior->u))
        return chanceInside(window, c, budget.standard_uncertainty, budget.dof);
    const double weight = prior->u * prior->u / (prior->u * prior->u + own * own);
    const double mean = weight * c + (1 - weight) * prior->mean;
    return chanceInside(window, mean, std::hypot(std::sqrt(weight) * own, sharedUncertainty(budget)), budget.dof);
}

} // namespace

int enoughReadings(DecisionRule rule, int planned) {
    const bool byMeanAlone = rule == DecisionRule::plain || rule == DecisionRule::allowance;
    return byMeanAlone && planned == 1 ? 1 : 2;
}

Outcome decide(const Window& window, DecisionRule rule, double allowance, double c, double u, int n, int enough) {
    if (rule == DecisionRule::guarded) return decideGuarded(window, c, u, n);
    if (rule == DecisionRule::chance)
        return byChance(chanceInside(window, c, u / 2, std::numeric_limits<double>::infinity()), n);
    const double shown = roundToTenth(c);
    const auto outside = [&](double extra) {
        return (window.low && !atLeast(shown, *window.low - extra)) ||
               (window.high && !atMost(shown, *window.high + extra));
    };
    if (!outside(0)) return n >= enough ? Outcome::pass : Outcome::borderline;
    if (rule != DecisionRule::allowance || outside(allowance)) return Outcome::fail;
    return n >= enough ? Outcome::pass : Outcome::borderline; // E35: with allowance, which is said
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
    const JudgedMean judged = judgedMean(input, m.mean, m.n, m.sd);
    m.budget = judged.budget;
    m.decided_mean = judged.c;
    m.decided_uncertainty = judged.u;
    m.probability_inside = chanceWith(input.rule == DecisionRule::chance ? input.prior : std::nullopt, input.window,
                                      m.corrected_mean, m.budget);
    m.side = sideOf(input.window, judged.c);
    const auto decided = [&](const JudgedMean& mean, double chance, int n) {
        return input.rule == DecisionRule::chance
                   ? byChance(chance, n)
                   : decide(input.window, input.rule, input.allowance, mean.c, mean.u, n, input.enough);
    };
    const Outcome byMean = decided(judged, m.probability_inside, m.n);
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
        const double chance = chanceWith(input.prior, input.window, without.c, without.budget);
        m.changed_by_flagged = decided(without, chance, n) != byMean;
    }
    if (m.changed_by_flagged || m.agreement.uneven || m.agreement.disagree) m.outcome = Outcome::borderline;

    if (m.outcome != Outcome::borderline)
        m.more_readings = 0;
    else if (byMean == Outcome::borderline && !m.agreement.uneven &&
             !m.agreement.disagree) // where readings contradict each other, more of them promise nothing (E4)
    {
        m.more_readings = moreReadings(input, judged.c, m.n, m.sd, oftenEnough);
        if (!m.more_readings) m.may_settle = moreReadings(input, judged.c, m.n, m.sd, worthwhile);
    }
    return m;
}

double chanceSettledBy(const MeasurementInput& input, int further) {
    const int n = static_cast<int>(input.readings.size());
    const double mean = meanOf(input.readings);
    const double c = input.uncorrected ? mean : mean - biasOf(input);
    return chanceSettled(input, c, n, sampleSd(input.readings), further);
}

double expectedUncertainty(const TesterModel& tester, int n, const std::optional<BlockBias>& bias) {
    return expanded(combine(budgetParts(tester, n, std::nullopt, bias))).expanded_uncertainty;
}

double guardOf(DecisionRule rule) {
    constexpr double guarded = 2;     // U is about twice the standard uncertainty
    constexpr double byChance = 1.28; // of a normal mean the point with 90 % on one side
    return rule == DecisionRule::chance ? byChance : guarded;
}

Window meansThatPass(const TesterModel& tester, const Window& window, int readings, int on_block, DecisionRule rule) {
    const double u = expectedUncertainty(tester, std::max(2, readings), BlockBias{0, on_block}) * guardOf(rule) /
                     guardOf(DecisionRule::guarded);
    Window means;
    if (window.low) means.low = *window.low + u;
    if (window.high) means.high = *window.high - u;
    return means;
}

} // namespace rollcall
