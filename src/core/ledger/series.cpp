// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ledger/series.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

namespace {

constexpr std::size_t learnedFrom = 20;
constexpr double rangeToSigma = 1.128;
constexpr int longest = 14; // on one side in a row

} // namespace

std::optional<Individuals> individualsOf(const std::vector<double>& values) {
    if (values.size() < learnedFrom) return std::nullopt;
    Individuals chart;
    chart.learned_from = static_cast<int>(learnedFrom);
    double ranges = 0;
    for (std::size_t i = 0; i < learnedFrom; ++i) {
        chart.mean += values[i] / static_cast<double>(learnedFrom);
        if (i > 1) ranges += std::abs(values[i] - values[i - 2]);
    }
    chart.sigma = ranges / static_cast<double>(learnedFrom - 2) / rangeToSigma;
    if (chart.sigma <= 0) return std::nullopt;
    int row = 0; // how many in a row, negative below the middle
    for (std::size_t i = 0; i < values.size(); ++i) {
        const double z = (values[i] - chart.mean) / chart.sigma;
        const int side = z > 0 ? 1 : -1;
        row = row * side > 0 ? row + side : side;
        // The strongest speaks; one value is told once.
        if (std::abs(z) > controlSigmas)
            chart.alarms.push_back({i, RunRule::beyond, side});
        else if (row * side == longest)
            chart.alarms.push_back({i, RunRule::longOnSide, side});
    }
    return chart;
}

Cumulative cumulativeOf(const std::vector<double>& values, const Individuals& chart) {
    Cumulative sums;
    constexpr double slack = 0.75;
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
