// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <QByteArray>
#include <QString>

namespace rollcall {

/// An instrument that is none, on a pseudo terminal: says lines as a real one would on its serial port, with faults to
/// order.
class SimulatedInstrument {
public:
    SimulatedInstrument() = default;
    virtual ~SimulatedInstrument();
    SimulatedInstrument(const SimulatedInstrument&) = delete;
    SimulatedInstrument& operator=(const SimulatedInstrument&) = delete;

    QString link; ///< a symbolic link kept to the line; empty for none

    /// Opens a line; the link then leads to it. Errors: disk.
    Result<Done> plug();
    void unplug();
    /// Device path of the line; empty when unplugged.
    const QString& path() const { return m_path; }

    /// What every instrument understands: again the last line once more; garbage a line of rubbish; unplug; plug; and
    /// what its kind does. Errors (argument): another word.
    Result<Done> command(const QString& words);
    /// The word that makes it say its next line.
    virtual QString usualCommand() const = 0;

protected:
    virtual Result<Done> ownCommand(const QStringList& words) = 0;
    void send(const QByteArray& bytes);
    QByteArray numbered(char kind, double value, const char* unit);

    QByteArray m_last;
    int m_count = 0;

private:
    QString m_path;
    int m_line = -1; ///< descriptor of our end
};

} // namespace rollcall
