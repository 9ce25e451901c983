// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <vector>

namespace rollcall {

/// Blades that were tempered together, as one witness of the grade's curve (E42).
struct TemperRun {
    std::string heat;     ///< hardening heat its blades came from
    int day = 0;          ///< local day of the temper; 0 where it is not known
    double parameter = 0; ///< M19
    double residual = 0;  ///< HRC, the middle of its blades less what the library expects of them
    double u = 0;         ///< standard uncertainty of that middle, HRC
    double spread = 0;    ///< the library's own standard deviation there, HRC
    bool stands = false;  ///< somebody has looked and said that it is so
    bool doubted = false; ///< a number of it would make sense in another unit (E44)
};

/// How runs scatter about the curve.
struct RunScatter {
    double heat_sd = 0.8;     ///< HRC, from heat to heat
    double slope_sd = 1.5e-3; ///< HRC for each unit of P
};

/// E42. Which runs may teach, in their order. A run further than three standard uncertainties from what the other runs
/// lead to expect, or the library where it is alone, teaches nothing until somebody has said that it stands, nor does
/// one whose row is doubted. Runs that the library does not expect are believed where those of two hardening heats on
/// different days agree with each other, and no more heats speak for the library.
std::vector<bool> believedRuns(const std::vector<TemperRun>& runs, const RunScatter& scatter);

} // namespace rollcall
