// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/instrument_line.h"

#include <QFileInfo>
#include <QSerialPort>

namespace rollcall {

namespace {

class SerialTransport : public Transport {
public:
    SerialTransport(const QString& path, int baud) : m_path(path), m_baud(baud) {
        connect(&m_port, &QSerialPort::readyRead, this, [this] { emit received(m_port.readAll()); });
        connect(&m_port, &QSerialPort::errorOccurred, this, [this](QSerialPort::SerialPortError error) {
            if (error == QSerialPort::NoError || error == QSerialPort::TimeoutError || !m_port.isOpen()) return;
            const QString why = m_port.errorString();
            m_port.close();
            emit lost(why);
        });
    }
    Result<Done> open() override {
        // A link may lead to another device after each plugging in.
        const QString target = QFileInfo(m_path).canonicalFilePath();
        const auto failed = [this](const QString& why) {
            return Error{ErrorKind::disk, m_path.toStdString(), why.toStdString()};
        };
        if (target.isEmpty()) return failed(QStringLiteral("there is no such port"));
        m_port.setPortName(target);
        m_port.setBaudRate(m_baud);
        if (!m_port.open(QIODevice::ReadOnly)) return failed(m_port.errorString());
        return Done{};
    }
    void close() override { m_port.close(); }
    bool isOpen() const override { return m_port.isOpen(); }
    QString name() const override { return m_path; }

private:
    QString m_path;
    int m_baud;
    QSerialPort m_port;
};

constexpr int againAfter_ms = 300;

} // namespace

std::unique_ptr<Transport> serialTransport(const QString& path, int baud) {
    return std::make_unique<SerialTransport>(path, baud);
}

InstrumentLine::InstrumentLine(std::unique_ptr<Transport> transport, LinePattern pattern, QObject* parent)
    : QObject(parent), m_transport(std::move(transport)), m_pattern(std::move(pattern)) {
    m_again.setSingleShot(true);
    m_again.setInterval(againAfter_ms);
    connect(&m_again, &QTimer::timeout, this, &InstrumentLine::tryToOpen);
    connect(m_transport.get(), &Transport::received, this, &InstrumentLine::take);
    connect(m_transport.get(), &Transport::lost, this, [this](const QString& why) {
        // Half a number is no number: what had no end when the line was lost is only noted.
        if (const QByteArray rest = m_splitter.abandon(); !rest.isEmpty()) note(rest, tr("cut off"));
        m_state = State::lost;
        m_trouble = why;
        m_again.start();
        emit stateChanged();
    });
}

InstrumentLine::~InstrumentLine() {
    m_transport->disconnect(this);
    m_transport->close();
}

void InstrumentLine::start() {
    tryToOpen();
}

void InstrumentLine::tryToOpen() {
    const Result<Done> opened = m_transport->open();
    const State before = m_state;
    if (opened) {
        m_state = State::open;
        m_trouble.clear();
    } else {
        if (m_state == State::open) m_state = State::lost;
        m_trouble = QString::fromStdString(opened.error().text);
        m_again.start();
    }
    if (m_state != before || !opened) emit stateChanged();
}

void InstrumentLine::take(const QByteArray& bytes) {
    for (const QByteArray& bytesOfLine : m_splitter.take(bytes)) {
        const DeviceLine line = m_pattern.parse(bytesOfLine);
        if (line.kind == DeviceLine::Kind::blank) continue;
        if (line.kind == DeviceLine::Kind::unknown) {
            note(bytesOfLine, tr("not understood"));
            emit stateChanged();
            continue;
        }
        // An instrument that counts its readings may send the last one again after a break; it is one reading.
        if (line.sequence && line.sequence == m_lastSequence) {
            note(bytesOfLine, tr("repeated"));
            continue;
        }
        m_lastSequence = line.sequence;
        note(bytesOfLine, tr("read"));
        emit reading(line);
    }
}

void InstrumentLine::note(const QByteArray& line, const QString& fate) {
    QString shown;
    for (const char c : line.trimmed())
        shown += c >= 32 && c < 127
                     ? QString(QLatin1Char(c))
                     : QStringLiteral("\\x%1").arg(static_cast<unsigned char>(c), 2, 16, QLatin1Char('0'));
    m_log.push_back({shown, fate});
    if (m_log.size() > keptLines) m_log.pop_front();
}

} // namespace rollcall
