// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/heat/temper.h"
#include "core/judge/measurement.h"

#include <optional>
#include <string>
#include <vector>

namespace rollcall {

/// Which side of the hump of secondary hardening a recipe tempers on.
enum class TemperBranch { low, high };

/// What the next temper is to reach, and by which means.
struct TemperAim {
    Window window; ///< of the blade's mean, HRC
    double hours = 2;
    OvenSteps oven = {};
    std::optional<TemperBranch> branch = std::nullopt; ///< none: by what was done before, else by the grade
    double softness_risk = 0.10;                       ///< highest chance of ending below the window
    bool despite_embrittlement = false;                ///< the maker has a reason to temper inside the window to avoid
    bool due = false; ///< a temper is missing, whatever it makes of the hardness: the last one again at least (E21)
};

/// One blade as far as the next temper concerns it.
struct TemperCandidate {
    std::string heat;
    std::string blade;
    std::vector<TemperHeat> tempers;                       ///< of its present round
    std::optional<HardeningState> hardened = std::nullopt; ///< none: as the model's batch
};

/// Why there is no next temper, or what to mind with it.
enum class TemperWarning {
    insideEmbrittlement, ///< inside the temperatures the grade is to avoid
    embrittlementUnknown,
    lowConfidence,    ///< the curve's rows are of low confidence
    alreadySoft,      ///< below the window by expectation: no temper raises it
    curveEnds,        ///< the search ended where the curve does
    staysHard,        ///< even the hottest temper of this branch leaves it above the window
    onlyStepsTooSoft, ///< the next step of the oven would be too soft; the coolest one is offered
    readAfter,        ///< too little is known to aim at once: the coolest useful temper, then read (E21)
    smallerStep,      ///< hotter would do, but lies over 40 °C beyond what the shop has read (E43)
    overHump          ///< from below the hump of secondary hardening to its top (E53)
};

/// M21. A next temper for one blade.
struct NextTemper {
    double temperature_c = 0;
    double hours = 0;
    TemperExpectation expect;
    double chance_inside = 0;
    double chance_soft = 0;
};

struct TemperAdvice {
    std::optional<NextTemper> best; ///< none when no temper can reach the window
    std::optional<NextTemper>
        cautious; ///< with a quarter of the risk of ending too soft; none when there is none cooler
    std::vector<TemperWarning> warnings;
    TemperBranch branch = TemperBranch::low;
};

/// What a temper at this temperature and time would do to a blade. Errors (range): as temperParameter and expect.
Result<NextTemper> predictTemper(const TemperModel& model, const TemperCandidate& blade, const TemperHeat& next,
                                 const Window& window);

/// M21. The highest temperature, in steps of the oven, of which the chance of a mean below the window is at most the
/// risk and the expected hardness not below the window's middle (for a minimum: not below it), not below the hottest
/// temper before, on one branch, outside the temperatures the grade is to avoid. A blade fresh from the quench always
/// gets an answer (E21): where none of these is at least 150 degrees, the coolest useful temper, the oven's nearest to
/// 175 where it is not expected below the window's middle, else 150; on the branch of secondary hardening its coolest.
/// E43: never over 40 °C beyond the hottest temper that the shop has read with this grade, but across the hump, where
/// the coolest that reaches its top is named. A blade still above its window that no temper keeps under the risk gets
/// the mildest left that is expected in the window's upper half. Errors (range): a window without a lower limit, hours
/// or step not positive.
Result<TemperAdvice> adviseTemper(const TemperModel& model, const Grade& grade, const TemperCandidate& blade,
                                  const TemperAim& aim);

/// E22. Blades that go into the oven together: places in the list that was asked, and their one temper.
struct TemperLoad {
    double temperature_c = 0;
    double hours = 0;
    std::vector<std::size_t> blades;
    double expected_inside = 0; ///< blades of it expected inside the window
};

/// E22. The loads for blades of which each has its own advice (none: it is left out): one temperature that keeps every
/// blade's chance of too soft under the risk of its advice; or two, where one would leave a blade's chance of ending
/// inside at less than a half that its own temperature would give it, and two do not. Coolest load first.
std::vector<TemperLoad> temperLoads(const TemperModel& model, const std::vector<TemperCandidate>& blades,
                                    const std::vector<std::optional<TemperAdvice>>& advice, const Window& window);

/// Whether a temper at this temperature is one the grade is to avoid; none where that is not known.
std::optional<bool> embrittles(const Grade& grade, double temperature_c);

} // namespace rollcall
