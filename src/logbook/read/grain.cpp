// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"
#include "logbook/rows.h"
#include <fmt/format.h>
#include <QCryptographicHash>

// Photos of fractures, what was counted on them and how they were rated.
namespace rollcall {

namespace {

// What a damaged file holds reads as far as it can be read.
std::vector<Crossing> crossingsIn(const QString& text) {
    std::vector<Crossing> crossings;
    for (const QString& one : text.split(QLatin1Char(';'), Qt::SkipEmptyParts)) {
        const QStringList words = one.trimmed().split(QLatin1Char(' '));
        if (words.size() == 2) crossings.push_back({words[0].toDouble(), words[1].toDouble()});
    }
    return crossings;
}

} // namespace

Result<QByteArray> Logbook::fileOf(const std::string& sha256) {
    const Result<QVariant> bytes =
        m_database->single(QStringLiteral("SELECT bytes FROM attachment_blob WHERE sha256=?"), {q(sha256)});
    if (!bytes) return bytes.error();
    if (bytes->isNull()) return Error{ErrorKind::input, "", "the logbook holds no such file"};
    const QByteArray file = bytes->toByteArray();
    if (QCryptographicHash::hash(file, QCryptographicHash::Sha256).toHex() != QByteArray::fromStdString(sha256))
        return Error{ErrorKind::damaged, "", "the file in the logbook is not what was put in: it is damaged"};
    return file;
}

Result<std::vector<std::string>> Logbook::damagedFile(const std::string& sha256) {
    const auto file = fileOf(sha256);
    if (file) return std::vector<std::string>();
    if (file.error().kind == ErrorKind::disk) return file.error();
    const auto name = m_database->single(
        QStringLiteral("SELECT COALESCE((SELECT name FROM attachment WHERE sha256=? LIMIT 1), (SELECT name FROM "
                       "trace_part WHERE samples=? LIMIT 1), ?)"),
        {q(sha256), q(sha256), q(sha256)});
    if (!name) return name.error();
    return std::vector<std::string>{"the file " + s(*name) + " is not what was put in: it is damaged"};
}

Result<Done> Logbook::loadGrain(Batch& batch, const std::map<std::string, std::size_t>& index) {
    const auto photos =
        rowsOf("fracture", batch.id,
               "SELECT f.blade, f.id, a.name, a.sha256, f.width, f.height, f.round, f.after_cycle, f.at_ms, "
               "f.at_offset, (SELECT px_per_mm FROM fracture_scale s WHERE s.fracture=f.id ORDER BY s.at_ms DESC, "
               "s.rowid DESC LIMIT 1) FROM fracture f JOIN blade b ON b.id=f.blade JOIN attachment a ON "
               "a.id=f.attachment WHERE b.batch=? AND NOT EXISTS (SELECT 1 FROM fracture_mark m WHERE "
               "m.fracture=f.id) ORDER BY f.at_ms, f.rowid");
    if (!photos) return photos.error();
    for (const Row& row : *photos) {
        FracturePhoto photo;
        photo.id = s(row[1]);
        photo.name = s(row[2]);
        photo.sha256 = s(row[3]);
        photo.width = row[4].toInt();
        photo.height = row[5].toInt();
        photo.round = row[6].toInt();
        photo.after_temper = row[7].toInt();
        photo.at = instantOf(row[8], row[9]);
        photo.px_per_mm = numberOrNone(row[10]);
        const auto lines = m_database->select(
            QStringLiteral("SELECT l.id, l.zone, l.circle, l.ax, l.ay, l.bx, l.by, l.crossings, EXISTS (SELECT 1 FROM "
                           "fracture_line_mark m WHERE m.line=l.id) FROM fracture_line l WHERE l.fracture=? ORDER BY "
                           "l.rowid"),
            {row[1]});
        if (!lines) return lines.error();
        for (const Row& one : *lines) {
            CountedLine line;
            line.id = s(one[0]);
            line.zone = named<FractureZone>(s(one[1])).value_or(FractureZone::middle);
            line.line = {
                one[2].toBool(), {one[3].toDouble(), one[4].toDouble()}, {one[5].toDouble(), one[6].toDouble()}};
            line.crossings = crossingsIn(one[7].toString());
            line.struck = one[8].toBool();
            photo.lines.push_back(std::move(line));
        }
        const auto ratings = m_database->select(
            QStringLiteral(
                "SELECT first, second, at_ms, at_offset FROM fracture_rating WHERE fracture=? ORDER BY at_ms, rowid"),
            {row[1]});
        if (!ratings) return ratings.error();
        for (const Row& one : *ratings)
            photo.ratings.push_back({one[0].toDouble(), one[1].toDouble(), instantOf(one[2], one[3])});
        if (Blade* blade = bladeOf(batch, index, row)) blade->fractures.push_back(std::move(photo));
    }
    const auto least = rowsOf("grain_ask", batch.id,
                              "SELECT least FROM grain_ask WHERE batch=? AND id NOT IN taken_back ORDER BY at_ms DESC, "
                              "rowid DESC LIMIT 1");
    if (!least) return least.error();
    if (!least->empty()) batch.grain_least = numberOrNone(least->front()[0]);
    return Done{};
}

} // namespace rollcall
