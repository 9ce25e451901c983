// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/judged.h"
#include "logbook/change_log.h"
#include "logbook/kinds.h"
#include "logbook/schema.h"
#include "tests/support/demo.h"
#include "tests/support/files.h"
#include "tests/support/fixtures.h"
#include "tests/support/temp_logbook.h"

#include <QCryptographicHash>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <random>

using namespace rollcall;

// A logbook with damage, of the disk or by somebody who knows how it is made: it opens to be read, or is refused with
// its reason; whatever differs from what was logged is told; nothing stops the program. ROLLCALL_DAMAGES=1000 tries so
// many instead of a few; QTEST_FUNCTION_TIMEOUT, in ms, then has to allow it.
class tst_Damage : public QObject {
    Q_OBJECT

    QTemporaryDir m_dir;
    QString m_base;
    QByteArray m_bytes;
    std::mt19937 m_chance{7};

    static int asked() {
        const int wished = qEnvironmentVariableIntValue("ROLLCALL_DAMAGES");
        constexpr int usual = 40;
        return wished > 0 ? wished : usual;
    }
    std::size_t below(std::size_t n) { return std::uniform_int_distribution<std::size_t>(0, n - 1)(m_chance); }
    qsizetype place(qsizetype n) { return static_cast<qsizetype>(below(static_cast<std::size_t>(n))); }

    // What one fault of a disk does: a bit, a few bytes, a page of nothing, pages exchanged, an end that is missing.
    QByteArray damaged(QString& how) {
        constexpr qsizetype page = 4096;
        QByteArray bytes = m_bytes;
        const qsizetype pages = bytes.size() / page;
        switch (below(5)) {
        case 0: {
            const qsizetype at = place(bytes.size());
            bytes[at] = static_cast<char>(bytes[at] ^ (1 << below(8)));
            how = QStringLiteral("a bit of byte %1").arg(at);
            break;
        }
        case 1: {
            const qsizetype at = place(bytes.size() - 64);
            for (qsizetype i = 0; i < 64; ++i) bytes[at + i] = static_cast<char>(below(256));
            how = QStringLiteral("64 bytes from %1").arg(at);
            break;
        }
        case 2: {
            const qsizetype at = place(pages);
            std::fill_n(bytes.begin() + at * page, page, '\0');
            how = QStringLiteral("nothing on page %1").arg(at + 1);
            break;
        }
        case 3: {
            const qsizetype a = place(pages);
            const qsizetype b = place(pages);
            std::swap_ranges(bytes.begin() + a * page, bytes.begin() + (a + 1) * page, bytes.begin() + b * page);
            how = QStringLiteral("pages %1 and %2 exchanged").arg(a + 1).arg(b + 1);
            break;
        }
        default:
            bytes.truncate(place(bytes.size()));
            how = QStringLiteral("cut at byte %1").arg(bytes.size());
        }
        return bytes;
    }
    // All rows of the record, in an order of their own.
    static QByteArray rowsOf(Logbook& logbook) {
        QCryptographicHash hash(QCryptographicHash::Sha256);
        for (const Kind& kind : kinds()) {
            const auto rows = logbook.database().select(
                QStringLiteral("SELECT * FROM %1 ORDER BY id").arg(QLatin1String(kind.table)));
            if (!rows) return {};
            for (const Row& row : *rows) {
                for (const QVariant& value : row) hash.addData(value.toString().toUtf8() + '\x1f');
            }
        }
        return hash.result();
    }
    // Reads and judges all that is in it, as the window would.
    static void readAll(Logbook& logbook) {
        (void)logbook.shop();
        (void)logbook.verifications();
        const auto batches = logbook.batches();
        if (!batches) return;
        for (const BatchSummary& one : *batches) {
            const auto batch = logbook.batch(one.id);
            if (!batch || batch->blades.empty()) continue;
            const Judged judged(*batch, fixtures::tables(), logbook.now());
            for (const Gate gate : allGates) (void)judged.verdict(0, gate);
        }
    }

private slots:
    void initTestCase() {
        m_base = m_dir.filePath("base.rollcall");
        fixtures::putDemo(m_base);
        m_bytes = fixtures::content(m_base);
        QVERIFY(m_bytes.size() > 100000);
    }

    void aDamagedFile() {
        QByteArray rows;
        {
            auto sound = Logbook::open(m_base, Logbook::Access::read);
            QVERIFY(sound.ok());
            rows = rowsOf(**sound);
        }
        std::map<QString, int> outcomes;
        for (int i = 0; i < asked(); ++i) {
            QString how;
            const QString path = m_dir.filePath(QStringLiteral("damaged-%1.rollcall").arg(i));
            fixtures::put(path, damaged(how));
            const auto outcome = [&]() -> QString {
                auto opened = Logbook::open(path, Logbook::Access::write);
                if (!opened) return opened.error().text.empty() ? QString() : QStringLiteral("refused");
                Logbook& logbook = **opened;
                if (logbook.readOnly() && logbook.readOnlyReason().empty()) return {};
                readAll(logbook);
                const auto problems = logbook.check();
                if (!problems) return problems.error().text.empty() ? QString() : QStringLiteral("check refused");
                if (!problems->empty())
                    return logbook.readOnly() ? QStringLiteral("read only") : QStringLiteral("told by check");
                // Where nothing is told nothing may differ: what was hit is not in use.
                return rowsOf(logbook) == rows ? QStringLiteral("not in use") : QString();
            }();
            QVERIFY2(!outcome.isEmpty(), qPrintable("silent: " + how));
            ++outcomes[outcome];
            QDir(m_dir.path()).remove(QFileInfo(path).fileName());
        }
        for (const auto& [outcome, times] : outcomes) qInfo("%4d %s", times, qPrintable(outcome));
    }

    // Somebody puts another value into a row and redoes the chain behind it, so that all hashes hold again.
    void aRowWithItsChainRedone() {
        std::map<QString, int> outcomes;
        const QString path = m_dir.filePath("redone.rollcall");
        for (int i = 0; i < asked(); ++i) {
            QFile::remove(path);
            QVERIFY(QFile::copy(m_base, path));
            const QString how = meddle(path);
            if (how.isEmpty()) continue; // the table has no rows, or the database itself refused
            auto opened = Logbook::open(path, Logbook::Access::write);
            if (!opened) {
                QVERIFY2(!opened.error().text.empty(), qPrintable(how));
                ++outcomes["refused"];
                continue;
            }
            readAll(**opened);
            const auto problems = (*opened)->check();
            ++outcomes[problems && problems->empty() ? "taken as logged" : "told by check"];
        }
        for (const auto& [outcome, times] : outcomes) qInfo("%4d %s", times, qPrintable(outcome));
        QVERIFY(outcomes["told by check"] > 0 && outcomes["taken as logged"] > 0);
    }

private:
    // One value of one row, what it was and what it is now; empty where nothing could be changed.
    QString meddle(const QString& path) {
        Database database;
        if (!database.open(path, Database::Mode::readWrite)) return {};
        const Kind& kind = kinds()[below(kinds().size())];
        const QString table = QLatin1String(kind.table);
        const auto columns = database.select(QStringLiteral("SELECT name FROM pragma_table_info('%1')").arg(table));
        const auto ids = database.select(QStringLiteral("SELECT id FROM %1").arg(table));
        if (!columns || !ids || ids->empty()) return {};
        const QString column = (*columns)[below(columns->size())][0].toString();
        if (column == "id") return {};
        const QString id = (*ids)[below(ids->size())][0].toString();
        const std::vector<QVariant> values{QVariant(),
                                           QString(),
                                           QStringLiteral("text where none belongs"),
                                           QString(50000, 'x'),
                                           -1,
                                           0,
                                           1e300,
                                           std::numeric_limits<qint64>::max(),
                                           std::numeric_limits<qint64>::min(),
                                           2.5,
                                           (*ids)[below(ids->size())][0],
                                           QStringLiteral("{\"a\":[[[[")};
        const QVariant value = values[below(values.size())];
        for (const char* off : {"PRAGMA foreign_keys=OFF", "PRAGMA ignore_check_constraints=ON"})
            (void)database.run(QLatin1String(off));
        for (const QString& guard : schema::guards()) {
            static const QRegularExpression name("CREATE TRIGGER (?:IF NOT EXISTS )?(\\w+)");
            (void)database.run("DROP TRIGGER IF EXISTS " + name.match(guard).captured(1));
        }
        const bool done =
            database.run(QStringLiteral("UPDATE %1 SET %2=? WHERE id=?").arg(table, column), {value, id}).ok();
        if (done) redoChain(database, table, id, column, jsonOf(value));
        for (const QString& guard : schema::guards()) (void)database.run(guard);
        return done ? QStringLiteral("%1.%2 of %3: %4").arg(table, column, id, value.toString().left(40)) : QString();
    }
    static void redoChain(Database& database, const QString& table, const QString& id, const QString& column,
                          const QJsonValue& value) {
        QString previous = chainBeginning();
        for (ChangeEntry& entry : changesOf(database).value()) {
            QJsonArray notes = QJsonDocument::fromJson(entry.payload.toUtf8()).array();
            bool changed = false;
            for (auto note : notes) {
                QJsonObject whole = note.toObject();
                QJsonObject row = whole.value("row").toObject();
                if (whole.value("table") != table || !row.contains(column)) continue;
                if (whole.value("id") != id && row.value("id") != id) continue;
                row[column] = value;
                whole["row"] = row;
                note = whole;
                changed = true;
            }
            if (changed) entry.payload = QString::fromUtf8(QJsonDocument(notes).toJson(QJsonDocument::Compact));
            const QString hash = [&] {
                entry.previous = previous;
                return entry.hash();
            }();
            if (hash != entry.stored_hash)
                (void)database.run("UPDATE change SET payload=?, previous=?, hash=? WHERE seq=?",
                                   {entry.payload, previous, hash, entry.seq});
            previous = hash;
        }
    }
};

QTEST_GUILESS_MAIN(tst_Damage)
#include "tst_damage.moc"
