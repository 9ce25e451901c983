// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/links/device_link.h"

#include <memory>
#include <QObject>

namespace rollcall {

/// An instrument that is not a tester of the logbook, such as an oven or a force scale, on a wire to this computer. How
/// it is wired is kept in the computer's settings under a name.
class Wire : public QObject {
    Q_OBJECT

public:
    /// Connects at once where a port is set.
    explicit Wire(const QString& settingsName, QObject* parent = nullptr);

    LineSetup setup() const;
    /// Keeps the set-up and connects anew. Errors (argument): a pattern that is none.
    Result<Done> setUp(const LineSetup& setup);
    bool connected() const { return m_line != nullptr; }
    /// "line open", "line lost: ..."; empty when there is none.
    QString stateText() const;

signals:
    void reading(const rollcall::DeviceLine& line);
    void changed();

private:
    void connectLine();

    QString m_name;
    std::unique_ptr<InstrumentLine> m_line;
};

} // namespace rollcall
