// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/names.h"
#include "core/base/number.h"

namespace rollcall {

/// What a shop reads lengths and temperatures in. The record keeps mm and °C whatever is shown.
enum class Units {
    metric, ///< mm, °C
    inch    ///< in, °F
};
template<>
inline constexpr std::array namesOf<Units>{"metric", "inch"};

/// A length in mm or a temperature in °C as it is shown; other quantities are shown as they are kept.
double inUnits(double value, Quantity quantity, Units units);
/// The way back.
double outOfUnits(double shown, Quantity quantity, Units units);
/// A difference of temperatures in °C, or a length in mm, as it is shown.
double differenceInUnits(double value, Quantity quantity, Units units);
/// "mm", "in", "°C", "°F", "N", "h".
const char* symbolOf(Quantity quantity, Units units);

/// A length without its unit, such as "3.2" with so many decimals of a millimetre, or "0.126" with two more of an inch,
/// three at most: a thousandth is what is measured.
std::string lengthText(double mm, int decimals, Units units);

/// As parseQuantity(); a bare number is in what the shop reads.
Result<double> parseQuantity(std::string_view text, Quantity quantity, Units units);

} // namespace rollcall
