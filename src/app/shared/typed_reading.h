// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/base/tables.h"

#include <QString>
#include <string>
#include <vector>

namespace rollcall {

/// A hardness as typed on a numpad. The point may be left out: "621" is 62.1, "62" is 62.0; point and comma both
/// count as decimal mark. Errors (argument): no number; (range): outside the scale's valid range.
Result<double> typedReading(const std::string& text, const RockwellScale& scale);

/// A series of strikes as typed: "61.8 62,1 =66.4 62.0"; = marks one on the spot of the strike before.
struct StrikesText {
    std::vector<double> values;
    std::vector<std::size_t> same_spot; ///< index of each strike marked so
    QString fault;                      ///< what to do about it; empty when it can be logged
};
StrikesText strikesFromText(const QString& text, const Tables& tables);

} // namespace rollcall
