// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "sim/simulated_instrument.h"

#include <random>

namespace rollcall {

/// A tester on a pseudo terminal: lines "R 12 62.1 HRC" with a count of its own.
class SimulatedTester : public SimulatedInstrument {
public:
    SimulatedTester(double usualNoise, quint64 seed);

    double truth = 62; ///< HRC
    double noise;      ///< standard deviation of single readings, HRC
    double drift = 0;  ///< added by every reading, HRC

    QString usualCommand() const override { return QStringLiteral("read"); }

protected:
    /// read [VALUE] a reading; partial half of a line and rest its other half; overshoot a reading 3 points too hard;
    /// double one struck on the spot of the one before; flood N readings at once.
    Result<Done> ownCommand(const QStringList& words) override;

private:
    QByteArray nextLine(double value);
    double scattered();

    std::mt19937_64 m_random;
    QByteArray m_rest;
};

} // namespace rollcall
