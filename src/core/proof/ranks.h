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

/// E33. What is known (95 per cent) of the mean count to an event that came after so many strokes in all of so many
/// runs, each stroke taken to be as likely as the next to bring it: chi-squared with twice the runs. What wears
/// scatters less than that, so the interval is on the safe side. 42 strokes in one run: 11.4 to 1659. None without a
/// run.
std::optional<Performed> knownCount(double strokes, int runs);

/// E33. What is known (95 per cent, Clopper and Pearson) of the share of runs that pass. 3 of 4: 0.194 to 0.994. None
/// without a run.
std::optional<Performed> knownShare(int passed, int runs);

/// E33. The places a piece may have among those that were tried: 1 is best; best and worst differ where intervals meet.
struct Places {
    int best = 1;
    int worst = 1;
};

/// E33. Ranks of pieces at one property; a piece that was not tried has none and counts for nobody. Intervals that meet
/// are a tie. There is no rank over properties: what matters more is the maker's to say.
std::vector<std::optional<Places>> placesOf(const std::vector<std::optional<Performed>>& pieces, bool more_is_better);

} // namespace rollcall
