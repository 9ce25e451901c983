// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/record.h"
#include "core/judge/verdict.h"

#include <optional>
#include <vector>

namespace rollcall {

/// One blade's heat of its present round, worked out: its soak, and how hot it went into the quench.
struct HeatAnswer {
    const HeatRun* run = nullptr; ///< null when no heat is logged for this round
    const BladeHeat* heat = nullptr;
    std::optional<double> clock_minutes; ///< between its marks; without any as it was written down
    bool by_note = false;                ///< the latter
    std::optional<BladeSoak> soak;       ///< none without a trace or without both marks
    std::optional<double> entering_c;    ///< M23, at the edge's thickness
    double median_equivalent = 0;        ///< of the blades of its run
    std::vector<TraceSample> faults;     ///< of the probe, while it was in; left out (E25)
    /// E46. What its soak is held against: as planned, else what the grade asks for, with the time it takes to warm up
    /// where only the clock is known. None where neither is known.
    std::optional<double> least_minutes;
    std::optional<double> most_minutes;
    bool by_grade = false;   ///< nobody typed limits
    double thickness_mm = 0; ///< of the blade; 0: not known

    /// Minutes that are judged: by the trace, else between the marks.
    std::optional<double> minutes() const { return soak ? std::optional(soak->minutes) : clock_minutes; }
};

/// M22, M23. The heats of a batch worked out once; asked for every blade.
class HeatBook {
public:
    HeatBook(const Batch& batch, const Tables& tables);
    const HeatAnswer& of(std::size_t blade) const { return m_answers[blade]; }
    /// Whether a blade's soak kept to its limits; none when that cannot be said.
    std::optional<bool> soakInLimits(std::size_t blade) const;

private:
    std::vector<HeatAnswer> m_answers;
};

/// Seconds to add to a trace's own clock to read it on a run's: by dates or times of day where the file has them, else
/// it is taken to begin with the run.
double clockShift(const HeatRun& run, const TraceFile& file);

/// When a trace began: by its dates, else by its time of day on the day before this moment or on it; this moment less
/// its length when it only counts seconds.
Instant traceBegan(const TraceFile& file, const Instant& now);

/// The Heat gate: each blade's own soak, transfer and quenchant, and where the written note and the trace differ.
/// Never a Fail: what the heat did to the steel is read at Quench.
Verdict judgeHeat(const Batch& batch, std::size_t blade, const HeatBook& book, const Tables& tables);

} // namespace rollcall
