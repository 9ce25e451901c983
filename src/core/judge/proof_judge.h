// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/heat_book.h"
#include "core/judge/record.h"
#include "core/judge/verdict.h"
#include "core/proof/speaks.h"

#include <optional>
#include <vector>

namespace rollcall {

/// Whether a trial speaks of the blade as it is now: its hardening round, after its last temper.
bool isPresent(const Trial& trial, const Blade& blade);

/// A trial that ended, and of which blade.
struct EndedTrial {
    std::size_t blade = 0;
    const Trial* trial = nullptr;
    bool passed = false;
};

/// What is known of each blade of a batch, and which trials have something to say. Made once, asked for every blade.
class ProofBook {
public:
    /// hrc: the blades' means where they are read, in the order of the batch.
    ProofBook(const Batch& batch, const HeatBook& heats, const std::vector<std::optional<double>>& hrc);

    const PieceFacts& factsOf(std::size_t blade) const { return m_facts[blade]; }
    /// The last ended trial of each protocol on each blade; voided ones and those given up say nothing.
    const std::vector<EndedTrial>& ended() const { return m_ended; }
    /// Whether the piece of a trial speaks for another blade.
    Speech speech(const EndedTrial& ended, std::size_t blade) const {
        return speaksFor(m_facts[ended.blade], m_facts[blade], ended.passed);
    }

private:
    std::vector<PieceFacts> m_facts;
    std::vector<EndedTrial> m_ended;
};

/// The Proof gate: a blade's own trial, or the trials of pieces that speak for it (M32).
Verdict judgeProof(const Batch& batch, std::size_t blade, const ProofBook& book);

} // namespace rollcall
