// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <optional>
#include <vector>

namespace rollcall {

/// M29. Strain of a bend, per cent.
struct BendStrain {
    double mean = 0;                ///< of the outer fibre over the free length
    std::optional<double> at_least; ///< its peak is at least this, where the lever is known
};

/// M29. Mean strain = angle * thickness / (2 * free length); with the force at a lever beyond the free length the peak
/// is at least 2 (a + L) / (2 a + L) times that. 4.76 mm over 100 mm at 90°: 3.7 %. Errors (range): lengths not
/// positive, an angle outside 0 to 180°, a thickness over the free length.
Result<BendStrain> bendStrain(double thickness_mm, double free_length_mm, double angle_deg,
                              std::optional<double> lever_mm);

/// A moment of a bend: angle, and the force at the lever where it was read.
struct BendPoint {
    double angle_deg = 0;
    double force_n = 0; ///< 0: not read
};

/// The work of a bend in joules: force times lever over the angle, straight lines between the points and from nothing
/// at 0°. None without a lever or without a force.
std::optional<double> bendWork_j(const std::vector<BendPoint>& points, std::optional<double> lever_mm);

} // namespace rollcall
