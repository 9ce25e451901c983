// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/expectation.h"
#include "core/judge/gate_case.h"
#include "core/judge/gates.h"
#include "core/judge/heat_book.h"
#include "core/judge/proof_judge.h"
#include "core/judge/release_judge.h"
#include "core/judge/sampling_plan.h"
#include "core/judge/standing.h"
#include "core/judge/steel_book.h"

#include <array>
#include <optional>
#include <vector>

namespace rollcall {

/// Everything found out about a batch, worked out once: the verdict of every blade at every gate, asked or not, and
/// what the verdicts rest on. The batch and the tables must outlive it. Whoever shows a batch reads from here.
class Judged {
public:
    /// The moment is used only to say how long a blade has stood untempered; none leaves that out.
    Judged(const Batch& batch, const Tables& tables, const std::optional<Instant>& now);

    /// The verdicts of the gates that are asked.
    const BatchVerdicts& verdicts() const { return m_verdicts; }
    /// The verdict of any gate. One that is not asked holds up nothing and is missing from verdicts().
    const Verdict& verdict(std::size_t blade, Gate gate) const {
        const std::optional<Verdict>& asked = m_verdicts.at(blade, gate);
        return asked ? *asked : unasked(blade, gate);
    }

    const SteelAnswer& steel(std::size_t blade) const { return m_steel.of(blade); }
    const SteelAnswer& bar() const { return m_steel.bar(); }
    const HeatAnswer& heat(std::size_t blade) const { return m_heats.of(blade); }
    /// Whether a blade's soak kept to its limits; none when that cannot be said.
    std::optional<bool> soakInLimits(std::size_t blade) const { return m_heats.soakInLimits(blade); }
    /// The tempers read so far, as curves; for asking what another temper would do.
    TemperBook& tempers() const { return m_tempers; }
    /// In what a piece may differ from others.
    const PieceFacts& facts(std::size_t blade) const { return m_proof->factsOf(blade); }
    const std::vector<EndedTest>& ended() const { return m_proof->ended(); }
    Speech speech(const EndedTest& ended, std::size_t blade) const { return m_proof->speech(ended, blade); }
    /// The blades' present mean hardness; none where it is not read.
    const std::vector<std::optional<double>>& means() const { return m_means; }
    const ReleaseAnswer& release(std::size_t blade) const { return m_release[blade]; }
    /// What the blades read say of those that are not; worked out when it is first asked for, since its chance is dear.
    const SampleState& sample() const;
    /// How a tester's verification stands for a reading like this one.
    StandingRun verification(const Reading& reading) const { return m_runs.standingFor(reading); }

private:
    const Verdict& unasked(std::size_t blade, Gate gate) const;
    Verdict judge(std::size_t blade, Gate gate) const;
    std::vector<Verdict> judgeRead(Gate gate) const;
    void keep(std::size_t blade, Verdict verdict);

    const Batch& m_batch;
    const Tables& m_tables;
    std::optional<Instant> m_now;
    HeatBook m_heats;
    VerificationBook m_runs;
    SteelBook m_steel;            ///< from hardness too
    std::vector<Case> m_tempered; ///< the blades at Temper
    mutable TemperBook m_tempers; ///< fits its curves when they are asked for
    /// Of the gates that are not asked, as far as somebody wanted to know.
    mutable std::vector<std::array<std::optional<Verdict>, gateCount>> m_unasked;
    BatchVerdicts m_verdicts;
    std::vector<std::optional<double>> m_means;
    std::optional<ProofBook> m_proof;
    std::vector<ReleaseAnswer> m_release;
    mutable std::optional<SampleState> m_sample;
};

} // namespace rollcall
