// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/database.h"

#include "logbook/ranges.h"

#include <cmath>
#include <QFileInfo>
#include <QJsonObject>
#include <QSqlDriver>
#include <QSqlError>
#include <QSqlRecord>
#include <QUuid>
#include <sqlite3.h>

namespace rollcall {

namespace {

// Codes of SQLite's result, https://www.sqlite.org/rescode.html
Error errorOf(const QSqlError& error) {
    const int code = error.nativeErrorCode().toInt() & 0xFF;
    const std::string text = error.databaseText().toStdString();
    switch (code) {
    case 5:
    case 6:
        return {ErrorKind::locked, "", "the logbook is open in another program"};
    case 8:
        return {ErrorKind::disk, "", "the logbook can only be read, not written"};
    case 10:
        return {ErrorKind::disk, "", "the disk could not be read or written (" + text + ")"};
    case 7:
        return {ErrorKind::disk, "", "there is no memory left; nothing of this entry was stored"};
    case 13:
        return {ErrorKind::disk, "", "the disk is full; nothing of this entry was stored"};
    case 14:
        return {ErrorKind::disk, "", "the file cannot be opened (" + text + ")"};
    case 11:
    case 26:
        return {ErrorKind::damaged, "", "the file is not a logbook or is damaged (" + text + ")"};
    default:
        return {ErrorKind::refused, "", text.empty() ? error.driverText().toStdString() : text};
    }
}

} // namespace

Database::~Database() {
    m_prepared.clear();
    if (m_connection.isEmpty()) return;
    QSqlDatabase::database(m_connection, false).close();
    QSqlDatabase::removeDatabase(m_connection);
}

Result<Done> Database::open(const QString& path, Mode mode) {
    m_connection = QStringLiteral("rollcall-") + QUuid::createUuid().toString(QUuid::WithoutBraces);
    QSqlDatabase database = QSqlDatabase::addDatabase(QStringLiteral("QSQLITE"), m_connection);
    if (!database.isValid()) {
        return Error{ErrorKind::disk, "", "Qt's SQLite driver is not installed (package libqt6sql6-sqlite)"};
    }
    database.setDatabaseName(path);
    // Nothing waits for another program: a second opener gets its message at once.
    QString options = QStringLiteral("QSQLITE_BUSY_TIMEOUT=0");
    if (mode == Mode::readOnly) options += QStringLiteral(";QSQLITE_OPEN_READONLY");
    database.setConnectOptions(options);
    if (!database.open()) return errorOf(database.lastError());
    const QVariant handle = database.driver()->handle();
    if (!handle.isValid() || qstrcmp(handle.typeName(), "sqlite3*") != 0)
        return Error{ErrorKind::disk, "", "Qt's SQLite driver is another than is known here"};
    m_sqlite = *static_cast<sqlite3* const*>(handle.constData());
    const auto setting = [&](const char* sql) { return run(QString::fromLatin1(sql)); };
    // What a file brings along (an index over a function, a virtual table) runs with no rights of ours.
    if (auto done = setting("PRAGMA trusted_schema=OFF"); !done) return done.error();
    if (mode != Mode::readOnly) {
        if (auto done = setting("PRAGMA locking_mode=EXCLUSIVE"); !done) return done.error();
        if (auto done = setting("PRAGMA journal_mode=WAL"); !done) return done.error();
        if (auto done = setting("PRAGMA synchronous=FULL"); !done) return done.error();
        const Result<QVariant> safe = single(QStringLiteral("PRAGMA synchronous"));
        if (!safe) return safe.error();
        if (safe->toInt() != 2) return Error{ErrorKind::disk, "", "SQLite refuses durable writing"};
    }
    // Identities are random, so that rows of a large logbook lie anywhere: with SQLite's own 2 MB each insert reads
    // pages.
    if (auto done = setting("PRAGMA cache_size=-65536"); !done) return done.error();
    return setting("PRAGMA foreign_keys=ON");
}

Result<QSqlQuery*> Database::execute(const QString& sql, const Row& values) {
    // A failure of disk or memory may make SQLite end a transaction by itself, under a statement whose failure nobody
    // had to look at; what came after would be stored alone.
    if (m_depth > 0 && sqlite3_get_autocommit(m_sqlite) != 0)
        return Error{ErrorKind::disk, "", "disk or memory failed in the midst of it; nothing of this entry was stored"};
    if (m_depth == 0) rollBack(); // what could not be rolled back when there was no memory is not to be seen by anybody
    std::shared_ptr<QSqlQuery>& query = m_prepared[sql];
    if (!query) {
        query = std::make_shared<QSqlQuery>(QSqlDatabase::database(m_connection, false));
        query->setForwardOnly(true);
        if (!query->prepare(sql)) {
            const Error error = errorOf(query->lastError());
            m_prepared.remove(sql);
            return error;
        }
    }
    for (std::size_t i = 0; i < values.size(); ++i) query->bindValue(static_cast<int>(i), values[i]);
    if (!query->exec()) {
        const Error error = errorOf(query->lastError());
        m_prepared.remove(sql); // Qt may have done away with what it had prepared; it is of no more use then
        return error;
    }
    return query.get();
}

Result<Done> Database::run(const QString& sql, const Row& values) {
    const Result<QSqlQuery*> query = execute(sql, values);
    if (!query) return query.error();
    (*query)->finish();
    return Done{};
}

Result<Done> Database::each(const QString& sql, const Row& values, const std::function<void(const Row&)>& take) {
    const Result<QSqlQuery*> query = execute(sql, values);
    if (!query) return query.error();
    Row row(static_cast<std::size_t>((*query)->record().count()));
    while ((*query)->next()) {
        for (std::size_t i = 0; i < row.size(); ++i) row[i] = (*query)->value(static_cast<int>(i));
        take(row);
    }
    const QSqlError failure = (*query)->lastError();
    (*query)->finish();
    if (failure.isValid()) return errorOf(failure);
    return Done{};
}

Result<std::vector<Row>> Database::select(const QString& sql, const Row& values) {
    std::vector<Row> rows;
    if (auto done = each(sql, values, [&](const Row& row) { rows.push_back(row); }); !done) return done.error();
    return rows;
}

Result<QVariant> Database::single(const QString& sql, const Row& values) {
    Result<std::vector<Row>> rows = select(sql, values);
    if (!rows) return rows.error();
    if (rows->empty() || rows->front().empty()) return QVariant();
    return rows->front().front();
}

void Database::rollBack() {
    if (sqlite3_get_autocommit(m_sqlite) == 0) sqlite3_exec(m_sqlite, "ROLLBACK", nullptr, nullptr, nullptr);
}

Database::Transaction::Transaction(Database& database, Writes writes)
    : m_database(database), m_depth(database.m_depth),
      m_begun(database.run(m_depth > 0                ? QStringLiteral("SAVEPOINT inner_%1").arg(m_depth)
                           : writes == Writes::record ? QStringLiteral("BEGIN IMMEDIATE")
                                                      : QStringLiteral("BEGIN"))) {
    if (m_begun) ++m_database.m_depth;
}

Database::Transaction::~Transaction() {
    if (!m_begun || m_database.m_depth == m_depth) return;
    m_database.m_depth = m_depth;
    // Where SQLite has rolled back by itself (a full disk) there is nothing left to undo.
    if (m_depth == 0)
        m_database.rollBack();
    else if (m_database.run(QStringLiteral("ROLLBACK TO inner_%1").arg(m_depth)))
        (void)m_database.run(QStringLiteral("RELEASE inner_%1").arg(m_depth));
    (void)m_database.takeNotes();
}

Result<Done> Database::Transaction::commit() {
    auto done =
        m_database.run(m_depth == 0 ? QStringLiteral("COMMIT") : QStringLiteral("RELEASE inner_%1").arg(m_depth));
    if (done) m_database.m_depth = m_depth;
    return done;
}

// The change log is proved over JSON, which has no place for some of what a text can hold: half a pair of surrogates,
// what Unicode keeps from being a character, and a null, after which SQLite would end it.
QVariant storable(const QVariant& value) {
    if (value.typeId() != QMetaType::QString) return value;
    QString text = value.toString();
    for (qsizetype i = 0; i < text.size(); ++i) {
        const QChar c = text[i];
        if (c.isHighSurrogate() && i + 1 < text.size() && text[i + 1].isLowSurrogate()) {
            ++i;
        } else if (c.isSurrogate() || c.unicode() >= 0xFFFE || c.isNull()) {
            text[i] = QChar::ReplacementCharacter;
        }
    }
    return text.isNull() ? value : QVariant(text);
}

QJsonValue jsonOf(const QVariant& value) {
    if (value.isNull()) return QJsonValue::Null;
    switch (value.typeId()) {
    case QMetaType::Bool:
    case QMetaType::Int:
    case QMetaType::LongLong:
    case QMetaType::UInt:
    case QMetaType::ULongLong:
        return static_cast<qint64>(value.toLongLong());
    case QMetaType::Double:
        return value.toDouble();
    default:
        return value.toString();
    }
}

namespace {

Fields storableOf(const Fields& given) {
    Fields fields = given;
    for (auto& [column, value] : fields) value = storable(value);
    return fields;
}

Result<Done> withinRanges(const char* table, const Fields& fields) {
    for (const auto& [column, value] : fields) {
        const int type = value.typeId();
        if (type == QMetaType::QString) {
            if (const auto error = tooLong(column, static_cast<std::size_t>(value.toString().size()))) return *error;
        }
        if (type != QMetaType::Double && type != QMetaType::Int && type != QMetaType::LongLong) continue;
        const StoredRange* range = rangeOf(table, column);
        const double number = value.toDouble();
        if (range != nullptr && !(number >= range->least && number <= range->most)) return outside(*range, number);
    }
    return Done{};
}

QJsonObject noted(const char* table, const Fields& fields) {
    QJsonObject row;
    for (const auto& [column, value] : fields) row.insert(QLatin1String(column), jsonOf(value));
    return {{QStringLiteral("table"), QLatin1String(table)}, {QStringLiteral("row"), row}};
}

} // namespace

Result<Done> Database::insert(const char* table, const Fields& given) {
    const Fields fields = storableOf(given);
    if (auto may = withinRanges(table, fields); !may) return may;
    QString columns;
    QString places;
    Row values;
    for (const auto& [column, value] : fields) {
        columns += (columns.isEmpty() ? QString() : QStringLiteral(",")) + QLatin1String(column);
        places += places.isEmpty() ? QStringLiteral("?") : QStringLiteral(",?");
        values.push_back(value);
    }
    auto done =
        run(QStringLiteral("INSERT INTO %1 (%2) VALUES (%3)").arg(QLatin1String(table), columns, places), values);
    if (done) m_notes.append(noted(table, fields));
    return done;
}

Result<Done> Database::update(const char* table, const QString& id, const Fields& given) {
    const Fields fields = storableOf(given);
    if (auto may = withinRanges(table, fields); !may) return may;
    QString assignments;
    Row values;
    for (const auto& [column, value] : fields) {
        assignments +=
            (assignments.isEmpty() ? QString() : QStringLiteral(",")) + QLatin1String(column) + QStringLiteral("=?");
        values.push_back(value);
    }
    values.push_back(id);
    auto done = run(QStringLiteral("UPDATE %1 SET %2 WHERE id=?").arg(QLatin1String(table), assignments), values);
    if (done) {
        QJsonObject note = noted(table, fields);
        note.insert(QStringLiteral("id"), id);
        m_notes.append(note);
    }
    return done;
}

} // namespace rollcall
