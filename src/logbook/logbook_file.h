// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <functional>
#include <memory>
#include <QString>
#include <QTemporaryDir>

/// The file of a logbook: looked at before it is touched, made whole or not at all, kept as it was before it changes.
namespace rollcall {

class Database;

/// Whether a logbook may have this name. Errors (refused): no name, what SQLite would take for something else than a
/// file.
Result<Done> mayBeNamed(const QString& path);

/// Looks at a file without opening it as a database. Errors: input (no such file, a folder), disk (not readable),
/// damaged (empty, no database, another program's).
Result<Done> isALogbook(const QString& path);

/// Whether the file has another name besides this one, a hard link. What a kill left of making it is taken away first.
bool hasSecondName(const QString& path);

/// Whether a writer that was stopped has left something beside the file that belongs into it.
bool hasLeftovers(const QString& path);

/// A copy of a file and its leftovers in a folder of its own, for where they cannot be taken in on the spot.
Result<std::unique_ptr<QTemporaryDir>> copyElsewhere(const QString& path);

/// Makes a new logbook under another name beside it and gives it its own when it is whole; nothing is left of one that
/// fails. Errors: exists, those of the work, disk.
Result<Done> makeWhole(const QString& path, const std::function<Result<Done>(const QString& part)>& make);

/// Copies the logbook that is open as it is into a new file that is looked through before it gets its name, readable by
/// whom the logbook is. Errors: exists, disk, damaged (the copy is not sound).
Result<Done> copyOf(Database& database, const QString& logbook, const QString& to);

/// The same before a change of schema, beside the logbook: .before-schema-7, .before-schema-7.2 where another copy has
/// that name. One that was made of this very state serves again.
Result<Done> keepBefore(Database& database, const QString& path, int schema);

} // namespace rollcall
