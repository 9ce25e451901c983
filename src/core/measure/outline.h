// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/base/tables.h"

#include <optional>
#include <string>
#include <vector>

namespace rollcall {

/// A point on a blade's flat: x in mm from the heel towards the tip (the tang is negative), y in mm from the
/// blank's edge towards the spine.
struct Spot {
    double x_mm = 0;
    double y_mm = 0;
    friend bool operator==(const Spot&, const Spot&) = default;
};

double distance(const Spot& a, const Spot& b);

/// A blade blank seen from the side: a closed polyline, one stock thickness, and the line along which it is
/// read (parallel to the edge, on full stock thickness).
struct BladeShape {
    std::vector<Spot> outline;  ///< at least three corners, not closed by repetition
    double thickness_mm = 0;    ///< stock thickness where it is read
    double reading_line_mm = 0; ///< height of the reading line above the blank's edge

    /// A rectangle of length and height with its heel at 0.
    static BladeShape rectangle(double length_mm, double height_mm, double thickness_mm);
    /// A blank with a short tang, straight edge and a spine that falls to the tip: a made-up everyday shape.
    static BladeShape knife(double length_mm, double height_mm, double thickness_mm);

    double length() const; ///< from the heel to the tip
    double height() const;
};

/// Errors (range): fewer than three corners, coordinates or thickness not finite or not positive.
Result<Done> validate(const BladeShape& shape);

/// Distance in mm of a spot from the nearest side of the outline; negative when it lies outside the blade.
double edgeDistance(const BladeShape& shape, const Spot& spot);

/// M3 with what a shop adds to it. A shop may be stricter than E18, never looser.
struct SpacingRule {
    double min_spacing_mm = 0;
    double min_edge_mm = 0;
    /// E18's distances for an indent of this diameter, or the shop's own where they are larger.
    static SpacingRule forIndent(double diameter_mm, const SpacingRule& shop = {0, 0});
};

/// Where a spot stands towards the rule: how far from the nearest indent and edge.
struct SpotCheck {
    bool allowed = true;
    std::optional<std::size_t> nearest; ///< index of the nearest indent
    double nearest_mm = 0;
    double edge_mm = 0;
    bool too_near_indent = false;
    bool too_near_edge = false;
};

/// M3. Compares a spot with all indents on the blade and with its outline.
SpotCheck checkSpot(const BladeShape& shape, const std::vector<Spot>& indents, const Spot& spot,
                    const SpacingRule& rule);

/// Why fewer spots than asked were found.
enum class SpotShortage { none, noRoomOnLine, lineTooNearEdge };

struct SuggestedSpots {
    std::vector<Spot> spots; ///< from heel to tip
    SpotShortage shortage = SpotShortage::none;
};

/// Suggested reading spots along the reading line, evenly from heel to tip, each at the rule's distance from
/// the outline, from all existing indents and from each other; fewer than asked, with the reason, where they
/// do not fit. The tang (x below 0) is left out.
SuggestedSpots suggestSpots(const BladeShape& shape, const std::vector<Spot>& indents, int count,
                            const SpacingRule& rule);

} // namespace rollcall
