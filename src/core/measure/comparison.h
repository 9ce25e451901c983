// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <vector>

namespace rollcall {

/// M14. Two testers on the same blades, from paired differences a - b in HRC.
struct Comparison {
    int n = 0;
    double bias = 0; ///< mean of a - b
    double sd = 0;   ///< of the differences
    double low = 0;  ///< 95 % interval of the bias by Student's t
    double high = 0;
    double agreement_low = 0; ///< limits within which one further difference is expected, 95 %
    double agreement_high = 0;
    bool rough = false;              ///< fewer than five pairs
    std::vector<double> means;       ///< (a + b)/2 of each pair, for the difference plot
    std::vector<double> differences; ///< a - b of each pair

    /// Whether the interval of the bias leaves zero out.
    bool differ() const { return low > 0 || high < 0; }
};

/// M14. Bias with t interval; limits of agreement mean ± t(0.975, n-1) s sqrt(1 + 1/n). s is never taken below what two
/// displays of this graduation (HRC) hide, graduation/sqrt(6).
/// Errors (range): lists of unequal length, fewer than three pairs, values not finite.
Result<Comparison> compareTesters(const std::vector<double>& a, const std::vector<double>& b, double graduation = 0.1);

/// E7. What several people or testers together say of one piece, each with its own uncertainty.
struct Consensus {
    double mean = 0;
    double u = 0;              ///< standard uncertainty of the mean
    double between = 0;        ///< standard deviation between the testers beyond what each explains
    std::vector<double> apart; ///< |E_n| of each against the others' consensus (of two: against the other)
};

/// E7. By random effects (R. DerSimonian, N. Laird, Control. Clin. Trials 7 (1986)); |E_n| as in ISO 13528, from
/// expanded uncertainties (k 2). Errors (range): fewer than two, lists of unequal length, values not finite or
/// uncertainties not positive.
Result<Consensus> consensusOf(const std::vector<double>& means, const std::vector<double>& standard_uncertainties);

} // namespace rollcall
