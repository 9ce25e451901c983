// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/units.h"

#include <optional>
#include <QString>

/// Lengths and temperatures as this shop reads them. Told once, when a logbook is opened or the shop changes its mind;
/// everything is kept in mm and °C.
namespace rollcall::words {

Units units();
void setUnits(Units units);

/// "3.2 mm" with so many decimals, or "0.126 in" with two more, three at most.
QString length(double mm, int decimals = 1);
/// The same without its unit.
QString lengthNumber(double mm, int decimals = 1);
/// "207 °C" or "405 °F", whole.
QString degrees(double celsius);
/// The same without its unit.
QString degreesNumber(double celsius);
/// "10 °C" or "18 °F": how far two temperatures are apart.
QString degreesApart(double celsius);
/// "mm" or "in"; "°C" or "°F".
QString unit(Quantity quantity);

/// What a field for it is filled in with: a bare number in what the shop reads, blank for none.
QString field(const std::optional<double>& value, Quantity quantity);
/// What was typed, in mm or °C; a bare number is in what the shop reads. Errors as parseQuantity().
Result<double> typed(const QString& text, Quantity quantity);
/// The same of a difference of temperatures: an oven's steps, a tolerance.
QString fieldApart(double celsius);
Result<double> typedApart(const QString& text);
/// The typed text as it is kept: a bare number with its unit where that is not the record's.
std::string asEntered(const QString& text, Quantity quantity);
/// "°C, or 405F", "°F, or 207C": the hint of a field, with a temperature that is usual in it.
QString degreesHint(double usual_c);
/// "3.2 mm, or 0.126in": likewise.
QString lengthHint(double usual_mm);

} // namespace rollcall::words
