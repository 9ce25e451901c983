// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/proof_judge.h"

#include <optional>
#include <string>
#include <vector>

namespace rollcall {

/// One piece of a study with what came of it.
struct StudyPiece {
    PieceFacts facts;
    std::optional<EdgeLoadStep> held;     ///< the highest rung of the rod test that was held
    std::optional<EdgeOutcome> failed_as; ///< the first failure on the rod
    std::optional<EdgeLoadStep> failed_at;
    std::optional<DullInterval> dull; ///< of its last run of cuts
    struct Tried {
        std::string protocol;
        bool passed = false;
        std::string failed_step;
    };
    std::vector<Tried> trials;
    std::optional<double> set_deg; ///< that a bend left
};

/// What a batch's record has to say of one of its blades for a study.
StudyPiece studyPiece(const Batch& batch, std::size_t blade, const Tables& tables);

} // namespace rollcall
