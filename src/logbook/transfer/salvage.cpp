// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/transfer/salvage.h"

#include "logbook/actions/rows.h"
#include "logbook/change_log.h"
#include "logbook/kinds.h"
#include "logbook/logbook_file.h"

#include <algorithm>
#include <fmt/format.h>
#include <functional>
#include <QCryptographicHash>
#include <QFileInfo>
#include <QJsonObject>
#include <set>

namespace rollcall {

namespace {

// Saves one logbook; lives as long as that takes.
class Salvage {
public:
    Salvage(Database& damaged, Logbook& fresh) : m_damaged(damaged), m_fresh(fresh) {}

    Result<SalvageReport> run() {
        readLog();
        for (const Kind& kind : kinds()) {
            if (auto read = gather(kind.table); !read) return read.error();
        }
        const auto done = m_fresh.transact("salvaged", [this]() -> Result<Done> {
            if (auto kept = saveFiles(); !kept) return kept;
            return saveRows();
        });
        if (!done) return done.error();
        for (const auto& [table, rows] : m_rows) {
            for (const auto& [id, row] : rows)
                m_report.left.push_back(fmt::format("{} {}: what it belongs to is not there", table, s(id)));
        }
        return std::move(m_report);
    }

private:
    using Rows = std::map<QString, QJsonObject>; ///< by id

    void readLog() {
        std::vector<ChangeEntry> entries;
        const bool whole = eachReadable("change", [&](const QJsonObject& row) { entries.push_back(entryOf(row)); });
        if (!whole) m_report.left.emplace_back("change log: part of it cannot be read");
        std::sort(entries.begin(), entries.end(), [](const auto& a, const auto& b) { return a.seq < b.seq; });
        QString previous = chainBeginning();
        qint64 next = 1;
        for (const ChangeEntry& entry : entries) {
            // An entry whose own hash holds says what was logged, wherever the chain before it is broken.
            if (entry.hash() != entry.stored_hash) {
                m_report.left.push_back(fmt::format("change log: entry {} was altered and is not believed", entry.seq));
                continue;
            }
            if (entry.seq == next && entry.previous == previous) {
                m_report.last_entry = shortHead(entry.seq, entry.stored_hash);
                previous = entry.stored_hash;
                ++next;
            }
            m_logged.add(entry);
        }
    }

    static ChangeEntry entryOf(const QJsonObject& row) {
        const auto text = [&](const char* column) { return row[QLatin1String(column)].toString(); };
        return {
            row[QLatin1String("seq")].toInteger(),
            {row[QLatin1String("at_ms")].toInteger(), static_cast<int>(row[QLatin1String("at_offset")].toInteger())},
            text("person"),
            text("action"),
            text("payload"),
            text("previous"),
            text("hash")};
    }

    // Takes every row of a table that can be read, over damaged places on; false where there were some.
    bool eachReadable(const char* table, const std::function<void(const QJsonObject&)>& take) {
        constexpr int manyAtOnce = 200;
        constexpr qint64 farthest = qint64(1) << 40;
        bool whole = true;
        qint64 after = 0;
        int atOnce = manyAtOnce;
        qint64 jump = 1;
        while (after < farthest) {
            const auto rows = rowsAfter(m_damaged, table, after, atOnce);
            if (!rows && atOnce > 1) { // one of these
                atOnce = 1;
                continue;
            }
            if (!rows) { // that one; what lies behind it on its page is mostly lost with it
                whole = false;
                after += jump;
                jump *= 2;
                continue;
            }
            if (rows->empty()) break;
            for (const auto& [rowid, row] : *rows) take(row);
            after = rows->back().first;
            atOnce = manyAtOnce;
            jump = 1;
        }
        return whole;
    }

    // What is to be saved of a table: what was logged, and of what no entry tells what stands there.
    Result<Done> gather(const char* table) {
        const auto columns =
            m_fresh.database().select(QStringLiteral("SELECT name FROM pragma_table_info(?)"), {QLatin1String(table)});
        if (!columns) return columns.error();
        Rows& rows = m_rows[table];
        if (const auto logged = m_logged.rows.find(QLatin1String(table)); logged != m_logged.rows.end())
            rows = logged->second;
        std::set<QString> seen;
        const bool whole = eachReadable(table, [&](const QJsonObject& stored) {
            const QString id = stored[QLatin1String("id")].toString();
            const auto logged = rows.find(id);
            if (logged == rows.end()) {
                rows.emplace(id, stored);
                if (!m_logged.inSeries(QLatin1String(table), id)) ++m_report.unproved;
            } else if (seen.insert(id).second && !agree(logged->second, stored)) {
                ++m_report.from_log;
                m_report.left.push_back(fmt::format("{} {}: saved as it was logged, not as it stands", table, s(id)));
            } else { // columns of which the entry does not tell
                for (auto field = stored.begin(); field != stored.end(); ++field) {
                    if (!logged->second.contains(field.key())) logged->second.insert(field.key(), field.value());
                }
            }
            seen.insert(id);
        });
        for (const auto& [id, row] : rows) {
            if (seen.count(id) > 0) continue;
            ++m_report.from_log;
            m_report.left.push_back(fmt::format("{} {}: gone from its table, saved as it was logged", table, s(id)));
        }
        if (!whole) m_report.left.push_back(fmt::format("{}: part of it cannot be read", table));
        proveSeries(table);
        for (const Row& column : *columns) m_columns[table].push_back(column[0].toString());
        return Done{};
    }

    // Rows of an import stand in their table alone: whether they are what was taken in is told by their digests.
    void proveSeries(const char* table) {
        constexpr int thousandsAtOnce = 100;
        for (const RowSeries& series : m_logged.series) {
            if (series.table != QLatin1String(table)) continue;
            SeriesReader reader(series);
            Result<bool> more = true;
            while (more && *more)
                more = reader.compare(m_damaged, thousandsAtOnce, m_logged.before[series.table], m_report.left);
            if (!more)
                m_report.left.push_back(
                    fmt::format("{} {}: the rows of this import cannot all be read", table, s(series.prefix)));
        }
    }

    static bool agree(const QJsonObject& logged, const QJsonObject& stored) {
        for (auto field = logged.begin(); field != logged.end(); ++field) {
            if (stored[field.key()] != field.value()) return false;
        }
        return true;
    }

    // Photos, traces and papers whose bytes are what their name says.
    Result<Done> saveFiles() {
        const auto names = m_damaged.select(QStringLiteral("SELECT rowid FROM attachment_blob"));
        if (!names) {
            m_report.left.emplace_back("photos, traces and papers: their list cannot be read");
            return Done{};
        }
        for (const Row& row : *names) {
            const auto one =
                m_damaged.select(QStringLiteral("SELECT sha256, bytes FROM attachment_blob WHERE rowid=?"), row);
            const bool sound =
                one && !one->empty() &&
                QString::fromLatin1(
                    QCryptographicHash::hash(one->front()[1].toByteArray(), QCryptographicHash::Sha256).toHex()) ==
                    one->front()[0].toString();
            if (!sound) {
                m_report.left.push_back(fmt::format("a photo, trace or paper ({}) is damaged",
                                                    one && !one->empty() ? s(one->front()[0]).substr(0, 12)
                                                                         : fmt::format("row {}", s(row[0]))));
                continue;
            }
            if (auto kept = keepBytes(m_fresh, one->front()[0].toString(), one->front()[1].toByteArray()); !kept)
                return kept;
            m_saved["attachment_blob"].insert(one->front()[0].toString());
        }
        return Done{};
    }

    // Row by row, each behind what it belongs to; over and over, until no other one finds its place.
    Result<Done> saveRows() {
        for (bool more = true; more;) {
            more = false;
            for (const Kind& kind : kinds()) {
                auto owners = ownersOf(kind.table);
                if (!owners) return owners.error();
                Rows& rows = m_rows[kind.table];
                for (auto row = rows.begin(); row != rows.end();) {
                    if (!hasOwners(*owners, row->second)) {
                        ++row;
                        continue;
                    }
                    if (auto saved = save(kind.table, row->first, row->second); !saved) return saved;
                    row = rows.erase(row);
                    more = true;
                }
            }
        }
        return Done{};
    }

    struct Owner {
        QString column;
        std::string table;
    };
    Result<std::vector<Owner>> ownersOf(const char* table) {
        const auto list = m_fresh.database().select(
            QStringLiteral("SELECT \"from\", \"table\" FROM pragma_foreign_key_list(?)"), {QLatin1String(table)});
        if (!list) return list.error();
        std::vector<Owner> owners;
        for (const Row& row : *list) owners.push_back({row[0].toString(), s(row[1])});
        return owners;
    }
    bool hasOwners(const std::vector<Owner>& owners, const QJsonObject& row) {
        return std::all_of(owners.begin(), owners.end(), [&](const Owner& owner) {
            const QJsonValue value = row[owner.column];
            return value.isNull() || value.isUndefined() || m_saved[owner.table].count(value.toString()) > 0;
        });
    }

    Result<Done> save(const char* table, const QString& id, const QJsonObject& row) {
        Fields fields;
        std::vector<QByteArray> names;
        names.reserve(m_columns[table].size());
        for (const QString& column : m_columns[table]) {
            if (!row.contains(column)) continue;
            names.push_back(column.toLatin1());
            fields.emplace_back(names.back().constData(), row[column].toVariant());
        }
        const auto saved = m_fresh.database().insert(table, fields);
        if (!saved && saved.error().kind == ErrorKind::disk) return saved;
        if (!saved) {
            m_report.left.push_back(fmt::format("{} {}: {}", table, s(id), saved.error().text));
            return Done{};
        }
        ++m_report.rows[table];
        m_saved[table].insert(id);
        return Done{};
    }

    Database& m_damaged;
    Logbook& m_fresh;
    Logged m_logged;
    std::map<std::string, Rows> m_rows; ///< still to be saved
    std::map<std::string, std::vector<QString>> m_columns;
    std::map<std::string, std::set<QString>> m_saved; ///< by table, what others may refer to
    SalvageReport m_report;
};

} // namespace

Result<SalvageReport> salvage(const QString& damaged, const QString& to, const LogbookSeams& seams) {
    const QFileInfo file(damaged);
    if (!file.isFile()) return Error{ErrorKind::input, damaged.toStdString(), "there is no such file"};
    // SQLite takes what a killed writer left into what it reads: of a copy, so that the file stays as it is.
    auto copy = copyElsewhere(damaged);
    if (!copy) return copy.error();
    Database database;
    const auto open = database.open((*copy)->filePath(file.fileName()), Database::Mode::readWrite);
    const auto tables = open
                            ? database.single(QStringLiteral("SELECT COUNT(*) FROM sqlite_master WHERE name='reading'"))
                            : Result<QVariant>(open.error());
    if (!tables || tables->toInt() == 0)
        return Error{ErrorKind::damaged, damaged.toStdString(),
                     "nothing of this file can be read as a logbook; a backup is what is left"};
    std::optional<SalvageReport> report;
    const auto made = Logbook::make(to, seams, [&](const QString& part) -> Result<Done> {
        auto fresh = Logbook::open(part, Logbook::Access::write, seams);
        if (!fresh) return fresh.error();
        auto saved = Salvage(database, **fresh).run();
        if (!saved) return saved.error();
        const auto problems = (*fresh)->check();
        if (!problems) return problems.error();
        for (const std::string& problem : *problems) saved.value().left.push_back("in the new logbook: " + problem);
        report = std::move(saved).value();
        return Done{};
    });
    if (!made) return made.error();
    return *std::move(report);
}

} // namespace rollcall
