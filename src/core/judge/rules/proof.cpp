// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"
#include "core/judge/gate_case.h"
#include "core/judge/proof_judge.h"
#include "core/judge/rules/rules.h"

#include <algorithm>

namespace rollcall {

namespace {

/// A test of another piece, and whether it speaks for this blade.
struct SaidByAnother {
    const EndedTest* ended;
    Speech speech;

    bool isGrain() const { return ended->trial == nullptr; }
    /// What is undecided itself carries no further than with a reservation.
    Speaks carries() const {
        return ended->undecided && speech.speaks == Speaks::yes ? Speaks::withReservations : speech.speaks;
    }
};

/// What is known of one blade at Proof.
struct ProofOfBlade {
    ProofOfBlade(const Batch& b, std::size_t i, const ProofBook& p, const Tables& tables)
        : grade(tables.grade(b.claimOf(b.blades[i]).grade)), batch(b), index(i), blade(b.blades[i]), book(p),
          fractures(fracturesOf(blade)) {
        const auto last = std::find_if(blade.trials.rbegin(), blade.trials.rend(),
                                       [&](const Trial& t) { return isPresent(t, blade); });
        if (last != blade.trials.rend()) latest = &*last;
        if (latest != nullptr) progress = progressOf(*latest);
        if (!fractures.empty()) grain = readFractures(fractures);
        for (const EndedTest& ended : book.ended()) {
            if (ended.blade == index && ended.trial != nullptr) (ended.passed ? passed : failed) = true;
            if (ended.blade != index) others.push_back({&ended, book.speech(ended, index)});
        }
    }

    /// The piece itself was tried or broken, and that says something.
    bool hasOwn() const {
        return failed || passed || grain ||
               (progress && (progress->outcome == TrialOutcome::running || progress->outcome == TrialOutcome::voided ||
                             progress->outcome == TrialOutcome::givenUp));
    }
    NextStep::With with(Act act, const Findings&) const {
        if (act != Act::hardenFiner || grade == nullptr) return {};
        return AnnealStep{grade->name, grade->may_normalise, grade->anneal_c}; // E55
    }

    const Grade* grade;
    const Batch& batch;
    std::size_t index;
    const Blade& blade;
    const ProofBook& book;
    std::vector<FracturePhoto> fractures; ///< of this round
    const Trial* latest = nullptr;        ///< its last trial as it is now
    std::optional<TrialProgress> progress;
    std::optional<FractureReading> grain;
    bool passed = false; ///< a trial of its own
    bool failed = false;
    std::vector<SaidByAnother> others;
};

// A piece that is out was meant to break.
void crackOfPiece(const ProofOfBlade& p, Findings& f) {
    if (p.blade.fate) return;
    sayCrack(p.blade, f);
    if (isUntempered(p.batch, p.blade)) f.say(Fact::untempered, Tone::bad, "E65");
}

// A piece that reads harder than it was to be is tempered first; what it did as it was says little of what it will do.
void stillHard(const ProofOfBlade& p, Findings& f) {
    const Window window = *p.batch.claimOf(p.blade).window;
    const auto hrc = p.book.factsOf(p.index).hrc;
    const bool spent = p.blade.fate.has_value() || p.batch.isFinished(p.blade);
    if (!spent && p.failed && hrc && window.high && *hrc > *window.high + limitTolerance)
        f.say(Fact::notYetDone, Tone::note, "E45");
}

void trials(const ProofOfBlade& p, Findings& f) {
    for (const EndedTest& ended : p.book.ended()) {
        if (ended.blade != p.index || ended.trial == nullptr) continue;
        const Trial& trial = *ended.trial;
        const TrialProgress progress = progressOf(trial);
        if (ended.passed) {
            f.say(Fact::trialPassed, Tone::good, "proof", {}, {trial.protocol.name});
            double wanted = 0;
            for (std::size_t i = 0; i < progress.steps.size(); ++i)
                wanted += trial.protocol.steps[i].photo && progress.steps[i].photos == 0 ? 1 : 0;
            if (wanted > 0) f.say(Fact::photoWanted, Tone::note, "proof", {wanted}, {trial.protocol.name});
            continue;
        }
        std::string step;
        std::string how;
        for (std::size_t i = 0; i < progress.steps.size(); ++i) {
            if (progress.steps[i].state != StepState::failed) continue;
            step = trial.protocol.steps[i].name;
            how = progress.steps[i].how;
        }
        f.say(Fact::trialFailed, Tone::bad, "proof", {}, {trial.protocol.name, step, how});
    }
}

void latest(const ProofOfBlade& p, Findings& f) {
    if (!p.progress) return;
    const std::string& name = p.latest->protocol.name;
    if (p.progress->outcome == TrialOutcome::running)
        f.say(Fact::trialRunning, Tone::open, "proof",
              {double(p.progress->done), double(p.latest->protocol.steps.size())}, {name});
    if (p.progress->outcome == TrialOutcome::voided) f.say(Fact::trialVoided, Tone::caution, "proof", {}, {name});
    if (p.progress->outcome == TrialOutcome::givenUp)
        f.say(Fact::trialGivenUp, Tone::note, "proof", {},
              {name, p.progress->current < p.progress->steps.size() ? p.progress->steps[p.progress->current].how : ""});
}

// E31, E32. What was tried with an earlier edge, and what failed that was not the steel.
void besideTheSteel(const ProofOfBlade& p, Findings& f) {
    for (const Trial& trial : p.blade.trials) {
        if (trial.round != p.blade.round || trial.after_temper != lastTemper(p.blade)) continue;
        const TrialProgress progress = progressOf(trial);
        for (const std::string& what : progress.not_steel)
            f.say(Fact::notTheSteel, Tone::note, "E32", {}, {trial.protocol.name, what});
        const bool ended = progress.outcome == TrialOutcome::passed || progress.outcome == TrialOutcome::failed;
        const auto edge = edgeThen(trial, p.blade);
        if (!ended || !edge || isPresent(trial, p.blade)) continue;
        f.say(Fact::trialOfEarlierEdge, Tone::note, "E31", {edge->behind_edge_mm, edge->angle_per_side_deg},
              {trial.protocol.name, progress.outcome == TrialOutcome::passed ? "passed" : "failed"});
    }
}

// What it takes to make the grain fine again: the recipe anew, and one round more of scale and decarburisation.
void sayCost(const ProofOfBlade& p, Findings& f) {
    double minutes = 0;
    if (p.batch.recipe) {
        for (const RecipeStage& stage : p.batch.recipe->stages) minutes += stage.minutes;
    }
    f.say(Fact::grainCost, Tone::note, "M30",
          {minutes / 60, double(p.blade.round + 1), double(p.batch.rehardening_limit + 1)});
}

// What the fracture of this piece itself shows.
void ownGrain(const ProofOfBlade& p, Findings& f) {
    if (!p.grain) return;
    const double least = grainLeastOf(p.batch);
    const FractureReading& reading = *p.grain;
    const char* how = reading.says == FractureReading::Says::rated ? "rated" : "counted";
    const std::vector<double> numbers{reading.g, reading.low_high.first, reading.low_high.second, least};
    switch (standsTo(reading, least)) {
    case GrainStands::open:
        if (reading.says == FractureReading::Says::tooCoarseAPhoto) {
            f.say(Fact::grainUnseen, Tone::caution, "M30", {reading.finest_seen.value_or(0)});
        } else {
            const LinesWanted wanted = linesWanted(reading.lines, reading.crossings);
            f.say(Fact::grainOpen, Tone::open, "M30", {double(wanted.lines), wanted.crossings});
        }
        break;
    case GrainStands::fine:
        f.say(Fact::grainFine, Tone::good, "M30", numbers, {how});
        break;
    case GrainStands::between:
        f.say(Fact::grainBetween, Tone::caution, "M30", numbers, {how});
        break;
    case GrainStands::coarse:
        f.say(Fact::grainCoarse, Tone::bad, "M30", numbers, {how});
        sayCost(p, f);
        break;
    }
    if (reading.uneven)
        f.say(Fact::grainUneven, Tone::caution, "M30", {reading.uneven->first.size.g, reading.uneven->second.size.g},
              {nameOf(reading.uneven->first.zone), nameOf(reading.uneven->second.zone)});
    if (reading.count_and_rating_differ)
        f.say(Fact::grainDisagrees, Tone::caution, "M30", {reading.g, reading.rating.value_or(0)});
    if (reading.rating_repeats_badly) f.say(Fact::grainRatedBadly, Tone::caution, "M30");
    if (reading.tempered) f.say(Fact::grainTempered, Tone::caution, "M30");
}

// A piece that was broken has an answer though it is out of the batch.
void outOfBatch(const ProofOfBlade& p, Findings& f) {
    if (p.blade.fate) f.say(Fact::outBecause, Tone::note, "record", {}, {p.blade.fate->reason});
}

void tell(const ProofOfBlade& p, const SaidByAnother& other, Fact fact, Tone tone, Findings& f) {
    const std::string& mark = p.batch.blades[other.ended->blade].mark;
    const char* how = other.ended->undecided ? "undecided" : other.ended->passed ? "passed" : "failed";
    f.say(fact, tone, "M32", {}, {mark, other.ended->name(), how});
    for (const Difference& difference : other.speech.differences) {
        if (difference.known)
            f.say(Fact::pieceDiffers, tone, "M32", {}, {mark, nameOf(difference.trait), difference.a, difference.b});
        else
            f.say(Fact::pieceTraitNotKnown, Tone::unseen, "M32", {}, {mark, nameOf(difference.trait)});
    }
}

// A blade that passed its own trial may still share its grain with a broken piece.
void grainOfOthers(const ProofOfBlade& p, Findings& f) {
    const bool grainFine = p.grain && standsTo(*p.grain, grainLeastOf(p.batch)) == GrainStands::fine;
    if (!p.passed && !grainFine) return;
    for (const SaidByAnother& other : p.others) {
        if (!other.isGrain() || other.ended->passed || other.speech.speaks == Speaks::no) continue;
        tell(p, other, other.speech.speaks == Speaks::yes ? Fact::pieceSpeaksAgainst : Fact::pieceAgainstInPart,
             Tone::caution, f);
    }
}

// The pieces that were tried in its stead. One that failed weighs more than one that passed.
void triedInItsStead(const ProofOfBlade& p, Findings& f) {
    if (p.hasOwn()) return;
    const auto first = [&](bool passed, Speaks speaks) -> const SaidByAnother* {
        const auto found = std::find_if(p.others.begin(), p.others.end(), [&](const SaidByAnother& one) {
            return one.ended->passed == passed && one.carries() == speaks;
        });
        return found == p.others.end() ? nullptr : &*found;
    };
    bool answered = true;
    if (const SaidByAnother* against = first(false, Speaks::yes)) {
        tell(p, *against, Fact::pieceSpeaksAgainst, Tone::bad, f);
        if (against->isGrain()) sayCost(p, f);
    } else if (const SaidByAnother* partly = first(false, Speaks::withReservations)) {
        tell(p, *partly, Fact::pieceAgainstInPart, Tone::caution, f);
    } else if (const SaidByAnother* passing = first(true, Speaks::yes)) {
        tell(p, *passing, Fact::pieceSpeaksFor, Tone::good, f);
    } else if (const SaidByAnother* mostly = first(true, Speaks::withReservations)) {
        tell(p, *mostly, Fact::pieceSpeaksInPart, Tone::caution, f);
    } else {
        answered = false;
    }
    bool nothing = !answered;
    for (const SaidByAnother& other : p.others) {
        // Coupons in order of their soak are many: where one of them decides, the others need no mention.
        if (other.speech.speaks != Speaks::no || (other.isGrain() && answered)) continue;
        tell(p, other, Fact::pieceDoesNotSpeak, answered ? Tone::note : Tone::open, f);
        nothing = false;
    }
    if (nothing) f.say(Fact::noTrialYet, Tone::open, "proof");
}

GateRules<ProofOfBlade> proofRules() {
    const Condition failed{"failed itself", {Fact::trialFailed, Fact::grainCoarse}};
    const Condition passed{"passed itself", {Fact::trialPassed, Fact::grainFine}};
    const Condition doubtful{"grain in doubt", {Fact::grainBetween, Fact::grainUneven, Fact::grainDisagrees}};
    const Condition uncounted{"grain not told yet", {Fact::grainOpen, Fact::grainUnseen}};
    const Condition against{"another piece against it", {Fact::pieceSpeaksAgainst, Fact::pieceAgainstInPart}};
    return {
        Gate::proof,
        {{{"crack", "damage marked; the piece still in the batch", {Fact::crackSeen, Fact::untempered}}, crackOfPiece},
         {{"still hard", "a failed trial of its own; its mean and window", {Fact::notYetDone}}, stillHard},
         {{"trials", "an ended trial of its own", {Fact::trialPassed, Fact::photoWanted, Fact::trialFailed}}, trials},
         {{"latest trial", "a trial", {Fact::trialRunning, Fact::trialVoided, Fact::trialGivenUp}}, latest},
         {{"beside the steel", "a trial", {Fact::notTheSteel, Fact::trialOfEarlierEdge}}, besideTheSteel},
         {{"own grain",
           "a fracture of its own",
           {Fact::grainUnseen, Fact::grainOpen, Fact::grainFine, Fact::grainBetween, Fact::grainCoarse, Fact::grainCost,
            Fact::grainUneven, Fact::grainDisagrees, Fact::grainRatedBadly, Fact::grainTempered}},
          ownGrain},
         {{"out", "a fate", {Fact::outBecause}}, outOfBatch},
         {{"grain of others",
           "a Pass of its own; a broken piece",
           {Fact::pieceSpeaksAgainst, Fact::pieceAgainstInPart, Fact::pieceDiffers, Fact::pieceTraitNotKnown}},
          grainOfOthers},
         {{"tried in its stead",
           "nothing of its own; an ended test of another piece",
           {Fact::pieceSpeaksFor, Fact::pieceSpeaksInPart, Fact::pieceSpeaksAgainst, Fact::pieceAgainstInPart,
            Fact::pieceDoesNotSpeak, Fact::pieceDiffers, Fact::pieceTraitNotKnown, Fact::grainCost, Fact::noTrialYet}},
          triedInItsStead}},
        {{{failed, Fact::outBecause}, State::fail, Act::done},
         {{Fact::crackSeen}, State::fail, Act::clearCrack},
         {{Fact::untempered}, State::notYet, Act::logTemper},
         {{Fact::grainCoarse}, State::fail, Act::hardenFiner},
         {{Fact::trialFailed, Fact::notYetDone}, State::borderline, Act::temperAgain},
         {{Fact::trialFailed}, State::fail, Act::lookAtHeat},
         {{Fact::trialRunning}, State::notYet, Act::runTrial},
         {{doubtful}, State::borderline, Act::countGrain},
         {{uncounted}, State::notYet, Act::countGrain},
         {{passed, against}, State::borderline, Act::makerDecides},
         {{passed}, State::pass, Act::done},
         {{{Fact::pieceSpeaksAgainst, Tone::bad}, Fact::grainCost}, State::fail, Act::hardenFiner},
         {{{Fact::pieceSpeaksAgainst, Tone::bad}}, State::fail, Act::lookAtHeat},
         {{Fact::pieceAgainstInPart}, State::borderline, Act::makerDecides},
         {{Fact::pieceSpeaksFor}, State::excused, Act::done},
         {{Fact::pieceSpeaksInPart}, State::borderline, Act::makerDecides},
         {{}, State::notYet, Act::runTrial}}};
}

const GateRules<ProofOfBlade>& proofGate() {
    static const GateRules<ProofOfBlade> gate = proofRules();
    return gate;
}

} // namespace

GateTable proofTable() {
    return proofGate().table();
}

Verdict judgeProof(const Batch& batch, std::size_t index, const ProofBook& book, const Tables& tables) {
    const Blade& blade = batch.blades[index];
    const ProofOfBlade proof(batch, index, book, tables);
    const bool excusedHere =
        std::any_of(blade.excuses.begin(), blade.excuses.end(), [](const Excuse& e) { return e.gate == Gate::proof; });
    // A piece that is out of the batch and was broken has an answer all the same: its fracture.
    if (!proof.grain || excusedHere) {
        if (auto excused = excusedVerdict(blade, Gate::proof)) return *excused;
    }
    Verdict verdict = proofGate().judge(blade, proof);
    for (const EndedTest& ended : book.ended()) {
        if (ended.blade == index && ended.trial != nullptr) verdict.taken += progressOf(*ended.trial).done;
    }
    if (proof.progress && proof.progress->outcome == TrialOutcome::running)
        verdict.taken += proof.progress->done + (proof.progress->begun ? 1 : 0);
    if (proof.grain) verdict.taken += proof.grain->lines;
    return verdict;
}

} // namespace rollcall
