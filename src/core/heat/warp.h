// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <string>
#include <string_view>
#include <vector>

namespace rollcall {

/// The side that is high when a blade lies on a plate with its edge towards the maker.
enum class WarpSide { left, right };

/// How far a blade is bent, tip to tip.
struct Warp {
    std::string blade;
    double mm = 0; ///< 0 and more
    WarpSide high = WarpSide::left;
};

struct StackPlace {
    std::string blade;
    bool turn_over = false;
    double shim_mm = 0; ///< between this blade and the next: about what takes the pair past straight; 0 for none
};

/// M24. A stack for tempering warped blades straight against each other: sorted by size (ties in the given order),
/// turned so that they meet bow against bow in pairs, equals together, the odd or flattest one outside. Only after the
/// first temper, tightened hot and slowly. Errors (range): a blade twice, a warp below 0, over 50 mm or not a number.
Result<std::vector<StackPlace>> stackPlan(const std::vector<Warp>& warps);

/// "A=1.2L,B=0.8R": marks with warp in mm (units are understood) and the high side. Errors (argument).
Result<std::vector<Warp>> parseWarps(std::string_view text);

} // namespace rollcall
