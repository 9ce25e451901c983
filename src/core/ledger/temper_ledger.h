// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/ledger/ledger_batch.h"

namespace rollcall {

/// Blades of one batch that went through the same tempers of one round, as one value: blades of a heat share its luck,
/// so that together they count once.
struct HeatMean {
    const LedgerBatch* batch = nullptr;
    int round = 1;
    int temper = 0;       ///< number of the last temper before the readings; 0: as quenched
    double parameter = 0; ///< M19; 0 as quenched
    double hrc = 0;       ///< mean of the blades
    double low = 0;       ///< softest blade
    double high = 0;      ///< hardest blade
    double u = 0;         ///< standard uncertainty of the mean of readings alone
    double last_c = 0;    ///< setting of the last temper, °C; 0 as quenched
    int blades = 0;
    double from_library = 0; ///< mean less what the library's curve says there; as quenched less its typical value
    std::string blade;       ///< id of its first blade
};

/// The heats of a grade after each temper that was read, the oldest first; heats whose tempers lie beyond the library's
/// curve are left out.
std::vector<HeatMean> heatsTempered(const Ledger& ledger, const Grade& grade);
/// The same as they came from the quench.
std::vector<HeatMean> heatsQuenched(const Ledger& ledger, const Grade& grade);

/// Hardness over temper of one grade: what this shop has read beside what the library says.
struct TemperLedger {
    std::string grade;
    double hours = 2; ///< of the one temper that all others are turned into
    std::vector<HeatMean> heats;
    int blades = 0;
    struct Step {
        double parameter = 0;
        double celsius = 0; ///< of one temper of those hours that gives this parameter
        double library = 0;
        double spread = 0; ///< honest spread of the library there
        double shop = 0;   ///< the shop's curve for a blade of a new heat
        double low = 0;    ///< 95 % of it
        double high = 0;
    };
    std::vector<Step> curve;
    double scatter = 1; ///< of the heats, times what is usual
    int left_out = 0;   ///< readings beyond the curve's ends
    /// Where one more heat of three blades would sharpen the curve most, and by how much: half-widths of the 95 %
    /// interval, in the middle over the stretch that matters, before and after. None where the shop has read nothing.
    struct Teaches {
        double celsius = 0;
        double before = 0;
        double after = 0;
    };
    std::optional<Teaches> teaches;
    double from_c = 0; ///< the stretch that matters: where the windows asked of this grade lie, else all of it
    double to_c = 0;
};

/// M20 over all batches. At most the newest 3,000 readings are learned from. Errors (range): the grade has no curve.
Result<TemperLedger> temperLedger(const Ledger& ledger, const Grade& grade, const OvenSteps& oven);

} // namespace rollcall
