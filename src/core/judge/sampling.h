// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/measurement.h"

#include <vector>

namespace rollcall {

/// What is known beside the means of the blades that were read.
struct SamplingFloor {
    double blade_u = 0;    ///< standard uncertainty of one blade's mean by its readings (sigma-0 / root m), HRC
    double common_u = 0;   ///< of what all share: block certificate and block mean, HRC
    double spread_sd = 0;  ///< E61: between blades as the shop knows it, HRC
    double spread_dof = 0; ///< so many degrees of freedom it is worth; 0: nothing is known beforehand
};

/// M18. Chance that blades that were not read lie in the window.
struct SampleChance {
    double next = 0;    ///< of one more
    double all = 0;     ///< of all unread ones together
    bool rough = false; ///< from fewer than five blades
};

/// M18, E11. From the means of the blades read. True blades scatter about the batch's mean, readings about the blades;
/// what all share (block, certificate, conversion) is shared by the unread ones too, and reading noise counts once:
/// the unread blades scatter by what is left of the means' scatter without it. Without any noise Student's t for the
/// next one and the multivariate t for all of them together, by quadrature. 61.2, 61.0, 61.5, 60.9, 61.3 in 60 to 62
/// with four unread: 0.977 and 0.930. A single accident, one late transfer, cannot be excluded by this. Errors (range):
/// fewer than three blades, a window without limits, unread outside 0 to 1000, no scatter at all.
Result<SampleChance> sampleChance(const std::vector<double>& means, const Window& window, int unread,
                                  const SamplingFloor& floor = {});

} // namespace rollcall
