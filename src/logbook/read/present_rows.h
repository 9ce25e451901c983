// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/database.h"
#include "logbook/touched.h"

#include <cstdint>
#include <string>
#include <unordered_map>

namespace rollcall {

/// In which tables a batch has rows at all. Most batches have some in few: where all of a logbook is read, one batch
/// after the other, nothing is asked of the others. It holds as of an entry of the change log, and is not asked after
/// one that it did not follow.
class PresentRows {
public:
    /// Goes through the tables once. Errors: as the database's.
    Result<Done> learn(Database& database);
    bool known() const { return m_entry >= 0; }
    /// What an entry of this logbook's own touched may have rows anywhere from now on.
    void follow(qint64 entry, const Touched& touched);
    /// Whether no entry has come that was not followed.
    Result<bool> holds(Database& database) const;
    /// False where a batch has no row in a table; true also of tables that all batches have rows in.
    bool has(const char* table, const std::string& batch) const;

private:
    std::unordered_map<std::string, std::uint64_t> m_tables; ///< of a batch: a bit for each that it has rows in
    qint64 m_entry = -1;
};

} // namespace rollcall
