// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/control.h"

#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>

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
    limits.low = limits.mean - 3 * sigma;
    limits.high = limits.mean + 3 * sigma;
    return limits;
}

std::optional<Drift> driftOf(const std::vector<ControlPoint>& points) {
    const std::size_t n = points.size();
    if (n < enoughForDrift || !(points.back().day > points.front().day)) return std::nullopt;
    std::vector<double> days;
    std::vector<double> values;
    for (const ControlPoint& point : points) {
        days.push_back(point.day);
        values.push_back(point.value);
    }
    const std::optional<Trend> trend = trendOf(days, values);
    if (!trend) return std::nullopt;
    const double slope = trend->slope;
    Drift drift;
    drift.per_week = slope * 7;
    drift.p = trend->p;
    drift.level_now = medianOf(values) + slope * (points.back().day - medianOf(days));
    drift.likely = drift.p < 0.05;
    return drift;
}

std::optional<double> weeksUntil(const Drift& drift, double limit) {
    if (!drift.likely || drift.per_week == 0) return std::nullopt;
    const double weeks = (limit - drift.level_now) / drift.per_week;
    return weeks > 0 ? std::optional<double>(weeks) : std::nullopt;
}

std::optional<PooledScatter> pooledScatter(const std::vector<ScatterGroup>& groups, double usual_sd) {
    constexpr double uneven = 3.5;
    double squares = 0;
    double dof = 0;
    for (const ScatterGroup& group : groups) {
        if (group.n < 2) continue;
        const double own = group.sum_of_squares / (group.n - 1);
        if (own > uneven * uneven * usual_sd * usual_sd) continue;
        squares += group.sum_of_squares;
        dof += group.n - 1;
    }
    if (dof < enoughFreedom || !(squares > 0)) return std::nullopt;
    return PooledScatter{std::sqrt(squares / dof), dof};
}

} // namespace rollcall
