// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/blade_picture.h"

#include "plot/translate.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <QPainterPath>

namespace rollcall {

namespace {

constexpr int rulerHeight = 40;
constexpr int wordsHeight = 30;
constexpr int tallBlade = 130;

QPainterPath outlinePath(const BladeShape& shape, const BladeScale& scale) {
    QPolygonF polygon;
    for (const Spot& corner : shape.outline) polygon << scale.toPixel(corner);
    QPainterPath path;
    path.addPolygon(polygon);
    path.closeSubpath();
    return path;
}

// Blade and indents, without ruler and words; shared by the picture and its lens.
void drawMetal(QPainter& painter, const BladePicture& picture, const BladeScale& scale, const Look& look) {
    const Palette& p = look.palette;
    painter.setRenderHint(QPainter::Antialiasing);
    const QPainterPath outline = outlinePath(picture.shape, scale);
    painter.fillPath(outline, p.steel);

    // Where no indent may be: a band of the edge distance inside the outline, and a circle round each indent.
    painter.save();
    painter.setClipPath(outline, Qt::IntersectClip);
    painter.strokePath(outline, QPen(p.panel, 2 * picture.edge_distance_mm * scale.px_per_mm, Qt::SolidLine,
                                     Qt::FlatCap, Qt::MiterJoin));
    for (const IndentMark& indent : picture.indents) {
        painter.setBrush(p.panel);
        painter.setPen(QPen(p.line, 1));
        const double r = picture.keep_out_mm * scale.px_per_mm;
        painter.drawEllipse(scale.toPixel(indent.spot), r, r);
    }
    painter.restore();
    painter.strokePath(outline, QPen(p.ink, 1.5));

    if (picture.shape.reading_line_mm > 0) {
        painter.setPen(QPen(p.ink, 1, Qt::CustomDashLine));
        QPen dashed(p.ink, 1);
        dashed.setDashPattern({8, 4});
        painter.setPen(dashed);
        painter.drawLine(
            scale.toPixel({picture.edge_distance_mm, picture.shape.reading_line_mm}),
            scale.toPixel({picture.shape.length() - picture.edge_distance_mm, picture.shape.reading_line_mm}));
    }
    for (const IndentMark& indent : picture.indents) {
        const QPointF at = scale.toPixel(indent.spot);
        const bool older = indent.kind == IndentMark::Kind::older;
        if (older) {
            painter.setBrush(Qt::NoBrush);
            painter.setPen(QPen(p.older, 2));
            painter.drawEllipse(at, look.px(4), look.px(4));
        } else if (indent.kind == IndentMark::Kind::leftOut) {
            painter.setPen(QPen(p.fail, 2));
            const double r = look.px(4);
            painter.drawLine(at + QPointF(-r, -r), at + QPointF(r, r));
            painter.drawLine(at + QPointF(r, -r), at + QPointF(-r, r));
        } else {
            painter.setBrush(p.ink);
            painter.setPen(Qt::NoPen);
            painter.drawEllipse(at, look.px(3.5), look.px(3.5));
        }
        if (!indent.label.isEmpty())
            drawText(painter, at.x(), at.y() - look.px(14), indent.label, look.font(16, true), p.ink, Qt::AlignHCenter);
    }
    if (!picture.next) return;
    const QPointF at = scale.toPixel(*picture.next);
    const QColor color = picture.next_allowed ? p.primary : p.fail;
    const double r = look.px(10);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(color, 2.5));
    painter.drawEllipse(at, r, r);
    painter.drawLine(at - QPointF(1.6 * r, 0), at + QPointF(1.6 * r, 0));
    painter.drawLine(at - QPointF(0, 1.6 * r), at + QPointF(0, 1.6 * r));
    drawText(painter, at.x(), at.y() - look.px(24), picture.next_label, look.font(22, true), color, Qt::AlignHCenter);
}

void drawRuler(QPainter& painter, const BladePicture& picture, const BladeScale& scale, int y, const Look& look) {
    const Palette& p = look.palette;
    painter.setRenderHint(QPainter::Antialiasing, false);
    const int length = static_cast<int>(std::ceil(picture.shape.length()));
    const int x0 = qRound(scale.heel.x());
    painter.fillRect(x0, y, qRound(length * scale.px_per_mm) + 1, 1, p.line);
    // Ticks of a millimetre, or of an eighth of an inch; every fifth or fourth is longer, every tenth or eighth
    // longest.
    const bool inch = look.units == Units::inch;
    const double unit_mm = inch ? outOfUnits(0.125, Quantity::length, look.units) : 1;
    const int long1 = inch ? 4 : 5;
    const int long2 = inch ? 8 : 10;
    const double px_per_tick = scale.px_per_mm * unit_mm;
    const int tickEvery = px_per_tick >= 4 ? 1 : px_per_tick * long1 >= 10 ? long1 : long2;
    const int labelEvery = (px_per_tick * long2 >= 40 ? 1 : px_per_tick * long2 >= 19 ? 2 : inch ? 4 : 5) * long2;
    for (int i = 0; i * unit_mm <= length; i += tickEvery) {
        const int height = look.px(i % long2 == 0 ? 12 : i % long1 == 0 ? 8 : 4);
        const int x = qRound(x0 + i * unit_mm * scale.px_per_mm);
        painter.fillRect(x, y, 1, height, p.line);
        if (i % labelEvery == 0)
            drawText(painter, x, y + look.px(28),
                     QString::number(std::lround(inUnits(i * unit_mm, Quantity::length, look.units))), look.font(14),
                     p.muted, Qt::AlignHCenter);
    }
    drawText(painter, x0 - look.px(14), y + look.px(28), QString::fromUtf8(symbolOf(Quantity::length, look.units)),
             look.font(14), p.muted, Qt::AlignRight);
    if (picture.next) {
        const int x = qRound(scale.toPixel(*picture.next).x());
        const int from = qRound(scale.toPixel(*picture.next).y()) + look.px(16);
        if (from < y + look.px(12))
            painter.fillRect(x - 1, from, 2, y + look.px(12) - from, picture.next_allowed ? p.primary : p.fail);
    }
}

} // namespace

BladeScale BladeScale::fitting(const BladeShape& shape, const QRect& area, const Look& look) {
    double left = 0;
    double low = 0;
    double high = 0;
    for (const Spot& corner : shape.outline) {
        left = std::min(left, corner.x_mm);
        low = std::min(low, corner.y_mm);
        high = std::max(high, corner.y_mm);
    }
    const double width = std::max(1.0, shape.length() - left);
    const double height = std::max(1.0, high - low);
    const double full = area.height() - look.px(rulerHeight) - look.px(10);
    // Words stand on a tall blade and above a slim one.
    double room = full;
    if (std::min((area.width() - look.px(8)) / width, full / height) * height < look.px(tallBlade))
        room = full - look.px(wordsHeight);
    BladeScale scale;
    scale.px_per_mm = std::min((area.width() - look.px(8)) / width, room / height);
    for (const double step : {12.0, 8.0, 6.0, 5.0, 4.0, 3.0, 2.5, 2.0, 1.5, 1.0}) {
        if (step * width > area.width() - look.px(8) || step * height > room) continue;
        scale.px_per_mm = step;
        break;
    }
    const double drawn = width * scale.px_per_mm;
    scale.heel = {area.left() + (area.width() - drawn) / 2.0 - left * scale.px_per_mm,
                  area.bottom() - look.px(rulerHeight) - look.px(4) + low * scale.px_per_mm -
                      (full - room > 0 ? 0.0 : (room - height * scale.px_per_mm) / 2.0)};
    return scale;
}

void drawBlade(QPainter& painter, const QRect& area, const BladePicture& picture, const Look& look) {
    const BladeScale scale = BladeScale::fitting(picture.shape, area, look);
    painter.save();
    drawMetal(painter, picture, scale, look);
    drawRuler(painter, picture, scale, area.bottom() - look.px(rulerHeight) + look.px(4), look);

    const int top = area.top() + look.px(20);
    const QPointF spineAtHeel = scale.toPixel({0, picture.shape.height()});
    const bool onBlade = picture.shape.height() * scale.px_per_mm >= look.px(tallBlade);
    const int x = onBlade ? qRound(std::max<double>(spineAtHeel.x() + look.px(14), area.left())) : area.left();
    const int textTop = onBlade ? qRound(spineAtHeel.y()) + look.px(26) : top;
    const QColor color = picture.next_allowed ? look.palette.primary : look.palette.fail;
    const QColor second = picture.next_allowed ? look.palette.muted : look.palette.fail;
    if (onBlade) {
        drawText(painter, x, textTop, picture.title, look.font(18, true), color);
        drawText(painter, x, textTop + look.px(21), picture.subtitle, look.font(16), second);
    } else {
        drawEnds(painter, x, area.right(), textTop, {picture.title, 18, true, color},
                 {picture.subtitle, 16, false, second}, look);
    }
    if (!picture.shape_known)
        drawText(painter, area.right(), picture.title.isEmpty() ? area.top() + look.px(16) : area.bottom() - look.px(4),
                 tr("outline not known, not to scale"), look.font(14), look.palette.muted, Qt::AlignRight);

    if (picture.next && scale.px_per_mm < 4 && onBlade) {
        const QRect lens(area.right() - look.px(150), area.top() + 2, look.px(148), look.px(86));
        BladeScale closer;
        closer.px_per_mm = 8;
        closer.heel = QPointF(lens.center()) + QPointF(-picture.next->x_mm * 8, picture.next->y_mm * 8 + look.px(8));
        painter.setClipRect(lens);
        painter.fillRect(lens, look.palette.panel);
        drawMetal(painter, picture, closer, look);
        painter.setRenderHint(QPainter::Antialiasing, false);
        painter.setPen(look.palette.line);
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(lens.adjusted(0, 0, -1, -1));
        drawText(painter, lens.left() + look.px(6), lens.bottom() - look.px(6), QStringLiteral("8 px per mm"),
                 look.font(14), look.palette.muted);
    }
    painter.restore();
}

} // namespace rollcall
