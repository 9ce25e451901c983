// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/logbook.h"

namespace rollcall {

/// Writes a logbook that is not open as a package, see Logbook::exportTo(). Errors: as open() and exportTo().
Result<PackageCounts> exportPackage(const QString& logbook, const QString& folder);

/// Makes a new logbook of a package, equal to the one it came from to the last field, its change log included. Errors:
/// exists, disk, input (what is no package, is damaged, or of another schema, with the file and line): nothing is made
/// then.
Result<PackageCounts> importPackage(const QString& logbook, const QString& folder);

} // namespace rollcall
