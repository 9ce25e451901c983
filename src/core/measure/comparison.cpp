// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/comparison.h"

#include "core/measure/statistics.h"

#include <cmath>

namespace rollcall {

Result<Comparison> compareTesters(const std::vector<double>& a, const std::vector<double>& b) {
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
    const double half = t * c.sd / std::sqrt(c.n);
    const double spread = t * c.sd * std::sqrt(1.0 + 1.0 / c.n);
    c.low = c.bias - half;
    c.high = c.bias + half;
    c.agreement_low = c.bias - spread;
    c.agreement_high = c.bias + spread;
    c.rough = c.n < 5;
    return c;
}

} // namespace rollcall
