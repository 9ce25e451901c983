// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/edge_judge.h"

#include "core/judge/gate_case.h"

#include <algorithm>

namespace rollcall {

EdgeAsk edgeAskOf(const Batch& batch) {
    return batch.edge_ask.value_or(EdgeAsk{});
}

std::optional<EdgeGeometry> edgeOf(const Blade& blade) {
    return blade.edges.empty() ? std::nullopt : std::optional(blade.edges.back());
}

std::vector<EdgeRung> rungsOf(const Blade& blade) {
    std::vector<EdgeRung> rungs;
    std::copy_if(blade.rungs.begin(), blade.rungs.end(), std::back_inserter(rungs), [&](const EdgeRung& rung) {
        return rung.round == blade.round && rung.after_temper == lastTemper(blade);
    });
    return rungs;
}

std::optional<double> edgeHardness(const Batch& batch, const std::optional<double>& read) {
    if (read) return read;
    if (batch.window.low && batch.window.high) return (*batch.window.low + *batch.window.high) / 2;
    return batch.window.low ? batch.window.low : batch.window.high;
}

} // namespace rollcall
