// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/proof/fracture_texture.h"

#include "core/proof/grain.h"

#include <array>
#include <cmath>
#include <numbers>

namespace rollcall {

namespace {

// A number from 0 to 1 that belongs to a place: no state, so a picture grows at its rim without changing inside.
double chance(std::uint64_t seed, std::int64_t x, std::int64_t y, std::uint64_t what) {
    std::uint64_t h = seed * 0x9e3779b97f4a7c15ULL + static_cast<std::uint64_t>(x) * 0xbf58476d1ce4e5b9ULL +
                      static_cast<std::uint64_t>(y) * 0x94d049bb133111ebULL + what * 0xd6e8feb86659fd93ULL;
    h = (h ^ (h >> 30)) * 0xbf58476d1ce4e5b9ULL;
    h = (h ^ (h >> 27)) * 0x94d049bb133111ebULL;
    return static_cast<double>((h ^ (h >> 31)) >> 11) * 0x1.0p-53;
}

double normal(std::uint64_t seed, std::int64_t x, std::int64_t y, std::uint64_t what) {
    const double u = std::max(chance(seed, x, y, what), 1e-12);
    return std::sqrt(-2 * std::log(u)) * std::cos(2 * std::numbers::pi * chance(seed, x, y, what + 1));
}

// Smooth noise of about -1 to 1 that changes over one unit.
double waves(std::uint64_t seed, double x, double y, std::uint64_t what) {
    const auto cx = static_cast<std::int64_t>(std::floor(x));
    const auto cy = static_cast<std::int64_t>(std::floor(y));
    const auto ease = [](double t) { return t * t * (3 - 2 * t); };
    const double fx = ease(x - std::floor(x));
    const double fy = ease(y - std::floor(y));
    const auto corner = [&](int dx, int dy) { return 2 * chance(seed, cx + dx, cy + dy, what) - 1; };
    return (corner(0, 0) * (1 - fx) + corner(1, 0) * fx) * (1 - fy) +
           (corner(0, 1) * (1 - fx) + corner(1, 1) * fx) * fy;
}

// The grid lies askew, so that no line over the picture runs along it for long.
constexpr double askew_cos = 0.8944272;
constexpr double askew_sin = 0.4472136;
// One seed of the tessellation lies in every cell of a square grid, moved by up to half of this part of a cell.
constexpr double jitter = 0.9;
// Side of a cell over the mean intercept of the facets so made: measured on large pictures of many seeds.
constexpr double cellOverIntercept = 1.256;

struct Facet {
    double x = 0;
    double y = 0;
    double grey = 0;
    double slope_x = 0; ///< grey over one cell
    double slope_y = 0;
    double rivers = 0; ///< lines over one cell; 0: none
};

} // namespace

Result<FractureTexture> fractureTexture(double g, double px_per_mm, int width, int height, std::uint64_t seed) {
    if (!(g >= 0 && g <= 12)) return Error{ErrorKind::range, "", "a fracture is drawn for G 0 to 12"};
    if (!(px_per_mm > 0) || width < 8 || height < 8 || width > 8192 || height > 8192)
        return Error{ErrorKind::range, "", "a fracture needs a scale and 8 to 8192 pixels each way"};
    const double cell = cellOverIntercept * interceptOf(g) * px_per_mm;
    if (cell < 2 || cell > 4.0 * std::max(width, height))
        return Error{ErrorKind::range, "", "at this scale the facets cannot be drawn"};

    FractureTexture made;
    made.picture.width = width;
    made.picture.height = height;
    const auto count = static_cast<std::size_t>(width) * static_cast<std::size_t>(height);
    made.picture.pixels.resize(count);
    made.facets.resize(count);
    // Facets around the picture too: those beyond its rim reach into it.
    constexpr int margin = 3;
    const double beneath = askew_sin * width / cell; // how far the upper right corner lies before the grid's first row
    const int columns = static_cast<int>((askew_cos * width + askew_sin * height) / cell) + 1 + 2 * margin;
    const int rows = static_cast<int>(askew_cos * height / cell + beneath) + 1 + 2 * margin;
    std::vector<Facet> facets(static_cast<std::size_t>(columns) * static_cast<std::size_t>(rows));
    for (int r = 0; r < rows; ++r) {
        for (int c = 0; c < columns; ++c) {
            Facet& facet =
                facets[static_cast<std::size_t>(r) * static_cast<std::size_t>(columns) + static_cast<std::size_t>(c)];
            facet.x = c - margin + 0.5 + jitter * (chance(seed, c, r, 1) - 0.5);
            facet.y = r - margin + 0.5 + jitter * (chance(seed, c, r, 2) - 0.5);
            // A tilted plane under light from the upper left.
            const double tilt_x = 0.43 * normal(seed, c, r, 3);
            const double tilt_y = 0.43 * normal(seed, c, r, 5);
            const double lit =
                (0.45 * tilt_x + 0.45 * tilt_y + 0.77) / std::sqrt(1 + tilt_x * tilt_x + tilt_y * tilt_y);
            facet.grey = 30 + 145 * std::clamp(lit, 0.0, 1.1);
            facet.slope_x = 10 * normal(seed, c, r, 7);
            facet.slope_y = 10 * normal(seed, c, r, 9);
            facet.rivers = chance(seed, c, r, 11) < 0.45 ? 4 + 4 * chance(seed, c, r, 12) : 0;
        }
    }
    const double groove = std::max(0.045, 0.8 / cell); // half width, in cells: never thinner than the pixels
    for (int y = 0; y < height; ++y) {
        for (int x = 0; x < width; ++x) {
            const double u = (askew_cos * (x + 0.5) + askew_sin * (y + 0.5)) / cell;
            const double v = (askew_cos * (y + 0.5) - askew_sin * (x + 0.5)) / cell + beneath;
            // Walls are not quite straight.
            const double wu = u + 0.07 * waves(seed, 2 * u, 2 * v, 21);
            const double wv = v + 0.07 * waves(seed, 2 * u, 2 * v, 22);
            const int c0 = static_cast<int>(std::floor(wu)) + margin;
            const int r0 = static_cast<int>(std::floor(wv)) + margin;
            double nearest = 1e9;
            double second = 1e9;
            int found = 0;
            for (int r = std::max(0, r0 - 2); r <= std::min(rows - 1, r0 + 2); ++r) {
                for (int c = std::max(0, c0 - 2); c <= std::min(columns - 1, c0 + 2); ++c) {
                    const int index = r * columns + c;
                    const Facet& facet = facets[static_cast<std::size_t>(index)];
                    const double d = (facet.x - wu) * (facet.x - wu) + (facet.y - wv) * (facet.y - wv);
                    if (d < nearest) {
                        second = nearest;
                        nearest = d;
                        found = index;
                    } else if (d < second) {
                        second = d;
                    }
                }
            }
            const Facet& facet = facets[static_cast<std::size_t>(found)];
            const double dx = u - facet.x;
            const double dy = v - facet.y;
            double grey = facet.grey + facet.slope_x * dx + facet.slope_y * dy;
            if (facet.rivers > 0)
                grey += 5 * std::sin(2 * std::numbers::pi * facet.rivers * (dx * facet.slope_y - dy * facet.slope_x) /
                                     (std::hypot(facet.slope_x, facet.slope_y) + 1e-9));
            const double wall = (std::sqrt(second) - std::sqrt(nearest)) / 2 / groove;
            grey -= 70 * std::exp(-wall * wall);
            grey += 9 * (chance(seed, x, y, 31) + chance(seed, x, y, 32) - 1); // about 4 grey levels
            const std::size_t at =
                static_cast<std::size_t>(y) * static_cast<std::size_t>(width) + static_cast<std::size_t>(x);
            made.picture.pixels[at] = static_cast<std::uint8_t>(std::clamp(grey, 0.0, 255.0));
            made.facets[at] = found;
        }
    }
    return made;
}

} // namespace rollcall
