// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/measure/outline.h"

#include <vector>

namespace rollcall {

/// The calibrated face of a round hardness block.
struct BlockFace {
    double diameter_mm = 60;
    double spacing_mm = 3;  ///< between centres; a shop's habit of 3 mm is wider than E18's 3 d
    double indent_mm = 0.5; ///< diameter of an indent at its hardness (M2)
};

/// M13. Estimated number of places: the area within 2.5 d of the rim, hexagonally filled.
/// N = floor(1.1547 pi (R - 2.5 d)^2 / s^2); 60 mm, 0.5 mm and 3 mm give 333. The estimate takes no account of the rim
/// cutting the pattern. Errors (range): dimensions not finite or not positive, spacing under 3 d, no room at all.
Result<int> blockCapacity(const BlockFace& face);

/// The places of a real hexagonal pattern on that face, row by row from the top, centre at 0, 0. Their number differs
/// by a few from blockCapacity(), because the rim cuts the pattern: 337 on the face that is estimated at 333. Errors as
/// there.
Result<std::vector<Spot>> blockPlaces(const BlockFace& face);

/// Share of the places used at which a new block should be ordered.
inline constexpr double blockNearlyFull = 0.9;

} // namespace rollcall
