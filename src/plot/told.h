// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QRectF>
#include <QString>
#include <utility>
#include <vector>

namespace rollcall {

/// What a picture says under the pointer, noted down where each thing is drawn, so that the two cannot part.
class Told {
public:
    void clear() { m_parts.clear(); }
    /// What is noted later lies on top.
    void add(const QRectF& where, const QString& says) { m_parts.emplace_back(where, says); }
    /// What lies at a place; empty: nothing that says anything.
    QString at(const QPointF& place) const {
        for (auto part = m_parts.rbegin(); part != m_parts.rend(); ++part) {
            if (part->first.contains(place)) return part->second;
        }
        return {};
    }

private:
    std::vector<std::pair<QRectF, QString>> m_parts;
};

} // namespace rollcall
