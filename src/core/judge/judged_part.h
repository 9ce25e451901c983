// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/expectation.h"
#include "core/judge/gate_case.h"
#include "core/judge/gates.h"
#include "core/judge/heat_book.h"
#include "core/judge/sampling_plan.h"
#include "core/judge/standing.h"
#include "core/judge/steel_book.h"

#include <map>
#include <memory>
#include <optional>
#include <vector>

namespace rollcall {

/// Blades of a batch that are judged together: of one claim and, as far as anybody says, one bar.
struct BladeGroup {
    std::vector<std::size_t> blades; ///< their places in the batch
    /// The batch as these blades see it: with their claim, themselves alone, and of the evidence what speaks for them.
    /// None: all blades are of the batch's own claim, and it is judged as it is.
    std::unique_ptr<Batch> own;
};

/// The blades of a batch by claim, in order of their first blades. A knife that is taken for a grade of its own is of
/// no bar with another: it has its own group, and neither the bar's shots nor its certificate speak for it.
std::vector<BladeGroup> groupsOf(const Batch& batch, const Tables& tables);

/// What is found out about one group before its pieces are compared: Steel, Heat, Quench and Temper, in the order of
/// its blades. The batch and the tables must outlive it.
class JudgedPart {
public:
    JudgedPart(const Batch& batch, const Tables& tables, const std::optional<Instant>& now,
               const JudgedPart* before = nullptr);

    const Batch& batch() const { return m_batch; }
    BatchVerdicts& verdicts() { return m_verdicts; }
    const HeatBook& heats() const { return m_heats; }
    const SteelBook& steel() const { return m_steel; }
    const VerificationBook& runs() const { return m_runs; }
    TemperBook& tempers() { return m_tempers; }
    /// One blade at one of these gates, whether it is asked or not.
    Verdict judge(std::size_t blade, Gate gate) const;

private:
    std::vector<Verdict> judgeRead(Gate gate) const;

    const Batch& m_batch;
    const Tables& m_tables;
    std::optional<Instant> m_now;
    HeatBook m_heats;
    VerificationBook m_runs;
    SteelBook m_steel;            ///< from hardness too
    std::vector<Case> m_tempered; ///< the blades at Temper
    mutable TemperBook m_tempers; ///< fits its curves when they are asked for
    BatchVerdicts m_verdicts;     ///< whoever shows the batch takes them
    std::map<std::size_t, Verdict> m_heatSays;
    std::vector<bool> m_held; ///< blades that Quench keeps from the oven; empty: it is not asked
};

} // namespace rollcall
