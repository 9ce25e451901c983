// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/statistics.h"

#include <algorithm>
#include <array>
#include <boost/math/distributions/fisher_f.hpp>
#include <boost/math/distributions/normal.hpp>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>
#include <functional>
#include <numeric>

namespace rollcall {

namespace {

// Double precision is more than any of this is known to; the library's default computes in long double.
using Plain = boost::math::policies::policy<boost::math::policies::promote_double<false>>;
using Normal = boost::math::normal_distribution<double, Plain>;
using StudentsT = boost::math::students_t_distribution<double, Plain>;
using FisherF = boost::math::fisher_f_distribution<double, Plain>;

// The same few critical values are asked for again and again while a batch is judged, each costing microseconds:
// the last ones of each kind are kept. Pure: what is kept is what would be computed.
template<class Compute>
class Kept {
public:
    explicit Kept(Compute compute) : m_compute(compute) {}
    double operator()(double a, double b, double c) {
        const Key key{a, b, c};
        Entry& entry = m_entries[std::hash<double>()(a + 31.0 * b + 1009.0 * c) % m_entries.size()];
        if (entry.key != key) entry = {key, m_compute(a, b, c)};
        return entry.value;
    }

private:
    using Key = std::array<double, 3>;
    struct Entry {
        Key key{-1, -1, -1}; // no probability is negative
        double value = 0;
    };
    Compute m_compute;
    std::array<Entry, 64> m_entries;
};

} // namespace

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
    if (std::isinf(dof)) return boost::math::quantile(Normal(), p);
    thread_local Kept kept([](double q, double nu, double) { return boost::math::quantile(StudentsT(nu), q); });
    return kept(p, dof, 0);
}

double tProbability(double x, double dof) {
    if (std::isinf(dof)) return boost::math::cdf(Normal(), x);
    return boost::math::cdf(StudentsT(dof), x);
}

bool exceedsF(double ratio, double p, double dof1, double dof2) {
    if (!(ratio > 1.0)) return false; // the upper quantiles in use all lie above 1
    thread_local Kept kept(
        [](double q, double nu1, double nu2) { return boost::math::quantile(FisherF(nu1, nu2), q); });
    return ratio > kept(p, dof1, dof2);
}

bool grubbsFindsOutlier(const std::vector<double>& values, double alpha) {
    const double n = static_cast<double>(values.size());
    const std::optional<double> sd = sampleSd(values);
    if (n < 3 || !sd || !(*sd > 0)) return false;
    const double mean = meanOf(values);
    double furthest = 0;
    for (const double v : values) furthest = std::max(furthest, std::abs(v - mean));
    const double t = tQuantile(1.0 - alpha / (2.0 * n), n - 2);
    return furthest / *sd > (n - 1) / std::sqrt(n) * std::sqrt(t * t / (n - 2 + t * t));
}

} // namespace rollcall
