// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/record.h"
#include "logbook/row_series.h"

#include <array>
#include <cstdint>
#include <functional>
#include <map>
#include <optional>
#include <QByteArray>
#include <QJsonObject>
#include <QSet>
#include <QString>
#include <QStringList>
#include <string>
#include <unordered_map>
#include <vector>

namespace rollcall {

/// One entry of the change log. Its hash covers the entry and the hash of the one before, from entry 1 on.
struct ChangeEntry {
    qint64 seq = 0;
    Instant at;
    QString person;
    QString action;
    QString payload; ///< JSON: the rows inserted and updated
    QString previous;
    QString stored_hash; ///< as read; empty for one in the making

    QString hash() const;
};

/// The hash that the first entry follows.
inline QString chainBeginning() {
    return QString(64, QLatin1Char('0'));
}

/// An entry in short, for paper: its number and the beginning of its hash, such as "1184-3fa9c25b71d0a4ee".
std::string shortHead(qint64 seq, const QString& hash);
inline constexpr int headDigits = 16;

/// Appends an entry with what the database has noted; its number.
Result<qint64> appendChange(Database& database, const Instant& at, const QString& person, const char* action,
                            const QJsonArray& notes);

/// Rows as a change log says they are: table -> id -> row.
using LoggedRows = std::map<QString, std::map<QString, QJsonObject>>;

/// What a change log says as far as it was read.
struct Logged {
    LoggedRows rows;                   ///< those that are told of one by one, and what was changed of others
    std::vector<RowSeries> series;     ///< those that are told of together
    std::map<QString, Earlier> before; ///< by table: what stood in changed fields before they were changed first

    /// Adds what an entry says of its rows to what those before it said.
    void add(const ChangeEntry& entry);
    /// The same of one row, or of rows that are told of together.
    void add(const QJsonObject& note);
    /// The row that a note tells of; empty where it tells of many.
    static QString idIn(const QJsonObject& note);
    bool inSeries(const QString& table, const QString& id) const { return prefixes.contains({table, prefixOf(id)}); }

    QSet<std::pair<QString, QString>> prefixes; ///< of the series, with their tables
};

/// So many rows of a table after a row, as the change log would tell of them, with their rowids. Errors: damaged, disk.
Result<std::vector<std::pair<qint64, QJsonObject>>> rowsAfter(Database& database, const char* table, qint64 after,
                                                              int rows);

/// All entries, oldest first.
Result<std::vector<ChangeEntry>> changesOf(Database& database);

/// As many entries as two logbooks have in common from the first on. Errors: disk.
Result<qint64> sharedEntries(Database& ours, Database& theirs);

/// What a change log says of some rows, and of all that are told of together: up to an entry, and after it.
struct SharedHistory {
    Logged logged;
    Logged since;
};
Result<SharedHistory> historyOf(Database& database, const QSet<QString>& ids, qint64 entries);

/// The entries behind one, oldest first, one after another. Errors: disk.
Result<Done> eachChange(Database& database, qint64 after, const std::function<void(const ChangeEntry&)>& take);

/// Follows the chain from its beginning, some entries at a time, and knows then what the log says of every row: as it
/// came in by a digest alone, and what was changed of it since.
class ChainReader {
public:
    /// Reads so many entries more; true while there are others. Adds sentences about every break of the chain.
    Result<bool> read(Database& database, int entries, std::vector<std::string>& problems);
    /// Adds sentences about so many rows of a table, after a row, that differ from what was read of them. The last row
    /// that was compared; none when all were, and what the log tells of besides is missing.
    Result<std::optional<qint64>> compare(Database& database, const char* table, qint64 after, int rows,
                                          std::vector<std::string>& problems);
    /// How many series of rows were read of.
    std::size_t series() const { return m_logged.series.size(); }
    /// Compares rows of a series with their digests, some at a time; true while there are others.
    Result<bool> compareSeries(Database& database, std::size_t series, int thousands,
                               std::vector<std::string>& problems);

private:
    using Digest = std::array<std::uint64_t, 2>; ///< the beginning of a SHA-256
    struct DigestHash {
        std::size_t operator()(const Digest& digest) const { return digest[0]; }
    };
    struct Told {
        Digest row;
        std::uint64_t seq : 48;     ///< of the entry that it came in with
        std::uint64_t columns : 16; ///< which the digest is over
    };
    /// What the entries told of last were, by their numbers: rows of one entry mostly lie together.
    struct LastEntry {
        qint64 seq = 0;
        LoggedRows rows;
    };

    static Digest digestOf(const QByteArray& bytes);
    static Digest digestOf(const QJsonObject& row, const QStringList& columns);
    void learn(const ChangeEntry& entry);
    Result<QJsonObject> toldIn(Database& database, qint64 seq, const char* table, const QString& id);
    Result<Done> look(Database& database, const char* table, const QString& id, const QJsonObject& stored,
                      std::vector<std::string>& problems);
    Result<QStringList> namesOf(Database& database, const char* table) const;

    Logged m_logged;                                                        ///< what was changed of rows, and series
    std::map<QString, std::unordered_map<Digest, Told, DigestHash>> m_told; ///< rows as they came in: by table and id
    LastEntry m_last;
    std::vector<QStringList> m_columns;
    std::map<std::size_t, SeriesReader> m_readers;
    QString m_previous = chainBeginning();
    qint64 m_seq = 0;
};

/// A quick look before anything is written: whether the last entries follow each other, none is missing, and the rows
/// they tell of are as they say. The first thing found wrong as a sentence; empty when there is none.
Result<std::string> recentTrouble(Database& database);

} // namespace rollcall
