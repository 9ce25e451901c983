// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/temper_chart.h"

#include "core/base/number.h"
#include "plot/axis.h"
#include "plot/glyphs.h"
#include "plot/translate.h"

#include <algorithm>
#include <cmath>
#include <QObject>
#include <QPainterPath>

namespace rollcall {

namespace {

struct Frame {
    QRect box;
    double c_low = 150, c_high = 300;
    double hrc_low = 55, hrc_high = 66;
    PlotAxis heat() const { return {c_low, c_high, double(box.left()), double(box.left() + box.width())}; }
    PlotAxis hardness() const { return {hrc_low, hrc_high, double(box.bottom()), double(box.bottom() - box.height())}; }
    double x(double c) const { return heat().at(c); }
    double y(double hrc) const { return hardness().at(hrc); }
};

Frame frameOf(const QRect& area, const TemperChart& chart, const Look& look) {
    Frame frame;
    frame.box = area.adjusted(look.px(48), look.px(18), -look.px(12), -look.px(62));
    if (chart.curve.empty()) return frame;
    frame.c_low = chart.curve.front().temperature_c;
    frame.c_high = std::max(chart.curve.back().temperature_c, frame.c_low + 10);
    double low = chart.window.low.value_or(chart.curve.back().hrc);
    double high = chart.window.high.value_or(chart.curve.front().hrc);
    for (const TemperChart::At& at : chart.curve) {
        low = std::min(low, at.hrc);
        high = std::max(high, at.hrc);
    }
    for (const auto* points : {&chart.shop, &chart.batch, &chart.blade}) {
        for (const TemperChart::Point& point : *points) {
            if (point.temperature_c < frame.c_low || point.temperature_c > frame.c_high) continue;
            low = std::min(low, point.hrc);
            high = std::max(high, point.hrc);
        }
    }
    frame.hrc_low = std::floor(low - 1);
    frame.hrc_high = std::ceil(high + 1);
    return frame;
}

} // namespace

double temperChartTemperature(const QRect& area, const TemperChart& chart, int x, const Look& look) {
    const Frame frame = frameOf(area, chart, look);
    return frame.heat().value(x);
}

QString temperChartSays(const QRect& area, const TemperChart& chart, const QPoint& at, const Look& look) {
    const Frame f = frameOf(area, chart, look);
    if (chart.curve.empty() || !f.box.contains(at)) return {};
    const auto hrc = [](double value) { return QString::fromStdString(tenthText(value)); };
    const double near = look.px(8);
    struct Kind {
        const std::vector<TemperChart::Point>* points;
        QString whose;
    };
    for (const Kind& kind : {Kind{&chart.blade, tr("this blade")}, Kind{&chart.batch, tr("this batch")},
                             Kind{&chart.shop, tr("an earlier batch")}}) {
        for (const TemperChart::Point& point : *kind.points) {
            if (std::hypot(f.x(point.temperature_c) - at.x(), f.y(point.hrc) - at.y()) <= near)
                return tr("read %1 after %2: %3")
                    .arg(hrc(point.hrc), degreesText(point.temperature_c, look), kind.whose);
        }
    }
    const double c = f.heat().value(at.x());
    const auto curve =
        std::lower_bound(chart.curve.begin(), chart.curve.end(), c,
                         [](const TemperChart::At& one, double sought) { return one.temperature_c < sought; });
    if (curve == chart.curve.end()) return {};
    return tr("%1: %2 expected, %3 to %4 in 95 of 100")
        .arg(degreesText(curve->temperature_c, look), hrc(curve->hrc), hrc(curve->low), hrc(curve->high));
}

void drawTemperChart(QPainter& painter, const QRect& area, const TemperChart& chart, const Look& look) {
    const Palette& p = look.palette;
    const auto px = [&](double v) { return look.px(v); };
    const Frame f = frameOf(area, chart, look);
    if (chart.curve.empty()) return;
    const QRect& box = f.box;
    // The window, and what to avoid.
    const double top = f.y(chart.window.high.value_or(f.hrc_high));
    const double bottom = f.y(chart.window.low.value_or(f.hrc_low));
    if (chart.window.low || chart.window.high) {
        painter.fillRect(QRectF(box.left(), top, box.width(), bottom - top), p.window_on_panel);
        for (const auto& limit : {chart.window.low, chart.window.high}) {
            if (!limit) continue;
            fillLine(painter, box.left(), qRound(f.y(*limit)), box.width(), 1, p.ink);
            // Inside the window where it is tall enough for both, else outside.
            const bool low = limit == chart.window.low;
            const bool outside = bottom - top < px(40);
            drawText(painter, box.right() - px(4), f.y(*limit) + (low != outside ? -px(5) : px(16)),
                     QString::fromStdString(tenthText(*limit)), look.font(14), p.ink, Qt::AlignRight);
        }
    }
    if (chart.avoid_high > chart.avoid_low) {
        const double a = std::clamp(f.x(chart.avoid_low), double(box.left()), double(box.right()));
        const double b = std::clamp(f.x(chart.avoid_high), double(box.left()), double(box.right()));
        if (b > a) {
            painter.fillRect(QRectF(a, box.top(), b - a, box.height()), QBrush(p.line, Qt::BDiagPattern));
            if (b - a > look.width(tr("brittle"), 14) + px(8))
                drawText(painter, (a + b) / 2, box.top() - px(4), tr("brittle"), look.font(14), p.muted,
                         Qt::AlignHCenter);
        }
    }
    // Axes.
    fillLine(painter, box.left(), box.top(), 1, box.height(), p.line);
    fillLine(painter, box.left(), box.bottom(), box.width(), 1, p.line);
    drawText(painter, box.left() - px(8), area.top() + px(10), QStringLiteral("HRC"), look.font(14), p.muted,
             Qt::AlignRight);
    const PlotAxis hardness = f.hardness();
    for (const double h : hardness.ticks(std::max(1.0, hardness.roundStep(px(24))))) {
        fillLine(painter, box.left() - px(4), qRound(f.y(h)), px(4), 1, p.line);
        drawText(painter, box.left() - px(8), f.y(h) + px(5), QString::number(h), look.font(14), p.muted,
                 Qt::AlignRight);
    }
    const PlotAxis heat = f.heat().shownIn(Quantity::temperature, look.units);
    for (const double c : heat.ticks(std::max(20.0, heat.roundStep(px(68))))) {
        fillLine(painter, qRound(heat.at(c)), box.bottom() + px(12), 1, px(5), p.line);
        const bool underTrial = chart.trial && std::abs(heat.at(c) - f.x(chart.trial->temperature_c)) < px(34);
        if (!underTrial)
            drawText(painter, heat.at(c), box.bottom() + px(34), QString::number(c), look.font(14), p.muted,
                     Qt::AlignHCenter);
    }
    drawText(painter, box.right(), box.bottom() + px(54),
             tr("%1 for %2").arg(QString::fromUtf8(symbolOf(Quantity::temperature, look.units)), chart.hours),
             look.font(14), p.muted, Qt::AlignRight);
    for (std::size_t i = 0; i < chart.oxide.size(); ++i) {
        const double a = std::max(f.x(chart.oxide[i].first), double(box.left()));
        const double b =
            i + 1 < chart.oxide.size() ? std::min(f.x(chart.oxide[i + 1].first), double(box.right())) : box.right();
        if (b > a) painter.fillRect(QRectF(a, box.bottom() + px(5), b - a, px(6)), chart.oxide[i].second);
    }
    painter.save();
    painter.setClipRect(box);
    painter.setRenderHint(QPainter::Antialiasing, true);
    QPainterPath curve, low, high, library;
    bool libraryBegun = false;
    for (std::size_t i = 0; i < chart.curve.size(); ++i) {
        const TemperChart::At& at = chart.curve[i];
        const double x = f.x(at.temperature_c);
        const auto to = [&](QPainterPath& path, double hrc) {
            i == 0 ? path.moveTo(x, f.y(hrc)) : path.lineTo(x, f.y(hrc));
        };
        to(curve, at.hrc);
        to(low, at.low);
        to(high, at.high);
        if (!at.has_library) continue;
        libraryBegun ? library.lineTo(x, f.y(at.library)) : library.moveTo(x, f.y(at.library));
        libraryBegun = true;
    }
    painter.setBrush(Qt::NoBrush);
    QPen fine(p.older, 1.3 * look.factor);
    fine.setDashPattern({3, 3});
    painter.setPen(fine);
    painter.drawPath(low);
    painter.drawPath(high);
    QPen shelf(p.line, 1.5 * look.factor);
    shelf.setDashPattern({6, 4});
    painter.setPen(shelf);
    painter.drawPath(library);
    painter.setPen(QPen(p.older, px(3)));
    painter.drawPath(curve);
    for (const TemperChart::Point& point : chart.shop) {
        painter.setPen(QPen(p.muted, 1.3 * look.factor));
        painter.setBrush(p.panel);
        painter.drawEllipse(QPointF(f.x(point.temperature_c), f.y(point.hrc)), px(4), px(4));
    }
    painter.setPen(Qt::NoPen);
    const auto squares = [&](const std::vector<TemperChart::Point>& points, const QColor& colour, double size) {
        for (const TemperChart::Point& point : points)
            painter.fillRect(QRectF(f.x(point.temperature_c) - size / 2, f.y(point.hrc) - size / 2, size, size),
                             colour);
    };
    squares(chart.batch, p.earlier, px(7));
    squares(chart.blade, p.primary, px(11));
    painter.restore();
    // Legend, top right, where a falling curve leaves room.
    std::vector<std::pair<QString, QColor>> legend{{tr("this blade, 95 %"), p.older}, {tr("library - -"), p.muted}};
    if (!chart.shop.empty()) legend.emplace_back(tr("○ earlier batches"), p.muted);
    if (!chart.batch.empty()) legend.emplace_back(tr("■ this batch"), p.earlier);
    int below = box.top() + px(16);
    int legendWidth = 0;
    for (const auto& [text, colour] : legend) {
        for (const std::optional<double>& limit :
             {chart.window.high, chart.window.low}) { // whose labels stand there too
            if (limit && std::abs(f.y(*limit) - below) < px(26)) below = qRound(f.y(*limit)) + px(36);
        }
        QColor ground = p.panel; // lines and hatching do not run through the words
        ground.setAlphaF(0.85F);
        const int wide = look.width(text, 14);
        painter.fillRect(box.right() - px(10) - wide, below - px(13), wide + px(8), px(18), ground);
        drawText(painter, box.right() - px(6), below, text, look.font(14), colour, Qt::AlignRight);
        legendWidth = std::max(legendWidth, look.width(text, 14) + px(14));
        below += px(18);
    }
    if (chart.trial) {
        const double x = f.x(chart.trial->temperature_c);
        const auto y = [&](double hrc) { return std::clamp(f.y(hrc), double(box.top()), double(box.bottom())); };
        fillLine(painter, qRound(x) - 1, qRound(y(chart.trial->hrc)), 2,
                 box.bottom() - qRound(y(chart.trial->hrc)) + px(12), p.primary);
        fillLine(painter, qRound(x) - 1, qRound(y(chart.trial->high)), 3,
                 qRound(y(chart.trial->low) - y(chart.trial->high)), p.primary);
        for (const double end : {chart.trial->low, chart.trial->high})
            fillLine(painter, qRound(x) - px(7), qRound(y(end)) - 1, px(14) + 1, 3, p.primary);
        painter.save();
        painter.setRenderHint(QPainter::Antialiasing, true);
        painter.translate(x, y(chart.trial->hrc));
        painter.rotate(45);
        painter.setPen(QPen(p.primary, px(3)));
        painter.setBrush(p.panel);
        painter.drawRect(QRectF(-px(7), -px(7), px(14), px(14)));
        painter.restore();
        // At the edge stand the labels of the window, and above the legend.
        const bool besideLegend = y(chart.trial->hrc) - px(30) < below;
        const int edge = box.right() - std::max(px(48), besideLegend ? legendWidth : 0);
        const bool leftFree = x - px(80) > box.left();
        const bool right = x + px(besideLegend ? 84 : 62) < edge || !leftFree;
        const int lower = right && x + px(62) >= edge ? px(42) : 0; // under the legend, where neither side is free
        drawText(painter, right ? x + px(18) : std::min(x - px(18), double(edge)), y(chart.trial->hrc) - px(8) + lower,
                 QString::fromStdString(tenthText(chart.trial->hrc)), look.font(24, true), p.primary,
                 right ? Qt::AlignLeft : Qt::AlignRight);
        drawText(painter, std::clamp<double>(x, box.left() + px(20), box.right() - px(20)), box.bottom() + px(34),
                 QString::number(std::lround(inUnits(chart.trial->temperature_c, Quantity::temperature, look.units))),
                 look.font(18, true), p.primary, Qt::AlignHCenter);
    }
}

void drawLadder(QPainter& painter, const QRect& area, const std::vector<LadderRung>& rungs, const Look& look) {
    const Palette& p = look.palette;
    const auto px = [&](double v) { return look.px(v); };
    const int n = std::max(1, static_cast<int>(rungs.size()));
    const double pitch = std::min<double>(px(92), double(area.height()) / n);
    for (const int x : {px(8), px(34)}) fillLine(painter, area.left() + x, area.top(), 2, qRound(pitch * n), p.line);
    for (int i = 0; i < static_cast<int>(rungs.size()); ++i) {
        const LadderRung& rung = rungs[static_cast<std::size_t>(i)];
        const double y = area.top() + pitch * i + px(16);
        const QRectF bar(area.left(), y - px(6), px(44), px(12));
        const bool next = rung.kind == LadderRung::Kind::next;
        painter.setRenderHint(QPainter::Antialiasing, false);
        painter.fillRect(bar, rung.kind == LadderRung::Kind::done     ? p.earlier
                              : rung.kind == LadderRung::Kind::quench ? p.quenched
                                                                      : p.panel);
        painter.setPen(QPen(next ? p.primary : p.line, next ? 3 : 1));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(bar);
        const int left = area.left() + px(60);
        const int room = area.width() - px(62);
        const bool later = rung.kind == LadderRung::Kind::later;
        drawFitted(painter, left, y + px(6), rung.title, room, look, 18, !later,
                   next    ? p.primary
                   : later ? p.muted
                           : p.ink);
        drawFitted(painter, left, y + px(28), rung.expected, room, look, 16, false, p.ink);
        drawFitted(painter, left, y + px(rung.expected.isEmpty() ? 28 : 48), rung.read, room, look, 16, false,
                   rung.surprise ? p.borderline : p.ink);
    }
}

namespace {

double heightOf(const RecipeStage& stage) {
    if (stage.kind == StageKind::quench) return std::clamp(stage.temperature_c, 0.0, 200.0);
    return std::clamp(stage.temperature_c, -100.0, 1300.0);
}

struct RecipeFrame {
    QRect box;
    double low = 0, high = 900;
    double cell = 100;
    double y(double c) const { return box.bottom() - (c - low) / (high - low) * box.height(); }
};

RecipeFrame recipeFrame(const QRect& area, const RecipeLine& recipe, const Look& look) {
    RecipeFrame frame;
    frame.box = area.adjusted(look.px(4), look.px(40), -look.px(4), -look.px(64));
    for (const RecipeStage& stage : recipe.stages) {
        frame.high = std::max(frame.high, heightOf(stage) + 60);
        frame.low = std::min(frame.low, heightOf(stage) - 40);
    }
    frame.cell =
        std::min<double>(look.px(150), double(frame.box.width()) / std::max<std::size_t>(1, recipe.stages.size()));
    return frame;
}

} // namespace

int recipeStageAt(const QRect& area, const RecipeLine& recipe, int x, const Look& look) {
    const RecipeFrame frame = recipeFrame(area, recipe, look);
    const int i = static_cast<int>(std::floor((x - frame.box.left()) / frame.cell));
    return i >= 0 && i < static_cast<int>(recipe.stages.size()) ? i : -1;
}

void drawRecipe(QPainter& painter, const QRect& area, const RecipeLine& recipe, const Look& look, Told* told) {
    const Palette& p = look.palette;
    const auto px = [&](double v) { return look.px(v); };
    const RecipeFrame f = recipeFrame(area, recipe, look);
    const double room = f.y(20);
    QPainterPath line;
    line.moveTo(f.box.left(), room);
    for (std::size_t i = 0; i < recipe.stages.size(); ++i) {
        const RecipeStage& stage = recipe.stages[i];
        const double left = f.box.left() + f.cell * static_cast<double>(i);
        const double y = f.y(heightOf(stage));
        const bool chosen = static_cast<int>(i) == recipe.chosen;
        if (chosen) painter.fillRect(QRectF(left, area.top(), f.cell, area.height()), p.window_on_panel);
        line.lineTo(left + f.cell * 0.22, y);
        line.lineTo(left + f.cell * 0.72, y);
        // Into a quench or a cold stage straight down; else back to room temperature.
        const bool straight = i + 1 < recipe.stages.size() &&
                              (recipe.stages[i + 1].kind == StageKind::quench || stage.kind == StageKind::quench);
        line.lineTo(left + f.cell, straight ? y : room);
    }
    painter.setRenderHint(QPainter::Antialiasing, false);
    QPen dashed(p.line, 1);
    dashed.setDashPattern({6, 4});
    painter.setPen(dashed);
    painter.drawLine(f.box.left(), qRound(room), f.box.right(), qRound(room));
    painter.setRenderHint(QPainter::Antialiasing, true);
    painter.setPen(QPen(p.ink, px(3), Qt::SolidLine, Qt::SquareCap, Qt::MiterJoin));
    painter.setBrush(Qt::NoBrush);
    painter.drawPath(line);
    for (std::size_t i = 0; i < recipe.stages.size(); ++i) {
        const double left = f.box.left() + f.cell * static_cast<double>(i);
        const double centre = left + f.cell * 0.47;
        const double y = f.y(heightOf(recipe.stages[i]));
        const int width = qRound(f.cell) - px(6);
        const bool chosen = static_cast<int>(i) == recipe.chosen;
        const QString degrees = degreesText(recipe.stages[i].temperature_c, look);
        drawText(painter, centre, y - px(10), degrees, look.font(f.cell < px(80) ? 16 : 20, true),
                 chosen ? p.primary : p.ink, Qt::AlignHCenter);
        drawFitted(painter, centre, f.box.bottom() + px(26), recipe.names[i], width, look, 16, chosen,
                   chosen ? p.primary : p.ink, Qt::AlignHCenter);
        // "2 h, still air": in a narrow cell time and medium stand under each other.
        const bool parted = look.width(recipe.holds[i], 11) > width;
        const QStringList hold = parted ? recipe.holds[i].split(QStringLiteral(", ")) : QStringList{recipe.holds[i]};
        for (qsizetype part = 0; part < hold.size(); ++part)
            drawFitted(painter, centre, f.box.bottom() + px(parted ? 44 + 16 * static_cast<double>(part) : 48),
                       hold[part], width, look, 14, false, p.muted, Qt::AlignHCenter);
        if (told != nullptr) told->add({left, double(area.top()), f.cell, double(area.height())}, recipe.says[i]);
        if (recipe.warned[i])
            drawVerdictGlyph(painter, left + px(4), area.top() + px(6), px(20), State::borderline, look, p.panel);
        else if (recipe.done[i])
            drawVerdictGlyph(painter, left + px(4), area.top() + px(6), px(20), State::pass, look, p.panel);
    }
}

} // namespace rollcall
