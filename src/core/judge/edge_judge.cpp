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

std::vector<EdgeGeometry> edgesOf(const Blade& blade) {
    std::vector<EdgeGeometry> edges;
    for (const EdgeGeometry& measured : blade.edges) {
        if (!edges.empty() && measured.same(edges.back())) {
            const Instant since = edges.back().at;
            edges.back() = measured;
            edges.back().at = since;
        } else {
            edges.push_back(measured);
        }
    }
    return edges;
}

std::size_t edgeAt(const std::vector<EdgeGeometry>& edges, const Instant& at) {
    std::size_t edge = 0;
    for (std::size_t i = 1; i < edges.size(); ++i) {
        if (edges[i].at.utc_ms <= at.utc_ms) edge = i;
    }
    return edge;
}

namespace {

bool ofThisTemper(const Blade& blade, const EdgeRung& rung) {
    return rung.round == blade.round && rung.after_temper == lastTemper(blade);
}

} // namespace

std::vector<EdgeRung> rungsOf(const Blade& blade) {
    const std::vector<EdgeGeometry> edges = edgesOf(blade);
    std::vector<EdgeRung> rungs;
    for (const EdgeRung& rung : blade.rungs) {
        if (!ofThisTemper(blade, rung)) continue;
        const std::size_t edge = edgeAt(edges, rung.at);
        const bool present = edges.empty() || edge + 1 == edges.size();
        if (present || (!rung.failed() && edges.back().asStoutAs(edges[edge]))) rungs.push_back(rung);
    }
    return rungs;
}

std::vector<EarlierEdge> earlierEdges(const Blade& blade) {
    const std::vector<EdgeGeometry> edges = edgesOf(blade);
    std::vector<EarlierEdge> earlier;
    for (std::size_t i = 0; i + 1 < edges.size(); ++i) {
        EarlierEdge one{edges[i], {}, edges.back().asStoutAs(edges[i])};
        for (const EdgeRung& rung : blade.rungs) {
            if (!rung.struck && ofThisTemper(blade, rung) && edgeAt(edges, rung.at) == i) one.rungs.push_back(rung);
        }
        if (!one.rungs.empty()) earlier.push_back(std::move(one));
    }
    return earlier;
}

std::optional<double> edgeHardness(const Batch& batch, const std::optional<double>& read) {
    if (read) return read;
    if (batch.window.low && batch.window.high) return (*batch.window.low + *batch.window.high) / 2;
    return batch.window.low ? batch.window.low : batch.window.high;
}

} // namespace rollcall
