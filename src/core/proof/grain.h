// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <optional>
#include <utility>
#include <vector>

namespace rollcall {

/// One line laid over a picture and what crosses it: an end on a boundary counts a half, a touch one, a triple point
/// one and a half.
struct InterceptLine {
    double length_mm = 0; ///< true length, at 1x
    double crossings = 0;
};

/// M30. Grain size by line intercepts.
struct GrainSize {
    double mean_intercept_mm = 0;
    double g = 0; ///< ASTM E112
    std::optional<std::pair<double, double>>
        interval;      ///< 95 %, from crossings per mm of each line and 0.1 G of the method's own; none for one line
    bool rough = true; ///< fewer than five lines or 250 crossings
};

/// M30. G = -6.643856 log10(mean intercept in mm) - 3.288. 5 mm and 240 crossings: 7.88. Errors (range): no line, a
/// length not positive, fewer than one crossing in all, a count below 0.
Result<GrainSize> grainSize(const std::vector<InterceptLine>& lines);

/// G of a mean intercept in mm, above 0.
double gOfIntercept(double intercept_mm);
/// M30 turned about: the mean intercept of a grain size, in mm. G 8: 0.020.
double interceptOf(double g);

} // namespace rollcall
