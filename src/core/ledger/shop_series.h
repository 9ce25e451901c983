// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/tester_health.h"
#include "core/ledger/compare.h"
#include "core/ledger/series.h"
#include "core/ledger/yield.h"

namespace rollcall {

/// Something of the shop that is one value after another.
struct ShopSeries {
    enum class Kind {
        oven,     ///< heats after their last temper less what the library expects, by the oven they were hardened in
        tempered, ///< the same by grade
        quenched, ///< as quenched less the grade's typical value
        tester    ///< error on a block, by its certificate
    };
    Kind kind = Kind::oven;
    std::string name;                        ///< of oven, grade or tester
    std::string block;                       ///< of a tester's runs
    std::vector<double> days;                ///< local, since 1970
    std::vector<double> values;              ///< HRC
    std::vector<const LedgerBatch*> batches; ///< by value; empty of a tester
    std::vector<std::string> blades;         ///< id of a blade of each; likewise
    /// HRC that ten degrees more at the last temper are worth in the middle of these heats; none of a tester, as
    /// quenched or where the curves are not known.
    std::optional<double> per_ten_degrees;
};

/// All series of at least four values: ovens, grades after temper and as quenched, then testers on the block that each
/// is read on most.
std::vector<ShopSeries> shopSeries(const Ledger& ledger, const Tables& tables, const std::vector<Tester>& testers,
                                   const std::vector<Verification>& runs, const Instant& now);

/// What a series says of itself.
struct SeriesSays {
    double mean = 0;
    std::optional<Interval> known;        ///< 95 % of the mean, taken as if its values were independent
    std::optional<Individuals> chart;     ///< none of fewer than twelve
    std::optional<Cumulative> cumulative; ///< likewise
    std::optional<Drift> drift;
    /// °C that the oven seems hotter than set where its heats read softer than expected, with its 95 % interval.
    std::optional<double> hotter_c;
    std::optional<Interval> hotter_known;
};
SeriesSays saysOf(const ShopSeries& series);

/// A block that will not last, or a tester without a run while it is being used.
struct WeekBlock {
    std::string name;
    std::optional<double> months_left;
};
struct WeekTester {
    std::string name;
    std::optional<int> days_since; ///< its last run on a block; none: never
    bool drifting = false;
    double per_week = 0; ///< HRC, where it drifts
    std::optional<double> weeks_left;
};

/// What changed in the last seven days.
struct Week {
    std::int64_t last_day = 0;              ///< local, since 1970
    std::vector<const LedgerBatch*> worked; ///< that something was read or done in, the newest last
    int blades = 0;
    int readings = 0;
    Share passed;      ///< at once, of the blades of those batches that have an answer
    Share before;      ///< the same of the twelve weeks before
    double chance = 1; ///< that as many or more, or as few or fewer, would come of what was usual: two-sided
    std::vector<YieldLedger::Cause> causes; ///< of this week, those that held back most first
    struct Shifted {
        const ShopSeries* series;
        RunSignal signal;
        bool cumulative = false;
    };
    std::vector<ShopSeries> series;   ///< that the shifted ones point into
    std::vector<Shifted> shifted;     ///< series that a value of this week put out of their limits
    std::vector<WeekTester> drifting; ///< testers whose error drifts
    std::vector<WeekTester> overdue;  ///< bench and rebound testers read on this week without a run that holds
    std::vector<WeekBlock> blocks;    ///< to be ordered: nearly full, or full within two months
};

Week weekOf(const Ledger& ledger, const Tables& tables, const std::vector<Tester>& testers,
            const std::vector<Verification>& runs, const std::vector<BlockUse>& blocks, const Instant& now);

} // namespace rollcall
