// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/schedule.h"

#include <algorithm>

namespace rollcall {

std::vector<DayEvent> dayEvents(const std::vector<PlannedRun>& runs, std::int64_t now_ms) {
    std::vector<DayEvent> events;
    for (std::size_t i = 0; i < runs.size(); ++i) {
        const PlannedRun& run = runs[i];
        if (run.cancelled) continue;
        if (run.out) {
            if (run.cool_minutes > 0 && run.freeAt() > now_ms)
                events.push_back({DayEvent::Kind::cooled, run.freeAt(), i, false});
        } else if (!run.started) {
            events.push_back({DayEvent::Kind::putIn, run.start_ms, i, run.start_ms <= now_ms});
        } else {
            events.push_back({DayEvent::Kind::takeOut, run.outAt(), i, run.outAt() <= now_ms});
        }
    }
    std::stable_sort(events.begin(), events.end(),
                     [](const DayEvent& a, const DayEvent& b) { return a.at_ms < b.at_ms; });
    return events;
}

std::optional<std::size_t> clash(const std::vector<PlannedRun>& runs, const PlannedRun& planned) {
    for (std::size_t i = 0; i < runs.size(); ++i) {
        const PlannedRun& other = runs[i];
        if (!other.open() || other.oven != planned.oven || other.id == planned.id) continue;
        const bool together = other.start_ms == planned.start_ms && other.hours == planned.hours &&
                              other.temperature_c == planned.temperature_c;
        if (!together && planned.start_ms < other.freeAt() && other.start_ms < planned.freeAt()) return i;
    }
    return std::nullopt;
}

std::int64_t earliestStart(const std::vector<PlannedRun>& runs, PlannedRun planned, std::int64_t from_ms) {
    planned.start_ms = from_ms;
    // Each clash moves the start behind a temper that ends later; there are finitely many of those.
    while (const auto other = clash(runs, planned)) planned.start_ms = runs[*other].freeAt();
    return planned.start_ms;
}

} // namespace rollcall
