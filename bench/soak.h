// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"

#include <QString>
#include <vector>

namespace rollcall::bench {

/// Where memory goes, MB.
struct Memory {
    double whole = 0;     ///< pages that are in the computer's memory
    double of_sqlite = 0; ///< asked for by SQLite and not given back: mostly pages of the logbook, up to its cache
    double others = 0;    ///< asked for by all else and not given back
};

/// What became of a working day of eight hours in which two instruments said a line each, twenty-five times a second.
struct Soak {
    double minutes = 0;
    int said = 0;      ///< lines of a reading that the tester said
    int stored = 0;    ///< readings in the logbook at the end
    int faults = 0;    ///< rubbish, repetitions, halves, lines pulled out
    int batches = 0;   ///< that were read
    int midnights = 0; ///< that passed by the shop's clock
    int most_waiting = 0;
    std::vector<Memory> memory; ///< at a tenth of the time, then each further tenth
    QStringList problems;       ///< what the logbook's check says
};

/// Runs the real window for so many minutes on simulated instruments, with the clock as much faster as eight hours
/// need. Throws std::runtime_error where the window does not come to rest.
Soak soak(const QString& folder, const Tables& tables, double minutes);

} // namespace rollcall::bench
