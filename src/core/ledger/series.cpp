// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ledger/series.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

namespace {

constexpr std::size_t fewest = 12;
constexpr std::size_t learnedFrom = 20;
constexpr double rangeToSigma = 1.128;

// Whether so many of the last values up to one lie beyond a limit on one side.
bool lastBeyond(const std::vector<double>& z, std::size_t at, std::size_t of, int wanted, double limit, int side) {
    if (at + 1 < of || z[at] * side <= limit) return false;
    int count = 0;
    for (std::size_t i = at + 1 - of; i <= at; ++i) count += z[i] * side > limit ? 1 : 0;
    return count >= wanted;
}

} // namespace

std::optional<Individuals> individualsOf(const std::vector<double>& values) {
    if (values.size() < fewest) return std::nullopt;
    const std::size_t n = std::min(values.size(), learnedFrom);
    Individuals chart;
    chart.learned_from = static_cast<int>(n);
    double ranges = 0;
    for (std::size_t i = 0; i < n; ++i) {
        chart.mean += values[i] / static_cast<double>(n);
        if (i > 0) ranges += std::abs(values[i] - values[i - 1]);
    }
    chart.sigma = ranges / static_cast<double>(n - 1) / rangeToSigma;
    if (chart.sigma <= 0) return std::nullopt;
    std::vector<double> z;
    for (const double value : values) z.push_back((value - chart.mean) / chart.sigma);
    for (std::size_t i = 0; i < z.size(); ++i) {
        for (const int side : {1, -1}) {
            // The strongest speaks; one value is told once.
            if (lastBeyond(z, i, 1, 1, 3, side))
                chart.alarms.push_back({i, RunRule::beyond, side});
            else if (lastBeyond(z, i, 3, 2, 2, side))
                chart.alarms.push_back({i, RunRule::twoOfThree, side});
            else if (lastBeyond(z, i, 5, 4, 1, side))
                chart.alarms.push_back({i, RunRule::fourOfFive, side});
            else if (lastBeyond(z, i, 8, 8, 0, side))
                chart.alarms.push_back({i, RunRule::eightOnASide, side});
        }
    }
    return chart;
}

Cumulative cumulativeOf(const std::vector<double>& values, const Individuals& chart) {
    Cumulative sums;
    constexpr double slack = 0.5;
    double up = 0;
    double down = 0;
    std::size_t upFrom = 0;
    std::size_t downFrom = 0;
    for (std::size_t i = 0; i < values.size(); ++i) {
        const double z = (values[i] - chart.mean) / chart.sigma;
        if (up <= 0) upFrom = i;
        if (down <= 0) downFrom = i;
        up = std::max(0.0, up + z - slack);
        down = std::max(0.0, down - z - slack);
        sums.up.push_back(up);
        sums.down.push_back(down);
        if (sums.signal || std::max(up, down) <= sums.limit) continue;
        sums.signal = i;
        sums.side = up > down ? 1 : -1;
        sums.began = up > down ? upFrom : downFrom;
    }
    return sums;
}

} // namespace rollcall
