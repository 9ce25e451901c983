// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/control.h"

#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace rollcall {

namespace {
constexpr std::size_t enoughForLimits = 12;
constexpr std::size_t enoughForDrift = 8;
constexpr double enoughFreedom = 8;
constexpr double rangeToSigma = 1.128; // mean range of two normal values in units of sigma
} // namespace

std::optional<ControlLimits> controlLimits(const std::vector<ControlPoint>& points) {
    if (points.size() < enoughForLimits) return std::nullopt;
    double sum = points.front().value;
    double ranges = 0;
    for (std::size_t i = 1; i < points.size(); ++i) {
        sum += points[i].value;
        ranges += std::abs(points[i].value - points[i - 1].value);
    }
    ControlLimits limits;
    limits.mean = sum / static_cast<double>(points.size());
    const double sigma = ranges / static_cast<double>(points.size() - 1) / rangeToSigma;
    limits.low = limits.mean - controlSigmas * sigma;
    limits.high = limits.mean + controlSigmas * sigma;
    return limits;
}

namespace {

constexpr std::size_t newestRuns = 10;
constexpr std::size_t forLine = 20;
constexpr double driftMoved = 4.1;      // standard errors: also holds where neighbours correlate by 0.3
constexpr double driftTrended = 3.2905; // normal deviate of a two-sided p of 0.001

// How far the newest points stand off those before, in standard errors.
double movedBy(const std::vector<double>& values) {
    const auto split = values.end() - static_cast<std::ptrdiff_t>(newestRuns);
    double ranges = 0;
    for (std::size_t i = 2; i < values.size(); ++i) ranges += std::abs(values[i] - values[i - 2]);
    const double sigma = ranges / static_cast<double>(values.size() - 2) / rangeToSigma;
    const double difference =
        meanOf(std::vector<double>(split, values.end())) - meanOf(std::vector<double>(values.begin(), split));
    const double u = sigma * std::sqrt(1.0 / newestRuns + 1.0 / static_cast<double>(values.size() - newestRuns));
    return u > 0 ? difference / u : 0.0;
}

} // namespace

std::optional<Drift> driftOf(const std::vector<ControlPoint>& points) {
    const std::size_t n = points.size();
    if (n < enoughForDrift || !(points.back().day > points.front().day)) return std::nullopt;
    std::vector<double> days;
    std::vector<double> values;
    for (const ControlPoint& point : points) {
        days.push_back(point.day);
        values.push_back(point.value);
    }
    Drift drift;
    const bool enoughBefore = n >= 2 * newestRuns;
    if (enoughBefore) drift.standard_errors = movedBy(values);
    const auto last = static_cast<std::ptrdiff_t>(std::min(n, forLine));
    days.erase(days.begin(), days.end() - last);
    values.erase(values.begin(), values.end() - last);
    const std::optional<Trend> trend = trendOf(days, values);
    if (!trend) return std::nullopt;
    if (!enoughBefore && trend->p > 0 && trend->p < 1) {
        const double z = tQuantile(1 - trend->p / 2, std::numeric_limits<double>::infinity());
        drift.standard_errors = std::copysign(z, trend->slope);
    }
    drift.from_day = days.front();
    drift.per_week = trend->slope * 7;
    drift.level_now = medianOf(values) + trend->slope * (points.back().day - medianOf(days));
    drift.likely = std::abs(drift.standard_errors) > (enoughBefore ? driftMoved : driftTrended);
    return drift;
}

std::optional<double> weeksUntil(const Drift& drift, double limit) {
    if (!drift.likely || drift.per_week == 0) return std::nullopt;
    const double weeks = (limit - drift.level_now) / drift.per_week;
    return weeks > 0 ? std::optional<double>(weeks) : std::nullopt;
}

void ScatterSum::add(const ScatterGroup& group, double usual_sd) {
    constexpr double uneven = 3.5;
    if (group.n < 2) return;
    const double own = group.sum_of_squares / (group.n - 1);
    if (own > uneven * uneven * usual_sd * usual_sd) return;
    squares += group.sum_of_squares;
    dof += group.n - 1;
}

std::optional<PooledScatter> ScatterSum::pooled() const {
    if (dof < enoughFreedom || !(squares > 0)) return std::nullopt;
    return PooledScatter{std::sqrt(squares / dof), dof};
}

std::optional<PooledScatter> pooledScatter(const std::vector<ScatterGroup>& groups, double usual_sd) {
    ScatterSum sum;
    for (const ScatterGroup& group : groups) sum.add(group, usual_sd);
    return sum.pooled();
}

} // namespace rollcall
