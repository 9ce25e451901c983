// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"
#include "core/judge/verdict.h"

#include <array>
#include <optional>
#include <vector>

namespace rollcall {

/// The verdicts of one blade, by gate; none where the gate is not required or not judged yet by this program.
using BladeVerdicts = std::array<std::optional<Verdict>, gateCount>;

/// All verdicts of a batch, in the order of its blades.
struct BatchVerdicts {
    std::vector<BladeVerdicts> blades;

    const std::optional<Verdict>& at(std::size_t blade, Gate gate) const { return blades[blade][indexOf(gate)]; }
};

/// The blades' present mean hardness by their readings, in the order of the batch; none where it is not read.
std::vector<std::optional<double>> readMeans(const Batch& batch, const BatchVerdicts& verdicts);

/// Judges every blade of a batch at every gate that is asked. Pure: the same batch, tables and moment
/// give the same verdicts. The moment is used only to say how long a blade has stood untempered; none leaves that out.
/// Complexity: linear in the readings, but for the distances between the marks on one blade.
BatchVerdicts judgeBatch(const Batch& batch, const Tables& tables, const std::optional<Instant>& now);

/// Input of the measurement that a verdict rests on, to ask further questions of it (M17).
std::optional<MeasurementInput> measurementInput(const Batch& batch, std::size_t blade, Gate gate,
                                                 const Tables& tables);

/// The window a gate compares a blade with: of its claim at Temper; at Quench the minimum, or the grade's.
Window windowOf(const Batch& batch, const Blade& blade, Gate gate, const Tables& tables);

/// Tempers a blade needs after its quench, by recipe or grade and by the hottest temper so far; a rise of
/// hardness after a temper is not counted in here.
int requiredTempers(const Batch& batch, const Blade& blade, const Tables& tables);

/// Number of the last temper of the blade's present round; 0 when there was none.
int lastTemper(const Blade& blade);

/// The last try of files on a blade that speaks at this gate now; null when there is none.
const FileTest* fileTestAt(const Blade& blade, Gate gate);

/// How often files were tried on bare metal of a blade in its present state at a gate.
int repeatedFiles(const Blade& blade, Gate gate);

/// A usual purpose whose window holds this hardness, the blade's own apart; empty where there is none.
std::string purposeThatHolds(const std::string& own, double hrc, const Tables& tables);

/// Whether the blade is out of the batch before this gate is asked.
bool isOutBefore(const Blade& blade, Gate gate);

} // namespace rollcall
