// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/proof_picture.h"

#include "plot/axis.h"
#include "plot/translate.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <QPainterPath>

namespace rollcall {

void drawBend(QPainter& painter, const QRect& area, const BendPicture& bend, const Look& look, Told* told) {
    if (told != nullptr)
        told->add(area, tr("The blade in the jaws bent to %1°: strain at its surface, from thickness and free length")
                            .arg(bend.angle_deg));
    const Palette& p = look.palette;
    const double angle = std::clamp(bend.angle_deg, 0.1, 180.0) * std::numbers::pi / 180;
    // An arc of the free length, then what sticks out beyond it; the arc's height decides the scale.
    const double radius = bend.free_mm / angle;
    const double wide = radius * (1 - std::cos(angle)) + 0.5 * bend.free_mm;
    const double high = radius * std::sin(std::min(angle, std::numbers::pi / 2)) + 0.4 * bend.free_mm;
    const int textRoom = look.px(150);
    const double scale = std::min((area.width() - textRoom - look.px(50)) / wide, (area.height() - look.px(54)) / high);
    const QPointF jaw(area.left() + look.px(40), area.bottom() - look.px(46));
    painter.setRenderHint(QPainter::Antialiasing);
    QPainterPath arc(jaw);
    QPointF at = jaw;
    for (int i = 1; i <= 40; ++i) {
        const double turned = angle * i / 40;
        at = jaw + QPointF(radius * (1 - std::cos(turned)), -radius * std::sin(turned)) * scale;
        arc.lineTo(at);
    }
    const QPointF ahead(std::sin(angle), -std::cos(angle));
    arc.lineTo(at + ahead * 0.3 * bend.free_mm * scale);
    QPen straight(p.line, 1);
    straight.setDashPattern({4, 3});
    painter.setPen(straight);
    painter.drawLine(jaw, jaw - QPointF(0, std::min<double>(jaw.y() - area.top(), 1.1 * bend.free_mm * scale)));
    painter.setPen(
        QPen(p.ink, std::max<double>(3, bend.thickness_mm * scale), Qt::SolidLine, Qt::FlatCap, Qt::RoundJoin));
    painter.drawPath(arc);
    painter.drawLine(jaw, jaw + QPointF(0, look.px(36)));
    painter.setRenderHint(QPainter::Antialiasing, false);
    for (const int side : {-1, 1}) {
        const QRect plate(qRound(jaw.x()) + (side < 0 ? -look.px(18) : look.px(5)), qRound(jaw.y()), look.px(13),
                          look.px(40));
        painter.fillRect(plate, p.steel);
        painter.setPen(QPen(p.line, 1));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(plate);
    }
    const int right = area.right();
    drawText(painter, right, area.top() + look.px(34), bend.strain, look.font(32, true), p.ink, Qt::AlignRight);
    drawText(painter, right, area.top() + look.px(58), tr("mean strain, estimated"), look.font(14), p.muted,
             Qt::AlignRight);
    drawText(painter, right, area.top() + look.px(82),
             tr("%1 thick, %2 free").arg(lengthText(bend.thickness_mm, 1, look), lengthText(bend.free_mm, 0, look)),
             look.font(16), p.ink, Qt::AlignRight);
    drawText(painter, right, area.top() + look.px(106), bend.at_least, look.font(16), p.ink, Qt::AlignRight);
}

namespace {

struct CutsPlane {
    int left = 0, width = 1, bottom = 0, row = 1;
    double step = 1;
    PlotAxis axis;
};

CutsPlane cutsPlane(const QRect& area, const CutChart& chart, const Look& look) {
    double end = 1;
    for (const CutChart::Run& run : chart.runs) {
        if (!run.looks.empty()) end = std::max(end, double(run.looks.back().cuts));
    }
    CutsPlane plane;
    plane.left = area.left() + look.px(120);
    plane.width = area.right() - plane.left - look.px(20);
    plane.axis = {0, end, double(plane.left), double(plane.left + plane.width)};
    plane.step = std::max(1.0, plane.axis.roundStep(plane.width / 6.0)); // about six labels
    plane.axis.high = std::ceil(end / plane.step) * plane.step;
    plane.bottom = area.bottom() - look.px(34);
    plane.row = std::min(look.px(54), (plane.bottom - area.top()) / std::max(1, static_cast<int>(chart.runs.size())));
    return plane;
}

} // namespace

QString cutsSay(const QRect& area, const CutChart& chart, const QPoint& at, const Look& look) {
    const CutsPlane plane = cutsPlane(area, chart, look);
    const int place = plane.row > 0 ? (at.y() - area.top()) / plane.row : 0;
    if (at.y() < area.top() || place >= static_cast<int>(chart.runs.size())) return {};
    const CutChart::Run& run = chart.runs[static_cast<std::size_t>(place)];
    for (const CutLook& one : run.looks) {
        if (std::abs(plane.axis.at(one.cuts) - at.x()) > look.px(6)) continue;
        const QString what = one.result == CutResult::passes      ? tr("%1: passes after %2 cuts")
                             : one.result == CutResult::hesitates ? tr("%1: hesitates after %2 cuts")
                                                                  : tr("%1: fails after %2 cuts");
        return what.arg(run.name).arg(one.cuts);
    }
    return {};
}

void drawCuts(QPainter& painter, const QRect& area, const CutChart& chart, const Look& look) {
    const Palette& p = look.palette;
    if (chart.runs.empty()) return;
    const CutsPlane plane = cutsPlane(area, chart, look);
    const auto& [left, width, bottom, row, step, cutsAxis] = plane;
    const double end = cutsAxis.high;
    const auto x = [&](double cuts) { return qRound(plane.axis.at(cuts)); };
    painter.setRenderHint(QPainter::Antialiasing, false);
    int y = area.top();
    for (const CutChart::Run& run : chart.runs) {
        const int base = y + row - look.px(12);
        drawFitted(painter, area.left(), base, run.name, look.px(112), look, 16, run.chosen,
                   run.chosen ? p.primary : p.ink);
        painter.fillRect(left, base, width, 1, p.line);
        // Dull somewhere in here.
        const double until = run.dull.first_fail.value_or(end);
        painter.fillRect(x(run.dull.last_pass), base - look.px(20), x(until) - x(run.dull.last_pass), look.px(20),
                         run.dull.first_fail ? p.window_on_panel : p.steel);
        for (const CutLook& one : run.looks) {
            const int at = x(one.cuts);
            if (one.result == CutResult::passes) {
                painter.fillRect(at - 1, base - look.px(16), 2, look.px(16), p.ink);
            } else if (one.result == CutResult::hesitates) {
                painter.setRenderHint(QPainter::Antialiasing);
                painter.setBrush(p.borderline);
                painter.setPen(Qt::NoPen);
                const double r = look.px(6);
                const QPointF c(at, base - look.px(10));
                painter.drawPolygon(
                    QPolygonF{c + QPointF(0, -r), c + QPointF(r, 0), c + QPointF(0, r), c + QPointF(-r, 0)});
                painter.setRenderHint(QPainter::Antialiasing, false);
            } else {
                painter.setRenderHint(QPainter::Antialiasing);
                painter.setPen(QPen(p.fail, 3));
                const double r = look.px(6);
                const QPointF c(at, base - look.px(10));
                painter.drawLine(c - QPointF(r, r), c + QPointF(r, r));
                painter.drawLine(c - QPointF(r, -r), c + QPointF(r, -r));
                painter.setRenderHint(QPainter::Antialiasing, false);
            }
        }
        y += row;
    }
    painter.fillRect(left, bottom, width, 1, p.line);
    for (const double tick : cutsAxis.ticks(step)) {
        painter.fillRect(x(tick), bottom, 1, look.px(6), p.line);
        drawText(painter, x(tick), bottom + look.px(24), QString::number(tick), look.font(14), p.muted,
                 Qt::AlignHCenter);
    }
    drawText(painter, area.left(), bottom + look.px(24), tr("cuts"), look.font(14), p.muted);
}

void drawNoStone(QPainter& painter, double x, double y, double size, const QColor& color, const QColor& background) {
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.translate(x, y);
    painter.scale(size / 24, size / 24);
    painter.setPen(QPen(color, 2.6, Qt::SolidLine, Qt::FlatCap, Qt::MiterJoin));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(QRectF(1.5, 7.5, 21, 9));
    painter.setPen(QPen(background, 7));
    painter.drawLine(QPointF(3.5, 21.5), QPointF(20.5, 2.5));
    painter.setPen(QPen(color, 2.8));
    painter.drawLine(QPointF(3.5, 21.5), QPointF(20.5, 2.5));
    painter.restore();
}

} // namespace rollcall
