// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/grade.h"

#include <string>

namespace rollcall {

/// Whether a medium, in the maker's own words, takes the heat from a grade plainly too slowly: still or moving air or
/// plates for one that needs a liquid, medium oil for one that needs fast oil or water. Whatever it does not know is
/// not said to be slow.
bool quenchesTooSlowly(const std::string& medium, const Grade& grade);

} // namespace rollcall
