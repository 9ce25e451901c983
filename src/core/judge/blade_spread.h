// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/heat/temper.h"
#include "core/judge/gate_case.h"

#include <vector>

/// How far blades that were hardened and tempered together lie from each other.
namespace rollcall {

/// What is known of it before a batch is read: a standard deviation in HRC, worth so many degrees of freedom.
struct SpreadPrior {
    double sd = 0.35; ///< between blades of one run, low confidence
    double dof = 2;   ///< shops differ by more than twice either way
};

/// E61. With what the shop's runs of the grade show: the scatter of their blades' means less what reading them adds,
/// from runs of three blades on, worth at most twenty degrees of freedom.
SpreadPrior shopSpread(const std::vector<TemperObservation>& history);

/// E59. Gives each blade of a batch that is judged by chance what its siblings of the same round and temper say of it,
/// and measures it anew.
void addPriors(const Batch& batch, std::vector<Case>& cases);

} // namespace rollcall
