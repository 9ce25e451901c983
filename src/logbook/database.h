// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/judge/record.h"
#include "logbook/ready_row.h"

#include <functional>
#include <initializer_list>
#include <map>
#include <memory>
#include <QHash>
#include <QJsonArray>
#include <QString>
#include <QVariant>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

struct sqlite3;
struct sqlite3_stmt;

namespace rollcall {

using Row = std::vector<QVariant>;

/// A value of a row that a select stands at, read as what is asked for; each gives what its QVariant would.
class RawValue {
public:
    RawValue(sqlite3_stmt* statement, std::size_t column)
        : m_statement(statement), m_column(static_cast<int>(column)) {}
    bool isNull() const;
    double toDouble() const;
    qint64 toLongLong() const;
    int toInt() const { return static_cast<int>(toLongLong()); }
    bool toBool() const { return toLongLong() != 0; }
    QString toString() const { return other().toString(); }
    std::string text() const;

private:
    QVariant other() const;

    sqlite3_stmt* m_statement;
    int m_column;
};

/// A row that a select stands at; what it gives lasts until the next one.
class RawRow {
public:
    explicit RawRow(sqlite3_stmt* statement) : m_statement(statement) {}
    std::size_t columns() const;
    RawValue operator[](std::size_t column) const { return {m_statement, column}; }
    QVariant value(std::size_t column) const;
    /// Adds the stored value in writing that no other value has, whatever writes it: for a digest.
    void write(std::size_t column, QByteArray& to) const;
    std::string_view text(std::size_t column) const;
    qint64 whole(std::size_t column) const;

private:
    sqlite3_stmt* m_statement;
};
/// The same writing of a value that stood in a field, from the change log.
void writeValue(const QJsonValue& value, QByteArray& to);

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
    /// Nothing is written to the file any more, not even what closing would bring into it.
    void leaveAsItIs();

    Result<Done> run(const QString& sql, const Row& values = {});
    Result<std::vector<Row>> select(const QString& sql, const Row& values = {});
    /// The same row by row, for many of them.
    Result<Done> each(const QString& sql, const Row& values, const std::function<void(const Row&)>& take);
    /// The same without values made of what nobody asks for.
    Result<Done> eachRaw(const QString& sql, const Row& values, const std::function<void(const RawRow&)>& take);
    /// First field of the first row; an invalid QVariant when there is no row.
    Result<QVariant> single(const QString& sql, const Row& values = {});

    /// One row of a recorded table, also noted for the change log entry in the making.
    Result<Done> insert(const char* table, const Fields& fields);
    /// A row that was made elsewhere, with the next id of the series that is on. Errors: refused where none is.
    Result<Done> insertInSeries(ReadyRow row);
    /// New values for the row with this id, noted for the change log together with what stood there. Errors: refused
    /// where there is no such row.
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

    bool inTransaction() const { return m_depth > 0; }

    /// While it lives, a question that takes long ends with an error soon after somebody else begins to wait. For
    /// questions alone: what writes would be undone.
    class GivingWay {
    public:
        /// waiting: asked every few thousand steps of SQLite's.
        GivingWay(Database& database, const std::function<bool()>& waiting);
        ~GivingWay();
        GivingWay(const GivingWay&) = delete;
        GivingWay& operator=(const GivingWay&) = delete;

        bool gaveWay() const { return m_gave; }

    private:
        Database& m_database;
        const std::function<bool()>& m_waiting;
        bool m_gave = false;
    };

    /// A stretch of work whose new rows are told of in the change log together, by digests: each row gets the next
    /// number behind one prefix for its id (row_series.h). Nothing of it is noted when it is left without end().
    class Series {
    public:
        Series(Database& database, QString prefix);
        ~Series();
        Series(const Series&) = delete;
        Series& operator=(const Series&) = delete;

        QString nextId();
        /// Reads the rows back and notes them. Errors: disk, damaged.
        Result<Done> end();

    private:
        friend class Database;
        Database& m_database;
        QString m_prefix;
        qint64 m_last = 0;
        std::map<std::string, qint64> m_rows; ///< by table
    };
    /// The series that is on; null when none is.
    Series* series() { return m_series; }

    /// How many rows insert() and update() have noted since then.
    qsizetype noted() const { return m_notes.size(); }
    /// What insert() and update() have noted since the last call.
    QJsonArray takeNotes() { return std::exchange(m_notes, {}); }

private:
    Result<Done> store(const ReadyRow& row);
    /// Whether its id is one of the series that is on.
    bool countInSeries(const ReadyRow& row);

    using Prepared = std::shared_ptr<sqlite3_stmt>;
    Result<Prepared> prepared(const QString& sql);
    Result<Done> step(const QString& sql, const std::vector<ReadyRow::Value>& values,
                      const std::function<void(const RawRow&)>& take);
    Error failure() const;
    void rollBack();

    sqlite3* m_sqlite = nullptr;
    QHash<QString, Prepared> m_prepared;
    std::map<std::string, std::shared_ptr<const RowShape>> m_shapes; ///< by table: of its last row
    QJsonArray m_notes;
    Series* m_series = nullptr;
    int m_depth = 0; ///< transactions inside each other
};

/// A JSON value that stands for a stored field, the same for a value before and after it was stored.
QJsonValue jsonOf(const QVariant& value);

inline QString q(const std::string& text) {
    return QString::fromStdString(text);
}
inline std::string s(const QVariant& value) {
    return value.toString().toStdString();
}
inline std::string s(const RawValue& value) {
    return value.text();
}
inline QVariant orNull(const std::optional<double>& value) {
    return value ? QVariant(*value) : QVariant();
}
inline QVariant orNull(const std::optional<int>& value) {
    return value ? QVariant(*value) : QVariant();
}
// Of a stored value, as QVariant or RawValue.
template<class Value>
std::optional<double> numberOrNone(const Value& value) {
    return value.isNull() ? std::nullopt : std::optional<double>(value.toDouble());
}
template<class Value>
std::optional<int> wholeOrNone(const Value& value) {
    return value.isNull() ? std::nullopt : std::optional<int>(value.toInt());
}
template<class Value>
Instant instantOf(const Value& ms, const Value& offset) {
    return {ms.toLongLong(), offset.toInt()};
}
template<class Value>
std::optional<Instant> instantOrNone(const Value& ms, const Value& offset) {
    return ms.isNull() ? std::nullopt : std::optional<Instant>(instantOf(ms, offset));
}

} // namespace rollcall
