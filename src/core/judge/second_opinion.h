// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/record.h"
#include "core/measure/comparison.h"

#include <string>
#include <vector>

namespace rollcall {

/// M14. Two testers' readings of the same blades at one gate, blade by blade.
struct SecondOpinion {
    Comparison comparison;               ///< of the blades' means as read, first tester minus second
    std::vector<std::size_t> blades;     ///< those read by both
    std::vector<std::string> readings_a; ///< ids of the first tester's readings on them
    std::vector<std::string> readings_b;
};

/// M14. Unstruck HRC readings of the blade's present round, and at Temper after its last temper, on blades read by
/// both. Errors (range): fewer than three such blades.
Result<SecondOpinion> secondOpinion(const Batch& batch, Gate gate, const std::string& testerA,
                                    const std::string& testerB);

/// Testers with such readings on at least three blades of the batch, in the shop's order.
std::vector<const Tester*> testersRead(const Batch& batch, Gate gate);

} // namespace rollcall
