// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"

namespace rollcall {

/// M5. Standard uncertainty of a convex correction, points of the scale read: an estimate.
inline constexpr double convexUncertainty = 0.25;

/// M5. What to add to a reading on a convex cylinder of this radius, points; bilinear in radius and reading between the
/// table's values (tables convex_correction_*). HRC 20 at 8 mm: 2.5. Zero beyond 19 mm.
/// Errors (range): a radius below 3 mm or between the table's last and 19 mm, a reading outside the table, a correction
/// over 3.0 points (the reading is refused, not corrected); (argument): a scale without corrections.
Result<double> convexCorrection(const Tables& tables, const std::string& scale, double reading, double radius_mm);

} // namespace rollcall
