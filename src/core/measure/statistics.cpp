// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/statistics.h"

#include <algorithm>
#include <boost/math/distributions/fisher_f.hpp>
#include <boost/math/distributions/normal.hpp>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>
#include <numeric>

namespace rollcall {

double meanOf(const std::vector<double>& values) {
    return std::accumulate(values.begin(), values.end(), 0.0) / static_cast<double>(values.size());
}

std::optional<double> sampleSd(const std::vector<double>& values) {
    if (values.size() < 2) return std::nullopt;
    const double mean = meanOf(values);
    double squares = 0;
    for (const double v : values) squares += (v - mean) * (v - mean);
    return std::sqrt(squares / static_cast<double>(values.size() - 1));
}

double medianOf(std::vector<double> values) {
    std::sort(values.begin(), values.end());
    const std::size_t half = values.size() / 2;
    return values.size() % 2 == 1 ? values[half] : (values[half - 1] + values[half]) / 2.0;
}

double rangeOf(const std::vector<double>& values) {
    const auto [low, high] = std::minmax_element(values.begin(), values.end());
    return *high - *low;
}

double tQuantile(double p, double dof) {
    if (std::isinf(dof)) return boost::math::quantile(boost::math::normal(), p);
    return boost::math::quantile(boost::math::students_t(dof), p);
}

double tProbability(double x, double dof) {
    if (std::isinf(dof)) return boost::math::cdf(boost::math::normal(), x);
    return boost::math::cdf(boost::math::students_t(dof), x);
}

bool exceedsF(double ratio, double p, double dof1, double dof2) {
    if (!(ratio > 1.0)) return false; // the upper quantiles in use all lie above 1
    return boost::math::cdf(boost::math::fisher_f(dof1, dof2), ratio) > p;
}

bool grubbsFindsOutlier(const std::vector<double>& values, double alpha) {
    const double n = static_cast<double>(values.size());
    const std::optional<double> sd = sampleSd(values);
    if (n < 3 || !sd || !(*sd > 0)) return false;
    const double mean = meanOf(values);
    double furthest = 0;
    for (const double v : values) furthest = std::max(furthest, std::abs(v - mean));
    const double g = furthest / *sd;
    const double rest = (n - 1) * (n - 1) - n * g * g;
    if (!(rest > 1e-12)) return true; // all others equal: the largest value the statistic can take
    const double t = std::sqrt(n * (n - 2) * g * g / rest);
    return 2.0 * n * (1.0 - tProbability(t, n - 2)) < alpha;
}

} // namespace rollcall
