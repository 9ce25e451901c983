// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/judge/record.h"

#include <functional>
#include <initializer_list>
#include <memory>
#include <QHash>
#include <QJsonArray>
#include <QSqlDatabase>
#include <QSqlQuery>
#include <QString>
#include <QVariant>
#include <utility>
#include <vector>

struct sqlite3;

namespace rollcall {

using Row = std::vector<QVariant>;
using Fields = std::vector<std::pair<const char*, QVariant>>;

/// The one connection to a logbook file. Keeps prepared statements; knows nothing of blades and readings.
/// Must be used on the thread that made it.
class Database {
public:
    enum class Mode { create, readWrite, readOnly };

    Database() = default;
    ~Database();
    Database(const Database&) = delete;
    Database& operator=(const Database&) = delete;

    /// Opens the file; errors damaged (not a database), locked, disk.
    Result<Done> open(const QString& path, Mode mode);

    Result<Done> run(const QString& sql, const Row& values = {});
    Result<std::vector<Row>> select(const QString& sql, const Row& values = {});
    /// The same row by row, for many of them. The statement is in use until the last is taken.
    Result<Done> each(const QString& sql, const Row& values, const std::function<void(const Row&)>& take);
    /// First field of the first row; an invalid QVariant when there is no row.
    Result<QVariant> single(const QString& sql, const Row& values = {});

    /// One row of a recorded table, also noted for the change log entry in the making.
    Result<Done> insert(const char* table, const Fields& fields);
    /// New values for the row with this id, also noted for the change log.
    Result<Done> update(const char* table, const QString& id, const Fields& fields);

    /// A stretch of work that is stored whole or not at all, whatever ends it: it rolls back when it is left without
    /// commit(), by an error or an exception. One inside another is undone alone.
    class Transaction {
    public:
        /// What it writes to: the record, or only tables of the connection that nobody else sees.
        enum class Writes { record, temporary };
        explicit Transaction(Database& database, Writes writes = Writes::record);
        ~Transaction();
        Transaction(const Transaction&) = delete;
        Transaction& operator=(const Transaction&) = delete;

        /// Whether it could be begun.
        const Result<Done>& begun() const { return m_begun; }
        Result<Done> commit();

    private:
        Database& m_database;
        int m_depth;
        Result<Done> m_begun;
    };

    /// What insert() and update() have noted since the last call.
    QJsonArray takeNotes() { return std::exchange(m_notes, {}); }

private:
    Result<QSqlQuery*> execute(const QString& sql, const Row& values);
    void rollBack();

    QString m_connection;
    sqlite3* m_sqlite = nullptr; ///< of the connection, to ask whether a transaction is on
    QHash<QString, std::shared_ptr<QSqlQuery>> m_prepared;
    QJsonArray m_notes;
    int m_depth = 0; ///< transactions inside each other
};

/// A value as it is stored: of a text, what cannot be proved (a null, half a surrogate pair, U+FFFE and U+FFFF) becomes
/// U+FFFD. Every text comes in through it.
QVariant storable(const QVariant& value);

/// A JSON value that stands for a stored field, the same for a value before and after it was stored.
QJsonValue jsonOf(const QVariant& value);

inline QString q(const std::string& text) {
    return QString::fromStdString(text);
}
inline std::string s(const QVariant& value) {
    return value.toString().toStdString();
}
inline QVariant orNull(const std::optional<double>& value) {
    return value ? QVariant(*value) : QVariant();
}
inline QVariant orNull(const std::optional<int>& value) {
    return value ? QVariant(*value) : QVariant();
}
inline std::optional<double> numberOrNone(const QVariant& value) {
    return value.isNull() ? std::nullopt : std::optional<double>(value.toDouble());
}
inline std::optional<int> wholeOrNone(const QVariant& value) {
    return value.isNull() ? std::nullopt : std::optional<int>(value.toInt());
}
inline Instant instantOf(const QVariant& ms, const QVariant& offset) {
    return {ms.toLongLong(), offset.toInt()};
}
inline std::optional<Instant> instantOrNone(const QVariant& ms, const QVariant& offset) {
    return ms.isNull() ? std::nullopt : std::optional<Instant>(instantOf(ms, offset));
}

} // namespace rollcall
