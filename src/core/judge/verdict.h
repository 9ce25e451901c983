// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/names.h"
#include "core/judge/record.h"

#include <optional>
#include <string>
#include <vector>

namespace rollcall {

enum class State { pass, borderline, fail, notYet, excused };
template<>
inline constexpr std::array namesOf<State>{"pass", "borderline", "fail", "not yet", "excused"};

/// What a reason says; its sentence lives in words/.
enum class Fact {
    // readings and their validity
    readingsTaken, ///< numbers: taken, planned
    noMinimumSet,  ///< the quench gate has nothing to compare with
    noWindowSet,
    testerVerified,        ///< numbers: error, spread, block; text: tester
    testerNotVerified,     ///< text: tester
    testerFailed,          ///< the run on the block was not good; text: tester
    verificationOtherBand, ///< numbers: block, mean
    blockFarOff,           ///< numbers: block, mean: over 5 HRC apart
    spacingGood,           ///< numbers: smallest distance, needed
    spacingBroken,         ///< numbers: distance, needed, index; text: "indent", "strike" or "edge"
    spacingNotLookedAt,    ///< positions are not known
    acceptedReading,       ///< text: why
    thicknessGood,         ///< numbers: thickness, needed
    tooThin,               ///< numbers: thickness, needed; text: lighter scales
    belowTenDepths,        ///< numbers: thickness, ten depths
    outsideScale,          ///< numbers: value; text: scale
    mixedScales,
    mixedTesters,
    readingsSuspect, ///< the tester failed twice on its block later; text: tester
    convexCorrected, ///< numbers: correction added, radius
    convexRefused,   ///< numbers: value, radius; text: why
    converted,       ///< text: scale
    // agreement
    readingsAgree,    ///< numbers: spread, what the tester explains
    readingsDisagree, ///< numbers: spread
    flaggedReading,   ///< numbers: value, mean with, mean without; text: kind of tester
    verdictHangsOnFlagged,
    unevenBlade, ///< numbers: spread
    twoGroups,   ///< numbers: gap
    grubbs,
    // other evidence
    notLookedAt,         ///< text: files, expectation, second tester, steel, soak
    evidenceAgrees,      ///< text: which; numbers: low, high
    evidenceConflicts,   ///< text: which; numbers: low, high
    soakOffPlan,         ///< the Heat gate says by how much
    filesAgree,          ///< numbers: lower, upper; infinite where open
    filesConflict,       ///< numbers: lower, upper; infinite where open
    filesContradict,     ///< numbers: file that skated, file that bit
    filesNotOnBareMetal, ///< text: scale, decarburised
    secondOpinion,       ///< numbers: mean of a superseded set, its readings; text: why
    instrumentAverage,   ///< numbers: the instrument's own, recomputed, recomputed without the flagged; text: support
    reboundThin,         ///< numbers: thickness, needed
    reboundNotAlone,     ///< rebound strikes alone never release a blade
    // against the window
    inWindow,  ///< numbers: mean, U, chance
    mayBeSoft, ///< numbers: mean, U, chance
    mayBeHard,
    mayBeEither,
    soft, ///< numbers: by how much
    hard,
    oneReadingOnly,
    windowTooNarrow,       ///< numbers: width, 2U
    moreReadingsSettle,    ///< numbers: how many more
    moreBlockReadingsHelp, ///< numbers: U now, U with five block readings
    lowConfidenceRow,      ///< text: what rests on it
    // quench gate
    aboveGradeMaximum, ///< numbers: mean, maximum
    onlyThisBladeLow,  ///< numbers: siblings' median
    allBladesLow,      ///< numbers: median shortfall
    allBladesVeryLow,
    softAlloyTwoCauses, ///< soak too cool or too hot: opposite cures
    edgeLineLow,        ///< numbers: edge mean, elsewhere mean
    scatterOverThree,   ///< numbers: spread
    longSinceQuench,    ///< numbers: minutes
    // temper gate
    tempersMissing,            ///< numbers: logged, needed
    oneTemperAdvised,          ///< numbers: logged, advised
    noReadingsAfterLastTemper, ///< numbers: last temper
    readingsNotTiedToTemper,   ///< numbers: how many
    roseAfterTemper,           ///< numbers: before, after, temper
    notYetDone,                ///< harder than the window: not a failure
    temperingCannotRaise,
    ruleOutFalseSoftness,
    overHardeningLimit, ///< numbers: rounds, limit
    fullAnnealFirst,    ///< text: grade
    normaliseFirst,     ///< text: grade
    gradeUnknown,       ///< text: grade
    siblingsShiftedToo, ///< numbers: median against window
    // steel gate
    noShotTaken,
    steelConsistent,       ///< numbers: elements compared, shots; text: grade
    certificateConsistent, ///< likewise, by the mill's values alone
    steelUndecided,        ///< numbers: measured, low, high, z; text: element, "under" below detection
    steelNotConsistent,    ///< likewise
    alsoConsistent,        ///< text: grades that cannot be told apart
    looksMoreLike,         ///< text: grades
    noGradeFits,
    methodCannotSee, ///< text: elements
    gradeReassigned, ///< text: sold as, taken for
    shotCoated,
    shotScaled,
    shotSmall,
    couponAgrees, ///< numbers: read, from, to; text: grade
    couponContradicts,
    sparkAgrees, ///< text: note
    sparkContradicts,
    // temper gate
    noHeatLogged,
    notInYet,
    notOutYet,
    soakGood,     ///< numbers: minutes, least, most (0: none), equivalent minutes
    soakOver,     ///< numbers: minutes, most, equivalent minutes
    soakUnder,    ///< numbers: minutes, least
    soakApart,    ///< numbers: equivalent minutes, the batch's median
    soakByOven,   ///< the thickness is not known: the oven's time is judged
    soakByClock,  ///< numbers: minutes in the oven; there is no trace
    ovenOvershot, ///< numbers: peak, set point
    ovenNeverChecked,
    transferGood, ///< numbers: seconds, degrees on entering
    transferLate, ///< numbers: seconds, degrees on entering, lower critical point
    transferNotNoted,
    quenchantGood, ///< numbers: degrees
    quenchantOff,  ///< numbers: degrees, aimed at
    quenchantNotNoted,
    noteAgainstTrace, ///< numbers: noted, by the trace; text: temperature or soak
    // expectation and the next temper
    surprise,           ///< numbers: by how much, low, high
    surpriseAlone,      ///< siblings came as expected
    surpriseShared,     ///< numbers: the siblings' median difference
    nextTemper,         ///< numbers: temperature, hours, expected, chance inside, chance too soft
    nextTemperCautious, ///< numbers: as nextTemper
    noTemperReaches,
    temperAvoided,     ///< numbers: from, to; the temperatures the grade is to avoid
    temperBlind,       ///< text: why nothing can be foretold
    colourAgainstOven, ///< numbers: low, high, oven; text: colour
    // edge gate
    noRungTaken,
    edgeNotMeasured,  ///< without its geometry nothing explains what it does
    hardnessAssumed,  ///< numbers: HRC taken, since none is read
    askedRungHeld,    ///< numbers: N, degrees
    askedRungOpen,    ///< numbers: N, degrees
    askedFlexOpen,    ///< the flex by hand is asked
    yieldsAnyway,     ///< numbers: depth, thickness at its root, thickness expected to yield, N, degrees; text: outcome
    geometryExplains, ///< likewise
    heatTreatmentAsked, ///< likewise
    grosslyHard,        ///< a chip or crack of thick metal under 45 N
    grosslySoft,        ///< a roll or set of it
    damageNotExplained, ///< text: outcome; its size or load is not known
    localDamage,        ///< numbers: place; the same load was held elsewhere
    strongEdge,         ///< true at three times the load that should mark it
    asGoodAsItGets,     ///< a tiny set only, at 200 N and 45 degrees
    weakEvidence,       ///< numbers: N, degrees where it would mean something; 0: at no load of the ladder
    flexHeld,           ///< by hand: flexes and comes back
    flexChipped,        ///< by hand
    flexBent,           ///< by hand
    soundHeard,
    burntInGrinding,
    burnCleared,
    // proof gate
    noTrialYet,
    trialRunning,       ///< numbers: steps done, of; text: protocol
    trialPassed,        ///< text: protocol
    trialFailed,        ///< text: protocol, step, how
    trialVoided,        ///< text: protocol
    trialGivenUp,       ///< text: protocol, why
    photoWanted,        ///< numbers: how many; text: protocol
    pieceSpeaksFor,     ///< text: mark, protocol
    pieceSpeaksInPart,  ///< text: mark, protocol
    pieceSpeaksAgainst, ///< text: mark, protocol
    pieceAgainstInPart, ///< text: mark, protocol
    pieceDoesNotSpeak,  ///< text: mark, protocol, "passed" or "failed"
    pieceDiffers,       ///< text: mark, name of the trait, the piece's, the blade's
    pieceTraitNotKnown, ///< text: mark, name of the trait
    grainFine,          ///< numbers: G, low, high, least asked; text: "counted" or "rated"
    grainBetween,       ///< likewise
    grainCoarse,        ///< likewise
    grainOpen,          ///< numbers: lines and crossings still wanted
    grainUnseen,        ///< numbers: finest G that the photo shows
    grainUneven,        ///< numbers: G of the coarser and of the finer zone; text: their names
    grainTempered,      ///< broken after a temper
    grainDisagrees,     ///< numbers: counted, rated
    grainRatedBadly,    ///< the two looks are more than one apart
    grainCost,          ///< numbers: hours by the recipe (0: not known), next round, most rounds
    // release gate
    gateMissing,     ///< numbers: gate, state; text: gate's name
    allAnswered,     ///< every gate that is asked is answered
    signedFor,       ///< text: disposition, by, reason
    signedOver,      ///< released though a gate is open; text: by, reason
    signatureStale,  ///< what it rested on has changed; text: by, gate's name, what it was, what it is
    suggested,       ///< text: disposition, why
    sampled,         ///< not read; numbers: chance of one more, of all, blades read, asked
    sampleTooWeak,   ///< likewise
    sampleNotCovers, ///< text: why: "soak", "thickness", "files"
    // excused
    excusedBecause, ///< text: reason, by
    outBecause      ///< text: reason
};

/// How a reason is meant: done and good, a note, something that keeps the verdict from Pass, a failure,
/// something open, something no one has looked at.
enum class Tone { good, note, caution, bad, open, unseen };

/// One reason of a verdict: a fact, the rule it comes from, its numbers and words in the order named at Fact.
struct Reason {
    Fact fact;
    Tone tone = Tone::note;
    std::string rule; ///< "M15", "E18", "quench", "temper", "record"
    std::vector<double> numbers;
    std::vector<std::string> texts;
};

/// What to do next with this blade.
enum class Act {
    nothing,
    takeReadings,
    readAgain,
    mapReadings,
    verifyTester,
    logTemper,
    temperAgain,
    falseSoftness,
    makerDecides,
    verifyOnHarderBlock,
    backToSteel,
    setWindow,
    readThicker,
    clearConflict,
    takeShot,
    reassign,
    markBlade,
    startHeat,
    breakCoupon,
    takeRung,
    noteEdge,
    measureDamage,
    lookAtHeat,
    fileEdge,
    runTrial,
    countGrain,
    sign,
    answerGates,
    hardenFiner,
    done,
    out
};

struct NextStep {
    Act act = Act::nothing;
    std::vector<double> numbers;
};

/// Hazards to show beside this work.
enum class Caution {
    glassHard,
    hotWork,
    overhang,
    quenchOil,
    clampedStack,
    torch,
    xrays,
    sharpEdge,
    rope,
    chop,
    bend,
    impact,
    nail
};

/// The computed verdict of one blade at one gate. A value; never typed in, never stored as truth.
struct Verdict {
    State state = State::notYet;
    Gate gate = Gate::temper;
    std::string blade;
    int taken = 0; ///< standing valid readings
    int planned = 0;
    std::optional<Measurement> measurement;
    std::vector<Reason> reasons; ///< the first one speaks first
    NextStep next;
    std::vector<Caution> cautions;
    std::vector<std::string> standing; ///< ids of the readings it rests on
    std::vector<std::string> left_out; ///< ids of unstruck readings that break a rule
    std::string verification;          ///< id of the run it rests on; empty when none
    std::string tables_edition;

    bool has(Fact fact) const {
        for (const Reason& reason : reasons) {
            if (reason.fact == fact) return true;
        }
        return false;
    }
};

} // namespace rollcall
