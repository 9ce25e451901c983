// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <vector>

namespace rollcall {

/// What a piece did at one property, as far as it is known: an interval, or one value twice.
struct Performed {
    double low = 0;
    double high = 0; ///< infinite where it was not tried to the end
};

/// E33. The places a piece may have among those that were tried: 1 is best; best and worst differ where intervals meet.
struct Places {
    int best = 1;
    int worst = 1;
};

/// E33. Ranks of pieces at one property; a piece that was not tried has none and counts for nobody. Intervals that meet
/// are a tie. There is no rank over properties: what matters more is the maker's to say.
std::vector<std::optional<Places>> placesOf(const std::vector<std::optional<Performed>>& pieces, bool more_is_better);

} // namespace rollcall
