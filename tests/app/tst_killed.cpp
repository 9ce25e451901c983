// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/cli.h"
#include "logbook/schema.h"
#include "logbook/transfer/package.h"
#include "tests/support/temp_logbook.h"
#include "tests/support/window_driver.h"

#include <QDirIterator>
#include <QProcess>
#include <random>

using namespace rollcall;
using fixtures::WindowDriver;

// The programs as they ship, killed at any call to the disk: every logbook opens to be written, passes its check and
// has what was acknowledged; what leaves is whole or not there; done again, it is done.
class tst_Killed : public QObject {
    Q_OBJECT

    QTemporaryDir m_made; ///< what each run begins with

    static QByteArray lines(int from, int count) {
        QByteArray all;
        for (int i = from; i < from + count; ++i)
            all +=
                QStringLiteral(
                    R"({"do":"reading","batch":"Pear 1","blade":"P-%1","gate":"temper","value":%2,"tester":"Bench 1"})")
                    .arg(1 + i % 2)
                    .arg(60 + i % 30 * 0.1)
                    .toUtf8() +
                '\n';
        return all;
    }
    static void put(const QString& path, const QByteArray& bytes) {
        QFile file(path);
        QVERIFY(file.open(QIODevice::WriteOnly) && file.write(bytes) == bytes.size());
    }
    static void copyFolder(const QString& from, const QString& to) {
        for (const QString& name : QDir(from).entryList(QDir::Files))
            QVERIFY(QFile::copy(from + '/' + name, to + '/' + name));
    }
    static int killsOfEach() {
        const int wished = qEnvironmentVariableIntValue("ROLLCALL_KILLS");
        return wished > 0 ? wished : 2;
    }

    struct Run {
        bool killed = false;
        int code = 0;
        QByteArray out;
        QByteArray err;
        long calls = 0;
    };
    // killAt 0: to its end.
    static Run run(const QString& program, const QStringList& arguments, const QByteArray& input, long killAt) {
        const QTemporaryDir dir;
        QProcess process;
        QProcessEnvironment environment = QProcessEnvironment::systemEnvironment();
        environment.insert("LD_PRELOAD", QStringLiteral(KILLER));
        environment.insert("ASAN_OPTIONS", "verify_asan_link_order=0");
        environment.insert("ROLLCALL_KILL_AT", QString::number(killAt));
        environment.insert("ROLLCALL_KILL_COUNT", dir.filePath("count"));
        process.setProcessEnvironment(environment);
        process.start(program, arguments);
        process.write(input);
        process.closeWriteChannel();
        if (!process.waitForFinished(60000)) qFatal("%s does not end", qPrintable(arguments.join(' ')));
        Run ended;
        ended.killed = process.exitStatus() == QProcess::CrashExit;
        ended.code = process.exitCode();
        ended.out = process.readAllStandardOutput();
        ended.err = process.readAllStandardError();
        QFile count(dir.filePath("count"));
        if (count.open(QIODevice::ReadOnly)) ended.calls = count.readAll().toLong();
        return ended;
    }

    static int readingsIn(const QString& book) {
        const auto opened = Logbook::open(book, Logbook::Access::write);
        if (!opened) qFatal("%s: %s", qPrintable(book), opened.error().message().c_str());
        if (!(*opened)->readOnlyReason().empty())
            qFatal("%s: %s", qPrintable(book), (*opened)->readOnlyReason().c_str());
        const auto problems = (*opened)->check();
        if (!problems || !problems->empty()) qFatal("%s does not pass its check", qPrintable(book));
        return (*opened)->counts().value()["reading"];
    }
    // Every logbook and package in a folder; the most readings that one has.
    static int lookThrough(const QString& folder) {
        int most = 0;
        QDirIterator files(folder, QDir::Files, QDirIterator::Subdirectories);
        int made = 0;
        while (files.hasNext()) {
            const QString path = files.next();
            if (path.endsWith(".rollcall")) most = std::max(most, readingsIn(path));
            if (!path.endsWith(".zip")) continue;
            const QTemporaryDir dir;
            const auto taken = importPackage(dir.filePath(QStringLiteral("%1.rollcall").arg(++made)), path);
            if (!taken) qFatal("%s: %s", qPrintable(path), taken.error().message().c_str());
        }
        return most;
    }

private slots:
    void initTestCase() {
        const auto ctl = [&](const QStringList& arguments) {
            const auto answer = cli::run(arguments, QStringLiteral(ROLLCALL_DATA_DIR "/tables"));
            if (answer.exit_code != 0) qFatal("%s: %s", qPrintable(arguments.join(' ')), answer.error.constData());
        };
        const auto in = [&](const char* name) { return m_made.filePath(QLatin1String(name)); };
        put(in("begin.jsonl"),
            R"({"do":"tester","name":"Bench 1","kind":"bench"})"
            "\n"
            R"({"do":"batch","name":"Pear 1","blades":[{"mark":"P-1"},{"mark":"P-2"}],"sold_as":"115CrV3","window":"61:63","gates":["temper"]})"
            "\n" +
                lines(0, 6));
        put(in("more.jsonl"), lines(6, 5));
        ctl({"new", in("b.rollcall")});
        ctl({"log", in("b.rollcall"), in("begin.jsonl")});
        ctl({"backup", in("b.rollcall"), in("other.rollcall")});
        ctl({"log", in("other.rollcall"), in("more.jsonl")});
        ctl({"export", in("b.rollcall"), in("in.zip")});
        QByteArray csv = "batch,blade,gate,value,cycle,temperature_c,hours\n";
        for (int i = 0; i < 60; ++i)
            csv += QStringLiteral("Hedge,H%1,temper,61.%2,1,205,2\n").arg(i / 6).arg(i % 6).toUtf8();
        put(in("r.csv"), csv);
        QString first = QStringLiteral("PRAGMA application_id=%1;;PRAGMA user_version=1").arg(schema::applicationId);
        for (const char* statement : schema::migration(1)) first += QStringLiteral(";;") + QLatin1String(statement);
        QCOMPARE(fixtures::TempLogbook::meddle(in("old.rollcall"), first), QString()); // as the first Rollcall made it
    }

    void onTheCommandLine_data() {
        QTest::addColumn<QStringList>("arguments");
        QTest::addColumn<int>("before"); // readings in the logbook that is written to, and after it is done
        QTest::addColumn<int>("after");
        QTest::newRow("log") << QStringList{"log", "b.rollcall", "-", "--each"} << 6 << 26;
        QTest::newRow("log at once") << QStringList{"log", "b.rollcall", "more.jsonl"} << 6 << 11;
        QTest::newRow("import") << QStringList{"import", "b.rollcall", "--csv", "r.csv"} << 6 << 66;
        QTest::newRow("merge") << QStringList{"merge", "b.rollcall", "other.rollcall"} << 6 << 11;
        QTest::newRow("upgrade") << QStringList{"merge", "old.rollcall", "b.rollcall"} << 0 << 6;
        QTest::newRow("export") << QStringList{"export", "b.rollcall", "out.zip"} << 6 << 6;
        QTest::newRow("backup") << QStringList{"backup", "b.rollcall", "out.rollcall"} << 6 << 6;
        QTest::newRow("keep") << QStringList{"keep", "b.rollcall", "kept"} << 6 << 6;
        QTest::newRow("salvage") << QStringList{"salvage", "b.rollcall", "out.rollcall"} << 6 << 6;
        QTest::newRow("import-package") << QStringList{"import-package", "out.rollcall", "in.zip"} << 0 << 6;
        QTest::newRow("new") << QStringList{"new", "out.rollcall"} << 0 << 0;
        QTest::newRow("demo") << QStringList{"demo", "out.rollcall"} << 0 << 729;
    }
    // ROLLCALL_KILLS=N kills each N times.
    void onTheCommandLine() {
        QFETCH(QStringList, arguments);
        QFETCH(int, before);
        QFETCH(int, after);
        const QByteArray input = arguments.contains("-") ? lines(20, 20) : QByteArray();
        const auto at = [&](const QString& folder) {
            QStringList placed;
            for (const QString& one : arguments) {
                const bool file = one.contains('.') || one == "kept";
                placed << (file ? folder + '/' + one : one);
            }
            return placed;
        };
        std::mt19937 chance(7);
        long calls = 0;
        for (int kill = 0; kill <= killsOfEach(); ++kill) {
            const QTemporaryDir dir;
            copyFolder(m_made.path(), dir.path());
            const long when = kill == 0 ? 0 : 1 + static_cast<long>(chance() % static_cast<unsigned long>(calls));
            const Run first = run(QStringLiteral(ROLLCALLCTL), at(dir.path()), input, when);
            const QString where = QStringLiteral("killed at call %1 of %2").arg(when).arg(calls);
            if (kill == 0) {
                QVERIFY2(first.code == 0, first.err.constData());
                calls = first.calls;
                QVERIFY(calls > 3);
            } else {
                QVERIFY2(first.killed, qPrintable(where));
            }
            const QString book = dir.filePath(arguments[1]);
            (void)lookThrough(dir.path()); // whatever stands there is whole
            if (QFile::exists(book)) {
                const int readings = readingsIn(book);
                if (arguments.contains("--each")) {
                    const auto acknowledged = static_cast<int>(first.out.count("{\"line\":"));
                    QVERIFY2(readings >= before + acknowledged && readings <= after, qPrintable(where));
                    continue; // the same lines again would be other readings
                }
                QVERIFY2(readings == before || readings == after,
                         qPrintable(where + QStringLiteral(": %1").arg(readings)));
                if (arguments[0] == "log" && readings == after) continue;
            }
            // What was made whole before the end is refused a second time.
            const QString target = dir.filePath(arguments.last());
            const bool made = (arguments.size() == 2 || arguments[0] == "import-package")
                                  ? QFile::exists(book)
                                  : QFile::exists(target) && arguments.last().startsWith("out");
            if (made) continue;
            const Run again = run(QStringLiteral(ROLLCALLCTL), at(dir.path()), input, 0);
            QVERIFY2(again.code == 0, (where.toUtf8() + ": " + again.err).constData());
            QCOMPARE(readingsIn(book), after);
            (void)lookThrough(dir.path());
        }
    }

    // Three kills in every run; ROLLCALL_KILLS=N as many.
    void inTheWindow() {
        std::mt19937 chance(11);
        const QTemporaryDir whole;
        copyFolder(m_made.path(), whole.path());
        const Run all = run(QStringLiteral(WINDOW_WRITER), {whole.filePath("b.rollcall")}, {}, 0);
        QVERIFY2(all.code == 0, all.err.constData());
        QVERIFY(all.calls > 50);
        QCOMPARE(all.out.trimmed().split('\n').last().toInt(), 6 + 12);
        const int kills = qEnvironmentVariableIsSet("ROLLCALL_KILLS") ? killsOfEach() : 3;
        for (int kill = 0; kill < kills; ++kill) {
            const QTemporaryDir dir;
            copyFolder(m_made.path(), dir.path());
            const QString book = dir.filePath("b.rollcall");
            const long when = 1 + static_cast<long>(chance() % static_cast<unsigned long>(all.calls));
            const Run one = run(QStringLiteral(WINDOW_WRITER), {book}, {}, when);
            const QByteArray where = "killed at call " + QByteArray::number(qlonglong(when));
            QVERIFY2(one.killed || one.code == 0, where.constData()); // at its very end it may be over before
            QByteArray told = one.out.left(one.out.lastIndexOf('\n') + 1);
            const int acknowledged = told.isEmpty() ? 6 : told.trimmed().split('\n').last().toInt();
            (void)lookThrough(dir.path());
            WindowDriver d(book);
            QVERIFY(d.document().hasBatch()); // the work in hand comes back
            d.document().selectBatch(d.document().state().batches().front().id);
            d.settle();
            QCOMPARE(d.document().batch().name, std::string("Pear 1"));
            std::size_t readings = 0;
            for (const Blade& blade : d.document().batch().blades) readings += blade.readings.size();
            QVERIFY2(readings >= static_cast<std::size_t>(acknowledged), where.constData());
        }
    }
};

QTEST_MAIN(tst_Killed)
#include "tst_killed.moc"
