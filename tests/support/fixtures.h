// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"
#include "core/judge/record.h"

#include <string>

/// Values that many tests begin with.
namespace rollcall::fixtures {

/// The tables that ship.
inline const Tables& tables() {
    static const Tables loaded = Tables::load(std::string(ROLLCALL_DATA_DIR) + "/tables").value();
    return loaded;
}

/// A moment on 2026-11-24, hours and minutes of UTC.
inline Instant at(int hour, int minute = 0, int day = 24) {
    constexpr std::int64_t firstOfNovember = 1793491200000; // 2026-11-01T00:00:00Z
    return {firstOfNovember + ((day - 1) * 1440 + hour * 60 + minute) * std::int64_t{60000}, 0};
}

inline Reading reading(const std::string& id, double value, Gate gate, int temper,
                       std::optional<Instant> time = at(10)) {
    Reading r;
    r.id = id;
    r.gate = gate;
    r.after_temper = temper;
    r.value = value;
    r.time = time;
    r.tester = "t1";
    return r;
}

/// A run on a block at 62.6 whose error is exactly 0.2 from five readings, at 8 o'clock.
inline Verification goodRun(std::vector<double> readings = {62.7, 62.9, 62.8, 62.8, 62.8}, Instant time = at(8)) {
    Verification run;
    run.id = "v1";
    run.tester = "t1";
    run.block = "62.6";
    run.certified = 62.6;
    run.block_uncertainty = 0.3;
    run.readings = std::move(readings);
    run.time = time;
    return run;
}

/// A batch of this grade and window with the given blades' marks, all tempered once at 205 degrees.
inline Batch batch(const std::string& grade, Window window, const std::vector<std::string>& marks) {
    Batch b;
    b.id = b.name = "B";
    b.grade = grade;
    b.window = window;
    b.plan[indexOf(Gate::quench)] = {true, 3};
    b.plan[indexOf(Gate::temper)] = {true, 3};
    Tester tester;
    tester.id = "t1";
    tester.name = "Bench 1";
    b.testers.push_back(tester);
    b.verifications.push_back(goodRun());
    for (const std::string& mark : marks) {
        Blade blade;
        blade.id = blade.mark = mark;
        blade.shape = BladeShape::knife(58, 16, 2.4);
        blade.shape.reading_line_mm = 2.6;
        blade.tempers.push_back({"c1", 1, 1, 205, 2, "205 2", at(9)});
        b.blades.push_back(blade);
    }
    return b;
}

/// Gives a blade readings at a gate.
inline void read(Blade& blade, Gate gate, std::vector<double> values, int temper = 1) {
    for (const double value : values) {
        const std::string id = blade.mark + "-" + std::to_string(blade.readings.size());
        blade.readings.push_back(reading(id, value, gate, gate == Gate::quench ? 0 : temper));
    }
}

} // namespace rollcall::fixtures
