// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/database.h"

#include "logbook/row_series.h"

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <QFileInfo>
#include <QJsonObject>
#include <QScopeGuard>
#include <sqlite3.h>

namespace rollcall {

namespace {

// Codes of SQLite's result, https://www.sqlite.org/rescode.html
Error errorOf(int code, const std::string& text) {
    switch (code & 0xFF) {
    case SQLITE_BUSY:
    case SQLITE_LOCKED:
        return {ErrorKind::locked, "", "the logbook is open in another program"};
    case SQLITE_READONLY:
        return {ErrorKind::disk, "", "the logbook can only be read, not written"};
    case SQLITE_IOERR:
        return {ErrorKind::disk, "", "the disk could not be read or written (" + text + ")"};
    case SQLITE_NOMEM:
        return {ErrorKind::disk, "", "there is no memory left; nothing of this entry was stored"};
    case SQLITE_FULL:
        return {ErrorKind::disk, "", "the disk is full; nothing of this entry was stored"};
    case SQLITE_CANTOPEN:
        return {ErrorKind::disk, "", "the file cannot be opened (" + text + ")"};
    case SQLITE_CORRUPT:
    case SQLITE_NOTADB:
        return {ErrorKind::damaged, "", "the file is not a logbook or is damaged (" + text + ")"};
    default:
        return {ErrorKind::refused, "", text};
    }
}

// Binds a value, which lasts until the statement has run.
int bind(sqlite3_stmt* statement, int place, const ReadyRow::Value& value) {
    if (const auto* text = std::get_if<ReadyRow::Text>(&value))
        return sqlite3_bind_text64(statement, place, text->utf8.constData(),
                                   static_cast<sqlite3_uint64>(text->utf8.size()), SQLITE_STATIC, SQLITE_UTF8);
    if (const auto* bytes = std::get_if<QByteArray>(&value))
        return sqlite3_bind_blob64(statement, place, bytes->constData(), static_cast<sqlite3_uint64>(bytes->size()),
                                   SQLITE_STATIC);
    if (const auto* whole = std::get_if<qint64>(&value)) return sqlite3_bind_int64(statement, place, *whole);
    if (const auto* number = std::get_if<double>(&value)) return sqlite3_bind_double(statement, place, *number);
    return sqlite3_bind_null(statement, place);
}

template<class Number>
void writeNumber(Number number, char kind, QByteArray& to) {
    std::array<char, 32> digits{};
    to += kind;
    to.append(digits.data(), std::to_chars(digits.data(), digits.data() + digits.size(), number).ptr - digits.data());
    to += ';';
}

// A whole number is written as one, in whichever kind of column it stands.
void writeNumber(double number, QByteArray& to) {
    constexpr double exact = 9007199254740992.0; // 2^53
    if (std::abs(number) < exact && number == std::floor(number))
        writeNumber(static_cast<qint64>(number), 'i', to);
    else
        writeNumber(number, 'd', to);
}

void writeText(std::string_view text, QByteArray& to) {
    writeNumber(text.size(), 't', to);
    to.append(text.data(), static_cast<qsizetype>(text.size()));
}

} // namespace

bool RawValue::isNull() const {
    return sqlite3_column_type(m_statement, m_column) == SQLITE_NULL;
}

double RawValue::toDouble() const {
    const int type = sqlite3_column_type(m_statement, m_column);
    return type == SQLITE_FLOAT || type == SQLITE_INTEGER ? sqlite3_column_double(m_statement, m_column)
                                                          : other().toDouble();
}

qint64 RawValue::toLongLong() const {
    return sqlite3_column_type(m_statement, m_column) == SQLITE_INTEGER ? sqlite3_column_int64(m_statement, m_column)
                                                                        : other().toLongLong();
}

std::string RawValue::text() const {
    if (sqlite3_column_type(m_statement, m_column) == SQLITE_TEXT) {
        const std::string_view utf8 = RawRow(m_statement).text(static_cast<std::size_t>(m_column));
        // Of what is no plain ASCII QString mends what is no UTF-8 either.
        if (std::all_of(utf8.begin(), utf8.end(), [](char c) { return static_cast<unsigned char>(c) < 0x80; }))
            return std::string(utf8);
    }
    return toString().toStdString();
}

QVariant RawValue::other() const {
    return RawRow(m_statement).value(static_cast<std::size_t>(m_column));
}

std::size_t RawRow::columns() const {
    return static_cast<std::size_t>(sqlite3_column_count(m_statement));
}

std::string_view RawRow::text(std::size_t column) const {
    const int at = static_cast<int>(column);
    const auto* bytes = static_cast<const char*>(sqlite3_column_blob(m_statement, at));
    return {bytes, static_cast<std::size_t>(sqlite3_column_bytes(m_statement, at))};
}

qint64 RawRow::whole(std::size_t column) const {
    return sqlite3_column_int64(m_statement, static_cast<int>(column));
}

QVariant RawRow::value(std::size_t column) const {
    const int at = static_cast<int>(column);
    switch (sqlite3_column_type(m_statement, at)) {
    case SQLITE_NULL:
        return QVariant(QMetaType(QMetaType::QString)); // there is a row, and nothing in it
    case SQLITE_INTEGER:
        return QVariant::fromValue<qint64>(sqlite3_column_int64(m_statement, at));
    case SQLITE_FLOAT:
        return sqlite3_column_double(m_statement, at);
    case SQLITE_BLOB: {
        const std::string_view bytes = text(column);
        return QByteArray(bytes.data(), static_cast<qsizetype>(bytes.size()));
    }
    default: {
        const std::string_view utf8 = text(column);
        return QString::fromUtf8(utf8.data(), static_cast<qsizetype>(utf8.size()));
    }
    }
}

void RawRow::write(std::size_t column, QByteArray& to) const {
    const int at = static_cast<int>(column);
    switch (sqlite3_column_type(m_statement, at)) {
    case SQLITE_NULL:
        to += 'n';
        return;
    case SQLITE_INTEGER:
        writeNumber(static_cast<qint64>(sqlite3_column_int64(m_statement, at)), 'i', to);
        return;
    case SQLITE_FLOAT:
        writeNumber(sqlite3_column_double(m_statement, at), to);
        return;
    default:
        writeText(text(column), to);
    }
}

void writeValue(const QJsonValue& value, QByteArray& to) {
    if (value.isString()) {
        const QByteArray text = value.toString().toUtf8();
        writeText({text.constData(), static_cast<std::size_t>(text.size())}, to);
    } else if (value.isDouble()) {
        const QVariant number = value.toVariant(); // whole ones keep all their digits
        if (number.typeId() == QMetaType::LongLong)
            writeNumber(number.toLongLong(), 'i', to);
        else
            writeNumber(number.toDouble(), to);
    } else {
        to += 'n';
    }
}

Database::~Database() {
    m_prepared.clear();
    sqlite3_close_v2(m_sqlite);
}

Error Database::failure() const {
    return errorOf(sqlite3_extended_errcode(m_sqlite), sqlite3_errmsg(m_sqlite));
}

Result<Done> Database::open(const QString& path, Mode mode) {
    const int how = mode == Mode::readOnly ? SQLITE_OPEN_READONLY
                    : mode == Mode::create ? SQLITE_OPEN_READWRITE | SQLITE_OPEN_CREATE
                                           : SQLITE_OPEN_READWRITE;
    // Nothing waits for another program: a second opener gets its message at once.
    if (const int code = sqlite3_open_v2(path.toUtf8().constData(), &m_sqlite, how | SQLITE_OPEN_NOMUTEX, nullptr);
        code != SQLITE_OK)
        return errorOf(code, sqlite3_errstr(code));
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

void Database::leaveAsItIs() {
    sqlite3_db_config(m_sqlite, SQLITE_DBCONFIG_NO_CKPT_ON_CLOSE, 1, nullptr);
}

Result<Database::Prepared> Database::prepared(const QString& sql) {
    const auto known = m_prepared.constFind(sql);
    const bool inUse = known != m_prepared.constEnd() && sqlite3_stmt_busy(known->get()) != 0;
    if (known != m_prepared.constEnd() && !inUse) return *known;
    sqlite3_stmt* made = nullptr;
    const QByteArray text = sql.toUtf8();
    const char* rest = nullptr;
    const int code = sqlite3_prepare_v2(m_sqlite, text.constData(), static_cast<int>(text.size()), &made, &rest);
    const Prepared statement(made, sqlite3_finalize);
    if (code != SQLITE_OK) return failure();
    if (made == nullptr || *rest != 0) return Error{ErrorKind::refused, "", "one statement at a time"};
    if (!inUse) m_prepared.insert(sql, statement);
    return statement;
}

Result<Done> Database::each(const QString& sql, const Row& values, const std::function<void(const Row&)>& take) {
    Row row;
    return eachRaw(sql, values, [&](const RawRow& raw) {
        row.resize(raw.columns());
        for (std::size_t i = 0; i < row.size(); ++i) row[i] = raw.value(i);
        take(row);
    });
}

Result<Done> Database::step(const QString& sql, const std::vector<ReadyRow::Value>& values,
                            const std::function<void(const RawRow&)>& take) {
    // A failure of disk or memory may make SQLite end a transaction by itself, under a statement whose failure nobody
    // had to look at; what came after would be stored alone.
    if (m_depth > 0 && sqlite3_get_autocommit(m_sqlite) != 0)
        return Error{ErrorKind::disk, "", "disk or memory failed in the midst of it; nothing of this entry was stored"};
    if (m_depth == 0) rollBack(); // what could not be rolled back when there was no memory is not to be seen by anybody
    const Result<Prepared> found = prepared(sql);
    if (!found) return found.error();
    const Prepared& statement = *found;
    const auto free = qScopeGuard([&] {
        sqlite3_reset(statement.get());
        sqlite3_clear_bindings(statement.get());
    });
    if (static_cast<int>(values.size()) != sqlite3_bind_parameter_count(statement.get()))
        return Error{ErrorKind::refused, "", "a statement got another number of values than it has places"};
    for (std::size_t i = 0; i < values.size(); ++i) {
        if (bind(statement.get(), static_cast<int>(i) + 1, values[i]) != SQLITE_OK) return failure();
    }
    for (;;) {
        const int code = sqlite3_step(statement.get());
        if (code == SQLITE_DONE) return Done{};
        if (code != SQLITE_ROW) return failure();
        if (take) take(RawRow(statement.get()));
        if (sqlite3_errcode(m_sqlite) == SQLITE_NOMEM) return failure(); // a text came out empty
    }
}

Result<Done> Database::eachRaw(const QString& sql, const Row& values, const std::function<void(const RawRow&)>& take) {
    std::vector<ReadyRow::Value> ready;
    ready.reserve(values.size());
    for (const QVariant& value : values) ready.push_back(readyOf(value));
    return step(sql, ready, take);
}

Result<Done> Database::run(const QString& sql, const Row& values) {
    return eachRaw(sql, values, {});
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

Database::GivingWay::GivingWay(Database& database, const std::function<bool()>& waiting)
    : m_database(database), m_waiting(waiting) {
    constexpr int steps = 4000; // a millisecond or two
    const auto look = [](void* self) {
        auto* way = static_cast<GivingWay*>(self);
        way->m_gave = way->m_waiting();
        return way->m_gave ? 1 : 0;
    };
    if (waiting) sqlite3_progress_handler(database.m_sqlite, steps, look, this);
}

Database::GivingWay::~GivingWay() {
    sqlite3_progress_handler(m_database.m_sqlite, 0, nullptr, nullptr);
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

QJsonObject noteOn(const char* table, const Fields& fields) {
    QJsonObject row;
    for (const auto& [column, value] : fields) row.insert(QLatin1String(column), jsonOf(storable(value)));
    return {{QStringLiteral("table"), QLatin1String(table)}, {QStringLiteral("row"), row}};
}

} // namespace

Result<Done> Database::store(const ReadyRow& row) {
    return step(row.shape().sql, row.values(), {});
}

bool Database::countInSeries(const ReadyRow& row) {
    const auto* id = std::get_if<ReadyRow::Text>(&row.values().front());
    if (m_series == nullptr || id == nullptr || row.shape().columns.front() != "id" ||
        prefixOf(QString::fromUtf8(id->utf8)) != m_series->m_prefix)
        return false;
    ++m_series->m_rows[row.shape().table];
    return true;
}

Result<Done> Database::insert(const char* table, const Fields& fields) {
    // Rows of one table mostly come from one place, with the same fields.
    std::shared_ptr<const RowShape>& shape = m_shapes[table];
    if (shape == nullptr || !shape->fits(fields)) shape = shapeOf(table, fields);
    const Result<ReadyRow> row = ReadyRow::of(shape, fields);
    if (!row) return row.error();
    auto done = store(*row);
    if (done && !countInSeries(*row)) m_notes.append(noteOn(table, fields));
    return done;
}

Result<Done> Database::insertInSeries(ReadyRow row) {
    if (m_series == nullptr) return Error{ErrorKind::refused, "", "a row that no entry of the change log tells of"};
    row.setId(m_series->nextId());
    auto done = store(row);
    if (done) countInSeries(row);
    return done;
}

Result<Done> Database::update(const char* table, const QString& id, const Fields& given) {
    const Fields fields = storableOf(given);
    if (auto may = within(rangesOf(table, fields), fields); !may) return may;
    QString assignments;
    QString columns;
    Row values;
    for (const auto& [column, value] : fields) {
        columns += (columns.isEmpty() ? QString() : QStringLiteral(",")) + QLatin1String(column);
        assignments +=
            (assignments.isEmpty() ? QString() : QStringLiteral(",")) + QLatin1String(column) + QStringLiteral("=?");
        values.push_back(value);
    }
    values.push_back(id);
    const auto stood = select(QStringLiteral("SELECT %1 FROM %2 WHERE id=?").arg(columns, QLatin1String(table)), {id});
    if (!stood) return stood.error();
    // It would change nothing and be told of in the change log, which then speaks of a row that nobody finds.
    if (stood->empty())
        return Error{ErrorKind::refused, id.toStdString(),
                     std::string("the ") + table + " that this changes is not in this logbook"};
    auto done = run(QStringLiteral("UPDATE %1 SET %2 WHERE id=?").arg(QLatin1String(table), assignments), values);
    if (done) {
        QJsonObject note = noteOn(table, fields);
        note.insert(QStringLiteral("id"), id);
        QJsonObject was;
        for (std::size_t i = 0; i < fields.size(); ++i)
            was.insert(QLatin1String(fields[i].first), jsonOf(stood->front()[i]));
        note.insert(QStringLiteral("was"), was);
        m_notes.append(note);
    }
    return done;
}

Database::Series::Series(Database& database, QString prefix) : m_database(database), m_prefix(std::move(prefix)) {
    database.m_series = this;
}

Database::Series::~Series() {
    m_database.m_series = nullptr;
}

QString Database::Series::nextId() {
    return idInSeries(m_prefix, ++m_last);
}

Result<Done> Database::Series::end() {
    for (const auto& [table, rows] : m_rows) {
        const auto series = readSeries(m_database, QString::fromStdString(table), m_prefix);
        if (!series) return series.error();
        if (series->rows != rows) return Error{ErrorKind::damaged, "", "not all rows were stored"};
        m_database.m_notes.append(noteOf(*series));
    }
    m_rows.clear();
    return Done{};
}

} // namespace rollcall
