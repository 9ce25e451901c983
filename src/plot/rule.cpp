// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/rule.h"

#include "core/base/number.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <QFontMetrics>
#include <QObject>
#include <QStringList>

namespace rollcall {

namespace {

QString oneDecimal(double value) {
    return QString::fromStdString(tenthText(value));
}

} // namespace

Axis Axis::around(const Window& window, const std::vector<double>& values, int least) {
    double low = window.low.value_or(window.high.value_or(60));
    double high = window.high.value_or(window.low.value_or(60));
    const double middle = (low + high) / 2;
    for (const double value : values) {
        low = std::min(low, value);
        high = std::max(high, value);
    }
    // Whatever it is given, a rule ends: beyond this lies no scale.
    constexpr double lowest = -150;
    constexpr double highest = 1200;
    low = std::clamp(low, lowest, highest);
    high = std::clamp(high, lowest, highest);
    const double centre = std::clamp(middle, lowest, highest);
    Axis axis;
    axis.low = static_cast<int>(std::floor(centre - least / 2.0));
    axis.high = axis.low + least;
    // Shift before widening: a blade that is all on one side of its window needs no second half.
    const int need_low = static_cast<int>(std::floor(low - 0.4));
    const int need_high = static_cast<int>(std::ceil(high + 0.4));
    if (need_low < axis.low && need_high <= need_low + least)
        axis = {need_low, need_low + least};
    else if (need_high > axis.high && need_low >= need_high - least)
        axis = {need_high - least, need_high};
    else
        axis = {std::min(axis.low, need_low), std::max(axis.high, need_high)};
    return axis;
}

std::pair<int, int> windowSpan(const Axis& axis, const Window& window, int left, int width) {
    const auto x = [&](double hrc) {
        return qRound(axis.at(std::clamp<double>(hrc, axis.low, axis.high), left, width));
    };
    return {window.low ? x(*window.low) : left, window.high ? x(*window.high) : left + width};
}

QString ruleSays(const QRect& area, const RuleData& data, const QPoint& at, const Look& look) {
    if (!area.contains(at)) return {};
    const int left = area.left() + look.px(24);
    const int width = area.width() - look.px(48);
    const double near = look.px(6);
    const auto on = [&](double hrc) { return std::abs(data.axis.at(hrc, left, width) - at.x()) <= near; };
    QStringList says;
    for (const RuleData::Needle& needle : data.readings) {
        if (on(needle.value)) says << QObject::tr("reading %1: %2").arg(needle.label, oneDecimal(needle.value));
    }
    if (data.mean && on(*data.mean))
        says << QObject::tr("mean %1 ± %2, known to 95 of 100")
                    .arg(oneDecimal(*data.mean), QString::fromStdString(uncertaintyText(data.uncertainty)));
    for (const RuleData::Earlier& earlier : data.earlier) {
        if (on(earlier.value)) says << QObject::tr("%1: %2").arg(earlier.label, oneDecimal(earlier.value));
    }
    if (says.isEmpty() && data.bracket && data.axis.at(data.bracket->low, left, width) <= at.x() &&
        data.axis.at(data.bracket->high, left, width) >= at.x())
        says << QObject::tr("what the files leave open");
    const bool hasWindow = data.window.low || data.window.high;
    const auto [from, to] = windowSpan(data.axis, data.window, left, width);
    if (says.isEmpty() && hasWindow && at.x() >= from && at.x() <= to) says << data.caption;
    return says.join(QLatin1Char('\n'));
}

void drawRule(QPainter& painter, const QRect& area, const RuleData& data, const Look& look) {
    const Palette& p = look.palette;
    const int bodyHeight = look.px(data.compact ? 40 : 52);
    const int captionHeight = look.px(data.compact ? 2 : 26);
    const int top = area.bottom() - captionHeight - bodyHeight; // top edge of the rule's body
    const int rise = std::min(look.px(100), top - area.top());
    const int left = area.left() + look.px(24);
    const int width = area.width() - look.px(48);
    const auto x = [&](double hrc) { return qRound(data.axis.at(hrc, left, width)); };
    painter.setRenderHint(QPainter::Antialiasing, false);

    painter.fillRect(area.left(), top, area.width(), bodyHeight, p.steel);
    const bool hasWindow = data.window.low || data.window.high;
    if (hasWindow) {
        const auto [from, to] = windowSpan(data.axis, data.window, left, width);
        painter.fillRect(from, top - rise, to - from, rise, p.window_on_panel);
        painter.fillRect(from, top, to - from, bodyHeight, p.window);
        for (const auto& [limit, at] : {std::pair(data.window.low, from), std::pair(data.window.high, to)}) {
            if (limit) painter.fillRect(at - 1, top - rise, 2, rise + look.px(data.compact ? 14 : 24), p.ink);
        }
        if (!data.compact)
            drawText(painter, (from + to) / 2.0, area.bottom() - look.px(6), data.caption, look.font(16), p.muted,
                     Qt::AlignHCenter);
    }
    if (data.compact)
        drawText(painter, area.left(), area.top() + look.px(18), data.caption, look.font(16, true), p.ink);
    painter.setPen(p.line);
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(area.left(), top, area.width() - 1, bodyHeight - 1);
    painter.fillRect(area.left(), top, area.width(), 2, p.ink);

    const double perHrc = static_cast<double>(width) / (data.axis.high - data.axis.low);
    const int finest = perHrc >= look.px(60) ? 1 : perHrc >= look.px(24) ? 5 : 10; // tenths between ticks
    for (int tenth = data.axis.low * 10; tenth <= data.axis.high * 10; tenth += finest) {
        const bool wholeOne = tenth % 10 == 0;
        const int length = look.px(wholeOne         ? (data.compact ? 13 : 22)
                                   : tenth % 5 == 0 ? (data.compact ? 9 : 15)
                                                    : (data.compact ? 6 : 9));
        painter.fillRect(x(tenth / 10.0) - (wholeOne ? 1 : 0), top, wholeOne ? 2 : 1, length, p.ink);
        if (wholeOne)
            drawText(painter, x(tenth / 10.0), top + bodyHeight - look.px(8), QString::number(tenth / 10),
                     look.mono(20), p.ink, Qt::AlignHCenter);
    }

    // What the files say, as a bar of its own colour on the rule's body; an open end runs out of the axis.
    if (data.bracket) {
        const int from = std::max(x(std::max(data.bracket->low, double(data.axis.low) - 1)), area.left());
        const int to = std::min(x(std::min(data.bracket->high, double(data.axis.high) + 1)), area.right());
        if (to > from) {
            painter.fillRect(from, top - look.px(6), to - from, look.px(6), p.older);
            drawText(painter, std::min(from + look.px(4), area.right() - look.px(40)), top - look.px(10),
                     QObject::tr("files"), look.font(14), p.older);
        }
    }

    // Words only where neither a needle nor the whisker stands in their way; the tick's colour says it too.
    const auto isFree = [&](double value) {
        const int at = x(value);
        if (data.mean && at + look.px(34) > x(*data.mean - data.uncertainty) &&
            at - look.px(34) < x(*data.mean + data.uncertainty))
            return false;
        return std::none_of(data.readings.begin(), data.readings.end(),
                            [&](const RuleData::Needle& n) { return std::abs(x(n.value) - at) < look.px(34); });
    };
    for (const RuleData::Earlier& earlier : data.earlier) {
        const QColor color = earlier.quenched ? p.quenched : p.earlier;
        painter.fillRect(x(earlier.value) - 2, top - look.px(30), 4, look.px(30), color);
        if (!isFree(earlier.value)) continue;
        // A limit's line would run through its words: they stand beside it, on the side of the value.
        const QString value = oneDecimal(earlier.value);
        const double half = std::max(look.width(value, 16), look.width(earlier.label, 14)) / 2.0 + look.px(6);
        double middle = x(earlier.value);
        for (const std::optional<double>& limit : {data.window.low, data.window.high}) {
            if (limit && std::abs(x(*limit) - middle) < half) middle = x(*limit) + (middle < x(*limit) ? -half : half);
        }
        drawText(painter, middle, top - look.px(36), value, look.font(16), p.ink, Qt::AlignHCenter);
        drawText(painter, middle, top - look.px(56), earlier.label, look.font(14), p.muted, Qt::AlignHCenter);
    }

    // Needles; numbers of readings that lie too close together are stacked.
    std::vector<RuleData::Needle> needles(data.readings);
    std::stable_sort(needles.begin(), needles.end(), [](const auto& a, const auto& b) { return a.value < b.value; });
    const int length = look.px(data.compact ? 18 : 26);
    int lastX = -1000;
    int stack = 0;
    double labelled = -1000; // right end of the last label
    for (std::size_t i = 0; i < needles.size();) {
        const int at = x(needles[i].value);
        if (data.compact) { // many blades on one rule: their numbers are stacked
            painter.fillRect(at - 1, top - length, 2, length, p.ink);
            stack = at - lastX < look.px(13) ? stack + 1 : 0;
            if (stack == 0) lastX = at;
            const int baseline = top - length - look.px(4) - stack * look.px(15);
            if (baseline - look.px(11) >= area.top()) // higher up there is no room; the needle stands
                drawText(painter, lastX, baseline, needles[i].label, look.font(16, true), p.ink, Qt::AlignHCenter);
            ++i;
            continue;
        }
        // Readings of one blade that lie close share a line, beside the mean's bar where they would stand in it.
        QStringList labels;
        int end = at;
        for (; i < needles.size() && x(needles[i].value) - end <= look.px(13); ++i) {
            end = x(needles[i].value);
            painter.fillRect(end - 1, top - length, 2, length, p.ink);
            labels << needles[i].label;
        }
        const QString label = labels.join(QLatin1Char(' '));
        double middle = (at + end) / 2.0;
        const double clear = look.width(label, 16, true) / 2.0 + look.px(6);
        if (data.mean && std::abs(middle - x(*data.mean)) < clear)
            middle = x(*data.mean) + (middle < x(*data.mean) ? -clear : clear);
        const double half = look.width(label, 16, true) / 2.0;
        middle = std::max(middle, labelled + half + look.px(4));
        labelled = middle + half;
        drawText(painter, middle, top - length - look.px(4), label, look.font(16, true), p.ink, Qt::AlignHCenter);
    }

    if (!data.mean) return;
    const QColor color = p.number(data.state);
    const int at = x(*data.mean);
    const int whisker = top - look.px(64);
    painter.fillRect(at - 2, whisker, 5, look.px(64), color);
    const int from = std::max(x(*data.mean - data.uncertainty), area.left());
    const int to = std::min(x(*data.mean + data.uncertainty), area.right());
    painter.fillRect(from, whisker, to - from, 3, color);
    painter.fillRect(from, whisker - look.px(6), 3, look.px(15), color);
    painter.fillRect(to - 3, whisker - look.px(6), 3, look.px(15), color);
    const QString value = oneDecimal(*data.mean);
    const QString plusMinus = QStringLiteral("± ") + QString::fromStdString(uncertaintyText(data.uncertainty));
    const int half = look.width(value, 24, true) / 2;
    drawText(painter, at, whisker - look.px(12), value, look.font(24, true), color, Qt::AlignHCenter);
    const bool fits = at + half + look.px(10) + look.width(plusMinus, 16) < area.right();
    drawText(painter, fits ? at + half + look.px(8) : at - half - look.px(8), whisker - look.px(12), plusMinus,
             look.font(16), p.ink, fits ? Qt::AlignLeft : Qt::AlignRight);
}

void drawStrip(QPainter& painter, int left, int width, int baseline, const Axis& axis, const Strip& strip,
               const Look& look) {
    const Palette& p = look.palette;
    const auto x = [&](double hrc) { return qRound(axis.at(hrc, left, width)); };
    painter.setRenderHint(QPainter::Antialiasing, false);
    painter.fillRect(left, baseline, width, 1, p.line);
    for (const double earlier : strip.earlier)
        painter.fillRect(x(earlier) - 1, baseline - look.px(14), 3, look.px(14), p.earlier);
    if (strip.quenched) painter.fillRect(x(*strip.quenched) - 1, baseline - look.px(14), 2, look.px(14), p.quenched);
    for (const double reading : strip.readings) painter.fillRect(x(reading), baseline + 2, 1, look.px(7), p.ink);
    if (!strip.mean) return;
    const QColor color = p.number(strip.state);
    painter.fillRect(x(*strip.mean) - 1, baseline - look.px(32), 3, look.px(32), color);
    // A wide whisker ends where the strip does, without its cap: the rest is off the axis.
    const int wholeFrom = x(*strip.mean - strip.uncertainty);
    const int wholeTo = x(*strip.mean + strip.uncertainty);
    const int from = std::max(wholeFrom, left);
    const int to = std::min(wholeTo, left + width);
    painter.fillRect(from, baseline - look.px(20), to - from, 2, color);
    if (from == wholeFrom) painter.fillRect(from, baseline - look.px(23), 2, look.px(8), color);
    if (to == wholeTo) painter.fillRect(to - 2, baseline - look.px(23), 2, look.px(8), color);
}

void drawStripAxis(QPainter& painter, int left, int width, int y, const Axis& axis, const Look& look) {
    const int span = axis.high - axis.low;
    const int every = 2 * width >= span * look.px(26) ? 2 : 4 * width >= span * look.px(26) ? 4 : 8;
    for (int half = axis.low * 2; half <= axis.high * 2; ++half) {
        const bool wholeOne = half % 2 == 0;
        if (!wholeOne && span > 12) continue;
        const int at = qRound(axis.at(half / 2.0, left, width));
        painter.fillRect(at, y - look.px(wholeOne ? 8 : 4), 1, look.px(wholeOne ? 8 : 4), look.palette.line);
        if (wholeOne && (half / 2) % every == 0) {
            drawText(painter, at, y - look.px(12), QString::number(half / 2), look.font(14), look.palette.muted,
                     Qt::AlignHCenter);
        }
    }
}

} // namespace rollcall
