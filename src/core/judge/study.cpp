// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/study.h"

#include "core/judge/edge_judge.h"
#include "core/judge/gate_case.h"
#include "core/judge/judged.h"

namespace rollcall {

namespace {

StudyPiece::Tried& triedOf(StudyPiece& piece, const std::string& protocol) {
    for (StudyPiece::Tried& tried : piece.trials) {
        if (tried.protocol == protocol) return tried;
    }
    return piece.trials.emplace_back(StudyPiece::Tried{protocol, 0, 0, {}});
}

StudyPiece::Counted& countOf(StudyPiece& piece, const std::string& protocol, const ProtocolStep& step) {
    for (StudyPiece::Counted& counted : piece.counts) {
        if (counted.protocol == protocol && counted.step == step.name) return counted;
    }
    return piece.counts.emplace_back(StudyPiece::Counted{protocol, step.name, step.unit, 0, 0});
}

} // namespace

StudyPiece studyPiece(const Batch& batch, std::size_t blade, const Tables& tables) {
    return studyPiece(batch, blade, Judged(batch, tables, std::nullopt).facts(blade));
}

StudyPiece studyPiece(const Batch& batch, std::size_t blade, PieceFacts facts) {
    StudyPiece piece;
    piece.facts = std::move(facts);
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
        const bool ended = progress.outcome == TrialOutcome::passed || progress.outcome == TrialOutcome::failed;
        StudyPiece::Tried unused;
        StudyPiece::Tried& tried =
            ended && !trial.protocol.onlyMeasures() ? triedOf(piece, trial.protocol.name) : unused;
        ++tried.runs;
        tried.passed += progress.outcome == TrialOutcome::passed ? 1 : 0;
        for (std::size_t i = 0; i < progress.steps.size(); ++i) {
            const StepProgress& step = progress.steps[i];
            const ProtocolStep& asked = trial.protocol.steps[i];
            if (step.state == StepState::failed) tried.failed_step = asked.name;
            const bool open = asked.kind == StepKind::count && !asked.least && !asked.most;
            if (open && step.state != StepState::waiting && step.count > 0) {
                StudyPiece::Counted& counted = countOf(piece, trial.protocol.name, asked);
                ++counted.runs;
                counted.count += step.count;
            }
            if (step.set_deg) piece.set_deg = step.set_deg;
            if (step.looks.empty()) continue;
            if (const auto dull = dullInterval(step.looks)) piece.dull = *dull;
        }
    }
    return piece;
}

} // namespace rollcall
