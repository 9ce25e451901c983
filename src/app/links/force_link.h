// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/links/wire.h"

#include <optional>

namespace rollcall {

/// The scale under the rod on a wire: what it shows now, and the highest since the edge was last let go.
class ForceLink : public QObject {
    Q_OBJECT

public:
    explicit ForceLink(QObject* parent = nullptr);

    Wire& wire() { return m_wire; }
    bool connected() const { return m_wire.connected(); }
    const std::optional<double>& now_n() const { return m_now; }
    const std::optional<double>& peak_n() const { return m_peak; }
    /// Forgets the peak: it went into the record.
    void reset() { m_peak.reset(); }

signals:
    void changed();

private:
    void take(const DeviceLine& line);

    Wire m_wire;
    std::optional<double> m_now;
    std::optional<double> m_peak;
    bool m_released = true;
};

} // namespace rollcall
