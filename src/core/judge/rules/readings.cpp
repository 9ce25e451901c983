// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/rules/readings.h"

#include "core/base/number.h"
#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace rollcall {

namespace {

constexpr int advisedBlockReadings = 5; // M6: two are allowed, five advised
constexpr int fewestReboundStrikes = 5; // M11

// E5. Corrected means are compared, each with its own uncertainty, the error of its day included.
std::vector<Rise> risesOf(const ReadBlade& b, const VerificationBook& runs) {
    const auto measured = [&](Gate gate, int temper) {
        return caseAfter(b.batch, b.blade(), gate, temper, runs, b.tables).measurement;
    };
    std::vector<Rise> rises;
    std::optional<Measurement> before = measured(Gate::quench, 0);
    for (int temper = 1; temper <= b.logged; ++temper) {
        std::optional<Measurement> after = temper == b.logged ? b.c.measurement : measured(Gate::temper, temper);
        if (!after) continue;
        if (before) {
            const double own = std::hypot(before->budget.standard_uncertainty, after->budget.standard_uncertainty);
            const double dof = std::min(before->budget.dof, after->budget.dof);
            if (after->corrected_mean - before->corrected_mean > tQuantile(0.975, dof) * own)
                rises.push_back({temper, before->corrected_mean, after->corrected_mean});
        }
        before = std::move(after);
    }
    return rises;
}

} // namespace

ReadBlade::ReadBlade(const Batch& b, const Tables& t, const Case& readCase, const Siblings& s, const Outlook& o,
                     SteelStands steelStands, std::optional<bool> soakKept, const Verdict* heatVerdict,
                     const VerificationBook& book, const std::optional<Instant>& at)
    : batch(b), tables(t), c(readCase), siblings(s), outlook(o), steel(steelStands), soak(soakKept), heat(heatVerdict),
      runs(book), now(at), grade(t.grade(b.grade)), window(windowOf(b, *readCase.blade, readCase.gate, t)),
      planned(b.planOf(readCase.gate).planned_readings), taken(static_cast<int>(readCase.set.standing.size())) {
    finished = batch.isFinished(blade());
    if (c.set.rebound) planned = std::max(planned, fewestReboundStrikes);
    byFiles = batch.planOf(c.gate).by_files && taken == 0;
    if (byFiles) planned = 0;
    metal = metalState(blade(), c.gate, c.gate == Gate::temper ? lastTemper(blade()) : 0);
    if (c.gate != Gate::temper) return;
    logged = lastTemper(blade());
    needed = requiredTempers(batch, blade(), tables);
    if (logged > 0) rises = risesOf(*this, runs);
    if (!rises.empty()) needed = std::max(needed, rises.back().temper + 1);
    for (const ColdTreatment& cold : blade().colds) { // E51: what the cold turned is untempered
        if (cold.round == blade().round && cold.after_temper > 0) needed = std::max(needed, cold.after_temper + 1);
    }
}

bool ReadBlade::steelLooked() const {
    return steel != SteelStands::unknown || !batch.shots.empty() || !batch.certificate.empty() ||
           std::any_of(batch.steel_notes.begin(), batch.steel_notes.end(),
                       [](const SteelNote& note) { return note.kind != SteelNoteKind::changed; });
}

bool ReadBlade::cleaned() const {
    if (byFiles) return repeatedFiles(blade(), c.gate) > 1;
    return !metal.outdated && !metal.before.empty() && !metal.before_cold;
}

bool ReadBlade::outOfReach() const {
    if (finished || !at(Side::hard) || measured()->outcome != Outcome::fail || !outlook.advice) return false;
    const TemperAdvice& advice = *outlook.advice;
    return !advice.best || std::count(advice.warnings.begin(), advice.warnings.end(), TemperWarning::staysHard) > 0;
}

bool ReadBlade::hotterHelps() const {
    if (finished || !decidable() || measured()->outcome != Outcome::borderline || !at(Side::inside)) return false;
    if (!outlook.advice || !outlook.advice->best || !window.high || !c.set.verified) return false;
    constexpr double worthAnOven = 0.05;
    return outlook.advice->best->chance_inside > measured()->probability_inside + worthAnOven;
}

NextStep::With ReadBlade::with(Act act, const Findings& findings) const {
    switch (act) {
    case Act::takeReadings:
    case Act::readThicker: {
        // What was read before the tester was verified, or before the metal was changed, is read again.
        const int counts = metal.outdated                           ? 0
                           : findings.has(Fact::readBeforeVerified) ? c.set.verified_readings
                                                                    : taken;
        return ReadStep{std::max(1, std::max(1, planned) - counts)};
    }
    case Act::readAgain: {
        const Reason* more = findings.find(Fact::moreReadingsSettle);
        if (more == nullptr) more = findings.find(Fact::moreReadingsMay);
        return ReadStep{more != nullptr ? static_cast<int>(more->numbers.front()) : 1};
    }
    case Act::tryFiles: {
        const Reason* across = findings.find(Fact::filesAcross);
        if (across == nullptr) return {};
        return FileStep{across->numbers[2]};
    }
    case Act::otherUse: {
        const Reason* use = findings.find(Fact::useFits);
        return use != nullptr ? NextStep::With(UseStep{use->texts.front()}) : NextStep::With();
    }
    case Act::logTemper:
    case Act::temperAgain:
        return TemperStep{logged, act == Act::logTemper ? needed : 0,
                          outlook.advice ? outlook.advice->best : std::nullopt, outlook.load};
    default:
        return {};
    }
}

namespace {

void readings(const ReadBlade& b, Findings& f) {
    if (b.byFiles) return;
    f.say(Fact::readingsTaken, b.taken >= b.planned ? Tone::good : Tone::open, "record",
          {double(b.taken), double(b.planned)});
}

void validity(const ReadBlade& b, Findings& f) {
    for (const Reason& reason : b.c.set.reasons) f.add(reason);
}

// M11. The instrument's own average counts every strike, a second one on the same spot too; ours beside it.
void instrumentAverage(const ReadBlade& b, Findings& f) {
    if (b.measured() == nullptr || b.measured()->n < 2) return;
    for (const StrikeSeries& series : b.blade().series) {
        if (!series.instrument_mean) continue;
        const bool standing = std::any_of(b.c.set.standing.begin(), b.c.set.standing.end(),
                                          [&](const Reading* r) { return r->series == series.id; });
        if (!standing) continue;
        const Measurement& m = *b.measured();
        f.say(Fact::instrumentAverage, Tone::note, "M11",
              {*series.instrument_mean, m.mean, m.agreement.mean_without_flagged.value_or(m.mean)}, {series.support});
    }
}

void agreement(const ReadBlade& b, Findings& f) {
    if (b.measured() == nullptr || b.measured()->n < 2) return;
    const Measurement& m = *b.measured();
    const Agreement& a = m.agreement;
    const double spread = rangeOf(b.c.set.hrc);
    // What the tester alone makes of n readings: the width that 19 of 20 such sets stay within, roughly 3.6 sigma.
    const double explained = 3.64 * b.c.set.tester.pooled_sd;
    if (a.disagree) f.say(Fact::readingsDisagree, Tone::caution, "M10", {spread, explained});
    for (const std::size_t i : a.flagged) {
        const Tester* tester = b.batch.tester(b.c.set.standing[i]->tester);
        const bool rebound = tester != nullptr && tester->kind == TesterKind::rebound;
        f.say(Fact::flaggedReading, Tone::caution, "M10",
              {b.c.set.hrc[i], m.mean, a.mean_without_flagged.value_or(m.mean)}, {rebound ? "rebound" : "bench"});
    }
    if (m.changed_by_flagged) f.say(Fact::verdictHangsOnFlagged, Tone::caution, "M10");
    if (a.cluster_gap)
        f.say(Fact::twoGroups, Tone::caution, "M10", {*a.cluster_gap});
    else if (a.uneven)
        f.say(Fact::unevenBlade, Tone::caution, "M10", {spread});
    if (!a.disagree && !a.uneven && a.flagged.empty())
        f.say(Fact::readingsAgree, Tone::good, "M10", {spread, explained});
    if (a.grubbs) f.say(Fact::grubbs, Tone::note, "M10");
    constexpr int map = 3; // readings beyond those planned: heel, middle and tip once more
    if (b.taken >= std::max(1, b.planned) + map && (a.uneven || a.cluster_gap || !a.flagged.empty()))
        f.say(Fact::mapped, Tone::note, "E52", {double(b.taken)});
}

// E51. Readings belong to the state of the metal they were taken in; states are never averaged.
void state(const ReadBlade& b, Findings& f) {
    if (b.cleaned() && b.measured() != nullptr) f.say(Fact::metalCleaned, Tone::note, "E51");
    if (b.metal.outdated && b.measured() != nullptr)
        f.say(Fact::earlierState, b.passes() ? Tone::note : Tone::caution, "E51", {double(b.taken)},
              {b.metal.outdated_by_cold ? "cold" : "ground"});
    if (b.metal.before.empty()) return;
    std::vector<double> values;
    for (const Reading* reading : b.metal.before) {
        if (const auto hrc = inHrc(b.tables, *reading)) values.push_back(*hrc);
    }
    if (!values.empty())
        f.say(Fact::stateBefore, Tone::note, "E51", {meanOf(values), double(values.size())},
              {b.metal.before_cold ? "cold" : "ground"});
}

// M12. The last try of files at this gate; on scale or soft skin it says nothing of the steel.
void files(const ReadBlade& b, Findings& f) {
    const FileTest* test = fileTestAt(b.blade(), b.c.gate);
    if (test == nullptr) return f.say(Fact::notLookedAt, Tone::unseen, "M12", {}, {"files"});
    if (test->surface != Surface::bare)
        return f.say(Fact::filesNotOnBareMetal, Tone::note, "M12", {},
                     {test->surface == Surface::scale ? "scale" : "decarburised"});
    const FileBracket bracket = fileBracket(test->trials);
    if (const int tries = repeatedFiles(b.blade(), b.c.gate); tries > 1)
        f.say(Fact::filesRepeated, Tone::note, "E52", {double(tries)});
    if (bracket.conflict != FileConflict::none)
        return f.say(Fact::filesContradict, Tone::caution, "M12", {bracket.skating, bracket.biting});
    constexpr double open = std::numeric_limits<double>::infinity();
    const double lower = bracket.lower.value_or(-open);
    const double upper = bracket.upper.value_or(open);
    const Measurement* m = b.measured();
    if (b.byFiles) return; // the gate itself is asked by them
    if (m == nullptr) {    // nothing agrees with nothing: only the window is there to compare with
        const bool below = b.window.low && upper + filesThemselves < *b.window.low;
        const bool above = b.window.high && lower - filesThemselves > *b.window.high;
        const bool against = below || above;
        return f.say(against ? Fact::filesAgainstWindow : Fact::filesNoted, against ? Tone::caution : Tone::note, "M12",
                     {lower, upper});
    }
    const bool agrees = atLeast(m->decided_mean + m->decided_uncertainty, lower - filesThemselves) &&
                        atMost(m->decided_mean - m->decided_uncertainty, upper + filesThemselves);
    f.say(agrees ? Fact::filesAgree : Fact::filesConflict, agrees ? Tone::good : Tone::caution, "M12", {lower, upper});
}

// E36. Before anything is read: which means pass with this tester and so many readings, and what would widen that.
void canPass(const ReadBlade& b, Findings& f) {
    const bool guards = b.batch.rule == DecisionRule::guarded || b.batch.rule == DecisionRule::chance;
    if (b.byFiles || b.taken > 0 || !guards || (!b.window.low && !b.window.high)) return;
    if (b.c.gate == Gate::temper && b.logged < b.needed) return;
    const auto band = [&](int onBlock) {
        const Window means = meansThatPass(b.c.set.tester, b.window, b.planned, onBlock, b.batch.rule);
        constexpr double open = std::numeric_limits<double>::infinity();
        return std::pair(means.low.value_or(-open), means.high.value_or(open));
    };
    constexpr int fewest = 2;
    const auto [low, high] = band(fewest);
    const auto [bestLow, bestHigh] = band(advisedBlockReadings);
    f.say(Fact::canPass, Tone::note, "E36", {low, high, double(std::max(2, b.planned)), bestLow, bestHigh});
}

// E8. Strikes alone pass nothing; a bracket of files on the same blade that agrees backs them up.
void rebound(const ReadBlade& b, Findings& f) {
    if (!b.c.set.rebound) return;
    const FileTest* test = fileTestAt(b.blade(), b.c.gate);
    const bool tried = test != nullptr && test->surface == Surface::bare;
    const FileBracket bracket = tried ? fileBracket(test->trials) : FileBracket{};
    const bool backed = tried && bracket.conflict == FileConflict::none && bracket.lower && bracket.upper;
    f.say(Fact::reboundNotAlone, backed ? Tone::note : Tone::caution, "M11");
}

void crack(const ReadBlade& b, Findings& f) {
    sayCrack(b.blade(), f);
}

// M20. A surprise is a finding, not a failure: the window is what was promised.
void expectation(const ReadBlade& b, Findings& f) {
    if (b.c.gate != Gate::temper) return;
    const Outlook& o = b.outlook;
    if (!o.expected) return f.say(Fact::notLookedAt, Tone::unseen, "M20", {}, {"expectation"});
    if (b.measured() == nullptr) return;
    if (!o.surprise) return f.say(Fact::evidenceAgrees, Tone::good, "M20", {o.low, o.high}, {"expectation"});
    f.say(Fact::surprise, Tone::caution, "M20", {o.by, o.low, o.high});
    if (const SurpriseLook* look = o.look) f.say(Fact::surpriseLooked, Tone::note, "E27", {}, {look->reason, look->by});
    // E45. What reads harder than its tempers explain may have been tempered cooler than the log says: before it is
    // tempered hotter somebody looks.
    else if (o.far || (o.by > 0 && b.at(Side::hard) && !b.finished))
        f.say(Fact::surpriseFar, Tone::caution, "E27", {std::abs(o.in_u)});
    if (o.siblings == 0) return;
    if (2 * o.shifted > o.siblings)
        f.say(Fact::surpriseShared, Tone::caution, "M20", {o.median_by});
    else
        f.say(Fact::surpriseAlone, Tone::note, "M20", {double(o.siblings)});
}

// M14. A set of another tester's readings that was superseded stays visible beside the one that stands.
void secondTester(const ReadBlade& b, Findings& f) {
    std::vector<double> values;
    std::string why;
    for (const Reading& r : b.blade().readings) {
        if (r.gate != b.c.gate || r.round != b.blade().round || !r.struck || r.scale != "HRC") continue;
        if (r.struck->reason != StrikeReason::superseded || r.after_temper.value_or(0) != b.logged) continue;
        values.push_back(r.value);
        why = r.struck->note;
    }
    if (values.empty())
        f.say(Fact::notLookedAt, Tone::unseen, "M14", {}, {"second tester"});
    else
        f.say(Fact::secondOpinion, Tone::note, "M14", {meanOf(values), double(values.size())}, {why});
}

// E6. Another part of the blade is shown beside the edge, never averaged with it, and answers no gate.
void zones(const ReadBlade& b, Findings& f) {
    for (const Zone zone : allZones) {
        if (zone == Zone::edge) continue;
        const auto measured =
            caseAfter(b.batch, b.blade(), b.c.gate, b.c.gate == Gate::temper ? b.logged : 0, b.runs, b.tables, zone)
                .measurement;
        if (!measured) continue;
        const double mean = measured->decided_mean;
        for (const SteelPart& part : b.batch.other_steels) { // E39: each steel by its own numbers
            const Grade* other = b.tables.grade(part.grade);
            if (other == nullptr || b.c.gate != Gate::quench || !sameName(part.place, nameOf(zone))) continue;
            const bool fits = atLeast(mean + measured->decided_uncertainty, other->as_quenched_min) &&
                              atMost(mean - measured->decided_uncertainty, other->as_quenched_max);
            f.say(Fact::partReading, fits ? Tone::good : Tone::caution, "E39",
                  {mean, other->as_quenched_min, other->as_quenched_max}, {other->name, part.place});
        }
        constexpr double endless = std::numeric_limits<double>::infinity();
        Window window;
        for (const ZoneWindow& own : b.batch.zone_windows) {
            if (own.zone == zone) window = own.window;
        }
        const bool outside = (window.low && mean < *window.low) || (window.high && mean > *window.high);
        const bool asked = window.low || window.high;
        f.say(Fact::zoneBeside,
              !asked    ? Tone::note
              : outside ? Tone::caution
                        : Tone::good,
              "E6",
              {mean, measured->decided_uncertainty, double(measured->n), window.low.value_or(-endless),
               window.high.value_or(endless)},
              {nameOf(zone)});
    }
}

void cold(const ReadBlade& b, Findings& f) {
    for (const ColdTreatment& one : b.blade().colds) {
        if (one.round != b.blade().round) continue;
        if (one.after_temper > 0 && b.c.gate == Gate::temper)
            f.say(Fact::coldLate, Tone::caution, "heat", {one.temperature_c, double(one.after_temper)});
        if (one.after_temper == 0) f.say(Fact::coldTreated, Tone::note, "heat", {one.temperature_c, one.hours});
    }
}

void steelOf(const ReadBlade& b, Findings& f) {
    if (b.steel == SteelStands::unknown) return f.say(Fact::notLookedAt, Tone::unseen, "M26", {}, {"steel"});
    // E50. A finished knife is read whatever it is of; of ours nothing is done to a steel that is not what it should
    // be.
    if (b.steel == SteelStands::other && !b.finished)
        return f.say(Fact::steelFailed, Tone::bad, "E50", {}, {b.batch.grade});
    const bool agrees = b.steel == SteelStands::asClaimed;
    f.say(agrees ? Fact::evidenceAgrees : Fact::evidenceConflicts, agrees ? Tone::good : Tone::caution, "M26", {},
          {"steel"});
}

// A soak off its plan is the Heat gate's finding; it contradicts no hardness.
void soakOf(const ReadBlade& b, Findings& f) {
    if (!b.soak) return f.say(Fact::notLookedAt, Tone::unseen, "M22", {}, {"soak"});
    f.say(*b.soak ? Fact::evidenceAgrees : Fact::soakOffPlan, *b.soak ? Tone::good : Tone::note, "M22", {}, {"soak"});
}

void window(const ReadBlade& b, Findings& f) {
    if (b.measured() == nullptr) return;
    const Measurement& m = *b.measured();
    if (m.n < b.c.input->enough) f.say(Fact::oneReadingOnly, Tone::caution, "M15");
    const std::vector<double> told{m.decided_mean, m.decided_uncertainty, m.probability_inside};
    if (m.outcome == Outcome::pass) {
        f.say(Fact::inWindow, Tone::good, "M15", told);
        const double below = b.window.low ? *b.window.low - m.decided_mean : 0.0;
        const double above = b.window.high ? m.decided_mean - *b.window.high : 0.0;
        if (const double outside = std::max(below, above); outside > limitTolerance)
            f.say(Fact::withAllowance, Tone::caution, "E35", {m.decided_mean, outside, b.c.input->allowance});
        return;
    }
    const bool crossesLow = b.window.low && !atLeast(m.decided_mean - m.decided_uncertainty, *b.window.low);
    const bool crossesHigh = b.window.high && !atMost(m.decided_mean + m.decided_uncertainty, *b.window.high);
    if (m.outcome == Outcome::fail && m.side == Side::soft)
        f.say(Fact::soft, b.c.set.verified ? Tone::bad : Tone::caution, "M15",
              {*b.window.low - m.decided_mean, m.decided_mean, m.decided_uncertainty});
    else if (m.outcome == Outcome::fail) // at Temper not yet done: tempering still lowers it
        f.say(Fact::hard, b.c.gate == Gate::temper && !b.finished && !b.outOfReach() ? Tone::caution : Tone::bad, "M15",
              {m.decided_mean - *b.window.high, m.decided_mean, m.decided_uncertainty});
    else if (crossesLow && crossesHigh)
        f.say(Fact::mayBeEither, Tone::caution, "M15", told);
    else if (crossesLow || crossesHigh)
        f.say(crossesLow ? Fact::mayBeSoft : Fact::mayBeHard, Tone::caution, "M15", told);
    else
        f.say(Fact::inWindow, Tone::note, "M15", told);
    if (m.outcome != Outcome::borderline) return;
    if (m.side == Side::soft) f.say(Fact::meanBelow, Tone::note, "M15", {m.decided_mean, *b.window.low});
    if (m.more_readings.value_or(0) > 0)
        f.say(Fact::moreReadingsSettle, Tone::note, "E40",
              {double(*m.more_readings), chanceSettledBy(*b.c.input, *m.more_readings)});
    if (m.may_settle)
        f.say(Fact::moreReadingsMay, Tone::note, "E40",
              {double(*m.may_settle), chanceSettledBy(*b.c.input, *m.may_settle)});
    // Five block readings in place of those taken would narrow the interval by more than a tenth.
    const std::optional<BlockBias>& bias = b.c.set.bias;
    if (!bias || bias->n >= advisedBlockReadings) return;
    const double now = expectedUncertainty(b.c.set.tester, m.n, bias);
    const double then = expectedUncertainty(b.c.set.tester, m.n, BlockBias{bias->error, advisedBlockReadings});
    if (then < now * 0.9) f.say(Fact::moreBlockReadingsHelp, Tone::note, "M9", {now, then});
}

// E58. Readings that somebody struck out and that would have kept it from passing; a slip of the keys was none.
void struck(const ReadBlade& b, Findings& f) {
    if (!b.passes() || b.measured() == nullptr) return;
    const int temper = b.c.gate == Gate::temper ? b.logged : 0;
    std::vector<const Reading*> all = candidatesAt(b.blade(), b.c.gate, temper);
    const std::size_t kept = all.size();
    for (const Reading& r : b.blade().readings) {
        if (!r.struck || r.struck->reason == StrikeReason::superseded || r.struck->reason == StrikeReason::typingSlip)
            continue;
        const bool here = r.gate == b.c.gate && r.round == b.blade().round && r.zone == Zone::edge &&
                          (b.c.gate != Gate::temper || r.after_temper.value_or(0) == temper) &&
                          r.surface == all.front()->surface;
        if (here) all.push_back(&r);
    }
    if (all.size() == kept) return;
    const ReadingSet set =
        standingReadings(b.batch, b.blade(), all, b.runs, b.tables, b.grade != nullptr ? b.grade->alloy_percent : 0.0);
    if (set.hrc.empty()) return;
    MeasurementInput input = *b.c.input;
    input.readings = set.hrc;
    const Result<Measurement> with = measure(input);
    if (with && with->outcome != Outcome::pass)
        f.say(Fact::struckMatters, Tone::caution, "E58", {with->mean, double(all.size() - kept)}, {nameOf(b.c.gate)});
}

} // namespace

ReadRules evidenceRules() {
    return {
        {{"readings", "a plan", {Fact::readingsTaken}}, readings},
        {{"validity",
          "readings; the runs on blocks; the outline",
          {Fact::outsideScale,   Fact::mixedScales,     Fact::mixedTesters,       Fact::testersAgree,
           Fact::spacingBroken,  Fact::acceptedReading, Fact::spacingNotLookedAt, Fact::spacingGood,
           Fact::reboundThin,    Fact::reboundNotAlone, Fact::thicknessGood,      Fact::belowTenDepths,
           Fact::tooThin,        Fact::convexRefused,   Fact::convexCorrected,    Fact::converted,
           Fact::testerVerified, Fact::blockFarOff,     Fact::testerNotVerified,  Fact::verificationOtherBand,
           Fact::testerFailed,   Fact::readingsSuspect, Fact::verificationAged,   Fact::blockRunOut,
           Fact::blockEndsSoon,  Fact::readingsHeld,    Fact::heldCleared,        Fact::readBeforeVerified,
           Fact::testerStopped}},
         validity},
        {{"agreement",
          "two readings",
          {Fact::readingsDisagree, Fact::flaggedReading, Fact::verdictHangsOnFlagged, Fact::twoGroups,
           Fact::unevenBlade, Fact::readingsAgree, Fact::grubbs, Fact::mapped}},
         agreement},
        {{"state of the metal",
          "readings; what was done to the metal since",
          {Fact::metalCleaned, Fact::earlierState, Fact::stateBefore}},
         state},
        {{"instrument's average", "a series of strikes", {Fact::instrumentAverage}}, instrumentAverage},
        {{"files",
          "a try of files at this gate",
          {Fact::notLookedAt, Fact::filesNotOnBareMetal, Fact::filesContradict, Fact::filesAgree, Fact::filesConflict,
           Fact::filesNoted, Fact::filesAgainstWindow, Fact::filesRepeated}},
         files},
        filesAloneRule(),
        {{"what can pass", "a window; nothing read yet", {Fact::canPass}}, canPass},
        {{"rebound", "strikes alone", {Fact::reboundNotAlone}}, rebound},
        {{"crack", "damage marked", {Fact::crackSeen}}, crack},
        {{"expectation",
          "at Temper: a curve of the grade",
          {Fact::notLookedAt, Fact::evidenceAgrees, Fact::surprise, Fact::surpriseLooked, Fact::surpriseFar,
           Fact::surpriseShared, Fact::surpriseAlone}},
         expectation},
        {{"struck out", "a Pass; readings struck out", {Fact::struckMatters}}, struck},
        {{"second tester", "a set that was superseded", {Fact::notLookedAt, Fact::secondOpinion}}, secondTester},
        {{"cold", "a cold treatment", {Fact::coldTreated, Fact::coldLate}}, cold},
        {{"zones", "readings of another zone", {Fact::zoneBeside, Fact::partReading}}, zones},
        {{"steel",
          "the Steel gate's answer",
          {Fact::notLookedAt, Fact::evidenceAgrees, Fact::evidenceConflicts, Fact::steelFailed}},
         steelOf},
        {{"soak", "the Heat gate's answer", {Fact::notLookedAt, Fact::evidenceAgrees, Fact::soakOffPlan}}, soakOf},
    };
}

Rule<ReadBlade> windowRule() {
    return {{"window",
             "a mean and a window",
             {Fact::oneReadingOnly, Fact::inWindow, Fact::soft, Fact::hard, Fact::mayBeEither, Fact::mayBeSoft,
              Fact::mayBeHard, Fact::meanBelow, Fact::withAllowance, Fact::moreReadingsSettle, Fact::moreReadingsMay,
              Fact::moreBlockReadingsHelp}},
            window};
}

void sayBeforeHardening(const ReadBlade& b, Findings& f) {
    const int rounds = b.blade().round - 1;
    if (rounds >= b.batch.rehardening_limit)
        f.say(Fact::overHardeningLimit, Tone::caution, "temper", {double(rounds), double(b.batch.rehardening_limit)});
    if (b.grade == nullptr)
        f.say(Fact::gradeUnknown, Tone::note, "tables", {}, {b.batch.grade});
    else if (b.grade->needsFullAnneal())
        f.say(Fact::fullAnnealFirst, Tone::caution, "E55",
              b.grade->anneal_c.known() ? std::vector<double>{*b.grade->anneal_c.low, *b.grade->anneal_c.high}
                                        : std::vector<double>{},
              {b.grade->name});
    else
        f.say(Fact::normaliseFirst, Tone::note, "temper", {}, {b.grade->name});
}

namespace {

// What the blade read in the last state of the hardening before this one, HRC, where that was soft too.
std::optional<double> softBefore(const ReadBlade& b) {
    if (b.c.gate != Gate::temper || b.measured() == nullptr || !b.window.low) return std::nullopt;
    std::pair<int, int> last; // temper and surface
    std::vector<double> values;
    for (const Reading& reading : b.blade().readings) {
        const std::pair state(reading.after_temper.value_or(0), reading.surface);
        if (reading.struck || reading.scale != "HRC" || reading.gate != Gate::temper ||
            reading.round != b.blade().round - 1 || state < last)
            continue;
        if (state > last) values.clear();
        last = state;
        values.push_back(reading.value);
    }
    if (values.empty() || atLeast(meanOf(values), *b.window.low)) return std::nullopt;
    return meanOf(values);
}

} // namespace

void sayWhatIsLeft(const ReadBlade& b, Findings& f) {
    if (!b.cleaned()) return;
    if (b.measured() != nullptr)
        f.say(Fact::softOnClean, Tone::caution, "E45", {b.measured()->decided_mean, double(b.measured()->n)});
    else
        f.say(Fact::softOnClean, Tone::caution, "E45");
    const int rounds = b.blade().round - 1;
    // E52. Soft again as it was before it was hardened again: once more makes the same.
    const auto before = softBefore(b);
    if (!before && rounds < b.batch.rehardening_limit)
        return f.say(Fact::rehardenLeft, Tone::note, "E45",
                     {double(b.blade().round + 1), double(b.batch.rehardening_limit)});
    const std::string use =
        b.measured() != nullptr && b.c.gate == Gate::temper
            ? purposeThatHolds(b.batch.claimOf(b.blade()).purpose, b.measured()->decided_mean, b.tables)
            : std::string();
    if (!use.empty()) f.say(Fact::useFits, Tone::note, "E45", {}, {use});
    if (before)
        f.say(Fact::noWayLeft, Tone::note, "E52", {*before, b.measured()->mean});
    else if (use.empty())
        f.say(Fact::noWayLeft, Tone::note, "E45");
}

std::vector<DecisionRow> softRows() {
    return {
        {{Fact::softOnClean, Fact::rehardenLeft}, State::fail, Act::reharden},
        {{Fact::softOnClean, Fact::useFits}, State::fail, Act::otherUse},
        {{Fact::softOnClean}, State::fail, Act::scrap},
        {{Fact::soft}, State::fail, Act::falseSoftness},
    };
}

std::vector<DecisionRow> firstRows() {
    return {
        {{Fact::crackSeen}, State::fail, Act::clearCrack},
        {{Fact::steelFailed}, State::fail, Act::backToSteel},
    };
}

Condition notVerified() {
    return {"tester not verified",
            {Fact::testerNotVerified, Fact::verificationOtherBand, Fact::testerFailed, Fact::readingsHeld,
             Fact::readingsSuspect}};
}

Condition tooFewReadings() {
    return {"too few readings", {{Fact::readingsTaken, Tone::open}}};
}

Condition uneven() {
    return {"uneven", {Fact::unevenBlade, Fact::twoGroups}};
}

// E1. Before a tester is known to be right nothing passes and nothing fails.
std::vector<DecisionRow> validityRows() {
    return {
        {{{Fact::earlierState, Tone::caution}}, State::notYet, Act::takeReadings},
        {{{Fact::readBeforeVerified, Tone::caution}}, State::borderline, Act::takeReadings},
        {{Fact::testerStopped}, State::borderline, Act::makerDecides},
        {{Fact::readingsSuspect}, State::notYet, Act::verifyTester},
        {{notVerified()}, State::borderline, Act::verifyTester},
        // E7: while it is not said whose readings stand, none of them decides, soft ones neither.
        {{Fact::mixedTesters}, State::borderline, Act::chooseSet},
    };
}

std::vector<DecisionRow> settlingRows(Gate gate) {
    const Condition mixed{
        "a set that is mixed, thin, far from its block or on one that has run out",
        {Fact::mixedScales, Fact::reboundThin, {Fact::blockFarOff, Tone::caution}, {Fact::blockRunOut, Tone::caution}}};
    const Condition alone{"rebound strikes alone", {{Fact::reboundNotAlone, Tone::caution}}};
    const Condition conflict{"other evidence against it", {Fact::evidenceConflicts, Fact::filesConflict}};
    const Condition apart{"readings that contradict each other", {Fact::readingsDisagree, Fact::flaggedReading}};
    const Condition known{"mapped already", {Fact::mapped}};
    const Condition cleaned{"read on clean metal already", {Fact::metalCleaned}};
    std::vector<DecisionRow> rows{
        {{{Fact::inWindow, Tone::good}}, State::pass, Act::done, {mixed, conflict, alone}},
        {{uneven()}, State::borderline, Act::mapReadings, {known}},
        {{Condition{"more readings settle it, or may", {Fact::moreReadingsSettle, Fact::moreReadingsMay}}},
         State::borderline,
         Act::readAgain},
        {{apart}, State::borderline, Act::readAgain, {known}},
        {{known}, State::borderline, Act::falseSoftness, {cleaned}},
    };
    const auto add = [&rows](DecisionRow row) { rows.push_back(std::move(row)); };
    if (gate == Gate::temper)
        add({{Fact::finishedKnife, Fact::evidenceConflicts}, State::borderline, Act::acceptOrReturn});
    add({{conflict}, State::borderline, Act::clearConflict, {{Fact::filesRepeated}}});
    add({{alone}, State::borderline, Act::backUpRebound});
    add({{{Fact::blockFarOff, Tone::caution}}, State::borderline, Act::verifyOnHarderBlock});
    add({{Fact::meanBelow}, State::borderline, Act::falseSoftness, {cleaned}});
    if (gate == Gate::temper) add({{Fact::hotterHelps}, State::borderline, Act::temperAgain});
    add({{}, State::borderline, Act::makerDecides});
    return rows;
}

} // namespace rollcall
