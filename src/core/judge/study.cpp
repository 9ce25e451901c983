// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/study.h"

#include "core/judge/edge_judge.h"
#include "core/judge/gates.h"

namespace rollcall {

StudyPiece studyPiece(const Batch& batch, std::size_t blade, const Tables& tables) {
    StudyPiece piece;
    const ProofBook book(batch, HeatBook(batch, tables), readMeans(batch, judgeBatch(batch, tables, std::nullopt)));
    piece.facts = book.factsOf(blade);
    for (const EdgeRung& rung : rungsOf(batch.blades[blade])) {
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
        if (!isPresent(trial, batch.blades[blade])) continue;
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
