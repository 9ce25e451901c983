// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/differences.h"

#include "plot/axis.h"

#include <algorithm>
#include <cmath>
#include <numeric>
#include <QObject>

namespace rollcall {

namespace {

QString tenth(double value) {
    return (value < -0.049 ? QStringLiteral("\u2212") : QString()) + QString::number(std::abs(value), 'f', 1);
}

} // namespace

void drawDifferences(QPainter& painter, const QRect& area, const Comparison& c, const Look& look) {
    const Palette& p = look.palette;
    const auto px = [&](double v) { return look.px(v); };
    const auto [lowest, highest] = std::minmax_element(c.means.begin(), c.means.end());
    const double from = std::floor(*lowest - 0.2);
    const double to = std::max(from + 1, std::ceil(*highest + 0.2));
    double reach = std::max({std::abs(c.agreement_low), std::abs(c.agreement_high), 0.5}) * 1.1;
    for (const double d : c.differences) reach = std::max(reach, std::abs(d) * 1.1);
    const int left = area.left() + px(46);
    const int right = area.right() - px(120);
    const int top = area.top() + px(8);
    const int bottom = area.bottom() - px(26);
    const PlotAxis means{from, to, double(left), double(right)};
    const PlotAxis apart{-reach, reach, double(bottom), double(top)};
    const auto x = [&](double v) { return qRound(means.at(v)); };
    const auto y = [&](double v) { return qRound(apart.at(v)); };
    painter.setRenderHint(QPainter::Antialiasing, false);
    painter.fillRect(left, y(c.high), right - left, std::max(1, y(c.low) - y(c.high)), p.window_on_panel);
    painter.fillRect(left, top, 1, bottom - top, p.line);
    painter.fillRect(left, bottom, right - left, 1, p.line);
    painter.setPen(QPen(p.line, 1, Qt::DashLine));
    painter.drawLine(left, y(0), right, y(0));
    drawText(painter, left - px(6), y(0) + px(5), QStringLiteral("0"), look.font(14), p.muted, Qt::AlignRight);
    painter.setPen(QPen(p.ink, 1, Qt::DotLine));
    for (const double limit : {c.agreement_low, c.agreement_high}) {
        painter.drawLine(left, y(limit), right, y(limit));
        drawText(painter, right + px(8), y(limit) + px(5), QObject::tr("one more: %1").arg(tenth(limit)), look.font(14),
                 p.muted);
    }
    painter.fillRect(left, y(c.bias) - 1, right - left, 3, p.ink);
    drawText(painter, right + px(8), y(c.bias) + px(6), QObject::tr("bias %1").arg(tenth(c.bias)), look.font(16, true),
             p.ink);
    for (const double v : means.ticks(std::max(1.0, means.roundStep(px(40))))) {
        painter.fillRect(x(v), bottom, 1, px(5), p.line);
        drawText(painter, x(v), bottom + px(20), QString::number(v), look.font(14), p.muted, Qt::AlignHCenter);
    }
    painter.setRenderHint(QPainter::Antialiasing, true);
    painter.setPen(QPen(p.ink, 1.5));
    painter.setBrush(p.panel);
    for (std::size_t i = 0; i < c.means.size(); ++i)
        painter.drawEllipse(QPointF(x(c.means[i]), y(c.differences[i])), px(4), px(4));
}

void drawBudget(QPainter& painter, const QRect& area, const Budget& budget, const QStringList& names,
                const Look& look) {
    const Palette& p = look.palette;
    const auto px = [&](double v) { return look.px(v); };
    std::vector<std::size_t> order(budget.parts.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) {
        return budget.parts[a].standard_uncertainty > budget.parts[b].standard_uncertainty;
    });
    const double all = budget.standard_uncertainty * budget.standard_uncertainty;
    const int barLeft = area.left() + px(250);
    const int barWidth = area.right() - px(110) - barLeft;
    int y = area.top();
    painter.setRenderHint(QPainter::Antialiasing, false);
    for (const std::size_t i : order) {
        const double u = budget.parts[i].standard_uncertainty;
        const double share = all > 0 ? u * u / all : 0;
        const bool largest = i == order.front();
        drawFitted(painter, area.left(), y + px(20), names.value(static_cast<int>(i)), px(240), look, 16, largest,
                   p.ink);
        painter.fillRect(barLeft, y + px(6), barWidth, px(16), p.steel);
        painter.fillRect(barLeft, y + px(6), qRound(barWidth * share), px(16), largest ? p.primary : p.ink);
        drawText(painter, area.right(), y + px(20),
                 QStringLiteral("%1   %2 %").arg(u, 0, 'f', 2).arg(qRound(share * 100)), look.font(16, largest), p.ink,
                 Qt::AlignRight);
        y += px(30);
    }
}

} // namespace rollcall
