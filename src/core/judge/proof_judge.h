// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"
#include "core/judge/heat_book.h"
#include "core/judge/record.h"
#include "core/judge/verdict.h"
#include "core/proof/speaks.h"

#include <optional>
#include <vector>

namespace rollcall {

/// Whether a trial speaks of the blade as it is now: its hardening round, after its last temper, on its present edge; a
/// Pass on an earlier edge that was no stouter does too (E31).
bool isPresent(const Trial& trial, const Blade& blade);

/// The edge that stood when a trial began; none when it was never measured.
std::optional<EdgeGeometry> edgeThen(const Trial& trial, const Blade& blade);

/// Sets what is known of a piece's edge.
void setEdge(PieceFacts& facts, const EdgeGeometry& edge);

/// A test of a piece that has an answer: a trial that ended, or the grain of its fracture.
struct EndedTest {
    std::size_t blade = 0;
    const Trial* trial = nullptr; ///< null: the grain
    bool passed = false;
    bool undecided = false;                          ///< the grain's interval lies across what is asked
    std::optional<EdgeGeometry> edge = std::nullopt; ///< that it was tried with

    /// Name of the protocol, or "grain".
    std::string name() const { return trial != nullptr ? trial->protocol.name : "grain"; }
};

/// Least grain size that a batch asks for: as set, else 8.
double grainLeastOf(const Batch& batch);

/// The photos of a blade's present round.
std::vector<FracturePhoto> fracturesOf(const Blade& blade);

/// What is known of each blade of a batch, and which trials have something to say. Made once, asked for every blade.
class ProofBook {
public:
    /// heats: of each blade; hrc: the blades' means where they are read; both in the order of the batch.
    ProofBook(const Batch& batch, const std::vector<const HeatAnswer*>& heats,
              const std::vector<std::optional<double>>& hrc);

    const PieceFacts& factsOf(std::size_t blade) const { return m_facts[blade]; }
    /// The last ended trial of each protocol on each blade, and the grain of each that was broken; voided trials and
    /// those given up say nothing.
    const std::vector<EndedTest>& ended() const { return m_ended; }
    /// Whether the piece of a test speaks for another blade. An undecided one is taken as passed.
    Speech speech(const EndedTest& ended, std::size_t blade) const;

private:
    std::vector<PieceFacts> m_facts;
    std::vector<EndedTest> m_ended;
};

/// The Proof gate: a blade's own trial and the grain of its fracture (M30), or those of pieces that speak for it (M32).
Verdict judgeProof(const Batch& batch, std::size_t blade, const ProofBook& book, const Tables& tables);

} // namespace rollcall
