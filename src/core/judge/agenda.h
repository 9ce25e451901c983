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
/// E45. What speaks first of a blade; the first row that fits.
enum class StepOrder { out, settled, crack, steel, gate, damage, nothing };
struct StepOrderRow {
    StepOrder order;
    const char* when;
    const char* speaks;
};
/// The rows in their order, as they stand in docs/method.md.
const std::vector<StepOrderRow>& stepOrder();

/// Which row holds for a blade, and the gate that it speaks of.
struct StepPlace {
    StepOrder order = StepOrder::nothing;
    const Verdict* verdict = nullptr; ///< of the gate, where one speaks
};
StepPlace stepPlace(const Batch& batch, std::size_t blade, const BatchVerdicts& verdicts);

/// The order of steps as a table for docs/method.md.
std::string stepOrderText();

std::vector<Task> agenda(const Batch& batch, const BatchVerdicts& verdicts);

} // namespace rollcall
