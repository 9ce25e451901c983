// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"
#include "core/judge/verdict.h"
#include "core/measure/block_face.h"
#include "core/measure/control.h"
#include "core/measure/verification.h"

#include <optional>
#include <vector>

namespace rollcall {

/// What a tester's runs on blocks say of it today and over time.
struct TesterHealth {
    /// Pass: its last run of today, with its present indenter and anvil, was good. Fail: it was not. Not yet: there is
    /// none. Excused: it needs no block (files, others).
    State state = State::notYet;
    const Verification* last = nullptr;       ///< its last run of all; points into the list that was given
    std::optional<VerificationAnswer> answer; ///< of that run
    bool today = false;                       ///< whether that run holds today
    bool other_setting = false;               ///< that run was made with another indenter or anvil
    int failed_in_row = 0;                    ///< runs that failed, counted back from the last
    std::string block;                        ///< the one that has been read most often with it; of equals the latest
    double allowed_error = 0;                 ///< on that block, either side
    double allowed_spread = 0;                ///< on that block
    std::vector<ControlPoint> errors;         ///< of all runs on that block; days since 1970, local
    std::vector<ControlPoint> spreads;        ///< of the same runs
    std::optional<ControlLimits> limits;      ///< the shop's own, of the error
    std::optional<Drift> drift;               ///< of the error over the last driftWeeks
    std::optional<double> weeks_left;         ///< until the drift takes the error out of what is allowed
};

/// How far back a drift is looked for: long enough to see 0.02 HRC a week, short enough to forget an old repair.
inline constexpr int driftWeeks = 52;

/// M6 and the control charts. Runs in the order they were made. The charts are of the block named, else of the one most
/// often read.
TesterHealth testerHealth(const Tester& tester, const std::vector<Verification>& runs, const Tables& tables,
                          const Instant& now, const std::string& block = {});

/// A block's face and how many of its places are taken.
struct BlockUse {
    std::string name;
    std::string scale = "HRC";
    double certified = 0;
    double diameter_mm = 60;
    double spacing_mm = 3;
    int used = 0;
};

/// How far a block's face is used up, and how long it lasts at the rate of the last three months.
struct BlockLife {
    std::vector<Spot> places; ///< M13, in the order they are used
    int used = 0;
    int free = 0;
    double per_month = 0;
    std::optional<double> months_left; ///< none when it was not used in the last three months
    bool nearly_full = false;          ///< 90 % used: order the next

    /// Whether the next block is to be ordered: nearly full, or full within two months.
    bool toOrder() const { return nearly_full || (months_left && *months_left < 2); }
};

/// M13. used counts every indent on the face, struck out ones too; runs are those made on it. Errors as blockPlaces().
Result<BlockLife> blockLife(const BlockFace& face, int used, const std::vector<Verification>& runs, const Instant& now);

/// M6. Which of the blocks at hand suits work at this hardness.
struct BlockAdvice {
    enum class Kind { none, near, bracket, far };
    Kind kind = Kind::none;
    std::vector<std::size_t> blocks; ///< index of the near or nearest one, or of the two that bracket the work
};
BlockAdvice adviseBlocks(const std::vector<double>& certified, double work);

/// What if the error were another: the batch with the certified values of this tester's runs of this local day shifted
/// so that each run's error becomes this one. Nothing is stored; judge it and compare.
Batch withError(const Batch& batch, const std::string& tester, std::int64_t localDay, double error);

} // namespace rollcall
