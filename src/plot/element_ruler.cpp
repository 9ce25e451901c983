// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/element_ruler.h"

#include "core/base/number.h"
#include "plot/axis.h"
#include "plot/glyphs.h"

#include <algorithm>
#include <cmath>
#include <QObject>

namespace rollcall {

void drawElementRuler(QPainter& painter, const QRect& area, const ElementRuler& ruler, const Look& look) {
    const Palette& p = look.palette;
    const auto px = [&](double v) { return look.px(v); };
    const ElementMatch& m = ruler.match;
    drawVerdictGlyph(painter, area.left(), area.top() + px(20), px(20), ruler.state, look, p.panel);
    drawText(painter, area.left() + px(30), area.top() + px(34), QString::fromStdString(m.element), look.font(24, true),
             p.ink);
    const int nameSize = fittingSize(look, ruler.name, 14, 10, px(94)); // the symbol above it says the same
    drawText(painter, area.left() + px(30), area.top() + px(53), shortened(ruler.name, look.font(nameSize), px(94)),
             look.font(nameSize), p.muted);
    const int right = area.right();
    drawText(painter, right, area.top() + px(30), ruler.value, look.font(20, true), p.number(ruler.state),
             Qt::AlignRight);
    drawText(painter, right, area.top() + px(53), ruler.need, look.font(14), p.muted, Qt::AlignRight);

    const int left = area.left() + px(124);
    const int width = area.width() - px(124) - px(160);
    const double value = m.reading.percent.value_or(m.reading.lod.value_or(0.0));
    const double whisker = m.reading.percent ? 2 * m.sigma : 0;
    double low = std::min(m.low, value - whisker);
    double high = std::max(m.high.value_or(std::max(m.low * 1.5, value)), value + whisker);
    const double margin = std::max((high - low) * 0.18, 0.02);
    low = std::max(0.0, low - margin);
    high += margin;
    if (low < 0.25 * high) low = 0;
    const PlotAxis axis{low, high, double(left + px(8)), double(left + width - px(8))};
    const auto x = [&](double percent) { return axis.within(percent); };
    const int top = area.top() + px(27);
    const int body = px(30);
    painter.setRenderHint(QPainter::Antialiasing, false);
    painter.fillRect(left, top, width, body, p.steel);
    const int from = qRound(x(m.low));
    const int to = m.high ? qRound(x(*m.high)) : left + width;
    painter.fillRect(from, top - px(20), to - from, px(20), p.window_on_panel);
    painter.fillRect(from, top, to - from, body, p.window);
    if (m.low > 0) painter.fillRect(from - 1, top - px(20), 2, px(20) + px(8), p.ink);
    if (m.high) painter.fillRect(to - 1, top - px(20), 2, px(20) + px(8), p.ink);
    painter.fillRect(left, top, width, 2, p.ink);
    const double step = axis.roundStep(width / 5.0);
    const int places = std::max(0, static_cast<int>(std::ceil(-std::log10(step) - 1e-9)));
    for (const double t : axis.ticks(step)) {
        painter.fillRect(qRound(x(t)), top, 2, px(8), p.ink);
        const QString label = QString::number(t, 'f', places);
        const double half = look.width(label, 14) / 2.0;
        if (x(t) - half > left && x(t) + half < left + width)
            drawText(painter, x(t), top + body - px(5), label, look.font(14), p.ink, Qt::AlignHCenter);
    }
    const QColor colour = p.number(ruler.state);
    if (!m.reading.percent) { // not found: anything from nothing to the limit of detection
        const int end = qRound(x(m.reading.lod.value_or(0.0)));
        painter.fillRect(QRect(left + px(8), top - px(17), end - left - px(8), px(15)),
                         QBrush(colour, Qt::BDiagPattern));
        painter.setPen(colour);
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(left + px(8), top - px(17), end - left - px(8), px(15));
        return;
    }
    painter.fillRect(qRound(x(value)) - 2, top - px(22), 5, px(22), colour);
    const int a = qRound(x(value - whisker));
    const int b = qRound(x(value + whisker));
    if (b - a > px(10)) {
        painter.fillRect(a, top - px(14), b - a, 2, colour);
        for (const int end : {a, b}) painter.fillRect(end - 1, top - px(18), 2, px(9), colour);
    }
    // The way that is missing, in words.
    const double missing = value < m.low ? m.low - value : m.high && value > *m.high ? value - *m.high : 0;
    const double edge = value < m.low ? x(m.low) : m.high ? x(*m.high) : x(value);
    if (missing > 0 && std::abs(edge - x(value)) > px(70)) {
        QPen dashed(colour, 1);
        dashed.setDashPattern({3, 3});
        painter.setPen(dashed);
        painter.drawLine(qRound(x(value)), top - px(3), qRound(edge), top - px(3));
        drawText(painter, (x(value) + edge) / 2, top - px(7),
                 (value < m.low ? QObject::tr("%1 short") : QObject::tr("%1 over")).arg(missing, 0, 'g', 2),
                 look.font(14), colour, Qt::AlignHCenter);
    }
}

void drawCouponRule(QPainter& painter, const QRect& area, const CouponRule& rule, const Look& look, Told* told) {
    const Palette& p = look.palette;
    const auto px = [&](double v) { return look.px(v); };
    if (rule.grades.empty()) return;
    double low = 100;
    double high = 0;
    for (const Grade* grade : rule.grades) {
        low = std::min(low, grade->as_quenched_min);
        high = std::max(high, grade->as_quenched_max);
    }
    if (rule.read) {
        low = std::min(low, *rule.read);
        high = std::max(high, *rule.read);
    }
    low = std::floor(low - 1);
    high = std::ceil(high + 1);
    const int axis = area.bottom() - px(36);
    const int names = px(104);
    const PlotAxis hardness{low, high, double(area.left() + names + px(8)), double(area.left() + area.width() - px(8))};
    const auto x = [&](double hrc) { return hardness.at(hrc); };
    painter.setRenderHint(QPainter::Antialiasing, false);
    painter.fillRect(area.left() + names, axis, area.width() - names, px(34), p.steel);
    painter.fillRect(area.left() + names, axis, area.width() - names, 2, p.ink);
    for (const double h : hardness.ticks(1)) {
        const bool labelled = static_cast<int>(h) % 5 == 0;
        painter.fillRect(qRound(x(h)), axis, labelled ? 2 : 1, px(labelled ? 10 : 6), p.ink);
        if (labelled)
            drawText(painter, x(h), axis + px(28), QString::number(h), look.font(16), p.ink, Qt::AlignHCenter);
    }
    if (told != nullptr) told->add(area, QObject::tr("Hardness of a coupon as quenched, HRC"));
    const int n = static_cast<int>(rule.grades.size());
    const double pitch = std::min<double>(px(30), double(axis - area.top() - px(6)) / n);
    for (int i = 0; i < n; ++i) {
        const Grade& grade = *rule.grades[static_cast<std::size_t>(i)];
        const double y = area.top() + pitch * (i + 0.5);
        if (told != nullptr)
            told->add({double(area.left()), y - pitch / 2, double(area.width()), pitch},
                      QObject::tr("A hardened coupon of %1 would read %2 to %3 HRC, %4 as a rule")
                          .arg(QString::fromStdString(grade.name))
                          .arg(grade.as_quenched_min)
                          .arg(grade.as_quenched_max)
                          .arg(grade.as_quenched_typical));
        painter.fillRect(
            QRectF(x(grade.as_quenched_min), y - 1, x(grade.as_quenched_max) - x(grade.as_quenched_min), 3), p.older);
        for (const double end : {grade.as_quenched_min, grade.as_quenched_max})
            painter.fillRect(QRectF(x(end) - 1, y - px(6), 2, px(13)), p.older);
        painter.fillRect(QRectF(x(grade.as_quenched_typical) - 2, y - px(9), 5, px(19)), p.older);
        drawFitted(painter, area.left(), y + px(5), QString::fromStdString(grade.name), names - px(6), look, 14, true,
                   p.ink);
    }
    if (rule.read && told != nullptr)
        told->add({x(*rule.read) - px(4), double(area.top()), double(px(8)), double(axis - area.top())},
                  QObject::tr("The coupon read %1 HRC").arg(*rule.read, 0, 'f', 1));
    if (rule.read) painter.fillRect(QRectF(x(*rule.read) - 1, area.top(), 3, axis - area.top()), p.primary);
}

} // namespace rollcall
