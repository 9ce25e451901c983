// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/outliers.h"

#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

namespace {

std::optional<double> gapBetweenClusters(std::vector<double> sorted, double limit) {
    std::sort(sorted.begin(), sorted.end());
    std::size_t widest = 0;
    double gap = 0;
    for (std::size_t i = 0; i + 1 < sorted.size(); ++i) {
        if (sorted[i + 1] - sorted[i] > gap) {
            gap = sorted[i + 1] - sorted[i];
            widest = i;
        }
    }
    const bool twoOnEachSide = widest >= 1 && widest + 3 <= sorted.size();
    return gap > limit && twoOnEachSide ? std::optional<double>(gap) : std::nullopt;
}

} // namespace

Agreement agreementOf(const std::vector<double>& readings, double pooled_sd, double pooled_dof, double graduation) {
    constexpr double noise = 1e-9; // tenths are not exact in binary
    Agreement agreement;
    const std::size_t n = readings.size();
    if (n < 2) return agreement;
    if (n == 2) {
        agreement.disagree = rangeOf(readings) > 3.64 * pooled_sd + noise;
        return agreement;
    }
    const bool coarse = rangeOf(readings) <= 2 * graduation + noise; // the display made the difference
    agreement.grubbs = n > 3 && !coarse && grubbsFindsOutlier(readings, 0.05);
    agreement.cluster_gap = gapBetweenClusters(readings, 3.5 * pooled_sd + noise);

    const double median = medianOf(readings);
    std::vector<double> deviations;
    deviations.reserve(n);
    for (const double r : readings) deviations.push_back(std::abs(r - median));
    const double robust = n >= 6 ? 3.0 * 1.4826 * medianOf(deviations) : 0.0;
    std::vector<double> kept;
    for (std::size_t i = 0; i < n; ++i) {
        if (deviations[i] > std::max({3.5 * pooled_sd, robust, graduation}) + noise)
            agreement.flagged.push_back(i);
        else
            kept.push_back(readings[i]);
    }
    if (agreement.cluster_gap || kept.size() < 2 || agreement.flagged.size() * 2 >= n) {
        if (!agreement.flagged.empty() || agreement.cluster_gap) agreement.uneven = true;
        agreement.flagged.clear();
        return agreement;
    }
    if (!agreement.flagged.empty()) agreement.mean_without_flagged = meanOf(kept);
    const double sd = sampleSd(kept).value_or(0.0);
    agreement.uneven =
        !coarse && exceedsF(sd * sd / (pooled_sd * pooled_sd), 0.95, static_cast<double>(kept.size() - 1), pooled_dof);
    return agreement;
}

} // namespace rollcall
