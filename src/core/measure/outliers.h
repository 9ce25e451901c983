// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <vector>

namespace rollcall {

/// M10. How well the readings of one blade agree with each other. Nothing is dropped: flags only ask.
struct Agreement {
    std::vector<std::size_t> flagged;           ///< indices of readings far from the median
    std::optional<double> mean_without_flagged; ///< none when nothing is flagged
    bool disagree = false;                      ///< two readings only, further apart than the tester explains
    bool uneven = false;                        ///< more scatter than the tester explains
    std::optional<double> cluster_gap;          ///< the gap between two groups of at least two readings
    bool grubbs = false;                        ///< Grubbs' test (alpha 0.05) finds an outlier; reported, no veto
};

/// M10. pooled_sd is sigma-0 of a single reading with pooled_dof degrees of freedom. Two readings disagree over
/// 3.64 sigma-0; from three on a reading is flagged over 3.5 sigma-0 from the median, from six on only if it is
/// also over 3 robust standard deviations (1.4826 MAD) away. When two groups stand apart, or fewer than two
/// readings or less than a majority would remain, no single reading is to blame: the blade is uneven instead.
/// E4: nothing within one graduation of the display is flagged; Grubbs' test is not asked of three readings, nor within
/// two graduations.
Agreement agreementOf(const std::vector<double>& readings, double pooled_sd, double pooled_dof, double graduation);

} // namespace rollcall
