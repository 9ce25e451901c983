// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/ledger/ledger_batch.h"
#include "core/proof/ranks.h"

namespace rollcall {

/// How many of so many, with what is known of the share (95 per cent, Clopper and Pearson).
struct Share {
    int passed = 0;
    int of = 0;
    std::optional<Performed> known; ///< none of none

    static Share from(int passed, int of) { return {passed, of, knownShare(passed, of)}; }
};

/// What passed at the first go, what it cost that the rest did not, and why.
struct YieldLedger {
    /// At each gate, of the blades with a verdict there: a Pass in the first hardening round, at Temper with no temper
    /// beyond those the steel or the recipe asks for. A blade that was hardened again did not pass Quench at the first
    /// go, whatever it was hardened again for.
    std::array<Share, gateCount> gates;
    std::array<std::vector<const LedgerBatch*>, gateCount> held; ///< batches of blades that did not pass there
    struct Month {
        int year = 0;
        int month = 1;
        Share share; ///< of the blades read then whose gates all have an answer: those that passed all of them at once
        int rehardened = 0;
        std::vector<const LedgerBatch*> batches; ///< those in which a blade did not
    };
    std::vector<Month> months; ///< the oldest first, those without a blade left out
    Share all;
    int rehardenings = 0;
    int spare_tempers = 0;  ///< of oven loads, one for all blades of a batch that went in together
    double spare_hours = 0; ///< of those loads
    struct Cause {
        Gate gate = Gate::temper;
        Reason reason; ///< of the newest blade that has it
        int blades = 0;
        std::vector<const LedgerBatch*> batches; ///< the newest last
    };
    std::vector<Cause> causes; ///< those that hold back most blades first
};

/// Of one grade, or of all where it is empty.
YieldLedger yieldLedger(const Ledger& ledger, const std::string& grade);

/// Whether every gate asked of a blade but Release has an answer, and whether all of them passed at the first go.
std::optional<bool> passedAtOnce(const LedgerBlade& blade);

} // namespace rollcall
