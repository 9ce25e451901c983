// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"
#include "core/judge/measurement.h"

#include <string>
#include <vector>

namespace rollcall {

/// E38. A window that is usual for a purpose; a proposal, which the maker takes or not.
struct UsualWindow {
    Window window;
    const PurposeProfile* profile = nullptr; ///< with its school and why
    bool by_grade = false; ///< narrowed to what the grade gives after a useful temper; the profile asks for more
};

/// Those of the table of purposes whose name a purpose holds ("kitchen, petty" holds Kitchen), in its order. A grade of
/// the library bounds them from above: 1.5 under its typical hardness as quenched. None where nothing usual is left.
std::vector<UsualWindow> usualWindows(const Tables& tables, const std::string& purpose, const Grade* grade);

} // namespace rollcall
