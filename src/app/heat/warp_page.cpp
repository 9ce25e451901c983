// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/warp_page.h"

#include "app/shared/form_dialog.h"
#include "app/shared/pointing.h"
#include "core/base/number.h"
#include "logbook/actions/heat.h"
#include "report/export_picture.h"
#include "words/units.h"
#include "words/words.h"

#include <algorithm>

namespace rollcall {

namespace {

const WarpReading* latest(const Blade& blade) {
    for (auto warp = blade.warps.rbegin(); warp != blade.warps.rend(); ++warp) {
        if (warp->round == blade.round) return &*warp;
    }
    return nullptr;
}

const WarpReading* first(const Blade& blade) {
    for (const WarpReading& warp : blade.warps) {
        if (warp.round == blade.round) return &warp;
    }
    return nullptr;
}

std::vector<Warp> warpsOf(const Batch& batch) {
    std::vector<Warp> warps;
    for (const Blade& blade : batch.blades) {
        if (const WarpReading* warp = latest(blade); warp != nullptr && !isOutBefore(blade, Gate::temper))
            warps.push_back({blade.mark, warp->mm, warp->high});
    }
    return warps;
}

QString warpText(const WarpReading& warp) {
    return WarpPage::tr("%1, %2 high")
        .arg(words::length(warp.mm), warp.high == WarpSide::left ? WarpPage::tr("left") : WarpPage::tr("right"));
}

} // namespace

WarpPage::WarpPage(Document& document, Seams seams, const Look& look)
    : Bench(document, look), m_seams(std::move(seams)) {
    setObjectName(QStringLiteral("warp-page"));
    tellUnder(this, m_told);
}

void WarpPage::refresh() {
    setAccessibleName(content().sub);
    update();
}

WarpStack WarpPage::stack() const {
    WarpStack drawn;
    const std::vector<Warp> warps = warpsOf(m_document.batch());
    const auto plan = stackPlan(warps);
    if (!plan) return drawn;
    for (const StackPlace& place : *plan) {
        for (const Warp& warp : warps) {
            if (warp.blade != place.blade) continue;
            const bool right = (warp.high == WarpSide::right) != place.turn_over;
            drawn.pieces.push_back({QString::fromStdString(warp.blade), warp.mm,
                                    right ? WarpSide::right : WarpSide::left, place.turn_over, place.shim_mm});
        }
    }
    // The first blade's high side faces the second.
    if (!drawn.pieces.empty() && drawn.pieces.front().lies == WarpSide::left) {
        for (WarpStack::Piece& piece : drawn.pieces)
            piece.lies = piece.lies == WarpSide::left ? WarpSide::right : WarpSide::left;
    }
    return drawn;
}

void WarpPage::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    m_told.clear();
    const Palette& p = palette();
    painter.fillRect(rect(), p.panel);
    if (!m_document.hasBatch()) return;
    const WarpStack drawn = stack();
    if (drawn.pieces.empty()) {
        drawText(painter, 0, px(60), tr("No warp measured"), m_look.font(28, true), p.ink);
        const QStringList lines{tr("Lay each blade on a flat plate, edge towards you."),
                                tr("Enter  how far it stands off, tip to tip, and which side is high")};
        int y = px(104);
        for (const QString& line : lines) {
            drawText(painter, 0, y, line, m_look.font(18), p.ink);
            y += px(34);
        }
        return;
    }
    drawEnds(painter, 0, width(), px(22), {tr("The stack, bow against bow"), 20, true, p.ink},
             {tr("bow drawn ten times as large"), 14, false, p.muted}, m_look);
    drawWarpStack(painter, rect().adjusted(0, px(36), 0, -px(6)), drawn, m_look, &m_told);
}

ColumnContent WarpPage::content() const {
    ColumnContent content;
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return content;
    content.key = tr("Enter");
    content.caption = tr("%1 on the plate").arg(QString::fromStdString(blade->mark));
    content.act = tr("Measure %1").arg(QString::fromStdString(blade->mark));
    content.detail = tr("%1, and L or R for the high side").arg(words::unit(Quantity::length));
    content.left = tr("Next blade");
    content.left_key = QStringLiteral("+");
    content.right = tr("Picture");
    content.right_key = QStringLiteral("I");
    const WarpReading* now = latest(*blade);
    const WarpReading* before = first(*blade);
    content.word = now != nullptr ? words::length(now->mm) : tr("Not yet");
    content.state = now == nullptr ? State::notYet : now->mm <= 0.3 ? State::pass : State::borderline;
    content.sub = now != nullptr ? warpText(*now) : tr("Not measured in this hardening.");
    if (now != nullptr && before != now)
        content.lines.push_back({now->mm < before->mm ? Tone::good : Tone::caution,
                                 tr("Was %1; now %2: %3 gained")
                                     .arg(warpText(*before), warpText(*now), words::length(before->mm - now->mm)),
                                 QStringLiteral("M24"), false});
    int untempered = 0;
    int warped = 0;
    for (const Blade& one : m_document.batch().blades) {
        const WarpReading* warp = latest(one);
        if (warp == nullptr || isOutBefore(one, Gate::temper)) continue;
        ++warped;
        if (lastTemper(one) == 0) ++untempered;
    }
    if (untempered > 0)
        content.lines.push_back({Tone::bad,
                                 untempered == 1 ? tr("One blade is not tempered: do not clamp it")
                                                 : tr("%1 blades are not tempered: do not clamp them").arg(untempered),
                                 QStringLiteral("M24"), false});
    if (warped > 1) {
        content.lines.push_back({Tone::note, tr("Biggest first, convex to convex in pairs, the flattest outside"),
                                 QStringLiteral("M24"), false});
        content.lines.push_back(
            {Tone::note, tr("A shim at mid length between backs bends past straight"), QStringLiteral("M24"), false});
        content.lines.push_back(
            {Tone::note, tr("First clamped temper a little cooler than the next"), QStringLiteral("M24"), false});
    }
    content.below.push_back({Tone::note, words::cautionText(Caution::clampedStack), {}, true});
    return content;
}

void WarpPage::act() {
    if (m_document.blade() != nullptr) measure();
}

void WarpPage::leftAct() {
    const int count = static_cast<int>(m_document.batch().blades.size());
    m_document.selectBlade((m_document.bladeIndex() + 1) % count);
}

void WarpPage::rightAct() {
    exportPicture();
}

void WarpPage::measure() {
    const Blade& blade = *m_document.blade();
    auto* form =
        new FormDialog(tr("Warp of %1").arg(QString::fromStdString(blade.mark)), tr("Log it"),
                       {{"warp",
                         tr("Warp"),
                         tr("%1 and the high side: %2L, %3R, or 0")
                             .arg(words::unit(Quantity::length), words::lengthNumber(1.2), words::lengthNumber(0.8)),
                         {},
                         {},
                         false}},
                       m_look, window());
    const auto read = [](const FormValues& v) {
        auto warps = parseWarps("x=" + v["warp"].toStdString());
        if (warps) {
            for (Warp& warp : warps.value()) warp.mm = outOfUnits(warp.mm, Quantity::length, words::units());
        }
        return warps;
    };
    form->ask(
        [read](const FormValues& v) {
            const auto warp = read(v);
            return warp && warp->size() == 1 && warp->front().mm <= 50
                       ? FormFault{}
                       : FormFault{QStringLiteral("warp"),
                                   tr("Type %1 and L or R, such as %2L.")
                                       .arg(words::unit(Quantity::length), words::lengthNumber(1.2))};
        },
        [this, read, id = blade.id, round = blade.round, temper = lastTemper(blade)](const FormValues& v) {
            m_document.perform([id, round, temper, warp = read(v)->front(), text = v["warp"].toStdString()](
                                   Logbook& logbook) { return logWarp(logbook, id, round, temper, warp, text); },
                               [this](const Result<Done>& done) {
                                   if (done) leftAct();
                               });
        });
}

void WarpPage::exportPicture() {
    const WarpStack drawn = m_document.hasBatch() ? stack() : WarpStack();
    if (drawn.pieces.empty()) return emit said(tr("There is no stack to draw yet."), true);
    const QString path = m_seams.chooseFile(window(), tr("Picture of the stack"), tr("Pictures (*.png *.svg)"), true);
    if (path.isEmpty()) return;
    Look paper = m_look;
    paper.palette = Palette::light();
    paper.factor = 1;
    const auto saved = savePicture(path, QSize(760, 60 + 74 * static_cast<int>(drawn.pieces.size())), tr("Stack plan"),
                                   paper.palette.panel, [&](QPainter& painter, const QRect& area) {
                                       drawText(painter, 20, 30, QString::fromStdString(m_document.batch().name),
                                                paper.font(20, true), paper.palette.ink);
                                       drawWarpStack(painter, area.adjusted(20, 40, -20, -10), drawn, paper);
                                   });
    emit said(saved ? tr("%1 written").arg(path) : words::errorText(saved.error()), !saved.ok());
}

Commands WarpPage::commands() {
    return {{QStringLiteral("warp.picture"), tr("Picture"), tr("of the stack, as a file"), Verb::inAndOut,
             [this] { exportPicture(); }}};
}

HelpText WarpPage::help() const {
    return {
        tr("Which blades are bent, and how are they clamped together so that they come straight?"),
        {{Pictogram::rod, tr("Lay the blade on a plate and feel the gap at its middle.")},
         {Pictogram::pen, tr("Enter the bow, and which side is high.")},
         {Pictogram::boxes, tr("The picture pairs bow against bow, the flattest outside, shims between the backs.")},
         {Pictogram::clock, tr("Clamp in the temper, a little cooler the first time, and measure again.")}},
        {QStringLiteral("M24")},
        tr("It does not see twist. A blade that is not tempered breaks in the clamp: the list leaves it out.")};
}

std::vector<ReportTable> WarpPage::tables() const {
    ReportTable table{
        tr("Warp"),
        {tr("Blade"), tr("After temper"), tr("Bow, %1").arg(words::unit(Quantity::length)), tr("High side")},
        {}};
    if (!m_document.hasBatch()) return {table};
    for (const Blade& blade : m_document.batch().blades) {
        for (const WarpReading& warp : blade.warps) {
            table.rows.push_back({QString::fromStdString(blade.mark), warp.after_temper, words::lengthNumber(warp.mm),
                                  warp.high == WarpSide::left ? tr("left") : tr("right")});
        }
    }
    return {table};
}

} // namespace rollcall
