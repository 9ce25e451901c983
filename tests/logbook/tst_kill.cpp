// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/fixtures.h"
#include "tests/support/temp_logbook.h"

#include <QProcess>
#include <QSet>

using namespace rollcall;
using fixtures::TempLogbook;

class tst_Kill : public QObject {
    Q_OBJECT

private slots:
    void nothingAcknowledgedIsLost_data() {
        QTest::addColumn<int>("acknowledged");
        QTest::newRow("at once") << 1;
        QTest::newRow("after a few") << 17;
        QTest::newRow("after many") << 160;
    }
    // A program that logs readings is killed in the middle; every reading it had acknowledged is in the logbook.
    void nothingAcknowledgedIsLost() {
        QFETCH(int, acknowledged);
        TempLogbook log;
        log.withBatch();
        log.close();
        QProcess writer;
        writer.start(QStringLiteral(READING_WRITER), {log.path()});
        QVERIFY(writer.waitForStarted());
        QByteArray said;
        while (said.count('\n') < acknowledged) {
            QVERIFY2(writer.waitForReadyRead(20000), writer.readAllStandardError().constData());
            said += writer.readAllStandardOutput();
        }
        writer.kill(); // SIGKILL: no chance to tidy up
        QVERIFY(writer.waitForFinished());
        said += writer.readAllStandardOutput();
        QList<QByteArray> ids = said.split('\n');
        ids.removeLast(); // what has no line end was not acknowledged
        QVERIFY(ids.size() >= acknowledged);

        QVERIFY(log.reopen().ok()); // the dead program's lock does not keep us out
        QSet<QByteArray> stored;
        const Batch batch = log->batch(log->batches().value().front().id).value();
        for (const Reading& r : batch.blades[0].readings) stored.insert(QByteArray::fromStdString(r.id));
        for (const QByteArray& id : ids) QVERIFY2(stored.contains(id), id.constData());
        QVERIFY(log->check().value().empty());
    }

    // Killed between making its lock and writing whose it is: the lock says nothing and keeps nobody out.
    void aLockThatSaysNothing() {
        for (const char* said : {"", "\n\n", "no number\nrollcall\n"}) {
            TempLogbook log;
            log.withBatch();
            log.close();
            QFile lock(log.path() + ".lock");
            QVERIFY(lock.open(QIODevice::WriteOnly) && lock.write(said) >= 0);
            lock.close();
            const auto opened = log.reopen();
            QVERIFY2(opened.ok(), opened ? "" : opened.error().text.c_str());
        }
    }

    void aLiveProgramKeepsItsLock() {
        TempLogbook log;
        log.withBatch();
        log.close();
        QProcess writer;
        writer.start(QStringLiteral(READING_WRITER), {log.path()});
        QVERIFY(writer.waitForReadyRead(20000));
        const auto second = Logbook::open(log.path(), Logbook::Access::write);
        QCOMPARE(second.error().kind, ErrorKind::locked);
        QVERIFY(second.error().text.find(std::to_string(writer.processId())) != std::string::npos);
        writer.kill();
        QVERIFY(writer.waitForFinished());
    }
};

QTEST_GUILESS_MAIN(tst_Kill)
#include "tst_kill.moc"
