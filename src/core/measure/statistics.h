// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <vector>

namespace rollcall {

/// Arithmetic mean; the list must not be empty.
double meanOf(const std::vector<double>& values);

/// Sample standard deviation with n - 1; none for fewer than two values.
std::optional<double> sampleSd(const std::vector<double>& values);

/// Median; the list must not be empty.
double medianOf(std::vector<double> values);

/// Largest minus smallest; the list must not be empty.
double rangeOf(const std::vector<double>& values);

/// Quantile of Student's t at probability p; dof > 0 need not be whole, infinity gives the normal quantile.
double tQuantile(double p, double dof);

/// Probability that Student's t stays at or below x.
double tProbability(double x, double dof);

/// Whether a variance ratio exceeds the p-quantile of the F distribution.
bool exceedsF(double ratio, double p, double dof1, double dof2);

/// Two-sided Grubbs test for a single outlier: whether the reading furthest from the mean is one at level
/// alpha. False for fewer than three values or no scatter. Source: F. E. Grubbs, Technometrics 11 (1969).
bool grubbsFindsOutlier(const std::vector<double>& values, double alpha);

/// A trend of one thing over another, without assuming that it is a straight line.
struct Trend {
    double slope = 0; ///< Theil-Sen: median of the slopes between all pairs
    double p = 1;     ///< two-sided, of Kendall's rank test: exact up to 7 pairs of values, else normal with continuity
};

/// Kendall's test with Theil-Sen's slope; ties on either side are counted, values closer than 1e-6 are tied. None for
/// fewer than two different x.
std::optional<Trend> trendOf(const std::vector<double>& x, const std::vector<double>& y);

} // namespace rollcall
