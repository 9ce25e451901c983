// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/block_face.h"

#include "core/base/number.h"
#include "core/measure/indent.h"

#include <cmath>
#include <numbers>

namespace rollcall {

namespace {

Result<double> usableRadius(const BlockFace& face) {
    const auto positive = [](double x) { return std::isfinite(x) && x > 0; };
    if (!positive(face.diameter_mm) || !positive(face.spacing_mm) || !positive(face.indent_mm))
        return Error{ErrorKind::range, "block", "diameter, spacing and indent must be more than zero"};
    if (!atLeast(face.spacing_mm, minSpacing(face.indent_mm)))
        return Error{ErrorKind::range, "block", "the spacing must be at least three indent diameters"};
    const double radius = face.diameter_mm / 2 - minEdgeDistance(face.indent_mm);
    if (!(radius > 0)) return Error{ErrorKind::range, "block", "there is no room for an indent on this face"};
    return radius;
}

std::vector<Spot> pattern(double radius, double spacing, const Spot& origin) {
    std::vector<Spot> places;
    const double rise = spacing * std::sqrt(3.0) / 2;
    const int rows = static_cast<int>(radius / rise) + 2;
    const int columns = static_cast<int>(radius / spacing) + 2;
    for (int row = rows; row >= -rows; --row) {
        for (int column = -columns; column <= columns; ++column) {
            const Spot place{origin.x_mm + spacing * (column + (row % 2 != 0 ? 0.5 : 0.0)), origin.y_mm + rise * row};
            if (atMost(std::sqrt(place.x_mm * place.x_mm + place.y_mm * place.y_mm), radius)) places.push_back(place);
        }
    }
    return places;
}

} // namespace

Result<int> blockCapacity(const BlockFace& face) {
    const Result<double> radius = usableRadius(face);
    if (!radius) return radius.error();
    constexpr double hexagonal = 1.1547; // 2/sqrt(3): places per spacing squared
    return static_cast<int>(
        std::floor(hexagonal * std::numbers::pi * *radius * *radius / (face.spacing_mm * face.spacing_mm)));
}

Result<std::vector<Spot>> blockPlaces(const BlockFace& face) {
    const Result<double> radius = usableRadius(face);
    if (!radius) return radius.error();
    // Where the pattern begins decides how the rim cuts it: on a place, between two, or between three.
    const double s = face.spacing_mm;
    std::vector<Spot> best;
    for (const Spot& origin : {Spot{0, 0}, Spot{s / 2, 0}, Spot{s / 2, s * std::sqrt(3.0) / 6}}) {
        std::vector<Spot> places = pattern(*radius, s, origin);
        if (places.size() > best.size()) best = std::move(places);
    }
    return best;
}

} // namespace rollcall
