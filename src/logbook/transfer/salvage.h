// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/logbook.h"

namespace rollcall {

/// What could be saved of a damaged logbook.
struct SalvageReport {
    std::map<std::string, int> rows; ///< saved, by table; tables of which nothing was there are left out
    int from_log = 0;                ///< of these, gone from their table or altered there: taken as they were logged
    int unproved = 0;                ///< of these, of which no sound entry of the change log tells
    std::string last_entry;          ///< the last entry that follows from the first without a break, as head() tells it
    std::vector<std::string> left;   ///< sentences about what was not saved, and what was saved otherwise
};

/// Saves what is sound in a damaged logbook into a new one. What an unbroken entry of the change log says of a row
/// counts more than the row; a row that no such entry tells of is saved where it can be one. The new logbook begins a
/// change log of its own, whose first entry proves what was saved from then on. The damaged file is not changed.
/// Errors: input (no such file), damaged (SQLite can read nothing of it), exists (the new name is taken), disk.
Result<SalvageReport> salvage(const QString& damaged, const QString& to, const LogbookSeams& seams);

} // namespace rollcall
