// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/sampling.h"

#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

namespace rollcall {

namespace {

double Phi(double x) {
    return 0.5 * std::erfc(-x / std::sqrt(2.0));
}

// Of one blade and of all: over what they share, by Simpson's rule.
std::pair<double, double> chancesInside(double mean, double own, double common, double low, double high, int unread) {
    constexpr int steps = 60;
    constexpr double widest = 5.5;
    double one = 0;
    double all = 0;
    for (int k = 0; k <= steps; ++k) {
        const double z = widest * (2.0 * k / steps - 1);
        const double at = mean + common * z;
        const double inside = std::max(0.0, Phi((high - at) / own) - Phi((low - at) / own));
        const double weight = (k == 0 || k == steps ? 1 : k % 2 == 1 ? 4 : 2) * std::exp(-z * z / 2);
        one += weight * inside;
        all += weight * std::pow(inside, unread);
    }
    const double scale = (2 * widest / steps) / 3 / std::sqrt(2 * 3.14159265358979323846);
    return {one * scale, all * scale};
}

} // namespace

Result<SampleChance> sampleChance(const std::vector<double>& means, const Window& window, int unread,
                                  const SamplingFloor& floor) {
    if (means.size() < 3) return Error{ErrorKind::range, "", "at least three blades must be read; five are asked"};
    if (!window.low && !window.high) return Error{ErrorKind::range, "", "there is no window"};
    if (unread < 0 || unread > 1000) return Error{ErrorKind::range, "", "the unread blades are 0 to 1000"};
    const double n = static_cast<double>(means.size());
    const double dof = n - 1;
    const double seen = sampleSd(means).value_or(0.0);
    if (!(seen > 0) && !(floor.blade_u > 0))
        return Error{ErrorKind::range, "", "the blades do not differ at all: nothing can be said of the others"};
    const double mean = meanOf(means);
    const double scale2 = seen * seen + floor.blade_u * floor.blade_u;
    constexpr double open = std::numeric_limits<double>::infinity();
    const double low = window.low.value_or(-open);
    const double high = window.high.value_or(open);
    SampleChance chance;
    chance.rough = means.size() < 5;

    // Over what the true blades may scatter by, each as likely as the means make it; before them every factor is as
    // likely as any other, between what no oven keeps and what no batch is.
    constexpr double least = 0.03;
    constexpr double most = 2.0;
    constexpr int scatters = 120;
    double weights = 0;
    for (int i = 0; i < scatters; ++i) {
        const double own = least * std::pow(most / least, (i + 0.5) / scatters);
        const double total2 = own * own + floor.blade_u * floor.blade_u; // reading noise counts once: here
        const double before = floor.spread_sd * floor.spread_sd / (own * own);
        const double weight = std::exp(-dof / 2 * (std::log(total2 / scale2) + seen * seen / total2) -
                                       floor.spread_dof / 2 * (before > 0 ? before - std::log(before) - 1 : 0));
        const double common = std::sqrt(total2 / n + floor.common_u * floor.common_u); // what all unread ones share
        const auto [one, all] = chancesInside(mean, own, common, low, high, unread);
        weights += weight;
        chance.next += weight * one;
        chance.all += weight * all;
    }
    chance.next /= weights;
    chance.all /= weights;
    chance.next = std::min(chance.next, 1.0);
    chance.all = std::min(chance.all, 1.0);
    return chance;
}

} // namespace rollcall
