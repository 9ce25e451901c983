// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/expectation.h"

#include "core/base/number.h"
#include "core/measure/outliers.h"
#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

namespace {

std::string heatOf(const Batch& batch, const Blade& blade) {
    return batch.id + "#" + std::to_string(blade.round);
}

double alloyPercent(const Grade* grade) {
    return grade != nullptr ? grade->alloy_percent : 0.0;
}

// cases are those of the Temper gate where they are at hand: the readings after each blade's last temper are sorted
// there already.
std::vector<ReadTemper> observe(const Batch& batch, const Tables& tables, const std::vector<Case>* cases) {
    std::vector<ReadTemper> seen;
    const Grade* grade = tables.grade(batch.grade);
    if (grade == nullptr) return seen;
    const bool any = std::any_of(batch.blades.begin(), batch.blades.end(), [](const Blade& blade) {
        return std::any_of(blade.tempers.begin(), blade.tempers.end(),
                           [](const Temper& temper) { return temper.temperature_c && temper.hours; });
    });
    if (!any) return seen; // nothing to learn: most batches while they are quenched
    const VerificationBook book(batch, tables);
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const Blade& blade = batch.blades[i];
        const int last = lastTemper(blade);
        for (int temper = 1; temper <= last; ++temper) {
            const auto tempers = tempersUpTo(blade, temper);
            if (!tempers) break;
            ReadingSet sorted;
            if (cases == nullptr || temper < last) {
                const auto candidates = candidatesAt(blade, Gate::temper, temper);
                if (candidates.empty()) continue;
                sorted = standingReadings(batch, blade, candidates, book, tables, alloyPercent(grade));
            }
            const ReadingSet& set = cases == nullptr || temper < last ? sorted : (*cases)[i].set;
            if (set.hrc.empty()) continue;
            const Agreement agreement =
                agreementOf(set.hrc, set.tester.pooled_sd, set.tester.pooled_dof, set.tester.resolution);
            if (agreement.uneven || agreement.disagree) continue;
            const auto parameter = temperParameter(grade->hj_c, *tempers);
            const auto budget =
                uncertaintyBudget(set.tester, static_cast<int>(set.hrc.size()), sampleSd(set.hrc), set.bias);
            if (!parameter || !budget) continue;
            const double mean = meanOf(set.hrc) - (set.bias ? set.bias->error : 0.0);
            const double u = std::hypot(budget->standard_uncertainty, set.conversion_u, set.convex_u);
            seen.push_back({temper, {heatOf(batch, blade), blade.id, *parameter, mean, u}});
        }
    }
    return seen;
}

} // namespace

std::vector<TemperObservation> temperObservations(const Batch& batch, const Tables& tables) {
    std::vector<TemperObservation> observations;
    for (ReadTemper& seen : observe(batch, tables, nullptr)) observations.push_back(std::move(seen.observation));
    return observations;
}

std::optional<std::vector<TemperHeat>> tempersUpTo(const Blade& blade, int temper) {
    std::vector<TemperHeat> tempers;
    for (const Temper& one : blade.tempers) {
        if (one.round != blade.round || one.number > temper) continue;
        if (!one.temperature_c || !one.hours) return std::nullopt;
        tempers.push_back({*one.temperature_c, *one.hours});
    }
    return tempers;
}

TemperAim temperAim(const Batch& batch, const Blade& blade) {
    TemperAim aim;
    aim.window = batch.window;
    const int next = lastTemper(blade) + 1;
    int number = 0;
    if (batch.recipe) {
        for (const RecipeStage& stage : batch.recipe->stages) {
            if (stage.kind == StageKind::temper && ++number == next && stage.minutes > 0)
                aim.hours = stage.minutes / 60.0;
        }
    }
    if (number < next) { // beyond the recipe, or without one: as the temper before
        for (const Temper& temper : blade.tempers) {
            if (temper.round == blade.round && temper.hours) aim.hours = *temper.hours;
        }
    }
    return aim;
}

TemperBook::TemperBook(const Batch& batch, const Tables& tables, const std::vector<Case>* cases)
    : m_batch(batch), m_grade(tables.grade(batch.grade)), m_seen(observe(batch, tables, cases)) {
    if (!batch.heat_runs.empty()) m_hardening.soak_c = batch.heat_runs.back().set_c;
    if (batch.recipe) {
        const RecipeStage* soak = batch.recipe->stage(StageKind::austenitise);
        if (!m_hardening.soak_c && soak != nullptr) m_hardening.soak_c = soak->temperature_c;
        m_hardening.cold_treated = batch.recipe->stage(StageKind::cold) != nullptr;
    }
}

const TemperModel* TemperBook::before(int temper) {
    auto known = m_models.find(temper);
    if (known == m_models.end()) {
        std::optional<TemperModel> model;
        if (m_grade != nullptr) {
            std::vector<TemperObservation> observations = m_batch.temper_history;
            for (const ReadTemper& seen : m_seen) {
                if (seen.temper < temper) observations.push_back(seen.observation);
            }
            if (auto learned = TemperModel::learn(*m_grade, m_hardening, observations))
                model = std::move(learned).value();
        }
        known = m_models.emplace(temper, std::move(model)).first;
    }
    return known->second ? &*known->second : nullptr;
}

bool TemperBook::quenchedTooSoft(const Blade& blade) const {
    if (m_grade == nullptr) return false;
    std::vector<double> quenched;
    for (const Reading* reading : candidatesAt(blade, Gate::quench, 0)) {
        if (reading->scale == "HRC") quenched.push_back(reading->value);
    }
    // The usual error of a verified tester is no reason to refuse.
    constexpr double slack = 0.5;
    return !quenched.empty() && meanOf(quenched) < m_grade->as_quenched_min - slack;
}

TemperCandidate TemperBook::candidate(const Blade& blade, int upToTemper) const {
    return {heatOf(m_batch, blade), blade.id, tempersUpTo(blade, upToTemper).value_or(std::vector<TemperHeat>())};
}

std::optional<TemperExpectation> TemperBook::expected(const Blade& blade) {
    const int temper = lastTemper(blade);
    const auto tempers = tempersUpTo(blade, temper);
    if (m_grade == nullptr || temper == 0 || !tempers || quenchedTooSoft(blade)) return std::nullopt;
    const auto parameter = temperParameter(m_grade->hj_c, *tempers);
    const TemperModel* model = parameter ? before(temper) : nullptr;
    if (model == nullptr) return std::nullopt;
    const auto expect = model->expect(*parameter, heatOf(m_batch, blade), blade.id);
    return expect ? std::optional(*expect) : std::nullopt;
}

std::optional<TemperAdvice> TemperBook::advice(const Blade& blade) {
    const TemperModel* model = now();
    if (model == nullptr || !m_batch.window.low || quenchedTooSoft(blade) || !tempersUpTo(blade, lastTemper(blade)))
        return std::nullopt;
    TemperAim aim = temperAim(m_batch, blade);
    auto advice = adviseTemper(*model, *m_grade, candidate(blade, lastTemper(blade)), aim);
    if (!advice) return std::nullopt;
    const auto avoids = [](const TemperAdvice& a) {
        return std::count(a.warnings.begin(), a.warnings.end(), TemperWarning::insideEmbrittlement) > 0;
    };
    const bool aboveWindow = advice->best && m_batch.window.high && advice->best->expect.hrc > *m_batch.window.high;
    if (avoids(*advice) && (!advice->best || aboveWindow)) {
        // Only what the grade is to avoid would do; shown with its warning, for the maker's reason.
        aim.despite_embrittlement = true;
        auto despite = adviseTemper(*model, *m_grade, candidate(blade, lastTemper(blade)), aim);
        if (despite && despite->best) {
            if (!avoids(*despite)) despite.value().warnings.push_back(TemperWarning::insideEmbrittlement);
            return std::move(despite).value();
        }
    }
    return std::move(advice).value();
}

std::vector<Outlook> outlooksOf(const Batch& batch, const std::vector<Case>& cases, TemperBook& book,
                                const Tables& tables) {
    std::vector<Outlook> outlooks(cases.size());
    for (std::size_t i = 0; i < cases.size(); ++i) {
        const Blade& blade = batch.blades[i];
        Outlook& outlook = outlooks[i];
        if (isOutBefore(blade, Gate::temper)) continue;
        outlook.expected = book.expected(blade);
        const auto& measurement = cases[i].measurement;
        if (outlook.expected && measurement) {
            outlook.by = measurement->corrected_mean - outlook.expected->hrc;
            const auto interval = outlook.expected->intervalOfReading(measurement->budget.standard_uncertainty);
            outlook.low = interval.first;
            outlook.high = interval.second;
            outlook.surprise = measurement->corrected_mean < outlook.low || measurement->corrected_mean > outlook.high;
        }
        const bool open = lastTemper(blade) < requiredTempers(batch, blade, tables);
        const bool hard = measurement && measurement->side == Side::hard;
        if (open || hard) outlook.advice = book.advice(blade);
    }
    for (std::size_t i = 0; i < outlooks.size(); ++i) {
        if (!outlooks[i].surprise) continue;
        std::vector<double> others;
        for (std::size_t k = 0; k < outlooks.size(); ++k) {
            const Outlook& other = outlooks[k];
            if (k == i || !other.expected || !cases[k].measurement ||
                lastTemper(batch.blades[k]) != lastTemper(batch.blades[i]))
                continue;
            others.push_back(other.by);
            if (other.surprise && (other.by > 0) == (outlooks[i].by > 0)) ++outlooks[i].shifted;
        }
        outlooks[i].siblings = static_cast<int>(others.size());
        if (!others.empty()) outlooks[i].median_by = medianOf(std::move(others));
    }
    return outlooks;
}

} // namespace rollcall
