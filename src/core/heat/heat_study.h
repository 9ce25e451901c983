// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/heat/soak.h"

#include <string>
#include <vector>

namespace rollcall {

/// One heat of a study: coupons that went in and came out together.
struct StudyHeat {
    std::string name;
    const Trace* trace = nullptr;
    double set_c = 800;
    double near_c = 10;
    double in_s = 0;
    double out_s = 0;
    double thickness_mm = 0; ///< 0: not known, the oven counts
};

/// What the coupons of one heat went through.
struct HeatExposure {
    double ramp_minutes = 0;         ///< from going in until within the soak's limits
    double soak_minutes = 0;         ///< within them
    double above_lowest_minutes = 0; ///< above the lowest set point of the study, less its limit
    double equivalent_minutes = 0;   ///< at the study's reference
};

/// Something besides the set point that was not equal.
struct StudyDifference {
    enum class What { ramp, soak, aboveLowest } what;
    double low = 0;
    double high = 0;
};

struct HeatStudy {
    double reference_c = 0; ///< the lowest set point
    std::vector<HeatExposure> heats;
    std::vector<StudyDifference> differences;
};

/// The same exposure worked out for every heat of a study, and what else than the set point differs by more than a
/// fifth: a piece that sat in the oven while it climbed has soaked above the first target for all that time.
/// Errors (range): fewer than two heats, as soakAbove.
Result<HeatStudy> compareHeats(const std::vector<StudyHeat>& heats);

} // namespace rollcall
