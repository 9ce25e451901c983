// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/measure/control.h"

#include <cstddef>
#include <optional>
#include <vector>

namespace rollcall {

/// What a run of values in order says against chance; on one side of the middle, in its standard deviations. Source:
/// NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.2.
enum class RunRule {
    beyond,      ///< one value beyond three
    twoOfThree,  ///< two of three in a row beyond two
    fourOfFive,  ///< four of five in a row beyond one
    eightOnASide ///< eight in a row
};

struct RunSignal {
    std::size_t at = 0; ///< the value that completes it
    RunRule rule = RunRule::beyond;
    int side = 1; ///< 1 above the middle, -1 below
};

/// Values one by one against limits from the first of them: what is watched later does not widen what it is watched by.
struct Individuals {
    double mean = 0;
    double sigma = 0; ///< mean moving range / 1.128 of the first ones
    int learned_from = 0;
    std::vector<RunSignal> alarms;

    double low() const { return mean - 3 * sigma; }
    double high() const { return mean + 3 * sigma; }
};

/// The first twenty values, or all where there are fewer, set the limits. None for fewer than twelve, or where they do
/// not differ.
std::optional<Individuals> individualsOf(const std::vector<double>& values);

/// Sums of what lies beyond half a sigma above and below the middle (E. S. Page, Biometrika 41 (1954)): a small shift
/// that lasts adds up. Beyond 5 sigma something has changed; by chance alone that comes once in some 465 values.
struct Cumulative {
    std::vector<double> up;   ///< sigmas, 0 or more
    std::vector<double> down; ///< sigmas, 0 or more
    double limit = 5;
    std::optional<std::size_t> signal; ///< the first value beyond it
    std::size_t began = 0;             ///< where the sum that went beyond it began to grow
    int side = 0;                      ///< 1: higher, -1: lower; 0 without a signal
};

Cumulative cumulativeOf(const std::vector<double>& values, const Individuals& chart);

} // namespace rollcall
