// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/transfer/package.h"

#include "core/base/csv.h"
#include "files/disk.h"
#include "logbook/database.h"
#include "logbook/schema.h"
#include "logbook/transfer/zip_folder.h"

#include <QCryptographicHash>
#include <QDir>
#include <QFile>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QRegularExpression>
#include <QTemporaryDir>

namespace rollcall {

namespace {

// What stands for no value. In texts the backslash, line ends, tabs and blanks at their ends are written with a
// backslash, so that a row is a line and nothing is lost to a reader that trims.
const QString nothing = QStringLiteral("\\N");

Error atFile(ErrorKind kind, const QString& file, const QString& text) {
    return {kind, file.toStdString(), text.toStdString()};
}

struct Column {
    QString name;
    QString type; ///< TEXT, REAL, INTEGER, BLOB
    bool key = false;
};

Result<std::vector<Column>> columnsOf(Database& database, const QString& table) {
    const auto rows = database.select(QStringLiteral("PRAGMA table_info(%1)").arg(table));
    if (!rows) return rows.error();
    std::vector<Column> columns;
    for (const Row& row : *rows)
        columns.push_back({row[1].toString(), row[2].toString().toUpper(), row[5].toInt() > 0});
    return columns;
}

Result<QStringList> tablesOf(Database& database) {
    const auto rows = database.select(QStringLiteral("SELECT name FROM sqlite_master WHERE type='table' AND name NOT "
                                                     "LIKE 'sqlite_%' AND name<>'derived' ORDER BY rowid"));
    if (!rows) return rows.error();
    QStringList names;
    for (const Row& row : *rows) names << row[0].toString();
    return names;
}

QString escaped(const QString& text) {
    QString out;
    for (qsizetype i = 0; i < text.size(); ++i) {
        const QChar c = text[i];
        const bool end = i == 0 || i + 1 == text.size();
        out += c == QLatin1Char('\\')         ? QStringLiteral("\\\\")
               : c == QLatin1Char('\n')       ? QStringLiteral("\\n")
               : c == QLatin1Char('\r')       ? QStringLiteral("\\r")
               : c == QLatin1Char('\t')       ? QStringLiteral("\\t")
               : c == QLatin1Char(' ') && end ? QStringLiteral("\\s")
                                              : QString(c);
    }
    return out;
}

QString unescaped(const QString& text) {
    QString out(QLatin1String("")); // empty, not null: a null text would be stored as no value
    for (qsizetype i = 0; i < text.size(); ++i) {
        if (text[i] != QLatin1Char('\\') || i + 1 == text.size()) {
            out += text[i];
            continue;
        }
        const QChar c = text[++i];
        out += c == QLatin1Char('n')   ? QLatin1Char('\n')
               : c == QLatin1Char('r') ? QLatin1Char('\r')
               : c == QLatin1Char('t') ? QLatin1Char('\t')
               : c == QLatin1Char('s') ? QLatin1Char(' ')
                                       : c;
    }
    return out;
}

QString fieldOf(const QVariant& value, const Column& column) {
    if (value.isNull()) return nothing;
    if (column.type == QLatin1String("REAL"))
        return QString::number(value.toDouble(), 'g', QLocale::FloatingPointShortest);
    return escaped(value.toString());
}

QVariant valueOf(const QString& field, const Column& column) {
    if (field == nothing) return {};
    if (column.type == QLatin1String("REAL")) return field.toDouble();
    if (column.type == QLatin1String("INTEGER")) return field.toLongLong();
    return unescaped(field);
}

QByteArray sha(const QByteArray& bytes) {
    return QCryptographicHash::hash(bytes, QCryptographicHash::Sha256).toHex();
}

// Larger than anything that is attached to a logbook or describes one.
constexpr qint64 mostAtOnce = qint64{1} << 30;
// The change log of ten million readings is less.
constexpr qint64 mostOfOneTable = qint64{1} << 34;
// An entry of the change log tells of all rows of its act.
constexpr qint64 longestLine = qint64{1} << 28;

Result<Done> open(QFile& file, qint64 most) {
    const QString path = file.fileName();
    // A link would lead out of the package, a device has no end.
    if (QFileInfo(path).isSymLink() || !QFileInfo(path).isFile() || !file.open(QIODevice::ReadOnly))
        return atFile(ErrorKind::input, path, QStringLiteral("this file of the package is missing"));
    if (file.size() > most)
        return atFile(ErrorKind::input, path,
                      QStringLiteral("this file is larger than %1 GiB: no package holds such").arg(most >> 30));
    return Done{};
}

Result<QByteArray> read(const QString& path) {
    QFile file(path);
    if (auto opened = open(file, mostAtOnce); !opened) return opened.error();
    return file.readAll();
}

// A table of a package from its file, a piece at a time: in a package each row is a line of its own.
class TableLines {
public:
    explicit TableLines(const QString& path) : m_file(path) {}

    /// Opens the file if it is the one that the package says.
    Result<Done> open(const QString& hash) {
        if (auto opened = rollcall::open(m_file, mostOfOneTable); !opened) return opened;
        QCryptographicHash sha(QCryptographicHash::Sha256);
        if (!sha.addData(&m_file))
            return atFile(ErrorKind::input, m_file.fileName(), QStringLiteral("this file cannot be read"));
        if (QStringLiteral("sha256:") + QString::fromLatin1(sha.result().toHex()) != hash)
            return atFile(ErrorKind::input, m_file.fileName(),
                          QStringLiteral("this file is not the one that was exported: it was changed or damaged"));
        m_file.seek(0);
        m_header = m_file.readLine(mostOfHeader);
        return Done{};
    }
    QString name() const { return m_file.fileName(); }
    /// The next rows with the header above them; none when there are no more.
    Result<std::optional<CsvText>> next() {
        if (m_file.atEnd() && m_line > 0) return std::optional<CsvText>();
        QByteArray piece = m_header + m_file.read(pieceSize);
        while (!piece.endsWith('\n') && !m_file.atEnd()) {
            piece += m_file.readLine(pieceSize);
            if (piece.size() > longestLine)
                return atFile(ErrorKind::input, m_file.fileName(),
                              QStringLiteral("a line of it is longer than any row of a logbook"));
        }
        auto read = readCsv(std::string_view(piece.constData(), static_cast<std::size_t>(piece.size())));
        if (!read) return atFile(ErrorKind::input, m_file.fileName(), QString::fromStdString(read.error().text));
        CsvText csv = std::move(read).value();
        for (CsvRow& row : csv.rows) row.line += m_line;
        m_line += static_cast<int>(piece.count('\n')) - 1; // the header is there each time
        m_line = std::max(m_line, 1);
        return std::optional(std::move(csv));
    }

private:
    static constexpr qint64 mostOfHeader = 1 << 16;
    static constexpr qint64 pieceSize = 1 << 20;
    QFile m_file;
    QByteArray m_header;
    int m_line = 0; ///< read before, below the header
};

QString frictionless(const QString& type) {
    return type == QLatin1String("REAL")      ? QStringLiteral("number")
           : type == QLatin1String("INTEGER") ? QStringLiteral("integer")
                                              : QStringLiteral("string");
}

Result<std::vector<Column>> columnsUnder(const std::vector<std::string>& header, Database& database,
                                         const QString& table, const QString& file) {
    const auto columns = columnsOf(database, table);
    if (!columns) return columns.error();
    std::vector<Column> known;
    for (const std::string& name : header) {
        const auto found = std::find_if(columns->begin(), columns->end(),
                                        [&](const Column& c) { return c.name == QString::fromStdString(name); });
        if (found == columns->end())
            return atFile(ErrorKind::input, file,
                          QStringLiteral("the table %1 has no column %2").arg(table, QString::fromStdString(name)));
        known.push_back(*found);
    }
    return known;
}

// The content of an attached file that a row names.
Result<QByteArray> attached(const QDir& folder, const QVariant& name, const QString& line) {
    static const QRegularExpression hash(QStringLiteral("^[0-9a-f]{64}$"));
    if (!hash.match(name.toString()).hasMatch())
        return atFile(ErrorKind::input, line, QStringLiteral("this is no name of a file in a package"));
    const QString path = folder.filePath(QStringLiteral("files/") + name.toString());
    const auto bytes = read(path);
    if (!bytes) return bytes.error();
    if (sha(*bytes) != name.toByteArray())
        return atFile(ErrorKind::input, path, QStringLiteral("this file is not what its name says: it is damaged"));
    return bytes->isEmpty() ? QByteArray("") : *bytes; // a null one would be no value
}

Result<Done> fill(Database& database, const QString& table, TableLines& lines, const QDir& folder, int& count) {
    const bool blobs = table == QLatin1String("attachment_blob");
    std::vector<Column> known;
    QString sql;
    for (;;) {
        const auto piece = lines.next();
        if (!piece) return piece.error();
        if (!*piece) return Done{};
        const CsvText& csv = **piece;
        if (sql.isEmpty()) {
            const auto columns = columnsUnder(csv.header, database, table, lines.name());
            if (!columns) return columns.error();
            known = *columns;
            QStringList names;
            for (const Column& column : known) names << column.name;
            if (blobs) names << QStringLiteral("bytes");
            const QStringList marks(names.size(), QStringLiteral("?"));
            sql = QStringLiteral("INSERT INTO %1 (%2) VALUES (%3)")
                      .arg(table, names.join(QLatin1Char(',')), marks.join(QLatin1Char(',')));
        }
        for (const CsvRow& row : csv.rows) {
            const QString line = QStringLiteral("%1:%2").arg(lines.name()).arg(row.line);
            if (row.fields.size() != known.size())
                return atFile(ErrorKind::input, line, QStringLiteral("this line has not as many fields as the header"));
            Row values;
            for (std::size_t i = 0; i < known.size(); ++i)
                values.push_back(valueOf(QString::fromStdString(row.fields[i]), known[i]));
            if (blobs) {
                const auto bytes = attached(folder, values.front(), line);
                if (!bytes) return bytes.error();
                values.push_back(*bytes);
            }
            if (auto done = database.run(sql, values); !done)
                return atFile(ErrorKind::input, line, QString::fromStdString(done.error().text));
            ++count;
        }
    }
}

struct WrittenTable {
    int rows = 0;
    qint64 bytes = 0;
    QString sha256;
};

// A table as a file of a package, a row at a time: a shop's whole change log does not fit into memory.
Result<WrittenTable> writeTable(Database& database, const QString& table, const std::vector<Column>& columns,
                                const QString& path) {
    QStringList names;
    for (const Column& column : columns) names << column.name;
    WrittenTable written;
    QCryptographicHash sha(QCryptographicHash::Sha256);
    auto done = writeFileBy(path, [&](const QString& part) -> Result<Done> {
        QFile file(part);
        if (!file.open(QIODevice::WriteOnly)) return atFile(ErrorKind::disk, path, file.errorString());
        bool stored = true;
        const auto put = [&](const QByteArray& text) {
            sha.addData(text);
            stored = stored && file.write(text) == text.size();
            written.bytes += text.size();
        };
        put(names.join(QLatin1Char(',')).toUtf8() + '\n');
        QByteArray line;
        const auto read =
            database.each(QStringLiteral("SELECT %1 FROM %2 ORDER BY rowid").arg(names.join(QLatin1Char(',')), table),
                          {}, [&](const Row& row) {
                              line.clear();
                              for (std::size_t i = 0; i < row.size(); ++i) {
                                  if (i > 0) line += ',';
                                  line += csvField(fieldOf(row[i], columns[i]).toStdString()).c_str();
                              }
                              put(line += '\n');
                              ++written.rows;
                          });
        if (!read) return read;
        if (!stored || !file.flush()) return atFile(ErrorKind::disk, path, file.errorString());
        return Done{};
    });
    if (!done) return done.error();
    written.sha256 = QString::fromLatin1(sha.result().toHex());
    return written;
}

Result<PackageCounts> filled(Database& database, const QString& folder) {
    const QDir at(folder);
    const auto text = read(at.filePath(QStringLiteral("datapackage.json")));
    if (!text) return text.error();
    const QString descriptor = at.filePath(QStringLiteral("datapackage.json"));
    const QJsonObject package = QJsonDocument::fromJson(*text).object();
    if (!package.contains(QStringLiteral("rollcall_schema")))
        return atFile(ErrorKind::input, descriptor, QStringLiteral("this is not a package of a Rollcall logbook"));
    if (package[QStringLiteral("rollcall_schema")].toInt() != schema::version)
        return atFile(
            ErrorKind::input, descriptor,
            QStringLiteral("this package is of schema %1, this Rollcall writes %2: export it anew from the logbook")
                .arg(package[QStringLiteral("rollcall_schema")].toInt())
                .arg(schema::version));
    const auto tables = tablesOf(database);
    if (!tables) return tables.error();
    PackageCounts counts;
    for (const QJsonValue& value : package[QStringLiteral("resources")].toArray()) {
        const QJsonObject resource = value.toObject();
        const QString table = resource[QStringLiteral("name")].toString();
        if (!tables->contains(table))
            return atFile(ErrorKind::input, descriptor, QStringLiteral("there is no table %1").arg(table));
        // The name alone leads to the file: a path in a package must not lead out of it.
        TableLines lines(at.filePath(table + QStringLiteral(".csv")));
        if (auto opened = lines.open(resource[QStringLiteral("hash")].toString()); !opened) return opened.error();
        int count = 0;
        if (auto done = fill(database, table, lines, at, count); !done) return done.error();
        counts[table.toStdString()] = count;
    }
    for (const QString& table : *tables) {
        if (!counts.contains(table.toStdString()))
            return atFile(ErrorKind::input, descriptor, QStringLiteral("the table %1 is missing").arg(table));
    }
    return counts;
}

// What comes by tables is a logbook only when it passes the check of one.
Result<Done> passes(const QString& part, const QString& folder) {
    auto opened = Logbook::open(part, Logbook::Access::write);
    if (!opened) return opened.error();
    const auto problems = (*opened)->check();
    if (!problems) return problems.error();
    if (problems->empty()) return Done{};
    return atFile(ErrorKind::input, folder,
                  QStringLiteral("this package does not pass its own check: %1").arg(q(problems->front())));
}

} // namespace

Result<PackageCounts> exportPackage(const QString& logbook, const QString& folder) {
    const auto opened = Logbook::open(logbook, Logbook::Access::read);
    if (!opened) return opened.error();
    return exportTo(**opened, folder);
}

Result<PackageCounts> exportTo(Logbook& logbook, const QString& folder) {
    if (isZip(folder)) {
        if (QFileInfo::exists(folder))
            return atFile(ErrorKind::exists, folder, QStringLiteral("this file exists already"));
        const QTemporaryDir packed;
        const auto counts = exportTo(logbook, packed.path());
        if (!counts) return counts;
        if (auto done = zipFolder(packed.path(), folder); !done) return done.error();
        return counts;
    }
    const QDir at(folder);
    if (at.exists() && !at.isEmpty())
        return atFile(ErrorKind::exists, folder, QStringLiteral("this folder is not empty"));
    if (!QDir().mkpath(at.filePath(QStringLiteral("files"))))
        return atFile(ErrorKind::disk, folder, QStringLiteral("this folder cannot be made"));
    Database& database = logbook.database();
    const auto tables = tablesOf(database);
    if (!tables) return tables.error();
    PackageCounts counts;
    QJsonArray resources;
    for (const QString& table : *tables) {
        const auto all = columnsOf(database, table);
        if (!all) return all.error();
        std::vector<Column> columns = *all;
        std::erase_if(columns, [](const Column& column) { return column.type == QLatin1String("BLOB"); });
        QJsonArray fields;
        QJsonArray keys;
        for (const Column& column : columns) {
            fields.append(QJsonObject{{"name", column.name}, {"type", frictionless(column.type)}});
            if (column.key) keys.append(column.name);
        }
        const QString file = table + QStringLiteral(".csv");
        const auto written = writeTable(database, table, columns, at.filePath(file));
        if (!written) return written.error();
        resources.append(QJsonObject{
            {"name", table},
            {"path", file},
            {"profile", "tabular-data-resource"},
            {"format", "csv"},
            {"mediatype", "text/csv"},
            {"encoding", "utf-8"},
            {"bytes", written->bytes},
            {"hash", QStringLiteral("sha256:") + written->sha256},
            {"schema", QJsonObject{{"fields", fields}, {"primaryKey", keys}, {"missingValues", QJsonArray{nothing}}}}});
        counts[table.toStdString()] = written->rows;
    }
    const auto blobs = database.select(QStringLiteral("SELECT sha256 FROM attachment_blob"));
    if (!blobs) return blobs.error();
    for (const Row& row : *blobs) {
        const auto bytes =
            database.single(QStringLiteral("SELECT bytes FROM attachment_blob WHERE sha256=?"), {row[0]});
        if (!bytes) return bytes.error();
        if (auto done = writeFile(at.filePath(QStringLiteral("files/") + row[0].toString()), bytes->toByteArray());
            !done)
            return done.error();
    }
    const QJsonObject package{{"profile", "tabular-data-package"},
                              {"name", "rollcall-logbook"},
                              {"title", "A Rollcall logbook"},
                              {"rollcall_schema", schema::version},
                              {"resources", resources}};
    if (auto done = writeFile(at.filePath(QStringLiteral("datapackage.json")), QJsonDocument(package).toJson()); !done)
        return done.error();
    return counts;
}

Result<PackageCounts> importPackage(const QString& logbook, const QString& folder) {
    if (isZip(folder)) {
        const QTemporaryDir unpacked;
        if (auto done = unzipInto(folder, unpacked.path()); !done) return done.error();
        return importPackage(logbook, unpacked.path());
    }
    PackageCounts counts;
    const auto fillPart = [&](const QString& part) -> Result<Done> {
        Database database;
        if (auto opened = database.open(part, Database::Mode::readWrite); !opened) return opened.error();
        // Rows come table by table, not in the order in which they point at each other.
        if (auto off = database.run(QStringLiteral("PRAGMA foreign_keys=OFF")); !off) return off.error();
        Database::Transaction transaction(database);
        if (!transaction.begun()) return transaction.begun();
        const auto done = filled(database, folder);
        if (!done) return done.error();
        counts = *done;
        const auto astray = database.select(QStringLiteral("PRAGMA foreign_key_check"));
        if (!astray) return astray.error();
        if (!astray->empty())
            return atFile(ErrorKind::input, folder,
                          QStringLiteral("the table %1 points at something that is not in the package")
                              .arg(astray->front()[0].toString()));
        return transaction.commit();
    };
    const auto made = Logbook::make(logbook, LogbookSeams::real(), [&](const QString& part) -> Result<Done> {
        if (auto done = fillPart(part); !done) return done;
        return passes(part, folder);
    });
    if (!made) return made.error();
    return counts;
}

} // namespace rollcall
