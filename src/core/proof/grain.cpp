// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/proof/grain.h"

#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

double gOfIntercept(double intercept_mm) {
    return -6.643856 * std::log10(intercept_mm) - 3.288;
}

double interceptOf(double g) {
    return std::pow(10.0, -(g + 3.288) / 6.643856);
}

Result<GrainSize> grainSize(const std::vector<InterceptLine>& lines) {
    if (lines.empty()) return Error{ErrorKind::range, "", "no line is laid"};
    double length = 0;
    double crossings = 0;
    std::vector<double> perMm;
    for (const InterceptLine& line : lines) {
        if (!(line.length_mm > 0 && line.length_mm < 1000))
            return Error{ErrorKind::range, "", "a line is longer than 0 and shorter than 1000 mm"};
        if (!(line.crossings >= 0 && line.crossings < 1e6))
            return Error{ErrorKind::range, "", "a line is crossed 0 times or more"};
        length += line.length_mm;
        crossings += line.crossings;
        perMm.push_back(line.crossings / line.length_mm);
    }
    if (crossings < 1) return Error{ErrorKind::range, "", "nothing crosses the lines: no grain size"};
    GrainSize size;
    size.mean_intercept_mm = length / crossings;
    size.g = gOfIntercept(size.mean_intercept_mm);
    constexpr std::size_t enoughLines = 5;
    constexpr double enoughCrossings = 250;
    size.rough = lines.size() < enoughLines || crossings < enoughCrossings;
    if (const auto sd = sampleSd(perMm)) {
        const double n = static_cast<double>(perMm.size());
        const double mean = crossings / length;
        constexpr double methodsOwn = 0.035; // of the mean: 0.1 G, what marking boundaries is off by itself (E34)
        const double half = std::hypot(tQuantile(0.975, n - 1) * *sd / std::sqrt(n), methodsOwn * mean);
        // Fewer crossings than none cannot be: such a spread leaves the coarse side open at a tenth of the mean.
        size.interval = std::pair(gOfIntercept(1 / std::max(mean - half, mean / 10)), gOfIntercept(1 / (mean + half)));
    }
    return size;
}

} // namespace rollcall
