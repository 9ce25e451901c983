// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/change_log.h"

#include "logbook/kinds.h"

#include <algorithm>
#include <cstring>
#include <fmt/format.h>
#include <QCryptographicHash>
#include <QJsonDocument>
#include <QJsonObject>
#include <set>

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

Result<qint64> appendChange(Database& database, const Instant& at, const QString& person, const char* action,
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
    const auto done =
        database.run(QStringLiteral("INSERT INTO change (seq, at_ms, at_offset, person, action, payload, previous, "
                                    "hash) VALUES (?,?,?,?,?,?,?,?)"),
                     {entry.seq, QVariant::fromValue<qint64>(at.utc_ms), at.offset_minutes, entry.person, entry.action,
                      entry.payload, entry.previous, entry.hash()});
    if (!done) return done.error();
    return entry.seq;
}

std::string shortHead(qint64 seq, const QString& hash) {
    return std::to_string(seq) + "-" + hash.left(headDigits).toStdString();
}

void Logged::add(const ChangeEntry& entry) {
    for (const QJsonValue value : QJsonDocument::fromJson(entry.payload.toUtf8()).array()) add(value.toObject());
}

QString Logged::idIn(const QJsonObject& note) {
    return note.contains(QStringLiteral("id")) ? note[QStringLiteral("id")].toString()
                                               : note[QStringLiteral("row")][QStringLiteral("id")].toString();
}

void Logged::add(const QJsonObject& note) {
    if (auto told = seriesIn(note)) {
        prefixes.insert({told->table, told->prefix});
        return series.push_back(std::move(*told));
    }
    const QJsonObject row = note[QStringLiteral("row")].toObject();
    const QString table = note[QStringLiteral("table")].toString();
    const QString id = idIn(note);
    QJsonObject& stored = rows[table][id];
    for (auto field = row.begin(); field != row.end(); ++field) stored.insert(field.key(), field.value());
    const QJsonObject was = note[QStringLiteral("was")].toObject();
    for (auto field = was.begin(); field != was.end(); ++field) {
        QJsonObject& first = before[table][id];
        if (!first.contains(field.key())) first.insert(field.key(), field.value());
    }
}

namespace {

// What the log says of a row beside what is stored of it.
void compareRow(const char* table, const QString& id, const QJsonObject& logged, const QJsonObject& stored,
                std::vector<std::string>& problems) {
    for (auto field = logged.begin(); field != logged.end(); ++field) {
        if (stored[field.key()] != field.value())
            problems.push_back(fmt::format("{} {}: {} is not what the change log says", table, id.toStdString(),
                                           field.key().toStdString()));
    }
}

// Rows with their rowid in front and the names of the columns behind it.
Result<std::vector<std::pair<qint64, QJsonObject>>> storedRows(Database& database, const char* table,
                                                               const QString& which, const Row& values) {
    const Result<std::vector<Row>> columns =
        database.select(QStringLiteral("SELECT name FROM pragma_table_info('%1')").arg(QLatin1String(table)));
    if (!columns) return columns.error();
    const Result<std::vector<Row>> rows =
        database.select(QStringLiteral("SELECT rowid, * FROM %1 ").arg(QLatin1String(table)) + which, values);
    if (!rows) return rows.error();
    std::vector<std::pair<qint64, QJsonObject>> found;
    for (const Row& row : *rows) {
        QJsonObject stored;
        for (std::size_t i = 1; i < row.size(); ++i) stored.insert((*columns)[i - 1][0].toString(), jsonOf(row[i]));
        found.emplace_back(row[0].toLongLong(), std::move(stored));
    }
    return found;
}

} // namespace

Result<std::vector<std::pair<qint64, QJsonObject>>> rowsAfter(Database& database, const char* table, qint64 after,
                                                              int rows) {
    return storedRows(database, table, QStringLiteral("WHERE rowid>? ORDER BY rowid LIMIT ?"), {after, rows});
}

namespace {

Result<Done> eachEntry(Database& database, const QString& which, const Row& values,
                       const std::function<void(const ChangeEntry&)>& take) {
    return database.each(
        QStringLiteral("SELECT seq, at_ms, at_offset, person, action, payload, previous, hash FROM change ") + which,
        values, [&](const Row& row) {
            take({row[0].toLongLong(), instantOf(row[1], row[2]), row[3].toString(), row[4].toString(),
                  row[5].toString(), row[6].toString(), row[7].toString()});
        });
}

Result<std::vector<ChangeEntry>> entriesOf(Database& database, const QString& which, const Row& values) {
    std::vector<ChangeEntry> entries;
    auto done = eachEntry(database, which, values, [&](const ChangeEntry& entry) { entries.push_back(entry); });
    if (!done) return done.error();
    return entries;
}

} // namespace

Result<std::vector<ChangeEntry>> changesOf(Database& database) {
    return entriesOf(database, QStringLiteral("ORDER BY seq"), {});
}

Result<Done> eachChange(Database& database, qint64 after, const std::function<void(const ChangeEntry&)>& take) {
    return eachEntry(database, QStringLiteral("WHERE seq>? ORDER BY seq"), {after}, take);
}

Result<qint64> sharedEntries(Database& ours, Database& theirs) {
    constexpr int together = 10000;
    const auto some = [](Database& database, qint64 after) {
        return database.select(QStringLiteral("SELECT seq, hash FROM change WHERE seq>? ORDER BY seq LIMIT ?"),
                               {after, together});
    };
    for (qint64 shared = 0;;) {
        const auto mine = some(ours, shared);
        if (!mine) return mine.error();
        const auto other = some(theirs, shared);
        if (!other) return other.error();
        const auto apart = std::mismatch(mine->begin(), mine->end(), other->begin(), other->end());
        if (apart.first != mine->begin()) shared = std::prev(apart.first)->front().toLongLong();
        if (apart.first != mine->end() || mine->size() < together) return shared;
    }
}

Result<SharedHistory> historyOf(Database& database, const QSet<QString>& ids, qint64 entries) {
    SharedHistory history;
    auto done = eachChange(database, 0, [&](const ChangeEntry& entry) {
        Logged& logged = entry.seq <= entries ? history.logged : history.since;
        for (const QJsonValue value : QJsonDocument::fromJson(entry.payload.toUtf8()).array()) {
            const QJsonObject note = value.toObject();
            if (seriesIn(note) || ids.contains(Logged::idIn(note))) logged.add(note);
        }
    });
    if (!done) return done.error();
    return history;
}

Result<bool> ChainReader::read(Database& database, int entries, std::vector<std::string>& problems) {
    int count = 0;
    // One at a time: an entry may tell of many rows.
    const QString which = QStringLiteral("WHERE seq>? ORDER BY seq LIMIT ?");
    const auto read = eachEntry(database, which, {m_seq, entries}, [&](const ChangeEntry& entry) {
        if (entry.seq != m_seq + 1) problems.push_back(fmt::format("change log: entry {} is missing", m_seq + 1));
        if (entry.previous != m_previous)
            problems.push_back(fmt::format("change log: entry {} does not follow the one before", entry.seq));
        if (entry.hash() != entry.stored_hash)
            problems.push_back(fmt::format("change log: entry {} was altered", entry.seq));
        m_previous = entry.stored_hash;
        m_seq = entry.seq;
        learn(entry);
        ++count;
    });
    if (!read) return read.error();
    return count == entries;
}

ChainReader::Digest ChainReader::digestOf(const QByteArray& bytes) {
    const QByteArray whole = QCryptographicHash::hash(bytes, QCryptographicHash::Sha256);
    Digest digest{};
    std::memcpy(digest.data(), whole.constData(), sizeof digest);
    return digest;
}

// Values that are the same in JSON are the same here, whether a whole number was stored as one or not.
ChainReader::Digest ChainReader::digestOf(const QJsonObject& row, const QStringList& columns) {
    QByteArray bytes;
    for (const QString& column : columns) {
        const QJsonValue value = row[column];
        if (value.isString()) {
            const QByteArray text = value.toString().toUtf8();
            bytes += 's' + QByteArray::number(text.size()) + ' ' + text;
        } else if (value.isDouble()) {
            const qint64 whole = value.toInteger();
            const bool isWhole = static_cast<double>(whole) == value.toDouble();
            bytes += isWhole ? 'i' + QByteArray::number(whole) : 'd' + QByteArray::number(value.toDouble(), 'g', 17);
        } else {
            bytes += value.isBool() ? (value.toBool() ? 't' : 'f') : 'n';
        }
        bytes += '\n';
    }
    return digestOf(bytes);
}

void ChainReader::learn(const ChangeEntry& entry) {
    for (const QJsonValue value : QJsonDocument::fromJson(entry.payload.toUtf8()).array()) {
        const QJsonObject note = value.toObject();
        const QString table = note[QStringLiteral("table")].toString();
        const QJsonObject row = note[QStringLiteral("row")].toObject();
        constexpr std::ptrdiff_t mostColumns = 1 << 16;
        const bool put = !note.contains(QStringLiteral("id")) && row.contains(QStringLiteral("id"));
        if (!put) {
            m_logged.add(note);
            continue;
        }
        const QStringList columns = row.keys();
        auto known = std::find(m_columns.begin(), m_columns.end(), columns);
        if (known == m_columns.end()) known = m_columns.insert(known, columns);
        if (known - m_columns.begin() >= mostColumns) { // no logbook of ours has so many kinds of rows
            m_logged.add(note);
            continue;
        }
        m_told[table].insert_or_assign(digestOf(row[QStringLiteral("id")].toString().toUtf8()),
                                       Told{digestOf(row, columns), static_cast<std::uint64_t>(entry.seq),
                                            static_cast<std::uint64_t>(known - m_columns.begin())});
    }
}

// What an entry said of a row that came in with it.
Result<QJsonObject> ChainReader::toldIn(Database& database, qint64 seq, const char* table, const QString& id) {
    if (m_last.seq != seq) {
        const auto entries = entriesOf(database, QStringLiteral("WHERE seq=?"), {seq});
        if (!entries) return entries.error();
        Logged entry;
        for (const ChangeEntry& one : *entries) entry.add(one);
        m_last = {seq, std::move(entry.rows)};
    }
    return m_last.rows[QLatin1String(table)][id];
}

// A row beside what was read of it. What its entry said is looked up again only where it was changed or differs.
Result<Done> ChainReader::look(Database& database, const char* table, const QString& id, const QJsonObject& stored,
                               std::vector<std::string>& problems) {
    auto& rows = m_logged.rows[QLatin1String(table)];
    auto& told = m_told[QLatin1String(table)];
    const auto logged = rows.find(id);
    const auto known = told.find(digestOf(id.toUtf8()));
    if (logged == rows.end() && known == told.end()) {
        if (!m_logged.inSeries(QLatin1String(table), id))
            problems.push_back(fmt::format("{} {} is not in the change log", table, id.toStdString()));
        return Done{};
    }
    const bool as_it_came =
        logged == rows.end() && digestOf(stored, m_columns[known->second.columns]) == known->second.row;
    if (!as_it_came) {
        QJsonObject whole;
        if (known != told.end()) {
            const auto came = toldIn(database, static_cast<qint64>(known->second.seq), table, id);
            if (!came) return came.error();
            whole = *came;
        }
        const QJsonObject changed = logged != rows.end() ? logged->second : QJsonObject();
        for (auto field = changed.begin(); field != changed.end(); ++field) whole.insert(field.key(), field.value());
        compareRow(table, id, whole, stored, problems);
    }
    if (logged != rows.end()) rows.erase(logged);
    if (known != told.end()) told.erase(known);
    return Done{};
}

// The ids of rows that were told of and not met.
Result<QStringList> ChainReader::namesOf(Database& database, const char* table) const {
    const auto& told = m_told.at(QLatin1String(table));
    std::set<qint64> entries;
    for (const auto& [id, one] : told) entries.insert(static_cast<qint64>(one.seq));
    QStringList names;
    for (const qint64 seq : entries) {
        const auto read = entriesOf(database, QStringLiteral("WHERE seq=?"), {seq});
        if (!read) return read.error();
        Logged entry;
        for (const ChangeEntry& one : *read) entry.add(one);
        for (const auto& [id, row] : entry.rows[QLatin1String(table)]) {
            if (told.contains(digestOf(id.toUtf8()))) names << id;
        }
    }
    return names;
}

Result<std::optional<qint64>> ChainReader::compare(Database& database, const char* table, qint64 after, int rows,
                                                   std::vector<std::string>& problems) {
    const auto some = rowsAfter(database, table, after, rows);
    if (!some) return some.error();
    for (const auto& [rowid, stored] : *some) {
        if (auto done = look(database, table, stored[QStringLiteral("id")].toString(), stored, problems); !done)
            return done.error();
    }
    if (static_cast<int>(some->size()) == rows) return std::optional(some->back().first);
    // Left are rows that are gone, and those that were changed again after they had been compared.
    auto& expected = m_logged.rows[QLatin1String(table)];
    QStringList left;
    for (const auto& [id, logged] : expected) left << id;
    if (!m_told[QLatin1String(table)].empty()) {
        const auto names = namesOf(database, table);
        if (!names) return names.error();
        left << *names;
    }
    left.removeDuplicates();
    for (const QString& id : left) {
        const auto one = storedRows(database, table, QStringLiteral("WHERE id=?"), {id});
        if (!one) return one.error();
        if (one->empty())
            problems.push_back(fmt::format("{} {} is in the change log but missing", table, id.toStdString()));
        else if (auto done = look(database, table, id, one->front().second, problems); !done)
            return done.error();
    }
    expected.clear();
    m_told[QLatin1String(table)].clear();
    return std::optional<qint64>();
}

Result<bool> ChainReader::compareSeries(Database& database, std::size_t series, int thousands,
                                        std::vector<std::string>& problems) {
    const RowSeries& told = m_logged.series[series];
    return m_readers.try_emplace(series, told)
        .first->second.compare(database, thousands, m_logged.before[told.table], problems);
}

Result<std::string> recentTrouble(Database& database) {
    constexpr int looked = 50;
    constexpr std::size_t rowsLooked = 200;
    static const std::string missing = "entries of its change log are missing";
    // Counting a million entries takes longer than all else at opening: a gap further back is left to the whole check.
    const auto first = database.single(QStringLiteral("SELECT MIN(seq) FROM change"));
    if (!first) return first.error();
    if (first->toLongLong() > 1) return missing;
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
    Logged logged;
    for (std::size_t i = 0; i < entries.size(); ++i) {
        const ChangeEntry& entry = entries[i];
        if (i > 0 && entry.seq != entries[i - 1].seq + 1) return missing;
        if (entry.hash() != entry.stored_hash) return fmt::format("entry {} of its change log was altered", entry.seq);
        if (entry.previous != (i > 0 ? entries[i - 1].stored_hash : entry.seq == 1 ? chainBeginning() : entry.previous))
            return fmt::format("entry {} of its change log does not follow the one before", entry.seq);
        logged.add(entry);
    }
    std::size_t count = 0;
    for (const RowSeries& series : logged.series) {
        count += static_cast<std::size_t>(series.rows);
        if (count > rowsLooked) break; // a larger import is left to the whole check
        std::vector<std::string> problems;
        const auto compared = SeriesReader(series).compare(database, 1, logged.before[series.table], problems);
        if (!compared) return compared.error();
        if (!problems.empty()) return problems.front();
    }
    count = 0;
    for (const auto& [table, byId] : logged.rows) {
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
