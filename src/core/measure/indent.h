// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"
#include "core/measure/rockwell.h"

#include <string>
#include <vector>

namespace rollcall {

/// M2. Diameter in mm of the indent that a reading leaves, an estimate: for the diamond cone from the mean
/// contact pressure HV/0.927 and the total force (HRC 60 -> 0.504 mm; over HRC 68 the diameter at 68), for a
/// ball from its diameter and the permanent depth. Errors: outside the conversion table below HRC 20, or
/// outside the scale's range.
Result<double> indentDiameter(const Tables& tables, const std::string& scale, double value);

/// M3. Smallest distance between the centres of two indents, of the larger diameter (E18): 3 d.
inline double minSpacing(double diameter_mm) {
    return 3.0 * diameter_mm;
}

/// M3. Smallest distance of an indent's centre from an edge or hole (E18): 2.5 d. By the shop rule also from
/// the line that will become the edge.
inline double minEdgeDistance(double diameter_mm) {
    return 2.5 * diameter_mm;
}

/// M4. What the thickness table says of one reading.
struct ThicknessAnswer {
    double min_thickness_mm = 0; ///< smallest permitted thickness by the table
    int table_line = 0;          ///< line of e18_min_thickness.csv that says so
    double ten_depths_mm = 0;    ///< the general rule, ten times the permanent depth; a caution only
    Confidence confidence = Confidence::high;
};

/// M4. Smallest thickness for a hardness by the table, read in steps: the thinnest row whose lowest permitted
/// hardness is not above the value; over the table's hardest row that row. HRC 60 -> 0.762 mm.
/// Errors: range when the hardness is below the table's softest row, argument for a scale without rows.
Result<ThicknessAnswer> minThickness(const Tables& tables, const std::string& scale, double value);

/// Whether a thickness satisfies the table, with the 0.005 mm that rounding to inches may cost.
bool thickEnough(const ThicknessAnswer& answer, double thickness_mm);

/// M4. Lighter scales on which a piece too thin for this reading may be read, in the order HR45N, HR30N, HRA,
/// HR15N; empty when none will do.
std::vector<std::string> lighterScales(const Tables& tables, const std::string& scale, double value,
                                       double thickness_mm);

} // namespace rollcall
