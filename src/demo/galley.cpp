// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/demo_shop.h"

#include "core/base/number.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/steel.h"

#include <algorithm>

namespace rollcall {

void DemoShop::galley8() {
    at(0, 180);
    BatchDraft draft;
    draft.name = "Galley 8";
    draft.grade = "X50CrMoV15";
    draft.lot = "bar G, no certificate";
    draft.purpose = "filleting knife";
    draft.window = {55.0, 58.0};
    draft.window_text = "55:58";
    draft.plan = hardnessPlan(3, 3);
    draft.plan[indexOf(Gate::steel)] = {true, 1};
    BladeShape shape = BladeShape::knife(178, 26, 1.6);
    shape.reading_line_mm = 3;
    std::vector<Piece> fk = addBatch(draft, "FK", 8, shape, "1.6");
    // Sold as a molybdenum-vanadium cutlery steel: neither is there, and chromium is a little short.
    must(changeLot(*m_logbook, m_batch, "bar G", "river market", ""));
    shoot("Cr 13.55 0.08; Mn 0.47 0.04; Ni 0.14 0.03; Mo 0.046 0.006; V <0.05; Si 0.42 0.1; Cu 0.09 0.02", 3);
    SteelNote coupon;
    coupon.kind = SteelNoteKind::coupon;
    coupon.hrc = 53.2;
    coupon.text = "1030 °C, 15 min, oil";
    must(addSteelNote(*m_logbook, m_batch, coupon));
    at(0, 30);
    verify(m_bench, m_block55, {55.4, 55.3, 55.4, 55.5, 55.4});
    for (std::size_t i = 0; i < 6; ++i) readThree(fk[i], Gate::quench, 0, 50.4 + 0.3 * m_chance.normal());
    fk[6].taken = 0;
    log(fk[6], Gate::quench, 0, 50.6);
    // The last one by rebound: the fourth strike went where the third had been, and the instrument averages it in.
    SeriesDraft series;
    series.instrument_mean = 51.4;
    series.support = "coupled to a heavy block";
    const std::array<double, 6> strikes{50.6, 50.9, 50.4, 55.0, 50.7, 50.8};
    for (std::size_t i = 0; i < strikes.size(); ++i) {
        ReadingDraft strike;
        strike.blade = fk[7].id;
        strike.gate = Gate::quench;
        strike.after_temper = 0;
        strike.value = strikes[i];
        strike.as_entered = tenthText(strikes[i]);
        strike.tester = m_rebound;
        strike.spot = Spot{20.0 + 22.0 * static_cast<double>(i == 3 ? 2 : i), 5.0};
        series.strikes.push_back(std::move(strike));
    }
    must(logSeries(*m_logbook, series));
}

} // namespace rollcall
