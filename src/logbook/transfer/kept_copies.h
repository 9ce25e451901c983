// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/logbook.h"

#include <QDateTime>

namespace rollcall {

/// A copy of a logbook that is kept against loss, in a folder with others of it: "shop 2026-11-28 140500.rollcall".
struct KeptCopy {
    QString path;
    QDateTime made; ///< by the clock of the wall where it was made, without a zone
};

/// A moment as the clock of the wall shows it, without a zone: as copies are named and compared.
QDateTime onTheWall(const Instant& at);

/// The copies of a logbook that a folder holds, the newest first. Files of other names are none.
std::vector<KeptCopy> keptCopies(const QString& folder, const QString& logbook);

/// The copies that stand beside a logbook since before another one was taken into it, the newest first.
std::vector<KeptCopy> copiesBeforeMerges(const QString& logbook);

/// Of copies, the newest first, those that need not stay: all but the newest of each of the last 24 hours, 7 days,
/// 5 weeks and 12 months of which there is one.
std::vector<KeptCopy> superfluous(const std::vector<KeptCopy>& copies);

/// What keepCopy() did.
struct CopyKept {
    std::optional<KeptCopy> made; ///< none where the newest one holds all that the logbook holds
    int kept = 0;                 ///< copies in the folder now
    int removed = 0;
};

/// Makes one more copy and looks through all of it before it counts; then takes away what is superfluous. Where the
/// copy is not sound it is not kept, and no earlier one goes. Errors: disk (the folder cannot be written to), damaged
/// (with what its check found).
Result<CopyKept> keepCopy(Logbook& logbook, const QString& path, const QString& folder);

/// The first half of it, on the thread that has the logbook: a copy that does not have its name yet; none where the
/// newest one holds all that the logbook holds. Errors: disk.
Result<std::optional<KeptCopy>> copyToKeep(Logbook& logbook, const QString& path, const QString& folder);
/// The second, on any thread: looks through it, then it gets its name and counts. Errors: damaged, disk.
Result<CopyKept> keepIfSound(const KeptCopy& copy, const QString& path);

} // namespace rollcall
