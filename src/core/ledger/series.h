// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/measure/control.h"

#include <cstddef>
#include <optional>
#include <vector>

namespace rollcall {

/// What a run of values in order says against chance; on one side of the middle. E62: few and strict, so that a steady
/// tester or oven, whose middle and scatter are themselves known from twenty values only, is called changed by all
/// rules together in at most one year of ten (weekly runs; by simulation).
enum class RunRule {
    beyond,    ///< one value beyond the limits, 4.5 standard deviations
    longOnSide ///< fourteen in a row
};

struct RunSignal {
    std::size_t at = 0; ///< the value that completes it
    RunRule rule = RunRule::beyond;
    int side = 1; ///< 1 above the middle, -1 below
};

/// Values one by one against limits from the first of them: what is watched later does not widen what it is watched by.
struct Individuals {
    double mean = 0;
    double sigma =
        0; ///< mean range between every second of the first ones / 1.128, so that neighbours may hang together
    int learned_from = 0;
    std::vector<RunSignal> alarms;

    double low() const { return mean - controlSigmas * sigma; }
    double high() const { return mean + controlSigmas * sigma; }
};

/// The first twenty values set the limits. None for fewer, or where they do not differ.
std::optional<Individuals> individualsOf(const std::vector<double>& values);

/// Sums of what lies beyond three quarters of a sigma above and below the middle (E. S. Page, Biometrika 41 (1954)): a
/// small shift that lasts adds up. Beyond 10 sigma something has changed.
struct Cumulative {
    std::vector<double> up;   ///< sigmas, 0 or more
    std::vector<double> down; ///< sigmas, 0 or more
    double limit = 10;
    std::optional<std::size_t> signal; ///< the first value beyond it
    std::size_t began = 0;             ///< where the sum that went beyond it began to grow
    int side = 0;                      ///< 1: higher, -1: lower; 0 without a signal
};

Cumulative cumulativeOf(const std::vector<double>& values, const Individuals& chart);

} // namespace rollcall
