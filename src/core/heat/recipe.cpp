// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/recipe.h"

#include "core/base/number.h"
#include "core/heat/quenchant.h"
#include "core/heat/temper.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

const RecipeStage* Recipe::stage(StageKind kind) const {
    const auto found = std::find_if(stages.begin(), stages.end(), [&](const RecipeStage& s) { return s.kind == kind; });
    return found == stages.end() ? nullptr : &*found;
}

int Recipe::tempers() const {
    return static_cast<int>(
        std::count_if(stages.begin(), stages.end(), [](const RecipeStage& s) { return s.kind == StageKind::temper; }));
}

namespace {

class RecipeCheck {
public:
    RecipeCheck(const Recipe& recipe, const Grade& grade) : m_recipe(recipe), m_grade(grade) {}

    std::vector<RecipeFinding> found() {
        int lastOrder = -1;
        for (m_stage = 0; m_stage < m_recipe.stages.size(); ++m_stage) {
            const RecipeStage& stage = m_recipe.stages[m_stage];
            const int order = orderOf(stage.kind);
            if (order < lastOrder) say(RecipeWarning::orderOdd);
            lastOrder = order;
            switch (stage.kind) {
            case StageKind::normalise:
                normalise(stage);
                break;
            case StageKind::austenitise:
                austenitise(stage);
                break;
            case StageKind::temper:
                temper(stage);
                break;
            case StageKind::quench:
                quench(stage);
                break;
            case StageKind::stressRelief:
            case StageKind::refine:
            case StageKind::anneal:
            case StageKind::cold:
                break;
            }
        }
        std::optional<double> hottest;
        for (const RecipeStage& stage : m_recipe.stages) {
            if (stage.kind == StageKind::temper)
                hottest = std::max(hottest.value_or(stage.temperature_c), stage.temperature_c);
        }
        const int needed = m_grade.minimumTempers(hottest);
        m_stage = m_recipe.stages.empty() ? 0 : m_recipe.stages.size() - 1;
        if (m_recipe.tempers() < needed)
            say(RecipeWarning::tempersMissing, {double(m_recipe.tempers()), double(needed)});
        return std::move(m_findings);
    }

private:
    static int orderOf(StageKind kind) {
        switch (kind) {
        case StageKind::stressRelief:
        case StageKind::normalise:
        case StageKind::refine:
        case StageKind::anneal:
            return 0;
        case StageKind::austenitise:
            return 1;
        case StageKind::quench:
            return 2;
        case StageKind::cold: // before or between tempers
        case StageKind::temper:
            return 3;
        }
        return 3;
    }
    void say(RecipeWarning warning, std::vector<double> numbers = {}) {
        m_findings.push_back({m_stage, warning, std::move(numbers)});
    }
    void normalise(const RecipeStage& stage) {
        if (m_grade.needsFullAnneal()) return say(RecipeWarning::neverNormalise);
        const Range& range = m_grade.normalise_c;
        if (range.known() && !range.holds(stage.temperature_c))
            say(RecipeWarning::normaliseOutside, {stage.temperature_c, *range.low, *range.high});
    }
    void austenitise(const RecipeStage& stage) {
        const double t = stage.temperature_c;
        if (!atLeast(t, *m_grade.austenitise_c.low))
            say(RecipeWarning::soakBelowWindow, {t, *m_grade.austenitise_c.low});
        if (!atMost(t, *m_grade.austenitise_c.high))
            say(RecipeWarning::soakAboveWindow, {t, *m_grade.austenitise_c.high});
        const double longest = stage.max_minutes.value_or(stage.minutes);
        // E30. What the library itself names for the grade is no finding, though it lies above the line.
        const bool ownWindow = atMost(t, *m_grade.austenitise_c.high) && atMost(longest, *m_grade.soak_minutes.high);
        if (!ownWindow && m_grade.upper_critical_kind == "Accm" && m_grade.upper_critical_c &&
            t > *m_grade.upper_critical_c && !atMost(longest, *m_grade.soak_minutes.low))
            say(RecipeWarning::aboveCarbideLine, {t, *m_grade.upper_critical_c});
        if (!atMost(longest, *m_grade.soak_minutes.high))
            say(RecipeWarning::soakTooLong, {longest, *m_grade.soak_minutes.high});
        if (!atLeast(stage.minutes, *m_grade.soak_minutes.low))
            say(RecipeWarning::soakTooShort, {stage.minutes, *m_grade.soak_minutes.low});
    }
    void temper(const RecipeStage& stage) {
        if (m_grade.embrittle_c.holds(stage.temperature_c))
            say(RecipeWarning::embrittles, {stage.temperature_c, *m_grade.embrittle_c.low, *m_grade.embrittle_c.high});
        else if (!m_grade.embrittle_c.known() && stage.temperature_c > 250)
            say(RecipeWarning::embrittlementUnknown, {stage.temperature_c});
    }
    void quench(const RecipeStage& stage) {
        if (quenchesTooSlowly(stage.cooling, m_grade)) say(RecipeWarning::quenchMedium);
    }

    const Recipe& m_recipe;
    const Grade& m_grade;
    std::size_t m_stage = 0;
    std::vector<RecipeFinding> m_findings;
};

} // namespace

std::vector<RecipeFinding> checkRecipe(const Recipe& recipe, const Grade* grade) {
    if (grade == nullptr) return {{0, RecipeWarning::gradeUnknown, {}}};
    return RecipeCheck(recipe, *grade).found();
}

Recipe templateFor(const Grade& grade, bool forged, const std::optional<double>& window_middle) {
    Recipe recipe;
    recipe.name = grade.name;
    recipe.grade = grade.name;
    if (forged && grade.may_normalise) {
        const double hot = (*grade.normalise_c.low + *grade.normalise_c.high) / 2;
        recipe.stages.push_back({StageKind::normalise, hot, 10, {}, 15, "still air", ""});
        recipe.stages.push_back({StageKind::refine, grade.austenitise_typical_c + 10, 5, {}, 15, "still air", ""});
        recipe.stages.push_back({StageKind::refine, grade.austenitise_typical_c - 10, 5, {}, 15, "still air", ""});
    }
    recipe.stages.push_back({StageKind::austenitise, grade.austenitise_typical_c, *grade.soak_minutes.low,
                             grade.soak_minutes.high, 10, "", ""});
    const bool oil = grade.quench_class.find("oil") != std::string::npos;
    recipe.stages.push_back({StageKind::quench, oil ? 55.0 : 20.0, 0, {}, 15, grade.quench_class, ""});
    if (grade.cold_treatment == "usual")
        recipe.stages.push_back({StageKind::cold, -75, 60, {}, 15, "within the hour", ""});
    if (!window_middle) return recipe;
    const auto curve = TemperCurve::of(grade);
    if (!curve) return recipe;
    // Hottest step of five degrees on the usual branch that is still expected above the middle, for the last temper;
    // those before it 15 °C cooler, so that a reading can still steer.
    const bool high = curve->hump() && grade.isHighSpeed();
    const double from = high ? curve->parameterOf(curve->hump()->peak) : curve->lowest();
    const double to = curve->hump() && !high ? curve->parameterOf(curve->hump()->valley) : curve->highest();
    const int count = std::max(2, grade.minimumTempers(high ? std::optional<double>(540) : std::nullopt));
    constexpr double hours = 2;
    std::optional<double> last;
    for (double t = 100; t <= 700; t += 5) {
        const std::vector<TemperHeat> tempers(static_cast<std::size_t>(count), {t, hours});
        const auto parameter = temperParameter(grade.hj_c, tempers);
        if (!parameter || *parameter < from || *parameter > to || grade.embrittle_c.holds(t)) continue;
        if (atLeast(curve->at(*parameter), *window_middle)) last = t;
    }
    if (!last) return recipe;
    for (int i = 0; i < count; ++i)
        recipe.stages.push_back(
            {StageKind::temper, i + 1 < count && !high ? *last - 15 : *last, hours * 60, {}, 5, "still air", ""});
    return recipe;
}

} // namespace rollcall
