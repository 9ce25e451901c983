// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"
#include "demo/demo_shop.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/notes.h"
#include "logbook/actions/steel.h"

namespace rollcall {

void DemoShop::market3() {
    struct Knife {
        const char* sold_as;
        const char* purpose;
        double low;
        double high;
        double truth;     ///< HRC; 0: not read yet
        const char* shot; ///< null: not shot
    };
    // Finished knives of a market stall; the third is soft, the fifth is another steel than its box says.
    const std::array<Knife, 8> knives{
        {{"X50CrMoV15", "kitchen", 55, 57, 56.1, "Cr 14.4; Mo 0.58; V 0.14; Mn 0.42; Si 0.38; Ni 0.12"},
         {"1095", "kitchen", 60, 62, 61.0, "Cr 0.21; Mn 0.41; Si 0.22; Mo <0.03; V <0.03"},
         {"X46Cr13", "pruning knife", 54, 56, 51.6, "Cr 13.2; Mn 0.45; Si 0.36; Mo 0.05; V <0.05"},
         {"80CrV2", "grafting knife", 58, 60, 59.1, "Cr 0.57; V 0.19; Mn 0.44; Si 0.29; Ni 0.21"},
         {"440C", "pruning knife", 58, 60, 56.2, "Cr 13.1; Mn 0.48; Si 0.41; Mo <0.05; V <0.05; Ni 0.1"},
         {"115CrV3", "grafting knife", 61, 63, 61.9, "Cr 0.62; V 0.09; Mn 0.32; Si 0.24"},
         {"D2", "pruning knife", 59, 61, 61.3, "Cr 11.8; Mo 0.81; V 0.86; Mn 0.31; Si 0.32"},
         {"52100", "kitchen", 60, 62, 0, nullptr}}};
    m_testerError = errorWeeksAgo(0);
    at(2, 200);
    BatchDraft draft;
    draft.name = "Market 3";
    draft.purpose = "knives of a market stall";
    draft.minimum_tempers = 0;
    draft.plan[indexOf(Gate::steel)] = {true, 1};
    draft.plan[indexOf(Gate::temper)] = {true, 3};
    BladeShape shape = BladeShape::knife(96, 22, 2.2);
    shape.reading_line_mm = 4;
    for (std::size_t i = 0; i < knives.size(); ++i) {
        const Knife& knife = knives[i];
        BladeDraft blade{fmt::format("MK-{}", i + 1), shape, "2.2"};
        blade.own = BladeClaim{knife.sold_as, knife.sold_as, knife.purpose, Window{knife.low, knife.high}, {}, {}};
        draft.blades.push_back(std::move(blade));
    }
    m_batch = must(rollcall::addBatch(*m_logbook, draft));
    std::vector<Piece> pieces;
    for (const Blade& blade : must(m_logbook->batchAlone(m_batch)).blades)
        pieces.push_back({blade.id, blade.mark, blade.shape});
    for (const char* block : {m_block55.c_str(), m_block62.c_str()}) {
        const double certified = block == m_block55 ? 55.2 : 62.6;
        std::vector<double> values;
        for (int i = 0; i < 5; ++i) values.push_back(read(certified, 0.1));
        verify(m_bench, block, values);
    }
    for (std::size_t i = 0; i < knives.size(); ++i) {
        if (knives[i].shot != nullptr) {
            ShotDraft shot;
            shot.batch = m_batch;
            shot.blade = pieces[i].id;
            shot.composition = must(typedShot(knives[i].shot));
            shot.piece = "flat, cleaned";
            must(addShot(*m_logbook, shot));
        }
        if (knives[i].truth > 0) readThree(pieces[i], Gate::temper, 0, knives[i].truth);
    }
    Note note;
    note.blade = pieces[2].id;
    note.text = "Seller asked on the day it was bought";
    must(addNote(*m_logbook, m_batch, note));
}

void DemoShop::croft2() {
    at(1, 200);
    BatchDraft draft;
    draft.name = "Croft 2";
    draft.grade = "1084";
    draft.purpose = "hedge knife";
    draft.window = {50, 63};
    draft.window_text = "50:63";
    draft.quench_minimum = 58;
    draft.plan[indexOf(Gate::quench)] = {true, 1, true};
    draft.plan[indexOf(Gate::temper)] = {true, 1, true};
    BladeShape shape = BladeShape::knife(150, 34, 3.2);
    shape.reading_line_mm = 5;
    const std::vector<Piece> pieces = addBatch(draft, "CH", 4, shape, "3.2");
    const auto tried = [&](const Piece& piece, Gate gate, int temper, std::vector<FileTrial> trials) {
        FileTest test;
        test.gate = gate;
        test.after_temper = temper;
        test.trials = std::move(trials);
        pass(40);
        must(logFileTest(*m_logbook, piece.id, m_files, test));
    };
    using enum FileTouch;
    for (int i = 0; i < 3; ++i)
        tried(pieces[static_cast<std::size_t>(i)], Gate::quench, 0, {{55, skates}, {60, skates}, {65, bites}});
    tried(pieces[3], Gate::quench, 0, {{55, skates}, {60, bites}});
    temper({pieces[0], pieces[1], pieces[2]}, 215, 2);
    tried(pieces[0], Gate::temper, 1, {{55, skates}, {60, bites}});
    tried(pieces[1], Gate::temper, 1, {{55, skates}, {60, skates}, {65, bites}});
}

} // namespace rollcall
