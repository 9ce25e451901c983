// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/batch_card.h"

#include "core/judge/gates.h"
#include "core/measure/indent.h"
#include "core/measure/outline.h"
#include "plot/translate.h"
#include "report/page.h"
#include "words/words.h"

#include <algorithm>

namespace rollcall {

namespace {

constexpr double markWidth = 70;
constexpr double pictureWidth = 150;
constexpr double boxHeight = 20;

// Empty boxes with their label above the first; returns where the next group may begin.
double boxes(Page& page, double x, double top, const QString& label, int count, double width) {
    drawText(page.painter(), x, top - 3, label, page.look().font(8), QColor(0x55, 0x55, 0x55));
    page.painter().setPen(QPen(Qt::black, 0.6));
    page.painter().setBrush(Qt::NoBrush);
    for (int i = 0; i < count; ++i) page.painter().drawRect(QRectF(x + i * (width + 3), top, width, boxHeight));
    return x + count * (width + 3) + 9;
}

void drawShape(Page& page, const Blade& blade, const std::vector<Spot>& spots, double top) {
    if (blade.shape.outline.size() < 3) return;
    const double scale = std::min(pictureWidth / blade.shape.length(), boxHeight * 1.6 / blade.shape.height());
    const double base = top + blade.shape.height() * scale;
    const auto at = [&](const Spot& spot) { return QPointF(markWidth + spot.x_mm * scale, base - spot.y_mm * scale); };
    QPolygonF outline;
    for (const Spot& corner : blade.shape.outline) outline << at(corner);
    QPainter& painter = page.painter();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(Qt::black, 0.8));
    painter.setBrush(Qt::NoBrush);
    painter.drawPolygon(outline);
    int number = 0;
    for (const Spot& spot : spots) {
        const QPointF place = at(spot);
        painter.setPen(QPen(Qt::black, 0.6));
        painter.drawLine(place - QPointF(2.5, 0), place + QPointF(2.5, 0));
        painter.drawLine(place - QPointF(0, 2.5), place + QPointF(0, 2.5));
        drawText(painter, place.x(), base + 9, QString::number(++number), page.look().font(7), Qt::black,
                 Qt::AlignHCenter);
    }
}

} // namespace

int cardReadings(const Batch& batch, Gate gate) {
    const int most = gate == Gate::quench ? 3 : 4; // more have no room on the paper
    return batch.planOf(gate).required ? std::min(batch.planOf(gate).planned_readings, most) : 0;
}

std::vector<Spot> cardSpots(const Batch& batch, const Blade& blade, const Tables& tables) {
    if (blade.shape.outline.size() < 3) return {};
    const int spots = std::max(1, cardReadings(batch, Gate::quench) + cardReadings(batch, Gate::temper));
    // Room for a mark ten points softer than the window: a soft one must not make its own place too near the next.
    const auto diameter =
        indentDiameter(tables, "HRC", std::max(20.0, batch.claimOf(blade).window->low.value_or(55) - 10));
    const SpacingRule rule = SpacingRule::forIndent(diameter ? *diameter : 0.6, batch.shop_spacing);
    return suggestSpots(blade.shape, {}, spots, rule).spots;
}

int drawBatchCard(Paper& paper, const Batch& batch, const Tables& tables, const Instant& now) {
    Page page(paper, tr("%1, blank card of %2").arg(QString::fromStdString(batch.name), dayOf(now)));
    page.y = 18;
    page.text(0, QString::fromStdString(batch.name), 20, true);
    page.text(page.width(), tr("tester            block            date            by            "), 9, false,
              Qt::black, Qt::AlignRight);
    QStringList about;
    if (!batch.grade.empty()) about << QString::fromStdString(batch.grade);
    const Window quench = windowOf(batch, Blade{}, Gate::quench, tables);
    if (batch.planOf(Gate::quench).required && quench.low)
        about << tr("from the quench %1 or harder").arg(words::hardness(*quench.low));
    if (batch.planOf(Gate::temper).required) about << tr("after temper %1 HRC").arg(words::windowText(batch.window));
    page.paragraph(about.join(QStringLiteral("; ")), 11);
    page.paragraph(words::passText(batch), 10);
    if (const QString rules = words::rulesText(batch); !rules.isEmpty()) page.paragraph(rules, 10);
    for (const Note& note : batch.notes) {
        if (!note.on_card) continue;
        const auto blade = std::find_if(batch.blades.begin(), batch.blades.end(),
                                        [&](const Blade& one) { return one.id == note.blade; });
        const QString on =
            blade == batch.blades.end() ? QString() : QString::fromStdString(blade->mark) + QStringLiteral(": ");
        page.paragraph(on + QString::fromStdString(note.text), 10);
    }
    page.y += 16;
    double x = 0;
    x = boxes(page, x, page.y, tr("block, five readings"), 5, 34);
    x = boxes(page, x, page.y, tr("temper, %1 and h").arg(words::unit(Quantity::temperature)), 4, 34);
    page.y += boxHeight + 10;
    page.rule(1.2);
    const bool heat = batch.planOf(Gate::heat).required;
    for (const Blade& blade : batch.blades) {
        if (blade.fate) continue;
        const int quenched = cardReadings(batch, Gate::quench);
        const int tempered = cardReadings(batch, Gate::temper);
        const auto spots = [](int first, int last) {
            return first == last ? QString::number(first) : QStringLiteral("%1–%2").arg(first).arg(last);
        };
        page.need(78);
        page.y += 20;
        const double top = page.y;
        drawText(
            page.painter(), 0, top + 14,
            elided(QString::fromStdString(blade.mark), page.look().font(14, true), static_cast<int>(markWidth - 4)),
            page.look().font(14, true), Qt::black);
        drawShape(page, blade, cardSpots(batch, blade, tables), top - 6);
        double at = markWidth + pictureWidth + 12;
        if (quenched > 0) at = boxes(page, at, top, tr("quench %1").arg(spots(1, quenched)), quenched, 30);
        if (tempered > 0)
            boxes(page, at, top, tr("temper %1").arg(spots(quenched + 1, quenched + tempered)), tempered, 30);
        if (heat)
            boxes(page, markWidth + pictureWidth + 12, top + boxHeight + 14, tr("in, out, into the quench"), 3, 44);
        page.y = top + (heat ? 2 * boxHeight + 20 : boxHeight + 18);
        page.rule(0.3);
    }
    page.y += 6;
    page.paragraph(tr("Clean bare metal, flat; spots from the heel in this order. Strike a wrong number through."), 8,
                   false, QColor(0x55, 0x55, 0x55));
    return page.pages();
}

Result<int> writeBatchCard(const QString& path, const Batch& batch, const Tables& tables, bool letter,
                           const Instant& now) {
    return writePdf(path, letter, QString::fromStdString(batch.name),
                    [&](Paper& paper) { return drawBatchCard(paper, batch, tables, now); });
}

} // namespace rollcall
