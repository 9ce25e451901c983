// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/links/force_link.h"

#include "core/base/number.h"

#include <algorithm>

namespace rollcall {

ForceLink::ForceLink(QObject* parent) : QObject(parent), m_wire(QStringLiteral("force")) {
    connect(&m_wire, &Wire::reading, this, &ForceLink::take);
    connect(&m_wire, &Wire::changed, this, &ForceLink::changed);
}

void ForceLink::take(const DeviceLine& line) {
    constexpr double nothing_n = 2; // the rod and its block, and the scale's own unrest
    constexpr double heaviest_n = 5000;
    // The unit stands where a tester would name its scale: N, lbf, kgf.
    const QString unit = line.scale.isEmpty() ? QStringLiteral("N") : line.scale;
    const auto force = parseQuantity((line.text + unit).toStdString(), Quantity::force);
    if (!force || !(*force > -50 && *force < heaviest_n)) return;
    m_now = *force;
    if (*force <= nothing_n) {
        m_released = true;
    } else {
        m_peak = m_released ? *force : std::max(m_peak.value_or(0), *force);
        m_released = false;
    }
    emit changed();
}

} // namespace rollcall
