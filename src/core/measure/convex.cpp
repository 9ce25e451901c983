// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/convex.h"

#include "core/base/number.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace rollcall {

namespace {

constexpr double smallestRadius_mm = 3;
constexpr double flatFrom_mm = 19; // half of the 38 mm at which E18's tables end
constexpr double largestCorrection = 3;

// Index of the last value not above x, at most the last but one, and the share of the way to the next.
std::pair<std::size_t, double> between(const std::vector<double>& values, double x) {
    auto above = std::upper_bound(values.begin(), values.end(), x);
    const auto i = std::clamp<std::ptrdiff_t>(above - values.begin() - 1, 0, std::ssize(values) - 2);
    const auto index = static_cast<std::size_t>(i);
    return {index, (x - values[index]) / (values[index + 1] - values[index])};
}

} // namespace

Result<double> convexCorrection(const Tables& tables, const std::string& scaleName, double reading, double radius_mm) {
    const Result<RockwellScale> scale = tables.scale(scaleName);
    if (!scale) return scale.error();
    const auto refused = [](const std::string& text) { return Error{ErrorKind::range, "radius", text}; };
    if (!(std::isfinite(radius_mm) && atLeast(radius_mm, smallestRadius_mm)))
        return refused("a radius below 3 mm cannot be corrected");
    if (radius_mm > flatFrom_mm + limitTolerance) return 0.0;
    for (const ConvexTable& table : tables.convex()) {
        if (std::find(table.scales.begin(), table.scales.end(), scale->symbol) == table.scales.end()) continue;
        if (!atMost(radius_mm, table.radii_mm.back()))
            return refused(fmt::format("no correction is tabulated from {} to 19 mm for {}", table.radii_mm.back(),
                                       scale->symbol));
        if (!(atLeast(reading, table.readings.front()) && atMost(reading, table.readings.back())))
            return refused(fmt::format("no correction is tabulated for {} {}", reading, scale->symbol));
        const auto [row, down] = between(table.readings, reading);
        const auto [column, across] = between(table.radii_mm, radius_mm);
        const auto at = [&, r = row, c = column](std::size_t i, std::size_t j) {
            return table.corrections[(r + i) * table.radii_mm.size() + c + j];
        };
        const double correction = (1 - down) * ((1 - across) * at(0, 0) + across * at(0, 1)) +
                                  down * ((1 - across) * at(1, 0) + across * at(1, 1));
        if (!atMost(correction, largestCorrection))
            return refused(fmt::format("a correction of {:.1f} is over 3: this surface cannot be read", correction));
        return correction;
    }
    return Error{ErrorKind::argument, "scale", fmt::format("there are no convex corrections for {}", scale->symbol)};
}

} // namespace rollcall
