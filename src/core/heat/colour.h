// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/names.h"
#include "core/base/tables.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace rollcall {

/// What covers the surface while it is tempered; only bare bright metal shows a colour that means something.
enum class OxideSurface { bare, coated, scaled, foil };
template<>
inline constexpr std::array namesOf<OxideSurface>{"bare", "coated", "scaled", "foil"};

/// M25. Temperatures that a temper colour stands for.
struct ColourRange {
    double low_c = 0;
    double high_c = 0;
    Confidence confidence = Confidence::low;
    bool chart_of_minutes = false; ///< for stainless only the chart of short heats is known
};

/// M25. The range of a colour on bright plain or low-alloy steel after this many hours: midpoints to its neighbours and
/// 15 °C either way (straw, one hour: 180 to 221), 10 °C lower for each doubling of the time (oxide grows with its
/// root), higher by what chromium holds it back. For stainless the printed chart of short heats, 30 °C either way, of
/// low confidence. Errors (argument): a colour that is not in the table; (range) a surface that is not bare, hours not
/// between 0.05 and 48, an alloy for which nothing is known.
Result<ColourRange> colourRange(const Tables& tables, std::string_view colour, double hours, OxideSurface surface,
                                double chromium_percent, bool stainless);

/// A colour that is further from what the oven said than this is a finding on bare plain or low-alloy steel.
inline constexpr double colourOff_c = 25;

/// How far an oven's temperature lies outside a colour's range, °C; 0 inside, negative when the oven says less.
double offColour(const ColourRange& range, double oven_c);

} // namespace rollcall
