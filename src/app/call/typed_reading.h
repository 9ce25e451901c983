// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/base/tables.h"

#include <string>

namespace rollcall {

/// A hardness as typed on a numpad. The point may be left out: "621" is 62.1, "62" is 62.0; point and comma both
/// count as decimal mark. Errors (argument): no number; (range): outside the scale's valid range.
Result<double> typedReading(const std::string& text, const RockwellScale& scale);

} // namespace rollcall
