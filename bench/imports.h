// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>

namespace rollcall::bench {

/// What it costs to take a table of readings in by the command line, beside the sqlite3 shell taking the same rows into
/// the same tables with their indexes.
struct Imported {
    int lines = 0;
    double seconds = 0;
    double shell_s = 0; ///< of the sqlite3 shell; 0 where there is none
    double memory_mb = 0;
    double checked_s = 0; ///< to look through all of it
    double checked_mb = 0;
    double bytes = 0; ///< of the file, a reading
};

/// Does so with a made-up table in a folder. Throws std::runtime_error.
Imported imported(const QString& folder, int lines);

} // namespace rollcall::bench
