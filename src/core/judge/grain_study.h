// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/proof_judge.h"
#include "core/measure/statistics.h"

#include <optional>
#include <string>
#include <vector>

namespace rollcall {

/// What coupons are put in order of.
enum class GrainFactor {
    soak,     ///< equivalent minutes of their own heat
    setPoint, ///< of the oven, in degrees Celsius
    changed   ///< 0 as the steel came, 1 changed (normalised, carburised), as the batch's steel notes declare
};

/// A coupon with a grain size and its place on the factor.
struct GrainCoupon {
    std::size_t blade = 0;
    double x = 0;
    FractureReading reading;
};

/// A blade that was not broken, with what its soak lets expect.
struct GrainExpected {
    std::size_t blade = 0;
    double x = 0;
    double g = 0;
};

/// Coupons of one batch in order of one factor.
struct GrainStudy {
    std::vector<GrainCoupon> coupons;  ///< in order of x
    std::vector<std::size_t> left_out; ///< with a grain size, but their place on the factor is not known
    std::optional<Trend> trend;        ///< G over x; none while there are too few
    enum class Says { tooFew, noTrend, coarser, finer } says = Says::tooFew;
    std::vector<Difference> beside;      ///< in what the coupons differ besides
    std::vector<GrainExpected> expected; ///< on the trend's line between the outermost coupons; empty without a trend
    double middle_x = 0;                 ///< a point that the trend's line goes through
    double middle_g = 0;
};

/// Fewer coupons than this cannot show a trend: of four in perfect order, one in twelve comes so by chance.
inline constexpr std::size_t fewestCoupons = 5;

/// M30 over coupons: their G in order of a factor, and by Kendall's rank test (5 %) whether it follows it.
GrainStudy grainStudy(const Batch& batch, const Tables& tables, GrainFactor factor);

} // namespace rollcall
