// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/names.h"

#include <array>

namespace rollcall {

/// What a reason says; its sentence lives in words/.
enum class Fact {
    // readings and their validity
    readingsTaken, ///< numbers: taken, planned
    noMinimumSet,  ///< the quench gate has nothing to compare with
    noWindowSet,
    testerVerified,        ///< numbers: error, spread, block, error taken; text: tester
    testerNotVerified,     ///< text: tester
    testerFailed,          ///< the run on the block was not good; text: tester
    verificationOtherBand, ///< numbers: block, mean
    verificationAged,      ///< numbers: days since, standard uncertainty of the drift since; text: tester
    blockFarOff,           ///< numbers: block, mean: over 5 HRC apart
    blockRunOut,           ///< the block's certificate had ended on the day of the run; numbers: days; text: block
    blockEndsSoon,         ///< less than a year is left of the certificate; numbers: days; text: block
    readBeforeVerified,    ///< numbers: how many; text: tester: it was verified good since
    readingsHeld,          ///< the next run on the block failed, and is not repeated yet; text: tester
    testerStopped,         ///< the last runs on its block failed; numbers: how many; text: tester
    heldCleared,           ///< the next run failed, and its repeat was good; text: tester
    earlierState,          ///< not read since; numbers: how many; text: "cold", "ground"
    stateBefore,           ///< numbers: mean, how many; text: "cold", "ground": what has changed the metal since
    spacingGood,           ///< numbers: smallest distance, needed
    spacingBroken,         ///< numbers: distance, needed, index; text: "indent", "strike" or "edge"
    spacingNotLookedAt,    ///< positions are not known
    acceptedReading,       ///< text: why
    thicknessGood,         ///< numbers: thickness, needed
    tooThin,               ///< numbers: thickness, needed; text: lighter scales
    belowTenDepths,        ///< numbers: thickness, ten depths
    outsideScale,          ///< numbers: value; text: scale
    mixedScales,
    mixedTesters,    ///< as testersAgree; the sets are further apart than they explain
    testersAgree,    ///< numbers: mean, U of each tester, the judged one first; the consensus, its U; E_n of each;
                     ///< text: names, then of each "" or "not verified"
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
    mapped,       ///< numbers: readings; more of them would not tell more
    metalCleaned, ///< read again on metal that was ground clean
    // other evidence
    notLookedAt,         ///< text: files, expectation, second tester, steel, soak
    evidenceAgrees,      ///< text: which; numbers: low, high
    evidenceConflicts,   ///< text: which; numbers: low, high
    soakOffPlan,         ///< the Heat gate says by how much
    filesAgree,          ///< numbers: lower, upper; infinite where open
    filesConflict,       ///< numbers: lower, upper; infinite where open
    filesNoted,          ///< numbers: lower, upper; there is nothing to compare them with
    filesAgainstWindow,  ///< numbers: lower, upper; the bracket alone lies outside the window
    filesContradict,     ///< numbers: file that skated, file that bit
    filesRepeated,       ///< numbers: how often they were tried in this state
    filesNotOnBareMetal, ///< text: scale, decarburised
    filesNotTried,       ///< the gate is asked by files
    filesPass,           ///< numbers: lower, upper by the files, less and more 1.5
    filesSoft,           ///< likewise; outside the window
    filesHard,           ///< likewise
    filesAcross,         ///< numbers: lower, upper, the file that would settle it
    filesStay,           ///< likewise across a limit, and no file of the set would settle it
    coldTreated,         ///< numbers: temperature, hours
    coldLate,            ///< after a temper, where little is left to turn; numbers: temperature, tempers before it
    finishedKnife,       ///< no temper or hardening of ours can mend it
    filesHarder,         ///< the rod chipped the edge: the harder half; numbers: lower, upper
    filesSofter,         ///< the edge rolled on the rod: the softer half; numbers: lower, upper
    temperByColour,      ///< a temper without a temperature; numbers: low, high; text: colour
    filesCannot,         ///< numbers: narrowest window that this set can confirm, the highest minimum it can
    filesHardened,       ///< numbers: hardest that skated, least that the quench gives
    secondOpinion,       ///< numbers: mean of a superseded set, its readings; text: why
    zoneBeside,          ///< numbers: mean, U, readings, limits of its own window (infinite: none); text: zone
    instrumentAverage,   ///< numbers: the instrument's own, recomputed, recomputed without the flagged; text: support
    reboundThin,         ///< numbers: thickness, needed
    reboundNotAlone,     ///< rebound strikes alone never release a blade
    // against the window
    inWindow,      ///< numbers: mean, U, chance
    withAllowance, ///< numbers: mean, how far outside, allowance
    mayBeSoft,     ///< numbers: mean, U, chance
    mayBeHard,
    mayBeEither,
    meanBelow, ///< numbers: mean, limit: not only its interval
    soft,      ///< numbers: by how much
    hard,
    oneReadingOnly,
    windowTooNarrow, ///< numbers: width, 2U
    canPass, ///< numbers: means that pass from, to (infinite where open), readings, the same with five block readings
    moreReadingsSettle,    ///< numbers: how many more, chance that they do
    moreReadingsMay,       ///< numbers: how many more, chance that they settle it; under 8 in 10
    moreBlockReadingsHelp, ///< numbers: U now, U with five block readings
    lowConfidenceRow,      ///< text: what rests on it
    // quench gate
    aboveGradeMaximum,  ///< numbers: mean, maximum
    aboveGradeVerified, ///< likewise, by a tester verified near it
    heatExplains,       ///< text: soak, transfer, quenchant or medium; the Heat gate accounts for the softness
    onlyThisBladeLow,   ///< numbers: siblings' median
    allBladesLow,       ///< numbers: median shortfall
    allBladesVeryLow,
    keepsAustenite,     ///< numbers: soak, top of its range, °C; text: "hot" or "long"
    notHardened,        ///< numbers: readings, the hardest: all below the scale
    steelSettled,       ///< somebody has looked at its steel
    softAlloyTwoCauses, ///< soak too cool or too hot: opposite cures
    edgeLineLow,        ///< numbers: edge mean, elsewhere mean
    scatterOverThree,   ///< numbers: spread
    longSinceQuench,    ///< numbers: minutes
    // temper gate
    temperEmbrittles,          ///< numbers: temperature, from, to; logged inside what the grade is to avoid
    partEmbrittles,            ///< numbers: temperature, from, to; text: grade, place of the other steel
    tempersMissing,            ///< numbers: logged, needed
    oneTemperAdvised,          ///< numbers: logged, advised
    noReadingsAfterLastTemper, ///< numbers: last temper
    readingsNotTiedToTemper,   ///< numbers: how many
    roseAfterTemper,           ///< numbers: before, after, temper
    notYetDone,                ///< harder than the window: not a failure
    temperDoubted,             ///< numbers: as logged, °C if it was meant in °F, number of the temper
    softOnClean,               ///< numbers: mean, readings
    rehardenLeft,              ///< numbers: next round, most rounds
    useFits,                   ///< text: purpose whose window holds the mean
    noWayLeft,
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
    steelIncomplete,       ///< text: elements that make the grade and are not measured
    elementDoubtful,       ///< numbers: measured, low, high, z; text: element; XRF sees it badly
    certificateDiffers,    ///< numbers: shot, certificate; text: element
    alsoConsistent,        ///< text: grades that cannot be told apart
    looksMoreLike,         ///< text: grades; numbers: their shares
    severalFit, ///< text: two grades, unit; numbers: their shares, ranges that would part them; more than one may be it
    noGradeFits,
    methodCannotSee, ///< text: elements
    gradeReassigned, ///< text: sold as, taken for
    shotsDisagree,   ///< numbers: lowest, highest, per cent; text: element
    platedOrDirty,   ///< text: elements that belong to no such steel
    carbonUnseen,    ///< nothing that was measured knows its carbon
    maybeOutside,    ///< numbers: chance that the library does not hold it
    noneSure,        ///< text: grades; numbers: their shares: none is likely enough, and no test of a shop parts them
    notBladeSteel,   ///< text: grade: it does not harden to a blade
    steelFailed,     ///< text: grade that the composition does not match
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
    soakGood,    ///< numbers: minutes, least, most (0: none), equivalent minutes
    soakOver,    ///< numbers: minutes, most, equivalent minutes
    soakUnder,   ///< numbers: minutes, least
    soakApart,   ///< numbers: equivalent minutes, the batch's median
    soakByOven,  ///< the thickness is not known: the oven's time is judged
    soakByNote,  ///< nobody clocked the blade; numbers: minutes written down
    soakByClock, ///< numbers: minutes in the oven; there is no trace
    traceDamaged,
    probeFault,         ///< numbers: samples left out, degrees of the first, its minute
    steelsShare,        ///< numbers: window of the soak that all steels of the blade share; text: their grades
    steelsShareNothing, ///< text: their grades
    partQuench,         ///< text: medium, grade, place of a steel that it quenches too slowly
    partReading,        ///< numbers: mean, least and most as quenched; text: grade, place
    partOutside,        ///< numbers: set point, low, high of this steel; text: grade, place
    ovenOvershot,       ///< numbers: peak, set point
    ovenNeverChecked,
    transferGood,  ///< numbers: seconds, degrees on entering
    transferLate,  ///< numbers: seconds, degrees on entering, least that the grade may have there, lower critical point
    transferSlow,  ///< numbers: seconds, most that an air-hardening grade should take
    transferApart, ///< numbers: seconds noted, by the trace
    transferNotNoted,
    quenchantGood, ///< numbers: degrees
    quenchantOff,  ///< numbers: degrees, aimed at
    quenchantNotNoted,
    setOutside,       ///< numbers: set point, low, high; text: grade
    planOutside,      ///< numbers: least, most of the plan (0: none), of the grade
    mediumSlow,       ///< text: medium, grade
    mediumHarsh,      ///< text: medium, grade
    mediumUnknown,    ///< text: medium
    oilHot,           ///< numbers: temperature, how far below its flash point oil stays, flash point where it is known
    heatUnchecked,    ///< text: grade that the library does not know
    traceGap,         ///< numbers: minutes that the trace does not cover, the first of them on its clock
    noteAgainstTrace, ///< numbers: noted, by the trace; text: temperature or soak
    // expectation and the next temper
    surprise,           ///< numbers: by how much, low, high
    surpriseAlone,      ///< siblings came as expected
    surpriseShared,     ///< numbers: the siblings' median difference
    surpriseFar,        ///< numbers: by how many standard uncertainties
    surpriseLooked,     ///< text: what was found, by
    curveScatters,      ///< numbers: how many times as much as usual
    siblingsDoubted,    ///< text: marks whose readings hardly count
    readingNotBelieved, ///< numbers: how many, the most that the grade can give
    nextTemper,         ///< numbers: temperature, hours, expected, chance inside, chance too soft
    temperLoad, ///< numbers: temperature, what it would be alone, 1 where the batch is split; text: marks of those that
                ///< go in together
    nextTemperCautious, ///< numbers: as nextTemper
    temperThenRead,     ///< numbers: temperature, chance too soft; too little is known to aim at once
    hotterHelps, ///< numbers: chance inside now, and after the next temper: hard by little, and nothing else settles it
    smallerStep, ///< numbers: hottest that was read, the step, °C
    overHump,    ///< numbers: temperature at the top of the hump
    runsDoubted, ///< text: batches of runs that teach nothing until somebody has looked
    noTemperReaches,
    temperAvoided,     ///< numbers: from, to; the temperatures the grade is to avoid
    temperBlind,       ///< nothing can be predicted for another temper: its own evidence contradicts itself
    colourAgainstOven, ///< numbers: low, high, oven; text: colour
    // edge gate
    noRungTaken,
    edgeNotMeasured, ///< without its geometry nothing explains what it does
    hardnessAssumed, ///< numbers: HRC taken, since none is read
    earlierEdge, ///< numbers: thickness, degrees, rungs held, failed, 1 where what it held stands for the present edge;
                 ///< text: what explains its failure: none, geometry, heat, unknown
    askedRungHeld,    ///< numbers: N, degrees
    askedRungOpen,    ///< numbers: N, degrees
    ladderEnds,       ///< no lighter rung is left to try
    askedFlexOpen,    ///< the flex by hand is asked
    untempered,       ///< glass-hard: no piece is pressed, bent or tried
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
    notTheSteel,        ///< text: protocol, what failed that is not the steel
    trialOfEarlierEdge, ///< numbers: thickness, degrees; text: protocol, passed or failed
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
    struckMatters,   ///< numbers: mean with them, how many; text: gate: readings struck out would change its verdict
    signatureStale,  ///< what it rested on has changed; text: by, gate's name, what it was, what it is
    suggested,       ///< text: disposition, why
    sampled,         ///< not read; numbers: chance of one more, of all, blades read, asked
    sampleTooWeak,   ///< likewise
    sampleNotCovers, ///< text: why: "soak", "thickness", "files"
    // any gate
    crackSeen,  ///< text: crack or break; number: place along the blade, where it is known
    damageOpen, ///< numbers: size, mm (0: not noted); text: kind
    // excused
    excusedBecause, ///< text: reason, by
    outBecause      ///< text: reason
};
/// What stands for a set of readings that no run on a block speaks for, in the texts of testersAgree.
inline constexpr const char* setNotVerified = "not verified";

/// The facts by the names that lists and other programs know them by.
template<>
inline constexpr std::array namesOf<Fact>{"readings_taken",
                                          "no_minimum_set",
                                          "no_window_set",
                                          "tester_verified",
                                          "tester_not_verified",
                                          "tester_failed",
                                          "verification_other_band",
                                          "verification_aged",
                                          "block_far_off",
                                          "block_run_out",
                                          "block_ends_soon",
                                          "read_before_verified",
                                          "readings_held",
                                          "tester_stopped",
                                          "held_cleared",
                                          "earlier_state",
                                          "state_before",
                                          "spacing_good",
                                          "spacing_broken",
                                          "spacing_not_looked_at",
                                          "accepted_reading",
                                          "thickness_good",
                                          "too_thin",
                                          "below_ten_depths",
                                          "outside_scale",
                                          "mixed_scales",
                                          "mixed_testers",
                                          "testers_agree",
                                          "readings_suspect",
                                          "convex_corrected",
                                          "convex_refused",
                                          "converted",
                                          "readings_agree",
                                          "readings_disagree",
                                          "flagged_reading",
                                          "verdict_hangs_on_flagged",
                                          "uneven_blade",
                                          "two_groups",
                                          "grubbs",
                                          "mapped",
                                          "metal_cleaned",
                                          "not_looked_at",
                                          "evidence_agrees",
                                          "evidence_conflicts",
                                          "soak_off_plan",
                                          "files_agree",
                                          "files_conflict",
                                          "files_noted",
                                          "files_against_window",
                                          "files_contradict",
                                          "files_repeated",
                                          "files_not_on_bare_metal",
                                          "files_not_tried",
                                          "files_pass",
                                          "files_soft",
                                          "files_hard",
                                          "files_across",
                                          "files_stay",
                                          "cold_treated",
                                          "cold_late",
                                          "finished_knife",
                                          "files_harder",
                                          "files_softer",
                                          "temper_by_colour",
                                          "files_cannot",
                                          "files_hardened",
                                          "second_opinion",
                                          "zone_beside",
                                          "instrument_average",
                                          "rebound_thin",
                                          "rebound_not_alone",
                                          "in_window",
                                          "with_allowance",
                                          "may_be_soft",
                                          "may_be_hard",
                                          "may_be_either",
                                          "mean_below",
                                          "soft",
                                          "hard",
                                          "one_reading_only",
                                          "window_too_narrow",
                                          "can_pass",
                                          "more_readings_settle",
                                          "more_readings_may",
                                          "more_block_readings_help",
                                          "low_confidence_row",
                                          "above_grade_maximum",
                                          "above_grade_verified",
                                          "heat_explains",
                                          "only_this_blade_low",
                                          "all_blades_low",
                                          "all_blades_very_low",
                                          "keeps_austenite",
                                          "not_hardened",
                                          "steel_settled",
                                          "soft_alloy_two_causes",
                                          "edge_line_low",
                                          "scatter_over_three",
                                          "long_since_quench",
                                          "temper_embrittles",
                                          "part_embrittles",
                                          "tempers_missing",
                                          "one_temper_advised",
                                          "no_readings_after_last_temper",
                                          "readings_not_tied_to_temper",
                                          "rose_after_temper",
                                          "not_yet_done",
                                          "temper_doubted",
                                          "soft_on_clean",
                                          "reharden_left",
                                          "use_fits",
                                          "no_way_left",
                                          "tempering_cannot_raise",
                                          "rule_out_false_softness",
                                          "over_hardening_limit",
                                          "full_anneal_first",
                                          "normalise_first",
                                          "grade_unknown",
                                          "siblings_shifted_too",
                                          "no_shot_taken",
                                          "steel_consistent",
                                          "certificate_consistent",
                                          "steel_undecided",
                                          "steel_not_consistent",
                                          "steel_incomplete",
                                          "element_doubtful",
                                          "certificate_differs",
                                          "also_consistent",
                                          "looks_more_like",
                                          "several_fit",
                                          "no_grade_fits",
                                          "method_cannot_see",
                                          "grade_reassigned",
                                          "shots_disagree",
                                          "plated_or_dirty",
                                          "carbon_unseen",
                                          "maybe_outside",
                                          "none_sure",
                                          "not_blade_steel",
                                          "steel_failed",
                                          "shot_coated",
                                          "shot_scaled",
                                          "shot_small",
                                          "coupon_agrees",
                                          "coupon_contradicts",
                                          "spark_agrees",
                                          "spark_contradicts",
                                          "no_heat_logged",
                                          "not_in_yet",
                                          "not_out_yet",
                                          "soak_good",
                                          "soak_over",
                                          "soak_under",
                                          "soak_apart",
                                          "soak_by_oven",
                                          "soak_by_note",
                                          "soak_by_clock",
                                          "trace_damaged",
                                          "probe_fault",
                                          "steels_share",
                                          "steels_share_nothing",
                                          "part_quench",
                                          "part_reading",
                                          "part_outside",
                                          "oven_overshot",
                                          "oven_never_checked",
                                          "transfer_good",
                                          "transfer_late",
                                          "transfer_slow",
                                          "transfer_apart",
                                          "transfer_not_noted",
                                          "quenchant_good",
                                          "quenchant_off",
                                          "quenchant_not_noted",
                                          "set_outside",
                                          "plan_outside",
                                          "medium_slow",
                                          "medium_harsh",
                                          "medium_unknown",
                                          "oil_hot",
                                          "heat_unchecked",
                                          "trace_gap",
                                          "note_against_trace",
                                          "surprise",
                                          "surprise_alone",
                                          "surprise_shared",
                                          "surprise_far",
                                          "surprise_looked",
                                          "curve_scatters",
                                          "siblings_doubted",
                                          "reading_not_believed",
                                          "next_temper",
                                          "temper_load",
                                          "next_temper_cautious",
                                          "temper_then_read",
                                          "hotter_helps",
                                          "smaller_step",
                                          "over_hump",
                                          "runs_doubted",
                                          "no_temper_reaches",
                                          "temper_avoided",
                                          "temper_blind",
                                          "colour_against_oven",
                                          "no_rung_taken",
                                          "edge_not_measured",
                                          "hardness_assumed",
                                          "earlier_edge",
                                          "asked_rung_held",
                                          "asked_rung_open",
                                          "ladder_ends",
                                          "asked_flex_open",
                                          "untempered",
                                          "yields_anyway",
                                          "geometry_explains",
                                          "heat_treatment_asked",
                                          "grossly_hard",
                                          "grossly_soft",
                                          "damage_not_explained",
                                          "local_damage",
                                          "strong_edge",
                                          "as_good_as_it_gets",
                                          "weak_evidence",
                                          "flex_held",
                                          "flex_chipped",
                                          "flex_bent",
                                          "sound_heard",
                                          "burnt_in_grinding",
                                          "burn_cleared",
                                          "no_trial_yet",
                                          "trial_running",
                                          "trial_passed",
                                          "trial_failed",
                                          "trial_voided",
                                          "trial_given_up",
                                          "not_the_steel",
                                          "trial_of_earlier_edge",
                                          "photo_wanted",
                                          "piece_speaks_for",
                                          "piece_speaks_in_part",
                                          "piece_speaks_against",
                                          "piece_against_in_part",
                                          "piece_does_not_speak",
                                          "piece_differs",
                                          "piece_trait_not_known",
                                          "grain_fine",
                                          "grain_between",
                                          "grain_coarse",
                                          "grain_open",
                                          "grain_unseen",
                                          "grain_uneven",
                                          "grain_tempered",
                                          "grain_disagrees",
                                          "grain_rated_badly",
                                          "grain_cost",
                                          "gate_missing",
                                          "all_answered",
                                          "signed_for",
                                          "signed_over",
                                          "struck_matters",
                                          "signature_stale",
                                          "suggested",
                                          "sampled",
                                          "sample_too_weak",
                                          "sample_not_covers",
                                          "crack_seen",
                                          "damage_open",
                                          "excused_because",
                                          "out_because"};
static_assert(namesOf<Fact>.size() == static_cast<std::size_t>(Fact::outBecause) + 1);

} // namespace rollcall
