// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/heat_chart.h"

#include "core/base/number.h"
#include "plot/axis.h"
#include "plot/glyphs.h"
#include "plot/translate.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <QObject>
#include <QPainterPath>

namespace rollcall {

namespace {

struct Plane {
    QRect area;
    double from_s = 0, to_s = 1;
    double low = 0, high = 1;
    PlotAxis time() const { return {from_s, to_s, double(area.left()), double(area.left() + area.width())}; }
    PlotAxis heat() const { return {low, high, double(area.bottom()), double(area.bottom() - area.height())}; }
    double x(double s) const { return time().at(s); }
    double y(double c) const { return heat().at(c); }
};

// No more points than there are pixels: of each column of pixels its first, lowest and highest.
QPainterPath pathOf(const Trace& trace, const Plane& plane, double shift = 0) {
    QPainterPath path;
    bool begun = false;
    const auto add = [&](double s, double c) {
        const QPointF at(plane.x(s - shift), plane.y(c));
        begun ? path.lineTo(at) : path.moveTo(at);
        begun = true;
    };
    const double column = (plane.to_s - plane.from_s) / std::max(1, plane.area.width());
    const std::vector<TraceSample> part =
        trace.between(std::max(trace.start(), plane.from_s + shift), std::min(trace.end(), plane.to_s + shift));
    for (std::size_t i = 0; i < part.size();) {
        const double end = part[i].s + column;
        TraceSample low = part[i];
        TraceSample high = part[i];
        add(part[i].s, part[i].c);
        std::size_t k = i + 1;
        for (; k < part.size() && part[k].s < end; ++k) {
            if (part[k].c < low.c) low = part[k];
            if (part[k].c > high.c) high = part[k];
        }
        if (k > i + 1) {
            const bool lowFirst = low.s < high.s;
            for (const TraceSample& sample : {lowFirst ? low : high, lowFirst ? high : low}) {
                if (sample.s > part[i].s) add(sample.s, sample.c);
            }
        }
        i = k;
    }
    return path;
}

void drawTimeAxis(QPainter& painter, const Plane& plane, int y, const std::function<QString(double)>& clock,
                  const Look& look) {
    const Palette& p = look.palette;
    fillLine(painter, plane.area.left(), y, plane.area.width(), 1, p.line);
    const PlotAxis time = plane.time();
    for (const double s : time.ticks(time.clockStep(look.px(76)))) {
        const int x = qRound(plane.x(s));
        fillLine(painter, x, y, 1, look.px(5), p.line);
        drawText(painter, x, y + look.px(20), clock(s), look.font(14), p.muted, Qt::AlignHCenter);
    }
}

constexpr int labelRoom = 96; // marks and minutes of the bars

Plane tracePlane(const QRect& area, const SoakChart& chart, const Look& look) {
    const int left = area.left() + look.px(labelRoom);
    const int barRoom = std::min(static_cast<int>(chart.bars.size()) * look.px(18), (area.height() * 6) / 10);
    const int height = area.height() - barRoom - look.px(28) - look.px(18);
    Plane plane;
    plane.area = QRect(left, area.top() + look.px(18), area.right() - left - look.px(8), std::max(look.px(60), height));
    plane.from_s = chart.from_s;
    plane.to_s = std::max(chart.to_s, chart.from_s + 1);
    plane.low = chart.threshold_c - 80;
    plane.high = chart.set_c + 20;
    if (chart.oven != nullptr) {
        for (const TraceSample& sample : chart.oven->samples()) {
            if (sample.s >= plane.from_s && sample.s <= plane.to_s) plane.high = std::max(plane.high, sample.c + 5);
        }
    }
    return plane;
}

} // namespace

double soakChartMoment(const QRect& area, const SoakChart& chart, int x, const Look& look) {
    const Plane plane = tracePlane(area, chart, look);
    return plane.time().value(x);
}

QString soakChartSays(const QRect& area, const SoakChart& chart, const QPoint& at, const Look& look) {
    const Plane plane = tracePlane(area, chart, look);
    if (!plane.area.contains(at)) return {};
    const double s = plane.time().value(at.x());
    QString says = chart.clock(s);
    const auto on = [&](const Trace& trace) { return s >= trace.start() && s <= trace.end(); };
    if (chart.oven != nullptr && on(*chart.oven)) says += tr(": oven %1").arg(degreesText(chart.oven->at(s), look));
    if (!chart.steel.empty() && on(chart.steel))
        says += tr(", steel %1, estimated").arg(degreesText(chart.steel.at(s), look));
    return says;
}

void drawSoakChart(QPainter& painter, const QRect& area, const SoakChart& chart, const Look& look) {
    const Palette& p = look.palette;
    const auto px = [&](double v) { return look.px(v); };
    const Plane plane = tracePlane(area, chart, look);
    const QRect& box = plane.area;
    const int axis = area.bottom() - px(26);

    // Degrees.
    drawText(painter, box.left() - px(8), area.top() + px(10),
             QString::fromUtf8(symbolOf(Quantity::temperature, look.units)), look.font(14), p.muted, Qt::AlignRight);
    fillLine(painter, box.left(), box.top(), 1, box.height(), p.line);
    const PlotAxis heat = plane.heat().shownIn(Quantity::temperature, look.units);
    for (const double c : heat.ticks(std::max(20.0, heat.roundStep(px(36))))) {
        const int y = qRound(heat.at(c));
        fillLine(painter, box.left() - px(4), y, px(4), 1, p.line);
        drawText(painter, box.left() - px(8), y + px(5), QString::number(c), look.font(14), p.muted, Qt::AlignRight);
    }
    painter.save();
    painter.setClipRect(box.adjusted(0, -px(2), px(4), px(2)));
    painter.setRenderHint(QPainter::Antialiasing, false);
    QPen dashed(p.ink, 1);
    dashed.setDashPattern({6, 4});
    painter.setPen(dashed);
    painter.drawLine(box.left(), qRound(plane.y(chart.set_c)), box.right(), qRound(plane.y(chart.set_c)));
    fillLine(painter, box.left(), qRound(plane.y(chart.threshold_c)), box.width(), 1, p.ink);
    painter.setRenderHint(QPainter::Antialiasing, true);
    if (!chart.steel.empty()) {
        const QPainterPath steel = pathOf(chart.steel, plane);
        // The soak: steel above the threshold.
        QPainterPath under = steel;
        under.lineTo(plane.x(std::min(chart.steel.end(), plane.to_s)), plane.y(plane.low));
        under.lineTo(plane.x(std::max(chart.steel.start(), plane.from_s)), plane.y(plane.low));
        under.closeSubpath();
        painter.save();
        painter.setClipRect(QRect(box.left(), box.top(), box.width(), qRound(plane.y(chart.threshold_c)) - box.top()));
        QColor soak = p.earlier;
        soak.setAlpha(70);
        painter.fillPath(under, soak);
        painter.restore();
        painter.setPen(QPen(p.older, px(3)));
        painter.setBrush(Qt::NoBrush);
        painter.drawPath(steel);
    }
    if (chart.oven != nullptr) {
        painter.setPen(QPen(p.ink, 1.5 * look.factor));
        painter.setBrush(Qt::NoBrush);
        painter.drawPath(pathOf(*chart.oven, plane));
    }
    painter.restore();
    drawText(painter, box.right(), qRound(plane.y(chart.set_c)) - px(6),
             tr("set %1").arg(degreesText(chart.set_c, look)), look.font(14), p.muted, Qt::AlignRight);
    drawText(painter, box.right(), qRound(plane.y(chart.threshold_c)) + px(16),
             tr("soak from %1").arg(degreesText(chart.threshold_c, look)), look.font(14), p.muted, Qt::AlignRight);
    if (chart.oven != nullptr)
        drawText(painter, box.left() + px(10), box.bottom() - px(24), tr("oven"), look.font(16, true), p.ink);
    if (!chart.steel.empty())
        drawText(painter, box.left() + px(10), box.bottom() - px(4), tr("steel, estimated"), look.font(16, true),
                 p.older);

    // Bars: in the oven thin, soaking thick.
    const int bars = static_cast<int>(chart.bars.size());
    const int top = box.bottom() + px(14);
    const double pitch = bars > 0 ? std::min<double>(px(20), double(axis - px(4) - top) / bars) : 0;
    const bool labels = pitch >= px(13);
    for (int i = 0; i < bars; ++i) {
        const SoakChart::Bar& bar = chart.bars[static_cast<std::size_t>(i)];
        const double y = top + pitch * i;
        const double middle = y + pitch / 2;
        if (bar.current) painter.fillRect(QRectF(area.left(), y, area.width(), pitch), p.window_on_panel);
        if (labels || bar.current)
            drawFitted(painter, area.left() + px(2), middle + px(5), bar.mark, px(50), look, 14, bar.current,
                       bar.current ? p.primary : p.ink);
        if (bar.minutes && (labels || bar.current))
            drawText(painter, box.left() - px(8), middle + px(5), QString::number(*bar.minutes, 'f', 1),
                     look.font(16, true), p.number(bar.state), Qt::AlignRight);
        if (!bar.in_s) continue;
        const double in = std::clamp<double>(plane.x(*bar.in_s), box.left(), box.right());
        const double out = std::clamp<double>(plane.x(bar.out_s.value_or(plane.to_s)), box.left(), box.right());
        fillLine(painter, qRound(in), qRound(middle), qRound(out - in), 1, p.line);
        fillLine(painter, qRound(in) - 1, qRound(middle) - px(4), 2, px(8), p.ink);
        if (!bar.out_s || !bar.minutes) continue;
        const double start = std::max(in, plane.x(*bar.out_s - *bar.minutes * 60));
        const double thick = std::max(3.0, std::min<double>(px(8), pitch - 3));
        painter.fillRect(QRectF(start, middle - thick / 2, out - start, thick),
                         bar.state == State::borderline ? p.borderline : p.older);
        fillLine(painter, qRound(out) - 1, qRound(middle - thick), 3, qRound(2 * thick), p.ink);
    }
    // What the plan allows, where all went in together.
    if (bars > 0 && (chart.least || chart.most)) {
        std::optional<double> began;
        for (const SoakChart::Bar& bar : chart.bars) {
            if (!bar.out_s || !bar.minutes) continue;
            const double at = *bar.out_s - *bar.minutes * 60;
            if (began && std::abs(*began - at) > 30) {
                began.reset();
                break;
            }
            began = at;
        }
        if (began) {
            for (const auto& limit : {chart.least, chart.most}) {
                if (!limit) continue;
                const int x = qRound(plane.x(*began + *limit * 60));
                if (x > box.left() && x < box.right()) fillLine(painter, x, top - px(6), 2, axis - top + px(6), p.ink);
            }
            if (chart.most) {
                const double x = plane.x(*began + *chart.most * 60);
                if (x > box.left() && x < box.right())
                    drawText(painter, x - px(6), top - px(2), tr("plan"), look.font(14), p.muted, Qt::AlignRight);
            }
        }
    }
    if (chart.cursor_s && *chart.cursor_s >= plane.from_s && *chart.cursor_s <= plane.to_s) {
        const int x = qRound(plane.x(*chart.cursor_s));
        fillLine(painter, x - 1, box.top() - px(4), 3, axis - box.top() + px(4), p.primary);
        QString text = chart.clock(*chart.cursor_s);
        if (chart.oven != nullptr) text += QStringLiteral("  ") + degreesText(chart.oven->at(*chart.cursor_s), look);
        const bool right = x + px(12) + look.width(text, 16, true) < area.right();
        drawText(painter, right ? x + px(8) : x - px(8), area.top() + px(12), text, look.font(16, true), p.primary,
                 right ? Qt::AlignLeft : Qt::AlignRight);
    }
    drawTimeAxis(painter, plane, axis, chart.clock, look);
}

void drawHeatOverlay(QPainter& painter, const QRect& area, const HeatOverlay& overlay, const Look& look) {
    const Palette& p = look.palette;
    const auto px = [&](double v) { return look.px(v); };
    Plane plane;
    plane.area = area.adjusted(px(52), px(12), -px(8), -px(28));
    plane.to_s = 60;
    plane.low = 2000;
    plane.high = 0;
    for (const HeatOverlay::Run& run : overlay.runs) {
        plane.to_s = std::max(plane.to_s, run.length_s);
        for (const TraceSample& sample : run.trace->samples()) {
            if (sample.s < run.zero_s || sample.s > run.zero_s + run.length_s) continue;
            plane.low = std::min(plane.low, sample.c);
            plane.high = std::max(plane.high, sample.c);
        }
    }
    if (plane.high <= plane.low) return;
    plane.high += 10;
    plane.low -= 10;
    const PlotAxis heat = plane.heat();
    for (const double c : heat.ticks(std::max(20.0, heat.roundStep(px(36))))) {
        fillLine(painter, plane.area.left(), qRound(plane.y(c)), plane.area.width(), 1, p.hair);
        drawText(painter, plane.area.left() - px(8), plane.y(c) + px(5), QString::number(c), look.font(14), p.muted,
                 Qt::AlignRight);
    }
    const std::array<QColor, 4> colours{p.ink, p.quenched, p.earlier, p.older};
    const std::array<Qt::PenStyle, 3> styles{Qt::SolidLine, Qt::DashLine, Qt::DotLine};
    painter.setRenderHint(QPainter::Antialiasing, true);
    for (std::size_t i = 0; i < overlay.runs.size(); ++i) {
        const HeatOverlay::Run& run = overlay.runs[i];
        painter.setPen(QPen(colours[i % 4], px(2), styles[(i / 4) % 3]));
        painter.setBrush(Qt::NoBrush);
        Plane own = plane;
        own.to_s = std::max(1.0, std::min(plane.to_s, run.length_s));
        own.area.setWidth(qRound(plane.area.width() * own.to_s / plane.to_s));
        painter.drawPath(pathOf(*run.trace, own, run.zero_s));
        drawText(painter, plane.area.left() + px(10),
                 plane.area.bottom() - px(6 + 18 * static_cast<double>(overlay.runs.size() - 1 - i)),
                 QString::number(i + 1) + QStringLiteral("  ") + run.name, look.font(16, true), colours[i % 4]);
    }
    drawTimeAxis(
        painter, plane, plane.area.bottom(), [](double s) { return QObject::tr("%1 min").arg(qRound(s / 60)); }, look);
}

namespace {

struct DayPlane {
    int left = 0, width = 1, axis = 0, pitch = 1;
    std::int64_t from_ms = 0;
    PlotAxis seconds;
    double x(std::int64_t ms) const { return seconds.at(static_cast<double>(ms - from_ms) / 1000); }
    double within(std::int64_t ms) const { return std::clamp<double>(x(ms), left, left + width); }
    QRectF bar(const PlannedRun& run, int row, int inset) const {
        const double from = within(run.start_ms);
        return {from, axis + double(pitch) * row + inset, std::max(3.0, within(run.outAt()) - from),
                double(pitch) - 2 * inset};
    }
};

DayPlane dayPlane(const QRect& area, const DayChart& chart, const Look& look) {
    DayPlane plane;
    plane.left = area.left() + look.px(110);
    plane.axis = area.top() + look.px(24);
    plane.width = area.right() - plane.left - look.px(24);
    plane.from_ms = chart.from_ms;
    const double span = std::max<double>(1, static_cast<double>(chart.to_ms - chart.from_ms));
    plane.seconds = {0, span / 1000, double(plane.left), double(plane.left + plane.width)};
    const int rows = std::max(1, static_cast<int>(chart.ovens.size()));
    plane.pitch = std::min(look.px(84), (area.bottom() - plane.axis) / rows);
    return plane;
}

} // namespace

int dayChartRun(const QRect& area, const DayChart& chart, const QPoint& at, const Look& look) {
    const DayPlane plane = dayPlane(area, chart, look);
    for (std::size_t k = chart.runs.size(); k-- > 0;) { // the last drawn lies on top
        const PlannedRun& run = chart.runs[k];
        for (std::size_t i = 0; i < chart.oven_ids.size(); ++i) {
            if (!run.cancelled && run.oven == chart.oven_ids[i] && plane.x(run.freeAt()) > plane.left &&
                plane.bar(run, static_cast<int>(i), look.px(10)).contains(at))
                return static_cast<int>(k);
        }
    }
    return -1;
}

void drawDayChart(QPainter& painter, const QRect& area, const DayChart& chart, const Look& look) {
    const Palette& p = look.palette;
    const auto px = [&](double v) { return look.px(v); };
    const DayPlane plane = dayPlane(area, chart, look);
    const auto& [left, width, axis, pitch, from_ms, seconds] = plane;
    const auto x = [&](std::int64_t ms) { return plane.x(ms); };
    fillLine(painter, left, axis, width, 1, p.line);
    // Whole steps of the local clock: labels come from the caller, so does their zero.
    for (const double s : seconds.ticks(seconds.clockStep(px(70)))) {
        const int at = qRound(seconds.at(s));
        fillLine(painter, at, axis - px(5), 1, px(5), p.line);
        drawText(painter, at, axis - px(9), chart.clock(chart.from_ms + static_cast<std::int64_t>(s * 1000)),
                 look.font(14), p.muted, Qt::AlignHCenter);
    }
    const int rows = std::max(1, static_cast<int>(chart.ovens.size()));
    if (chart.now_ms >= chart.from_ms && chart.now_ms <= chart.to_ms) {
        const int at = qRound(x(chart.now_ms));
        fillLine(painter, at - 1, axis, 3, pitch * rows, p.primary);
        drawText(painter, at + px(6), axis + pitch * rows - px(6), tr("now"), look.font(14, true), p.primary);
    }
    for (int i = 0; i < static_cast<int>(chart.ovens.size()); ++i) {
        const int top = axis + pitch * i;
        drawFitted(painter, area.left(), top + pitch / 2 + px(6), chart.ovens[static_cast<std::size_t>(i)], px(104),
                   look, 18, true, p.ink);
        fillLine(painter, area.left(), top + pitch, area.width(), 1, p.hair);
        for (std::size_t k = 0; k < chart.runs.size(); ++k) {
            const PlannedRun& run = chart.runs[k];
            if (run.cancelled || run.oven != chart.oven_ids[static_cast<std::size_t>(i)]) continue;
            const double b = plane.within(run.outAt());
            const double c = plane.within(run.freeAt());
            if (c <= left + 1) continue;
            const QRectF body = plane.bar(run, i, px(10));
            painter.fillRect(body, run.out ? p.steel : run.started ? p.window : p.window_on_panel);
            painter.fillRect(QRectF(b, top + pitch / 2.0 - px(3), std::max(0.0, c - b), px(6)), p.steel);
            painter.setRenderHint(QPainter::Antialiasing, false);
            const bool current = static_cast<int>(k) == chart.current;
            painter.setPen(QPen(current ? p.primary : p.line, current ? 3 : 1));
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(body);
            const int room = qRound(body.width()) - px(12);
            // A bar is as long as its time; the list below the chart tells it whole.
            drawText(painter, body.left() + px(6), top + px(30),
                     shortened(QString::fromStdString(run.batch_name), look.font(16, true), room), look.font(16, true),
                     p.ink);
            const QString what =
                QStringLiteral("%1, %2").arg(QString::fromStdString(run.what), degreesText(run.temperature_c, look));
            drawText(painter, body.left() + px(6), top + px(50), shortened(what, look.font(14), room), look.font(14),
                     p.ink);
        }
    }
}

void drawWarpStack(QPainter& painter, const QRect& area, const WarpStack& stack, const Look& look, Told* told) {
    const Palette& p = look.palette;
    const auto px = [&](double v) { return look.px(v); };
    const int n = static_cast<int>(stack.pieces.size());
    if (n == 0) return;
    const int left = area.left() + px(150);
    const int right = area.right() - px(170);
    const double pitch = std::min<double>(px(74), double(area.height() - px(20)) / n);
    painter.setRenderHint(QPainter::Antialiasing, true);
    for (int i = 0; i < n; ++i) {
        const WarpStack::Piece& piece = stack.pieces[static_cast<std::size_t>(i)];
        const double y = area.top() + px(10) + pitch * (i + 0.5);
        // High side right = towards the next blade, drawn downwards.
        const double bow =
            std::min(pitch * 0.36, piece.mm * 10 * look.factor) * (piece.lies == WarpSide::right ? 1 : -1);
        const double thick = std::min<double>(px(7), pitch * 0.2);
        QPainterPath body;
        body.moveTo(left, y - bow / 2 - thick / 2);
        body.quadTo((left + right) / 2.0, y + bow * 1.5 - thick / 2, right, y - bow / 2 - thick / 2);
        body.lineTo(right, y - bow / 2 + thick / 2);
        body.quadTo((left + right) / 2.0, y + bow * 1.5 + thick / 2, left, y - bow / 2 + thick / 2);
        body.closeSubpath();
        painter.setPen(QPen(p.ink, 1.5 * look.factor));
        painter.setBrush(p.steel);
        painter.drawPath(body);
        drawText(painter, area.left(), y + px(6), piece.mark, look.font(18, true), p.ink);
        drawText(painter, left - px(12), y + px(6), lengthText(piece.mm, 1, look), look.font(16), p.muted,
                 Qt::AlignRight);
        if (piece.turn_over) {
            const int width = look.width(tr("turn over"), 16, true);
            painter.setRenderHint(QPainter::Antialiasing, false);
            painter.setPen(QPen(p.primary, 2));
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(QRectF(right + px(16), y - px(13), width + px(16), px(26)));
            painter.setRenderHint(QPainter::Antialiasing, true);
            drawText(painter, right + px(24), y + px(6), tr("turn over"), look.font(16, true), p.primary);
        } else {
            drawText(painter, right + px(24), y + px(6), tr("as it lies"), look.font(16), p.muted);
        }
        if (told != nullptr)
            told->add({double(area.left()), y - pitch / 2, double(area.width()), pitch},
                      tr("%1 stands off the plate by %2; %3")
                          .arg(piece.mark, lengthText(piece.mm, 1, look),
                               piece.turn_over ? tr("turned over so that bow meets bow") : tr("stacked as it lies")));
        if (piece.shim_mm > 0 && i + 1 < n) {
            const double between = y + pitch / 2;
            painter.fillRect(QRectF((left + right) / 2.0 - px(14), between - px(4), px(28), px(8)), p.older);
            drawText(painter, (left + right) / 2.0 + px(22), between + px(5),
                     tr("shim %1").arg(lengthText(piece.shim_mm, 1, look)), look.font(14), p.older);
            if (told != nullptr)
                told->add({(left + right) / 2.0 - px(14), between - px(12), double(px(140)), double(px(24))},
                          tr("A shim of %1 at mid length: it bends both past straight")
                              .arg(lengthText(piece.shim_mm, 1, look)));
        }
    }
}

void drawOxideStrip(QPainter& painter, const QRect& area, const OxideStrip& strip, const Look& look, Told* told) {
    const Palette& p = look.palette;
    const auto px = [&](double v) { return look.px(v); };
    const int n = static_cast<int>(strip.bands.size());
    if (n == 0) return;
    const QRectF body(area.left(), area.top() + px(8), area.width(), area.height() - px(62));
    const double width = body.width() / n;
    // Bands run into each other on real steel: a gradient from middle to middle.
    QLinearGradient gradient(body.left(), 0, body.right(), 0);
    for (int i = 0; i < n; ++i) gradient.setColorAt((i + 0.5) / n, strip.bands[static_cast<std::size_t>(i)].colour);
    painter.fillRect(body, gradient);
    painter.setRenderHint(QPainter::Antialiasing, false);
    painter.setPen(QPen(p.line, 1));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(body);
    if (told != nullptr) {
        for (int i = 0; i < n; ++i) {
            const OxideStrip::Band& band = strip.bands[static_cast<std::size_t>(i)];
            told->add({body.left() + width * i, double(area.top()), width, body.height() + px(8)},
                      QStringLiteral("%1: %2").arg(band.name, band.below));
        }
    }
    const OxideStrip::Band& chosen = strip.bands[static_cast<std::size_t>(std::clamp(strip.chosen, 0, n - 1))];
    const QRectF frame(body.left() + width * strip.chosen, body.top() - px(4), width, body.height() + px(8));
    painter.setPen(QPen(p.primary, 3));
    painter.drawRect(frame);
    const int nameWidth = std::max(look.width(chosen.name, 20, true), look.width(chosen.below, 16));
    const double centre =
        std::clamp<double>(frame.center().x(), area.left() + nameWidth / 2.0, area.right() - nameWidth / 2.0);
    drawText(painter, centre, body.bottom() + px(28), chosen.name, look.font(20, true), p.ink, Qt::AlignHCenter);
    drawText(painter, centre, body.bottom() + px(50), chosen.below, look.font(16), p.muted, Qt::AlignHCenter);
    if (told != nullptr)
        told->add({double(area.left()), body.bottom() + px(8), double(area.width()), double(px(54))},
                  tr("The colour in hand and the temperatures it allows: an estimate"));
}

} // namespace rollcall
