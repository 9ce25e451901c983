// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/links/device_link.h"

#include <QSettings>

namespace rollcall {

namespace {

QString keyOf(const std::string& tester, const char* what) {
    return QStringLiteral("line/%1/%2").arg(QString::fromStdString(tester), QLatin1String(what));
}

} // namespace

DeviceLink::DeviceLink(Document& document, QObject* parent) : QObject(parent), m_document(document) {
    connect(&m_document, &Document::changed, this, [this] {
        const Tester* tester = m_document.tester();
        if ((tester != nullptr ? tester->id : std::string()) != m_tester) connectTester();
    });
}

LineSetup DeviceLink::setupOf(const std::string& tester) {
    const QSettings settings;
    return {settings.value(keyOf(tester, "port")).toString(), settings.value(keyOf(tester, "baud"), 9600).toInt(),
            settings.value(keyOf(tester, "pattern")).toString()};
}

Result<Done> DeviceLink::setUp(const std::string& tester, const LineSetup& setup) {
    if (!setup.port.isEmpty()) {
        if (const auto pattern = LinePattern::fromText(setup.pattern); !pattern) return pattern.error();
    }
    QSettings settings;
    settings.setValue(keyOf(tester, "port"), setup.port);
    settings.setValue(keyOf(tester, "baud"), setup.baud);
    settings.setValue(keyOf(tester, "pattern"), setup.pattern);
    if (tester == m_tester) connectTester();
    return Done{};
}

void DeviceLink::connectTester() {
    m_line.reset();
    const Tester* tester = m_document.tester();
    m_tester = tester != nullptr ? tester->id : std::string();
    const LineSetup setup = setupOf(m_tester);
    if (!m_tester.empty() && !setup.port.isEmpty()) {
        Result<LinePattern> pattern = LinePattern::fromText(setup.pattern);
        if (pattern) {
            m_line =
                std::make_unique<InstrumentLine>(serialTransport(setup.port, setup.baud), std::move(pattern).value());
            connect(m_line.get(), &InstrumentLine::reading, this, &DeviceLink::reading);
            connect(m_line.get(), &InstrumentLine::stateChanged, this, &DeviceLink::changed);
            m_line->start();
        }
    }
    emit changed();
}

QString DeviceLink::stateText() const {
    if (!m_line) return {};
    switch (m_line->state()) {
    case InstrumentLine::State::open:
        return tr("line open");
    case InstrumentLine::State::lost:
        return tr("line lost: plug it in again");
    case InstrumentLine::State::closed:
        return tr("no line: %1").arg(m_line->trouble());
    }
    return {};
}

} // namespace rollcall
