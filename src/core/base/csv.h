// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace rollcall {

/// One record of a CSV text: its fields without quotes and the line it starts on (the header is line 1).
struct CsvRow {
    int line = 0;
    std::vector<std::string> fields;
};

/// A CSV text with a header: column names as written and the rows below it.
struct CsvText {
    char separator = ',';
    std::vector<std::string> header;
    std::vector<CsvRow> rows;
    std::vector<int> torn; ///< lines left out: a quotation mark that is opened in them and not closed soon

    /// Index of the column of this name, compared without regard to case and blanks; none where absent.
    std::optional<std::size_t> column(std::string_view name) const;
};

/// Reads a CSV text: UTF-8 with or without byte order mark, LF or CRLF, quoted fields. The separator is
/// the one of comma, semicolon and tab that the header uses. Empty lines are passed over.
/// Errors (kind input): empty text, a quote that is never closed, bytes that are not UTF-8.
Result<CsvText> readCsv(std::string_view text);
/// The same of a table that people write: a stray quotation mark costs its own line, which is told in torn, not the
/// rest of the file. One that is closed within twenty lines is a field of several lines,
/// unless a whole row stands in it.
Result<CsvText> readCsvByLines(std::string_view text);

/// The same, one row after another, none of them kept: the first is the header; false ends it. The answer is what is
/// torn so far, as in CsvText. Errors as readCsvByLines().
Result<std::vector<int>> eachCsvRow(std::string_view text, const std::function<bool(CsvRow&&)>& take);
/// The header of a table, and of its rows the first ones. Errors as readCsvByLines().
Result<CsvText> readCsvHead(std::string_view text, std::size_t rows);

/// A field as it stands in a CSV text with commas: quoted where it must be, so that readCsv() gives it back.
std::string csvField(const std::string& field);

} // namespace rollcall
