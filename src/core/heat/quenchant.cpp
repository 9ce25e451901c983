// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/quenchant.h"

#include "core/base/number.h"

namespace rollcall {

bool quenchesTooSlowly(const std::string& medium, const Grade& grade) {
    const std::string words = lowered(medium);
    const auto has = [&](const char* word) { return words.find(word) != std::string::npos; };
    const auto asks = [&](const char* word) { return grade.quench_class.find(word) != std::string::npos; };
    if (has("plate") || has("air")) return !grade.isAirHardening() && !asks("plate");
    const bool mediumOilAlone = has("medium oil") && !has("fast") && !has("water") && !has("brine");
    return mediumOilAlone && (asks("fast") || asks("water"));
}

} // namespace rollcall
