// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/verification.h"

#include "core/base/number.h"
#include "core/measure/rockwell.h"
#include "core/measure/statistics.h"

#include <cmath>
#include <fmt/format.h>
#include <limits>
#include <numbers>

namespace rollcall {

Result<ToleranceBand> toleranceFor(const Tables& tables, const std::string& scaleName, double value) {
    const Result<RockwellScale> scale = tables.scale(scaleName);
    if (!scale) return scale.error();
    for (const ToleranceBand& band : tables.tolerances()) {
        if (band.scale != scale->symbol) continue;
        if (band.low && !atLeast(value, *band.low)) continue;
        if (band.high && atLeast(value, *band.high)) continue;
        return band;
    }
    return Error{ErrorKind::argument, "",
                 fmt::format("the tolerance table has no line for {} {}", value, scale->symbol)};
}

Result<VerificationAnswer> verifyTester(const Tables& tables, const std::string& scaleName, double certified,
                                        const std::vector<double>& readings) {
    const Result<RockwellScale> scale = tables.scale(scaleName);
    if (!scale) return scale.error();
    if (readings.size() < 2)
        return Error{ErrorKind::argument, "readings", "a verification needs at least two readings"};
    if (!inRange(*scale, certified)) {
        return Error{ErrorKind::range, "block", fmt::format("{} is outside the range of {}", certified, scale->symbol)};
    }
    for (const double reading : readings) {
        if (!inRange(*scale, reading)) {
            return Error{ErrorKind::range, "readings",
                         fmt::format("{} is outside the range of {}", reading, scale->symbol)};
        }
    }
    const Result<ToleranceBand> band = toleranceFor(tables, scaleName, certified);
    if (!band) return band.error();
    VerificationAnswer answer;
    answer.mean = meanOf(readings);
    answer.error = answer.mean - certified;
    answer.repeatability = rangeOf(readings);
    answer.max_error = band->max_error;
    answer.max_repeatability = band->max_repeatability;
    answer.table_line = band->line;
    answer.confidence = band->confidence;
    answer.ok =
        atMost(std::abs(answer.error), band->max_error) && atMost(answer.repeatability, band->max_repeatability);
    return answer;
}

double chancePerfectRefused(double scatter, int n, const VerificationAnswer& allowed) {
    constexpr double endless = std::numeric_limits<double>::infinity();
    constexpr double far = 8; // standard deviations
    constexpr int steps = 400;
    const double range = allowed.max_repeatability / scatter;
    // Distribution of the range: n times the integral of the density of the least reading times the chance that the
    // others lie within the range above it.
    double within = 0;
    for (int i = 0; i < steps; ++i) {
        const double x = -far + (i + 0.5) * 2 * far / steps;
        const double others = tProbability(x + range, endless) - tProbability(x, endless);
        within += std::exp(-x * x / 2) / std::sqrt(2 * std::numbers::pi) * std::pow(others, n - 1);
    }
    within *= n * 2 * far / steps;
    const double near = 2 * tProbability(allowed.max_error * std::sqrt(n) / scatter, endless) - 1;
    return 1 - std::min(1.0, within) * near;
}

bool verificationCovers(const VerificationAnswer& run, const ToleranceBand& band) {
    return run.ok && (run.table_line == band.line || (atMost(std::abs(run.error), band.max_error) &&
                                                      atMost(run.repeatability, band.max_repeatability)));
}

} // namespace rollcall
