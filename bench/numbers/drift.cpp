// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/numbers/figure.h"
#include "core/ledger/series.h"
#include "core/measure/control.h"

#include <cmath>
#include <fmt/format.h>
#include <random>

namespace rollcall::numbers {

namespace {

constexpr int seenWeeks = 52;
constexpr double limit = 0.5; // HRC, as E18 allows from 60 up

// Errors of weekly runs of five readings of 0.25, and from run to run 0.05 more; each pulled by the one before.
std::vector<double> errors(int weeks, double autocorrelation, std::mt19937_64& random) {
    std::normal_distribution<double> normal(0, std::hypot(0.25 / std::sqrt(5.0), 0.05));
    std::vector<double> values;
    for (int i = 0; i < weeks; ++i) {
        const double fresh = normal(random) * std::sqrt(1 - autocorrelation * autocorrelation);
        values.push_back(values.empty() ? normal(random) : autocorrelation * values.back() + fresh);
    }
    return values;
}

// What the shop sees at each week's run: the runs of the last year.
bool alarmAt(const std::vector<double>& values, std::size_t week, double* weeksLeft = nullptr) {
    std::vector<ControlPoint> seen;
    for (std::size_t i = week + 1 > seenWeeks ? week + 1 - seenWeeks : 0; i <= week; ++i)
        seen.push_back({7.0 * double(i), values[i]});
    const auto drift = driftOf(seen);
    if (drift && drift->likely && weeksLeft != nullptr)
        *weeksLeft = weeksUntil(*drift, drift->per_week > 0 ? limit : -limit).value_or(0);
    return drift && drift->likely;
}

double falseAlarms(int weeksBefore, double autocorrelation, int draws, std::mt19937_64& random) {
    int alarmed = 0;
    for (int i = 0; i < draws; ++i) {
        const std::vector<double> values = errors(weeksBefore + 52, autocorrelation, random);
        bool any = false;
        for (auto week = static_cast<std::size_t>(weeksBefore); week < values.size() && !any; ++week)
            any = alarmAt(values, week);
        alarmed += any ? 1 : 0;
    }
    return double(alarmed) / draws;
}

// E62. The drift in words, values one by one and sums, each as the shop sees it: any of them in the last of the years.
double anyChartAlarms(int weeksBefore, int draws, std::mt19937_64& random) {
    int alarmed = 0;
    for (int i = 0; i < draws; ++i) {
        const std::vector<double> values = errors(weeksBefore + 52, 0, random);
        const auto from = static_cast<std::size_t>(weeksBefore);
        bool any = false;
        std::vector<ControlPoint> seen;
        for (std::size_t week = 0; week < values.size() && !any; ++week) {
            seen.push_back({7.0 * double(week), values[week]});
            if (week < from) continue;
            const auto usual = controlLimits(seen);
            any = alarmAt(values, week) || (usual && (values[week] > usual->high || values[week] < usual->low));
        }
        if (const auto chart = individualsOf(values)) {
            for (const RunSignal& signal : chart->alarms) any = any || signal.at >= from;
            const Cumulative sums = cumulativeOf(values, *chart);
            any = any || (sums.signal && *sums.signal >= from);
        }
        alarmed += any ? 1 : 0;
    }
    return double(alarmed) / draws;
}

// A tester that was steady for so many weeks wanders by so much a week until it leaves what is allowed.
double saidInTime(int weeksBefore, double per_week, int weeksAhead, double autocorrelation, int draws,
                  std::mt19937_64& random) {
    int said = 0;
    const int leaves = static_cast<int>(std::floor(limit / per_week));
    for (int i = 0; i < draws; ++i) {
        std::vector<double> values = errors(weeksBefore + leaves, autocorrelation, random);
        for (int week = 0; week < leaves; ++week) values[weeksBefore + week] += per_week * (week + 1);
        bool any = false;
        for (int week = 0; week <= leaves - weeksAhead && !any; ++week) any = alarmAt(values, weeksBefore + week);
        said += any ? 1 : 0;
    }
    return double(said) / draws;
}

} // namespace

Figures driftFigures(int draws) {
    std::mt19937_64 random(20261129);
    draws = std::max(100, draws / 10);
    return {
        {"steady tester, weekly runs: false alarm in its first year", falseAlarms(0, 0, draws, random), 0, 0.10, draws},
        {"the same in its second year", falseAlarms(52, 0, draws, random), 0, 0.10, draws},
        {"the same in its second year with autocorrelation 0.3", falseAlarms(52, 0.3, draws, random), 0, 0.10, draws},
        {"steady tester, all charts together: called changed in its first year", anyChartAlarms(0, draws, random), 0,
         0.10, draws},
        {"the same, called changed in its second year", anyChartAlarms(52, draws, random), 0, 0.10, draws},
        {"drift of 0.02 a week after a steady year said 8 weeks ahead", saidInTime(52, 0.02, 8, 0, draws, random), 0.9,
         1, draws},
        {"the same with autocorrelation 0.3", saidInTime(52, 0.02, 8, 0.3, draws, random), 0.9, 1, draws},
        {"the same after a steady half year", saidInTime(26, 0.02, 8, 0, draws, random), 0, 1, draws},
    };
}

} // namespace rollcall::numbers
