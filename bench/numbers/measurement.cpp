// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/measurement.h"
#include "bench/numbers/figure.h"
#include "core/measure/statistics.h"

#include <array>
#include <cmath>
#include <fmt/format.h>
#include <random>

namespace rollcall::numbers {

namespace {

using Random = std::mt19937_64;

/// A tester as it truly is, and a blade read on it.
struct Truth {
    double spread = 0.25;      ///< of single readings on a blade
    double blockSpread = 0.25; ///< on the block
    double error = 0;
    double blade = 60;
    int blockReadings = 5; ///< 0: not verified
    double resolution = 0.1;
};

double shown(double value, double resolution) {
    return std::round(value / resolution) * resolution;
}

// What the record would hold of it: the tester's scatter was learnt from so many degrees of freedom.
MeasurementInput read(const Truth& truth, int n, const TesterModel& model, const Window& window, Random& random) {
    std::normal_distribution<double> normal;
    MeasurementInput input;
    input.tester = model;
    input.tester.resolution = truth.resolution;
    input.window = window;
    if (truth.blockReadings > 0) {
        const double certificate = model.block_uncertainty / 2 * normal(random);
        double error = 0;
        for (int i = 0; i < truth.blockReadings; ++i)
            error += shown(certificate + truth.error + truth.blockSpread * normal(random), truth.resolution);
        input.bias = BlockBias{error / truth.blockReadings, truth.blockReadings};
    }
    for (int i = 0; i < n; ++i)
        input.readings.push_back(shown(truth.blade + truth.error + truth.spread * normal(random), truth.resolution));
    return input;
}

TesterModel learnt(double sd, double dof) {
    TesterModel model;
    model.pooled_sd = sd;
    model.pooled_dof = dof;
    return model;
}

// The scatter as so many degrees of freedom would have taught it.
TesterModel drawnModel(double sd, double dof, Random& random) {
    std::chi_squared_distribution<double> chi(dof);
    return learnt(sd * std::sqrt(chi(random) / dof), dof);
}

double coverage(int n, double stretch, int draws, Random& random) {
    constexpr double dof = 20;
    std::normal_distribution<double> normal;
    int covered = 0;
    for (int i = 0; i < draws; ++i) {
        Truth truth;
        truth.blade += normal(random);
        truth.error = 0.3 * normal(random);
        const TesterModel model = drawnModel(truth.blockSpread, dof, random);
        truth.spread *= stretch;
        const Measurement m = measure(read(truth, n, model, {50, 70}, random)).value();
        if (std::abs(m.corrected_mean - truth.blade) <= m.decided_uncertainty) ++covered;
    }
    return double(covered) / draws;
}

// Without a run on a block: the error E18 allows over root three, as E1 takes it.
double unverified(double sdOfError, double allowed, bool even, int draws, Random& random) {
    std::normal_distribution<double> normal;
    std::uniform_real_distribution<double> uniform(-allowed, allowed);
    int covered = 0;
    for (int i = 0; i < draws; ++i) {
        Truth truth;
        truth.error = even ? uniform(random) : sdOfError * normal(random);
        truth.blockReadings = 0;
        MeasurementInput input = read(truth, 3, drawnModel(truth.spread, 20, random), {50, 70}, random);
        input.unknown_error_u = allowed / std::sqrt(3.0);
        const Measurement m = measure(input).value();
        if (std::abs(m.corrected_mean - truth.blade) <= m.decided_uncertainty) ++covered;
    }
    return double(covered) / draws;
}

// The blades' true means lie evenly across the window and beyond it; in each tenth of the stated chance as many must
// be inside. The largest difference of a tenth with enough blades in it.
double chanceApart(bool verified, int draws, Random& random) {
    std::array<double, 10> said{};
    std::array<double, 10> inside{};
    std::array<int, 10> count{};
    const Window window{60, 61};
    std::uniform_real_distribution<double> wide(56, 65);
    std::normal_distribution<double> normal;
    for (int i = 0; i < draws; ++i) {
        Truth truth;
        truth.blade = wide(random);
        truth.error = verified ? 0.3 * normal(random) : 0.5 / std::sqrt(3.0) * normal(random);
        truth.blockReadings = verified ? 5 : 0;
        truth.resolution = 0.1;
        MeasurementInput input = read(truth, 3, drawnModel(truth.spread, 20, random), window, random);
        if (!verified) input.unknown_error_u = 0.5 / std::sqrt(3.0);
        const double chance = measure(input)->probability_inside;
        const auto tenth = static_cast<std::size_t>(std::min(9.0, chance * 10));
        said[tenth] += chance;
        inside[tenth] += truth.blade >= *window.low && truth.blade <= *window.high ? 1 : 0;
        ++count[tenth];
    }
    double apart = 0;
    for (std::size_t k = 0; k < said.size(); ++k) {
        if (count[k] >= draws / 200) apart = std::max(apart, std::abs(said[k] - inside[k]) / count[k]);
    }
    return apart;
}

// Of blades for which 'so many more would settle it' is said: how often so many more do. After three readings by a
// tester that is known well it is hardly ever said: what is left then is the block's.
double settled(int draws, Random& random) {
    const Window window{60, 62};
    std::uniform_real_distribution<double> wide(58.5, 63.5);
    std::normal_distribution<double> normal;
    int said = 0;
    int kept = 0;
    while (said < draws) {
        Truth truth;
        truth.blade = wide(random);
        truth.error = 0.3 * normal(random);
        const int n = 1 + static_cast<int>(random() % 3);
        MeasurementInput input = read(truth, n, drawnModel(truth.spread, 20, random), window, random);
        const Measurement m = measure(input).value();
        const int more = m.more_readings.value_or(0);
        if (m.outcome != Outcome::borderline || more == 0) continue;
        ++said;
        for (int i = 0; i < more; ++i)
            input.readings.push_back(shown(truth.blade + truth.error + truth.spread * normal(random), 0.1));
        kept += measure(input)->outcome != Outcome::borderline ? 1 : 0;
    }
    return double(kept) / said;
}

} // namespace

Figures measurementFigures(int draws) {
    Random random(20261127);
    Figures figures;
    for (const int n : {1, 2, 3, 5, 10})
        figures.push_back({fmt::format("coverage of U, verified, spread as learnt, n = {}", n),
                           coverage(n, 1, draws, random), 0.935, 0.965, draws});
    for (const int n : {3, 5, 10})
        figures.push_back({fmt::format("coverage of U, verified, spread 1.5 times as learnt, n = {}", n),
                           coverage(n, 1.5, draws, random), 0.90, 1, draws});
    figures.push_back({"coverage of U, not verified, tester's error of 0.3 where 1.0 is allowed",
                       unverified(0.3, 1.0, false, draws, random), 0.95, 1, draws});
    figures.push_back({"coverage of U, not verified, tester's error even within the allowed 1.0",
                       unverified(0, 1.0, true, draws, random), 0.95, 1, draws});
    figures.push_back({"chance inside, verified: furthest tenth from the truth", chanceApart(true, 20 * draws, random),
                       0, 0.03, draws / 2});
    figures.push_back({"chance inside, not verified: furthest tenth from the truth",
                       chanceApart(false, 20 * draws, random), 0, 0.03, draws / 2});
    const int few = std::max(100, draws / 4);
    figures.push_back({"'n more would settle it' that came true", settled(few, random), 0.8, 1, few});
    return figures;
}

} // namespace rollcall::numbers
