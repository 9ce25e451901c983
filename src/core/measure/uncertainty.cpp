// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/uncertainty.h"

#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace rollcall {

namespace {
constexpr double endless = std::numeric_limits<double>::infinity();
constexpr double reboundCoupling = 1.5; // HRC, for coupling to the anvil and the steel group: an estimate
} // namespace

TesterModel TesterModel::perPoint(double points) const {
    TesterModel model = *this;
    model.resolution /= points;
    model.pooled_sd /= points;
    model.block_uncertainty /= points;
    return model;
}

Budget combine(std::vector<BudgetPart> parts) {
    Budget budget;
    double squares = 0;
    double welch = 0;
    for (const BudgetPart& part : parts) {
        const double square = part.standard_uncertainty * part.standard_uncertainty;
        squares += square;
        welch += square * square / part.dof;
    }
    budget.parts = std::move(parts);
    budget.standard_uncertainty = std::sqrt(squares);
    budget.dof = welch > 0 ? squares * squares / welch : endless;
    return budget;
}

namespace {

double squares(const Budget& budget, bool own) {
    using Source = BudgetPart::Source;
    double sum = 0;
    for (const BudgetPart& part : budget.parts) {
        const bool alone =
            part.source == Source::resolution || part.source == Source::repeatability || part.source == Source::convex;
        if (alone == own) sum += part.standard_uncertainty * part.standard_uncertainty;
    }
    return sum;
}

} // namespace

double ownUncertainty(const Budget& budget) {
    return std::sqrt(squares(budget, true));
}

double sharedUncertainty(const Budget& budget) {
    return std::sqrt(squares(budget, false));
}

Budget expanded(Budget budget) {
    budget.coverage_factor = tQuantile(0.975, budget.dof);
    budget.expanded_uncertainty = budget.coverage_factor * budget.standard_uncertainty;
    return budget;
}

std::vector<BudgetPart> budgetParts(const TesterModel& tester, int n, std::optional<double> sd,
                                    const std::optional<BlockBias>& bias) {
    std::vector<BudgetPart> parts;
    parts.reserve(5);
    parts.push_back({BudgetPart::Source::certificate, tester.block_uncertainty / 2.0, endless});
    if (bias) {
        parts.push_back({BudgetPart::Source::blockMean, bias->u.value_or(tester.pooled_sd / std::sqrt(bias->n)),
                         tester.pooled_dof});
    }
    parts.push_back({BudgetPart::Source::resolution, tester.resolution / std::sqrt(12.0), endless});
    parts.push_back({BudgetPart::Source::repeatability, std::max(sd.value_or(0.0), tester.pooled_sd) / std::sqrt(n),
                     tester.pooled_dof + n - 1});
    if (tester.rebound) parts.push_back({BudgetPart::Source::rebound, reboundCoupling, endless});
    return parts;
}

Result<Budget> uncertaintyBudget(const TesterModel& tester, int n, std::optional<double> sd,
                                 const std::optional<BlockBias>& bias) {
    const auto positive = [](double x) { return std::isfinite(x) && x > 0; };
    const auto notNegative = [](double x) { return std::isfinite(x) && x >= 0; };
    if (n < 1) return Error{ErrorKind::range, "readings", "at least one reading is needed"};
    if (!positive(tester.pooled_sd))
        return Error{ErrorKind::range, "pooled-sd", "the pooled standard deviation must be more than zero"};
    if (!positive(tester.pooled_dof))
        return Error{ErrorKind::range, "pooled-dof", "the degrees of freedom must be more than zero"};
    if (!notNegative(tester.resolution))
        return Error{ErrorKind::range, "resolution", "the resolution must not be negative"};
    if (!notNegative(tester.block_uncertainty))
        return Error{ErrorKind::range, "block-uncertainty", "the block's uncertainty must not be negative"};
    if (bias && !(std::isfinite(bias->error) && bias->n >= 1))
        return Error{ErrorKind::range, "bias", "the error needs at least one block reading"};
    return expanded(combine(budgetParts(tester, n, sd, bias)));
}

} // namespace rollcall
