// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/gates.h"

#include "core/base/number.h"
#include "core/judge/expectation.h"
#include "core/judge/gate_case.h"
#include "core/judge/heat_book.h"
#include "core/judge/judged.h"
#include "core/judge/standing.h"
#include "core/judge/steel_book.h"
#include "core/measure/statistics.h"
#include "core/measure/verification.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>

namespace rollcall {

namespace {

constexpr int advisedBlockReadings = 5; // M6: two are allowed, five advised
constexpr int fewestReboundStrikes = 5; // M11

class GateJudge {
public:
    GateJudge(const Batch& batch, const Tables& tables, const Case& c, const Siblings& siblings, const Outlook& outlook,
              std::optional<bool> steel, std::optional<bool> soak, const std::optional<Instant>& now)
        : m_batch(batch), m_tables(tables), m_case(c), m_siblings(siblings), m_outlook(outlook), m_steel(steel),
          m_soak(soak), m_now(now), m_grade(tables.grade(batch.grade)) {
        m_verdict.reasons.reserve(16); // most verdicts have a dozen
        m_verdict.gate = c.gate;
        m_verdict.blade = c.blade->id;
        m_verdict.planned = batch.planOf(c.gate).planned_readings;
        if (c.set.rebound) m_verdict.planned = std::max(m_verdict.planned, fewestReboundStrikes);
        m_verdict.taken = static_cast<int>(c.set.standing.size());
        m_verdict.tables_edition = Tables::edition;
        m_verdict.verification = c.set.verification;
        m_verdict.measurement = c.measurement;
        for (const Reading* r : c.set.standing) m_verdict.standing.push_back(r->id);
        for (const Reading* r : c.set.left_out) m_verdict.left_out.push_back(r->id);
    }

    Verdict judged() {
        if (sayExcused(*m_case.blade, m_verdict)) return std::move(m_verdict);
        m_verdict.cautions.push_back(m_case.gate == Gate::quench ? Caution::glassHard : Caution::hotWork);
        if (m_case.blade->shape.length() > 200) m_verdict.cautions.push_back(Caution::overhang);
        m_window = windowOf(m_batch, m_case.gate, m_tables);
        reportReadings();
        reportAgreement();
        reportEvidence();
        if (m_case.gate == Gate::quench)
            quench();
        else
            temper();
        sortReasons();
        return std::move(m_verdict);
    }

private:
    void say(Fact fact, Tone tone, const char* rule, std::vector<double> numbers = {},
             std::vector<std::string> texts = {}) {
        m_verdict.reasons.push_back({fact, tone, rule, std::move(numbers), std::move(texts)});
    }
    void next(Act act) { m_verdict.next = {act}; }
    void read(Act act, int readings) { m_verdict.next = {act, ReadStep{readings}}; }
    const Measurement& measured() const { return *m_case.measurement; }

    void reportReadings() {
        const bool enough = m_verdict.taken >= m_verdict.planned;
        say(Fact::readingsTaken, enough ? Tone::good : Tone::open, "record",
            {double(m_verdict.taken), double(m_verdict.planned)});
        for (const Reason& reason : m_case.set.reasons) m_verdict.reasons.push_back(reason);
    }

    void reportAgreement() {
        if (!m_case.measurement || measured().n < 2) return;
        const Agreement& a = measured().agreement;
        const double spread = rangeOf(m_case.set.hrc);
        // What the tester alone makes of n readings: the width that 19 of 20 such sets stay within, roughly 3.6 sigma.
        const double explained = 3.64 * m_case.set.tester.pooled_sd;
        if (a.disagree) say(Fact::readingsDisagree, Tone::caution, "M10", {spread, explained});
        for (const std::size_t i : a.flagged) {
            const Tester* tester = m_batch.tester(m_case.set.standing[i]->tester);
            const bool rebound = tester != nullptr && tester->kind == TesterKind::rebound;
            say(Fact::flaggedReading, Tone::caution, "M10",
                {m_case.set.hrc[i], measured().mean, a.mean_without_flagged.value_or(measured().mean)},
                {rebound ? "rebound" : "bench"});
        }
        if (measured().changed_by_flagged) say(Fact::verdictHangsOnFlagged, Tone::caution, "M10");
        if (a.cluster_gap)
            say(Fact::twoGroups, Tone::caution, "M10", {*a.cluster_gap});
        else if (a.uneven)
            say(Fact::unevenBlade, Tone::caution, "M10", {spread});
        if (!a.disagree && !a.uneven && a.flagged.empty())
            say(Fact::readingsAgree, Tone::good, "M10", {spread, explained});
        reportInstrumentAverage();
        if (a.grubbs) say(Fact::grubbs, Tone::note, "M10");
    }

    // M11. The instrument's own average counts every strike, a second one on the same spot too; ours beside it.
    void reportInstrumentAverage() {
        for (const StrikeSeries& series : m_case.blade->series) {
            if (!series.instrument_mean) continue;
            const bool standing = std::any_of(m_case.set.standing.begin(), m_case.set.standing.end(),
                                              [&](const Reading* r) { return r->series == series.id; });
            if (!standing) continue;
            say(Fact::instrumentAverage, Tone::note, "M11",
                {*series.instrument_mean, measured().mean,
                 measured().agreement.mean_without_flagged.value_or(measured().mean)},
                {series.support});
        }
    }

    // Evidence that contradicts the readings keeps the verdict from Pass; evidence nobody has looked at is named.
    void reportEvidence() {
        reportFiles();
        if (m_case.gate == Gate::temper) reportExpectation();
        if (!reportSuperseded()) say(Fact::notLookedAt, Tone::unseen, "M14", {}, {"second tester"});
        const std::optional<bool>& steel = m_steel;
        if (!steel)
            say(Fact::notLookedAt, Tone::unseen, "M26", {}, {"steel"});
        else
            say(*steel ? Fact::evidenceAgrees : Fact::evidenceConflicts, *steel ? Tone::good : Tone::caution, "M26", {},
                {"steel"});
        m_conflict = m_conflict || (steel && !*steel);
        // A soak off its plan is the Heat gate's finding; it contradicts no hardness.
        if (!m_soak)
            say(Fact::notLookedAt, Tone::unseen, "M22", {}, {"soak"});
        else
            say(*m_soak ? Fact::evidenceAgrees : Fact::soakOffPlan, *m_soak ? Tone::good : Tone::note, "M22", {},
                {"soak"});
    }

    // M20. A surprise is a finding, not a failure: the window is what was promised.
    void reportExpectation() {
        if (!m_outlook.expected) return say(Fact::notLookedAt, Tone::unseen, "M20", {}, {"expectation"});
        if (!m_case.measurement) return;
        const Outlook& o = m_outlook;
        if (!o.surprise) return say(Fact::evidenceAgrees, Tone::good, "M20", {o.low, o.high}, {"expectation"});
        say(Fact::surprise, Tone::caution, "M20", {o.by, o.low, o.high});
        if (o.siblings == 0) return;
        if (2 * o.shifted > o.siblings)
            say(Fact::surpriseShared, Tone::caution, "M20", {o.median_by});
        else
            say(Fact::surpriseAlone, Tone::note, "M20", {double(o.siblings)});
    }

    // M25. A colour on bare metal that the oven's number does not explain.
    void reportColours() {
        const Blade& blade = *m_case.blade;
        for (const ColourNote& seen : blade.colours) {
            if (seen.round != blade.round || seen.torch || m_grade == nullptr) continue;
            for (const Temper& temper : blade.tempers) {
                if (temper.round != seen.round || temper.number != seen.after_temper || !temper.temperature_c ||
                    !temper.hours)
                    continue;
                const auto range = colourRange(m_tables, seen.colour, *temper.hours, seen.surface,
                                               m_grade->chromium_percent, m_grade->isStainless());
                if (!range || range->chart_of_minutes ||
                    std::abs(offColour(*range, *temper.temperature_c)) <= colourOff_c)
                    continue;
                say(Fact::colourAgainstOven, Tone::caution, "M25", {range->low_c, range->high_c, *temper.temperature_c},
                    {seen.colour});
            }
        }
    }

    // M21. The next temper with what it promises; what stands in its way.
    void adviseTemper(Act act, TemperStep step) {
        const auto told = [](const NextTemper& t) {
            return std::vector<double>{t.temperature_c, t.hours, t.expect.hrc, t.chance_inside, t.chance_soft};
        };
        if (m_outlook.advice) {
            const TemperAdvice& advice = *m_outlook.advice;
            if (advice.best) {
                say(Fact::nextTemper, Tone::note, "M21", told(*advice.best));
                step.advised = advice.best;
            }
            if (advice.cautious) say(Fact::nextTemperCautious, Tone::note, "M21", told(*advice.cautious));
            for (const TemperWarning warning : advice.warnings) {
                if (warning == TemperWarning::insideEmbrittlement)
                    say(Fact::temperAvoided, Tone::caution, "M21",
                        {*m_grade->embrittle_c.low, *m_grade->embrittle_c.high});
                if (warning == TemperWarning::lowConfidence)
                    say(Fact::lowConfidenceRow, Tone::note, "tables", {}, {"temper curve"});
            }
        }
        // Inside what the grade is to avoid the maker decides, with a reason.
        const bool brittle = m_outlook.advice && m_outlook.advice->best &&
                             m_grade->embrittle_c.holds(m_outlook.advice->best->temperature_c);
        if (brittle && act == Act::temperAgain)
            next(Act::makerDecides);
        else
            m_verdict.next = {act, step};
    }
    // No temper of this branch reaches the window from the hard side.
    bool outOfReach() const {
        if (!m_outlook.advice) return false;
        const TemperAdvice& advice = *m_outlook.advice;
        return !advice.best || std::count(advice.warnings.begin(), advice.warnings.end(), TemperWarning::staysHard) > 0;
    }

    // M14. A set of another tester's readings that was superseded stays visible beside the one that stands.
    bool reportSuperseded() {
        const Blade& blade = *m_case.blade;
        const int temper = m_case.gate == Gate::temper ? lastTemper(blade) : 0;
        std::vector<double> values;
        std::string why;
        for (const Reading& r : blade.readings) {
            if (r.gate != m_case.gate || r.round != blade.round || !r.struck || r.scale != "HRC") continue;
            if (r.struck->reason != StrikeReason::superseded || r.after_temper.value_or(0) != temper) continue;
            values.push_back(r.value);
            why = r.struck->note;
        }
        if (values.empty()) return false;
        say(Fact::secondOpinion, Tone::note, "M14", {meanOf(values), double(values.size())}, {why});
        return true;
    }

    // M12. The last try of files at this gate; on scale or soft skin it says nothing of the steel.
    void reportFiles() {
        const FileTest* test = fileTestAt(*m_case.blade, m_case.gate);
        if (test == nullptr) return say(Fact::notLookedAt, Tone::unseen, "M12", {}, {"files"});
        if (test->surface != Surface::bare)
            return say(Fact::filesNotOnBareMetal, Tone::note, "M12", {},
                       {test->surface == Surface::scale ? "scale" : "decarburised"});
        const FileBracket bracket = fileBracket(test->trials);
        if (bracket.conflict != FileConflict::none)
            return say(Fact::filesContradict, Tone::caution, "M12", {bracket.skating, bracket.biting});
        constexpr double open = std::numeric_limits<double>::infinity();
        const double lower = bracket.lower.value_or(-open);
        const double upper = bracket.upper.value_or(open);
        const bool agrees =
            !m_case.measurement ||
            (atLeast(measured().decided_mean + measured().decided_uncertainty, lower - filesThemselves) &&
             atMost(measured().decided_mean - measured().decided_uncertainty, upper + filesThemselves));
        say(agrees ? Fact::filesAgree : Fact::filesConflict, agrees ? Tone::good : Tone::caution, "M12",
            {lower, upper});
        m_conflict = m_conflict || !agrees;
    }

    void reportAgainstWindow() {
        const Measurement& m = measured();
        const double chance = m.probability_inside;
        if (m.n == 1) say(Fact::oneReadingOnly, Tone::caution, "M15");
        if (m.outcome == Outcome::pass) {
            say(Fact::inWindow, Tone::good, "M15", {m.decided_mean, m.decided_uncertainty, chance});
            return;
        }
        const bool crossesLow = m_window.low && !atLeast(m.decided_mean - m.decided_uncertainty, *m_window.low);
        const bool crossesHigh = m_window.high && !atMost(m.decided_mean + m.decided_uncertainty, *m_window.high);
        if (m.outcome == Outcome::fail) {
            const bool isSoft = m.side == Side::soft;
            say(isSoft ? Fact::soft : Fact::hard, Tone::bad, "M15",
                {isSoft ? *m_window.low - m.decided_mean : m.decided_mean - *m_window.high, m.decided_mean,
                 m.decided_uncertainty});
        } else if (crossesLow && crossesHigh) {
            say(Fact::mayBeEither, Tone::caution, "M15", {m.decided_mean, m.decided_uncertainty, chance});
        } else if (crossesLow || crossesHigh) {
            say(crossesLow ? Fact::mayBeSoft : Fact::mayBeHard, Tone::caution, "M15",
                {m.decided_mean, m.decided_uncertainty, chance});
        } else {
            say(Fact::inWindow, Tone::note, "M15", {m.decided_mean, m.decided_uncertainty, chance});
        }
        if (m.outcome == Outcome::borderline && m.more_readings.value_or(0) > 0) {
            say(Fact::moreReadingsSettle, Tone::note, "M17", {double(*m.more_readings)});
        }
        reportBlockReadingsHelp();
    }

    // Says so when five block readings in place of those taken would narrow the interval more than a tenth.
    void reportBlockReadingsHelp() {
        const std::optional<BlockBias>& bias = m_case.set.bias;
        if (!bias || bias->n >= advisedBlockReadings || measured().outcome != Outcome::borderline) return;
        const double now = expectedUncertainty(m_case.set.tester, measured().n, bias);
        const double then =
            expectedUncertainty(m_case.set.tester, measured().n, BlockBias{bias->error, advisedBlockReadings});
        if (then < now * 0.9) say(Fact::moreBlockReadingsHelp, Tone::note, "M9", {now, then});
    }

    void reportNarrowWindow() {
        if (!m_window.low || !m_window.high) return;
        const double width = *m_window.high - *m_window.low;
        // Before any reading nothing is known of the verification it will rest on: the best advised one is assumed.
        const BlockBias bias = m_case.set.bias.value_or(BlockBias{0, advisedBlockReadings});
        const double u = expectedUncertainty(m_case.set.tester, std::max(m_verdict.planned, m_verdict.taken), bias);
        if (m_batch.rule == DecisionRule::guarded && width < 2 * u)
            say(Fact::windowTooNarrow, Tone::caution, "M15", {width, 2 * u});
    }

    // What both gates do once a measurement stands: cap, and what settles a Borderline.
    void settle(Outcome outcome) {
        const bool capped = m_case.set.at_best_borderline || m_conflict;
        m_verdict.state = outcome == Outcome::fail              ? State::fail
                          : outcome == Outcome::pass && !capped ? State::pass
                                                                : State::borderline;
        if (outcome == Outcome::pass && !capped) return next(Act::done);
        if (outcome == Outcome::fail) return;
        const Measurement& m = measured();
        if (!m_case.set.verified) return next(Act::verifyTester);
        if (m.agreement.uneven) return next(Act::mapReadings);
        if (m.more_readings.value_or(0) > 0) return read(Act::readAgain, *m.more_readings);
        if (!m.agreement.flagged.empty()) return read(Act::readAgain, 1);
        if (m_conflict) return next(Act::clearConflict);
        next(m.side == Side::soft ? Act::falseSoftness : Act::makerDecides);
    }

    // Before enough readings are there nothing is decided, but what is known so far is shown.
    bool tooFewReadings() {
        if (m_verdict.taken >= std::max(1, m_verdict.planned)) return false;
        m_verdict.state = State::notYet;
        const bool thin = m_verdict.has(Fact::tooThin);
        read(thin ? Act::readThicker : Act::takeReadings, std::max(1, m_verdict.planned) - m_verdict.taken);
        return true;
    }

    void reportConfidence(const char* what) {
        if (m_grade != nullptr && m_grade->confidence == Confidence::low)
            say(Fact::lowConfidenceRow, Tone::note, "tables", {}, {what});
    }

    void quench() {
        const Blade& blade = *m_case.blade;
        constexpr double snapTemperAfterMinutes = 60;
        if (m_now && blade.quenched_at && lastTemper(blade) == 0) {
            const double minutes = double(m_now->utc_ms - blade.quenched_at->utc_ms) / 60000.0;
            if (minutes > snapTemperAfterMinutes) say(Fact::longSinceQuench, Tone::caution, "quench", {minutes});
        }
        if (!m_window.low) {
            say(Fact::noMinimumSet, Tone::open, "quench");
            m_verdict.state = State::notYet;
            return next(Act::setWindow);
        }
        if (m_case.measurement) reportAgainstWindow();
        if (tooFewReadings()) return;
        if (!m_batch.quench_minimum) reportConfidence("quench minimum");
        const Measurement& m = measured();
        settle(m.outcome);
        if (m_grade != nullptr && !atMost(m.decided_mean - m.decided_uncertainty, m_grade->as_quenched_max)) {
            say(Fact::aboveGradeMaximum, Tone::caution, "quench", {m.decided_mean, m_grade->as_quenched_max});
            m_verdict.state = State::borderline;
            next(Act::verifyOnHarderBlock);
        }
        if (m.side == Side::soft) quenchCauses();
    }

    void quenchCauses() {
        const double low = *m_window.low;
        const double spread = rangeOf(m_case.set.hrc);
        const bool fails = m_verdict.state == State::fail;
        constexpr double muchMore = 3.0; // HRC: beyond what a short soak or warm oil explains
        if (spread > muchMore) {
            say(Fact::scatterOverThree, Tone::caution, "quench", {spread});
            if (fails) next(Act::mapReadings);
        }
        reportEdgeLine();
        const bool alone = m_siblings.judged > 0 && 2 * m_siblings.soft < m_siblings.judged;
        const bool together = m_siblings.judged > 0 && !alone;
        if (alone) say(Fact::onlyThisBladeLow, Tone::note, "quench", {*m_siblings.median});
        const double shortfall =
            low - std::min(m_siblings.median.value_or(measured().decided_mean), measured().decided_mean);
        if (together)
            say(shortfall > muchMore ? Fact::allBladesVeryLow : Fact::allBladesLow, Tone::caution, "quench",
                {shortfall});
        if (m_grade != nullptr && m_grade->needsFullAnneal()) say(Fact::softAlloyTwoCauses, Tone::caution, "quench");
        sayBeforeHardening();
        if (!fails || m_verdict.next.act == Act::mapReadings) return;
        if (together && shortfall > muchMore)
            next(Act::backToSteel);
        else if (!m_case.set.verified)
            next(Act::verifyTester);
        else
            next(Act::falseSoftness);
    }

    // Low along the edge but not elsewhere: thin metal cooled before the quench, or lost its carbon.
    void reportEdgeLine() {
        constexpr double band_mm = 4.0;
        std::vector<double> along;
        std::vector<double> elsewhere;
        for (std::size_t i = 0; i < m_case.set.standing.size(); ++i) {
            const std::optional<Spot>& spot = m_case.set.standing[i]->spot;
            if (!spot) return;
            const bool onLine =
                spot->x_mm >= 0 && std::abs(spot->y_mm - m_case.blade->shape.reading_line_mm) <= band_mm;
            (onLine ? along : elsewhere).push_back(m_case.set.hrc[i]);
        }
        if (along.empty() || elsewhere.empty()) return;
        if (meanOf(elsewhere) - meanOf(along) > 3.5 * m_case.set.tester.pooled_sd) {
            say(Fact::edgeLineLow, Tone::caution, "quench", {meanOf(along), meanOf(elsewhere)});
        }
    }

    void sayBeforeHardening() {
        if (m_case.blade->round - 1 >= m_batch.rehardening_limit) {
            say(Fact::overHardeningLimit, Tone::caution, "temper",
                {double(m_case.blade->round - 1), double(m_batch.rehardening_limit)});
        }
        if (m_grade == nullptr)
            say(Fact::gradeUnknown, Tone::note, "tables", {}, {m_batch.grade});
        else if (m_grade->needsFullAnneal())
            say(Fact::fullAnnealFirst, Tone::caution, "temper", {}, {m_grade->name});
        else
            say(Fact::normaliseFirst, Tone::note, "temper", {}, {m_grade->name});
    }

    void temper() {
        const Blade& blade = *m_case.blade;
        const int logged = lastTemper(blade);
        int needed = requiredTempers(m_batch, blade, m_tables);
        if (const std::optional<int> rose = riseAfter(blade); rose) needed = std::max(needed, *rose + 1);
        if (!m_window.low && !m_window.high) {
            say(Fact::noWindowSet, Tone::open, "temper");
            m_verdict.state = State::notYet;
            return next(Act::setWindow);
        }
        reportNarrowWindow();
        reportUntied(blade, logged);
        reportColours();
        if (m_case.measurement) reportAgainstWindow();
        if (logged < needed) {
            say(Fact::tempersMissing, Tone::open, "temper", {double(logged), double(needed)});
            m_verdict.state = State::notYet;
            if (m_grade == nullptr && !m_batch.minimum_tempers)
                say(Fact::gradeUnknown, Tone::note, "tables", {}, {m_batch.grade});
            return adviseTemper(Act::logTemper, {logged, needed, {}});
        }
        if (m_verdict.taken == 0 && logged > 0)
            say(Fact::noReadingsAfterLastTemper, Tone::open, "temper", {double(logged)});
        if (tooFewReadings()) return;
        if (logged == 1 && needed == 1) say(Fact::oneTemperAdvised, Tone::note, "temper", {1, 2});

        const Measurement& m = measured();
        // Harder than the window is not yet done: tempering still lowers it.
        const bool hard = m.side == Side::hard;
        const bool unreachable = hard && m.outcome == Outcome::fail && outOfReach();
        settle(hard && m.outcome == Outcome::fail && !unreachable ? Outcome::borderline : m.outcome);
        if (hard) {
            if (unreachable) {
                say(Fact::noTemperReaches, Tone::bad, "M21");
                next(Act::makerDecides);
            } else {
                softenTone(Fact::hard);
            }
            if (m.outcome != Outcome::pass && !unreachable) {
                say(Fact::notYetDone, Tone::note, "temper");
                if (m_case.set.verified && !m.agreement.uneven) adviseTemper(Act::temperAgain, {logged, 0, {}});
            }
            if (m_siblings.judged >= 2 && m_siblings.hard == m_siblings.judged) shifted();
        } else if (m.side == Side::soft) {
            say(Fact::temperingCannotRaise, Tone::caution, "temper");
            say(Fact::ruleOutFalseSoftness, Tone::note, "temper");
            sayBeforeHardening();
            if (m_siblings.judged >= 2 && m_siblings.soft == m_siblings.judged) shifted();
            if (m_verdict.state == State::fail) next(m_case.set.verified ? Act::falseSoftness : Act::verifyTester);
        }
    }

    void shifted() { say(Fact::siblingsShiftedToo, Tone::caution, "temper", {*m_siblings.median}); }

    void softenTone(Fact fact) {
        for (Reason& reason : m_verdict.reasons) {
            if (reason.fact == fact) reason.tone = Tone::caution;
        }
    }

    void reportUntied(const Blade& blade, int logged) {
        const auto untied = std::count_if(blade.readings.begin(), blade.readings.end(), [&](const Reading& r) {
            return r.gate == Gate::temper && r.round == blade.round && !r.struck && !r.after_temper && logged > 0;
        });
        if (untied > 0) say(Fact::readingsNotTiedToTemper, Tone::caution, "temper", {double(untied)});
    }

    // The last temper after which the hardness rose by more than the readings' own scatter explains.
    std::optional<int> riseAfter(const Blade& blade) {
        std::optional<int> rose;
        std::vector<double> before = plainValues(blade, Gate::quench, 0);
        for (int temper = 1; temper <= lastTemper(blade); ++temper) {
            const std::vector<double> after = plainValues(blade, Gate::temper, temper);
            if (after.empty()) continue;
            if (!before.empty()) {
                const double sigma = m_case.set.tester.pooled_sd;
                const double noise = sigma * std::sqrt(1.0 / double(before.size()) + 1.0 / double(after.size()));
                if (meanOf(after) - meanOf(before) > tQuantile(0.975, m_case.set.tester.pooled_dof) * noise) {
                    rose = temper;
                    say(Fact::roseAfterTemper, Tone::caution, "temper",
                        {meanOf(before), meanOf(after), double(temper)});
                }
            }
            before = after;
        }
        return rose;
    }

    static std::vector<double> plainValues(const Blade& blade, Gate gate, int temper) {
        std::vector<double> values;
        for (const Reading* r : candidatesAt(blade, gate, temper)) {
            if (r->scale == "HRC") values.push_back(r->value);
        }
        return values;
    }

    // The first that bites speaks first, in the order of the checks; then what is good; last what nobody saw.
    void sortReasons() {
        std::stable_sort(m_verdict.reasons.begin(), m_verdict.reasons.end(),
                         [&](const Reason& a, const Reason& b) { return rankOf(a.tone) < rankOf(b.tone); });
    }

    const Batch& m_batch;
    const Tables& m_tables;
    const Case& m_case;
    const Siblings& m_siblings;
    const Outlook& m_outlook;
    std::optional<bool> m_steel;
    std::optional<bool> m_soak;
    const std::optional<Instant>& m_now;
    const Grade* m_grade;
    Window m_window;
    bool m_conflict = false;
    Verdict m_verdict;
};

} // namespace

std::optional<MeasurementInput> measurementInput(const Batch& batch, std::size_t blade, Gate gate,
                                                 const Tables& tables) {
    return caseOf(batch, batch.blades[blade], gate, VerificationBook(batch, tables), tables).input;
}

std::vector<std::optional<double>> readMeans(const Batch& batch, const BatchVerdicts& verdicts) {
    std::vector<std::optional<double>> means(batch.blades.size());
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        // A blade that was tempered has its as-quenched readings behind it.
        for (const Gate gate : {Gate::temper, Gate::quench}) {
            const std::optional<Verdict>& verdict = verdicts.at(i, gate);
            if (gate == Gate::quench && lastTemper(batch.blades[i]) > 0) continue;
            if (!means[i] && verdict && verdict->measurement) means[i] = verdict->measurement->decided_mean;
        }
    }
    return means;
}

std::vector<Case> casesAt(const Batch& batch, Gate gate, const VerificationBook& book, const Tables& tables) {
    std::vector<Case> cases;
    cases.reserve(batch.blades.size());
    for (const Blade& blade : batch.blades) cases.push_back(caseOf(batch, blade, gate, book, tables));
    return cases;
}

std::vector<Verdict> judgeReadings(const Batch& batch, const Tables& tables, const std::vector<Case>& cases,
                                   const std::vector<Outlook>& outlooks, const SteelBook& steel, const HeatBook& heats,
                                   const std::optional<Instant>& now) {
    const Family family(cases);
    std::vector<Verdict> verdicts;
    verdicts.reserve(cases.size());
    for (std::size_t i = 0; i < cases.size(); ++i) {
        const Siblings siblings = family.siblingsOf(cases[i]);
        verdicts.push_back(
            GateJudge(batch, tables, cases[i], siblings, outlooks[i], steel.consistent(i), heats.soakInLimits(i), now)
                .judged());
    }
    return verdicts;
}

BatchVerdicts judgeBatch(const Batch& batch, const Tables& tables, const std::optional<Instant>& now) {
    return Judged(batch, tables, now).verdicts();
}

} // namespace rollcall
