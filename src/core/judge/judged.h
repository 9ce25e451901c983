// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/judged_part.h"
#include "core/judge/proof_judge.h"
#include "core/judge/release_judge.h"

#include <deque>
#include <map>
#include <optional>
#include <utility>
#include <vector>

namespace rollcall {

/// Everything found out about a batch, worked out once: the verdict of every blade at every gate, asked or not, and
/// what the verdicts rest on. Blades of different claims are judged apart, their pieces are compared together. The
/// batch and the tables must outlive it. Whoever shows a batch reads from here.
class Judged {
public:
    /// The moment is used only to say how long a blade has stood untempered; none leaves that out. Of what was found
    /// out before by the same tables is taken what still rests on the same evidence; it need not outlive this.
    Judged(const Batch& batch, const Tables& tables, const std::optional<Instant>& now, const Judged* before = nullptr);
    Judged(const Judged&) = delete;
    Judged& operator=(const Judged&) = delete;

    /// The verdicts of the gates that are asked.
    const BatchVerdicts& verdicts() const& { return m_verdicts; }
    BatchVerdicts verdicts() && { return std::move(m_verdicts); }
    /// The verdict of any gate. One that is not asked holds up nothing and is missing from verdicts().
    const Verdict& verdict(std::size_t blade, Gate gate) const {
        const std::optional<Verdict>& asked = m_verdicts.at(blade, gate);
        return asked ? *asked : unasked(blade, gate);
    }

    /// The batch as a blade sees it: with its claim, and only the blades that are judged with it.
    const Batch& batchOf(std::size_t blade) const { return partOf(blade).batch(); }
    const SteelAnswer& steel(std::size_t blade) const { return partOf(blade).steel().of(placeOf(blade)); }
    /// The bar of the first blade.
    const SteelAnswer& bar() const { return m_parts.front().steel().bar(); }
    const HeatAnswer& heat(std::size_t blade) const { return partOf(blade).heats().of(placeOf(blade)); }
    /// Whether a blade's soak kept to its limits; none when that cannot be said.
    std::optional<bool> soakInLimits(std::size_t blade) const {
        return partOf(blade).heats().soakInLimits(placeOf(blade));
    }
    /// The tempers read so far, as curves; for asking what another temper would do to a blade.
    TemperBook& tempers(std::size_t blade) const { return partOf(blade).tempers(); }
    /// In what a piece may differ from others.
    const PieceFacts& facts(std::size_t blade) const { return m_proof->factsOf(blade); }
    const std::vector<EndedTest>& ended() const { return m_proof->ended(); }
    Speech speech(const EndedTest& ended, std::size_t blade) const { return m_proof->speech(ended, blade); }
    /// The blades' present mean hardness; none where it is not read.
    const std::vector<std::optional<double>>& means() const { return m_means; }
    const ReleaseAnswer& release(std::size_t blade) const { return m_release[blade]; }
    /// What the blades read say of those judged with this one that are not read, by their places in the batch. Worked
    /// out anew: its chance is dear, and few ask.
    SampleState sample(std::size_t blade) const;
    /// How a tester's verification stands for a reading like this one.
    StandingRun verification(const Reading& reading) const { return m_parts.front().runs().standingFor(reading); }

private:
    JudgedPart& partOf(std::size_t blade) const { return m_parts[m_places.empty() ? 0 : m_places[blade].first]; }
    std::size_t placeOf(std::size_t blade) const { return m_places.empty() ? blade : m_places[blade].second; }
    const Verdict& unasked(std::size_t blade, Gate gate) const;
    Verdict judge(std::size_t blade, Gate gate) const;
    void keep(std::size_t blade, Verdict verdict);

    const Batch& m_batch;
    const Tables& m_tables;
    std::vector<BladeGroup> m_groups;
    mutable std::deque<JudgedPart> m_parts;                    ///< one a group; curves are fitted when asked for
    std::vector<std::pair<std::size_t, std::size_t>> m_places; ///< of each blade: part, place in it; empty: one part
    /// Of the gates that are not asked, as far as somebody wanted to know.
    mutable std::map<std::pair<std::size_t, Gate>, Verdict> m_unasked;
    BatchVerdicts m_verdicts;
    std::vector<std::optional<double>> m_means;
    std::optional<ProofBook> m_proof;
    std::vector<ReleaseAnswer> m_release;
};

} // namespace rollcall
