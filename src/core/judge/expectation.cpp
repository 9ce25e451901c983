// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/expectation.h"

#include "core/base/number.h"
#include "core/judge/doubts.h"
#include "core/measure/files.h"
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

// The last press of a blade's edge on the rod after a temper, no heavier than its use asks: beyond that an edge may
// fail.
const EdgeRung* rodAfter(const Batch& batch, const Blade& blade, int temper) {
    const auto rung = std::find_if(blade.rungs.rbegin(), blade.rungs.rend(), [&](const EdgeRung& one) {
        const bool heavier = batch.edge_ask && one.force_n && *one.force_n > batch.edge_ask->rung.force_n;
        return one.round == blade.round && one.after_temper == temper && !one.struck && !heavier;
    });
    return rung == blade.rungs.rend() ? nullptr : &*rung;
}

// The tempers of a blade that files are tried on, for its curve, and how far a colour leaves them open.
struct SeenTempers {
    std::vector<TemperHeat> tempers;
    double u = 0; // HRC on the grade's curve
};

std::optional<SeenTempers> seenTempers(const Batch& batch, const Blade& blade, int temper, const Grade& grade,
                                       const Tables& tables) {
    if (auto noted = tempersUpTo(blade, temper)) return SeenTempers{std::move(*noted), 0};
    const auto colours = temperColours(batch, blade, temper, grade, tables);
    const Result<TemperCurve> curve = TemperCurve::of(grade);
    if (colours.empty() || !curve) return std::nullopt;
    const auto at = [&](double share) { // 0 the coolest that the colours allow, 1 the hottest
        std::vector<TemperHeat> tempers;
        for (const TemperColour& one : colours)
            tempers.push_back({one.low_c + share * (one.high_c - one.low_c), one.hours});
        return tempers;
    };
    const auto hardness = [&](double share) {
        const auto parameter = temperParameter(grade.hj_c, at(share));
        return curve->at(std::clamp(parameter ? *parameter : curve->lowest(), curve->lowest(), curve->highest()));
    };
    return SeenTempers{at(0.5), std::abs(hardness(0) - hardness(1)) / 2 / std::sqrt(3.0)};
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
        if (!batch.changedBy(blade).empty()) continue; // E18: of another steel than its siblings
        const int last = lastTemper(blade);
        for (int temper = 1; temper <= last; ++temper) {
            const auto tempers = seenTempers(batch, blade, temper, *grade, tables);
            if (!tempers) break;
            const auto parameter = temperParameter(grade->hj_c, tempers->tempers);
            if (!parameter) continue;
            TemperObservation one{heatOf(batch, blade), blade.id, *parameter, 0, 0, 0};
            one.batch = batch.name;
            one.hardened = hardeningOf(batch, blade, book, tables);
            one.stands = blade.lookedAfter(temper) != nullptr;
            for (const Temper& logged : blade.tempers) {
                if (logged.round != blade.round || logged.number > temper) continue;
                one.run += logged.id + "/";
                if (logged.time) one.day = static_cast<int>(logged.time->localDay());
                one.doubted = one.doubted || isDoubted(logged, grade, *batch.claimOf(blade).window);
            }
            if (const auto files = readByFiles(batch, blade, temper)) {
                one.hrc = files->hrc();
                one.u = std::hypot(files->u(), tempers->u);
                seen.push_back({temper, std::move(one)});
                continue;
            }
            ReadingSet sorted;
            if (cases == nullptr || temper < last) {
                const auto candidates = candidatesAt(blade, Gate::temper, temper);
                if (candidates.empty()) continue;
                sorted = standingReadings(batch, blade, candidates, book, tables, alloyPercent(grade));
            }
            const ReadingSet& set = cases == nullptr || temper < last ? sorted : (*cases)[i].set;
            // E19: only what a tester known to be right has read on a bench teaches.
            if (set.hrc.empty() || !set.verified || !set.bias || set.rebound) continue;
            const Agreement agreement =
                agreementOf(set.hrc, set.tester.pooled_sd, set.tester.pooled_dof, set.tester.resolution);
            const auto budget =
                uncertaintyBudget(set.tester, static_cast<int>(set.hrc.size()), sampleSd(set.hrc), set.bias);
            if (!budget) continue;
            const double mean = agreement.mean_without_flagged.value_or(meanOf(set.hrc)) - set.bias->error;
            // Readings of one blade that contradict each other tell where it lies no better than between them.
            const double apart = agreement.uneven || agreement.disagree ? rangeOf(set.hrc) / 2 : 0.0;
            one.hrc = mean;
            one.u = std::hypot(ownUncertainty(*budget), apart);
            one.common_u =
                std::hypot(sharedUncertainty(*budget), std::hypot(set.conversion_u, set.convex_u), set.aged_u);
            seen.push_back({temper, std::move(one)});
        }
    }
    return seen;
}

} // namespace

std::vector<TemperObservation> temperObservations(const Batch& batch, const Tables& tables) {
    std::vector<TemperObservation> observations;
    for (ReadTemper& seen : readTempers(batch, tables)) observations.push_back(std::move(seen.observation));
    return observations;
}

std::vector<ReadTemper> readTempers(const Batch& batch, const Tables& tables) {
    return observe(batch, tables, nullptr);
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

std::optional<ReadByFiles> readByFiles(const Batch& batch, const Blade& blade, int temper) {
    if (!batch.planOf(Gate::temper).by_files || !candidatesAt(blade, Gate::temper, temper).empty()) return std::nullopt;
    const auto test = std::find_if(blade.file_tests.rbegin(), blade.file_tests.rend(), [&](const FileTest& one) {
        return one.gate == Gate::temper && one.round == blade.round && one.after_temper == temper &&
               one.surface == Surface::bare;
    });
    if (test == blade.file_tests.rend()) return std::nullopt;
    const FileBracket bracket = fileBracket(test->trials);
    if (bracket.conflict != FileConflict::none || !bracket.lower || !bracket.upper) return std::nullopt;
    ReadByFiles read{*bracket.lower - filesThemselves, *bracket.upper + filesThemselves, std::nullopt};
    const EdgeRung* rod = rodAfter(batch, blade, temper);
    if (rod == nullptr) return read;
    read.rod = rod->outcome;
    const bool brittle = rod->outcome == EdgeOutcome::chip || rod->outcome == EdgeOutcome::crack;
    // A set of which nobody measured the depth may be a tiny one, and says nothing.
    const bool measured = rod->outcome != EdgeOutcome::set || rod->size_mm.has_value();
    if (brittle)
        read.low = read.hrc();
    else if (rod->failed() && measured)
        read.high = read.hrc();
    return read;
}

HardeningState hardeningOf(const Batch& batch, const Blade& blade, const VerificationBook& runs, const Tables& tables) {
    HardeningState state;
    const auto heat = std::find_if(blade.heats.rbegin(), blade.heats.rend(),
                                   [&](const BladeHeat& one) { return one.round == blade.round; });
    for (const HeatRun& run : batch.heat_runs) {
        if (heat != blade.heats.rend() && run.id == heat->run) state.soak_c = run.set_c;
    }
    if (!state.soak_c && !batch.heat_runs.empty()) state.soak_c = batch.heat_runs.back().set_c;
    if (batch.recipe) {
        const RecipeStage* soak = batch.recipe->stage(StageKind::austenitise);
        if (!state.soak_c && soak != nullptr) state.soak_c = soak->temperature_c;
        state.cold_treated = batch.recipe->stage(StageKind::cold) != nullptr;
    }
    for (const ColdTreatment& one : blade.colds) {
        if (one.round == blade.round && one.after_temper == 0) state.cold_treated = true;
    }
    const auto candidates = candidatesAt(blade, Gate::quench, 0);
    if (candidates.size() < 2 || metalState(blade, Gate::quench, 0).outdated_by_cold) return state;
    const ReadingSet set =
        standingReadings(batch, blade, candidates, runs, tables, alloyPercent(tables.grade(batch.grade)));
    if (set.hrc.size() >= 2 && set.verified && set.bias && !set.rebound)
        state.quench_hrc = meanOf(set.hrc) - set.bias->error;
    return state;
}

std::vector<TemperColour> temperColours(const Batch& batch, const Blade& blade, int temper, const Grade& grade,
                                        const Tables& tables) {
    std::vector<TemperColour> colours;
    if (!batch.planOf(Gate::temper).by_files) return colours;
    for (const Temper& one : blade.tempers) {
        if (one.round != blade.round || one.number > temper) continue;
        constexpr double usual = 2; // hours, where none are noted
        TemperColour colour{
            one.temperature_c.value_or(0), one.temperature_c.value_or(0), one.hours.value_or(usual), {}};
        if (!one.temperature_c) {
            const auto seen = std::find_if(blade.colours.rbegin(), blade.colours.rend(), [&](const ColourNote& note) {
                return note.round == one.round && note.after_temper == one.number && !note.torch;
            });
            if (seen == blade.colours.rend()) return {};
            const auto range = colourRange(tables, seen->colour, colour.hours, seen->surface, grade.chromium_percent,
                                           grade.isStainless());
            if (!range) return {};
            colour.low_c = range->low_c;
            colour.high_c = range->high_c;
            colour.seen = seen->colour;
        }
        colours.push_back(std::move(colour));
    }
    return colours;
}

TemperAim temperAim(const Batch& batch, const Blade& blade) {
    TemperAim aim;
    aim.window = batch.window;
    aim.oven = batch.oven;
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
    : m_batch(batch), m_tables(tables), m_grade(tables.grade(batch.grade)), m_seen(observe(batch, tables, cases)) {
    if (m_grade == nullptr || batch.blades.empty()) return;
    m_hardening = hardened(batch.blades.front());
    m_hardening.quench_hrc.reset(); // its own
}

const HardeningState& TemperBook::hardened(const Blade& blade) const {
    const auto own = m_hardened.find(blade.id);
    if (own != m_hardened.end()) return own->second;
    if (!m_runs) m_runs.emplace(m_batch, m_tables);
    return m_hardened[blade.id] = hardeningOf(m_batch, blade, *m_runs, m_tables);
}

const TemperModel* TemperBook::before(int temper) {
    auto known = m_models.find(temper);
    if (known == m_models.end()) {
        std::optional<TemperModel> model;
        if (m_grade != nullptr) {
            // E56. What was expected then is what was known then: no temper of a later day teaches it.
            std::optional<int> day;
            for (const ReadTemper& seen : m_seen) {
                if (seen.temper == temper) day = std::max(day.value_or(0), seen.observation.day);
            }
            std::vector<TemperObservation> observations;
            for (const TemperObservation& one : m_batch.temper_history) {
                if (!day || *day == 0 || one.day <= *day) observations.push_back(one);
            }
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

void TemperBook::together(std::vector<Outlook>& outlooks, const std::vector<std::size_t>& awaiting) {
    const TemperModel* model = awaiting.size() > 1 ? now() : nullptr;
    if (model == nullptr) return;
    std::vector<TemperCandidate> blades;
    std::vector<std::optional<TemperAdvice>> advice;
    for (const std::size_t i : awaiting) {
        const Blade& blade = m_batch.blades[i];
        blades.push_back(candidate(blade, lastTemper(blade)));
        advice.push_back(outlooks[i].advice);
    }
    const std::vector<TemperLoad> loads = temperLoads(*model, blades, advice, m_batch.window);
    for (const TemperLoad& load : loads) {
        std::vector<std::string> marks;
        for (const std::size_t k : load.blades) marks.push_back(m_batch.blades[awaiting[k]].mark);
        for (const std::size_t k : load.blades) {
            Outlook& outlook = outlooks[awaiting[k]];
            const auto there = predictTemper(*model, blades[k], {load.temperature_c, load.hours}, m_batch.window);
            if (!there) continue;
            const double own = outlook.advice->best->temperature_c;
            if (std::abs(own - load.temperature_c) > limitTolerance) outlook.alone_c = own;
            outlook.advice->best = *there;
            outlook.split = loads.size() > 1;
            if (marks.size() > 1) outlook.load = marks;
        }
    }
}

std::vector<std::string> TemperBook::doubted(const Blade& blade) {
    constexpr double hardly = 0.25; // of the weight of a blade that comes as expected
    std::vector<std::string> marks;
    const TemperModel* model = now();
    if (model == nullptr) return marks;
    for (const Blade& other : m_batch.blades) {
        if (other.round == blade.round && model->belief(heatOf(m_batch, other), other.id) < hardly)
            marks.push_back(other.mark);
    }
    return marks;
}

bool TemperBook::quenchedTooSoft(const Blade& blade) const {
    if (m_grade == nullptr) return false;
    std::vector<double> quenched;
    for (const Reading* reading : candidatesAt(blade, Gate::quench, 0)) {
        if (reading->scale == "HRC") quenched.push_back(reading->value);
    }
    // The usual error of a verified tester is no reason to refuse.
    constexpr double slack = 0.5;
    if (quenched.empty() && m_batch.planOf(Gate::quench).by_files) {
        const FileTest* files = fileTestAt(blade, Gate::quench);
        if (files == nullptr || files->surface != Surface::bare) return false;
        const FileBracket bracket = fileBracket(files->trials);
        return bracket.conflict == FileConflict::none && bracket.upper &&
               *bracket.upper + filesThemselves < m_grade->as_quenched_min;
    }
    return !quenched.empty() && meanOf(quenched) < m_grade->as_quenched_min - slack;
}

TemperCandidate TemperBook::candidate(const Blade& blade, int upToTemper) const {
    TemperCandidate one{heatOf(m_batch, blade), blade.id, {}, hardened(blade)};
    const auto known = m_grade != nullptr ? seenTempers(m_batch, blade, upToTemper, *m_grade, m_tables) : std::nullopt;
    if (known)
        one.tempers = known->tempers;
    else if (const auto worth = asRead(blade))
        one.tempers = {*worth};
    return one;
}

// E21. Where an earlier temper is not noted, what was read after the last one tells what all of them together are
// worth: the place on the grade's curve where it gives that hardness, before its hump.
std::optional<TemperHeat> TemperBook::asRead(const Blade& blade) const {
    std::vector<double> read;
    for (const Reading* reading : candidatesAt(blade, Gate::temper, lastTemper(blade))) {
        if (reading->scale == "HRC") read.push_back(reading->value);
    }
    if (read.empty() || m_grade == nullptr) return std::nullopt;
    const Result<TemperCurve> curve = TemperCurve::of(*m_grade);
    if (!curve) return std::nullopt;
    const double end = curve->hump() ? curve->parameterOf(curve->hump()->valley) : curve->highest();
    constexpr int steps = 400;
    constexpr double hours = 2;
    double parameter = curve->lowest();
    for (int i = 0; i <= steps; ++i) {
        parameter = curve->lowest() + (end - curve->lowest()) * i / steps;
        if (curve->at(parameter) <= meanOf(read)) break;
    }
    TemperHeat worth{std::max(80.0, temperatureFor(m_grade->hj_c, parameter, hours)), hours};
    // At the hottest temper that is noted, so that no cooler one is advised, for as long as is worth the same.
    for (const Temper& temper : blade.tempers) {
        if (temper.round != blade.round || temper.temperature_c.value_or(0) <= worth.temperature_c) continue;
        const double same = equivalentHours(m_grade->hj_c, {worth}, *temper.temperature_c);
        worth = {*temper.temperature_c, std::clamp(same, 0.01, 48.0)};
    }
    return worth;
}

// What is known of the grade, and of this blade that it gave the curve's hardness where its tempers are worth it.
std::optional<TemperModel> TemperBook::readWithoutTempers(const Blade& blade) const {
    const auto worth = asRead(blade);
    const auto parameter = worth ? temperParameter(m_grade->hj_c, {*worth}) : Result<double>(0.0);
    const Result<TemperCurve> curve = worth ? TemperCurve::of(*m_grade) : Result<TemperCurve>(Error{});
    if (!worth || !parameter || !curve || !curve->reaches(*parameter)) return std::nullopt;
    std::vector<TemperObservation> observations = m_batch.temper_history;
    for (const ReadTemper& seen : m_seen) observations.push_back(seen.observation);
    constexpr double asWellAsThree = 0.3; // HRC, of a mean of three
    observations.push_back({heatOf(m_batch, blade), blade.id, *parameter, curve->at(*parameter), asWellAsThree, 0});
    auto model = TemperModel::learn(*m_grade, m_hardening, observations);
    return model ? std::optional(std::move(model).value()) : std::nullopt;
}

std::optional<TemperExpectation> TemperBook::expected(const Blade& blade) {
    const int temper = lastTemper(blade);
    const auto tempers = tempersUpTo(blade, temper);
    if (m_grade == nullptr || temper == 0 || !tempers || quenchedTooSoft(blade) || !m_batch.changedBy(blade).empty())
        return std::nullopt;
    const auto parameter = temperParameter(m_grade->hj_c, *tempers);
    const TemperModel* model = parameter ? before(temper) : nullptr;
    if (model == nullptr) return std::nullopt;
    const auto expect = model->expect(*parameter, heatOf(m_batch, blade), blade.id, &hardened(blade));
    return expect ? std::optional(*expect) : std::nullopt;
}

std::optional<TemperAdvice> TemperBook::advised(const Blade& blade, TemperAim aim) {
    const TemperModel* model = now();
    if (model == nullptr || !m_batch.window.low || quenchedTooSoft(blade) || !m_batch.changedBy(blade).empty())
        return std::nullopt;
    std::optional<TemperModel> fromReading;
    if (!seenTempers(m_batch, blade, lastTemper(blade), *m_grade, m_tables)) {
        fromReading = readWithoutTempers(blade);
        if (!fromReading) return std::nullopt;
        model = &*fromReading;
    }
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

std::optional<TemperAdvice> TemperBook::advice(const Blade& blade) {
    TemperAim aim = temperAim(m_batch, blade);
    aim.due = lastTemper(blade) < requiredTempers(m_batch, blade, m_tables);
    return advised(blade, aim);
}

std::optional<TemperAdvice> TemperBook::overHump(const Blade& blade) {
    const TemperModel* model = now();
    if (model == nullptr || !model->curve().hump()) return std::nullopt;
    TemperAim aim = temperAim(m_batch, blade);
    aim.branch = TemperBranch::high;
    std::optional<TemperAdvice> up = advised(blade, aim);
    const bool crosses = up && std::count(up->warnings.begin(), up->warnings.end(), TemperWarning::overHump) > 0;
    constexpr double worthTrying = 0.5; // chance that it gets hard enough; what is too hard can be tempered hotter
    if (!crosses || !up->best || 1 - up->best->chance_soft < worthTrying) return std::nullopt;
    return up;
}

namespace {

// Their last tempers were one load.
bool temperedTogether(const Blade& a, const Blade& b) {
    const auto last = [](const Blade& blade) {
        const Temper* found = nullptr;
        for (const Temper& temper : blade.tempers) {
            if (temper.round == blade.round && (found == nullptr || temper.number > found->number)) found = &temper;
        }
        return found;
    };
    const Temper* own = last(a);
    const Temper* other = last(b);
    return own != nullptr && other != nullptr && own->id == other->id;
}

} // namespace

std::vector<Outlook> outlooksOf(const Batch& batch, const std::vector<Case>& cases, TemperBook& book,
                                const Tables& tables, const std::vector<bool>& held) {
    std::vector<Outlook> outlooks(cases.size());
    std::vector<std::size_t> awaiting;
    std::map<int, std::vector<std::string>> doubted; // by round: asked once, not for each blade
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
            outlook.in_u = outlook.by / std::hypot(outlook.expected->u, measurement->budget.standard_uncertainty);
        }
        const bool open = lastTemper(blade) < requiredTempers(batch, blade, tables);
        const auto files = measurement ? std::nullopt : readByFiles(batch, blade, lastTemper(blade));
        const bool perhaps = measurement && measurement->outcome == Outcome::borderline && batch.window.high &&
                             measurement->decided_mean + measurement->decided_uncertainty > *batch.window.high;
        bool hard = perhaps || (measurement && measurement->side == Side::hard);
        if (files && batch.window.high) hard = hard || files->asksForTemper(*batch.window.high);
        const bool soft = measurement && measurement->side == Side::soft && !batch.isFinished(blade);
        if (!open && !hard && !soft) continue;
        outlook.advice = open || hard ? book.advice(blade) : book.overHump(blade);
        if (const TemperModel* model = outlook.advice ? book.now() : nullptr) {
            outlook.scatter = model->scatter();
            for (const DoubtedRun& run : model->doubtedRuns()) {
                if (std::find(outlook.doubted_runs.begin(), outlook.doubted_runs.end(), run.batch) ==
                    outlook.doubted_runs.end())
                    outlook.doubted_runs.push_back(run.batch);
            }
            if (const auto read = model->furthestRead(); read && outlook.advice->best)
                outlook.furthest_c = temperatureFor(model->constant(), *read, outlook.advice->best->hours);
            outlook.not_believed = model->notBelieved();
            if (!doubted.contains(blade.round)) doubted[blade.round] = book.doubted(blade);
            outlook.doubted = doubted[blade.round];
            const bool passes = measurement && measurement->outcome == Outcome::pass;
            const bool known = tempersUpTo(blade, lastTemper(blade)).has_value();
            // E13, E47: what is out or cracked goes into no oven; E45: what is soft waits for its checks.
            const bool fit = !blade.fate && !openCrack(blade) && !soft && (held.empty() || !held[i]);
            // Of those inside by their means only what more readings would not settle.
            const bool surely = open || files || (measurement && measurement->side == Side::hard);
            const bool settles = !surely && (measurement->more_readings || measurement->may_settle);
            if (known && fit && outlook.advice->best && !settles && (open || !passes)) awaiting.push_back(i);
        }
    }
    book.together(outlooks, awaiting);
    constexpr double alone_u = 3; // E27
    constexpr double shared_u = 2;
    for (std::size_t i = 0; i < outlooks.size(); ++i) {
        outlooks[i].look = batch.blades[i].lookedAfter(lastTemper(batch.blades[i]));
        if (!outlooks[i].surprise) continue;
        outlooks[i].far = std::abs(outlooks[i].in_u) > alone_u;
        std::vector<double> others;
        int alike = 0;
        for (std::size_t k = 0; k < outlooks.size(); ++k) {
            const Outlook& other = outlooks[k];
            if (k == i || !other.expected || !cases[k].measurement ||
                lastTemper(batch.blades[k]) != lastTemper(batch.blades[i]))
                continue;
            others.push_back(other.by);
            if (other.surprise && (other.by > 0) == (outlooks[i].by > 0)) ++outlooks[i].shifted;
            if (std::abs(other.in_u) > shared_u && (other.by > 0) == (outlooks[i].by > 0)) ++alike;
        }
        // What all of a load show is looked into once.
        for (std::size_t k = 0; k < outlooks.size() && outlooks[i].look == nullptr; ++k) {
            if (outlooks[k].surprise && (outlooks[k].by > 0) == (outlooks[i].by > 0) &&
                temperedTogether(batch.blades[k], batch.blades[i]))
                outlooks[i].look = batch.blades[k].lookedAfter(lastTemper(batch.blades[k]));
        }
        const bool all = !others.empty() && alike == static_cast<int>(others.size());
        outlooks[i].far = outlooks[i].far || (all && std::abs(outlooks[i].in_u) > shared_u);
        outlooks[i].siblings = static_cast<int>(others.size());
        if (!others.empty()) outlooks[i].median_by = medianOf(std::move(others));
    }
    return outlooks;
}

} // namespace rollcall
