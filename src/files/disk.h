// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <functional>
#include <QByteArray>
#include <QDateTime>
#include <QString>
#include <QStringList>

/// Files that are whole or not there at all.
namespace rollcall {

/// Why the last call of the system failed, in its own words: "No space left on device".
QString whyNot();

/// Waits until a file, and the name of a file in its folder, are on the disk.
bool flushFile(const QString& path);
bool flushFolderOf(const QString& path);

/// Gives a finished file its name, durably. Errors: exists (the name is taken), disk.
Result<Done> giveName(const QString& part, const QString& path);

/// Whether a file begins as an SQLite database does.
bool isDatabase(const QString& path);
/// The application that an SQLite database is marked as belonging to, read without opening it; 0 for none or where it
/// is no database. What is still in a write-ahead log beside it is not seen.
int applicationOf(const QString& path);

/// Writes a file that leaves Rollcall: beside its name first, flushed, then renamed. An earlier file of that name stays
/// as it was until all of it is on the disk. A device or a pipe is written to as it is. Errors: disk, with the system's
/// words; refused: the name is a folder, a logbook or another database, or belongs to what lies beside one.
Result<Done> writeFile(const QString& path, const QByteArray& bytes);
/// The same for a writer that makes its file itself, under the name it is given.
Result<Done> writeFileBy(const QString& path, const std::function<Result<Done>(const QString& part)>& write);

/// Takes away what runs that were killed have left in a folder: files and folders of these names, as a shell writes
/// them, that are ours and were not touched since a moment. Links are left, and so is what they lead to.
void clearLeftovers(const QString& folder, const QStringList& names, const QDateTime& before);

/// Files that leave are from now on for their owner alone, as the logbook they come from is.
void keepWhatLeavesPrivate(bool yes);

} // namespace rollcall
