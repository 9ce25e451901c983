// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/proof/grey_image.h"

#include <vector>

namespace rollcall {

/// A place on a picture, in pixels from its upper left corner.
struct PicturePoint {
    double x = 0;
    double y = 0;
};

/// A test line over a picture: straight between two points, or a circle around the first through the second.
struct TestLine {
    bool circle = false;
    PicturePoint a;
    PicturePoint b;

    /// Its length in pixels.
    double length() const;
    /// The point at a part of its length, 0 to 1.
    PicturePoint at(double part) const;
};

/// Where facets seem to meet along a line, as parts of its length in ascending order: dark grooves or bright steps of
/// the grey profile that stand out of its noise, at least 2 pixels apart. A suggestion for a person to look at, never a
/// count. A line under 8 pixels has none.
std::vector<double> suggestCrossings(const GreyImage& picture, const TestLine& line);

} // namespace rollcall
