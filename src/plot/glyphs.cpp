// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/glyphs.h"

#include <QFontMetrics>
#include <QPainterPath>

namespace rollcall {

namespace {

// Glyphs are drawn on a grid of 24 units.
class Grid {
public:
    Grid(QPainter& painter, double x, double y, double size) : m_painter(painter) {
        painter.save();
        painter.setRenderHint(QPainter::Antialiasing);
        painter.translate(x, y);
        painter.scale(size / 24.0, size / 24.0);
    }
    ~Grid() { m_painter.restore(); }
    Grid(const Grid&) = delete;
    Grid& operator=(const Grid&) = delete;

    void stroke(const QPainterPath& path, const QColor& color, double width) {
        m_painter.strokePath(path, QPen(color, width, Qt::SolidLine, Qt::SquareCap, Qt::MiterJoin));
    }
    void line(double x1, double y1, double x2, double y2, const QColor& color, double width) {
        QPainterPath path(QPointF(x1, y1));
        path.lineTo(x2, y2);
        stroke(path, color, width);
    }

private:
    QPainter& m_painter;
};

QPainterPath polygon(std::initializer_list<QPointF> corners) {
    QPainterPath path;
    path.addPolygon(QPolygonF(QList<QPointF>(corners)));
    path.closeSubpath();
    return path;
}

} // namespace

void drawVerdictGlyph(QPainter& painter, double x, double y, double size, State state, const Look& look,
                      const QColor& background, bool calling) {
    Grid grid(painter, x, y, size);
    const QColor color = calling ? look.palette.primary : look.palette.of(state);
    switch (calling ? State::notYet : state) {
    case State::pass: {
        painter.fillRect(QRectF(3, 3, 18, 18), color);
        QPainterPath tick(QPointF(7, 12.2));
        tick.lineTo(10.6, 15.8);
        tick.lineTo(17, 8.4);
        grid.stroke(tick, background, 3);
        break;
    }
    case State::borderline: {
        const QPainterPath diamond = polygon({{12, 2.2}, {21.8, 12}, {12, 21.8}, {2.2, 12}});
        painter.fillPath(polygon({{12, 1}, {12, 23}, {1, 12}}), color);
        grid.stroke(diamond, color, 2.6);
        break;
    }
    case State::fail:
        grid.line(4, 4, 20, 20, color, 4.8);
        grid.line(20, 4, 4, 20, color, 4.8);
        break;
    case State::notYet: {
        QPainterPath ring;
        ring.addEllipse(QPointF(12, 12), 8.4, 8.4);
        grid.stroke(ring, color, 3);
        break;
    }
    case State::excused:
        painter.fillRect(QRectF(2, 9, 20, 6), color);
        break;
    }
}

void drawCautionGlyph(QPainter& painter, double x, double y, double size, const QColor& color) {
    Grid grid(painter, x, y, size);
    grid.stroke(polygon({{12, 2.6}, {22.2, 21}, {1.8, 21}}), color, 2.6);
    painter.fillRect(QRectF(10.7, 8.6, 2.6, 5.6), color);
    painter.fillRect(QRectF(10.7, 15.8, 2.6, 2.6), color);
}

void drawToneGlyph(QPainter& painter, double x, double y, double size, Tone tone, const Look& look,
                   const QColor& background) {
    switch (tone) {
    case Tone::good:
        return drawVerdictGlyph(painter, x, y, size, State::pass, look, background);
    case Tone::caution:
        return drawVerdictGlyph(painter, x, y, size, State::borderline, look, background);
    case Tone::bad:
        return drawVerdictGlyph(painter, x, y, size, State::fail, look, background);
    case Tone::open:
        return drawVerdictGlyph(painter, x, y, size, State::notYet, look, background);
    case Tone::note: {
        Grid grid(painter, x, y, size);
        painter.setBrush(look.palette.muted);
        painter.setPen(Qt::NoPen);
        painter.drawEllipse(QPointF(12, 12), 3.6, 3.6);
        break;
    }
    case Tone::unseen: {
        Grid grid(painter, x, y, size);
        painter.fillRect(QRectF(6, 11, 5, 2.4), look.palette.muted);
        painter.fillRect(QRectF(14, 11, 5, 2.4), look.palette.muted);
        break;
    }
    }
}

int keyCapWidth(const QString& key, const Look& look) {
    return QFontMetrics(look.mono(14)).horizontalAdvance(key) + look.px(12);
}

int drawKeyCap(QPainter& painter, int x, int centre, const QString& key, const Look& look, const QColor& color,
               int height) {
    const int width = keyCapWidth(key, look);
    const int h = look.px(height);
    painter.setRenderHint(QPainter::Antialiasing, false);
    painter.setPen(color);
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(x, centre - h / 2, width - 1, h - 1);
    drawText(painter, x + width / 2.0, centre + look.px(5), key, look.mono(14), color, Qt::AlignHCenter);
    return width;
}

} // namespace rollcall
