// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <QByteArray>
#include <QString>
#include <random>

namespace rollcall {

/// A tester on a pseudo terminal: lines "R 12 62.1 HRC" with a count of its own.
class SimulatedTester {
public:
    SimulatedTester(double usualNoise, quint64 seed);
    ~SimulatedTester();
    SimulatedTester(const SimulatedTester&) = delete;
    SimulatedTester& operator=(const SimulatedTester&) = delete;

    double truth = 62; ///< HRC
    double noise;      ///< standard deviation of single readings, HRC
    double drift = 0;  ///< added by every reading, HRC
    QString link;      ///< a symbolic link kept to the line; empty for none

    /// Opens a line; the link then leads to it. Errors: disk.
    Result<Done> plug();
    void unplug();
    /// Device path of the line; empty when unplugged.
    const QString& path() const { return m_path; }

    /// read [VALUE] a reading; again the last line once more; garbage a line of rubbish; partial half of a line and
    /// rest its other half; overshoot a reading 3 points too hard; double one struck on the spot
    /// of the one before; flood N readings at once; unplug; plug. Errors
    /// (argument): another word.
    Result<Done> command(const QString& words);

private:
    void send(const QByteArray& bytes);
    QByteArray nextLine(double value);
    double scattered();

    std::mt19937_64 m_random;
    QString m_path;
    QByteArray m_last;
    QByteArray m_rest;
    int m_line = -1; ///< descriptor of our end
    int m_count = 0;
};

} // namespace rollcall
