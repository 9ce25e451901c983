// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <QString>
#include <QStringList>
#include <string>
#include <vector>

namespace rollcall {
class Database;
}

namespace rollcall::schema {

/// Marks a file as a Rollcall logbook (SQLite application_id): the letters "Roll".
inline constexpr int applicationId = 0x526F6C6C;
/// The newest schema this program writes (SQLite user_version): that of the newest kind.
extern const int version;

/// The statements that lead from version - 1 to this version, in order.
std::vector<const char*> migration(int toVersion);

/// The statements that make the triggers which refuse to change or erase rows of the record.
QStringList guards();

/// Why a logbook cannot be trusted with what is written to it: triggers or views that Rollcall does not make, or those
/// that guard its rows missing or changed. Empty when all are as they should be.
Result<std::string> planted(Database& database);

} // namespace rollcall::schema
