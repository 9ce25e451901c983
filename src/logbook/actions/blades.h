// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/logbook.h"

/// What can be done to batches and blades: made, planned, read, tempered, excused, taken out. Each act is one
/// transaction with its entry in the change log, on disk when the call returns; what is refused leaves no trace.
namespace rollcall {

struct BladeDraft {
    std::string mark;
    BladeShape shape;
    std::string thickness_text;         ///< as typed
    std::optional<BladeClaim> own = {}; ///< where it is not as the batch
};

struct BatchDraft {
    std::string name;
    std::string grade; ///< empty when not known
    std::string lot;
    std::string purpose;
    Window window;
    std::string window_text; ///< as typed
    std::optional<double> quench_minimum;
    std::optional<int> minimum_tempers;
    /// None: the shop's; where it has chosen none, by chance, and guarded for finished knives, of which something is
    /// said to others (E59).
    std::optional<DecisionRule> rule;
    std::optional<double> allowance;
    bool uncorrected = false;
    std::array<GatePlan, gateCount> plan;
    std::vector<BladeDraft> blades;
};

struct ReadingDraft {
    std::string blade; ///< id
    Gate gate = Gate::temper;
    int round = 1;
    std::optional<int> after_temper;
    std::string scale = "HRC";
    double value = 0;
    std::string as_entered;
    double resolution = 0.1;
    std::optional<Spot> spot;
    Zone zone = Zone::edge;
    std::optional<double> convex_radius_mm; ///< of the surface; none: flat
    std::string tester;                     ///< id
    std::string series;                     ///< id of the series it belongs to; empty for none
    std::string note;
};

/// A series of rebound strikes as the instrument shows it.
struct SeriesDraft {
    std::vector<ReadingDraft> strikes;     ///< all on one blade, in the order they were struck
    std::optional<double> instrument_mean; ///< its own average, HRC
    std::string support;                   ///< how the blade lay and was coupled
};

struct TemperDraft {
    std::string batch;
    std::vector<std::string> blades; ///< ids
    std::optional<double> temperature_c;
    std::optional<double> hours;
    std::string as_entered;
    std::optional<Instant> time;
};

Result<std::string> addPerson(Logbook& logbook, const std::string& initials, const std::string& name);
Result<Done> changeSetting(Logbook& logbook, const std::string& key, const std::string& value);
/// Errors (refused): a name in use, no blades, two blades of one mark, a shape or window that cannot be.
Result<std::string> addBatch(Logbook& logbook, const BatchDraft& draft);
Result<Done> changePlan(Logbook& logbook, const std::string& batch, Gate gate, const GatePlan& plan);
/// E6. What a zone other than the edge is to read; a window without limits takes it back. Errors (refused): the edge,
/// whose window is the batch's; swapped limits.
Result<Done> changeZoneWindow(Logbook& logbook, const std::string& batch, Zone zone, const Window& window);
/// E37. Whether Quench or Temper of a batch is asked by files alone. Errors (refused): another gate.
Result<Done> changeMeans(Logbook& logbook, const std::string& batch, Gate gate, bool by_files);
/// E35. The rules a batch is judged by, and where wished those of all batches made later. Errors (refused): an
/// allowance that is not from 0 to 3, a limit below 0.
Result<Done> changeRules(Logbook& logbook, const std::string& batch, const BatchRules& rules, bool forLater);
/// The rules for batches made from now on.
Result<BatchRules> shopRules(Logbook& logbook);
Result<Done> changeLimits(Logbook& logbook, const std::string& batch, const Window& window, const std::string& text,
                          std::optional<double> quench_minimum);
/// What a blade was sold as, is taken for and is asked for; what is empty in it is the batch's, all empty takes its own
/// claim back. Errors (refused): swapped limits, a number outside HRC 20 to 70, tempers below 0.
Result<Done> changeClaim(Logbook& logbook, const std::string& blade, const BladeClaim& claim);
/// What one blade is taken for; what it was sold as stays.
Result<Done> takeFor(Logbook& logbook, const Batch& batch, const Blade& blade, const std::string& grade);
/// A forgotten blade, at the end of its batch. Errors (refused): a mark in use, none, a shape that cannot be.
Result<std::string> addBlade(Logbook& logbook, const std::string& batch, const BladeDraft& draft);
/// Measured anew, or mistyped: the blade's shape and thickness; what they were stands in the change log.
Result<Done> changeShape(Logbook& logbook, const std::string& blade, const BladeShape& shape,
                         const std::string& thickness_text);
/// Errors (refused): no name, one in use.
Result<Done> renameBatch(Logbook& logbook, const std::string& batch, const std::string& name);
Result<Done> renameBlade(Logbook& logbook, const std::string& blade, const std::string& mark);
/// Logs one reading; it is on disk when this returns.
Result<std::string> logReading(Logbook& logbook, const ReadingDraft& draft);
/// A reading that was typed for another blade than it was made on: it is struck out there and stands here, at its own
/// time and by its own tester, without a place, which is not known. Errors (refused): it is struck out, or on a block.
Result<Done> moveReading(Logbook& logbook, const Batch& batch, const std::string& reading, const std::string& to);
/// Logs a series of strikes as one action. Errors (refused): no strikes.
Result<Done> logSeries(Logbook& logbook, const SeriesDraft& series);
Result<Done> strikeReading(Logbook& logbook, const std::string& reading, StrikeReason reason, const std::string& note);
/// Takes readings out because another set stands instead of them; they stay visible. Errors (refused): no reason.
Result<Done> supersedeReadings(Logbook& logbook, const std::vector<std::string>& readings, const std::string& reason);
/// Lets a reading that breaks a rule count, with the reason.
Result<Done> acceptReading(Logbook& logbook, const std::string& reading, const std::string& reason);
Result<std::string> logTemper(Logbook& logbook, const TemperDraft& draft);
/// E44. The numbers of a temper are meant as they stand, though they would make sense in another unit.
Result<Done> meanTemper(Logbook& logbook, const std::string& temper);
/// Blades held cold, each in its present round and after its tempers so far. Errors (refused): no blades, not between
/// -200 and 0 °C, not up to 72 hours.
Result<Done> logCold(Logbook& logbook, const Batch& batch, const std::vector<std::string>& blades, double temperature_c,
                     double hours, const Instant& at);
Result<Done> strikeTemper(Logbook& logbook, const std::string& temper, const std::string& reason);
/// A new hardening round: the blade is quenched again and starts anew at the Quench gate.
Result<std::string> reharden(Logbook& logbook, const std::string& blade, const std::string& reason,
                             const std::optional<Instant>& quenched);
/// The marks of all readings on a blade so far are ground off: they leave its map, the readings stay. Errors
/// (refused): there is none.
Result<Done> grindOff(Logbook& logbook, const std::string& blade);
/// E27. Somebody looked into a surprise after this temper of the blade's present round. Errors (refused): no reason.
Result<Done> lookInto(Logbook& logbook, const Blade& blade, int after_temper, const std::string& reason);
Result<Done> excuse(Logbook& logbook, const std::string& blade, Gate gate, const std::string& reason);
Result<Done> takeOut(Logbook& logbook, const std::string& blade, Fate fate, Gate gate, const std::string& reason);

} // namespace rollcall
