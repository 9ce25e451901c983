// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/csv.h"

#include <map>
#include <string>
#include <vector>

namespace rollcall {

/// What the columns of somebody's own table are, so that it can be read as a readings.csv.
struct ColumnMap {
    struct Column {
        std::string is;   ///< a column of a readings file, "date", leaveOut, or empty: kept as a note
        std::string unit; ///< one of ReadingsColumn::units; empty: the first
        bool operator==(const Column&) const = default;
    };
    std::vector<Column> columns;              ///< as many as the table has; several may be "value": one reading each
    std::map<std::string, std::string> fixed; ///< what holds for every line where no column says it, by readings column
    bool operator==(const ColumnMap&) const = default;
};

/// A column that is in nobody's reading, not even as a note.
inline constexpr const char* leaveOut = "-";

/// A column that a table may be said to have.
struct ReadingsColumn {
    const char* name;
    bool required;
    std::vector<const char*> units; ///< to choose from; empty: it has none
};

/// Those of a readings.csv, and "date" for a day that stands apart from its time.
const std::vector<ReadingsColumn>& readingsColumns();

/// Guesses what the columns are by their headers (English, German, French) and, where these do not tell, by their
/// fields. batch is what the readings belong to where no column says it.
ColumnMap guessColumns(const CsvText& table, const std::string& batch);

/// The table as a readings.csv: columns under their names, units behind bare numbers, a line with several values
/// once for each of them under its own line number. The map must have as many columns as the table.
CsvText arranged(const CsvText& table, const ColumnMap& map);

} // namespace rollcall
