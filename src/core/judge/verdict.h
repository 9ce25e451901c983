// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/names.h"
#include "core/heat/next_temper.h"
#include "core/judge/fact.h"
#include "core/judge/record.h"
#include "core/steel/tell_apart.h"

#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

namespace rollcall {

enum class State { pass, borderline, fail, notYet, excused };
template<>
inline constexpr std::array namesOf<State>{"pass", "borderline", "fail", "not yet", "excused"};

/// How a reason is meant: done and good, a note, something that keeps the verdict from Pass, a failure,
/// something open, something no one has looked at.
enum class Tone { good, note, caution, bad, open, unseen };

/// One reason of a verdict: a fact, the rule it comes from, its numbers and words in the order named at Fact.
struct Reason {
    Fact fact;
    Tone tone = Tone::note;
    std::string_view rule; ///< "M15", "E18", "quench", "temper", "record"; it stands in the program, for good
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
    acceptOrReturn,
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
    clearCrack,
    backUpRebound,
    tellApart,
    lookIntoSurprise,
    chooseSet,
    tryFiles,
    reharden,
    coldTreat,
    repairDamage,
    addGrade,
    returnBar,
    otherUse,
    scrap,
    done,
    out
};
/// The acts by the names that the tables of the gates know them by.
template<>
inline constexpr std::array namesOf<Act>{"nothing",
                                         "take readings",
                                         "read again",
                                         "map readings",
                                         "verify the tester",
                                         "log a temper",
                                         "temper again",
                                         "rule out false softness",
                                         "the maker decides",
                                         "accept, other use, return or ask the seller",
                                         "verify on a harder block",
                                         "back to the steel",
                                         "set the window",
                                         "read thicker metal",
                                         "clear the conflict",
                                         "take a shot",
                                         "re-assign the grade",
                                         "mark the blade",
                                         "start a heat",
                                         "break a coupon",
                                         "take a rung",
                                         "note the edge",
                                         "measure the damage",
                                         "look at the heat treatment",
                                         "file the edge",
                                         "run a trial",
                                         "count the grain",
                                         "sign",
                                         "answer the open gates",
                                         "harden for finer grain",
                                         "clear the crack, or out",
                                         "back up the rebound strikes",
                                         "tell the grades apart",
                                         "look into the surprise",
                                         "choose which set stands",
                                         "try a file",
                                         "re-harden",
                                         "treat cold",
                                         "repair, then look again",
                                         "add the grade",
                                         "return the bar",
                                         "put to another use",
                                         "scrap",
                                         "done",
                                         "out"};

/// How many readings more.
struct ReadStep {
    int readings = 1;
};

/// Which temper, and where it is known what it would do, how.
struct TemperStep {
    int done = 0;   ///< tempers logged
    int needed = 0; ///< before a Pass; 0 where it is one more than needed
    std::optional<NextTemper> advised;
    std::vector<std::string> load; ///< marks of the blades that go in together; empty: this one alone
};

/// Which grade a batch is to be taken for, and what all evidence says of it.
struct GradeStep {
    std::string grade;
    double share = 0; ///< posterior, 0 to 1, with its twins that no test of a shop parts from it
};

/// Two grades that all evidence allows, and the test that parts them best.
struct TellApartStep {
    std::string a;
    std::string b;
    TellApart how;
};

/// Which file settles a gate that is asked by files.
struct FileStep {
    double file_hrc = 0;
};

/// How long the coupon that is to be broken has soaked.
struct CouponStep {
    double minutes = 0;
};

/// E55. How a grade is made ready to be hardened again.
struct AnnealStep {
    std::string grade;
    bool normalise = false; ///< else it is annealed
    Range anneal_c = {};    ///< of its full anneal; unknown: it is sent to be annealed
};

/// E64. What a next step may cost or hurt; it goes with the step wherever it is shown.
enum class StepCaution { glassHard, brittleRange, overHump, quenchOil, coldBurns, crackFirst };
template<>
inline constexpr std::array namesOf<StepCaution>{"glass hard", "brittle range", "over the hump",
                                                 "quench oil", "cold burns",    "look for cracks"};

/// Which use a blade is put to instead.
struct UseStep {
    std::string purpose;
};

/// What to do next, with what it needs.
struct NextStep {
    using With = std::variant<std::monostate, ReadStep, TemperStep, EdgeLoadStep, CouponStep, GradeStep, TellApartStep,
                              FileStep, UseStep, AnnealStep>;

    Act act = Act::nothing;
    With with = {};
    std::vector<StepCaution> cautions = {};

    /// What it needs, where that is of this kind; null otherwise.
    template<class Step>
    const Step* as() const {
        return std::get_if<Step>(&with);
    }
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
    nail,
    dust
};

struct DecisionRow;

/// The computed verdict of one blade at one gate. A value; never typed in, never stored as truth.
struct Verdict {
    State state = State::notYet;
    Gate gate = Gate::temper;
    bool asked = true; ///< the batch's plan asks for this gate
    std::string blade;
    int taken = 0; ///< standing valid readings
    int planned = 0;
    std::optional<Measurement> measurement;
    std::vector<Reason> reasons;      ///< the first one speaks first
    const DecisionRow* row = nullptr; ///< of the gate's decision table; null when it is excused or out
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
