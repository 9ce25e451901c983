// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/look.h"

#include <algorithm>
#include <cmath>
#include <QPaintEngine>

#include <QFontDatabase>
#include <QFontMetrics>

namespace rollcall {

namespace {

TextWatcher* textWatcher = nullptr;

} // namespace

Palette Palette::light() {
    Palette p;
    p.paper = 0xF3F0E9;
    p.panel = 0xFBFAF6;
    p.steel = 0xDEDFDB;
    p.window = 0xC9D8E2;
    p.window_on_panel = 0xDDE5E8;
    p.ink = 0x1E2228;
    p.muted = 0x555C66;
    p.hair = 0xD5CFC2;
    p.line = 0x8A8578;
    p.primary = 0x1F4B76;
    p.on_primary = 0xFFFFFF;
    p.on_primary_second = 0xD5E2EE;
    p.pass = 0x1D5A5C;
    p.borderline = 0x845200;
    p.fail = 0x971F47;
    p.earlier = 0x9A6E0A;
    p.older = 0x5C4F86;
    p.quenched = 0x2B5E90;
    return p;
}

Palette Palette::darkOne() {
    Palette p;
    p.paper = 0x15181B;
    p.panel = 0x1D2125;
    p.steel = 0x30363C;
    p.window = 0x2E475C;
    p.window_on_panel = 0x22303C;
    p.ink = 0xF0EBE0;
    p.muted = 0xA9AEB4;
    p.hair = 0x343A40;
    p.line = 0x7B8188;
    p.primary = 0x8FBDE6;
    p.on_primary = 0x10202E;
    p.on_primary_second = 0x20384D;
    p.pass = 0x7CC6C3;
    p.borderline = 0xDDA63F;
    p.fail = 0xF5859F;
    p.earlier = 0xE0B553;
    p.older = 0xB3A6DC;
    p.quenched = 0x7FB0DE;
    p.dark = true;
    return p;
}

Palette Palette::highContrast(bool dark) {
    Palette p;
    p.paper = p.panel = dark ? 0x000000 : 0xFFFFFF;
    p.steel = dark ? 0x2A2A2A : 0xE4E4E4;
    p.window = dark ? 0x1C3F63 : 0xC4DCF2;
    p.window_on_panel = dark ? 0x122A42 : 0xDCEAF7;
    p.ink = dark ? 0xFFFFFF : 0x000000;
    p.muted = dark ? 0xDADADA : 0x333333;
    p.hair = dark ? 0x8C8C8C : 0x767676;
    p.line = dark ? 0xC8C8C8 : 0x4A4A4A;
    p.primary = dark ? 0xA6D2FF : 0x00397A;
    p.on_primary = dark ? 0x000000 : 0xFFFFFF;
    p.on_primary_second = dark ? 0x10202E : 0xE8F1FA;
    p.pass = dark ? 0x86EDE8 : 0x00474A;
    p.borderline = dark ? 0xFFC95C : 0x5E3A00;
    p.fail = dark ? 0xFFABC0 : 0x7D0033;
    p.earlier = dark ? 0xFFD36B : 0x6B4A00;
    p.older = dark ? 0xD3C8FF : 0x3F2F78;
    p.quenched = dark ? 0x9CCBFF : 0x123F73;
    p.dark = dark;
    p.contrast = true;
    return p;
}

Palette Palette::wished(bool dark, bool contrast) {
    return contrast ? highContrast(dark) : dark ? darkOne() : light();
}

QColor Palette::of(State state) const {
    switch (state) {
    case State::pass:
        return pass;
    case State::borderline:
        return borderline;
    case State::fail:
        return fail;
    case State::notYet:
    case State::excused:
        return muted;
    }
    return muted;
}

QColor Palette::number(State state) const {
    return state == State::borderline || state == State::fail ? of(state) : ink;
}

QFont Look::font(int size, bool bold) const {
    QFont font(QStringLiteral("Rollcall Sans"));
    font.setPixelSize(px(size));
    font.setBold(bold);
    return font;
}

QFont Look::mono(int size) const {
    QFont font(QStringLiteral("Rollcall Mono"));
    font.setPixelSize(px(size));
    return font;
}

int Look::width(const QString& text, int size, bool bold) const {
    return QFontMetrics(font(size, bold)).horizontalAdvance(text);
}

bool loadFonts(const QString& folder) {
    bool all = true;
    for (const char* face : {"RollcallSans-Regular.otf", "RollcallSans-Bold.otf", "RollcallMono-Regular.otf"}) {
        all = QFontDatabase::addApplicationFont(folder + QLatin1Char('/') + QLatin1String(face)) >= 0 && all;
    }
    return all;
}

void drawText(QPainter& painter, double x, double baseline, const QString& text, const QFont& font, const QColor& color,
              Qt::Alignment alignment) {
    painter.setFont(font);
    painter.setPen(color);
    const double width = QFontMetricsF(font).horizontalAdvance(text);
    const double left = alignment & Qt::AlignRight ? x - width : alignment & Qt::AlignHCenter ? x - width / 2 : x;
    painter.drawText(QPointF(left, baseline), text);
    if (textWatcher == nullptr || text.isEmpty()) return;
    const QFontMetricsF metrics(font);
    const double cap = metrics.capHeight(); // what is seen of a line: from its baseline up
    QRectF place = painter.deviceTransform().mapRect(QRectF(left, baseline - cap, width, cap));
    const QPaintEngine* engine = painter.paintEngine();
    if (engine != nullptr && !engine->systemClip().isEmpty()) place &= engine->systemClip().boundingRect();
    if (painter.hasClipping()) place &= painter.deviceTransform().mapRect(painter.clipBoundingRect());
    textWatcher->drawn(text, place);
}

QString elided(const QString& text, const QFont& font, int width) {
    const QFontMetrics metrics(font);
    // Qt rounds otherwise when it cuts than when it measures: what was measured to fit is not cut.
    const QString shown =
        metrics.horizontalAdvance(text) <= width ? text : metrics.elidedText(text, Qt::ElideRight, width);
    if (textWatcher != nullptr && shown != text) textWatcher->cut(text);
    return shown;
}

int fittingSize(const Look& look, const QString& text, int most, int least, int width, bool bold) {
    int size = most;
    while (size > least && look.width(text, size, bold) > width) --size;
    return size;
}

void drawFitted(QPainter& painter, double x, double baseline, const QString& text, int width, const Look& look,
                int size, bool bold, const QColor& color, Qt::Alignment alignment) {
    constexpr int smallest = 11; // what is read at arm's length
    const int least = std::min(size, std::max(smallest, size * 2 / 3));
    const QFont font = look.font(fittingSize(look, text, size, least, width, bold), bold);
    drawText(painter, x, baseline, elided(text, font, width), font, color, alignment);
}

void drawEnds(QPainter& painter, double left, double right, double baseline, const EndText& first, const EndText& last,
              const Look& look) {
    const auto smaller = [](int size, int by) { return std::max(std::max(11, size * 2 / 3), size - by); };
    int by = 0;
    const auto width = [&](const EndText& end) { return look.width(end.text, smaller(end.size, by), end.bold); };
    const double room = right - left - look.px(16);
    while (width(first) + width(last) > room && by < std::max(first.size, last.size) / 3) ++by;
    const int end = std::min(width(last), qRound(room) * 2 / 3);
    drawFitted(painter, left, baseline, first.text, qRound(room) - end, look, smaller(first.size, by), first.bold,
               first.color);
    drawFitted(painter, right, baseline, last.text, qRound(room) - std::min(width(first), qRound(room) - end), look,
               smaller(last.size, by), last.bold, last.color, Qt::AlignRight);
}

QString shortened(const QString& text, const QFont& font, int width) {
    return QFontMetrics(font).elidedText(text, Qt::ElideRight, width);
}

int drawParagraphs(QPainter& painter, int left, int baseline, int width, const QStringList& lines, int gap,
                   const Look& look, int size, const QColor& color) {
    const QFont font = look.font(size);
    const QFontMetrics metrics(font);
    constexpr int anyHeight = 10000;
    int top = baseline - metrics.ascent();
    painter.setFont(font);
    painter.setPen(color);
    for (const QString& line : lines) {
        const QRect room = metrics.boundingRect(QRect(0, 0, width, anyHeight), Qt::TextWordWrap, line);
        painter.drawText(QRect(left, top, width, room.height()), Qt::TextWordWrap, line);
        top += room.height() + gap;
    }
    return top + metrics.ascent();
}

void watchText(TextWatcher* watcher) {
    textWatcher = watcher;
}

QString degreesText(double celsius, const Look& look) {
    return QString::number(std::lround(inUnits(celsius, Quantity::temperature, look.units))) + QChar(0xA0) +
           QString::fromUtf8(symbolOf(Quantity::temperature, look.units));
}

QString lengthText(double mm, int decimals, const Look& look) {
    return QString::fromStdString(lengthText(mm, decimals, look.units)) + QChar(0xA0) +
           QString::fromUtf8(symbolOf(Quantity::length, look.units));
}

void fillLine(QPainter& painter, int x, int y, int width, int height, const QColor& color) {
    painter.fillRect(x, y, width, height, color);
}

} // namespace rollcall
