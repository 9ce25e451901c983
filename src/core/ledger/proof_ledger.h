// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/ledger/yield.h"

namespace rollcall {

/// By what tried blades are put together.
enum class ProofBy { grade, purpose, hardness, angle };
template<>
inline constexpr std::array namesOf<ProofBy>{"grade", "purpose", "hardness", "angle"};
inline constexpr std::array allProofBys{ProofBy::grade, ProofBy::purpose, ProofBy::hardness, ProofBy::angle};

/// One property of blades that were tried, side by side over their groups.
struct ProofProperty {
    enum class Kind { rod, trial, count, grain };
    Kind kind = Kind::rod;
    std::string protocol; ///< of trials and counts
    std::string step;     ///< of counts
    std::string unit;     ///< likewise
    struct Cell {
        int tried = 0;
        double value = 0; ///< share passed from 0 to 1, mean count, mean ASTM number
        std::optional<Performed> known;
        std::optional<Places> place; ///< among the groups that were tried (E33)
    };
    std::vector<Cell> cells; ///< by group
};

/// What edges, cuts, blows and grain said of blades, by grade, purpose, hardness or angle. Each property stands alone:
/// nothing is ranked over all of them, and hardness is no measure of a blade.
struct ProofLedger {
    struct Group {
        std::string name; ///< of grade or purpose; empty where low and high say it
        double low = 0;   ///< HRC or degrees a side, from here
        double high = 0;  ///< to below here
        int blades = 0;
        std::optional<double> mean_hrc;
        std::vector<const LedgerBatch*> batches;
    };
    std::vector<Group> groups; ///< those with most blades first, or by their limits
    std::vector<ProofProperty> properties;
};

/// Over blades of one grade, or of all where it is empty. Hardness goes by 2 HRC, the edge's angle by 5 degrees.
ProofLedger proofLedger(const Ledger& ledger, const std::string& grade, ProofBy by);

} // namespace rollcall
