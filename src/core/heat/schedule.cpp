// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/schedule.h"

#include <algorithm>

namespace rollcall {

std::vector<DayEvent> dayEvents(const std::vector<PlannedCycle>& cycles, std::int64_t now_ms) {
    std::vector<DayEvent> events;
    for (std::size_t i = 0; i < cycles.size(); ++i) {
        const PlannedCycle& cycle = cycles[i];
        if (cycle.cancelled) continue;
        if (cycle.out) {
            if (cycle.cool_minutes > 0 && cycle.freeAt() > now_ms)
                events.push_back({DayEvent::Kind::cooled, cycle.freeAt(), i, false});
        } else if (!cycle.started) {
            events.push_back({DayEvent::Kind::putIn, cycle.start_ms, i, cycle.start_ms <= now_ms});
        } else {
            events.push_back({DayEvent::Kind::takeOut, cycle.outAt(), i, cycle.outAt() <= now_ms});
        }
    }
    std::stable_sort(events.begin(), events.end(),
                     [](const DayEvent& a, const DayEvent& b) { return a.at_ms < b.at_ms; });
    return events;
}

std::optional<std::size_t> clash(const std::vector<PlannedCycle>& cycles, const PlannedCycle& planned) {
    for (std::size_t i = 0; i < cycles.size(); ++i) {
        const PlannedCycle& other = cycles[i];
        if (!other.open() || other.oven != planned.oven || other.id == planned.id) continue;
        const bool together = other.start_ms == planned.start_ms && other.hours == planned.hours &&
                              other.temperature_c == planned.temperature_c;
        if (!together && planned.start_ms < other.freeAt() && other.start_ms < planned.freeAt()) return i;
    }
    return std::nullopt;
}

std::int64_t earliestStart(const std::vector<PlannedCycle>& cycles, PlannedCycle planned, std::int64_t from_ms) {
    planned.start_ms = from_ms;
    // Each clash moves the start behind a cycle that ends later; there are finitely many of those.
    while (const auto other = clash(cycles, planned)) planned.start_ms = cycles[*other].freeAt();
    return planned.start_ms;
}

} // namespace rollcall
