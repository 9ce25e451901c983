// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "sim/simulated_instrument.h"

#include <random>

namespace rollcall {

/// A scale under a rod: lines "F 12 88.4 N". It shows what is pressed on it, a little unsteadily.
class SimulatedScale : public SimulatedInstrument {
public:
    explicit SimulatedScale(quint64 seed) : m_random(seed) {}

    double pressed_n = 0;
    QString unit = QStringLiteral("N"); ///< N, lbf or kgf
    double noise_n = 0.3;

    QString usualCommand() const override { return QStringLiteral("tick"); }

protected:
    /// tick the next line; press N a force that stays; let go; overload what no scale shows.
    Result<Done> ownCommand(const QStringList& words) override;

private:
    std::mt19937_64 m_random;
};

} // namespace rollcall
