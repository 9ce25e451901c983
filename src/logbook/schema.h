// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <vector>

namespace rollcall::schema {

/// Marks a file as a Rollcall logbook (SQLite application_id): the letters "Roll".
inline constexpr int applicationId = 0x526F6C6C;
/// The newest schema this program writes (SQLite user_version): that of the newest kind.
extern const int version;

/// The statements that lead from version - 1 to this version, in order.
std::vector<const char*> migration(int toVersion);

/// Tables that came with this version whose rows are never changed or erased; triggers in the database refuse it.
std::vector<const char*> appendOnlyTables(int ofVersion);

} // namespace rollcall::schema
