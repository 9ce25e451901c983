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
        int runs = 0; ///< that ended by passing or failing
        int passed = 0;
        std::string failed_step; ///< of the last that failed
    };
    std::vector<Tried> trials; ///< of protocols that can be failed
    struct Counted {
        std::string protocol;
        std::string step; ///< one that is counted until something is seen
        std::string unit;
        int runs = 0;     ///< that saw it
        double count = 0; ///< in all of them
    };
    std::vector<Counted> counts;
    std::optional<double> set_deg; ///< that a bend left
};

/// What a batch's record has to say of one of its blades for a study.
StudyPiece studyPiece(const Batch& batch, std::size_t blade, const Tables& tables);
/// The same where the piece's facts are known already (Judged::facts).
StudyPiece studyPiece(const Batch& batch, std::size_t blade, PieceFacts facts);

} // namespace rollcall
