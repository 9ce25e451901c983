// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"

#include <string>
#include <vector>

namespace rollcall {

/// M6. What a run on a block says of the tester, against the allowed error and repeatability of E18.
struct VerificationAnswer {
    double mean = 0;
    double error = 0;             ///< mean minus the certified value
    double repeatability = 0;     ///< largest minus smallest
    double max_error = 0;         ///< allowed, either side
    double max_repeatability = 0; ///< allowed
    int table_line = 0;           ///< line of e18_machine_tolerance.csv
    Confidence confidence = Confidence::high;
    bool ok = false;
};

/// The tolerance band that a hardness falls into; error argument for a scale without rows.
Result<ToleranceBand> toleranceFor(const Tables& tables, const std::string& scale, double value);

/// M6. Judges the readings of one run on a block of certified value.
/// Errors: fewer than two readings, readings or value not finite or outside the scale's range, unknown scale.
Result<VerificationAnswer> verifyTester(const Tables& tables, const std::string& scale, double certified,
                                        const std::vector<double>& readings);

/// Chance that a run of n readings (2 or more) refuses a tester without any error whose single readings scatter by this
/// standard deviation (HRC, above 0): mean and range of normal readings are independent. Exact but for the display's
/// steps; checked by `rollcall_numbers verification`.
double chancePerfectRefused(double scatter, int n, const VerificationAnswer& allowed);

/// M6. Whether a good run also holds for readings whose hardness falls into this band: it is the block's own band,
/// or the run satisfies the limits of this one too.
bool verificationCovers(const VerificationAnswer& run, const ToleranceBand& band);

} // namespace rollcall
