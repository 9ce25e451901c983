// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/base/tables.h"

#include <string>

namespace rollcall {

/// M1. Rockwell number from depth: HR = N - h/S, h the permanent increase of depth in mm between the two
/// readings under the minor load. Unrounded. Errors (range): h not finite or negative, a result outside the
/// scale's valid range. A scale without a laid-down range gives the value; see hasRange().
Result<double> rockwellNumber(const RockwellScale& scale, double depth_mm);

/// The permanent depth in mm that belongs to a Rockwell number: h = (N - HR) * S.
double permanentDepth(const RockwellScale& scale, double value);

/// Whether a reading lies in the scale's valid range, ends included; true where no range is laid down.
bool inRange(const RockwellScale& scale, double value);

/// Whether the standard lays down a range for this scale at all.
inline bool hasRange(const RockwellScale& scale) {
    return scale.low.has_value();
}

/// M8. A hardness converted by linear interpolation between the lines of the table for non-austenitic steels.
struct Converted {
    double value = 0;
    Confidence confidence = Confidence::high;
};

/// Converts between two columns of the conversion table: HRC, HV, HBW, HK500, HRA, HRD, HR15N, HR30N, HR45N.
/// Both columns are read from the same line, so nothing is chained through a third scale.
/// Errors: argument for an unknown scale, range outside the table's lines.
Result<Converted> convertHardness(const Tables& tables, const std::string& from, double value, const std::string& to);

/// Points of a scale per HRC near this HRC, from the lines two HRC to either side (one-sided at the table's
/// ends). Used to carry an uncertainty over to HRC. Per HRC at 60: HRA 0.55, HR45N 1.125.
Result<double> pointsPerHrc(const Tables& tables, const std::string& scale, double hrc);

/// Standard uncertainty of a conversion to HRC: 0.5 HRC, 0.8 for steels of more than 5 % alloy. An estimate.
double conversionUncertainty(double alloy_percent);

} // namespace rollcall
