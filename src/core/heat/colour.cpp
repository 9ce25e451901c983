// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/colour.h"

#include "core/base/number.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace rollcall {

namespace {

struct Shift {
    double low = 0;
    double high = 0;
};

// Chromium slows the oxide (temper_color_notes.csv): estimates, low end and high end.
Shift chromiumShift(double percent) {
    if (percent <= 0.3) return {0, 0};
    if (percent <= 2.0) return {0, 10.0 * percent};
    if (percent <= 6.5) return {50, 80};
    return {80, 120};
}

} // namespace

Result<ColourRange> colourRange(const Tables& tables, std::string_view colour, double hours, OxideSurface surface,
                                double chromium_percent, bool stainless) {
    if (surface != OxideSurface::bare)
        return Error{ErrorKind::range, "",
                     "on a coated, scaled or wrapped surface the colour says nothing of the temper"};
    if (!(hours >= 0.05 && hours <= 48))
        return Error{ErrorKind::range, "", "the time must lie between 3 minutes and 48 hours"};
    std::vector<const OxideColour*> row;
    for (const OxideColour& one : tables.oxideColours()) {
        if (one.stainless == stainless) row.push_back(&one);
    }
    const auto found = std::find_if(row.begin(), row.end(), [&](const OxideColour* c) {
        return sameName(c->name, colour) || sameName(c->described, colour);
    });
    if (found == row.end()) {
        std::string names;
        for (const OxideColour* c : row) names += (names.empty() ? "" : ", ") + c->name;
        return Error{ErrorKind::argument, std::string(colour), "the colours are " + names};
    }
    const auto i = static_cast<std::size_t>(found - row.begin());
    const auto at = [&](std::size_t k) { return stainless ? row[k]->minutes_c : *row[k]->one_hour_c; };
    // At the ends of the chart there is no neighbour on one side; as far as on the other.
    const double below = i > 0 ? at(i) - at(i - 1) : at(1) - at(0);
    const double above = i + 1 < row.size() ? at(i + 1) - at(i) : at(i) - at(i - 1);
    if (stainless) {
        constexpr double notEstablished = 30;
        return ColourRange{at(i) - below / 2 - notEstablished, at(i) + above / 2 + notEstablished, Confidence::low,
                           true};
    }
    constexpr double eye = 15;         // what two people see in one colour
    constexpr double perDoubling = 10; // oxide thickness grows about with the root of time
    const double time = -perDoubling * std::log2(hours);
    const Shift chromium = chromiumShift(chromium_percent);
    return ColourRange{at(i) - below / 2 - eye + time + chromium.low, at(i) + above / 2 + eye + time + chromium.high,
                       row[i]->confidence, false};
}

double offColour(const ColourRange& range, double oven_c) {
    if (oven_c > range.high_c) return oven_c - range.high_c;
    if (oven_c < range.low_c) return oven_c - range.low_c;
    return 0;
}

} // namespace rollcall
