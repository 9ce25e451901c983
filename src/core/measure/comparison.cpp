// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/comparison.h"

#include "core/measure/statistics.h"

#include <cmath>

namespace rollcall {

Result<Comparison> compareTesters(const std::vector<double>& a, const std::vector<double>& b, double graduation) {
    if (a.size() != b.size())
        return Error{ErrorKind::range, "pairs", "both testers need the same number of readings, in the same order"};
    if (a.size() < 3) return Error{ErrorKind::range, "pairs", "at least three pairs are needed"};
    Comparison c;
    for (std::size_t i = 0; i < a.size(); ++i) {
        if (!(std::isfinite(a[i]) && std::isfinite(b[i])))
            return Error{ErrorKind::range, "pairs", "a reading is not a number"};
        c.means.push_back((a[i] + b[i]) / 2);
        c.differences.push_back(a[i] - b[i]);
    }
    c.n = static_cast<int>(a.size());
    c.bias = meanOf(c.differences);
    c.sd = sampleSd(c.differences).value_or(0.0);
    const double t = tQuantile(0.975, c.n - 1);
    // Readings that differ by less than their display shows are not known to be the same.
    const double sd = std::max(c.sd, graduation / std::sqrt(6.0));
    const double half = t * sd / std::sqrt(c.n);
    const double spread = t * sd * std::sqrt(1.0 + 1.0 / c.n);
    c.low = c.bias - half;
    c.high = c.bias + half;
    c.agreement_low = c.bias - spread;
    c.agreement_high = c.bias + spread;
    c.rough = c.n < 5;
    return c;
}

namespace {

struct Pooled {
    double mean = 0;
    double u = 0;
    double between = 0;
};

Pooled randomEffects(const std::vector<double>& means, const std::vector<double>& us) {
    double sum = 0;
    double squares = 0;
    double weighted = 0;
    for (std::size_t i = 0; i < means.size(); ++i) {
        const double w = 1 / (us[i] * us[i]);
        sum += w;
        squares += w * w;
        weighted += w * means[i];
    }
    double q = 0;
    for (std::size_t i = 0; i < means.size(); ++i)
        q += (means[i] - weighted / sum) * (means[i] - weighted / sum) / (us[i] * us[i]);
    const double free = static_cast<double>(means.size()) - 1;
    const double spread = sum - squares / sum;
    const double variance = spread > 0 ? std::max(0.0, (q - free) / spread) : 0.0;
    double total = 0;
    double mean = 0;
    for (std::size_t i = 0; i < means.size(); ++i) {
        const double w = 1 / (us[i] * us[i] + variance);
        total += w;
        mean += w * means[i];
    }
    return {mean / total, std::sqrt(1 / total), std::sqrt(variance)};
}

} // namespace

Result<Consensus> consensusOf(const std::vector<double>& means, const std::vector<double>& us) {
    if (means.size() < 2 || means.size() != us.size())
        return Error{ErrorKind::range, "", "a consensus needs two means at least, each with its uncertainty"};
    for (std::size_t i = 0; i < means.size(); ++i) {
        if (!std::isfinite(means[i]) || !(us[i] > 0) || !std::isfinite(us[i]))
            return Error{ErrorKind::range, "", "a mean or its uncertainty is not a number above zero"};
    }
    const Pooled all = randomEffects(means, us);
    Consensus consensus{all.mean, all.u, all.between, {}};
    for (std::size_t i = 0; i < means.size(); ++i) {
        std::vector<double> others = means;
        std::vector<double> theirs = us;
        others.erase(others.begin() + static_cast<std::ptrdiff_t>(i));
        theirs.erase(theirs.begin() + static_cast<std::ptrdiff_t>(i));
        const Pooled rest = randomEffects(others, theirs);
        consensus.apart.push_back(std::abs(means[i] - rest.mean) / (2 * std::hypot(us[i], rest.u)));
    }
    return consensus;
}

} // namespace rollcall
