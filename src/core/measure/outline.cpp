// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/outline.h"

#include "core/base/number.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace rollcall {

double distance(const Spot& a, const Spot& b) {
    const double dx = a.x_mm - b.x_mm; // hypot guards against overflow that no blade has
    const double dy = a.y_mm - b.y_mm;
    return std::sqrt(dx * dx + dy * dy);
}

BladeShape BladeShape::rectangle(double length_mm, double height_mm, double thickness_mm) {
    return {{{0, 0}, {length_mm, 0}, {length_mm, height_mm}, {0, height_mm}}, thickness_mm, 0};
}

BladeShape BladeShape::knife(double length_mm, double height_mm, double thickness_mm) {
    const double tang = std::min(0.21 * length_mm, 24.0);
    BladeShape shape{{{-tang, 0.36 * height_mm}, {0, 0.36 * height_mm}, {0, 0}, {length_mm, 0}}, thickness_mm, 0};
    // The spine's fall to the tip: a quarter of an ellipse over the last two fifths of the length.
    const double begin = 0.72 * length_mm;
    constexpr int steps = 16;
    for (int i = 1; i <= steps; ++i) {
        const double angle = 0.5 * std::numbers::pi * i / steps;
        shape.outline.push_back({begin + (length_mm - begin) * std::cos(angle), height_mm * std::sin(angle)});
    }
    shape.outline.push_back({0, height_mm});
    shape.outline.push_back({0, 0.86 * height_mm});
    shape.outline.push_back({-tang, 0.86 * height_mm});
    return shape;
}

double BladeShape::length() const {
    double tip = 0;
    for (const Spot& corner : outline) tip = std::max(tip, corner.x_mm);
    return tip;
}

double BladeShape::height() const {
    double low = std::numeric_limits<double>::max();
    double high = std::numeric_limits<double>::lowest();
    for (const Spot& corner : outline) {
        low = std::min(low, corner.y_mm);
        high = std::max(high, corner.y_mm);
    }
    return high - low;
}

Result<Done> validate(const BladeShape& shape) {
    if (shape.outline.size() < 3) return Error{ErrorKind::range, "outline", "an outline needs at least three corners"};
    for (const Spot& corner : shape.outline) {
        if (!std::isfinite(corner.x_mm) || !std::isfinite(corner.y_mm)) {
            return Error{ErrorKind::range, "outline", "a corner of the outline is not a number"};
        }
    }
    if (!(std::isfinite(shape.thickness_mm) && shape.thickness_mm > 0)) {
        return Error{ErrorKind::range, "thickness", "the thickness must be more than zero"};
    }
    return Done{};
}

double edgeDistance(const BladeShape& shape, const Spot& spot) {
    double nearest = std::numeric_limits<double>::max(); // squared: one root at the end
    bool inside = false;
    const std::size_t n = shape.outline.size();
    for (std::size_t i = 0, j = n - 1; i < n; j = i++) {
        const Spot& a = shape.outline[j];
        const Spot& b = shape.outline[i];
        const double dx = b.x_mm - a.x_mm;
        const double dy = b.y_mm - a.y_mm;
        const double squared = dx * dx + dy * dy;
        const double along =
            squared > 0 ? std::clamp(((spot.x_mm - a.x_mm) * dx + (spot.y_mm - a.y_mm) * dy) / squared, 0.0, 1.0) : 0.0;
        const double across_x = spot.x_mm - a.x_mm - along * dx;
        const double across_y = spot.y_mm - a.y_mm - along * dy;
        nearest = std::min(nearest, across_x * across_x + across_y * across_y);
        const bool crosses = (a.y_mm > spot.y_mm) != (b.y_mm > spot.y_mm);
        if (crosses && spot.x_mm < a.x_mm + dx * (spot.y_mm - a.y_mm) / dy) inside = !inside;
    }
    return inside ? std::sqrt(nearest) : -std::sqrt(nearest);
}

SpacingRule SpacingRule::forIndent(double diameter_mm, const SpacingRule& shop) {
    return {std::max(3.0 * diameter_mm, shop.min_spacing_mm), std::max(2.5 * diameter_mm, shop.min_edge_mm)};
}

SpotCheck checkSpot(const BladeShape& shape, const std::vector<Spot>& indents, const Spot& spot,
                    const SpacingRule& rule) {
    SpotCheck check;
    check.edge_mm = edgeDistance(shape, spot);
    check.too_near_edge = !atLeast(check.edge_mm, rule.min_edge_mm);
    for (std::size_t i = 0; i < indents.size(); ++i) {
        const double d = distance(indents[i], spot);
        if (!check.nearest || d < check.nearest_mm) {
            check.nearest = i;
            check.nearest_mm = d;
        }
    }
    check.too_near_indent = check.nearest && !atLeast(check.nearest_mm, rule.min_spacing_mm);
    check.allowed = !check.too_near_edge && !check.too_near_indent;
    return check;
}

namespace {

// The free places of the reading line, finely stepped. From one place to the next the distance to the edge changes by
// no more than the step, so it is worked out anew only where it could have come to the rule's least.
std::vector<Spot> freePlaces(const BladeShape& shape, const std::vector<Spot>& indents, const SpacingRule& rule,
                             bool& anyByEdge) {
    constexpr double step_mm = 0.05;
    std::vector<Spot> places;
    const int steps = static_cast<int>(std::floor(shape.length() / step_mm));
    bool byEdge = false;
    double settledUntil_mm = 0;
    for (int i = 0; i <= steps; ++i) {
        const Spot spot{i * step_mm, shape.reading_line_mm};
        if (spot.x_mm >= settledUntil_mm) {
            const double edge_mm = edgeDistance(shape, spot);
            byEdge = atLeast(edge_mm, rule.min_edge_mm);
            settledUntil_mm = spot.x_mm + std::abs(edge_mm - rule.min_edge_mm);
        }
        anyByEdge = anyByEdge || byEdge;
        const auto farEnough = [&](const Spot& indent) { return atLeast(distance(indent, spot), rule.min_spacing_mm); };
        if (byEdge && std::all_of(indents.begin(), indents.end(), farEnough)) places.push_back(spot);
    }
    return places;
}

// As many places as fit from the heel on; for places on one line this is the largest possible number.
std::vector<Spot> packed(const std::vector<Spot>& places, double spacing) {
    std::vector<Spot> taken;
    for (const Spot& place : places) {
        if (taken.empty() || atLeast(place.x_mm - taken.back().x_mm, spacing)) taken.push_back(place);
    }
    return taken;
}

// Each ideal place, half a pitch from either end, moved to the nearest free one that keeps its distance.
std::vector<Spot> even(const std::vector<Spot>& places, int count, double spacing) {
    const double begin = places.front().x_mm;
    const double pitch = (places.back().x_mm - begin) / count;
    std::vector<Spot> taken;
    for (int i = 0; i < count; ++i) {
        const double ideal = begin + (i + 0.5) * pitch;
        const Spot* best = nullptr;
        for (const Spot& place : places) {
            if (best != nullptr && std::abs(place.x_mm - ideal) >= std::abs(best->x_mm - ideal)) continue;
            if (std::all_of(taken.begin(), taken.end(),
                            [&](const Spot& t) { return atLeast(distance(t, place), spacing); }))
                best = &place;
        }
        if (best == nullptr) return {};
        taken.push_back(*best);
    }
    std::sort(taken.begin(), taken.end(), [](const Spot& a, const Spot& b) { return a.x_mm < b.x_mm; });
    return taken;
}

} // namespace

SuggestedSpots suggestSpots(const BladeShape& shape, const std::vector<Spot>& indents, int count,
                            const SpacingRule& rule) {
    SuggestedSpots answer;
    if (count <= 0) return answer;
    bool anyByEdge = false;
    const std::vector<Spot> places = freePlaces(shape, indents, rule, anyByEdge);
    if (places.empty()) {
        answer.shortage = anyByEdge ? SpotShortage::noRoomOnLine : SpotShortage::lineTooNearEdge;
        return answer;
    }
    answer.spots = even(places, count, rule.min_spacing_mm);
    if (!answer.spots.empty()) return answer;
    answer.spots = packed(places, rule.min_spacing_mm);
    if (static_cast<int>(answer.spots.size()) >= count) {
        answer.spots.resize(static_cast<std::size_t>(count));
    } else {
        answer.shortage = SpotShortage::noRoomOnLine;
    }
    return answer;
}

} // namespace rollcall
