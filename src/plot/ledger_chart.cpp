// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/ledger_chart.h"

#include "plot/axis.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <iterator>
#include <map>
#include <QDate>
#include <QLocale>
#include <QPainterPath>

namespace rollcall {

namespace {

constexpr double near = 14; // px around a point that are it

struct LedgerPlane {
    QRect inside;
    PlotAxis over;
    PlotAxis up;
};

struct ChartReach {
    double low = 1e300;
    double high = -1e300;
    void take(double value) {
        if (!std::isfinite(value)) return;
        low = std::min(low, value);
        high = std::max(high, value);
    }
    bool any() const { return high >= low; }
};

// The frame; none where nothing is to be shown.
std::optional<LedgerPlane> ledgerPlaneOf(const QRect& area, const LedgerChart& chart, const Look& look) {
    ChartReach x;
    ChartReach y;
    for (const LedgerChart::Point& point : chart.points) {
        x.take(point.x);
        y.take(point.y);
        if (point.bar) {
            y.take(point.bar->first);
            y.take(point.bar->second);
        }
    }
    for (const LedgerChart::Line& line : chart.lines) {
        for (const QPointF& point : line.points) {
            x.take(point.x());
            y.take(point.y());
        }
    }
    if (!x.any() || !y.any()) return std::nullopt;
    for (const LedgerChart::Limit& limit : chart.limits) y.take(limit.y);
    if (chart.y_range) {
        y.low = chart.y_range->first;
        y.high = chart.y_range->second;
    } else {
        const double air = std::max((y.high - y.low) * 0.08, 0.2);
        y.low -= air;
        y.high += air;
    }
    if (chart.x_range) {
        x.low = chart.x_range->first;
        x.high = chart.x_range->second;
    } else if (chart.over == LedgerChart::Over::names) {
        x.low = -0.5;
        x.high = std::max(0.5, static_cast<double>(chart.names.size()) - 0.5);
    } else {
        const double air = std::max((x.high - x.low) * 0.02, chart.over == LedgerChart::Over::day ? 3.0 : 0.5);
        x.low -= air;
        x.high += air;
    }
    LedgerPlane plane;
    // Labels of limits and lines stand beside the plot, where they cover nothing.
    int labels = 0;
    for (const LedgerChart::Limit& limit : chart.limits) labels = std::max(labels, look.width(limit.label, 14, true));
    for (const LedgerChart::Line& line : chart.lines) labels = std::max(labels, look.width(line.label, 14, true));
    plane.inside = area.adjusted(look.px(52), look.px(26), -look.px(10) - labels, -look.px(46));
    if (plane.inside.width() < look.px(60) || plane.inside.height() < look.px(24)) return std::nullopt;
    const double wide = x.high - x.low;
    plane.over = {x.low + chart.part.first * wide, x.low + chart.part.second * wide,
                  static_cast<double>(plane.inside.left()), static_cast<double>(plane.inside.right())};
    plane.up = {y.low, y.high, static_cast<double>(plane.inside.bottom()), static_cast<double>(plane.inside.top())};
    return plane;
}

QColor colourOf(LedgerChart::Tone tone, const Palette& p) {
    switch (tone) {
    case LedgerChart::Tone::plain:
        return p.ink;
    case LedgerChart::Tone::shop:
        return p.primary;
    case LedgerChart::Tone::library:
        return p.older;
    case LedgerChart::Tone::limit:
        return p.muted;
    case LedgerChart::Tone::alarm:
        return p.fail;
    }
    return p.ink;
}

QString numberText(double value, double step, bool percent) {
    if (percent) return QStringLiteral("%1 %").arg(std::lround(100 * value));
    const int decimals = step >= 1 ? 0 : step >= 0.1 ? 1 : 2;
    return QString::number(std::abs(value) < 1e-9 ? 0.0 : value, 'f', decimals)
        .replace(QLatin1Char('-'), QChar(0x2212));
}

void drawUp(QPainter& painter, const LedgerPlane& plane, const LedgerChart& chart, const Look& look) {
    const Palette& p = look.palette;
    const double step = plane.up.roundStep(look.px(34));
    for (const double value : plane.up.ticks(step)) {
        const int y = qRound(plane.up.at(value));
        painter.fillRect(plane.inside.left(), y, plane.inside.width(), 1, p.hair);
        drawText(painter, plane.inside.left() - look.px(8), y + look.px(5), numberText(value, step, chart.percent),
                 look.font(14), p.muted, Qt::AlignRight);
    }
}

// Days as years, months or dates, whichever there is room for.
void drawDays(QPainter& painter, const LedgerPlane& plane, const Look& look) {
    const Palette& p = look.palette;
    const QDate epoch(1970, 1, 1);
    const QDate from = epoch.addDays(static_cast<qint64>(std::ceil(plane.over.low)));
    const double perDay = plane.inside.width() / std::max(1e-6, plane.over.high - plane.over.low);
    const int base = plane.inside.bottom();
    const auto mark = [&](const QDate& day, const QString& text) {
        const auto at = static_cast<double>(epoch.daysTo(day));
        if (at < plane.over.low || at > plane.over.high) return;
        const int x = qRound(plane.over.at(at));
        painter.fillRect(x, base, 1, look.px(5), p.line);
        const int wide = look.width(text, 14);
        if (x - wide / 2 < plane.inside.left() - look.px(30) || x + wide / 2 > plane.inside.right() + look.px(8))
            return;
        drawText(painter, x, base + look.px(20), text, look.font(14), p.muted, Qt::AlignHCenter);
    };
    constexpr int most = 400; // whatever it is given, a picture ends
    int drawn = 0;
    if (perDay * 7 >= look.px(64)) {
        for (QDate day = from.addDays((8 - from.dayOfWeek()) % 7); epoch.daysTo(day) <= plane.over.high && drawn < most;
             day = day.addDays(7), ++drawn)
            mark(day, QLocale().toString(day, QStringLiteral("d MMM")));
    } else {
        int every = 1;
        for (const int months : {1, 2, 3, 6, 12, 24, 60, 120}) {
            every = months;
            if (perDay * 30.4 * months >= look.px(74)) break;
        }
        QDate day(from.year(), 1, 1);
        for (; epoch.daysTo(day) <= plane.over.high && drawn < most; day = day.addMonths(every), ++drawn)
            mark(day, every >= 12 ? QString::number(day.year()) : QLocale().toString(day, QStringLiteral("MMM yyyy")));
    }
}

void drawOver(QPainter& painter, const LedgerPlane& plane, const LedgerChart& chart, const Look& look) {
    const Palette& p = look.palette;
    const int base = plane.inside.bottom();
    painter.fillRect(plane.inside.left(), base, plane.inside.width(), 1, p.line);
    if (chart.over == LedgerChart::Over::day) return drawDays(painter, plane, look);
    if (chart.over == LedgerChart::Over::names) {
        const double each = plane.over.at(1) - plane.over.at(0);
        for (int i = 0; i < chart.names.size(); ++i) {
            const double x = plane.over.at(i);
            if (x < plane.inside.left() || x > plane.inside.right()) continue;
            const QFont font = look.font(14);
            drawText(painter, x, base + look.px(20), shortened(chart.names[i], font, qRound(each) - look.px(8)), font,
                     p.ink, Qt::AlignHCenter);
        }
        return;
    }
    const bool degrees = chart.over == LedgerChart::Over::degrees;
    const PlotAxis shown = degrees ? plane.over.shownIn(Quantity::temperature, look.units) : plane.over;
    const double step = shown.roundStep(look.px(66));
    for (const double value : shown.ticks(step)) {
        const int x = qRound(shown.at(value));
        painter.fillRect(x, base, 1, look.px(5), p.line);
        drawText(painter, x, base + look.px(20), numberText(value, step, false), look.font(14), p.muted,
                 Qt::AlignHCenter);
    }
}

// Of points that lie closer than anybody can see, so many to a pixel of the width, those that make the same picture:
// in each pixel the first, the lowest, the highest and the last.
std::vector<QPointF> seenOf(std::vector<QPointF> points, int width) {
    if (points.size() <= 4 * static_cast<std::size_t>(std::max(1, width))) return points;
    std::vector<QPointF> seen;
    for (auto first = points.begin(); first != points.end();) {
        const double column = std::floor(first->x());
        const auto end =
            std::find_if(first, points.end(), [&](const QPointF& p) { return std::floor(p.x()) != column; });
        const auto [low, high] =
            std::minmax_element(first, end, [](const QPointF& a, const QPointF& b) { return a.y() < b.y(); });
        std::array<std::vector<QPointF>::iterator, 4> kept{first, low, high, std::prev(end)};
        std::sort(kept.begin(), kept.end());
        for (auto it = kept.begin(); it != kept.end(); ++it) {
            if (it == kept.begin() || *it != *std::prev(it)) seen.push_back(**it);
        }
        first = end;
    }
    return seen;
}

QPainterPath pathOf(const LedgerPlane& plane, const LedgerChart::Line& line) {
    std::vector<QPointF> points;
    points.reserve(line.points.size());
    for (const QPointF& point : line.points) points.emplace_back(plane.over.at(point.x()), plane.up.at(point.y()));
    points = seenOf(std::move(points), plane.inside.width());
    QPainterPath path;
    for (std::size_t i = 0; i < points.size(); ++i) {
        const QPointF& at = points[i];
        if (i == 0) {
            path.moveTo(at);
            continue;
        }
        if (line.steps) path.lineTo(at.x(), path.currentPosition().y());
        path.lineTo(at);
    }
    return path;
}

// Labels of limits and lines at the right, moved apart where they would meet.
void drawLabels(QPainter& painter, const LedgerPlane& plane, const LedgerChart& chart, const Look& look) {
    struct Label {
        double y;
        QString text;
        QColor colour;
    };
    std::vector<Label> labels;
    for (const LedgerChart::Limit& limit : chart.limits) {
        if (!limit.label.isEmpty())
            labels.push_back({plane.up.at(limit.y) - look.px(5), limit.label, look.palette.muted});
    }
    for (const LedgerChart::Line& line : chart.lines) {
        if (line.label.isEmpty() || line.points.empty()) continue;
        double y = plane.up.at(line.points.back().y());
        for (const QPointF& point : line.points) {
            if (point.x() <= plane.over.high) y = plane.up.at(point.y());
        }
        labels.push_back({y - look.px(5), line.label, colourOf(line.tone, look.palette)});
    }
    std::sort(labels.begin(), labels.end(), [](const Label& a, const Label& b) { return a.y < b.y; });
    double least = plane.inside.top() + look.px(14);
    for (Label& label : labels) {
        label.y = std::max(label.y, least);
        least = label.y + look.px(18);
    }
    double most = plane.inside.bottom() - look.px(4);
    for (auto label = labels.rbegin(); label != labels.rend(); ++label) {
        label->y = std::min(label->y, most);
        most = label->y - look.px(18);
    }
    for (const Label& label : labels)
        drawText(painter, plane.inside.right() + look.px(6), label.y + look.px(10), label.text, look.font(14, true),
                 label.colour);
}

void drawPoints(QPainter& painter, const LedgerPlane& plane, const LedgerChart& chart, const Look& look) {
    const Palette& p = look.palette;
    constexpr std::size_t crowded = 120;
    const double size = look.px(chart.points.size() > crowded ? 3 : 5);
    const auto draw = [&](const LedgerChart::Point& point, bool chosen) {
        if (!std::isfinite(point.x) || !std::isfinite(point.y)) return;
        const QPointF at(plane.over.at(point.x), plane.up.at(point.y));
        const QColor colour = colourOf(point.tone, p);
        if (point.bar && (chart.points.size() <= crowded || chosen)) {
            painter.setPen(QPen(colour, chosen ? 2.5 : 1.4));
            painter.drawLine(QPointF(at.x(), plane.up.within(point.bar->first)),
                             QPointF(at.x(), plane.up.within(point.bar->second)));
        }
        painter.setPen(QPen(chosen ? p.primary : colour, chosen ? 3 : 1.5));
        painter.setBrush(point.tone == LedgerChart::Tone::alarm ? QBrush(colour) : QBrush(p.panel));
        const double r = chosen ? size + 2 : size;
        if (point.tone == LedgerChart::Tone::alarm) // told by its shape too
            painter.drawPolygon(
                QPolygonF{{at + QPointF(0, -r), at + QPointF(r, 0), at + QPointF(0, r), at + QPointF(-r, 0)}});
        else
            painter.drawEllipse(at, r, r);
    };
    // Of a cloud nobody sees the single rings, and each costs as much as a thousand dots.
    constexpr std::size_t cloud = 1500;
    std::map<LedgerChart::Tone, std::vector<const LedgerChart::Point*>> byTone; // alarms last, over the others
    for (const LedgerChart::Point& point : chart.points) {
        if (!chart.chosen.contains(point.row)) byTone[point.tone].push_back(&point);
    }
    for (const auto& [tone, points] : byTone) {
        if (points.size() <= cloud) {
            for (const LedgerChart::Point* point : points) draw(*point, false);
            continue;
        }
        std::vector<QPointF> dots;
        for (const LedgerChart::Point* point : points) {
            if (std::isfinite(point->x) && std::isfinite(point->y))
                dots.emplace_back(plane.over.at(point->x), plane.up.at(point->y));
        }
        const int wide = look.px(tone == LedgerChart::Tone::alarm ? 5 : 3);
        painter.setRenderHint(QPainter::Antialiasing, false);
        painter.setPen(QPen(colourOf(tone, p), wide, Qt::SolidLine, Qt::SquareCap));
        painter.drawPoints(dots.data(), static_cast<int>(dots.size()));
        painter.setRenderHint(QPainter::Antialiasing, true);
    }
    for (const LedgerChart::Point& point : chart.points) {
        if (chart.chosen.contains(point.row)) draw(point, true);
    }
}

} // namespace

void drawLedgerChart(QPainter& painter, const QRect& area, const LedgerChart& chart, const Look& look) {
    const Palette& p = look.palette;
    const std::optional<LedgerPlane> plane = ledgerPlaneOf(area, chart, look);
    if (!plane) { // nothing to show, or no room for it
        const bool nothing = chart.points.empty() && chart.lines.empty();
        drawParagraphs(painter, area.left(), area.top() + look.px(40), area.width(),
                       {nothing ? chart.empty : QString()}, 0, look, 18, p.muted);
        return;
    }
    painter.setRenderHint(QPainter::Antialiasing, false);
    drawText(painter, area.left(), area.top() + look.px(16), chart.y_title, look.font(14, true), p.muted);
    drawText(painter, plane->inside.right(), area.bottom() - look.px(4), chart.x_title, look.font(14, true), p.muted,
             Qt::AlignRight);
    drawUp(painter, *plane, chart, look);
    drawOver(painter, *plane, chart, look);
    painter.save();
    painter.setClipRect(plane->inside, Qt::IntersectClip);
    painter.setRenderHint(QPainter::Antialiasing, true);
    for (const LedgerChart::Band& band : chart.bands) {
        QPolygonF outline;
        for (const QPointF& point : band.low) outline << QPointF(plane->over.at(point.x()), plane->up.at(point.y()));
        for (std::size_t i = band.high.size(); i > 0; --i)
            outline << QPointF(plane->over.at(band.low[i - 1].x()), plane->up.at(band.high[i - 1]));
        QColor fill = colourOf(band.tone, p);
        fill.setAlpha(band.tone == LedgerChart::Tone::shop ? 46 : 30);
        painter.setPen(Qt::NoPen);
        painter.setBrush(fill);
        painter.drawPolygon(outline);
    }
    for (const LedgerChart::Limit& limit : chart.limits) {
        painter.setPen(QPen(p.muted, 1.2, limit.dashed ? Qt::DashLine : Qt::SolidLine));
        painter.drawLine(QPointF(plane->inside.left(), plane->up.at(limit.y)),
                         QPointF(plane->inside.right(), plane->up.at(limit.y)));
    }
    painter.setBrush(Qt::NoBrush);
    for (const LedgerChart::Line& line : chart.lines) {
        painter.setPen(QPen(colourOf(line.tone, p), line.tone == LedgerChart::Tone::shop ? 2.5 : 1.6,
                            line.dashed ? Qt::DashLine : Qt::SolidLine));
        painter.drawPath(pathOf(*plane, line));
    }
    painter.restore();
    painter.save();
    painter.setClipRect(plane->inside.adjusted(-look.px(8), -look.px(8), look.px(8), look.px(8)), Qt::IntersectClip);
    painter.setRenderHint(QPainter::Antialiasing, true);
    drawPoints(painter, *plane, chart, look);
    painter.restore();
    drawLabels(painter, *plane, chart, look);
}

std::set<int> ledgerRowsIn(const QRect& area, const LedgerChart& chart, const QRect& picked, const Look& look) {
    std::set<int> rows;
    const std::optional<LedgerPlane> plane = ledgerPlaneOf(area, chart, look);
    if (!plane) return rows;
    if (picked.width() > 2 || picked.height() > 2) {
        for (const LedgerChart::Point& point : chart.points) {
            if (point.row >= 0 && QRectF(picked).contains(plane->over.at(point.x), plane->up.at(point.y)))
                rows.insert(point.row);
        }
        return rows;
    }
    double least = look.px(near);
    for (const LedgerChart::Point& point : chart.points) {
        const double away = std::hypot(plane->over.at(point.x) - picked.x(), plane->up.at(point.y) - picked.y());
        if (point.row < 0 || away > least) continue;
        least = away;
        rows = {point.row};
    }
    return rows;
}

QString ledgerChartSays(const QRect& area, const LedgerChart& chart, const QPoint& at, const Look& look) {
    const std::optional<LedgerPlane> plane = ledgerPlaneOf(area, chart, look);
    if (!plane || !area.contains(at)) return {};
    double least = look.px(near);
    QString says;
    for (const LedgerChart::Point& point : chart.points) {
        const double away = std::hypot(plane->over.at(point.x) - at.x(), plane->up.at(point.y) - at.y());
        if (away > least) continue;
        least = away;
        says = point.says;
    }
    if (!says.isEmpty()) return says;
    // Beside the points: what the axes are.
    QStringList axes;
    if (!chart.y_title.isEmpty()) axes << tr("Upwards: %1").arg(chart.y_title);
    if (!chart.x_title.isEmpty()) axes << tr("Across: %1").arg(chart.x_title);
    const bool inside = at.x() > plane->over.at(plane->over.low) && at.y() < plane->up.at(plane->up.low) &&
                        at.y() > plane->up.at(plane->up.high);
    return inside ? QString() : axes.join(QLatin1Char('\n'));
}

} // namespace rollcall
