// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/grade.h"
#include "core/base/names.h"

#include <optional>
#include <string>
#include <vector>

namespace rollcall {

enum class StageKind { stressRelief, normalise, refine, anneal, austenitise, quench, cold, temper };
template<>
inline constexpr std::array namesOf<StageKind>{"stress relief", "normalise", "refine", "anneal",
                                               "austenitise",   "quench",    "cold",   "temper"};
inline constexpr int stageKinds = 8;

/// One stage of a recipe. Temperatures in degrees Celsius; what was typed stays beside it.
struct RecipeStage {
    StageKind kind = StageKind::temper;
    double temperature_c = 0;          ///< of the quench: of the medium
    double minutes = 0;                ///< hold; of an austenitise the shortest soak
    std::optional<double> max_minutes; ///< of an austenitise: the longest soak
    double tolerance_c = 10;
    std::string cooling; ///< or medium
    std::string as_entered;
};

/// A recipe in one version; it is never changed, a new version takes its place.
struct Recipe {
    std::string id;
    std::string name;
    int version = 1;
    std::string grade;
    std::vector<RecipeStage> stages;
    std::string person;

    /// The first stage of a kind; null when there is none.
    const RecipeStage* stage(StageKind kind) const;
    int tempers() const;
};

/// What is odd about a stage, seen against its grade.
enum class RecipeWarning {
    soakBelowWindow,  ///< numbers: temperature, low end
    soakAboveWindow,  ///< numbers: temperature, high end
    aboveCarbideLine, ///< over Accm for longer than the shortest soak; numbers: temperature, Accm
    soakTooLong,      ///< numbers: minutes, most
    soakTooShort,     ///< numbers: minutes, least
    embrittles,       ///< numbers: temperature, from, to
    embrittlementUnknown,
    neverNormalise,   ///< air-hardening, stainless and high speed
    normaliseOutside, ///< numbers: temperature, low, high
    tempersMissing,   ///< numbers: tempers, needed
    quenchMedium,     ///< the grade asks for another quench
    orderOdd,         ///< a temper before the quench, a quench before the soak
    gradeUnknown
};

struct RecipeFinding {
    std::size_t stage = 0;
    RecipeWarning warning;
    std::vector<double> numbers;
};

/// Looks at every stage against what the library knows of the grade; null: the grade is not known.
std::vector<RecipeFinding> checkRecipe(const Recipe& recipe, const Grade* grade);

/// A recipe by the library's middle values for a grade, to begin with: normalise and refine where the grade may be
/// normalised and was forged, austenitise, quench, tempers aimed at the window by the library's curve alone (none when
/// it cannot reach it).
Recipe templateFor(const Grade& grade, bool forged, const std::optional<double>& window_middle);

} // namespace rollcall
