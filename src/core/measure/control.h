// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <vector>

namespace rollcall {

/// One run on a block: when (days since any fixed moment, in order) and the value watched (error or spread, HRC).
struct ControlPoint {
    double day = 0;
    double value = 0;
};

/// E62. Half width of the limits for single values, in sigmas. Three would call every second steady tester changed
/// within a year of weekly runs, since middle and scatter are themselves known from few values only.
inline constexpr double controlSigmas = 4.5;

/// What the shop's own history says of the next value, as an individuals chart: mean ± 4.5 sigma, sigma from the mean
/// moving range / 1.128 (NIST/SEMATECH e-Handbook, 6.3.2.2).
struct ControlLimits {
    double mean = 0;
    double low = 0;
    double high = 0;
};

/// None for fewer than twelve points.
std::optional<ControlLimits> controlLimits(const std::vector<ControlPoint>& points);

/// Whether a value wanders in one direction (E41). From twenty points on: the mean of the last ten against the mean of
/// those before, in standard errors of their difference, the scatter taken from points two apart (it hardly feels that
/// neighbours lean on each other, nor a slow drift); likely beyond 4.1. For eight to nineteen points the Mann-Kendall
/// test with ties (H. B. Mann 1945); likely beyond p 0.001. Both levels are set by `rollcall_numbers drift`: looked at
/// after every weekly run, at most one steady tester in ten is called drifting in a year.
struct Drift {
    double per_week = 0;        ///< Sen's slope over the last twenty points (P. K. Sen 1968), HRC a week
    double standard_errors = 0; ///< how far it has moved, signed
    double level_now = 0;       ///< of the fitted line at the last point
    double from_day = 0;        ///< where that line begins
    bool likely = false;
};

/// Give the points of about a year. None for fewer than eight points or when all lie on one day.
std::optional<Drift> driftOf(const std::vector<ControlPoint>& points);

/// Weeks from the last point until the drift takes the value to a limit; none when it does not drift, drifts away from
/// it or has passed it.
std::optional<double> weeksUntil(const Drift& drift, double limit);

/// Readings of one piece as far as their scatter is concerned.
struct ScatterGroup {
    int n = 0;
    double sum_of_squares = 0; ///< about the group's own mean
};

/// M9. Pooled standard deviation of single readings and its degrees of freedom.
struct PooledScatter {
    double sd = 0;
    double dof = 0;
};

/// M9. Sums over groups, from which the pooled deviation follows; they add up, so that what is known of the past need
/// not be added anew.
struct ScatterSum {
    double squares = 0;
    double dof = 0;
    /// Adds a group; one that scatters more than a tester can explain does not count.
    void add(const ScatterGroup& group, double usual_sd);
    /// None below eight degrees of freedom, or without scatter.
    std::optional<PooledScatter> pooled() const;
};

/// M9. From groups of at least two readings; groups that scatter more than a tester can explain (s over 3.5 times the
/// given standard deviation) are uneven pieces and left out. None below eight degrees of freedom, or without scatter.
std::optional<PooledScatter> pooledScatter(const std::vector<ScatterGroup>& groups, double usual_sd);

} // namespace rollcall
