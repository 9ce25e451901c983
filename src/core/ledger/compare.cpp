// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ledger/compare.h"

#include "core/measure/statistics.h"

#include <algorithm>
#include <boost/math/distributions/fisher_f.hpp>
#include <boost/math/distributions/non_central_f.hpp>
#include <boost/math/distributions/non_central_t.hpp>
#include <boost/math/distributions/students_t.hpp>
#include <cmath>

namespace rollcall {

namespace {

constexpr std::size_t mostLevels = 8;
constexpr double surely = 0.05;

LevelPair pairOf(const Level& first, const Level& second, std::size_t a, std::size_t b) {
    LevelPair pair{a, b, first.mean - second.mean, {}, 1, 1, false, std::nullopt};
    const double va = *first.sd * *first.sd / static_cast<double>(first.values.size());
    const double vb = *second.sd * *second.sd / static_cast<double>(second.values.size());
    // No scatter at all is a display's grain, not certainty.
    constexpr double leastVariance = 1e-4;
    const double variance = std::max(va + vb, leastVariance);
    const double dof = va + vb <= 0 ? static_cast<double>(first.values.size() + second.values.size() - 2)
                                    : (va + vb) * (va + vb) /
                                          (va * va / static_cast<double>(first.values.size() - 1) +
                                           vb * vb / static_cast<double>(second.values.size() - 1));
    const double se = std::sqrt(variance);
    const double half = tQuantile(1 - surely / 2, dof) * se;
    pair.known = {pair.difference - half, pair.difference + half};
    pair.p = 2 * (1 - tProbability(std::abs(pair.difference) / se, dof));
    const double pooled = std::sqrt((*first.sd * *first.sd + *second.sd * *second.sd) / 2);
    constexpr double leastTold = 0.05;
    if (std::abs(pair.difference) >= leastTold && pooled > 0)
        pair.heats_to_tell = piecesToTell(std::abs(pair.difference), pooled, 2, 0.8);
    return pair;
}

void adjust(std::vector<LevelPair>& pairs) {
    std::sort(pairs.begin(), pairs.end(), [](const LevelPair& x, const LevelPair& y) { return x.p < y.p; });
    double least = 0;
    for (std::size_t i = 0; i < pairs.size(); ++i) {
        least = std::max(least, std::min(1.0, pairs[i].p * static_cast<double>(pairs.size() - i)));
        pairs[i].adjusted = least;
        pairs[i].differ = least < surely;
    }
}

std::optional<double> brownForsythe(const std::vector<Level>& levels) {
    std::vector<std::vector<double>> groups;
    for (const Level& level : levels) {
        if (level.values.size() < 3) continue;
        const double middle = medianOf(level.values);
        std::vector<double>& group = groups.emplace_back();
        for (const double value : level.values) group.push_back(std::abs(value - middle));
    }
    if (groups.size() < 2) return std::nullopt;
    double sum = 0;
    std::size_t n = 0;
    for (const auto& group : groups) {
        for (const double value : group) sum += value;
        n += group.size();
    }
    const double all = sum / static_cast<double>(n);
    double between = 0;
    double within = 0;
    for (const auto& group : groups) {
        const double mean = meanOf(group);
        between += static_cast<double>(group.size()) * (mean - all) * (mean - all);
        for (const double value : group) within += (value - mean) * (value - mean);
    }
    const double dof1 = static_cast<double>(groups.size() - 1);
    const double dof2 = static_cast<double>(n - groups.size());
    if (within <= 0) return std::nullopt;
    return cdf(complement(boost::math::fisher_f(dof1, dof2), between / dof1 / (within / dof2)));
}

} // namespace

std::string levelOf(const LedgerBatch& batch, Factor factor) {
    switch (factor) {
    case Factor::recipe:
        return batch.recipe;
    case Factor::oven:
        return batch.oven;
    case Factor::medium:
        return batch.medium;
    case Factor::person:
        return batch.person;
    case Factor::tester:
        return batch.tester;
    case Factor::lot:
        return batch.lot;
    }
    return {};
}

double powerOf(double difference, double sd, int levels, int pieces) {
    if (pieces < 2) return 0;
    const double n = pieces;
    if (levels == 2) {
        const double dof = 2 * n - 2;
        const double shift = difference / sd * std::sqrt(n / 2);
        const double limit = tQuantile(1 - surely / 2, dof);
        constexpr double sure = 30; // beyond it the distribution is not worth asking
        if (shift > sure) return 1;
        const boost::math::non_central_t shifted(dof, shift);
        return cdf(complement(shifted, limit)) + cdf(shifted, -limit);
    }
    const double dof1 = levels - 1;
    const double dof2 = levels * (n - 1);
    const double shift = n * difference * difference / (2 * sd * sd);
    constexpr double sure = 900;
    if (shift > sure) return 1;
    const double limit = quantile(boost::math::fisher_f(dof1, dof2), 1 - surely);
    return cdf(complement(boost::math::non_central_f(dof1, dof2, shift), limit));
}

std::optional<int> piecesToTell(double difference, double sd, int levels, double power) {
    constexpr int most = 1000;
    if (powerOf(difference, sd, levels, most) < power) return std::nullopt;
    int low = 1;
    int high = most;
    while (high - low > 1) {
        const int middle = (low + high) / 2;
        (powerOf(difference, sd, levels, middle) >= power ? high : low) = middle;
    }
    return high;
}

Comparisons compareLevels(std::vector<Level> levels) {
    Comparisons answer;
    for (Level& level : levels) {
        level.mean = meanOf(level.values);
        level.sd = sampleSd(level.values);
        if (!level.sd) continue;
        const double n = static_cast<double>(level.values.size());
        const double half = tQuantile(1 - surely / 2, n - 1) * *level.sd / std::sqrt(n);
        level.known = Interval{level.mean - half, level.mean + half};
    }
    std::stable_sort(levels.begin(), levels.end(),
                     [](const Level& x, const Level& y) { return x.values.size() > y.values.size(); });
    if (levels.size() > mostLevels) {
        answer.more = static_cast<int>(levels.size() - mostLevels);
        levels.resize(mostLevels);
    }
    answer.levels = std::move(levels);
    for (std::size_t a = 0; a < answer.levels.size(); ++a) {
        for (std::size_t b = a + 1; b < answer.levels.size(); ++b) {
            if (answer.levels[a].sd && answer.levels[b].sd)
                answer.pairs.push_back(pairOf(answer.levels[a], answer.levels[b], a, b));
        }
    }
    adjust(answer.pairs);
    answer.scatter_p = brownForsythe(answer.levels);
    return answer;
}

Comparisons compareLevels(const Ledger& ledger, const std::vector<const Grade*>& grades, Factor factor,
                          Response response) {
    std::map<std::string, Level> levels;
    int unnamed = 0;
    for (const Grade* grade : grades) {
        std::vector<HeatMean> heats =
            response == Response::quenched ? heatsQuenched(ledger, *grade) : heatsTempered(ledger, *grade);
        // Of each heat its last temper alone: the earlier ones lean on the same quench.
        std::map<std::pair<const LedgerBatch*, int>, HeatMean*> last;
        for (HeatMean& heat : heats) {
            HeatMean*& kept = last[{heat.batch, heat.round}];
            if (kept == nullptr || heat.temper > kept->temper) kept = &heat;
        }
        double usual = 0;
        if (grades.size() > 1) {
            for (const auto& [key, heat] : last) usual += heat->from_library / static_cast<double>(last.size());
        }
        for (const HeatMean& heat : heats) {
            if (last.at({heat.batch, heat.round}) != &heat) continue;
            const std::string name = levelOf(*heat.batch, factor);
            if (name.empty()) {
                ++unnamed;
                continue;
            }
            Level& level = levels[name];
            level.name = name;
            level.values.push_back(heat.from_library - usual);
            level.batches.push_back(heat.batch);
            level.blades.push_back(heat.blade);
            level.pieces += heat.blades;
        }
    }
    std::vector<Level> all;
    for (auto& [name, level] : levels) all.push_back(std::move(level));
    Comparisons answer = compareLevels(std::move(all));
    answer.unnamed = unnamed;
    return answer;
}

} // namespace rollcall
