// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/ranges.h"

#include "core/base/number.h"

#include <algorithm>
#include <fmt/format.h>
#include <string_view>
#include <unordered_map>

namespace rollcall {

const std::vector<StoredRange>& storedRanges() {
    // Hardness of any scale and of rebound (L to 1000). Temperatures from liquid nitrogen to what melts steel.
    static const std::vector<StoredRange> ranges{
        {"tester", "resolution", "a resolution", "", 0, 50},
        {"tester", "files", "a file", "HRC", 0, 110, true},
        {"file_test", "skates", "a file", "HRC", 0, 110, true},
        {"file_test", "bites", "a file", "HRC", 0, 110, true},
        {"file_test", "touches", "a file", "HRC", 0, 110, true},
        {"block", "certified", "a certified hardness", "", 0, 1000},
        {"block", "uncertainty", "the uncertainty of a block", "", 0, 50},
        {"block", "diameter_mm", "a block's face", "mm", 1, 500},
        {"block", "spacing_mm", "a distance between indents", "mm", 0.1, 50},
        {"block", "used_before", "places taken", "", 0, 100000},
        {"purpose", "window_low", "a window", "HRC", 0, 110},
        {"purpose", "window_high", "a window", "HRC", 0, 110},
        {"batch", "allowance", "an allowance", "HRC", 0, 10},
        {"batch", "quench_minimum", "a minimum", "HRC", 0, 110},
        {"batch", "minimum_tempers", "a number of tempers", "", 0, 20},
        {"gate_plan", "planned", "a number of readings", "", 0, 1000},
        {"blade", "thickness_mm", "a thickness", "mm", 0.05, 200},
        {"blade", "reading_line_mm", "a reading line", "mm", 0, 1000},
        {"cycle", "temperature_c", "a temperature", "°C", 20, 800},
        {"cycle", "hours", "a time", "h", 0, 1000},
        {"reading", "value", "a reading", "", -100, 1100},
        {"reading", "resolution", "a resolution", "", 0, 50},
        {"reading", "x_mm", "a place", "mm", -1000, 5000},
        {"reading", "y_mm", "a place", "mm", -1000, 5000},
        {"reading", "convex_radius_mm", "a radius", "mm", 0.5, 10000},
        {"strike_series", "instrument_mean", "a mean", "", -100, 1100},
        {"oven", "step_c", "an oven's step", "°C", 0.1, 50},
        {"recipe_stage", "temperature_c", "a temperature", "°C", -200, 1400},
        {"recipe_stage", "minutes", "a time", "min", 0, 100000},
        {"recipe_stage", "max_minutes", "a time", "min", 0, 100000},
        {"recipe_stage", "tolerance_c", "a tolerance", "°C", 0, 500},
        {"heat_run", "set_c", "a set point", "°C", 100, 1400},
        {"heat_run", "near_c", "a nearness", "°C", 0, 500},
        {"heat_run", "min_minutes", "a soak", "min", 0, 100000},
        {"heat_run", "max_minutes", "a soak", "min", 0, 100000},
        {"heat_run", "medium_c", "a quenchant", "°C", -200, 700},
        {"heat_run", "medium_tolerance_c", "a tolerance", "°C", 0, 500},
        {"heat_run", "edge_mm", "an edge", "mm", 0.01, 200},
        {"heat_mark", "clock_s", "a moment", "s", -864000, 8640000},
        {"heat_note", "transfer_s", "a transfer", "s", 0, 86400},
        {"heat_note", "quenchant_c", "a quenchant", "°C", -200, 700},
        {"heat_note", "noted_c", "a temperature", "°C", 20, 1400},
        {"heat_note", "noted_minutes", "a soak", "min", 0, 100000},
        {"trace_part", "shift_s", "a shift of clocks", "s", -1e9, 1e9},
        {"planned_cycle", "temperature_c", "a temperature", "°C", 20, 800},
        {"planned_cycle", "hours", "a time", "h", 0, 1000},
        {"planned_cycle", "warm_minutes", "a time", "min", 0, 10000},
        {"planned_cycle", "cool_minutes", "a time", "min", 0, 10000},
        {"study_plan", "difference", "a difference", "", 1e-6, 1e6},
        {"study_plan", "sd", "a scatter", "", 1e-6, 1e6},
        {"study_plan", "power", "a power", "", 0.5, 0.99},
        {"study_plan", "pieces", "a number of pieces", "", 2, 50},
        {"warp", "mm", "a bow", "mm", 0, 200},
        {"lot_value", "percent", "a share", "%", 0, 100},
        {"steel_value", "percent", "a share", "%", 0, 100},
        {"steel_value", "lod", "a limit of detection", "%", 0, 100},
        {"steel_value", "sigma", "an error", "%", 0, 100},
        {"steel_note", "hrc", "a hardness", "HRC", 0, 110},
        {"edge_geometry", "behind_edge_mm", "an edge", "mm", 0.005, 50},
        {"edge_geometry", "angle_deg", "an angle", "°", 0.5, 90},
        {"edge_geometry", "before_hardening_mm", "an edge", "mm", 0.005, 200},
        {"edge_rung", "force_n", "a force", "N", 0, 10000},
        {"edge_rung", "raise_deg", "an angle", "°", 0, 90},
        {"edge_rung", "contact_mm", "a length", "mm", 0, 1000},
        {"edge_rung", "size_mm", "a length", "mm", 0, 1000},
        {"edge_rung", "place_mm", "a place", "mm", -1000, 5000},
        {"edge_ask", "force_n", "a force", "N", 0, 10000},
        {"edge_ask", "raise_deg", "an angle", "°", 0, 90},
        {"damage", "place_mm", "a place", "mm", -1000, 5000},
        {"damage", "size_mm", "a length", "mm", 0, 5000},
        {"trial_event", "value", "a number", "", -1e6, 1e6},
        {"trial_event", "second", "a number", "", -1e6, 1e6},
        {"trial_event", "third", "a number", "", -1e6, 1e6},
        {"fracture", "width", "a picture", "px", 1, 100000},
        {"fracture", "height", "a picture", "px", 1, 100000},
        {"fracture_scale", "px_per_mm", "a scale", "px/mm", 1, 10000},
        {"fracture_line", "ax", "a place", "px", -100000, 200000},
        {"fracture_line", "ay", "a place", "px", -100000, 200000},
        {"fracture_line", "bx", "a place", "px", -100000, 200000},
        {"fracture_line", "by", "a place", "px", -100000, 200000},
        {"grain_ask", "least", "a grain size", "", 1, 12},
        {"zone_window", "low", "a window", "HRC", 0, 110},
        {"zone_window", "high", "a window", "HRC", 0, 110},
        {"batch_rules", "allowance", "an allowance", "HRC", 0, 10},
        {"batch_rules", "rehardening_limit", "a number of rounds", "", 0, 20},
        {"batch_rules", "spacing_mm", "a distance between indents", "mm", 0, 50},
        {"batch_rules", "edge_mm", "a distance from the edge", "mm", 0, 50},
        {"cold", "temperature_c", "a temperature", "°C", -273, 20},
        {"cold", "hours", "a time", "h", 0, 10000},
        {"hardening_round", "number", "a round", "", 0, 100},
        {"cycle_blade", "round", "a round", "", 0, 100},
        {"reading", "round", "a round", "", 0, 100},
        {"file_test", "round", "a round", "", 0, 100},
        {"heat_mark", "round", "a round", "", 0, 100},
        {"heat_note", "round", "a round", "", 0, 100},
        {"warp", "round", "a round", "", 0, 100},
        {"temper_colour", "round", "a round", "", 0, 100},
        {"edge_rung", "round", "a round", "", 0, 100},
        {"trial", "round", "a round", "", 0, 100},
        {"fracture", "round", "a round", "", 0, 100},
        {"cold", "round", "a round", "", 0, 100},
        {"surprise_look", "round", "a round", "", 0, 100},
        {"disposition", "round", "a round", "", 0, 100},
        {"cycle_blade", "number", "a temper", "", 0, 100},
        {"reading", "after_cycle", "a temper", "", 0, 100},
        {"file_test", "after_cycle", "a temper", "", 0, 100},
        {"warp", "after_cycle", "a temper", "", 0, 100},
        {"temper_colour", "after_cycle", "a temper", "", 0, 100},
        {"edge_rung", "after_cycle", "a temper", "", 0, 100},
        {"trial", "after_cycle", "a temper", "", 0, 100},
        {"fracture", "after_cycle", "a temper", "", 0, 100},
        {"cold", "after_cycle", "a temper", "", 0, 100},
        {"surprise_look", "after_temper", "a temper", "", 0, 100},
        {"blade", "position", "a place in the batch", "", 0, 1000000},
        {"blade_claim", "window_low", "a window", "HRC", 0, 110},
        {"blade_claim", "window_high", "a window", "HRC", 0, 110},
        {"blade_claim", "quench_minimum", "a minimum", "HRC", 0, 110},
        {"blade_claim", "minimum_tempers", "a number of tempers", "", 0, 20}};
    return ranges;
}

const StoredRange* rangeOf(const char* table, const char* column) {
    // By table: an entry asks once for each of its numbers.
    static const auto byTable = [] {
        std::unordered_map<std::string_view, std::vector<const StoredRange*>> ranges;
        for (const StoredRange& range : storedRanges()) ranges[range.table].push_back(&range);
        return ranges;
    }();
    const auto ofTable = byTable.find(table);
    if (ofTable == byTable.end()) return nullptr;
    for (const StoredRange* range : ofTable->second) {
        if (std::string_view(range->column) == column) return range;
    }
    return nullptr;
}

std::optional<std::vector<double>> numbersIn(const StoredRange& range, const std::string& text) {
    if (text.empty()) return std::vector<double>();
    auto numbers = parseNumbers(text);
    if (!numbers) return std::nullopt;
    for (const double number : *numbers) {
        if (!(number >= range.least && number <= range.most)) return std::nullopt;
    }
    return std::move(numbers).value();
}

std::optional<Error> tooLong(const char* column, std::size_t characters) {
    constexpr std::size_t longestName = 200;
    constexpr std::size_t longestText = 1000000;
    static const std::vector<std::string_view> names{"mark",  "name", "initials", "designation",
                                                     "piece", "zone", "place"};
    const bool name = std::find(names.begin(), names.end(), column) != names.end();
    const std::size_t longest = name ? longestName : longestText;
    if (characters <= longest) return std::nullopt;
    return Error{
        ErrorKind::range, column,
        fmt::format("a {} of {} characters is too long: {} at most", name ? column : "text", characters, longest)};
}

Error outside(const StoredRange& range, double value) {
    const std::string unit = *range.unit == 0 ? std::string() : std::string(" ") + range.unit;
    return {ErrorKind::range, range.what,
            fmt::format("{} of {:g}{} lies outside {:g} to {:g}", range.what, value, unit, range.least, range.most)};
}

Error outside(const StoredRange& range, const std::string& list) {
    return {ErrorKind::range, range.what,
            fmt::format("'{}' holds what is not {} of {:g} to {:g} {}", list.substr(0, 40), range.what, range.least,
                        range.most, range.unit)};
}

} // namespace rollcall
