// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <map>
#include <string>

/// A maker who does what the button says, in a world whose truth is known.
namespace rollcall::numbers {

/// What went wrong in a world before and while its maker worked.
struct WorldFaults {
    bool wrong_rows = true; ///< one row in thirty: unit, blade, digit or order
    bool steel = true;      ///< some bars are another steel
    bool tester = true;     ///< off by up to 1.5; some shops have files only, or nothing at all
    bool oven = true;       ///< off by up to 25 °C
    bool blades = true;     ///< soft skins, late transfers, cracks
};

/// How a world ended.
struct WorldEnd {
    int blades = 0;
    int good = 0; ///< that could have been released
    int released = 0;
    int bad_released = 0; ///< cracked, of no blade steel, or over half a point outside the window
    int ruined = 0;       ///< that a careful metallurgist with the same evidence, rightly logged, would have saved
    int extra_steps = 0;  ///< beyond the readings that were planned
    int most_for_one = 0; ///< steps spent on the blade that took most
    bool ended = true;    ///< nothing was left to do, or only to decide
    std::map<std::string, int> by_what; ///< what ruined blades, or let bad ones go
};

/// A world of this seed, lived to its end.
WorldEnd liveIn(std::uint64_t seed, const WorldFaults& faults, int blades);

} // namespace rollcall::numbers
