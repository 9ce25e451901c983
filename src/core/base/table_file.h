// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/csv.h"
#include "core/base/number.h"
#include "core/base/tables.h"

#include <fmt/format.h>
#include <fstream>
#include <optional>
#include <sstream>
#include <string>
#include <string_view>
#include <vector>

namespace rollcall {

// Thrown by the readers of tables only, so that they can be written as straight lines; Tables::load turns it into
// the Error it carries.
struct TableDamage {
    Error error;
};

[[noreturn]] inline void damage(const std::string& place, const std::string& text) {
    throw TableDamage{{ErrorKind::table, place, text}};
}

/// One reference table while it is read: names file, line and column of whatever is wrong with it.
class TableFile {
public:
    TableFile(const std::string& folder, const std::string& name) : m_name(name) {
        std::ifstream file(folder + "/" + name, std::ios::binary);
        if (!file) damage(m_name, "this reference table is missing or cannot be read");
        std::ostringstream bytes;
        bytes << file.rdbuf();
        Result<CsvText> csv = readCsv(bytes.str());
        if (!csv) damage(csv.error().place.empty() ? m_name : m_name + " " + csv.error().place, csv.error().text);
        m_csv = std::move(csv).value();
        if (m_csv.rows.empty()) damage(m_name, "the table has no rows");
    }

    const std::vector<CsvRow>& rows() const { return m_csv.rows; }

    std::string text(const CsvRow& row, std::string_view column) const {
        const std::optional<std::size_t> index = m_csv.column(column);
        if (!index) damage(m_name + " line 1", fmt::format("the column {} is missing", column));
        if (*index >= row.fields.size()) damage(place(row, column), "the line ends too early");
        return row.fields[*index];
    }

    std::string requiredText(const CsvRow& row, std::string_view column) const {
        std::string field = text(row, column);
        if (field.empty()) damage(place(row, column), "the field is empty");
        return field;
    }

    std::optional<double> number(const CsvRow& row, std::string_view column) const {
        const std::string field = text(row, column);
        if (field.empty()) return std::nullopt;
        const Result<double> value = parseNumber(field);
        if (!value) damage(place(row, column), value.error().text);
        return *value;
    }

    /// A number that may be missing but must lie in these limits when it is there.
    std::optional<double> numberWithin(const CsvRow& row, std::string_view column, double low, double high) const {
        const std::optional<double> value = number(row, column);
        if (value && !(*value >= low && *value <= high))
            damage(place(row, column), fmt::format("{} is outside {} to {}", *value, low, high));
        return value;
    }

    double requiredNumber(const CsvRow& row, std::string_view column, double low, double high) const {
        const std::optional<double> value = numberWithin(row, column, low, high);
        if (!value) damage(place(row, column), "the number is missing");
        return *value;
    }

    Confidence confidence(const CsvRow& row) const {
        const std::string word = requiredText(row, "confidence");
        if (word == "high") return Confidence::high;
        if (word == "medium") return Confidence::medium;
        if (word == "low") return Confidence::low;
        damage(place(row, "confidence"), fmt::format("'{}' is not high, medium or low", word));
    }

    std::string place(const CsvRow& row, std::string_view column) const {
        return fmt::format("{} line {} column {}", m_name, row.line, column);
    }

private:
    std::string m_name;
    CsvText m_csv;
};

/// Grades with their windows and temper curves, from grades.csv, heat_treat.csv and temper_curves.csv.
std::vector<Grade> readGrades(const std::string& folder);
std::vector<Grade> readOtherSteels(const std::string& folder);
/// From temper_colors.csv.
std::vector<OxideColour> readOxideColours(const std::string& folder);

} // namespace rollcall
