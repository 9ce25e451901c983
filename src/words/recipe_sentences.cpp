// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/phrases.h"
#include "words/words.h"

// What is said of a recipe: its stages, what the grade is like in wear, and everything odd about it.
namespace rollcall::words {

QString stageName(StageKind kind) {
    switch (kind) {
    case StageKind::stressRelief:
        return tr("Stress relief");
    case StageKind::normalise:
        return tr("Normalise");
    case StageKind::refine:
        return tr("Refine");
    case StageKind::anneal:
        return tr("Anneal");
    case StageKind::austenitise:
        return tr("Austenitise");
    case StageKind::quench:
        return tr("Quench");
    case StageKind::cold:
        return tr("Cold treatment");
    case StageKind::temper:
        return tr("Temper");
    }
    return {};
}

QString wearText(const Grade& grade) {
    double carbon = 0;
    double vanadium = 0;
    for (const ElementLimits& limits : grade.composition) {
        const double middle = (limits.low.value_or(0) + limits.high.value_or(limits.low.value_or(0))) / 2;
        if (limits.element == "C") carbon = middle;
        if (limits.element == "V") vanadium = middle;
    }
    if (vanadium >= 2.5) return tr("much hard vanadium carbide, wears little, hard to grind");
    if (grade.isHighSpeed()) return tr("much carbide, keeps hot hardness");
    if (carbon >= 1.3 && grade.chromium_percent > 8)
        return tr("much coarse chromium carbide, wears little, chips sooner");
    if (grade.isStainless())
        return carbon >= 0.8 ? tr("much chromium carbide, stainless") : tr("little carbide, tough, stainless");
    if (grade.chromium_percent > 4) return tr("some chromium carbide");
    if (carbon >= 1.0) return tr("some fine carbide, keen edge");
    return carbon >= 0.75 ? tr("little carbide, easy to sharpen") : tr("hardly any carbide, tough");
}

QString recipeWarning(const RecipeFinding& f) {
    const auto n = [&](std::size_t i) { return i < f.numbers.size() ? f.numbers[i] : 0.0; };
    switch (f.warning) {
    case RecipeWarning::soakBelowWindow:
        return tr("%1 is below the grade's window, which begins at %2").arg(degrees(n(0)), degrees(n(1)));
    case RecipeWarning::soakAboveWindow:
        return tr("%1 is above the grade's window, which ends at %2").arg(degrees(n(0)), degrees(n(1)));
    case RecipeWarning::aboveCarbideLine:
        return tr("over Accm (%1) for long: carbides dissolve, grain grows").arg(degrees(n(1)));
    case RecipeWarning::soakTooLong:
        return tr("%1 min of soak, the library says %2 at most").arg(n(0)).arg(n(1));
    case RecipeWarning::soakTooShort:
        return tr("%1 min of soak, the library says %2 at least").arg(n(0)).arg(n(1));
    case RecipeWarning::embrittles:
        return tr("%1 lies where the grade turns brittle, %2 to %3").arg(degrees(n(0)), degrees(n(1)), degrees(n(2)));
    case RecipeWarning::embrittlementUnknown:
        return tr("not known where this grade turns brittle");
    case RecipeWarning::neverNormalise:
        return tr("this grade is never normalised: full anneal it");
    case RecipeWarning::normaliseOutside:
        return tr("%1 is outside %2 to %3").arg(degrees(n(0)), degrees(n(1)), degrees(n(2)));
    case RecipeWarning::tempersMissing:
        return tr("tempers: %1, the grade needs %2").arg(n(0)).arg(n(1));
    case RecipeWarning::quenchMedium:
        return tr("too gentle a quench for this grade");
    case RecipeWarning::orderOdd:
        return tr("comes after a stage it should precede");
    case RecipeWarning::gradeUnknown:
        return tr("the grade is not in the library: nothing is checked");
    }
    return {};
}

} // namespace rollcall::words
