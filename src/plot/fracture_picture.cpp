// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/fracture_picture.h"

#include "plot/axis.h"
#include "plot/glyphs.h"
#include "plot/translate.h"

#include <algorithm>
#include <cmath>
#include <cstring>
#include <QBuffer>
#include <QCoreApplication>
#include <QImageReader>

namespace rollcall {

namespace {

const QColor overPhoto(0xFB, 0xFA, 0xF6); // the same in both themes: a photo has no theme
const QColor rim(0x10, 0x12, 0x16);

} // namespace

ReadPhoto readPhoto(QByteArray bytes) {
    QBuffer buffer(&bytes);
    QImageReader reader(&buffer);
    reader.setAutoTransform(true); // a camera notes how it was held
    reader.setDecideFormatFromContent(true);
    QImageReader::setAllocationLimit(400); // megabytes: a photo of 100 million pixels, and no more
    ReadPhoto read{reader.read()};
    read.ofAKind = reader.error() != QImageReader::UnsupportedFormatError;
    if (read.photo.isNull()) read.trouble = reader.errorString();
    return read;
}

PhotoLevels photoLevels(QImage photo) {
    PhotoLevels levels{std::move(photo).convertToFormat(QImage::Format_RGB32)};
    constexpr int smallest = 400;
    while (std::max(levels.back().width(), levels.back().height()) > smallest) {
        const QSize half = levels.back().size() / 2;
        levels.push_back(
            levels.back().scaled(half.expandedTo({1, 1}), Qt::IgnoreAspectRatio, Qt::SmoothTransformation));
    }
    return levels;
}

QImage imageOf(const GreyImage& grey) {
    QImage image(grey.width, grey.height, QImage::Format_Grayscale8);
    for (int y = 0; y < grey.height; ++y)
        std::memcpy(image.scanLine(y),
                    grey.pixels.data() + static_cast<std::size_t>(y) * static_cast<std::size_t>(grey.width),
                    static_cast<std::size_t>(grey.width));
    return image;
}

GreyImage greyOf(const QImage& image) {
    const QImage grey = image.convertToFormat(QImage::Format_Grayscale8);
    GreyImage made{grey.width(), grey.height(), {}};
    made.pixels.reserve(static_cast<std::size_t>(made.width) * static_cast<std::size_t>(made.height));
    for (int y = 0; y < made.height; ++y)
        made.pixels.insert(made.pixels.end(), grey.constScanLine(y), grey.constScanLine(y) + made.width);
    return made;
}

QPointF onScreen(const QRect& pane, const PhotoView& view, const PicturePoint& at) {
    return QPointF(QRectF(pane).center()) + (QPointF(at.x, at.y) - view.middle) * view.scale;
}

PicturePoint onPhoto(const QRect& pane, const PhotoView& view, const QPointF& at) {
    const QPointF place = view.middle + (at - QRectF(pane).center()) / view.scale;
    return {place.x(), place.y()};
}

void drawPhoto(QPainter& painter, const QRect& pane, const PhotoView& view, const PhotoLevels& photo) {
    painter.save();
    painter.setClipRect(pane, Qt::IntersectClip);
    painter.fillRect(pane, QColor(0x80, 0x80, 0x80)); // neutral, so that it does not tint the grey of the fracture
    if (!photo.empty()) {
        std::size_t level = 0;
        while (level + 1 < photo.size() &&
               view.scale * static_cast<double>(photo[0].width()) < 0.6 * photo[level].width())
            ++level;
        const QImage& image = photo[level];
        const double shrunk = static_cast<double>(image.width()) / photo[0].width();
        const PicturePoint from = onPhoto(pane, view, pane.topLeft());
        const PicturePoint to = onPhoto(pane, view, QPointF(pane.right() + 1, pane.bottom() + 1));
        const QRectF seen = QRectF(QPointF(from.x, from.y), QPointF(to.x, to.y)) & QRectF(photo[0].rect());
        if (!seen.isEmpty()) {
            const QRectF source(seen.topLeft() * shrunk, seen.size() * shrunk);
            const QRectF target(onScreen(pane, view, {seen.left(), seen.top()}),
                                onScreen(pane, view, {seen.right(), seen.bottom()}));
            painter.setRenderHint(QPainter::SmoothPixmapTransform);
            painter.drawImage(target, image, source);
        }
    }
    painter.restore();
}

void drawLineMarks(QPainter& painter, const QRect& pane, const PhotoView& view, const LineMarks& marks,
                   const Look& look) {
    painter.save();
    painter.setClipRect(pane, Qt::IntersectClip);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    const QPointF a = onScreen(pane, view, marks.line.a);
    const QPointF b = onScreen(pane, view, marks.line.b);
    const auto stroke = [&](double width, const QColor& color, bool dashed) {
        QPen pen(color, width);
        if (dashed) pen.setDashPattern({5, 4});
        painter.setPen(pen);
        if (marks.line.circle)
            painter.drawEllipse(a, std::hypot(b.x() - a.x(), b.y() - a.y()), std::hypot(b.x() - a.x(), b.y() - a.y()));
        else
            painter.drawLine(a, b);
    };
    stroke(3, rim, false);
    stroke(1.2, overPhoto, marks.draft);
    // Where they stand close, ticks are short and thin: what they cross must be seen.
    const double apart = marks.line.length() * view.scale / std::max<std::size_t>(1, marks.crossings.size());
    const bool close = apart < look.px(9);
    const double usual = std::clamp(0.5 * apart, 2.5, static_cast<double>(look.px(6)));
    for (std::size_t i = 0; i < marks.crossings.size(); ++i) {
        const double part = marks.crossings[i].part;
        const QPointF at = onScreen(pane, view, marks.line.at(part));
        const QPointF next = onScreen(pane, view, marks.line.at(part + 1e-4));
        QPointF along = next - at;
        along /= std::max(1e-9, std::hypot(along.x(), along.y()));
        const bool chosen = static_cast<int>(i) == marks.chosen;
        const double reach = chosen ? look.px(12) : marks.crossings[i].weight < 1 ? usual / 2 : usual;
        const QPointF across(-along.y() * reach, along.x() * reach);
        if (chosen || !close) {
            painter.setPen(QPen(rim, chosen ? 6 : 4));
            painter.drawLine(at - across, at + across);
        }
        painter.setPen(QPen(chosen ? QColor(0xFF, 0xD0, 0x40) : overPhoto, chosen ? 3 : close ? 1 : 2));
        painter.drawLine(at - across, at + across);
        if (marks.crossings[i].weight == 1.5) painter.drawEllipse(at, look.px(4), look.px(4));
    }
    painter.restore();
}

void drawScaleRule(QPainter& painter, const QRect& area, double screen_px_per_mm, const Look& look) {
    const Palette& p = look.palette;
    double mm = 0.001;
    for (const double step : {0.002, 0.005, 0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1.0, 2.0, 5.0, 10.0, 20.0, 50.0}) {
        if (step * screen_px_per_mm <= area.width() * 0.45) mm = step;
    }
    const int length = qRound(mm * screen_px_per_mm);
    fillLine(painter, area.left(), area.top() + look.px(6), length, 2, p.ink);
    fillLine(painter, area.left(), area.top(), 2, look.px(14), p.ink);
    fillLine(painter, area.left() + length - 2, area.top(), 2, look.px(14), p.ink);
    drawText(painter, area.left() + length + look.px(8), area.top() + look.px(13),
             QString::number(mm, 'g', 3) + QStringLiteral(" mm"), look.font(16), p.ink);
}

namespace {

double stripX(const QRect& area, double g) {
    return area.left() + (std::clamp(g, 0.5, 10.5) - 0.5) * area.width() / 10.0;
}

} // namespace

QSize ratingTile(const QRect& area, const Look& look) {
    return {area.width() / 10 - 2, look.px(56)};
}

void drawRatingStrip(QPainter& painter, const QRect& area, const RatingStrip& strip, const Look& look, Told* told) {
    const Palette& p = look.palette;
    const QSize tile = ratingTile(area, look);
    const int numbers = area.bottom() - look.px(4);
    const int tiles = numbers - look.px(20) - tile.height();
    const int axis = tiles - look.px(2);
    const int asked = qRound(stripX(area, strip.least));
    const QRect window(asked, area.top(), area.right() + 1 - asked, axis - area.top());
    painter.fillRect(window, p.window_on_panel);
    fillLine(painter, asked, area.top(), 2, axis - area.top(), p.ink);
    if (told != nullptr)
        told->add(window, tr("The grain that is asked: %1 or finer, as ASTM grain size number G").arg(strip.least));
    const QString least = QCoreApplication::translate("fracture", "%1 or finer").arg(strip.least);
    drawText(painter, window.right() - look.px(6), area.top() + look.px(16), least, look.font(14), p.ink,
             Qt::AlignRight);
    fillLine(painter, area.left(), axis, area.width(), 2, p.ink);
    if (strip.finest_seen && *strip.finest_seen < 10.5) {
        const int from = qRound(stripX(area, *strip.finest_seen));
        QBrush hatch(p.muted, Qt::BDiagPattern);
        painter.fillRect(QRect(from, axis - look.px(10), area.right() + 1 - from, look.px(10)), hatch);
        if (told != nullptr)
            told->add(QRect(from, axis - look.px(10), area.right() + 1 - from, look.px(10)),
                      tr("Finer than %1 is not to be seen at this photo's scale").arg(*strip.finest_seen, 0, 'f', 1));
    }
    for (int rating = 1; rating <= 10; ++rating) {
        const int x = qRound(stripX(area, rating - 0.5)) + 1;
        const QRect frame(QPoint(x, tiles), tile);
        const std::size_t index = static_cast<std::size_t>(rating - 1);
        if (told != nullptr)
            told->add(
                QRect(frame.topLeft(), QPoint(frame.right(), area.bottom())),
                tr("A drawn fracture of rating %1, at the photo's scale; about the same number as G").arg(rating));
        if (index < strip.tiles.size() && !strip.tiles[index].isNull())
            painter.drawImage(frame, strip.tiles[index]);
        else
            painter.fillRect(frame, p.hair);
        if (rating == strip.reference) {
            painter.setPen(QPen(p.primary, 3));
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(frame.adjusted(1, 1, -2, -2));
        }
        drawText(painter, frame.center().x(), numbers, QString::number(rating),
                 look.font(16, rating == strip.reference), rating == strip.reference ? p.primary : p.ink,
                 Qt::AlignHCenter);
    }
    const int y = axis - look.px(20);
    for (const RatingStrip::Needle& needle : strip.needles) {
        const QColor color = needle.chosen ? p.ink : p.muted;
        const int low = qRound(stripX(area, needle.low));
        const int high = qRound(stripX(area, needle.high));
        fillLine(painter, low, y, std::max(2, high - low), 2, color);
        fillLine(painter, low, y - look.px(5), 2, look.px(12), color);
        fillLine(painter, high, y - look.px(5), 2, look.px(12), color);
        const int width = needle.chosen ? 5 : 2;
        const int named = needle.chosen ? look.width(needle.name, 16, true) + look.px(8) : 0;
        if (told != nullptr)
            told->add(QRect(low - named - look.px(4), y - look.px(12), high - low + named + look.px(8), look.px(32)),
                      needle.says);
        fillLine(painter, qRound(stripX(area, needle.g)) - width / 2, y - look.px(12), width, look.px(30), color);
        if (needle.chosen)
            drawText(painter, low - look.px(8), y + look.px(6), needle.name, look.font(16, true), color,
                     Qt::AlignRight);
    }
}

void drawGrainPlot(QPainter& painter, const QRect& area, const GrainPlot& plot, const Look& look, Told* told) {
    const Palette& p = look.palette;
    if (plot.points.empty()) return;
    double low = plot.least - 1;
    double high = plot.least + 1;
    double from = plot.points.front().x;
    double to = from;
    for (const GrainPlot::Point& point : plot.points) {
        low = std::min(low, point.low);
        high = std::max(high, point.high);
        from = std::min(from, point.x);
        to = std::max(to, point.x);
    }
    if (plot.longest) {
        from = std::min(from, *plot.longest);
        to = std::max(to, *plot.longest);
    }
    low = std::floor(low);
    high = std::ceil(high);
    const double spread = std::max(1.0, to - from);
    from -= 0.08 * spread;
    to += 0.08 * spread;
    const QRect frame = area.adjusted(look.px(34), look.px(26), -look.px(8), -look.px(30));
    const PlotAxis across{from, to, double(frame.left()), double(frame.left() + frame.width())};
    const PlotAxis up{low, high, double(frame.bottom()), double(frame.bottom() - frame.height())};
    const auto xOf = [&](double x) { return across.at(x); };
    const auto yOf = [&](double g) { return up.at(g); };
    const int asked = qRound(yOf(plot.least));
    painter.fillRect(QRect(frame.left(), frame.top(), frame.width(), asked - frame.top()), p.window_on_panel);
    fillLine(painter, frame.left(), asked, frame.width(), 2, p.ink);
    drawText(painter, area.left(), area.top() + look.px(16), QStringLiteral("G"), look.font(16), p.muted);
    for (const double g : up.ticks(1)) {
        drawText(painter, frame.left() - look.px(8), yOf(g) + look.px(6), QString::number(g), look.font(16), p.ink,
                 Qt::AlignRight);
        fillLine(painter, frame.left() - look.px(4), qRound(yOf(g)), look.px(4), 1, p.ink);
    }
    fillLine(painter, frame.left(), frame.top(), 1, frame.height(), p.line);
    fillLine(painter, frame.left(), frame.bottom(), frame.width(), 1, p.line);
    for (const double x : across.ticks(std::max(1.0, across.roundStep(look.px(56))))) {
        fillLine(painter, qRound(xOf(x)), frame.bottom(), 1, look.px(5), p.ink);
        drawText(painter, xOf(x), frame.bottom() + look.px(22), QString::number(x), look.font(16), p.ink,
                 Qt::AlignHCenter);
    }
    drawText(painter, frame.right(), area.top() + look.px(16), plot.unit, look.font(16), p.muted, Qt::AlignRight);
    if (told != nullptr)
        told->add(area, tr("Grain size number G, finer upwards; shaded: %1 or finer is asked").arg(plot.least));
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setClipRect(frame.adjusted(0, -look.px(20), look.px(8), look.px(2)));
    if (plot.longest) {
        QPen pen(p.muted, 1);
        pen.setDashPattern({6, 4});
        painter.setPen(pen);
        painter.drawLine(QPointF(xOf(*plot.longest), frame.top()), QPointF(xOf(*plot.longest), frame.bottom()));
    }
    if (plot.trend) {
        const auto on = [&](double x) { return plot.trend->g + plot.trend->slope * (x - plot.trend->x); };
        painter.setPen(QPen(p.ink, 2));
        painter.drawLine(QPointF(xOf(from), yOf(on(from))), QPointF(xOf(to), yOf(on(to))));
    }
    for (const GrainPlot::Point& point : plot.points) {
        const QPointF at(xOf(point.x), yOf(point.g));
        const QColor color = point.expected ? p.primary : p.number(point.state);
        const double r = look.px(6);
        painter.setPen(QPen(color, 2));
        painter.setBrush(p.panel);
        if (point.expected) {
            painter.drawPolygon(
                QPolygonF({at + QPointF(0, -r), at + QPointF(r, 0), at + QPointF(0, r), at + QPointF(-r, 0)}));
        } else {
            painter.drawLine(QPointF(at.x(), yOf(point.low)), QPointF(at.x(), yOf(point.high)));
            painter.drawLine(QPointF(at.x() - r, yOf(point.low)), QPointF(at.x() + r, yOf(point.low)));
            painter.drawLine(QPointF(at.x() - r, yOf(point.high)), QPointF(at.x() + r, yOf(point.high)));
            painter.drawEllipse(at, r, r);
        }
        if (told != nullptr) told->add(QRectF(at - QPointF(2 * r, 2 * r), QSizeF(4 * r, 4 * r)), point.says);
        // Beside its point on the side that the trend's line leaves free.
        const bool under = plot.trend && point.g < plot.trend->g + plot.trend->slope * (point.x - plot.trend->x);
        const bool left = under && plot.trend->slope < 0;
        drawText(painter, at.x() + (left ? -1 : 1) * (r + look.px(3)), at.y() + (under ? look.px(18) : -look.px(4)),
                 point.name, look.font(14), color, left ? Qt::AlignRight : Qt::AlignLeft);
    }
    painter.restore();
}

QByteArray blankPlate(int width, int height) {
    QImage image(width, height, QImage::Format_Grayscale8);
    image.fill(Qt::lightGray);
    QByteArray bytes;
    QBuffer buffer(&bytes);
    buffer.open(QIODevice::WriteOnly);
    image.save(&buffer, "PNG");
    return bytes;
}

} // namespace rollcall
