// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/logbook.h"

namespace rollcall {

/// Rows of each table that went out or came in.
using PackageCounts = std::map<std::string, int>;

/// Writes the whole logbook as a Frictionless Data Package: a folder with datapackage.json, one CSV for each table
/// in the order of its rows, and the attached files under their hash. Errors: exists (the folder is not empty),
/// disk.
Result<PackageCounts> exportTo(Logbook& logbook, const QString& folder);

/// Writes a logbook that is not open as a package, see exportTo(). Errors: as open() and exportTo().
Result<PackageCounts> exportPackage(const QString& logbook, const QString& folder);

/// Makes a new logbook of a package, equal to the one it came from to the last field, its change log included. Errors:
/// exists, disk, input (what is no package, is damaged, or of another schema, with the file and line): nothing is made
/// then.
Result<PackageCounts> importPackage(const QString& logbook, const QString& folder);

} // namespace rollcall
