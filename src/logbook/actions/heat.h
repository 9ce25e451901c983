// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/logbook.h"

/// Ovens, recipes, heats, the day, warp and temper colours. Each act is one transaction with its entry in
/// the change log, on disk when the call returns; what is refused leaves no trace.
namespace rollcall {

/// A heat about to begin; its clock starts at zero.
struct HeatDraft {
    std::string batch;
    std::string oven; ///< id
    double set_c = 0;
    double near_c = 10;
    std::optional<double> min_minutes;
    std::optional<double> max_minutes;
    HeatSurface surface = HeatSurface::scaled;
    std::string medium;
    std::optional<double> medium_c;
    double medium_tolerance_c = 15;
    std::optional<double> edge_mm;
    std::string as_entered;
    std::optional<Instant> zero; ///< none: now
};

/// A stretch of trace to be kept with a heat.
struct TraceDraft {
    std::string run;
    QString name;
    QByteArray file; ///< as given, kept as an attachment; empty for samples from a wire
    Trace trace;
    double shift_s = 0; ///< of the trace's clock on the run's
    bool fresh = true;  ///< begins the trace anew; else goes on where it ended
};

enum class HeatMoment { in, out, quenched };
template<>
inline constexpr std::array namesOf<HeatMoment>{"in", "out", "quenched"};

/// What was noted of a blade in a heat; what is none is left as it was noted before.
struct HeatNoteDraft {
    std::string run;
    std::string blade;
    int round = 1;
    std::optional<double> transfer_s;
    std::optional<double> quenchant_c;
    std::optional<double> noted_c;
    std::optional<double> noted_minutes;
    std::string note;
    std::string as_entered;
};

Result<std::string> addOven(Logbook& logbook, const Oven& oven);
Result<Done> changeOven(Logbook& logbook, const Oven& oven);
/// Keeps a recipe; one of a known name becomes its next version. Errors (refused): no name, no stages.
Result<std::string> addRecipe(Logbook& logbook, const Recipe& recipe);
/// The version a batch runs from now on.
Result<Done> useRecipe(Logbook& logbook, const std::string& batch, const std::string& recipe);
/// Errors (refused): a set point outside 100 to 1400 °C, limits of soak that are swapped.
Result<std::string> startHeat(Logbook& logbook, const HeatDraft& draft);
Result<Done> strikeHeat(Logbook& logbook, const std::string& run, const std::string& reason);
Result<Done> addTrace(Logbook& logbook, const TraceDraft& draft);
/// A blade's moment on the run's clock. A later mark of the same kind takes the place of an earlier one.
Result<Done> markHeat(Logbook& logbook, const std::string& run, const std::string& blade, int round, HeatMoment moment,
                      double clock_s);
Result<Done> noteHeat(Logbook& logbook, const HeatNoteDraft& note);
/// Errors (refused): the oven is taken then, and by what.
Result<std::string> planRun(Logbook& logbook, const PlannedRun& run, const std::string& as_entered);
/// kind: started, out, cancelled.
Result<Done> markPlanned(Logbook& logbook, const std::string& planned, const char* kind);
Result<Done> logWarp(Logbook& logbook, const std::string& blade, int round, int after_temper, const Warp& warp,
                     const std::string& as_entered);
Result<Done> logColour(Logbook& logbook, const std::string& blade, const ColourNote& note);

} // namespace rollcall
