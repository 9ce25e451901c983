// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/usual_window.h"

#include "core/base/number.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

std::vector<UsualWindow> usualWindows(const Tables& tables, const std::string& purpose, const Grade* grade) {
    constexpr double firstTemper = 1.5; // HRC that the coolest useful temper takes
    constexpr double narrowest = 1.0;
    const std::string asked = lowered(purpose);
    std::vector<UsualWindow> usual;
    for (const PurposeProfile& profile : tables.purposes()) {
        if (asked.empty() || asked.find(lowered(profile.purpose)) == std::string::npos) continue;
        UsualWindow one{{profile.window_low, profile.window_high}, &profile, false};
        if (grade != nullptr) {
            const double most = std::floor(grade->as_quenched_typical - firstTemper);
            if (most < *one.window.high) {
                one.window.high = most;
                one.window.low = std::min(*one.window.low, most - 2 * narrowest);
                one.by_grade = true;
            }
        }
        // So far below what the purpose asks that it is another steel's work.
        if (*one.window.high < profile.window_low - 2) continue;
        usual.push_back(one);
    }
    return usual;
}

} // namespace rollcall
