// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/instant.h"
#include "core/base/protocol.h"
#include "core/proof/bend.h"
#include "core/proof/cutting.h"

#include <array>
#include <optional>
#include <string>
#include <vector>

namespace rollcall {

/// What was done in a trial. Every key is an entry of its own, so that leaving in the middle loses nothing.
enum class TrialAct {
    count,        ///< so many strokes more; 0: one
    answer,       ///< the step is done: the number, the angle, "through", "yes"
    fail,         ///< the step failed; text says how; of cuts, value is how many more found it dull
    cuts,         ///< value cuts more since the last look, and the edge still does what is asked
    hesitates,    ///< likewise, but it hesitates
    plan,         ///< of the bend: value thickness, second free length in mm, third lever in mm (0: none)
    bend,         ///< on the way: value degrees, second N at the lever
    set,          ///< value degrees that stayed after letting go
    touchUp,      ///< the edge met a stone
    timer,        ///< the step's timer begins
    acknowledged, ///< the caution named by text was read
    photo,        ///< text: its name
    note,         ///< text
    giveUp,       ///< ended by the maker; text says why
    takeBack      ///< the last of the above that counts is taken back
};
template<>
inline constexpr std::array namesOf<TrialAct>{"count",   "answer", "fail", "cuts",     "hesitates",
                                              "plan",    "bend",   "set",  "touch-up", "timer",
                                              "caution", "photo",  "note", "give-up",  "take-back"};

/// E32. What a step can fail by, in the words it is stored in. The first eight are the steel's: blade, edge, tip and
/// tang; the last three are not, and the step is done again.
inline constexpr std::array failures{
    "chipped",    "rolled or bent", "cracked",      "broke",           "dull", "not done", "tip chipped or bent",
    "tang broke", "handle failed",  "jaws slipped", "operator slipped"};
inline constexpr std::size_t steelFailures = 8;
/// Whether a failure so described is the steel's; any word that is not known is.
bool failsSteel(const std::string& how);

struct TrialEvent {
    TrialAct act = TrialAct::count;
    double value = 0;
    double second = 0;
    double third = 0;
    std::string text;
    Instant at;
};

/// A trial of one blade by one protocol, as it was when it began.
struct Trial {
    std::string id;
    int round = 1;
    int after_temper = 0; ///< number of the last temper before it
    Protocol protocol;
    std::vector<TrialEvent> events;
    Instant begun;
};

enum class StepState { waiting, passed, failed };

/// Where a step stands.
struct StepProgress {
    StepState state = StepState::waiting;
    double count = 0;            ///< strokes, or cuts
    std::optional<double> value; ///< the number or angle it was answered with
    std::string how;             ///< of a failure
    std::vector<CutLook> looks;
    std::optional<double> thickness_mm; ///< of the planned bend
    std::optional<double> free_mm;
    std::optional<double> lever_mm;
    std::vector<BendPoint> bends;
    std::optional<double> set_deg;
    std::optional<Instant> timer; ///< when it began
    int photos = 0;
};

enum class TrialOutcome { running, passed, failed, voided, givenUp };

/// A trial worked out from its entries.
struct TrialProgress {
    TrialOutcome outcome = TrialOutcome::running;
    std::size_t current = 0; ///< step in hand; the number of steps when there is none left
    std::vector<StepProgress> steps;
    std::vector<std::string> acknowledged; ///< hazards read
    std::vector<std::string> notes;
    std::vector<std::string> not_steel; ///< what failed that was not the steel
    bool destroyed = false;             ///< a step that destroys was begun in earnest
    bool begun = false;                 ///< something was done beyond reading cautions
    int done = 0;                       ///< steps passed or failed

    /// The hazard to be read before going on; empty when there is none.
    std::string caution(const Protocol& protocol) const;
    /// Whether the edge must not be touched up now.
    bool touchUpForbidden(const Protocol& protocol) const;
};

/// Works a trial out. A count passes when it reaches its least; one that goes over its most, a number outside its
/// limits and a bend that ends short fail their step; a failed step ends the trial unless its protocol lets it go on;
/// what fails that is not the steel leaves its step to be done again (E32); touching up the edge between the first and
/// the last step that forbid it voids the trial. What comes after the end is passed over, photos and notes apart.
TrialProgress progressOf(const Trial& trial);

} // namespace rollcall
