// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/row_series.h"

#include "logbook/handover.h"
#include "logbook/kinds.h"

#include <algorithm>
#include <fmt/format.h>
#include <future>
#include <QCryptographicHash>
#include <QJsonArray>
#include <QScopeGuard>

namespace rollcall {

namespace {

constexpr qint64 together = 1000; // rows of one digest

// The ids of a series lie between these two texts.
QString beginOf(const QString& prefix) {
    return prefix + QLatin1Char('-');
}
QString endOf(const QString& prefix) {
    return prefix + QLatin1Char('.'); // the sign behind the hyphen
}

constexpr int base = 36;
constexpr int digits = 6;

// The digests of rows in the order of their ids, behind an id and up to so many.
Result<RowSeries> read(Database& database, const RowSeries& of, const QString& after, qint64 most,
                       const Earlier& earlier, QString* last) {
    RowSeries found{of.table, of.prefix, of.columns, 0, {}};
    // What the rows say is hashed while more of them are read.
    Handover<QByteArray> thousands(1);
    auto hashing = std::async(std::launch::async, [&] {
        const auto left = qScopeGuard([&] { thousands.leave(); }); // where it fails nobody waits for it
        QStringList digests;
        for (auto next = thousands.next(); !next.empty(); next = thousands.next())
            digests << QString::fromLatin1(QCryptographicHash::hash(next.front(), QCryptographicHash::Sha256).toHex());
        return digests;
    });
    const auto ended = qScopeGuard([&] { thousands.end(); });
    QByteArray rows;
    auto done = database.eachRaw(QStringLiteral("SELECT id, %1 FROM %2 WHERE id>? AND id<? ORDER BY id LIMIT ?")
                                     .arg(of.columns.join(QLatin1Char(',')), of.table),
                                 {after, endOf(of.prefix), most}, [&](const RawRow& raw) {
                                     const QJsonObject* was = nullptr;
                                     if (!earlier.empty() || last != nullptr) {
                                         const std::string_view id = raw.text(0);
                                         const QString text =
                                             QString::fromUtf8(id.data(), static_cast<qsizetype>(id.size()));
                                         if (last != nullptr) *last = text;
                                         if (const auto changed = earlier.find(text); changed != earlier.end())
                                             was = &changed->second;
                                     }
                                     for (qsizetype i = 0; i < of.columns.size(); ++i) {
                                         if (was != nullptr && was->contains(of.columns[i]))
                                             writeValue(was->value(of.columns[i]), rows);
                                         else
                                             raw.write(static_cast<std::size_t>(i) + 1, rows);
                                     }
                                     rows += '\n';
                                     if (++found.rows % together == 0) thousands.give(std::exchange(rows, {}));
                                 });
    if (!done) return done.error();
    if (!rows.isEmpty()) thousands.give(std::move(rows));
    thousands.end();
    found.digests = hashing.get();
    return found;
}

} // namespace

QString idInSeries(const QString& prefix, qint64 number) {
    return beginOf(prefix) + QString::number(number, base).rightJustified(digits, QLatin1Char('0'));
}

QString prefixOf(const QString& id) {
    const qsizetype end = id.lastIndexOf(QLatin1Char('-'));
    return end < 0 ? QString() : id.left(end);
}

Result<RowSeries> readSeries(Database& database, const QString& table, const QString& prefix) {
    const auto columns = database.select(QStringLiteral("SELECT name FROM pragma_table_info(?)"), {table});
    if (!columns) return columns.error();
    RowSeries series{table, prefix, {}, 0, {}};
    for (const Row& column : *columns) series.columns << column[0].toString();
    return read(database, series, beginOf(prefix), -1, {}, nullptr);
}

Result<Done> eachRowOf(Database& database, const RowSeries& series, const std::function<void(const Row&)>& take) {
    return database.each(QStringLiteral("SELECT id, * FROM %1 WHERE id>? AND id<? ORDER BY id").arg(series.table),
                         {beginOf(series.prefix), endOf(series.prefix)}, take);
}

QJsonObject noteOf(const RowSeries& series) {
    return {{QStringLiteral("table"), series.table},
            {QStringLiteral("series"), series.prefix},
            {QStringLiteral("columns"), QJsonArray::fromStringList(series.columns)},
            {QStringLiteral("rows"), series.rows},
            {QStringLiteral("digests"), QJsonArray::fromStringList(series.digests)}};
}

std::optional<RowSeries> seriesIn(const QJsonObject& note) {
    if (!note.contains(QStringLiteral("series"))) return std::nullopt;
    const auto texts = [&](const char* of) {
        QStringList list;
        for (const QJsonValue text : note[QLatin1String(of)].toArray()) list << text.toString();
        return list;
    };
    return RowSeries{note[QStringLiteral("table")].toString(), note[QStringLiteral("series")].toString(),
                     texts("columns"), note[QStringLiteral("rows")].toInteger(), texts("digests")};
}

Result<bool> SeriesReader::compare(Database& database, int thousands, const Earlier& earlier,
                                   std::vector<std::string>& problems) {
    const auto tell = [&](const std::string& what) {
        problems.push_back(fmt::format("{} {}: {}", m_series.table.toStdString(), m_series.prefix.toStdString(), what));
        return false;
    };
    if (m_after.isEmpty()) {
        // The names come from a file and go into a statement.
        const auto known = database.select(QStringLiteral("SELECT name FROM pragma_table_info(?)"), {m_series.table});
        if (!known) return known.error();
        const auto isColumn = [&](const QString& name) {
            return std::any_of(known->begin(), known->end(), [&](const Row& row) { return row[0].toString() == name; });
        };
        if (kindOf(m_series.table.toStdString()) == nullptr || m_series.columns.isEmpty() ||
            !std::all_of(m_series.columns.begin(), m_series.columns.end(), isColumn))
            return tell("the change log tells of columns that there are not");
        m_after = beginOf(m_series.prefix);
    }
    const qint64 most = together * thousands;
    const QString first = m_after;
    const auto found = read(database, m_series, m_after, most, earlier, &m_after);
    if (!found) return found.error();
    const qint64 before = m_thousand * together;
    for (const QString& digest : found->digests) {
        if (m_thousand >= m_series.digests.size() || digest != m_series.digests[m_thousand]) {
            const qint64 all = before + found->rows;
            return tell(fmt::format("of the rows {} to {} of this import one at least is not what the change log says",
                                    m_thousand * together + 1, std::min((m_thousand + 1) * together, all)));
        }
        ++m_thousand;
    }
    if (found->rows == most) return true;
    if (before + found->rows != m_series.rows)
        return tell(fmt::format("{} rows of this import where the change log tells of {}", before + found->rows,
                                m_series.rows));
    return false;
}

} // namespace rollcall
