// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "devices/line_pattern.h"

#include "core/base/csv.h"
#include "core/base/number.h"

#include <fmt/format.h>
#include <QFile>

namespace rollcall {

Result<LinePattern> LinePattern::fromText(const QString& text) {
    QRegularExpression expression(text);
    if (!expression.isValid()) return Error{ErrorKind::argument, "pattern", expression.errorString().toStdString()};
    if (!expression.namedCaptureGroups().contains(QStringLiteral("value")))
        return Error{ErrorKind::argument, "pattern", "the number needs a group named value: (?<value>...)"};
    return LinePattern(std::move(expression));
}

DeviceLine LinePattern::parse(const QByteArray& bytes) const {
    DeviceLine line;
    const QString text = QString::fromLatin1(bytes).trimmed();
    if (text.isEmpty()) return line;
    line.kind = DeviceLine::Kind::unknown;
    const QRegularExpressionMatch match = m_expression.match(text);
    if (!match.hasMatch()) return line;
    line.text = match.captured(QStringLiteral("value"));
    const Result<double> value = parseNumber(line.text.toStdString());
    if (!value) return line;
    line.kind = DeviceLine::Kind::reading;
    line.value = *value;
    const QStringList groups = m_expression.namedCaptureGroups();
    if (groups.contains(QStringLiteral("scale"))) line.scale = match.captured(QStringLiteral("scale"));
    if (groups.contains(QStringLiteral("seq"))) {
        bool whole = false;
        const qint64 sequence = match.captured(QStringLiteral("seq")).toLongLong(&whole);
        if (whole) line.sequence = sequence;
    }
    return line;
}

std::vector<QByteArray> LineSplitter::take(const QByteArray& bytes) {
    std::vector<QByteArray> lines;
    m_rest += bytes;
    qsizetype begin = 0;
    for (qsizetype i = 0; i < m_rest.size(); ++i) {
        const bool ends = m_rest[i] == '\n' || m_rest[i] == '\r';
        const bool tooLong = i - begin >= longestLine;
        if (!ends && !tooLong) continue;
        if (i > begin) lines.push_back(m_rest.mid(begin, i - begin));
        begin = ends ? i + 1 : i;
    }
    m_rest.remove(0, begin);
    return lines;
}

QByteArray LineSplitter::abandon() {
    return std::exchange(m_rest, {});
}

Result<std::vector<LinePreset>> readLinePresets(const QString& path) {
    QFile file(path);
    const std::string place = path.toStdString();
    if (!file.open(QIODevice::ReadOnly))
        return Error{ErrorKind::table, place, "this table is missing or cannot be read"};
    const Result<CsvText> csv = readCsv(file.readAll().toStdString());
    if (!csv) return Error{ErrorKind::table, place + " " + csv.error().place, csv.error().text};
    std::vector<LinePreset> presets;
    for (const CsvRow& row : csv->rows) {
        if (row.fields.size() < 4)
            return Error{ErrorKind::table, fmt::format("{} line {}", place, row.line), "four fields are needed"};
        LinePreset preset{QString::fromStdString(row.fields[0]), QString::fromStdString(row.fields[1]).toInt(),
                          QString::fromStdString(row.fields[2]), QString::fromStdString(row.fields[3])};
        const auto pattern = LinePattern::fromText(preset.pattern);
        if (!pattern || preset.baud <= 0)
            return Error{ErrorKind::table, fmt::format("{} line {}", place, row.line),
                         pattern ? "the baud rate is no number" : pattern.error().text};
        presets.push_back(std::move(preset));
    }
    return presets;
}

} // namespace rollcall
