// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/instant.h"
#include "core/base/result.h"

#include <QString>

namespace rollcall {

/// When something happened, as a maker types it: "14:30" is today by the clock of now, or yesterday where that still
/// lies ahead; "2026-11-24 18:00" or "24.11.2026 18:00" is that day. Blank is now. Errors (argument): neither of these;
/// (range) it lies ahead.
Result<Instant> typedTime(const QString& text, const Instant& now);

/// A day as a maker types it, "2027-05-31" or "31.5.2027"; "2027-05" is the last day of that month. Gives the ISO date;
/// blank stays blank. Errors (argument): none of these.
Result<std::string> typedDate(const QString& text);

} // namespace rollcall
