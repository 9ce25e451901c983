// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/names.h"
#include "core/base/result.h"

#include <array>
#include <cstdint>
#include <string>
#include <vector>

namespace rollcall {

/// What is looked at on each piece of a study.
enum class Measured { tempered, quenched, grain, strokes };
template<>
inline constexpr std::array namesOf<Measured>{"after temper", "as quenched", "grain", "strokes"};
inline constexpr std::array allMeasured{Measured::tempered, Measured::quenched, Measured::grain, Measured::strokes};

/// A study before it is done: one thing varied, so many pieces of each level that a difference that matters would show,
/// and the order in which they are to be done drawn by lot, so that what drifts in a day falls on all alike.
struct StudyPlan {
    std::string id;    ///< empty until it is kept
    std::string batch; ///< id of the batch that its pieces are; empty until there is one
    std::string name;
    std::string factor;              ///< in words
    std::vector<std::string> levels; ///< from 2 to 12, in words
    Measured measured = Measured::tempered;
    double difference = 0.5; ///< that matters, in the unit of what is measured
    double sd = 0.5;         ///< that pieces scatter by, in the same
    double power = 0.8;
    int pieces = 2; ///< of each level
    std::uint32_t seed = 1;
};

/// Errors (argument): no name, fewer than two or more than twelve levels, two alike, a difference or scatter not above
/// 0, a power outside 0.5 to 0.99, fewer than two pieces or more than 100 in all; more than 1,000 pieces of a level are
/// needed.
Result<StudyPlan> planned(StudyPlan wish);

/// The place of each piece in the order of work: which level comes when. In every round each level comes once, by lot
/// within the round; the same seed gives the same order everywhere.
std::vector<std::size_t> orderOf(const StudyPlan& plan);

/// The mark of each piece in that order: "A1", "C1", "B1"; a letter for the level, counted within it.
std::vector<std::string> marksOf(const StudyPlan& plan);

} // namespace rollcall
