// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"
#include "core/judge/verdict.h"
#include "core/measure/tester_error.h"
#include "core/measure/verification.h"

#include <cmath>
#include <limits>
#include <optional>
#include <string>
#include <vector>

namespace rollcall {

/// The runs on blocks that can bear on a batch, of all in the order they were made: from the day it was
/// made, or as long before it as a run holds, to its last reading; of each setting the first two after that, which may
/// make its readings suspect (M6); the last sixteen before of each tester it was read on, which tell the tester's usual
/// error (E3); and the newest ones of the shop, for what is read next.
std::vector<Verification> runsInReach(const Batch& batch, const std::vector<Verification>& all);

inline constexpr double nearBlock = 5; ///< HRC: a block this near speaks for the work
inline constexpr double farBlock = 10; ///< HRC: beyond it nothing is decided by its error (E2)

/// How a tester's verification stands for a reading. Held: the next run failed, and was not repeated yet (E57).
enum class RunStanding { none, good, otherBand, failed, held, suspect };

/// The run on a block that a reading rests on.
struct StandingRun {
    RunStanding standing = RunStanding::none;
    const Verification* run = nullptr;
    VerificationAnswer answer;
    /// E2. A good run of the same day on a block at the reading's other side; null when there is none.
    const Verification* across = nullptr;
    double across_error = 0;
    int days_before = 0;     ///< E35: the run was so many days before the reading; 0 on its day
    bool cleared = false;    ///< E57: the next run failed, and its repeat was good
    bool good_since = false; ///< the newest run of its setting came after the reading, was good and covers it
    int failed_last = 0;     ///< runs of its setting that failed in a row, up to the newest

    /// E2. How far its block is from this hardness, HRC; endless without a run.
    double awayFrom(double hrc) const {
        return run != nullptr ? std::abs(run->certified - hrc) : std::numeric_limits<double>::infinity();
    }
};

/// Answers of all runs on blocks in a batch's reach, computed once and asked for every reading.
class VerificationBook {
public:
    VerificationBook(const Batch& batch, const Tables& tables);

    using Standing = RunStanding;
    using Found = StandingRun;
    /// M6. What holds for a reading: the runs before it of the same tester, indenter, anvil and scale on the same
    /// local day, or where the batch asks for a verification every week or month the last day with runs within it
    /// (E35); of several blocks the one nearest to the reading, unless the latest run failed. Readings without a time
    /// match none. E57: a failed run after a reading holds it back until the run is repeated; two in a row make it
    /// suspect, a good repeat clears it.
    Found standingFor(const Reading& reading) const;

    /// E3. What the tester has shown before this reading: the errors of its good runs of the days before the run found
    /// for it, on blocks like that one; where none was found, of all its good runs. In order of time.
    std::vector<BlockBias> earlierErrors(const Reading& reading, const Found& found) const;

private:
    struct Run {
        const Verification* run;
        VerificationAnswer answer;
    };
    using Setting = std::vector<Run>; ///< runs of one tester, indenter, anvil and scale, in order of time
    /// The setting that a reading was made with; null when there is no run with it, or the reading has no time.
    const Setting* settingOf(const Reading& reading) const;
    /// The first of its runs after the reading.
    static Setting::const_iterator after(const Setting& setting, const Reading& reading);

    const Tables& m_tables;
    int m_days = 0; ///< that a run may lie before a reading
    std::vector<Setting> m_settings;
};

/// M11. Nearer than this to an earlier rebound strike the metal is work hardened and reads high; mm.
inline constexpr double betweenStrikes_mm = 3;

/// The readings of one blade that a verdict may rest on, and everything found out about them on the way.
struct ReadingSet {
    std::vector<const Reading*> standing; ///< valid, unstruck
    std::vector<const Reading*> left_out; ///< unstruck but against a rule (M1, M3, M4)
    std::vector<double> hrc;              ///< of the standing ones, converted where read on another scale
    TesterModel tester;                   ///< in HRC points
    std::optional<BlockBias> bias;
    std::optional<ErrorHistory> usual; ///< of the tester, where no run of the day tells its error
    double aged_u = 0;                 ///< E35: of the drift since a run of an earlier day, HRC
    std::optional<double> block_hrc;   ///< of the block that the bias was found on; none between two
    double conversion_u = 0;
    double convex_u = 0;                ///< M5, HRC
    std::vector<const Reading*> beside; ///< of another tester than the one that is judged (E7)
    std::vector<Reason> reasons;        ///< about validity, in the order of the checks
    bool verified = false;
    int verified_readings = 0;   ///< of the standing ones
    bool verified_since = false; ///< the newest run came after all of them, was good and covers them
    bool rebound = false;        ///< M11 holds: read by rebound strikes
    std::string verification;    ///< id of the run
};

/// What is known of a tester before it has read anything here: its kind, its display, its own scatter in HRC; E56: as
/// it was known on a local day, where one is given.
TesterModel modelOf(const Tester& tester, std::optional<std::int64_t> day = std::nullopt);

/// The hardness of all files of the shop's sets, softest first.
std::vector<double> filesAtHand(const std::vector<Tester>& testers);

/// A reading in HRC, converted where it was read on another scale; none outside the conversion table. For drawing; a
/// verdict also corrects and weighs it.
std::optional<double> inHrc(const Tables& tables, const Reading& reading);

/// Order of the checks, step 1: sorts the candidates (unstruck readings of one blade) into standing and left
/// out, finds their verification and says what is valid and what is not. alloy_percent decides the uncertainty
/// of a conversion.
ReadingSet standingReadings(const Batch& batch, const Blade& blade, const std::vector<const Reading*>& candidates,
                            const VerificationBook& book, const Tables& tables, double alloy_percent);

} // namespace rollcall
