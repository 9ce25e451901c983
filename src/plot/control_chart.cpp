// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/control_chart.h"

#include "plot/axis.h"

#include <algorithm>
#include <cmath>
#include <QDate>
#include <QLocale>

namespace rollcall {

namespace {

QString signedTenth(double value) {
    return (value < 0   ? QStringLiteral("\u2212")
            : value > 0 ? QStringLiteral("+")
                        : QString()) +
           QString::number(std::abs(value), 'f', 1);
}

constexpr int spreadHeight = 30;
constexpr double monthsAhead = 91; // days of paper kept for what a drift will do

struct RunsPlane {
    int left = 0, right = 0, top = 0, bottom = 0;
    double first = 0, last = 1, end = 1; // days: of the runs, and of the paper
    PlotAxis days;
    PlotAxis up;
    double x(double day) const { return qRound(days.at(day)); }
    double y(double value) const { return qRound(up.at(value)); }
    bool shows(double day) const { return day >= days.low - 1e-9 && day <= days.high + 1e-9; }
};

std::optional<RunsPlane> runsPlaneOf(const QRect& area, const ControlChart& chart, const Look& look) {
    RunsPlane f;
    f.left = area.left() + look.px(46);
    f.right = area.right();
    f.top = area.top() + look.px(8);
    f.bottom = area.bottom() - look.px(24 + spreadHeight + 14);
    double reach = chart.allowed_error * 1.45; // room for words outside the band
    for (const ControlPoint& point : chart.errors) reach = std::max(reach, std::abs(point.value) * 1.1);
    if (!(reach > 0)) return std::nullopt;
    f.up = {-reach, reach, double(f.bottom), double(f.top)};
    f.first = chart.errors.empty() ? 0 : chart.errors.front().day;
    f.last = chart.errors.empty() ? 1 : chart.errors.back().day;
    f.end = f.last +
            std::max(14.0, chart.drift && chart.drift->likely && chart.weeks_left
                               ? std::min(*chart.weeks_left * 7 + 28, std::max(monthsAhead, (f.last - f.first) * 0.5))
                               : (f.last - f.first) * 0.05);
    f.end = std::max(f.first + 1, f.end);
    const double whole = f.end - f.first;
    f.days = {f.first + chart.part.first * whole, f.first + chart.part.second * whole, double(f.left + look.px(6)),
              double(f.right - look.px(8))};
    return f;
}

} // namespace

QString controlChartSays(const QRect& area, const ControlChart& chart, const QPoint& at, const Look& look) {
    const std::optional<RunsPlane> f = runsPlaneOf(area, chart, look);
    if (!f || !area.contains(at)) return {};
    const double near = look.px(14);
    std::optional<std::size_t> nearest;
    for (std::size_t i = 0; i < chart.errors.size(); ++i) {
        const double away = std::abs(f->x(chart.errors[i].day) - at.x());
        if (f->shows(chart.errors[i].day) && away <= near &&
            (!nearest || away < std::abs(f->x(chart.errors[*nearest].day) - at.x())))
            nearest = i;
    }
    if (!nearest) return {};
    const ControlPoint& run = chart.errors[*nearest];
    QString says = QObject::tr("%1: error %2")
                       .arg(QLocale().toString(QDate(1970, 1, 1).addDays(static_cast<qint64>(std::floor(run.day))),
                                               QLocale::ShortFormat),
                            signedTenth(run.value));
    for (const ControlPoint& spread : chart.spreads) {
        if (spread.day == run.day) return says + QObject::tr(", spread %1").arg(spread.value, 0, 'f', 1);
    }
    return says;
}

void drawControlChart(QPainter& painter, const QRect& area, const ControlChart& chart, const Look& look) {
    const Palette& p = look.palette;
    const auto px = [&](double v) { return look.px(v); };
    const std::optional<RunsPlane> frame = runsPlaneOf(area, chart, look);
    if (!frame) return;
    const auto& [left, right, top, bottom, first, last, end, days, up] = *frame;
    const double reach = up.high;
    painter.setRenderHint(QPainter::Antialiasing, false);
    const auto y = [&](double value) { return qRound(frame->up.at(value)); };
    const auto x = [&](double day) { return qRound(frame->days.at(day)); };

    // What is allowed, the shop's own limits, zero.
    painter.fillRect(left, y(chart.allowed_error), right - left, y(-chart.allowed_error) - y(chart.allowed_error),
                     p.window_on_panel);
    for (const double limit : {chart.allowed_error, -chart.allowed_error}) {
        painter.fillRect(left, y(limit) - 1, right - left, 2, p.ink);
        drawText(painter, left - px(6), y(limit) + px(5), signedTenth(limit), look.font(14), p.muted, Qt::AlignRight);
    }
    if (std::abs(y(0) - y(chart.allowed_error)) >= px(18))
        drawText(painter, left - px(6), y(0) + px(5), QStringLiteral("0"), look.font(14), p.muted, Qt::AlignRight);
    painter.setPen(QPen(p.line, 1, Qt::DashLine));
    painter.drawLine(left, y(0), right, y(0));
    if (chart.limits) {
        painter.setPen(QPen(p.older, 1, Qt::DotLine));
        for (const double own : {chart.limits->low, chart.limits->high}) {
            if (std::abs(own) < reach) painter.drawLine(left, y(own), right, y(own));
        }
    }
    painter.fillRect(left, top, 1, bottom - top, p.line);

    // Months under the axis, or weeks where one is wide enough for its day.
    painter.fillRect(left, bottom, right - left, 1, p.line);
    const QDate epoch(1970, 1, 1);
    const QDate from = epoch.addDays(qRound64(days.low));
    const QDate today = epoch.addDays(qRound64(last));
    const double dayWidth = static_cast<double>(right - left) / std::max(1.0, days.high - days.low);
    constexpr int week = 7;
    if (dayWidth * week >= px(70)) {
        for (QDate monday = from.addDays(1 - from.dayOfWeek()); epoch.daysTo(monday) <= days.high;
             monday = monday.addDays(week)) {
            const double day = static_cast<double>(epoch.daysTo(monday));
            if (day < days.low) continue;
            painter.fillRect(x(day), bottom, 1, px(5), p.line);
            if (x(day) < right - px(30))
                drawText(painter, x(day), bottom + px(18), QLocale().toString(monday, QStringLiteral("d. MMM")),
                         look.font(14), p.muted, Qt::AlignHCenter);
        }
    } else {
        const int every = dayWidth * 30 >= px(14) ? 1 : 3;
        for (QDate month(from.year(), from.month(), 1); epoch.daysTo(month) <= days.high;
             month = month.addMonths(every)) {
            const double begin = static_cast<double>(epoch.daysTo(month));
            if (begin >= days.low) painter.fillRect(x(begin), bottom, 1, px(5), p.line);
            const double middle = begin + 15;
            const bool now = month.year() == today.year() && month.month() == today.month();
            if (middle >= days.low && x(middle) < right - px(6))
                drawText(painter, x(middle), bottom + px(18),
                         QLocale().standaloneMonthName(month.month(), QLocale::NarrowFormat), look.font(14, now),
                         now ? p.ink : p.muted, Qt::AlignHCenter);
        }
    }

    painter.save();
    painter.setClipRect(QRect(left, area.top(), right - left, area.height()), Qt::IntersectClip);
    painter.setRenderHint(QPainter::Antialiasing, true);
    if (chart.drift && chart.drift->likely) {
        const double begin = std::max(first, chart.drift->from_day);
        const auto level = [&, today = last](double day) {
            return chart.drift->level_now + chart.drift->per_week / 7 * (day - today);
        };
        painter.setPen(QPen(p.older, px(3)));
        painter.drawLine(QPointF(x(begin), y(level(begin))), QPointF(x(last), y(level(last))));
        if (chart.weeks_left) {
            const double meet = last + *chart.weeks_left * 7;
            const double until = std::min(meet, end);
            painter.setPen(QPen(p.older, 2, Qt::DashLine));
            painter.drawLine(QPointF(x(last), y(level(last))), QPointF(x(until), y(level(until))));
            if (meet <= end) {
                painter.setPen(QPen(p.older, 2.5));
                painter.setBrush(p.panel);
                painter.drawEllipse(QPointF(x(meet), y(level(meet))), px(5), px(5));
            }
        }
        // Outside the band, where no point stands in the way.
        const int line = chart.drift->per_week > 0 ? y(chart.allowed_error) - px(6) : y(-chart.allowed_error) + px(18);
        drawText(painter, left + px(12), line, chart.drift_text, look.font(16, true), p.older);
        drawText(painter, right - px(8), line, chart.limit_text, look.font(16, true), p.older, Qt::AlignRight);
    }
    for (std::size_t i = 0; i < chart.errors.size(); ++i) {
        const QPointF at(x(chart.errors[i].day), y(chart.errors[i].value));
        const bool latest = i + 1 == chart.errors.size();
        painter.setPen(QPen(latest ? p.primary : p.ink, 1.2));
        painter.setBrush(latest ? p.primary : p.panel);
        painter.drawEllipse(at, latest ? px(5) : px(2.4), latest ? px(5) : px(2.4));
    }

    // The spread of each run as a bar on its own small scale.
    painter.setRenderHint(QPainter::Antialiasing, false);
    const int base = area.bottom() - px(4);
    const double allowed = std::max(chart.allowed_spread, 0.1);
    double most = allowed;
    for (const ControlPoint& point : chart.spreads) most = std::max(most, point.value);
    const auto height = [&](double value) { return qRound(value / most * px(spreadHeight)); };
    for (const ControlPoint& point : chart.spreads)
        painter.fillRect(x(point.day) - 1, base - height(point.value), 2, height(point.value),
                         point.value > allowed + 1e-9 ? p.fail : p.ink);
    painter.restore();
    painter.fillRect(left, base, right - left, 1, p.line);
    painter.fillRect(left, base - height(allowed), right - left, 1, p.ink);
    drawText(painter, left - px(6), base - height(allowed) + px(5), QString::number(allowed, 'f', 1), look.font(14),
             p.muted, Qt::AlignRight);
    drawText(painter, right - px(4), base - height(allowed) + px(16), QObject::tr("spread"), look.font(14), p.muted,
             Qt::AlignRight);
}

void drawNumberRule(QPainter& painter, const QRect& area, const NumberRule& rule, const Look& look) {
    const Palette& p = look.palette;
    const auto px = [&](double v) { return look.px(v); };
    painter.setRenderHint(QPainter::Antialiasing, false);
    drawText(painter, area.left(), area.top() + px(16), rule.caption, look.font(16, true), p.ink);
    drawText(painter, area.right(), area.top() + px(16), rule.allowed, look.font(16), p.muted, Qt::AlignRight);
    const int body = px(28);
    const int top = area.top() + px(38);
    const int left = area.left() + px(20);
    const int width = area.width() - px(40);
    const PlotAxis axis{rule.low, rule.high, double(left), double(left + width)};
    const auto x = [&](double v) { return qRound(axis.within(v)); };
    painter.fillRect(area.left(), top, area.width(), body, p.steel);
    const int from = x(rule.allowed_low);
    const int to = x(rule.allowed_high);
    painter.fillRect(from, top - px(14), to - from, px(14), p.window_on_panel);
    painter.fillRect(from, top, to - from, body, p.window);
    painter.setPen(p.line);
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(area.left(), top, area.width() - 1, body - 1);
    painter.fillRect(area.left(), top, area.width(), 2, p.ink);
    for (const double v : axis.ticks(rule.step)) {
        painter.fillRect(x(v), top, 2, px(9), p.ink);
        drawText(painter, x(v), top + body - px(5),
                 rule.low < 0 && std::abs(v) > 1e-9 ? signedTenth(v) : QString::number(std::abs(v), 'g', 2),
                 look.font(14), p.ink, Qt::AlignHCenter);
    }
    if (rule.value) painter.fillRect(x(*rule.value) - px(2), top - px(18), px(5), px(18), rule.good ? p.ink : p.fail);
}

void drawBlockFace(QPainter& painter, const QRect& area, double diameter_mm, const std::vector<Spot>& places, int used,
                   const Look& look) {
    const Palette& p = look.palette;
    const double size = std::min(area.width(), area.height());
    const double scale = size / diameter_mm;
    const QPointF centre(area.left() + size / 2, area.top() + size / 2);
    painter.setRenderHint(QPainter::Antialiasing, true);
    painter.setPen(QPen(p.ink, 1.5));
    painter.setBrush(p.steel);
    painter.drawEllipse(centre, size / 2 - 1, size / 2 - 1);
    for (std::size_t i = 0; i < places.size(); ++i) {
        const QPointF at = centre + QPointF(places[i].x_mm, -places[i].y_mm) * scale;
        const bool taken = static_cast<int>(i) < used;
        const bool next = static_cast<int>(i) == used;
        painter.setPen(next ? QPen(p.primary, 2.5) : taken ? QPen(Qt::NoPen) : QPen(p.line, 1));
        painter.setBrush(taken ? QBrush(p.ink) : QBrush(Qt::NoBrush));
        painter.drawEllipse(at, look.px(next ? 6 : 2), look.px(next ? 6 : 2));
    }
}

} // namespace rollcall
