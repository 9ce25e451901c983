// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/transfer/package.h"

namespace rollcall {

/// What a merge did, or would do.
struct MergeReport {
    PackageCounts added;                ///< rows that came in, by table
    int changed = 0;                    ///< rows that only the other one had changed
    std::vector<std::string> conflicts; ///< sentences: what both changed, and what became of it
    std::vector<std::string> renamed;   ///< sentences: what came in under another name
    bool nothing() const { return added.empty() && changed == 0; }
};

/// Takes in what another logbook holds and this one does not, as one action; where both changed the same thing
/// since they were one, this one's stays and the conflict is told. A trial reports and does nothing.
/// Errors: as Logbook::open(); refused when the other does not pass its own check, or is this one.
Result<MergeReport> mergeLogbook(Logbook& logbook, const QString& other, bool trial);

/// A new logbook with the numbers of this one, without names, notes, photos and files. Errors: exists, disk.
Result<Done> copyWithoutNames(Logbook& logbook, const QString& path);

} // namespace rollcall
