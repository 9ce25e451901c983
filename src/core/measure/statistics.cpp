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
#include <limits>
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
template<class Compute, std::size_t many = 64>
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
        Key key{-1, -1, -1}; // nothing is asked for by it: the last is none or degrees of freedom
        double value = 0;
    };
    Compute m_compute;
    std::array<Entry, many> m_entries;
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
    // Of a batch that is judged again most blades have the mean that they had.
    thread_local Kept<double (*)(double, double, double), 256> kept(
        [](double t, double nu, double) { return boost::math::cdf(StudentsT(nu), t); });
    return kept(x, dof, 0);
}

bool exceedsF(double ratio, double p, double dof1, double dof2) {
    if (!(ratio > 1.0)) return false; // the upper quantiles in use all lie above 1
    thread_local Kept kept(
        [](double q, double nu1, double nu2) { return boost::math::quantile(FisherF(nu1, nu2), q); });
    return ratio > kept(p, dof1, dof2);
}

namespace {

int signOf(double difference) {
    return std::abs(difference) <= 1e-6 ? 0 : difference > 0 ? 1 : -1;
}

int kendallSum(const std::vector<double>& x, const std::vector<double>& y) {
    int sum = 0;
    for (std::size_t i = 0; i < x.size(); ++i) {
        for (std::size_t j = i + 1; j < x.size(); ++j) sum += signOf(x[j] - x[i]) * signOf(y[j] - y[i]);
    }
    return sum;
}

// Part of all orders of y whose sum is at least as far from none.
double exactProbability(const std::vector<double>& x, const std::vector<double>& y, int sum) {
    std::vector<std::size_t> order(y.size());
    std::iota(order.begin(), order.end(), 0U);
    std::vector<double> moved(y.size());
    double as_far = 0;
    double all = 0;
    do {
        for (std::size_t i = 0; i < order.size(); ++i) moved[i] = y[order[i]];
        as_far += std::abs(kendallSum(x, moved)) >= std::abs(sum) ? 1 : 0;
        all += 1;
    } while (std::next_permutation(order.begin(), order.end()));
    return as_far / all;
}

// Sizes of the groups of tied values.
std::vector<double> tiesOf(std::vector<double> values) {
    std::sort(values.begin(), values.end());
    std::vector<double> groups;
    for (std::size_t i = 0; i < values.size(); ++i) {
        if (i > 0 && signOf(values[i] - values[i - 1]) == 0)
            groups.back() += 1;
        else
            groups.push_back(1);
    }
    return groups;
}

// Variance of Kendall's sum when nothing is going on, with ties on both sides.
double kendallVariance(const std::vector<double>& x, const std::vector<double>& y) {
    const double n = static_cast<double>(x.size());
    const auto sum = [](const std::vector<double>& groups, auto term) {
        double all = 0;
        for (const double t : groups) all += term(t);
        return all;
    };
    const auto two = [](double t) { return t * (t - 1); };
    const auto three = [](double t) { return t * (t - 1) * (t - 2); };
    const auto five = [](double t) { return t * (t - 1) * (2 * t + 5); };
    const std::vector<double> tx = tiesOf(x);
    const std::vector<double> ty = tiesOf(y);
    return (five(n) - sum(tx, five) - sum(ty, five)) / 18 + sum(tx, two) * sum(ty, two) / (2 * two(n)) +
           sum(tx, three) * sum(ty, three) / (9 * three(n));
}

} // namespace

std::optional<Trend> trendOf(const std::vector<double>& x, const std::vector<double>& y) {
    constexpr std::size_t exactly = 7;
    std::vector<double> slopes;
    for (std::size_t i = 0; i < x.size(); ++i) {
        for (std::size_t j = i + 1; j < x.size(); ++j) {
            if (signOf(x[j] - x[i]) != 0) slopes.push_back((y[j] - y[i]) / (x[j] - x[i]));
        }
    }
    if (slopes.empty()) return std::nullopt;
    Trend trend;
    trend.slope = medianOf(std::move(slopes));
    const int sum = kendallSum(x, y);
    if (x.size() <= exactly) {
        trend.p = exactProbability(x, y, sum);
    } else if (const double variance = kendallVariance(x, y); variance > 0 && sum != 0) {
        const double z = (std::abs(sum) - 1) / std::sqrt(variance);
        trend.p = 2 * (1 - tProbability(z, std::numeric_limits<double>::infinity()));
    }
    return trend;
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
