// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/change_log.h"

#include "logbook/kinds.h"

#include <algorithm>
#include <fmt/format.h>
#include <QCryptographicHash>
#include <QJsonDocument>
#include <QJsonObject>

namespace rollcall {

QString ChangeEntry::hash() const {
    QCryptographicHash sha(QCryptographicHash::Sha256);
    for (const QString& part : {previous, QString::number(seq), QString::number(at.utc_ms),
                                QString::number(at.offset_minutes), person, action, payload}) {
        sha.addData(part.toUtf8());
        sha.addData(QByteArrayLiteral("\n"));
    }
    return QString::fromLatin1(sha.result().toHex());
}

Result<Done> appendChange(Database& database, const Instant& at, const QString& person, const char* action,
                          const QJsonArray& notes) {
    const Result<std::vector<Row>> last =
        database.select(QStringLiteral("SELECT seq, hash FROM change ORDER BY seq DESC LIMIT 1"));
    if (!last) return last.error();
    ChangeEntry entry;
    entry.seq = last->empty() ? 1 : last->front()[0].toLongLong() + 1;
    entry.previous = last->empty() ? chainBeginning() : last->front()[1].toString();
    entry.at = at;
    entry.person = person;
    entry.action = QString::fromLatin1(action);
    entry.payload = QString::fromUtf8(QJsonDocument(notes).toJson(QJsonDocument::Compact));
    return database.run(QStringLiteral("INSERT INTO change (seq, at_ms, at_offset, person, action, payload, previous, "
                                       "hash) VALUES (?,?,?,?,?,?,?,?)"),
                        {entry.seq, QVariant::fromValue<qint64>(at.utc_ms), at.offset_minutes, entry.person,
                         entry.action, entry.payload, entry.previous, entry.hash()});
}

namespace {

void replay(const QString& payload, LoggedRows& tables) {
    for (const QJsonValue value : QJsonDocument::fromJson(payload.toUtf8()).array()) {
        const QJsonObject note = value.toObject();
        const QJsonObject row = note[QStringLiteral("row")].toObject();
        const QString id = note.contains(QStringLiteral("id")) ? note[QStringLiteral("id")].toString()
                                                               : row[QStringLiteral("id")].toString();
        QJsonObject& stored = tables[note[QStringLiteral("table")].toString()][id];
        for (auto field = row.begin(); field != row.end(); ++field) stored.insert(field.key(), field.value());
    }
}

Result<Done> compareTable(Database& database, const char* table, LoggedRows::mapped_type expected,
                          std::vector<std::string>& problems) {
    const Result<std::vector<Row>> columns =
        database.select(QStringLiteral("SELECT name FROM pragma_table_info('%1')").arg(QLatin1String(table)));
    if (!columns) return columns.error();
    const Result<std::vector<Row>> rows = database.select(QStringLiteral("SELECT * FROM %1").arg(QLatin1String(table)));
    if (!rows) return rows.error();
    for (const Row& row : *rows) {
        QJsonObject stored;
        for (std::size_t i = 0; i < row.size(); ++i) stored.insert((*columns)[i][0].toString(), jsonOf(row[i]));
        const QString id = stored[QStringLiteral("id")].toString();
        const auto known = expected.find(id);
        if (known == expected.end()) {
            problems.push_back(fmt::format("{} {} is not in the change log", table, id.toStdString()));
            continue;
        }
        for (auto field = known->second.begin(); field != known->second.end(); ++field) {
            if (stored[field.key()] != field.value()) {
                problems.push_back(fmt::format("{} {}: {} is not what the change log says", table, id.toStdString(),
                                               field.key().toStdString()));
            }
        }
        expected.erase(known);
    }
    for (const auto& [id, row] : expected) {
        problems.push_back(fmt::format("{} {} is in the change log but missing", table, id.toStdString()));
    }
    return Done{};
}

} // namespace

namespace {

Result<std::vector<ChangeEntry>> entriesOf(Database& database, const QString& which, const Row& values) {
    const Result<std::vector<Row>> rows = database.select(
        QStringLiteral("SELECT seq, at_ms, at_offset, person, action, payload, previous, hash FROM change ") + which,
        values);
    if (!rows) return rows.error();
    std::vector<ChangeEntry> entries;
    for (const Row& row : *rows)
        entries.push_back({row[0].toLongLong(), instantOf(row[1], row[2]), row[3].toString(), row[4].toString(),
                           row[5].toString(), row[6].toString(), row[7].toString()});
    return entries;
}

} // namespace

Result<std::vector<ChangeEntry>> changesOf(Database& database) {
    return entriesOf(database, QStringLiteral("ORDER BY seq"), {});
}

SharedHistory sharedHistory(const std::vector<ChangeEntry>& ours, const std::vector<ChangeEntry>& theirs) {
    SharedHistory shared;
    while (shared.entries < std::min(ours.size(), theirs.size()) &&
           ours[shared.entries].stored_hash == theirs[shared.entries].stored_hash)
        replay(ours[shared.entries++].payload, shared.rows);
    return shared;
}

Result<bool> ChainReader::read(Database& database, int entries, std::vector<std::string>& problems) {
    const auto read = entriesOf(database, QStringLiteral("WHERE seq>? ORDER BY seq LIMIT ?"), {m_seq, entries});
    if (!read) return read.error();
    for (const ChangeEntry& entry : *read) {
        if (entry.seq != m_seq + 1) problems.push_back(fmt::format("change log: entry {} is missing", m_seq + 1));
        if (entry.previous != m_previous)
            problems.push_back(fmt::format("change log: entry {} does not follow the one before", entry.seq));
        if (entry.hash() != entry.stored_hash)
            problems.push_back(fmt::format("change log: entry {} was altered", entry.seq));
        m_previous = entry.stored_hash;
        m_seq = entry.seq;
        replay(entry.payload, m_rows);
    }
    return static_cast<int>(read->size()) == entries;
}

Result<Done> ChainReader::compare(Database& database, const char* table, std::vector<std::string>& problems) {
    return compareTable(database, table, m_rows[QLatin1String(table)], problems);
}

Result<std::string> recentTrouble(Database& database) {
    constexpr int looked = 50;
    constexpr std::size_t rowsLooked = 200;
    const auto ends = database.select(QStringLiteral("SELECT COUNT(*), MIN(seq), MAX(seq) FROM change"));
    if (!ends) return ends.error();
    const Row& end = ends->front();
    if (end[0].toLongLong() > 0 && (end[1].toLongLong() != 1 || end[2].toLongLong() != end[0].toLongLong()))
        return std::string("entries of its change log are missing");
    // An import may be an entry of many megabytes: it is left to the whole check, and so is what came before it.
    auto read =
        entriesOf(database,
                  QStringLiteral("WHERE seq > (SELECT COALESCE(MAX(seq), 0) FROM (SELECT seq, payload FROM change "
                                 "ORDER BY seq DESC LIMIT ?) WHERE length(payload) > 1000000) ORDER BY seq "
                                 "DESC LIMIT ?"),
                  {looked, looked});
    if (!read) return read.error();
    std::vector<ChangeEntry> entries = std::move(read).value();
    std::reverse(entries.begin(), entries.end());
    LoggedRows rows;
    for (std::size_t i = 0; i < entries.size(); ++i) {
        const ChangeEntry& entry = entries[i];
        if (entry.hash() != entry.stored_hash) return fmt::format("entry {} of its change log was altered", entry.seq);
        if (entry.previous != (i > 0 ? entries[i - 1].stored_hash : entry.seq == 1 ? chainBeginning() : entry.previous))
            return fmt::format("entry {} of its change log does not follow the one before", entry.seq);
        replay(entry.payload, rows);
    }
    std::size_t count = 0;
    for (const auto& [table, byId] : rows) {
        if (kindOf(table.toStdString()) == nullptr) continue;
        for (const auto& [id, row] : byId) {
            if (++count > rowsLooked) return std::string();
            for (auto field = row.begin(); field != row.end(); ++field) {
                const auto stored =
                    database.single(QStringLiteral("SELECT %1 FROM %2 WHERE id=?").arg(field.key(), table), {id});
                if (!stored) return stored.error();
                if (jsonOf(*stored) != field.value())
                    return fmt::format("{} {} is not what its change log says", table.toStdString(), id.toStdString());
            }
        }
    }
    return std::string();
}

} // namespace rollcall
