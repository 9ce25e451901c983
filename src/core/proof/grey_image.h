// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <algorithm>
#include <cstdint>
#include <vector>

namespace rollcall {

/// A picture in grey, row by row from the top, 0 black to 255 white.
struct GreyImage {
    int width = 0;
    int height = 0;
    std::vector<std::uint8_t> pixels;

    /// Grey at a place between pixels; beyond the picture its nearest pixel.
    double at(double x, double y) const {
        x = std::clamp(x, 0.0, width - 1.0);
        y = std::clamp(y, 0.0, height - 1.0);
        const int left = std::min(static_cast<int>(x), width - 2);
        const int top = std::min(static_cast<int>(y), height - 2);
        const double fx = x - left;
        const double fy = y - top;
        const std::uint8_t* p = pixels.data() + static_cast<std::size_t>(top) * static_cast<std::size_t>(width) + left;
        const std::uint8_t* q = p + width;
        return (p[0] * (1 - fx) + p[1] * fx) * (1 - fy) + (q[0] * (1 - fx) + q[1] * fx) * fy;
    }
};

} // namespace rollcall
