// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/demo_shop.h"

#include "core/base/number.h"
#include "logbook/actions/blades.h"

#include <algorithm>

namespace rollcall {

double DemoShop::errorWeeksAgo(int weeks) {
    constexpr int began = 20;
    return weeks >= began ? -0.2 : -0.2 + 0.02 * (began - weeks);
}

void DemoShop::finishedYears() {
    // A larger shop has more batches a month before it has more years behind it.
    constexpr int mostYears = 10;
    const int years = std::min(m_options.scale, mostYears);
    const int weeks = 52 * years;
    const int together = (m_options.scale + years - 1) / years;
    int number = 0;
    for (int week = weeks; week >= 1; --week) {
        m_testerError = errorWeeksAgo(week);
        at(7.0 * week, 300);
        verify(m_bench, m_block62, {read(62.6), read(62.6), read(62.6), read(62.6)});
        for (int i = 0; i < together && week % 4 == 0 && number < 12 * m_options.scale; ++i) finishedBatch(++number);
    }
}

void DemoShop::finishedBatch(int number) {
    BatchDraft draft;
    draft.name = fmt::format("Grove {}", number);
    draft.grade = "115CrV3";
    draft.lot = "bar A";
    draft.purpose = "grafting knife";
    draft.window = {61.0, 63.0};
    draft.window_text = "61:63";
    draft.plan = hardnessPlan(2, 3);
    BladeShape shape = BladeShape::knife(58, 16, 2.4);
    shape.reading_line_mm = 2.6;
    std::vector<Piece> pieces = addBatch(draft, "GK", 6, shape, "2.4");
    // A shop made large, to measure with, reads each blade ten times.
    const bool large = m_options.scale > 1;
    const double heat = 0.25 * m_chance.normal();
    for (Piece& piece : pieces) readThree(piece, Gate::quench, 0, 65.3 + heat + 0.2 * m_chance.normal(), large ? 5 : 2);
    temper(pieces, 190, 2);
    pass(60);
    temper(pieces, 207, 2);
    for (Piece& piece : pieces)
        readThree(piece, Gate::temper, 2, 62.0 + 0.5 * heat + 0.15 * m_chance.normal(), large ? 5 : 3);
}

void DemoShop::trialBars() {
    at(9, 120);
    BatchDraft draft;
    draft.name = "Pruning 3";
    draft.grade = "M4";
    draft.lot = "bar P";
    draft.purpose = "pruning blade";
    draft.window = {62.0, 65.0};
    draft.window_text = "62:65";
    draft.plan[indexOf(Gate::steel)] = {true, 1};
    draft.plan[indexOf(Gate::quench)] = {true, 3};
    addBatch(draft, "PB", 3, BladeShape::knife(90, 20, 2.8), "2.8");
    shoot("V 0.11 0.02; Cr 4.1 0.05; Mo 4.9 0.04; W 5.9 0.12; Mn 0.3 0.04; Co 0.1 0.08", 2);
    at(9, 100);
    draft.name = "Layering 2"; // chromium a little short: this method cannot decide it
    draft.grade = "A2";
    draft.lot = "bar R";
    draft.purpose = "layering knife";
    draft.window = {60.0, 62.0};
    draft.window_text = "60:62";
    addBatch(draft, "LK", 2, BladeShape::knife(70, 16, 2.2), "2.2");
    shoot("Cr 4.42 0.05; Mo 1.05 0.01; V 0.2 0.03; Mn 0.7 0.05", 2);
    at(9, 90);
    draft.name = "Budding 2";
    draft.grade = "440B";
    draft.lot = "bar Q, powder";
    draft.purpose = "budding knife";
    draft.window = {56.0, 59.0};
    draft.window_text = "56:59";
    addBatch(draft, "BK", 2, BladeShape::knife(60, 14, 2.0), "2");
    shoot("Cr 17.1 0.09; Mo 0.52 0.008; Mn 0.5 0.05; Ni 0.2 0.03; V 0.03 0.02", 2);
}

} // namespace rollcall
