// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/names.h"
#include "core/measure/outliers.h"
#include "core/measure/uncertainty.h"

#include <optional>
#include <vector>

namespace rollcall {

/// Target hardness: both limits for a window, the lower alone for a minimum. Limits belong to the window.
struct Window {
    std::optional<double> low;
    std::optional<double> high;
    friend bool operator==(const Window&, const Window&) = default;
};

/// M15. How a shop decides at the limits.
enum class DecisionRule {
    guarded,   ///< Pass only when the whole interval c - U .. c + U is inside, Fail only when it is outside
    plain,     ///< the corrected mean at one decimal decides
    allowance, ///< as plain, but a little outside is Borderline
    chance     ///< E59, JCGM 106: Pass when the chance to be inside is 90 % or more, Fail below 5 %
};
template<>
inline constexpr std::array namesOf<DecisionRule>{"guarded", "plain", "allowance", "chance"};

inline constexpr double chanceThatPasses = 0.90; ///< E59
inline constexpr double chanceThatFails = 0.05;

/// E59. What the other blades of a batch say of one before it is read: they were hardened and tempered with it and
/// share the tester's error with it.
struct MeanPrior {
    double mean = 0; ///< HRC, corrected for the same error
    double u = 0;    ///< standard uncertainty of the blade's true mean about it, HRC; > 0
};

/// What the readings alone say; gates map it to their own verdicts.
enum class Outcome { pass, borderline, fail };
/// Where the mean lies; soft and hard are sides of the window.
enum class Side { soft, inside, hard };

struct MeasurementInput {
    std::vector<double> readings; ///< all unstruck, in the order they were taken
    TesterModel tester;
    std::optional<BlockBias> bias; ///< none: the tester was not verified
    Window window;
    DecisionRule rule = DecisionRule::guarded;
    double allowance = 0;     ///< for the allowance rule, >= 0
    bool uncorrected = false; ///< decide on the mean as read, U enlarged by the error's size
    /// Standard uncertainty of converting to the window's scale; 0 when the readings are in it. Converted
    /// readings come with a tester model and a bias that are converted too, see TesterModel::perPoint.
    double conversion_u = 0;
    /// E1: standard uncertainty of the error that no run tells, HRC; 0 with a bias.
    double unknown_error_u = 0;
    double block_distance_u = 0;                   ///< E2: of a block's error away from the block, HRC
    double aged_u = 0;                             ///< E35: of the tester's drift since a run of an earlier day, HRC
    double convex_u = 0;                           ///< M5: of the correction for a convex surface, HRC; 0 on a flat one
    std::optional<MeanPrior> prior = std::nullopt; ///< E59: counts towards the chance, where the rule decides by it
    int enough = 2;                                ///< E65: fewest readings that pass; 1 only where a shop chose so
};

/// M9, M10, M15, M16 and M17 of one blade.
struct Measurement {
    int n = 0;
    double mean = 0;           ///< as read
    double corrected_mean = 0; ///< mean minus the tester's error
    std::optional<double> sd;
    Budget budget;
    double decided_mean = 0;        ///< what the rule compared: corrected mean, or the mean as read when uncorrected
    double decided_uncertainty = 0; ///< U as the rule used it
    double probability_inside = 0;  ///< M16, 0 to 1
    Outcome outcome = Outcome::borderline;
    Side side = Side::inside;
    Agreement agreement;
    bool changed_by_flagged = false; ///< without the flagged readings the outcome would differ
    /// M17, E40: fewest additional readings that decide it in at least 8 of 10 cases; 0 when decided, none when no
    /// number up to 10 in all does.
    std::optional<int> more_readings;
    std::optional<int> may_settle; ///< where none does: fewest that decide it as likely as not
};

/// M15. The rule alone, for a mean c of expanded uncertainty u from n readings, of which so many are enough to pass; by
/// chance u is taken as twice the standard uncertainty.
Outcome decide(const Window& window, DecisionRule rule, double allowance, double c, double u, int n, int enough = 2);

/// E65. Fewest readings that pass by a rule: two, but one where a shop that judges by the mean alone plans no more.
int enoughReadings(DecisionRule rule, int planned);

/// M15, M16: the side of the window on which c lies, and the chance that the true mean is inside.
Side sideOf(const Window& window, double c);
double chanceInside(const Window& window, double c, double standard_uncertainty, double dof);

/// Judges the readings of one blade. Errors (range): no readings, a reading not finite, a window without
/// limits or with swapped limits, a negative allowance, a tester model outside its valid range.
Result<Measurement> measure(const MeasurementInput& input);

/// M17, E40. Chance that this many further readings let the guarded rule decide: the mean to come is foretold from the
/// readings so far by Student's t. 0 to 1; further >= 1, at least one reading so far.
double chanceSettledBy(const MeasurementInput& input, int further);

/// Expanded uncertainty to be expected after n readings that scatter as the tester usually does. Says before
/// reading whether a window narrower than twice this can be passed at all.
double expectedUncertainty(const TesterModel& tester, int n, const std::optional<BlockBias>& bias);

/// E36. How far inside a limit a mean must lie to pass by a rule, in standard uncertainties: 2 guarded, 1.28 by chance.
double guardOf(DecisionRule rule);

/// E36. Means that a window passes, guarded or by chance, with this tester and so many readings on the blade and on the
/// block; an open end stays open, and where low lies above high none passes.
Window meansThatPass(const TesterModel& tester, const Window& window, int readings, int on_block,
                     DecisionRule rule = DecisionRule::guarded);

} // namespace rollcall
