// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/csv.h"
#include "core/base/tables.h"
#include "core/judge/record.h"

#include <optional>
#include <QByteArray>
#include <string>
#include <vector>

namespace rollcall {

/// What a line says of its blade, or of its batch where that is there already.
struct BladeWishes {
    std::string grade;
    std::optional<double> window_low;
    std::optional<double> window_high;
    std::string window_text;
    std::optional<double> minimum;
    std::string purpose;
    std::optional<bool> finished; ///< no temper of the shop's

    auto operator<=>(const BladeWishes&) const = default;
};

/// One good line of a readings.csv. Everything optional is none where the column is absent or the field empty.
struct ReadingLine : BladeWishes {
    int line = 0; ///< the header is line 1
    std::string batch;
    std::string blade; ///< the block's name when block is true
    bool block = false;
    Gate gate = Gate::temper;
    std::string scale = "HRC";
    double value = 0;
    int decimals = 0;
    std::string value_text;
    std::optional<Instant> time;
    std::string tester;
    std::optional<Spot> spot;
    std::optional<int> temper;
    std::optional<double> temperature_c;
    std::optional<double> hours;
    std::string temper_text; ///< temperature and hours as typed
    std::optional<double> thickness_mm;
    std::string thickness_text;
    std::optional<double> certified;
    std::optional<double> block_uncertainty;
    std::string note; ///< the note and all extra columns

    /// What makes two lines the same reading; equal lines are told apart by their ordinal.
    std::string identity() const;
    /// The same in sixteen characters, as it is stored: the beginning of a hash over it.
    std::string shortIdentity() const;
};

/// Reads the rows under one header as readings.
class ReadingsReader {
public:
    /// Errors (input): a required column is missing.
    static Result<ReadingsReader> under(const Tables& tables, std::vector<std::string> header);
    /// Errors (input): what is wrong with this line.
    Result<ReadingLine> read(const CsvRow& row) const;

private:
    ReadingsReader(const Tables& tables, std::vector<std::string> header)
        : m_tables(&tables), m_header(std::move(header)) {}
    const Tables* m_tables;
    std::vector<std::string> m_header;
    std::vector<int> m_places;          ///< of the known columns, in their order; -1 where there is none
    std::vector<std::size_t> m_unknown; ///< columns that go into the note
};

/// A readings.csv read line by line, before anything is compared with a logbook.
struct ReadingsCsv {
    std::vector<ReadingLine> lines;
    struct Rejected {
        int line = 0;
        std::string reason;
    };
    std::vector<Rejected> rejected;
};

/// The text of a file in UTF-8: as it is; UTF-16 with a byte order mark or, where it is no UTF-8, Latin 1, as
/// spreadsheets write them.
QByteArray textOfFile(const QByteArray& bytes);
/// The table of such a text. Errors as readCsvByLines().
Result<CsvText> tableOfFile(const QByteArray& bytes);
/// Its header and its first row.
Result<CsvText> headOfFile(const QByteArray& bytes);

/// What is told of a line that is torn (CsvText).
inline constexpr const char* tornLine = "a quotation mark is opened in it and not closed";

/// Whether it has the columns that a readings file must have.
bool isReadingsCsv(const CsvText& table);

/// Reads the table; each bad line is rejected with its reason. Errors (input): a required column is missing.
Result<ReadingsCsv> readReadingsCsv(const Tables& tables, const CsvText& table);

} // namespace rollcall
