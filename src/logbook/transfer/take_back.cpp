// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/transfer/import.h"

#include "logbook/actions/rows.h"
#include "logbook/row_series.h"
#include "logbook/rows.h"
#include "logbook/transfer/gzip.h"

#include <algorithm>
#include <cstring>
#include <fmt/format.h>
#include <QJsonDocument>
#include <QJsonObject>
#include <QSet>

// The inverse of an import. Readings are physical and stay as struck out ones; names become free again.
namespace rollcall {

namespace {

// The rows that one entry of the change log made: table -> ids.
using Made = std::map<QString, QStringList>;

Result<Made> madeBy(Database& database, const QString& payload) {
    Made made;
    for (const QJsonValue value : QJsonDocument::fromJson(payload.toUtf8()).array()) {
        const QJsonObject note = value.toObject();
        if (const auto series = seriesIn(note)) {
            QStringList& ids = made[series->table];
            auto done = eachRowOf(database, *series, [&](const Row& row) { ids << row[0].toString(); });
            if (!done) return done.error();
            continue;
        }
        made[note[QStringLiteral("table")].toString()]
            << note[QStringLiteral("row")].toObject()[QStringLiteral("id")].toString();
    }
    return made;
}

Result<bool> names(Database& database, const QString& payload, const QSet<QString>& ids) {
    for (const QJsonValue value : QJsonDocument::fromJson(payload.toUtf8()).array()) {
        const QJsonObject note = value.toObject();
        if (const auto series = seriesIn(note)) {
            bool named = false;
            auto done = eachRowOf(database, *series, [&](const Row& row) {
                named = named || std::any_of(row.begin(), row.end(), [&](const QVariant& field) {
                            return field.typeId() == QMetaType::QString && ids.contains(field.toString());
                        });
            });
            if (!done) return done.error();
            if (named) return true;
            continue;
        }
        if (ids.contains(note[QStringLiteral("id")].toString())) return true;
        for (const QJsonValue field : note[QStringLiteral("row")].toObject()) {
            if (ids.contains(field.toString())) return true;
        }
    }
    return false;
}

} // namespace

Result<std::optional<PastImport>> lastImport(Logbook& logbook) {
    const auto rows = logbook.database().select(
        QStringLiteral("SELECT i.id, a.name, i.taken, i.at_ms, i.at_offset FROM import i JOIN attachment a ON "
                       "a.id=i.attachment WHERE NOT EXISTS (SELECT 1 FROM import_mark m WHERE m.import=i.id) AND "
                       "EXISTS (SELECT 1 FROM "
                       "change c WHERE c.action='readings imported' AND instr(c.payload, i.id)>0) ORDER BY "
                       "i.at_ms DESC, i.rowid DESC LIMIT 1"));
    if (!rows) return rows.error();
    if (rows->empty()) return std::optional<PastImport>();
    const Row& row = rows->front();
    QString name = row[1].toString();
    if (name.endsWith(QLatin1String(packedEnding))) name.chop(static_cast<int>(std::strlen(packedEnding)));
    return std::optional<PastImport>(PastImport{s(row[0]), s(name), row[2].toInt(), instantOf(row[3], row[4])});
}

Result<Done> takeBackImport(Logbook& logbook, const std::string& import) {
    const auto entries =
        logbook.database().select(QStringLiteral("SELECT seq, action, payload FROM change ORDER BY seq"));
    if (!entries) return entries.error();
    const auto own = std::find_if(entries->begin(), entries->end(), [&](const Row& row) {
        return row[1].toString() == QLatin1String("readings imported") && row[2].toString().contains(q(import));
    });
    if (own == entries->end()) return refused("import", "this import was not made in this logbook");
    const auto listed = madeBy(logbook.database(), (*own)[2].toString());
    if (!listed) return listed.error();
    const Made& made = *listed;
    const auto of = [&](const char* table) {
        const auto found = made.find(QLatin1String(table));
        return found == made.end() ? QStringList() : found->second;
    };
    QSet<QString> brought;
    for (const char* table : {"import", "batch", "blade", "cycle", "reading", "verification"}) {
        for (const QString& id : of(table)) brought.insert(id);
    }
    for (auto later = own + 1; later != entries->end(); ++later) {
        const auto named = names(logbook.database(), (*later)[2].toString(), brought);
        if (!named) return named.error();
        if (!*named) continue;
        if ((*later)[1].toString() == QLatin1String("import taken back"))
            return refused("import", "this import was taken back already");
        return refused("import", fmt::format("more was done with what it brought ({}): strike out its readings one by "
                                             "one",
                                             s((*later)[1])));
    }
    // A name that is free: "K-1 (taken back)", then "K-1 (taken back 2)".
    const auto freed = [&](const char* table, const char* column, const QString& id) -> Result<Done> {
        const auto name = logbook.database().single(
            QStringLiteral("SELECT %2 FROM %1 WHERE id=?").arg(QLatin1String(table), QLatin1String(column)), {id});
        if (!name) return name.error();
        for (int number = 1;; ++number) {
            const QString wanted =
                QStringLiteral("%1 (taken back%2)")
                    .arg(name->toString(), number == 1 ? QString() : QStringLiteral(" %1").arg(number));
            const auto used = logbook.database().single(
                QStringLiteral("SELECT COUNT(*) FROM %1 WHERE %2=?").arg(QLatin1String(table), QLatin1String(column)),
                {wanted});
            if (!used) return used.error();
            if (used->toInt() == 0) return logbook.database().update(table, id, {{column, wanted}});
        }
    };
    const std::string why = "the import was taken back";
    return logbook.transact("import taken back", [&]() -> Result<Done> {
        Result<Done> done = Done{};
        const auto each = [&](const char* table, const std::function<Result<Done>(const QString&)>& act) {
            for (const QString& id : of(table)) {
                if (done) done = act(id);
            }
        };
        const auto stampedRow = [&](Fields fields) {
            fields.emplace_back("id", q(logbook.newId()));
            return stamped(std::move(fields), logbook.now(), logbook.person());
        };
        each("reading", [&](const QString& id) {
            return logbook.database().insert(
                "reading_mark",
                stampedRow(
                    {{"reading", id}, {"kind", "struck"}, {"reason", nameOf(StrikeReason::other)}, {"note", q(why)}}));
        });
        each("cycle", [&](const QString& id) {
            return logbook.database().insert("cycle_mark", stampedRow({{"cycle", id}, {"reason", q(why)}}));
        });
        each("blade", [&](const QString& id) {
            const auto out = logbook.database().insert("blade_fate", stampedRow({{"blade", id},
                                                                                 {"fate", nameOf(Fate::removed)},
                                                                                 {"gate", storedName(Gate::temper)},
                                                                                 {"reason", q(why)}}));
            return out ? freed("blade", "mark", id) : out;
        });
        each("batch", [&](const QString& id) { return freed("batch", "name", id); });
        if (done) done = logbook.database().insert("import_mark", stampedRow({{"import", q(import)}}));
        return done;
    });
}

} // namespace rollcall
