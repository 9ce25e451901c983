// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/shape_text.h"

#include <QJsonArray>
#include <QJsonDocument>

namespace rollcall {

QString outlineText(const BladeShape& shape) {
    QJsonArray corners;
    for (const Spot& corner : shape.outline) corners.append(QJsonArray{corner.x_mm, corner.y_mm});
    return QString::fromUtf8(QJsonDocument(corners).toJson(QJsonDocument::Compact));
}

std::vector<Spot> outlineFromText(const QString& text) {
    std::vector<Spot> corners;
    for (const QJsonValue& value : QJsonDocument::fromJson(text.toUtf8()).array()) {
        const QJsonArray pair = value.toArray();
        if (pair.size() == 2) corners.push_back({pair[0].toDouble(), pair[1].toDouble()});
    }
    return corners;
}

} // namespace rollcall
