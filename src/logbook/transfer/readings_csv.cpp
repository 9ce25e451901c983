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
#include <QCryptographicHash>
#include <QDateTime>
#include <QString>
#include <QStringConverter>

namespace rollcall {

namespace {

// A line's own fault; caught where the line is read.
struct BadLine {
    std::string reason;
};

enum Field {
    batchColumn,
    bladeColumn,
    gateColumn,
    valueColumn,
    scaleColumn,
    timeColumn,
    testerColumn,
    xColumn,
    yColumn,
    temperColumn,
    temperatureColumn,
    hoursColumn,
    gradeColumn,
    lowColumn,
    highColumn,
    minimumColumn,
    thicknessColumn,
    certifiedColumn,
    uncertaintyColumn,
    noteColumn,
    purposeColumn,
    finishedColumn
};
constexpr std::array<const char*, 22> columnNames{"batch",
                                                  "blade",
                                                  "gate",
                                                  "value",
                                                  "scale",
                                                  "time",
                                                  "tester",
                                                  "x_mm",
                                                  "y_mm",
                                                  "cycle",
                                                  "temperature_c",
                                                  "hours",
                                                  "grade",
                                                  "window_low",
                                                  "window_high",
                                                  "minimum",
                                                  "thickness_mm",
                                                  "certified",
                                                  "block_uncertainty",
                                                  "note",
                                                  "purpose",
                                                  "finished"};
constexpr std::size_t requiredColumns = 4; // the first of them

class LineReader {
public:
    LineReader(const Tables& tables, const std::vector<std::string>& header, const std::vector<int>& places,
               const std::vector<std::size_t>& unknown, const CsvRow& row)
        : m_tables(tables), m_header(header), m_places(places), m_unknown(unknown), m_row(row) {}

    ReadingLine read() {
        if (m_row.fields.size() > m_header.size()) {
            throw BadLine{
                fmt::format("{} fields where the header has {}; a decimal comma needs semicolons between the fields",
                            m_row.fields.size(), m_header.size())};
        }
        ReadingLine line;
        line.line = m_row.line;
        line.batch = text(batchColumn);
        line.blade = required(bladeColumn);
        const std::string gate = lowered(required(gateColumn));
        line.block = gate == "block";
        if (gate == "quench")
            line.gate = Gate::quench;
        else if (gate != "temper" && !line.block)
            throw BadLine{fmt::format("gate '{}' is not quench, temper or block", gate)};
        if (line.batch.empty() && !line.block) throw BadLine{"batch is empty"};

        const std::string scaleText = text(scaleColumn);
        const Result<RockwellScale> scale = m_tables.scale(scaleText.empty() ? "HRC" : scaleText);
        if (!scale) throw BadLine{scale.error().text};
        line.scale = scale->symbol;
        line.value_text = required(valueColumn);
        line.value = *number(valueColumn);
        line.decimals = decimalsOf(line.value_text);
        if (!inRange(*scale, line.value)) {
            throw BadLine{fmt::format("value {} is outside {} to {} {}", line.value_text, *scale->low, *scale->high,
                                      scale->symbol)};
        }
        line.time = time();
        line.tester = text(testerColumn);
        const std::optional<double> x = quantity(xColumn, Quantity::length);
        const std::optional<double> y = quantity(yColumn, Quantity::length);
        if (x.has_value() != y.has_value()) throw BadLine{"x_mm and y_mm are needed together"};
        if (x) line.spot = Spot{*x, *y};
        readTemper(line);
        line.grade = text(gradeColumn);
        line.window_low = number(lowColumn);
        line.window_high = number(highColumn);
        if (line.window_low && line.window_high && *line.window_low > *line.window_high)
            throw BadLine{"window_low is above window_high"};
        line.window_text = text(lowColumn) + ":" + text(highColumn);
        line.minimum = number(minimumColumn);
        line.purpose = text(purposeColumn);
        line.finished = yesOrNo(finishedColumn);
        line.thickness_text = text(thicknessColumn);
        line.thickness_mm = quantity(thicknessColumn, Quantity::length);
        if (line.thickness_mm && !(*line.thickness_mm > 0)) throw BadLine{"thickness_mm must be more than zero"};
        line.certified = number(certifiedColumn);
        if (line.certified && !inRange(*scale, *line.certified))
            throw BadLine{fmt::format("certified {} is outside the range of {}", text(certifiedColumn), scale->symbol)};
        line.block_uncertainty = number(uncertaintyColumn);
        if (line.block_uncertainty && !(*line.block_uncertainty >= 0))
            throw BadLine{"block_uncertainty must not be negative"};
        line.note = notes();
        static const std::array ranges{
            rangeOf("reading", "x_mm"),        rangeOf("reading", "y_mm"),         rangeOf("purpose", "window_low"),
            rangeOf("purpose", "window_high"), rangeOf("batch", "quench_minimum"), rangeOf("blade", "thickness_mm"),
            rangeOf("cycle", "temperature_c"), rangeOf("cycle", "hours"),          rangeOf("block", "uncertainty")};
        const std::array values{x,
                                y,
                                line.window_low,
                                line.window_high,
                                line.minimum,
                                line.thickness_mm,
                                line.temperature_c,
                                line.hours,
                                line.block_uncertainty};
        for (std::size_t i = 0; i < ranges.size(); ++i) within(values[i], ranges[i]);
        return line;
    }

private:
    // What the record would refuse is told here, with its line.
    static void within(const std::optional<double>& value, const StoredRange* range) {
        if (value && range != nullptr && !(*value >= range->least && *value <= range->most))
            throw BadLine{outside(*range, *value).text};
    }
    const std::string& text(Field column) const {
        static const std::string none;
        const int place = m_places[column];
        return place >= 0 && static_cast<std::size_t>(place) < m_row.fields.size()
                   ? m_row.fields[static_cast<std::size_t>(place)]
                   : none;
    }
    const std::string& required(Field column) const {
        const std::string& field = text(column);
        if (field.empty()) throw BadLine{fmt::format("{} is empty", columnNames[column])};
        return field;
    }
    std::optional<double> number(Field column) const {
        const std::string& field = text(column);
        if (field.empty()) return std::nullopt;
        const Result<double> value = parseNumber(field);
        if (!value) throw BadLine{fmt::format("{}: {}", columnNames[column], value.error().text)};
        return *value;
    }
    std::optional<bool> yesOrNo(Field column) const {
        const std::string field = lowered(text(column));
        if (field.empty()) return std::nullopt;
        for (const char* yes : {"yes", "y", "x", "1", "true", "ja", "oui"}) {
            if (field == yes) return true;
        }
        for (const char* no : {"no", "n", "0", "false", "nein", "non"}) {
            if (field == no) return false;
        }
        throw BadLine{fmt::format("{} '{}' is neither yes nor no", columnNames[column], field)};
    }
    std::optional<double> quantity(Field column, Quantity kind) const {
        const std::string& field = text(column);
        if (field.empty()) return std::nullopt;
        const Result<double> value = parseQuantity(field, kind);
        if (!value) throw BadLine{fmt::format("{}: {}", columnNames[column], value.error().text)};
        return *value;
    }

    std::optional<Instant> time() const {
        const std::string field = text(timeColumn);
        if (field.empty()) return std::nullopt;
        const QDateTime moment = QDateTime::fromString(QString::fromStdString(field), Qt::ISODate);
        if (!moment.isValid())
            throw BadLine{fmt::format("time '{}' is not a date and time like 2026-11-20T08:12", field)};
        return Instant{moment.toMSecsSinceEpoch(), moment.offsetFromUtc() / 60};
    }

    void readTemper(ReadingLine& line) const {
        if (const std::optional<double> temper = number(temperColumn)) {
            if (*temper != std::floor(*temper) || *temper < 1 || *temper > 20)
                throw BadLine{fmt::format("cycle {} is not a whole number from 1 to 20", text(temperColumn))};
            line.temper = static_cast<int>(*temper);
        }
        line.temperature_c = quantity(temperatureColumn, Quantity::temperature);
        line.hours = quantity(hoursColumn, Quantity::duration);
        line.temper_text = text(temperatureColumn) + " " + text(hoursColumn);
    }

    std::string notes() const {
        std::string all = text(noteColumn);
        for (const std::size_t i : m_unknown) {
            if (i >= m_row.fields.size() || m_row.fields[i].empty()) continue;
            all += (all.empty() ? "" : "; ") + m_header[i] + ": " + m_row.fields[i];
        }
        return all;
    }

    const Tables& m_tables;
    const std::vector<std::string>& m_header;
    const std::vector<int>& m_places;
    const std::vector<std::size_t>& m_unknown;
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

std::string ReadingLine::shortIdentity() const {
    constexpr qsizetype kept = 12; // 96 bits: of a million readings no two share them by chance
    QByteArray bytes;
    const auto text = [&](const std::string& one) {
        bytes.append(one.data(), static_cast<qsizetype>(one.size()));
        bytes += '\0';
    };
    const auto number = [&](const auto& one) { bytes.append(reinterpret_cast<const char*>(&one), sizeof one); };
    text(block ? std::string() : batch);
    text(blade);
    text(scale);
    text(tester);
    number(static_cast<std::int8_t>(block ? -1 : static_cast<int>(gate)));
    number(static_cast<std::int32_t>(temper.value_or(0)));
    number(value);
    bytes += time ? 't' : '-';
    if (time) number(time->utc_ms);
    bytes += spot ? 's' : '-';
    if (spot) number(spot->x_mm);
    if (spot) number(spot->y_mm);
    return QCryptographicHash::hash(bytes, QCryptographicHash::Sha256)
        .left(kept)
        .toBase64(QByteArray::Base64UrlEncoding)
        .toStdString();
}

QByteArray textOfFile(const QByteArray& bytes) {
    const auto utf16 = QStringConverter::encodingForData(bytes);
    if (utf16 && *utf16 != QStringConverter::Utf8) return QString(QStringDecoder(*utf16)(bytes)).toUtf8();
    const bool utf8 = bytes.startsWith("\xEF\xBB\xBF") || bytes.isValidUtf8();
    return utf8 ? bytes : QString::fromLatin1(bytes).toUtf8();
}

Result<CsvText> tableOfFile(const QByteArray& bytes) {
    const QByteArray text = textOfFile(bytes);
    return readCsvByLines({text.constData(), static_cast<std::size_t>(text.size())});
}

Result<CsvText> headOfFile(const QByteArray& bytes) {
    const QByteArray text = textOfFile(bytes);
    return readCsvHead({text.constData(), static_cast<std::size_t>(text.size())}, 1);
}

bool isReadingsCsv(const CsvText& table) {
    return std::all_of(columnNames.begin(), columnNames.begin() + requiredColumns,
                       [&](const char* column) { return table.column(column).has_value(); });
}

Result<ReadingsReader> ReadingsReader::under(const Tables& tables, std::vector<std::string> header) {
    ReadingsReader reader(tables, std::move(header));
    CsvText table;
    table.header = reader.m_header;
    for (std::size_t i = 0; i < columnNames.size(); ++i) {
        const auto place = table.column(columnNames[i]);
        if (!place && i < requiredColumns) {
            return Error{ErrorKind::input, "line 1",
                         fmt::format("the column '{}' is missing; a readings file needs batch, blade, gate and value",
                                     columnNames[i])};
        }
        reader.m_places.push_back(place ? static_cast<int>(*place) : -1);
    }
    for (std::size_t i = 0; i < reader.m_header.size(); ++i) {
        const bool known = std::any_of(columnNames.begin(), columnNames.end(),
                                       [&](const char* name) { return sameName(reader.m_header[i], name); });
        if (!known) reader.m_unknown.push_back(i);
    }
    return reader;
}

Result<ReadingLine> ReadingsReader::read(const CsvRow& row) const {
    try {
        return LineReader(*m_tables, m_header, m_places, m_unknown, row).read();
    } catch (const BadLine& bad) {
        return Error{ErrorKind::input, "", bad.reason};
    }
}

Result<ReadingsCsv> readReadingsCsv(const Tables& tables, const CsvText& table) {
    const auto reader = ReadingsReader::under(tables, table.header);
    if (!reader) return reader.error();
    ReadingsCsv readings;
    for (const CsvRow& row : table.rows) {
        auto line = reader->read(row);
        if (line)
            readings.lines.push_back(std::move(line).value());
        else
            readings.rejected.push_back({row.line, line.error().text});
    }
    for (const int line : table.torn) readings.rejected.push_back({line, tornLine});
    std::sort(readings.rejected.begin(), readings.rejected.end(),
              [](const auto& a, const auto& b) { return a.line < b.line; });
    return readings;
}

} // namespace rollcall
