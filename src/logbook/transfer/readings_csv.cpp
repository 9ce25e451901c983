// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/transfer/readings_csv.h"

#include "core/base/csv.h"
#include "core/base/number.h"
#include "core/measure/rockwell.h"
#include "logbook/ranges.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <QDateTime>
#include <QString>
#include <QStringConverter>

namespace rollcall {

namespace {

// A line's own fault; caught where the line is read.
struct BadLine {
    std::string reason;
};

constexpr std::array<const char*, 4> requiredColumns{"batch", "blade", "gate", "value"};
constexpr std::array<const char*, 18> optionalColumns{
    "scale",   "time",       "tester",      "x_mm",    "y_mm",         "cycle",     "temperature_c",     "hours",
    "grade",   "window_low", "window_high", "minimum", "thickness_mm", "certified", "block_uncertainty", "note",
    "purpose", "finished"};

class LineReader {
public:
    LineReader(const Tables& tables, const CsvText& csv, const CsvRow& row)
        : m_tables(tables), m_csv(csv), m_row(row) {}

    ReadingLine read() {
        if (m_row.fields.size() > m_csv.header.size()) {
            throw BadLine{
                fmt::format("{} fields where the header has {}; a decimal comma needs semicolons between the fields",
                            m_row.fields.size(), m_csv.header.size())};
        }
        ReadingLine line;
        line.line = m_row.line;
        line.batch = text("batch");
        line.blade = required("blade");
        const std::string gate = lowered(required("gate"));
        line.block = gate == "block";
        if (gate == "quench")
            line.gate = Gate::quench;
        else if (gate != "temper" && !line.block)
            throw BadLine{fmt::format("gate '{}' is not quench, temper or block", gate)};
        if (line.batch.empty() && !line.block) throw BadLine{"batch is empty"};

        const std::string scaleText = text("scale");
        const Result<RockwellScale> scale = m_tables.scale(scaleText.empty() ? "HRC" : scaleText);
        if (!scale) throw BadLine{scale.error().text};
        line.scale = scale->symbol;
        line.value_text = required("value");
        line.value = *number("value");
        line.decimals = decimalsOf(line.value_text);
        if (!inRange(*scale, line.value)) {
            throw BadLine{fmt::format("value {} is outside {} to {} {}", line.value_text, *scale->low, *scale->high,
                                      scale->symbol)};
        }
        line.time = time();
        line.tester = text("tester");
        const std::optional<double> x = quantity("x_mm", Quantity::length);
        const std::optional<double> y = quantity("y_mm", Quantity::length);
        if (x.has_value() != y.has_value()) throw BadLine{"x_mm and y_mm are needed together"};
        if (x) line.spot = Spot{*x, *y};
        readTemper(line);
        line.grade = text("grade");
        line.window_low = number("window_low");
        line.window_high = number("window_high");
        if (line.window_low && line.window_high && *line.window_low > *line.window_high)
            throw BadLine{"window_low is above window_high"};
        line.window_text = text("window_low") + ":" + text("window_high");
        line.minimum = number("minimum");
        line.purpose = text("purpose");
        line.finished = yesOrNo("finished");
        line.thickness_text = text("thickness_mm");
        line.thickness_mm = quantity("thickness_mm", Quantity::length);
        if (line.thickness_mm && !(*line.thickness_mm > 0)) throw BadLine{"thickness_mm must be more than zero"};
        line.certified = number("certified");
        if (line.certified && !inRange(*scale, *line.certified))
            throw BadLine{fmt::format("certified {} is outside the range of {}", text("certified"), scale->symbol)};
        line.block_uncertainty = number("block_uncertainty");
        if (line.block_uncertainty && !(*line.block_uncertainty >= 0))
            throw BadLine{"block_uncertainty must not be negative"};
        line.note = notes();
        if (line.spot) {
            within(line.spot->x_mm, "reading", "x_mm");
            within(line.spot->y_mm, "reading", "y_mm");
        }
        within(line.window_low, "purpose", "window_low");
        within(line.window_high, "purpose", "window_high");
        within(line.minimum, "batch", "quench_minimum");
        within(line.thickness_mm, "blade", "thickness_mm");
        within(line.temperature_c, "cycle", "temperature_c");
        within(line.hours, "cycle", "hours");
        within(line.block_uncertainty, "block", "uncertainty");
        return line;
    }

private:
    // What the record would refuse is told here, with its line.
    static void within(const std::optional<double>& value, const char* table, const char* column) {
        const StoredRange* range = rangeOf(table, column);
        if (value && range != nullptr && !(*value >= range->least && *value <= range->most))
            throw BadLine{outside(*range, *value).text};
    }
    std::string text(const char* column) const {
        const std::optional<std::size_t> index = m_csv.column(column);
        return index && *index < m_row.fields.size() ? m_row.fields[*index] : std::string();
    }
    std::string required(const char* column) const {
        std::string field = text(column);
        if (field.empty()) throw BadLine{fmt::format("{} is empty", column)};
        return field;
    }
    std::optional<double> number(const char* column) const {
        const std::string field = text(column);
        if (field.empty()) return std::nullopt;
        const Result<double> value = parseNumber(field);
        if (!value) throw BadLine{fmt::format("{}: {}", column, value.error().text)};
        return *value;
    }
    std::optional<bool> yesOrNo(const char* column) const {
        const std::string field = lowered(text(column));
        if (field.empty()) return std::nullopt;
        for (const char* yes : {"yes", "y", "x", "1", "true", "ja", "oui"}) {
            if (field == yes) return true;
        }
        for (const char* no : {"no", "n", "0", "false", "nein", "non"}) {
            if (field == no) return false;
        }
        throw BadLine{fmt::format("{} '{}' is neither yes nor no", column, field)};
    }
    std::optional<double> quantity(const char* column, Quantity kind) const {
        const std::string field = text(column);
        if (field.empty()) return std::nullopt;
        const Result<double> value = parseQuantity(field, kind);
        if (!value) throw BadLine{fmt::format("{}: {}", column, value.error().text)};
        return *value;
    }

    std::optional<Instant> time() const {
        const std::string field = text("time");
        if (field.empty()) return std::nullopt;
        const QDateTime moment = QDateTime::fromString(QString::fromStdString(field), Qt::ISODate);
        if (!moment.isValid())
            throw BadLine{fmt::format("time '{}' is not a date and time like 2026-11-20T08:12", field)};
        return Instant{moment.toMSecsSinceEpoch(), moment.offsetFromUtc() / 60};
    }

    void readTemper(ReadingLine& line) const {
        if (const std::optional<double> temper = number("cycle")) {
            if (*temper != std::floor(*temper) || *temper < 1 || *temper > 20)
                throw BadLine{fmt::format("cycle {} is not a whole number from 1 to 20", text("cycle"))};
            line.temper = static_cast<int>(*temper);
        }
        line.temperature_c = quantity("temperature_c", Quantity::temperature);
        line.hours = quantity("hours", Quantity::duration);
        line.temper_text = text("temperature_c") + " " + text("hours");
    }

    std::string notes() const {
        std::string all = text("note");
        for (std::size_t i = 0; i < m_csv.header.size() && i < m_row.fields.size(); ++i) {
            const auto is = [&](const char* name) { return sameName(m_csv.header[i], name); };
            const bool known = std::any_of(requiredColumns.begin(), requiredColumns.end(), is) ||
                               std::any_of(optionalColumns.begin(), optionalColumns.end(), is);
            if (known || m_row.fields[i].empty()) continue;
            all += (all.empty() ? "" : "; ") + m_csv.header[i] + ": " + m_row.fields[i];
        }
        return all;
    }

    const Tables& m_tables;
    const CsvText& m_csv;
    const CsvRow& m_row;
};

} // namespace

std::string ReadingLine::identity() const {
    return fmt::format("{}\x1f{}\x1f{}\x1f{}\x1f{}\x1f{:.17g}\x1f{}\x1f{}\x1f{}\x1f{}", block ? std::string() : batch,
                       blade,
                       block                  ? "block"
                       : gate == Gate::quench ? "quench"
                                              : "temper",
                       temper.value_or(0), scale, value, time ? fmt::format("{}", time->utc_ms) : std::string(), tester,
                       spot ? fmt::format("{:.17g}", spot->x_mm) : std::string(),
                       spot ? fmt::format("{:.17g}", spot->y_mm) : std::string());
}

Result<CsvText> tableOfFile(const QByteArray& bytes) {
    const auto utf16 = QStringConverter::encodingForData(bytes);
    const bool utf8 = QString::fromUtf8(bytes).toUtf8() == bytes || bytes.startsWith("\xEF\xBB\xBF");
    const QByteArray text = utf16 && *utf16 != QStringConverter::Utf8 ? QString(QStringDecoder(*utf16)(bytes)).toUtf8()
                            : utf8                                    ? bytes
                                                                      : QString::fromLatin1(bytes).toUtf8();
    return readCsvByLines({text.constData(), static_cast<std::size_t>(text.size())});
}

bool isReadingsCsv(const CsvText& table) {
    return std::all_of(requiredColumns.begin(), requiredColumns.end(),
                       [&](const char* column) { return table.column(column).has_value(); });
}

Result<ReadingsCsv> readReadingsCsv(const Tables& tables, const CsvText& table) {
    for (const char* column : requiredColumns) {
        if (!table.column(column)) {
            return Error{
                ErrorKind::input, "line 1",
                fmt::format("the column '{}' is missing; a readings file needs batch, blade, gate and value", column)};
        }
    }
    ReadingsCsv readings;
    for (const CsvRow& row : table.rows) {
        try {
            readings.lines.push_back(LineReader(tables, table, row).read());
        } catch (const BadLine& bad) {
            readings.rejected.push_back({row.line, bad.reason});
        }
    }
    for (const int line : table.torn)
        readings.rejected.push_back({line, "a quotation mark is opened in it and not closed"});
    std::sort(readings.rejected.begin(), readings.rejected.end(),
              [](const auto& a, const auto& b) { return a.line < b.line; });
    return readings;
}

} // namespace rollcall
