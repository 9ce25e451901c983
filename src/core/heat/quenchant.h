// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/grade.h"

#include <optional>
#include <string>

namespace rollcall {

/// E46. A medium against what a grade asks for.
enum class MediumFit {
    fits,
    slow,   ///< takes the heat too slowly: air or plates where a liquid is asked, medium oil for fast oil or water
    harsh,  ///< takes it too fast: water or brine where oil, salt or air is asked, oil for what only air is asked
    unknown ///< its words say nothing that is known
};
/// thickness in mm, 0 where not known: up to 2.5 mm plates quench what oil is asked for in grades that also take air,
/// and medium oil what fast oil is asked for up to 2 mm.
MediumFit fitOf(const std::string& medium, const Grade& grade, double thickness_mm);

/// Whether a medium is an oil, by its words.
bool isOil(const std::string& medium);

/// At what an oil flashes, degrees Celsius, where its words say so: 'fast oil, flash 180' or 'flash point 356 F'; none
/// where they do not, or say what no oil does (under 60 or over 400).
std::optional<double> flashPointOf(const std::string& medium);

/// Whether a medium, in the maker's own words, takes the heat from a grade plainly too slowly: still or moving air or
/// plates for one that needs a liquid, medium oil for one that needs fast oil or water. Whatever it does not know is
/// not said to be slow.
bool quenchesTooSlowly(const std::string& medium, const Grade& grade);

} // namespace rollcall
