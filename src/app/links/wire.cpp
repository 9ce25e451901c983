// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/links/wire.h"

#include <QSettings>

namespace rollcall {

Wire::Wire(const QString& settingsName, QObject* parent) : QObject(parent), m_name(settingsName) {
    connectLine();
}

LineSetup Wire::setup() const {
    const QSettings settings;
    return {settings.value(m_name + QStringLiteral("/port")).toString(),
            settings.value(m_name + QStringLiteral("/baud"), 9600).toInt(),
            settings.value(m_name + QStringLiteral("/pattern")).toString()};
}

Result<Done> Wire::setUp(const LineSetup& setup) {
    if (!setup.port.isEmpty()) {
        if (const auto pattern = LinePattern::fromText(setup.pattern); !pattern) return pattern.error();
    }
    QSettings settings;
    settings.setValue(m_name + QStringLiteral("/port"), setup.port);
    settings.setValue(m_name + QStringLiteral("/baud"), setup.baud);
    settings.setValue(m_name + QStringLiteral("/pattern"), setup.pattern);
    connectLine();
    emit changed();
    return Done{};
}

void Wire::connectLine() {
    m_line.reset();
    const LineSetup wired = setup();
    if (wired.port.isEmpty()) return;
    auto pattern = LinePattern::fromText(wired.pattern);
    if (!pattern) return;
    m_line = std::make_unique<InstrumentLine>(serialTransport(wired.port, wired.baud), std::move(pattern).value());
    connect(m_line.get(), &InstrumentLine::reading, this, &Wire::reading);
    connect(m_line.get(), &InstrumentLine::stateChanged, this, &Wire::changed);
    m_line->start();
}

QString Wire::stateText() const {
    if (!m_line) return {};
    return m_line->state() == InstrumentLine::State::open ? tr("line open")
                                                          : tr("line lost: %1").arg(m_line->trouble());
}

} // namespace rollcall
