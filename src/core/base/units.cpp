// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/units.h"

#include <algorithm>
#include <fmt/format.h>

namespace rollcall {

namespace {

constexpr double mmOfInch = 25.4;
constexpr double fahrenheitOfDegree = 1.8;
constexpr double fahrenheitOfIce = 32;

} // namespace

double differenceInUnits(double value, Quantity quantity, Units units) {
    if (units == Units::metric) return value;
    return quantity == Quantity::length        ? value / mmOfInch
           : quantity == Quantity::temperature ? value * fahrenheitOfDegree
                                               : value;
}

double inUnits(double value, Quantity quantity, Units units) {
    const double offset = units == Units::inch && quantity == Quantity::temperature ? fahrenheitOfIce : 0;
    return differenceInUnits(value, quantity, units) + offset;
}

double outOfUnits(double shown, Quantity quantity, Units units) {
    if (units == Units::metric) return shown;
    return quantity == Quantity::length        ? shown * mmOfInch
           : quantity == Quantity::temperature ? (shown - fahrenheitOfIce) / fahrenheitOfDegree
                                               : shown;
}

const char* symbolOf(Quantity quantity, Units units) {
    switch (quantity) {
    case Quantity::temperature:
        return units == Units::metric ? "°C" : "°F";
    case Quantity::length:
        return units == Units::metric ? "mm" : "in";
    case Quantity::force:
        return "N";
    case Quantity::duration:
        return "h";
    }
    return "";
}

std::string lengthText(double mm, int decimals, Units units) {
    constexpr int finest = 3;
    return fmt::format("{:.{}f}", inUnits(mm, Quantity::length, units),
                       units == Units::metric ? decimals : std::min(decimals + 2, finest));
}

Result<double> parseQuantity(std::string_view text, Quantity quantity, Units units) {
    const bool own = units == Units::inch && (quantity == Quantity::length || quantity == Quantity::temperature);
    if (own) {
        const std::string name = quantity == Quantity::length ? " in" : " F";
        // One that names its unit is understood as it stands; "3/16" has none.
        if (auto bare = parseQuantity(std::string(trimmed(text)) + name, quantity)) return bare;
    }
    return parseQuantity(text, quantity);
}

} // namespace rollcall
