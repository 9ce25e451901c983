// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/sampling.h"
#include "bench/numbers/figure.h"
#include "core/judge/blade_spread.h"

#include <array>
#include <cmath>
#include <fmt/format.h>
#include <random>

namespace rollcall::numbers {

namespace {

struct Cell {
    double said = 0;
    double came = 0;
};

// E61. What the shop's earlier runs of the grade show of its blades' spread: so many runs of five blades.
SamplingFloor floorOf(double spread, double noise, double shared, int runs, std::mt19937_64& random) {
    std::normal_distribution<double> normal;
    std::vector<TemperObservation> history;
    for (int run = 0; run < runs; ++run) {
        const double middle = 61 + normal(random);
        for (int blade = 0; blade < 5; ++blade) {
            TemperObservation one;
            one.heat = fmt::format("{}", run);
            one.blade = fmt::format("{}-{}", run, blade);
            one.hrc = middle + spread * normal(random) + noise * normal(random);
            one.u = noise;
            history.push_back(one);
        }
    }
    const SpreadPrior known = shopSpread(history);
    return {noise, shared, known.sd, known.dof};
}

// So many blades of a batch read, three readings each by a tester of 0.25; the batch anywhere about its window.
Cell cell(double spread, int read, int unread, int earlierRuns, int draws, std::mt19937_64& random) {
    std::normal_distribution<double> normal;
    std::uniform_real_distribution<double> somewhere(59.5, 62.5);
    const Window window{60, 62};
    const double noise = 0.25 / std::sqrt(3.0);
    constexpr double shared = 0.2;
    Cell c;
    for (int i = 0; i < draws; ++i) {
        const double batch = somewhere(random);
        const double common = shared * normal(random);
        std::vector<double> means;
        for (int k = 0; k < read; ++k)
            means.push_back(batch + common + spread * normal(random) + noise * normal(random));
        bool all = true;
        for (int k = 0; k < unread; ++k) {
            const double blade = batch + spread * normal(random);
            all = all && blade >= *window.low && blade <= *window.high;
        }
        const SamplingFloor floor =
            earlierRuns > 0 ? floorOf(spread, noise, shared, earlierRuns, random) : SamplingFloor{noise, shared};
        c.said += sampleChance(means, window, unread, floor)->all / draws;
        c.came += all ? 1.0 / draws : 0;
    }
    return c;
}

} // namespace

Figures samplingFigures(int draws) {
    std::mt19937_64 random(20261128);
    Figures figures;
    draws = std::max(200, draws / 10);
    constexpr std::array<double, 4> spreads{0.1, 0.2, 0.4, 0.8};
    double worst = 0;
    for (const int read : {3, 5, 8}) {
        for (const int unread : {2, 5, 15}) {
            double apart = 0;
            for (const double spread : spreads) {
                const Cell c = cell(spread, read, unread, 0, draws, random);
                apart += (c.said - c.came) / spreads.size();
                if (std::abs(c.said - c.came) > std::abs(worst)) worst = c.said - c.came;
            }
            figures.push_back(
                {fmt::format("joint chance, {} read, {} not, blades spread 0.1 to 0.8: said less came true", read,
                             unread),
                 apart, -0.03, 0.03, draws});
        }
    }
    figures.push_back({"the same where the blades' spread is one of these: worst", worst, -1, 1, draws});
    for (const int read : {3, 5}) {
        double off = 0;
        for (const int unread : {2, 5, 15}) {
            for (const double spread : spreads) {
                const Cell c = cell(spread, read, unread, 10, draws, random);
                if (std::abs(c.said - c.came) > std::abs(off)) off = c.said - c.came;
            }
        }
        figures.push_back({fmt::format("the same, {} read, after ten runs of five in that shop: worst", read), off,
                           read == 3 ? -0.08 : -0.04, read == 3 ? 0.08 : 0.04, draws});
    }
    return figures;
}

} // namespace rollcall::numbers
