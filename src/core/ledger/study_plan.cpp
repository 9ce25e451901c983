// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ledger/study_plan.h"

#include "core/ledger/compare.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <random>
#include <set>

namespace rollcall {

Result<StudyPlan> planned(StudyPlan wish) {
    const auto refuse = [](const char* where, const char* why) { return Error{ErrorKind::argument, where, why}; };
    if (wish.name.empty()) return refuse("name", "a study needs a name");
    if (wish.levels.size() < 2) return refuse("levels", "two levels at least are needed");
    if (wish.levels.size() > 12) return refuse("levels", "twelve levels at most");
    if (std::set<std::string>(wish.levels.begin(), wish.levels.end()).size() != wish.levels.size())
        return refuse("levels", "two levels have the same name");
    if (!(wish.difference > 0) || !std::isfinite(wish.difference))
        return refuse("difference", "the difference that matters must be above 0");
    if (!(wish.sd > 0) || !std::isfinite(wish.sd)) return refuse("sd", "the scatter must be above 0");
    if (!(wish.power >= 0.5 && wish.power <= 0.99)) return refuse("power", "a power from 0.5 to 0.99 is needed");
    const auto pieces = piecesToTell(wish.difference, wish.sd, static_cast<int>(wish.levels.size()), wish.power);
    constexpr std::size_t most = 100;
    if (!pieces || static_cast<std::size_t>(*pieces) * wish.levels.size() > most)
        return refuse("difference", "so small a difference needs more than 100 pieces: look for a larger one");
    wish.pieces = *pieces;
    return wish;
}

std::vector<std::size_t> orderOf(const StudyPlan& plan) {
    std::vector<std::size_t> order;
    std::mt19937 chance(plan.seed);
    for (int round = 0; round < plan.pieces; ++round) {
        std::vector<std::size_t> levels(plan.levels.size());
        std::iota(levels.begin(), levels.end(), std::size_t{0});
        // Written out: the order of std::shuffle is each library's own.
        for (std::size_t i = levels.size(); i > 1; --i) {
            const auto range = static_cast<std::uint32_t>(i);
            const std::uint32_t fair = std::mt19937::max() - std::mt19937::max() % range;
            std::uint32_t drawn = chance();
            while (drawn >= fair) drawn = chance();
            std::swap(levels[i - 1], levels[drawn % range]);
        }
        order.insert(order.end(), levels.begin(), levels.end());
    }
    return order;
}

std::vector<std::string> marksOf(const StudyPlan& plan) {
    std::vector<int> counts(plan.levels.size());
    std::vector<std::string> marks;
    for (const std::size_t level : orderOf(plan))
        marks.push_back(std::string(1, static_cast<char>('A' + level)) + std::to_string(++counts[level]));
    return marks;
}

} // namespace rollcall
