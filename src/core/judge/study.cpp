// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/study.h"

#include "core/judge/edge_judge.h"
#include "core/judge/gate_case.h"
#include "core/judge/judged.h"

namespace rollcall {

StudyPiece studyPiece(const Batch& batch, std::size_t blade, const Tables& tables) {
    StudyPiece piece;
    piece.facts = Judged(batch, tables, std::nullopt).facts(blade);
    // E31. As it was when it was tried: a later grinding does not change what was compared.
    const Blade& own = batch.blades[blade];
    const std::vector<EdgeGeometry> edges = edgesOf(own);
    std::size_t then = 0;
    for (const EdgeRung& rung : own.rungs) {
        if (!rung.struck && rung.round == own.round) then = std::max(then, edgeAt(edges, rung.at));
    }
    for (const Trial& trial : own.trials) {
        if (trial.round == own.round) then = std::max(then, edgeAt(edges, trial.begun));
    }
    if (then < edges.size()) setEdge(piece.facts, edges[then]);
    for (const EdgeRung& rung : own.rungs) {
        if (rung.round != own.round || rung.after_temper != lastTemper(own) || edgeAt(edges, rung.at) != then) continue;
        if (rung.struck || !rung.force_n || !rung.raise_deg) continue;
        const EdgeLoadStep step{*rung.force_n, *rung.raise_deg};
        if (rung.failed() && !piece.failed_as) {
            piece.failed_as = rung.outcome;
            piece.failed_at = step;
        }
        if (!rung.failed() &&
            (!piece.held || step.force_n * step.raise_deg > piece.held->force_n * piece.held->raise_deg))
            piece.held = step;
    }
    for (const Trial& trial : batch.blades[blade].trials) {
        if (trial.round != own.round || trial.after_temper != lastTemper(own) || edgeAt(edges, trial.begun) != then)
            continue;
        const TrialProgress progress = progressOf(trial);
        StudyPiece::Tried tried{trial.protocol.name, progress.outcome == TrialOutcome::passed, {}};
        for (std::size_t i = 0; i < progress.steps.size(); ++i) {
            const StepProgress& step = progress.steps[i];
            if (step.state == StepState::failed) tried.failed_step = trial.protocol.steps[i].name;
            if (step.set_deg) piece.set_deg = step.set_deg;
            if (step.looks.empty()) continue;
            if (const auto dull = dullInterval(step.looks)) piece.dull = *dull;
        }
        const bool ended = progress.outcome == TrialOutcome::passed || progress.outcome == TrialOutcome::failed;
        if (ended && !trial.protocol.onlyMeasures()) piece.trials.push_back(std::move(tried));
    }
    return piece;
}

} // namespace rollcall
