// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/database.h"

#include "logbook/ranges.h"
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

// Binds a value; a text lasts as long as what keeps it.
int bind(sqlite3_stmt* statement, int place, const QVariant& value, QByteArray& keeps) {
    if (value.isNull()) return sqlite3_bind_null(statement, place);
    switch (value.typeId()) {
    case QMetaType::Bool:
    case QMetaType::Int:
    case QMetaType::UInt:
    case QMetaType::Long:
    case QMetaType::LongLong:
        return sqlite3_bind_int64(statement, place, value.toLongLong());
    case QMetaType::Double:
        return sqlite3_bind_double(statement, place, value.toDouble());
    case QMetaType::QByteArray:
        keeps = value.toByteArray();
        return sqlite3_bind_blob64(statement, place, keeps.constData(), static_cast<sqlite3_uint64>(keeps.size()),
                                   SQLITE_STATIC);
    default:
        keeps = value.typeId() == QMetaType::QString ? static_cast<const QString*>(value.constData())->toUtf8()
                                                     : value.toString().toUtf8();
        return sqlite3_bind_text64(statement, place, keeps.constData(), static_cast<sqlite3_uint64>(keeps.size()),
                                   SQLITE_STATIC, SQLITE_UTF8);
    }
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

template<class ValueAt>
Result<Done> Database::step(const QString& sql, std::size_t values, const ValueAt& valueAt,
                            const std::function<void(const RawRow&)>& take) {
    // A failure of disk or memory may make SQLite end a transaction by itself, under a statement whose failure nobody
    // had to look at; what came after would be stored alone.
    if (m_depth > 0 && sqlite3_get_autocommit(m_sqlite) != 0)
        return Error{ErrorKind::disk, "", "disk or memory failed in the midst of it; nothing of this entry was stored"};
    if (m_depth == 0) rollBack(); // what could not be rolled back when there was no memory is not to be seen by anybody
    const Result<Prepared> found = prepared(sql);
    if (!found) return found.error();
    const Prepared& statement = *found;
    std::vector<QByteArray> texts(values);
    const auto free = qScopeGuard([&] {
        sqlite3_reset(statement.get());
        sqlite3_clear_bindings(statement.get());
    });
    if (static_cast<int>(values) != sqlite3_bind_parameter_count(statement.get()))
        return Error{ErrorKind::refused, "", "a statement got another number of values than it has places"};
    for (std::size_t i = 0; i < values; ++i) {
        if (bind(statement.get(), static_cast<int>(i) + 1, valueAt(i), texts[i]) != SQLITE_OK) return failure();
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
    return step(
        sql, values.size(), [&](std::size_t i) -> const QVariant& { return values[i]; }, take);
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

namespace {

bool mustNotBeStored(QChar c) {
    return c.unicode() >= 0xFFFE || c.isNull();
}

bool isStorable(const QVariant& value) {
    if (value.typeId() != QMetaType::QString) return true;
    const QString& text = *static_cast<const QString*>(value.constData());
    return std::none_of(text.begin(), text.end(), [](QChar c) { return c.isSurrogate() || mustNotBeStored(c); });
}

} // namespace

// The change log is proved over JSON, which has no place for some of what a text can hold: half a pair of surrogates,
// what Unicode keeps from being a character, and a null, after which SQLite would end it.
QVariant storable(const QVariant& value) {
    if (isStorable(value)) return value;
    QString text = value.toString();
    for (qsizetype i = 0; i < text.size(); ++i) {
        const QChar c = text[i];
        if (c.isHighSurrogate() && i + 1 < text.size() && text[i + 1].isLowSurrogate()) {
            ++i;
        } else if (c.isSurrogate() || mustNotBeStored(c)) {
            text[i] = QChar::ReplacementCharacter;
        }
    }
    return text;
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

std::vector<const StoredRange*> rangesOf(const char* table, const Fields& fields) {
    std::vector<const StoredRange*> ranges;
    for (const auto& field : fields) ranges.push_back(rangeOf(table, field.first));
    return ranges;
}

Result<Done> within(const std::vector<const StoredRange*>& ranges, const Fields& fields) {
    for (std::size_t i = 0; i < fields.size(); ++i) {
        const auto& [column, value] = fields[i];
        const int type = value.typeId();
        if (type == QMetaType::QString) {
            if (const auto error = tooLong(column, static_cast<std::size_t>(value.toString().size()))) return *error;
            if (const StoredRange* range = ranges[i]; range != nullptr && range->list) {
                const std::string text = value.toString().toStdString();
                if (!numbersIn(*range, text)) return outside(*range, text);
            }
        }
        if (type != QMetaType::Double && type != QMetaType::Int && type != QMetaType::LongLong) continue;
        const StoredRange* range = ranges[i];
        const double number = value.toDouble();
        if (range != nullptr && !(number >= range->least && number <= range->most)) return outside(*range, number);
    }
    return Done{};
}

QJsonObject noteOn(const char* table, const Fields& fields) {
    QJsonObject row;
    for (const auto& [column, value] : fields) row.insert(QLatin1String(column), jsonOf(value));
    return {{QStringLiteral("table"), QLatin1String(table)}, {QStringLiteral("row"), row}};
}

} // namespace

const Database::Insertion& Database::insertionOf(const char* table, const Fields& fields) {
    // Rows of one table mostly come one after another, from one place.
    const auto same = [](const auto& field, const std::string& column) { return field.first == column; };
    if (m_insertion.table == table &&
        std::equal(fields.begin(), fields.end(), m_insertion.columns.begin(), m_insertion.columns.end(), same))
        return m_insertion;
    Insertion& insertion = m_insertion;
    insertion.columns.clear();
    for (const auto& field : fields) insertion.columns.push_back(field.first);
    QStringList columns;
    for (const auto& field : fields) columns << QLatin1String(field.first);
    const QStringList places(columns.size(), QStringLiteral("?"));
    insertion.table = table;
    insertion.sql = QStringLiteral("INSERT INTO %1 (%2) VALUES (%3)")
                        .arg(QLatin1String(table), columns.join(QLatin1Char(',')), places.join(QLatin1Char(',')));
    insertion.ranges = rangesOf(table, fields);
    return insertion;
}

Result<Done> Database::insert(const char* table, const Fields& given) {
    const bool clean =
        std::all_of(given.begin(), given.end(), [](const auto& field) { return isStorable(field.second); });
    const Fields mended = clean ? Fields() : storableOf(given);
    const Fields& fields = clean ? given : mended;
    const Insertion& insertion = insertionOf(table, fields);
    if (auto may = within(insertion.ranges, fields); !may) return may;
    auto done =
        step(insertion.sql, fields.size(), [&](std::size_t i) -> const QVariant& { return fields[i].second; }, {});
    if (!done) return done;
    const auto numbered = [&](const auto& field) {
        return std::string_view(field.first) == "id" && prefixOf(field.second.toString()) == m_series->m_prefix;
    };
    if (m_series != nullptr && std::any_of(fields.begin(), fields.end(), numbered))
        ++m_series->m_rows[table];
    else
        m_notes.append(noteOn(table, fields));
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
