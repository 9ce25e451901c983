// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/sampling.h"

#include "core/measure/statistics.h"

#include <algorithm>
#include <boost/math/distributions/chi_squared.hpp>
#include <cmath>
#include <limits>

namespace rollcall {

namespace {

double Phi(double x) {
    return 0.5 * std::erfc(-x / std::sqrt(2.0));
}

} // namespace

Result<SampleChance> sampleChance(const std::vector<double>& means, const Window& window, int unread,
                                  const SamplingFloor& floor) {
    if (means.size() < 3) return Error{ErrorKind::range, "", "at least three blades must be read; five are asked"};
    if (!window.low && !window.high) return Error{ErrorKind::range, "", "there is no window"};
    if (unread < 0 || unread > 1000) return Error{ErrorKind::range, "", "the unread blades are 0 to 1000"};
    const double n = static_cast<double>(means.size());
    const double dof = n - 1;
    const double between = std::max(sampleSd(means).value_or(0.0), floor.blade_u);
    if (!(between > 0))
        return Error{ErrorKind::range, "", "the blades do not differ at all: nothing can be said of the others"};
    const double mean = meanOf(means);
    const double common = between * between / n + floor.common_u * floor.common_u; // what all unread blades share
    const double scale = std::sqrt(between * between + common);
    constexpr double open = std::numeric_limits<double>::infinity();
    const double low = window.low.value_or(-open);
    const double high = window.high.value_or(open);
    SampleChance chance;
    chance.rough = means.size() < 5;
    chance.next = tProbability((high - mean) / scale, dof) - tProbability((low - mean) / scale, dof);
    // All together: over the scatter's own uncertainty (midpoints of equal chance) and over what they share (Simpson).
    constexpr int scatters = 400;
    constexpr int shares = 120;
    constexpr double widest = 6;
    const boost::math::chi_squared chi(dof);
    for (int i = 0; i < scatters; ++i) {
        const double stretch = std::sqrt(dof / boost::math::quantile(chi, (i + 0.5) / scatters));
        const double own = between * stretch;
        const double shared = std::sqrt(common) * stretch;
        double sum = 0;
        for (int k = 0; k <= shares; ++k) {
            const double z = widest * (2.0 * k / shares - 1);
            const double at = mean + shared * z;
            const double inside = Phi((high - at) / own) - Phi((low - at) / own);
            const double weight = k == 0 || k == shares ? 1 : k % 2 == 1 ? 4 : 2;
            sum += weight * std::exp(-z * z / 2) * std::pow(std::max(0.0, inside), unread);
        }
        chance.all += sum * (2 * widest / shares) / 3 / std::sqrt(2 * 3.14159265358979323846) / scatters;
    }
    chance.all = std::min(chance.all, 1.0);
    return chance;
}

} // namespace rollcall
