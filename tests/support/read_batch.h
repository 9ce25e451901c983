// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "tests/support/fixtures.h"

namespace rollcall::fixtures {

/// Orchard 12 with so many blades GK-1 ..., each read three times from the quench (65.2) and after temper (62.3).
inline Batch readBatch(int blades) {
    std::vector<std::string> marks;
    for (int i = 1; i <= blades; ++i) marks.push_back("GK-" + std::to_string(i));
    Batch all = batch("115CrV3", {60.5, 63.5}, marks);
    all.name = "Orchard 12";
    for (Blade& blade : all.blades) {
        read(blade, Gate::quench, {65.2, 65.3, 65.1});
        read(blade, Gate::temper, {62.3, 62.2, 62.4});
    }
    return all;
}

} // namespace rollcall::fixtures
