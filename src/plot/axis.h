// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/units.h"

#include <vector>

namespace rollcall {

/// Values along a line of a picture: how every chart places, steps and reads back its numbers.
struct PlotAxis {
    double low = 0; ///< value at from
    double high = 1;
    double from = 0; ///< pixels; to may lie before it, as upwards on a screen
    double to = 1;

    /// Where a value lies; beyond the ends too.
    double at(double value) const;
    /// Where a value lies, one beyond the ends at the end.
    double within(double value) const;
    /// The value at a pixel, none beyond the ends.
    double value(double pixel) const;
    /// The whole multiples of a step between the ends.
    std::vector<double> ticks(double step) const;
    /// 1, 2 or 5 times a power of ten: the least such step whose ticks lie at least so many pixels apart.
    double roundStep(double apart) const;
    /// The same axis, of a quantity kept in mm or °C, as the shop reads it.
    PlotAxis shownIn(Quantity quantity, Units units) const;
    /// The same of a clock: 10 and 30 seconds, 1, 2, 5, 10, 15, 30 minutes, 1, 2, 4, 6, 12 hours; values are seconds.
    double clockStep(double apart) const;
};

} // namespace rollcall
