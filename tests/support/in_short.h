// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/record.h"

#include <fmt/format.h>
#include <string>

namespace rollcall::fixtures {

/// How much of each kind of thing a batch holds, and what its readings say: the same of the same batch.
inline std::string inShort(const Batch& batch) {
    std::string text = fmt::format("{} of {} sold as {}, {} to {}, recipe {}", batch.name, batch.grade, batch.claimed,
                                   batch.window.low.value_or(0), batch.window.high.value_or(0),
                                   batch.recipe ? batch.recipe->name : "none");
    const auto size = [&](const auto&... lists) { ((text += fmt::format(" {}", lists.size())), ...); };
    size(batch.other_steels, batch.certificate, batch.shots, batch.steel_notes, batch.blades, batch.verifications,
         batch.testers, batch.heat_runs, batch.notes, batch.zone_windows);
    text += fmt::format("; {} {} {} {} {}", batch.edge_ask.has_value(), batch.sample_asked.value_or(0),
                        batch.grain_least.value_or(0), static_cast<int>(batch.rule), batch.rehardening_limit);
    for (const GatePlan& plan : batch.plan)
        text += fmt::format(" {}/{}/{}", plan.required, plan.planned_readings, plan.by_files);
    for (const Blade& blade : batch.blades) {
        text += fmt::format("\n{} round {} surface {} own {} fate {}", blade.mark, blade.round, blade.surface,
                            blade.own.has_value(), blade.fate.has_value());
        size(blade.readings, blade.tempers, blade.series, blade.file_tests, blade.heats, blade.warps, blade.colours,
             blade.colds, blade.edges, blade.rungs, blade.grinding, blade.damage, blade.trials, blade.fractures,
             blade.signatures, blade.excuses, blade.looks);
        for (const Trial& trial : blade.trials) size(trial.events);
        for (const FileTest& test : blade.file_tests) size(test.trials);
        for (const Reading& reading : blade.readings)
            text += fmt::format(" {}{}{}{}{}", reading.value, reading.struck ? "x" : "", reading.surface,
                                static_cast<int>(reading.zone), reading.accepted_because);
    }
    return text;
}

} // namespace rollcall::fixtures
