// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/gates.h"

#include <vector>

namespace rollcall {

/// One thing to do: with which blade, at which gate.
struct Task {
    std::size_t blade = 0;
    Gate gate = Gate::temper;
    NextStep next;
    State state = State::notYet;
};

/// What is left to do in a batch, in the order to do it: readings in hand first, then what settles a verdict,
/// then heat, then blades that are soft. A blade is asked at the furthest gate that has begun for it; when that
/// one is passed, at the next required gate. Blades that are done or out ask for nothing.
std::vector<Task> agenda(const Batch& batch, const BatchVerdicts& verdicts);

} // namespace rollcall
