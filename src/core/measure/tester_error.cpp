// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/tester_error.h"

#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

namespace {

constexpr std::size_t enoughRuns = 8;
constexpr std::size_t latestRuns = 12; // a tester changes over months
constexpr double leastBetween = 0.05;  // HRC: today's run always says something

double uOf(const BlockBias& bias, double pooled_sd) {
    return bias.u.value_or(pooled_sd / std::sqrt(bias.n));
}

} // namespace

double ErrorHistory::unknownError() const {
    return std::hypot(mean, between_sd * std::sqrt(1 + 1.0 / runs));
}

std::optional<ErrorHistory> errorHistory(std::vector<BlockBias> errors, double pooled_sd) {
    if (errors.size() < enoughRuns) return std::nullopt;
    if (errors.size() > latestRuns)
        errors.erase(errors.begin(), errors.end() - static_cast<std::ptrdiff_t>(latestRuns));
    std::vector<double> values;
    double within = 0;
    for (const BlockBias& one : errors) {
        values.push_back(one.error);
        within += uOf(one, pooled_sd) * uOf(one, pooled_sd) / static_cast<double>(errors.size());
    }
    const double sd = sampleSd(values).value_or(0);
    return ErrorHistory{static_cast<int>(errors.size()), meanOf(values),
                        std::max(leastBetween, std::sqrt(std::max(0.0, sd * sd - within)))};
}

BlockBias drawnTowards(const ErrorHistory& history, const BlockBias& today, double pooled_sd) {
    constexpr double changed = 3;
    const double own = uOf(today, pooled_sd);
    // What the mean of the earlier runs is worth for today's error.
    const double before2 =
        history.between_sd * history.between_sd * (1 + 1.0 / history.runs) + own * own / history.runs;
    if (std::abs(today.error - history.mean) > changed * std::sqrt(before2 + own * own)) return today;
    const double weight = before2 / (before2 + own * own);
    return {history.mean + weight * (today.error - history.mean), today.n, std::sqrt(weight) * own};
}

BlockBias interpolated(double lower, const BlockBias& at_lower, double upper, const BlockBias& at_upper, double hrc,
                       double pooled_sd) {
    const double share = (hrc - lower) / (upper - lower);
    return {(1 - share) * at_lower.error + share * at_upper.error, at_lower.n + at_upper.n,
            std::hypot((1 - share) * uOf(at_lower, pooled_sd), share * uOf(at_upper, pooled_sd))};
}

} // namespace rollcall
