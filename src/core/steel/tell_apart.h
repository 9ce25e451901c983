// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"

/// What tells two grades apart without an analyser.
namespace rollcall {

/// A further test that would part two grades which a composition does not.
struct TellApart {
    enum class Test { carbon, coupon, spark, none } test = Test::none;
    double a_low = 0, a_high = 0; ///< carbon in per cent, or hardness as quenched
    double b_low = 0, b_high = 0;
};
/// Carbon by spark emission where the ranges do not meet, else a hardened coupon where the as-quenched ranges do not,
/// else a spark comparison where carbon differs by 0.2 % in the middle.
TellApart howToTellApart(const Grade& a, const Grade& b);

/// Which of these grades a hardened coupon of this hardness leaves: as-quenched range, the reading's uncertainty.
bool couponFits(const Grade& grade, double hrc, double uncertainty);

} // namespace rollcall
