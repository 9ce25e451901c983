// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/demo_shop.h"

#include "core/base/number.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/heat.h"
#include "logbook/actions/instruments.h"
#include "logbook/actions/proof.h"

#include <algorithm>

namespace rollcall {

void DemoShop::hedge5() {
    at(1, 200);
    BatchDraft draft;
    draft.name = "Hedge 5";
    draft.grade = "51CrV4";
    draft.lot = "leaf stock";
    draft.purpose = "billhook";
    draft.window = {53.0, 56.0};
    draft.window_text = "53:56";
    draft.plan = hardnessPlan(3, 3);
    for (const Gate gate : {Gate::heat, Gate::edge, Gate::proof}) draft.plan[indexOf(gate)] = {true, 1};
    BladeShape shape = BladeShape::knife(236, 68, 5.0);
    shape.reading_line_mm = 5;
    std::vector<Piece> bh = addBatch(draft, "BH", 5, shape, "5");
    hedgeHeat(bh);
    verify(m_bench, m_block55, {55.4, 55.3, 55.5, 55.4, 55.4});
    const std::array<double, 5> quenched{60.6, 60.2, 60.4, 56.1, 60.5};
    for (std::size_t i = 0; i < bh.size(); ++i) readThree(bh[i], Gate::quench, 0, quenched[i]);
    at(0, 200);
    temper({bh[0], bh[1], bh[2], bh[4]}, 225, 2);
    at(0, 45);
    // Bench 2 has not seen a block today.
    bh[0].taken = 0;
    for (const double value : {55.0, 54.5, 55.0}) log(bh[0], Gate::temper, 1, value, m_dial);
    at(0, 40);
    verify(m_bench, m_block55, {55.4, 55.4, 55.3, 55.5, 55.4});
    bh[1].taken = 0;
    for (const double value : {57.6, 57.8, 57.7}) log(bh[1], Gate::temper, 1, value); // hard: temper again
    bh[2].taken = 0;
    const std::string slip = log(bh[2], Gate::temper, 1, 51.2);
    must(strikeReading(*m_logbook, slip, StrikeReason::seating, "swarf under the blade"));
    for (const double value : {55.0, 54.8, 55.1}) log(bh[2], Gate::temper, 1, value);
    // Files on two blades: one answer that agrees, one that contradicts itself.
    const auto files = [&](const Piece& piece, std::vector<FileTrial> trials) {
        FileTest test;
        test.gate = Gate::temper;
        test.after_temper = 1;
        test.trials = std::move(trials);
        must(logFileTest(*m_logbook, piece.id, m_files, test));
    };
    files(bh[2], {{50, FileTouch::skates}, {55, FileTouch::touches}, {60, FileTouch::bites}});
    files(bh[1], {{55, FileTouch::bites}, {60, FileTouch::skates}});
    bh[4].taken = 0;
    for (const double value : {55.2, 54.9, 55.1}) log(bh[4], Gate::temper, 1, value);
    must(excuse(*m_logbook, bh[3].id, Gate::edge, "is hardened anew first"));
    plan(m_oven, "temper 2", 240, 2, -70, true);
    at(0, 38);
    hedgeEdges(bh);
    hedgeTrials(bh);
}

void DemoShop::hedgeHeat(const std::vector<Piece>& bh) {
    HeatDraft heat;
    heat.batch = m_batch;
    heat.oven = m_oven;
    heat.set_c = 845;
    heat.min_minutes = 5;
    heat.max_minutes = 10;
    heat.medium = "fast oil";
    heat.medium_c = 60;
    heat.edge_mm = 1.0;
    heat.as_entered = "845";
    const std::string run = must(startHeat(*m_logbook, heat));
    constexpr double in_s = 120;
    TraceDraft trace;
    trace.run = run;
    trace.name = QStringLiteral("hedge-5-oven.csv");
    trace.trace = ovenTrace(845, in_s, 2000, 48);
    must(addTrace(*m_logbook, trace));
    const std::array<double, 5> minutes_in{14.5, 14.9, 21.0, 15.3, 15.7};
    for (std::size_t i = 0; i < bh.size(); ++i) {
        const double out = in_s + 60 * minutes_in[i];
        must(markHeat(*m_logbook, run, bh[i].id, 1, HeatMoment::in, in_s));
        must(markHeat(*m_logbook, run, bh[i].id, 1, HeatMoment::out, out));
        must(markHeat(*m_logbook, run, bh[i].id, 1, HeatMoment::quenched, out + (i == 3 ? 4.6 : 1.4)));
    }
}

void DemoShop::rung(const Piece& piece, double force_n, double raise_deg, double place_mm, EdgeOutcome outcome,
                    std::optional<double> size_mm) {
    EdgeRung taken;
    taken.after_temper = 1;
    taken.force_n = force_n;
    taken.raise_deg = raise_deg;
    taken.outcome = outcome;
    taken.size_mm = size_mm;
    taken.place_mm = place_mm;
    must(logRung(*m_logbook, piece.id, taken, fmt::format("{:g} N {:g}°", force_n, raise_deg)));
}

void DemoShop::hedgeEdges(const std::vector<Piece>& bh) {
    must(askEdge(*m_logbook, m_batch, {"Chopper", "softer and thicker", false, {135, 45}}));
    const EdgeGeometry stout{0.9, 23, EdgeGrind::convex, "belt, 400 grit", 1.0};
    const EdgeGeometry thin{0.45, 15, EdgeGrind::flat, "belt, 400 grit", 1.0};
    for (const std::size_t i : {0U, 2U, 4U}) must(measureEdge(*m_logbook, bh[i].id, stout, "0.9 mm 23"));
    must(measureEdge(*m_logbook, bh[1].id, thin, "0.45 mm 15"));
    rung(bh[0], 45, 35, 48, EdgeOutcome::held);
    rung(bh[0], 90, 45, 60, EdgeOutcome::held);
    rung(bh[0], 135, 45, 72, EdgeOutcome::set, 0.03);
    rung(bh[1], 45, 25, 48, EdgeOutcome::held);
    rung(bh[1], 90, 25, 60, EdgeOutcome::held);
    rung(bh[1], 90, 35, 72, EdgeOutcome::set, 0.04);
    rung(bh[1], 135, 45, 84, EdgeOutcome::chip, 0.35);
    rung(bh[2], 45, 35, 48, EdgeOutcome::held);
    rung(bh[2], 90, 35, 60, EdgeOutcome::chip, 0.9);
    must(markDamage(*m_logbook, bh[2].id,
                    {"", "chip", 60.0, 0.9, "bright and coarse in the fracture", "", m_now, {}, {}}));
    must(noteGrinding(*m_logbook, bh[0].id, {false, false, "", m_now}));
    must(noteGrinding(*m_logbook, bh[4].id, {true, false, "straw near the tip", m_now}));
}

std::string DemoShop::begin(const Piece& piece, const char* protocol) {
    for (const Protocol& shipped : m_tables.protocols()) {
        if (shipped.name == protocol) return must(beginTrial(*m_logbook, piece.id, 1, 1, shipped));
    }
    throw Failed{{ErrorKind::table, protocol, "no such protocol"}};
}

void DemoShop::event(const std::string& trial, TrialAct act, double value, const char* text, double second,
                     double third, int times) {
    for (int i = 0; i < times; ++i) must(trialEvent(*m_logbook, trial, {act, value, second, third, text, m_now}));
}

void DemoShop::hedgeTrials(const std::vector<Piece>& bh) {
    const std::string whole = begin(bh[4], "Performance trial");
    for (const double mm : {372.0, 246.0, 48.0}) event(whole, TrialAct::answer, mm);
    event(whole, TrialAct::acknowledged, 0, "rope");
    event(whole, TrialAct::count);
    event(whole, TrialAct::answer);
    event(whole, TrialAct::acknowledged, 0, "chop");
    for (const int strokes : {31, 34}) {
        event(whole, TrialAct::count, 0, "", 0, 0, strokes);
        event(whole, TrialAct::answer);
    }
    event(whole, TrialAct::acknowledged, 0, "edge");
    event(whole, TrialAct::answer);
    event(whole, TrialAct::acknowledged, 0, "bend");
    event(whole, TrialAct::plan, 5, "", 120, 300);
    event(whole, TrialAct::bend, 30, "", 210);
    event(whole, TrialAct::bend, 60, "", 320);
    event(whole, TrialAct::set, 62);
    event(whole, TrialAct::answer, 92, "as far as it goes, whole", 380);
    must(takeOut(*m_logbook, bh[4].id, Fate::coupon, Gate::proof, "Performance trial: passed, and used up"));

    const std::string nail = begin(bh[1], "Nail");
    event(nail, TrialAct::answer);
    event(nail, TrialAct::acknowledged, 0, "nail");
    event(nail, TrialAct::fail, 0, "chipped");

    for (const auto& [i, lasted] : {std::pair(0U, 12), std::pair(2U, 8)}) {
        const std::string cuts = begin(bh[i], "Cut to dull");
        event(cuts, TrialAct::acknowledged, 0, "rope");
        for (int look = 1; look <= lasted; ++look)
            event(cuts, look > lasted - 3 ? TrialAct::hesitates : TrialAct::cuts, 10);
        event(cuts, TrialAct::fail, 10, "dull");
    }
    must(addStudy(*m_logbook, {"", "Thin edge against stout", "edge", {bh[0].id, bh[1].id, bh[2].id}}));

    const std::string rehearsal = begin(bh[0], "Shop rehearsal");
    event(rehearsal, TrialAct::acknowledged, 0, "rope");
    for (int rope = 0; rope < 3; ++rope) {
        event(rehearsal, TrialAct::count);
        event(rehearsal, TrialAct::answer);
    }
    event(rehearsal, TrialAct::acknowledged, 0, "chop");
    event(rehearsal, TrialAct::count, 0, "", 0, 0, 23);
}

} // namespace rollcall
