// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/measure/outline.h"
#include "plot/look.h"

#include <optional>
#include <QRect>
#include <QTransform>
#include <vector>

namespace rollcall {

/// One indent on the blade as it is drawn.
struct IndentMark {
    enum class Kind { current, older, leftOut };
    Spot spot;
    Kind kind = Kind::current;
    QString label; ///< number of the reading; empty for none
};

/// A blade seen from the side, true to scale, with its indents and the next spot.
struct BladePicture {
    BladeShape shape;
    bool shape_known = true;
    std::vector<IndentMark> indents;
    double keep_out_mm = 0;      ///< half the smallest distance between two indents
    double edge_distance_mm = 0; ///< the valid zone keeps this far from the outline
    std::optional<Spot> next;
    QString next_label;
    bool next_allowed = true;
    QString title;    ///< on the blade: where the next spot is
    QString subtitle; ///< how far from the nearest indent, or why not
};

/// How millimetres lie on the widget: pixels per mm and the place of the heel at the edge.
struct BladeScale {
    double px_per_mm = 1;
    QPointF heel; ///< pixel of x = 0, y = 0

    QPointF toPixel(const Spot& spot) const {
        return {heel.x() + spot.x_mm * px_per_mm, heel.y() - spot.y_mm * px_per_mm};
    }
    Spot toBlade(const QPointF& pixel) const {
        return {(pixel.x() - heel.x()) / px_per_mm, (heel.y() - pixel.y()) / px_per_mm};
    }

    /// The largest of a few round scales at which the blade and its ruler fit the area.
    static BladeScale fitting(const BladeShape& shape, const QRect& area, const Look& look);
};

/// Draws blade, valid zone, reading line, indents with their keep-out circles, next spot and mm ruler; a lens
/// shows the next spot larger when the scale is small.
void drawBlade(QPainter& painter, const QRect& area, const BladePicture& picture, const Look& look);

} // namespace rollcall
