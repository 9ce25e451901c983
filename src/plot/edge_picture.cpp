// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/edge_picture.h"

#include "plot/glyphs.h"
#include "plot/translate.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <QPainterPath>

namespace rollcall {

namespace {

constexpr int leftRoom = 52;   // of the angles' labels
constexpr int bottomRoom = 30; // of the forces' labels

// A length of an edge without its unit: hundredths of a millimetre, or thousandths of an inch.
QString fine(double mm, const Look& look) {
    return QString::fromStdString(lengthText(mm, 2, look.units));
}

struct Cells {
    int left = 0;
    int top = 0;
    int width = 1;
    int height = 1;
    int columns = 0;
    int rows = 0;

    // Angles rise upwards.
    QRect at(int force, int raise) const {
        return {left + force * width, top + (rows - 1 - raise) * height, width, height};
    }
};

Cells cellsOf(const QRect& area, const LadderPicture& ladder, const Look& look) {
    Cells cells;
    cells.columns = static_cast<int>(ladder.grid.forces_n.size());
    cells.rows = static_cast<int>(ladder.grid.raises_deg.size());
    if (cells.columns == 0 || cells.rows == 0) return cells;
    cells.left = area.left() + look.px(leftRoom);
    cells.top = area.top();
    cells.width = std::min(look.px(68), (area.width() - look.px(leftRoom)) / cells.columns);
    cells.height = std::min(look.px(82), (area.height() - look.px(bottomRoom)) / cells.rows);
    return cells;
}

} // namespace

void drawEdgeOutcome(QPainter& painter, double x, double y, double size, EdgeOutcome outcome, const QColor& color) {
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.translate(x, y);
    painter.scale(size / 24, size / 24);
    painter.setPen(QPen(color, 3.2, Qt::SolidLine, Qt::FlatCap, Qt::MiterJoin));
    painter.setBrush(Qt::NoBrush);
    painter.fillRect(QRectF(3, 20, 18, 2.6), color);
    QPainterPath path;
    path.moveTo(12, 20.5);
    switch (outcome) {
    case EdgeOutcome::held:
        path.lineTo(12, 1.5);
        break;
    case EdgeOutcome::set:
        path.lineTo(12, 10.5);
        path.lineTo(17.5, 2.5);
        break;
    case EdgeOutcome::roll:
        path.lineTo(12, 7);
        path.arcTo(QRectF(12, 3, 8, 8), 180, -180);
        path.lineTo(20, 12);
        break;
    case EdgeOutcome::chip:
        path.lineTo(12, 12.6);
        path.moveTo(15.4, 10.2);
        path.lineTo(20.2, 2.2);
        break;
    case EdgeOutcome::crack:
        path.lineTo(12, 1.5);
        path.moveTo(5.5, 14.5);
        path.lineTo(10, 10);
        path.lineTo(7, 8);
        path.lineTo(11.5, 3.5);
        break;
    }
    painter.drawPath(path);
    painter.restore();
}

void drawEdgeLadder(QPainter& painter, const QRect& area, const LadderPicture& ladder, const Look& look) {
    const Palette& p = look.palette;
    const Cells cells = cellsOf(area, ladder, look);
    if (cells.columns == 0 || cells.rows == 0) return;
    const auto& grid = ladder.grid;
    for (int r = 0; r < cells.rows; ++r) {
        const double raise = grid.raises_deg[static_cast<std::size_t>(r)];
        const QRect first = cells.at(0, r);
        drawText(painter, cells.left - look.px(12), first.center().y() + look.px(6),
                 QStringLiteral("%1°").arg(std::lround(raise)), look.font(16), p.ink, Qt::AlignRight);
        for (int f = 0; f < cells.columns; ++f) {
            const double force = grid.forces_n[static_cast<std::size_t>(f)];
            const QRect at = cells.at(f, r);
            const LadderPicture::Cell& cell = ladder.cells[static_cast<std::size_t>(r * cells.columns + f)];
            painter.setRenderHint(QPainter::Antialiasing, false);
            painter.setPen(QPen(p.hair, 1));
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(at);
            const bool isNext = ladder.next && *ladder.next == EdgeLoadStep{force, raise};
            const bool isAsked = ladder.asked && *ladder.asked == EdgeLoadStep{force, raise};
            if (cell.outcome) {
                const bool sized = cell.size_mm.has_value();
                const double glyph = look.px(32);
                drawEdgeOutcome(painter, at.center().x() - glyph / 2, at.center().y() - look.px(sized ? 24 : 16), glyph,
                                *cell.outcome, p.ink);
                if (sized)
                    drawText(painter, at.center().x(), at.bottom() - look.px(7), fine(*cell.size_mm, look),
                             look.font(14, true), p.ink, Qt::AlignHCenter);
            } else if (isNext) {
                drawText(painter, at.center().x(), at.center().y() + look.px(6), tr("next"), look.font(16, true),
                         p.primary, Qt::AlignHCenter);
            } else {
                drawText(painter, at.center().x(), at.center().y() + look.px(5), cell.expected, look.font(14), p.older,
                         Qt::AlignHCenter);
            }
            if (isAsked)
                drawText(painter, at.left() + look.px(5), at.top() + look.px(15), tr("asked"), look.font(14), p.muted);
        }
    }
    // The staircase: beyond it a mark is expected. It runs along cell borders where one side marks and the other not.
    painter.setRenderHint(QPainter::Antialiasing, false);
    const auto marks = [&](int f, int r) {
        return ladder.cells[static_cast<std::size_t>(r * cells.columns + f)].marks;
    };
    for (int r = 0; r < cells.rows; ++r) {
        for (int f = 0; f < cells.columns; ++f) {
            const QRect at = cells.at(f, r);
            if (f + 1 < cells.columns && marks(f, r) != marks(f + 1, r))
                painter.fillRect(at.right(), at.top(), 3, at.height() + 1, p.older);
            if (r + 1 < cells.rows && marks(f, r) != marks(f, r + 1))
                painter.fillRect(at.left(), at.top() - 1, at.width() + 2, 3, p.older);
        }
    }
    for (int f = 0; f < cells.columns; ++f)
        drawText(painter, cells.at(f, 0).center().x(), cells.at(f, 0).bottom() + look.px(22),
                 QString::number(std::lround(grid.forces_n[static_cast<std::size_t>(f)])), look.font(16), p.ink,
                 Qt::AlignHCenter);
    drawText(painter, cells.left - look.px(12), cells.at(0, 0).bottom() + look.px(22), QStringLiteral("N"),
             look.font(16), p.muted, Qt::AlignRight);
    const QRect chosen = cells.at(std::clamp(ladder.chosen_force, 0, cells.columns - 1),
                                  std::clamp(ladder.chosen_raise, 0, cells.rows - 1));
    painter.setPen(QPen(p.primary, 3, Qt::SolidLine, Qt::SquareCap, Qt::MiterJoin));
    painter.drawRect(chosen.adjusted(1, 1, -1, -1));
}

std::optional<std::pair<int, int>> ladderCellAt(const QRect& area, const LadderPicture& ladder, const QPoint& at,
                                                const Look& look) {
    const Cells cells = cellsOf(area, ladder, look);
    for (int r = 0; r < cells.rows; ++r) {
        for (int f = 0; f < cells.columns; ++f) {
            if (cells.at(f, r).contains(at)) return std::pair(f, r);
        }
    }
    return std::nullopt;
}

void drawWedge(QPainter& painter, const QRect& area, const WedgePicture& wedge, const Look& look, Told* told) {
    const Palette& p = look.palette;
    const double slope = std::tan(wedge.geometry.angle_per_side_deg * std::numbers::pi / 180);
    const double height_mm = wedge.geometry.behind_edge_mm / (2 * slope);
    const int captionRoom = look.px(56);
    const int labelRoom = look.px(84);
    const double scale = std::min((area.width() - labelRoom - look.px(48)) / wedge.geometry.behind_edge_mm,
                                  (area.height() - captionRoom - look.px(24)) / height_mm);
    const double middle = area.left() + labelRoom + (area.width() - labelRoom - look.px(30)) / 2.0;
    const double base = area.bottom() - captionRoom;
    const double apex = base - height_mm * scale;
    const auto half = [&](double thickness_mm) { return thickness_mm / 2 * scale; };
    const auto level = [&](double thickness_mm) { return apex + thickness_mm / (2 * slope) * scale; };
    const double lost = wedge.outcome == EdgeOutcome::held ? 0 : std::min(wedge.damage_mm, height_mm);

    if (told != nullptr)
        told->add(area, tr("The edge end-on, to scale: %1 thick behind it, %2")
                            .arg(lengthText(wedge.geometry.behind_edge_mm, 2, look), wedge.caption));
    painter.setRenderHint(QPainter::Antialiasing);
    const double cut = apex + lost * scale;
    const double cutHalf = lost * slope * scale;
    QPolygonF body;
    body << QPointF(middle - half(wedge.geometry.behind_edge_mm), base) << QPointF(middle - cutHalf, cut)
         << QPointF(middle + cutHalf, cut) << QPointF(middle + half(wedge.geometry.behind_edge_mm), base);
    QPainterPath path;
    path.addPolygon(body);
    path.closeSubpath();
    painter.fillPath(path, p.steel);
    if (wedge.yield_mm) {
        painter.save();
        painter.setClipPath(path, Qt::IntersectClip);
        QColor zone = p.older;
        zone.setAlpha(90);
        painter.fillRect(QRectF(area.left(), apex, area.width(), std::min(level(*wedge.yield_mm), base) - apex), zone);
        painter.restore();
    }
    painter.setPen(QPen(p.ink, 2));
    painter.drawPolyline(QPolygonF{body[0], body[1]});
    painter.drawPolyline(QPolygonF{body[3], body[2]});
    painter.setPen(QPen(p.ink, 1));
    painter.drawLine(QPointF(body[0].x() - look.px(8), base), QPointF(body[3].x() + look.px(8), base));
    if (lost > 0 && wedge.outcome) {
        // Where the apex was, and what became of it.
        QPen ghost(p.line, 1);
        ghost.setDashPattern({4, 3});
        painter.setPen(ghost);
        painter.drawPolyline(QPolygonF{body[1], QPointF(middle, apex), body[2]});
        painter.setPen(QPen(p.ink, 2));
        if (*wedge.outcome == EdgeOutcome::chip || *wedge.outcome == EdgeOutcome::crack) {
            const double step = cutHalf / 2;
            painter.drawPolyline(QPolygonF{body[1], QPointF(middle - step, cut + look.px(3)),
                                           QPointF(middle + step / 2, cut - look.px(2)), body[2]});
        } else {
            QPainterPath lip(body[1]);
            const double out = std::max<double>(look.px(10), lost * scale * 0.5);
            lip.cubicTo(QPointF(middle, cut - out), QPointF(middle + cutHalf + out, cut - out),
                        QPointF(middle + cutHalf + out * 1.1, cut + out * 0.3));
            lip.cubicTo(QPointF(middle + cutHalf + out * 0.7, cut - out * 0.4),
                        QPointF(middle + cutHalf, cut - out * 0.3), body[2]);
            painter.fillPath(lip, p.steel);
            painter.drawPath(lip);
        }
        const double x = area.right() - look.px(14);
        painter.fillRect(QRectF(x, apex, 2, cut - apex), p.ink);
        if (told != nullptr)
            told->add({x - look.px(14), apex - look.px(4), double(look.px(28)), cut - apex + look.px(8)},
                      tr("Depth of the damage: %1").arg(lengthText(wedge.damage_mm, 2, look)));
        painter.fillRect(QRectF(x - look.px(7), apex, look.px(8), 2), p.ink);
        painter.fillRect(QRectF(x - look.px(7), cut - 2, look.px(8), 2), p.ink);
    }
    // Levels of the estimate, named at the left.
    const auto line = [&](double thickness_mm, bool dashed, const QString& name) {
        if (level(thickness_mm) > base - 1) return;
        const double y = level(thickness_mm);
        QPen pen(p.older, dashed ? 1.5 : 3);
        if (dashed) pen.setDashPattern({6, 4});
        painter.setPen(pen);
        painter.drawLine(QPointF(middle - half(thickness_mm) - look.px(10), y),
                         QPointF(middle + half(thickness_mm) + look.px(10), y));
        drawText(painter, area.left(), y - look.px(1), fine(thickness_mm, look), look.font(16, true), p.older);
        drawText(painter, area.left(), y + look.px(16), name, look.font(14), p.older);
        if (told != nullptr)
            told->add({double(area.left()), y - look.px(16), double(area.width()), double(look.px(36))},
                      dashed ? tr("%1 thick: the estimate times three. Damage that reaches below is not explained "
                                  "by the edge's shape.")
                                   .arg(lengthText(thickness_mm, 2, look))
                             : tr("%1 thick: thinner metal is expected to yield, an estimate to a factor of 3")
                                   .arg(lengthText(thickness_mm, 2, look)));
    };
    if (wedge.yield_mm) {
        line(*wedge.yield_mm, false, tr("yields"));
        if (level(3 * *wedge.yield_mm) - level(*wedge.yield_mm) > look.px(36))
            line(3 * *wedge.yield_mm, true, tr("three times"));
        if (level(*wedge.yield_mm) > base - 1)
            drawText(painter, area.left(), area.top() + look.px(16), tr("all of it yields"), look.font(14), p.older);
    }
    drawText(painter, middle, base + look.px(20), lengthText(wedge.geometry.behind_edge_mm, 2, look),
             look.font(16, true), p.ink, Qt::AlignHCenter);
    drawText(painter, middle, base + look.px(42), wedge.caption, look.font(14), p.muted, Qt::AlignHCenter);
}

void drawDamageRule(QPainter& painter, const QRect& area, const DamageRule& rule, const Look& look, Told* told) {
    const Palette& p = look.palette;
    // The estimate is good to a factor of three, so the axis goes by factors and each zone is as wide as the other.
    constexpr double factor = 3;
    const double least = rule.yield_mm / factor;
    const double most = std::max(rule.yield_mm * factor * factor, rule.damage_mm.value_or(0) * 1.15);
    const int inset = look.px(2);
    const auto x = [&](double mm) {
        const double share = std::log(std::max(mm, least) / least) / std::log(most / least);
        return area.left() + inset + qRound(share * (area.width() - 2 * inset));
    };
    const int body = look.px(30);
    const int top = area.bottom() - body;
    const int zone = std::min(look.px(48), top - area.top());
    painter.setRenderHint(QPainter::Antialiasing, false);
    QColor yields = p.older;
    yields.setAlpha(70);
    const int first = x(rule.yield_mm);
    const int second = x(factor * rule.yield_mm);
    const int left = x(least);
    painter.fillRect(left, top - zone, first - left, zone, yields);
    painter.fillRect(first, top - zone, second - first, zone, p.window_on_panel);
    painter.fillRect(first, top - zone, 2, zone, p.ink);
    painter.fillRect(second, top - zone, 2, zone, p.ink);
    const auto label = [&](int from, int to, const QString& text) {
        drawFitted(painter, from + look.px(8), top - zone + look.px(19), text, std::max(0, to - from - look.px(10)),
                   look, 14, false, p.ink);
    };
    if (told != nullptr) {
        const auto thick = [&](double mm) { return lengthText(mm, 2, look); };
        const double high = area.bottom() + 1 - (top - zone);
        const auto over = [&](int from, int to) { return QRectF(from, top - zone, to - from, high); };
        told->add(over(left, first), tr("Metal thinner than %1 is expected to yield anyway").arg(thick(rule.yield_mm)));
        told->add(over(first, second), tr("From %1 to %2 the edge's shape can explain it: the estimate is good to a "
                                          "factor of 3")
                                           .arg(thick(rule.yield_mm), thick(factor * rule.yield_mm)));
        told->add(over(second, area.right() + 1),
                  tr("Thicker than %1: the shape does not explain it, look at the heat treatment")
                      .arg(thick(factor * rule.yield_mm)));
        if (rule.damage_mm)
            told->add(QRectF(x(*rule.damage_mm) - look.px(20), top - look.px(26), look.px(40), look.px(56)),
                      tr("The metal at the root of the damage: %1 thick").arg(thick(*rule.damage_mm)));
    }
    label(left, first, tr("yields anyway"));
    label(first, second, tr("geometry explains it"));
    label(second, area.right(), tr("look at the heat"));
    painter.fillRect(area.left(), top, area.width(), body, p.steel);
    painter.fillRect(area.left(), top, area.width(), 2, p.ink);
    const auto figure = [&](double mm, bool bold) {
        drawText(painter, x(mm), area.bottom() - look.px(8), fine(mm, look), look.font(16, bold), p.ink,
                 Qt::AlignHCenter);
    };
    const int room = look.px(44); // of a figure; the needle's own goes first
    if (!rule.damage_mm || std::abs(x(*rule.damage_mm) - first) > room) figure(rule.yield_mm, false);
    if (!rule.damage_mm || std::abs(x(*rule.damage_mm) - second) > room) figure(factor * rule.yield_mm, false);
    if (!rule.damage_mm) return;
    painter.fillRect(x(*rule.damage_mm) - 2, top - look.px(26), 5, look.px(26), p.ink);
    figure(*rule.damage_mm, true);
}

namespace {

double edgeScale(const QRect& area, const BladeShape& shape, const Look& look) {
    return (area.width() - look.px(20)) / std::max(1.0, shape.length());
}

} // namespace

double edgePlaceAt(const QRect& area, const BladeShape& shape, int x, const Look& look) {
    return std::clamp((x - area.left() - look.px(10)) / edgeScale(area, shape, look), 0.0, shape.length());
}

void drawEdgeStrip(QPainter& painter, const QRect& area, const BladeShape& shape, const std::vector<EdgeMark>& marks,
                   const Look& look, Told* told) {
    const Palette& p = look.palette;
    const double scale = edgeScale(area, shape, look);
    const double heel = area.left() + look.px(10);
    const int edge = area.bottom() - look.px(26);
    QPolygonF outline;
    for (const Spot& corner : shape.outline) outline << QPointF(heel + corner.x_mm * scale, edge - corner.y_mm * scale);
    QPainterPath path;
    path.addPolygon(outline);
    path.closeSubpath();
    painter.save();
    painter.setClipRect(QRect(area.left(), area.top() + look.px(20), area.width(), edge - area.top() - look.px(18)));
    painter.setRenderHint(QPainter::Antialiasing);
    painter.fillPath(path, p.steel);
    painter.strokePath(path, QPen(p.ink, 1.5));
    painter.restore();
    painter.setRenderHint(QPainter::Antialiasing, false);
    const bool inch = look.units == Units::inch;
    const double least = inch ? outOfUnits(0.5, Quantity::length, look.units) : 10;
    const double step = scale * least >= look.px(40)       ? least
                        : scale * 2 * least >= look.px(40) ? 2 * least
                                                           : (inch ? 4 : 5) * least;
    for (int i = 0; i * step <= shape.length(); ++i) {
        const int x = qRound(heel + i * step * scale);
        painter.fillRect(x, edge + 2, 1, look.px(6), p.line);
        drawText(painter, x, area.bottom() - look.px(2),
                 QString::number(inUnits(i * step, Quantity::length, look.units), 'g', 3), look.font(14), p.muted,
                 Qt::AlignHCenter);
    }
    if (told != nullptr)
        told->add(QRectF(area.left(), edge - look.px(36), area.width(), area.bottom() + 1 - edge + look.px(36)),
                  tr("Along the edge from the heel, %1").arg(inch ? tr("inches") : tr("mm")));
    int taken = -1000; // right end of the last word: those that would run into it are left out
    for (const EdgeMark& mark : marks) {
        const int x = qRound(heel + mark.x_mm * scale);
        const QColor color = mark.next ? p.primary : p.ink;
        painter.fillRect(x - 1, edge - look.px(16), 3, look.px(16), color);
        if (told != nullptr) told->add(QRectF(x - look.px(6), edge - look.px(36), look.px(12), look.px(40)), mark.says);
        const int half = look.width(mark.label, 14, true) / 2 + look.px(3);
        if (mark.label.isEmpty() || x - half < taken) continue;
        taken = x + half;
        drawText(painter, x, edge - look.px(20), mark.label, look.font(14, true), color, Qt::AlignHCenter);
    }
}

} // namespace rollcall
