// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "files/disk.h"
#include "tests/support/temp_logbook.h"

#include <QCoreApplication>
#include <QProcess>
#include <QSqlDatabase>
#include <QSqlQuery>

using namespace rollcall;
using fixtures::TempLogbook;

namespace {

const QString untilTold = QStringLiteral("stays");

// What another program does that knows SQLite: this one, started again. It says "in" when it has read, "out" where the
// file was kept from it, and with a third word it stays until its input ends.
int otherProgram(const QStringList& asked) {
    bool in = false;
    {
        QSqlDatabase db = QSqlDatabase::addDatabase(QStringLiteral("QSQLITE"));
        db.setDatabaseName(asked[2]);
        db.setConnectOptions(QStringLiteral("QSQLITE_BUSY_TIMEOUT=0"));
        QSqlQuery query(db.open() ? db : QSqlDatabase());
        in = query.exec(QStringLiteral("SELECT COUNT(*) FROM change")) && query.next();
        query.finish();
        QTextStream(stdout) << (in ? "in" : "out") << Qt::endl;
        if (asked.size() > 3) (void)QTextStream(stdin).readLine();
    }
    QSqlDatabase::removeDatabase(QSqlDatabase::defaultConnection);
    return 0;
}

} // namespace

// A process loses all its locks on a file when anything in it closes that file once: a dialog that looks what kind of
// file it is, a table opened by mistake. Another program may then write into a logbook that is open here.
class tst_LostLocks : public QObject {
    Q_OBJECT

    static void openAndClose(const QString& path) {
        QFile file(path);
        QVERIFY(file.open(QIODevice::ReadOnly));
        QVERIFY(!file.read(10).isEmpty());
    }
    static QString other(const QString& path) {
        QProcess process;
        process.start(QCoreApplication::applicationFilePath(), {QStringLiteral("other"), path});
        return process.waitForFinished() ? QString::fromUtf8(process.readAllStandardOutput()).trimmed() : QString();
    }
    static void stay(QProcess& process, const QString& path) {
        process.start(QCoreApplication::applicationFilePath(), {QStringLiteral("other"), path, untilTold});
        QVERIFY(process.waitForReadyRead());
        QCOMPARE(process.readLine().trimmed(), QByteArray("in"));
    }

private slots:
    void anotherIsKeptOut() {
        TempLogbook logbook;
        const Batch batch = logbook.withBatch();
        QCOMPARE(other(logbook.path()), QStringLiteral("out"));
        openAndClose(logbook.path());
        QVERIFY(logReading(*logbook, logbook.reading(batch, 0, 62.1)).ok()); // the next act holds it again
        QCOMPARE(other(logbook.path()), QStringLiteral("out"));
    }

    // Nothing is looked into to say what it is while it is open here.
    void aLookDoesNotLetGo() {
        TempLogbook logbook;
        (void)logbook.withBatch();
        const auto second = Logbook::open(logbook.path(), Logbook::Access::read, logbook.seams());
        QVERIFY(!second.ok());
        QCOMPARE(second.error().kind, ErrorKind::locked);
        QCOMPARE(other(logbook.path()), QStringLiteral("out"));
        QVERIFY(!writeFile(logbook.path(), "a table").ok());
        QVERIFY(!writeFile(logbook.path() + QStringLiteral("-wal"), "a table").ok());
        QCOMPARE(other(logbook.path()), QStringLiteral("out"));
    }

    // Another was in it and has gone: it has taken the log away that is written to here.
    void whatCameBetweenIsTold() {
        TempLogbook logbook;
        const Batch batch = logbook.withBatch();
        QVERIFY(logReading(*logbook, logbook.reading(batch, 0, 62.1)).ok());
        openAndClose(logbook.path());
        QCOMPARE(other(logbook.path()), QStringLiteral("in"));
        for (int times = 0; times < 2; ++times) {
            const auto refused = logReading(*logbook, logbook.reading(batch, 0, 59.5));
            QVERIFY(!refused.ok());
            QVERIFY2(refused.error().text.find("another program") != std::string::npos, refused.error().text.c_str());
        }
        logbook->settle();
        QVERIFY(logbook.reopen().ok());
        const Batch now = logbook->batch(batch.id).value();
        QCOMPARE(now.blades[0].readings.size(), std::size_t(1));
        QCOMPARE(now.blades[0].readings[0].value, 62.1);
        QVERIFY(logbook->check()->empty());
        QVERIFY(logReading(*logbook, logbook.reading(now, 0, 62.2)).ok());
    }

    // The log that is written to was deleted: what it held is not lost, and nothing more goes into it.
    void aDeletedLogIsTold() {
        TempLogbook logbook;
        const Batch batch = logbook.withBatch();
        QVERIFY(logReading(*logbook, logbook.reading(batch, 0, 62.1)).ok());
        QVERIFY(QFile::remove(logbook.path() + QStringLiteral("-wal")));
        const auto refused = logReading(*logbook, logbook.reading(batch, 0, 59.5));
        QVERIFY(!refused.ok());
        QVERIFY2(refused.error().text.find("-wal") != std::string::npos, refused.error().text.c_str());
        QVERIFY(logbook.reopen().ok());
        QCOMPARE(logbook->batch(batch.id)->blades[0].readings.size(), std::size_t(1));
        QVERIFY(logbook->check()->empty());
    }

    // Another is in it: nothing is stored until it has gone, and then only after it was opened anew.
    void whileAnotherIsInIt() {
        TempLogbook logbook;
        const Batch batch = logbook.withBatch();
        QVERIFY(logReading(*logbook, logbook.reading(batch, 0, 62.1)).ok());
        openAndClose(logbook.path());
        QProcess process;
        stay(process, logbook.path());
        QVERIFY(!logReading(*logbook, logbook.reading(batch, 0, 59.5)).ok());
        process.closeWriteChannel();
        QVERIFY(process.waitForFinished());
        QVERIFY(!logReading(*logbook, logbook.reading(batch, 0, 59.5)).ok());
        QVERIFY(logbook.reopen().ok());
        QCOMPARE(logbook->batch(batch.id)->blades[0].readings.size(), std::size_t(1));
        QVERIFY(logbook->check()->empty());
    }

    // What another wrote is not written over when the window closes.
    void whatAnotherWroteStays() {
        TempLogbook logbook;
        const Batch batch = logbook.withBatch();
        QVERIFY(logReading(*logbook, logbook.reading(batch, 0, 62.1)).ok());
        openAndClose(logbook.path());
        QProcess process;
        process.start(QCoreApplication::applicationFilePath(), {QStringLiteral("write"), logbook.path()});
        QVERIFY(process.waitForFinished());
        QCOMPARE(process.readAllStandardOutput().trimmed(), QByteArray("in"));
        QVERIFY(!logReading(*logbook, logbook.reading(batch, 0, 59.5)).ok());
        logbook.close();
        QCOMPARE(other(logbook.path()), QStringLiteral("in"));
        QSqlDatabase db = QSqlDatabase::addDatabase(QStringLiteral("QSQLITE"), QStringLiteral("look"));
        db.setDatabaseName(logbook.path());
        QVERIFY(db.open());
        QSqlQuery query(db);
        QVERIFY(query.exec(QStringLiteral("SELECT COUNT(*) FROM written_by_another")) && query.next());
    }
};

int main(int argc, char** argv) {
    QCoreApplication application(argc, argv);
    const QStringList asked = QCoreApplication::arguments();
    if (asked.size() > 2 && asked[1] == QStringLiteral("other")) return otherProgram(asked);
    if (asked.size() > 2 && asked[1] == QStringLiteral("write")) {
        const QString trouble =
            TempLogbook::meddle(asked[2], QStringLiteral("CREATE TABLE written_by_another(id INTEGER)"));
        QTextStream(stdout) << (trouble.isEmpty() ? "in" : "out") << Qt::endl;
        return 0;
    }
    tst_LostLocks test;
    return QTest::qExec(&test, argc, argv);
}

#include "tst_lost_locks.moc"
