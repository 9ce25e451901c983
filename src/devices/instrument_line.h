// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "devices/line_pattern.h"

#include <deque>
#include <memory>
#include <QObject>
#include <QTimer>

namespace rollcall {

/// Bytes from somewhere: a serial port, or a test. Opens, delivers, and says when it is lost.
class Transport : public QObject {
    Q_OBJECT

public:
    using QObject::QObject;
    /// Tries to open; the answer comes at once. An error says why not, in plain words.
    virtual Result<Done> open() = 0;
    virtual void close() = 0;
    virtual bool isOpen() const = 0;
    virtual QString name() const = 0;

signals:
    void received(const QByteArray& bytes);
    void lost(const QString& why);
};

/// A serial port by its device path ("/dev/ttyUSB0"); a pseudo terminal is one as well. Eight data bits, no parity.
std::unique_ptr<Transport> serialTransport(const QString& path, int baud);

/// The instrument on a wire: opens its transport, opens it again when it was lost, cuts the bytes into lines, reads
/// them by its pattern, and keeps a log of every line and what became of it.
class InstrumentLine : public QObject {
    Q_OBJECT

public:
    InstrumentLine(std::unique_ptr<Transport> transport, LinePattern pattern, QObject* parent = nullptr);
    ~InstrumentLine() override;

    enum class State { closed, open, lost };
    State state() const { return m_state; }
    QString name() const { return m_transport->name(); }
    /// Why it is not open; empty when it is.
    const QString& trouble() const { return m_trouble; }

    struct Logged {
        QString line;
        QString fate; ///< "read", "repeated", "not understood", "cut off"
    };
    static constexpr std::size_t keptLines = 500;
    const std::deque<Logged>& log() const { return m_log; }

    void start();

signals:
    void reading(const rollcall::DeviceLine& line);
    void stateChanged();

private:
    void tryToOpen();
    void take(const QByteArray& bytes);
    void note(const QByteArray& line, const QString& fate);

    std::unique_ptr<Transport> m_transport;
    LinePattern m_pattern;
    LineSplitter m_splitter;
    std::deque<Logged> m_log;
    std::optional<qint64> m_lastSequence;
    QTimer m_again;
    QString m_trouble;
    State m_state = State::closed;
};

} // namespace rollcall
