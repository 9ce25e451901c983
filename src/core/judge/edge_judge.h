// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/record.h"
#include "core/judge/verdict.h"

#include <optional>
#include <vector>

namespace rollcall {

/// What a batch's edges are asked for: as chosen, else 90 N at 45°.
EdgeAsk edgeAskOf(const Batch& batch);

/// The present edge of a blade; none when it was never measured.
std::optional<EdgeGeometry> edgeOf(const Blade& blade);

/// E31. The edges a blade has had, in order: re-grinding begins a new one, measuring again does not. Empty when it was
/// never measured.
std::vector<EdgeGeometry> edgesOf(const Blade& blade);

/// Which of them stood at a moment; 0 before the first was measured.
std::size_t edgeAt(const std::vector<EdgeGeometry>& edges, const Instant& at);

/// The rungs of the blade as it is now, after its last temper, struck out ones too, in the order taken: those of its
/// present edge, and what an earlier edge that was no stouter has held (E31).
std::vector<EdgeRung> rungsOf(const Blade& blade);

/// An earlier edge of this temper with the rungs that were taken on it.
struct EarlierEdge {
    EdgeGeometry geometry;
    std::vector<EdgeRung> rungs; ///< that stand
    bool carries = false;        ///< the present edge is as stout: what it held stands for it
};
std::vector<EarlierEdge> earlierEdges(const Blade& blade);

/// Hardness to reckon an edge with: as read, else the middle of the batch's window; none when there is neither.
std::optional<double> edgeHardness(const Batch& batch, const std::optional<double>& read);

/// The Edge gate (M27, M28): the asked rung of the rod test held, or why not: geometry, heat treatment, or evidence too
/// weak to say. hrc is the blade's mean where it is read.
Verdict judgeEdge(const Batch& batch, std::size_t blade, std::optional<double> hrc, const Tables& tables);

} // namespace rollcall
