// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/proof/crossings.h"

#include <cmath>
#include <numbers>
#include <tuple>
#include <utility>

namespace rollcall {

double TestLine::length() const {
    const double reach = std::hypot(b.x - a.x, b.y - a.y);
    return circle ? 2 * std::numbers::pi * reach : reach;
}

PicturePoint TestLine::at(double part) const {
    if (!circle) return {a.x + (b.x - a.x) * part, a.y + (b.y - a.y) * part};
    const double radius = std::hypot(b.x - a.x, b.y - a.y);
    const double angle = std::atan2(b.y - a.y, b.x - a.x) + 2 * std::numbers::pi * part;
    return {a.x + radius * std::cos(angle), a.y + radius * std::sin(angle)};
}

namespace {

// Parts of the mean intercept, set by trial on drawn fractures of 10 to 50 pixels an intercept, clean and rotated,
// noisy and unevenly lit: a groove is looked for at this width, along three times its length.
constexpr double grooveOverIntercept = 0.07;
constexpr double lengthOverWidth = 3.0;
// What stands out less than this part of the strong grooves is not suggested.
constexpr double leastOverStrong = 0.6;
constexpr int directions = 8;

struct Tap {
    double across = 0;
    double along = 0;
    double weight = 0;
};

// A filter that answers to a dark groove of this width and to no even slope of light: the second derivative of a
// Gaussian across, a Gaussian along.
std::vector<Tap> grooveFilter(double width) {
    const double length = lengthOverWidth * width;
    const double step = std::max(0.7, width / 2);
    const int across = static_cast<int>(std::ceil(2.5 * width / step));
    const int along = static_cast<int>(std::ceil(1.8 * length / step));
    std::vector<Tap> taps;
    double sum = 0;
    double bells = 0;
    const auto bell = [&](const Tap& tap) {
        return std::exp(-(tap.across * tap.across / (width * width) + tap.along * tap.along / (length * length)) / 2);
    };
    for (int i = -across; i <= across; ++i) {
        for (int j = -along; j <= along; ++j) {
            Tap tap{i * step, j * step, 0};
            tap.weight = (tap.across * tap.across / (width * width) - 1) * bell(tap);
            sum += tap.weight;
            bells += bell(tap);
            taps.push_back(tap);
        }
    }
    double squares = 0;
    for (Tap& tap : taps) {
        tap.weight -= sum / bells * bell(tap);
        squares += tap.weight * tap.weight;
    }
    for (Tap& tap : taps) tap.weight /= std::sqrt(squares);
    return taps;
}

// How much of a dark groove and of a bright ridge, whichever way it runs, there is at a place.
std::pair<double, double> grooveAndRidge(const GreyImage& picture, const PicturePoint& at,
                                         const std::vector<Tap>& taps) {
    double groove = 0;
    double ridge = 0;
    for (int d = 0; d < directions; ++d) {
        const double cosine = std::cos(d * std::numbers::pi / directions);
        const double sine = std::sin(d * std::numbers::pi / directions);
        double answer = 0;
        for (const Tap& tap : taps)
            answer += tap.weight * picture.at(at.x - 0.5 + cosine * tap.across - sine * tap.along,
                                              at.y - 0.5 + sine * tap.across + cosine * tap.along);
        groove = std::max(groove, answer);
        ridge = std::max(ridge, -answer);
    }
    return {groove, ridge};
}

std::vector<double> grooves(const GreyImage& picture, const TestLine& line, double width) {
    constexpr double least = 2;
    const double step = std::max(0.5, width / 2.5);
    const auto count = static_cast<std::size_t>(line.length() / step);
    const std::vector<Tap> taps = grooveFilter(width);
    std::vector<double> answers(count);
    std::vector<double> ridges(count);
    for (std::size_t i = 0; i < count; ++i) {
        const PicturePoint at = line.at((static_cast<double>(i) + 0.5) / static_cast<double>(count));
        std::tie(answers[i], ridges[i]) = grooveAndRidge(picture, at, taps);
    }
    const auto strong = [&](std::vector<double> all) {
        std::sort(all.begin(), all.end());
        return all[count * 9 / 10];
    };
    // Light decides whether facets meet in dark grooves or in bright steps: the stronger of the two is theirs, the
    // other are the flanks of the same lines.
    if (strong(ridges) > strong(answers)) answers.swap(ridges);
    const double limit = leastOverStrong * strong(answers);
    std::vector<std::size_t> found;
    for (std::size_t i = 1; i + 1 < count; ++i) {
        if (answers[i] <= limit || answers[i] < answers[i - 1] || answers[i] <= answers[i + 1]) continue;
        if (!found.empty() && static_cast<double>(i - found.back()) * step < std::max(least, 1.5 * width)) {
            if (answers[i] > answers[found.back()]) found.back() = i;
            continue;
        }
        found.push_back(i);
    }
    std::vector<double> parts;
    for (const std::size_t i : found) parts.push_back((static_cast<double>(i) + 0.5) / static_cast<double>(count));
    return parts;
}

} // namespace

std::vector<double> suggestCrossings(const GreyImage& picture, const TestLine& line) {
    const double length = line.length();
    if (length < 8 || picture.width < 8 || picture.height < 8) return {};
    // The width that fits is not known beforehand: from wide to narrow, until the facets so found ask for no narrower.
    double width = std::clamp(length / 30, 0.8, 8.0);
    for (;;) {
        const std::vector<double> found = grooves(picture, line, width);
        const double asked = grooveOverIntercept * length / std::max(1.0, static_cast<double>(found.size()));
        if (found.empty() || width <= 0.8 || asked > 0.95 * width) return found;
        width = std::max(0.8, asked);
    }
}

} // namespace rollcall
