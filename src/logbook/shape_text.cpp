// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/shape_text.h"

#include <cmath>
#include <QJsonArray>
#include <QJsonDocument>

namespace rollcall {

QString outlineText(const BladeShape& shape) {
    QJsonArray corners;
    for (const Spot& corner : shape.outline) corners.append(QJsonArray{corner.x_mm, corner.y_mm});
    return QString::fromUtf8(QJsonDocument(corners).toJson(QJsonDocument::Compact));
}

namespace {

// No blade is longer than this, no outline has more corners: what a damaged record says beyond it is not drawn.
constexpr double farthest_mm = 5000;
constexpr std::size_t mostCorners = 1000;

} // namespace

std::vector<Spot> outlineFromText(const QString& text) {
    std::vector<Spot> corners;
    for (const QJsonValue& value : QJsonDocument::fromJson(text.toUtf8()).array()) {
        const QJsonArray pair = value.toArray();
        const Spot corner{pair.at(0).toDouble(), pair.at(1).toDouble()};
        const bool drawable = std::abs(corner.x_mm) <= farthest_mm && std::abs(corner.y_mm) <= farthest_mm;
        if (pair.size() == 2 && drawable && corners.size() < mostCorners) corners.push_back(corner);
    }
    return corners;
}

} // namespace rollcall
