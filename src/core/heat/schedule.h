// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

namespace rollcall {

/// A run that is planned for, or running in, an oven. Times are UTC milliseconds since 1970.
struct PlannedRun {
    std::string id;
    std::string batch; ///< id
    std::string batch_name;
    std::string oven; ///< id
    std::string oven_name;
    std::string what; ///< "temper 2"
    double temperature_c = 0;
    double hours = 0;
    double warm_minutes = 0; ///< until the oven is at temperature
    double cool_minutes = 0; ///< after it, before the oven or the blades can be used again
    std::int64_t start_ms = 0;
    bool started = false;
    bool out = false; ///< taken out
    bool cancelled = false;

    std::int64_t outAt() const { return start_ms + static_cast<std::int64_t>((hours * 60 + warm_minutes) * 60000.0); }
    std::int64_t freeAt() const { return outAt() + static_cast<std::int64_t>(cool_minutes * 60000.0); }
    bool open() const { return !out && !cancelled; }
};

/// What happens next in the day.
struct DayEvent {
    enum class Kind { putIn, takeOut, cooled } kind = Kind::putIn;
    std::int64_t at_ms = 0;
    std::size_t run = 0; ///< place in the list given
    bool due = false;    ///< its moment has come: to be seen and heard
};

/// Everything that is still to happen, by time; what is due comes first.
std::vector<DayEvent> dayEvents(const std::vector<PlannedRun>& runs, std::int64_t now_ms);

/// The first open run of the same oven whose time overlaps with this one; none when they do not clash. Two batches
/// may share an oven at one temperature for the same stretch: same start, hours and temperature do not clash.
std::optional<std::size_t> clash(const std::vector<PlannedRun>& runs, const PlannedRun& planned);

/// The earliest start at or after a moment at which this run fits into its oven.
std::int64_t earliestStart(const std::vector<PlannedRun>& runs, PlannedRun planned, std::int64_t from_ms);

} // namespace rollcall
