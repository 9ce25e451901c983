// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <string>
#include <string_view>
#include <vector>

namespace rollcall {

/// Limits are inclusive within this much, in the unit of the limit.
inline constexpr double limitTolerance = 1e-9;

inline bool atLeast(double x, double limit) {
    return x >= limit - limitTolerance;
}
inline bool atMost(double x, double limit) {
    return x <= limit + limitTolerance;
}

/// Rounds to a tenth, half to even on the decimal value: the value is first rounded to 9 places, so that
/// 61.45 (which no double holds exactly) gives 61.4 and 61.55 gives 61.6.
double roundToTenth(double x);

/// Rounds an uncertainty up to the next tenth: 0.41 gives 0.5, 0.40 gives 0.4. Never understates.
double roundUpToTenth(double x);

/// Text of a hardness at one decimal by roundToTenth, always with a decimal point: "62.0".
std::string tenthText(double x);

/// Text of an uncertainty at one decimal by roundUpToTenth: "0.5".
std::string uncertaintyText(double u);

/// A number from text: optional sign, decimal point or decimal comma, exponent (1e-05), blanks around it.
/// Independent of locale. Errors: empty text, anything left over, not finite.
Result<double> parseNumber(std::string_view text);

/// The number of decimals written in a number's text: "62" 0, "62,5" 1, "62.10" 2.
int decimalsOf(std::string_view text);

/// What a typed quantity measures; decides which units are understood and which is meant when none is typed.
enum class Quantity {
    temperature, ///< stored in degrees Celsius; C, F understood
    length,      ///< stored in mm; mm, cm, m, in, ", thou understood
    force,       ///< stored in N; N, kgf, lbf understood
    duration     ///< stored in hours; h, min, s understood
};

/// A quantity with its unit as typed ("212F", "0.030in", "59,5"); a bare number is in the stored unit.
/// Errors: no number, a unit that does not measure this quantity, below absolute zero, negative durations.
Result<double> parseQuantity(std::string_view text, Quantity quantity);

/// Numbers separated by commas, blanks or semicolons; with semicolons or blanks a comma may be decimal.
Result<std::vector<double>> parseNumbers(std::string_view text);

/// Without blanks and tabs at both ends.
std::string_view trimmed(std::string_view text);

/// The parts of a text between separators, blanks trimmed; an empty text has no parts.
std::vector<std::string> split(std::string_view text, char separator);

/// Whether two names are equal but for blanks at the ends and the case of ASCII letters.
bool sameName(std::string_view a, std::string_view b);

/// ASCII letters made small.
std::string lowered(std::string_view text);

} // namespace rollcall
