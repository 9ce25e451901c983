// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/axis.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

namespace {
constexpr double hair = 1e-9; // of a step: what is left of adding up
}

double PlotAxis::at(double value) const {
    return high > low ? from + (value - low) / (high - low) * (to - from) : from;
}

double PlotAxis::within(double value) const {
    return at(std::clamp(value, std::min(low, high), std::max(low, high)));
}

double PlotAxis::value(double pixel) const {
    if (to == from) return low;
    return low + std::clamp((pixel - from) / (to - from), 0.0, 1.0) * (high - low);
}

std::vector<double> PlotAxis::ticks(double step) const {
    std::vector<double> values;
    if (!(step > 0) || !(high >= low)) return values;
    constexpr double most = 1000; // whatever it is given, a picture ends
    const double first = std::ceil(low / step - hair);
    const double last = std::min(std::floor(high / step + hair), first + most);
    for (double i = first; i <= last; i += 1) values.push_back(i * step);
    return values;
}

double PlotAxis::roundStep(double apart) const {
    const double least = std::abs(to - from) > 0 ? (high - low) * apart / std::abs(to - from) : high - low;
    if (!(least > 0)) return 1;
    const double power = std::pow(10, std::floor(std::log10(least)));
    for (const double factor : {1.0, 2.0, 5.0}) {
        if (factor * power >= least * (1 - hair)) return factor * power;
    }
    return 10 * power;
}

PlotAxis PlotAxis::shownIn(Quantity quantity, Units units) const {
    return {inUnits(low, quantity, units), inUnits(high, quantity, units), from, to};
}

double PlotAxis::clockStep(double apart) const {
    const double least = std::abs(to - from) > 0 ? (high - low) * apart / std::abs(to - from) : high - low;
    for (const double step : {10.0, 30.0, 60.0, 120.0, 300.0, 600.0, 900.0, 1800.0, 3600.0, 7200.0, 14400.0, 21600.0}) {
        if (step >= least) return step;
    }
    return 43200;
}

} // namespace rollcall
