// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <optional>
#include <vector>

namespace rollcall {

/// What is known of a tester before a blade is read. Hardness points of the scale in use.
struct TesterModel {
    double resolution = 0.1;        ///< 0.1 digital, 0.5 dial
    double pooled_sd = 0.3;         ///< sigma-0, of single readings; 0.3 bench, 0.8 rebound before any history
    double pooled_dof = 8;          ///< degrees of freedom of pooled_sd
    double block_uncertainty = 0.3; ///< U of the block's certificate, k = 2
    bool rebound = false;

    /// The same tester in points of another scale, of which one is worth this many points of the scale read.
    TesterModel perPoint(double points) const;

    static TesterModel bench() { return {}; }
    static TesterModel reboundTester() { return {0.1, 0.8, 8, 0.3, true}; }
};

/// The tester's error found on a block, from n block readings.
struct BlockBias {
    double error = 0;
    int n = 2;
    /// Its standard uncertainty where more is known than these readings (E2, E3); none: the scatter over root n.
    std::optional<double> u = std::nullopt;
};

/// One standard uncertainty of the budget and its degrees of freedom (infinity where it is not from readings).
struct BudgetPart {
    enum class Source {
        certificate,
        blockMean,
        resolution,
        repeatability,
        rebound,
        conversion,
        convex,
        unknownError,
        blockDistance,
        aged
    };
    Source source;
    double standard_uncertainty = 0;
    double dof = 0;
};

/// M9. Uncertainty of a blade's mean after the GUM.
struct Budget {
    std::vector<BudgetPart> parts;
    double standard_uncertainty = 0;
    double dof = 0;                  ///< Welch-Satterthwaite, not truncated
    double coverage_factor = 0;      ///< t(0.975, dof)
    double expanded_uncertainty = 0; ///< coverage_factor * standard_uncertainty
};

/// Combined standard uncertainty and degrees of freedom of independent parts; no coverage factor yet.
Budget combine(std::vector<BudgetPart> parts);

/// E9, E11. What only these readings share, and what they have in common with all others of the batch: the block, its
/// certificate, a conversion. The squares of both add up to that of the whole.
double ownUncertainty(const Budget& budget);
double sharedUncertainty(const Budget& budget);

/// Adds the coverage factor t(0.975, dof), two-sided also for one-sided limits.
Budget expanded(Budget budget);

/// M9. Parts of the mean of n readings of sample standard deviation sd (none at n = 1). Without a block bias
/// there is no block-mean part. Valid for n >= 1, pooled_sd > 0, pooled_dof > 0.
std::vector<BudgetPart> budgetParts(const TesterModel& tester, int n, std::optional<double> sd,
                                    const std::optional<BlockBias>& bias);

/// M9 whole. Errors (range): n < 1, a tester model or block count outside its valid range.
Result<Budget> uncertaintyBudget(const TesterModel& tester, int n, std::optional<double> sd,
                                 const std::optional<BlockBias>& bias);

} // namespace rollcall
