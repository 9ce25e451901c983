// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "sim/simulated_instrument.h"

#include <random>

namespace rollcall {

/// An oven's controller: lines "T 12 799.3 C". It nears its set point, falls when its door is opened, and swings a
/// little.
class SimulatedOven : public SimulatedInstrument {
public:
    explicit SimulatedOven(quint64 seed) : m_random(seed) {}

    double set_c = 800;
    double now_c = 800;
    double step_s = 1; ///< simulated seconds from line to line

    QString usualCommand() const override { return QStringLiteral("tick"); }

protected:
    /// tick the next line; set C another set point; open the door for a moment; broken a thermocouple that is.
    Result<Done> ownCommand(const QStringList& words) override;

private:
    std::mt19937_64 m_random;
    double m_phase = 0;
};

} // namespace rollcall
