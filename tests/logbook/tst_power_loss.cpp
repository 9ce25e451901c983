// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "files/disk.h"
#include "logbook/schema.h"
#include "logbook/transfer/import.h"
#include "logbook/transfer/merge.h"
#include "tests/support/files.h"
#include "tests/support/fixtures.h"
#include "tests/support/old_logbook.h"
#include "tests/support/recorded_disk.h"
#include "tests/support/temp_logbook.h"

using namespace rollcall;
using fixtures::RecordedDisk;
using fixtures::TempLogbook;

// The power is cut, or the program killed, behind any call that an act makes, in states as a disk may be found then
// (RecordedDisk). Every one opens, passes its check, and holds what was acknowledged before. ROLLCALL_POWER_CUTS=1000
// tries so many states of each act instead of a few; QTEST_FUNCTION_TIMEOUT, in ms, then has to allow it.
class tst_PowerLoss : public QObject {
    Q_OBJECT

    // What was promised when so many calls had been made.
    struct Promise {
        std::size_t calls = 0;
        std::string head; ///< of the record; empty: there is none yet
    };

    QTemporaryDir m_dir{QDir::temp().filePath("rollcall-test-XXXXXX")};
    int m_states = 0;

    static int statesAsked() {
        const int asked = qEnvironmentVariableIntValue("ROLLCALL_POWER_CUTS");
        constexpr int usual = 60;
        return asked > 0 ? asked : usual;
    }
    // Cuts the power at as many moments as are asked, half of them right before or behind a flush, and looks at what is
    // found then.
    void cut(const RecordedDisk& disk, unsigned seed, const std::function<void(std::size_t calls)>& look) {
        std::mt19937 chance(seed);
        std::vector<std::size_t> moments;
        for (std::size_t i = 0; i < disk.calls(); ++i) {
            if (disk.flushes(i)) moments.insert(moments.end(), {i, i + 1});
        }
        for (int state = 0; state < statesAsked(); ++state) {
            const bool atFlush = state % 2 == 0 && !moments.empty();
            const std::size_t calls = atFlush ? moments[static_cast<std::size_t>(state / 2) % moments.size()]
                                              : std::uniform_int_distribution<std::size_t>(0, disk.calls())(chance);
            put(state % 4 == 3 ? disk.afterKill(calls) : disk.afterPowerCut(calls, chance));
            look(calls);
            if (QTest::currentTestFailed()) {
                qInfo("state %d behind %zu of %zu calls", state, calls, disk.calls());
                return;
            }
            ++m_states;
        }
    }
    QString found(const QString& name) const { return m_dir.filePath("found/" + name); }
    void put(const std::map<QByteArray, QByteArray>& files) {
        QDir(m_dir.filePath("found")).removeRecursively();
        QDir(m_dir.path()).mkdir("found");
        for (const auto& [name, content] : files) {
            if (name.endsWith(".lock")) continue; // its holder lives: here, but not after a power cut
            QFile file(found(QFile::decodeName(name)));
            if (file.open(QIODevice::WriteOnly)) file.write(content);
        }
    }
    // The logbook that is found opens to be written, is sound, and goes on from the last thing that was promised.
    static void sound(const QString& path, const std::vector<Promise>& promises, std::size_t calls) {
        const Promise* last = nullptr;
        for (const Promise& promise : promises) {
            if (promise.calls <= calls) last = &promise;
        }
        if (last == nullptr && !QFile::exists(path)) return;
        auto opened = Logbook::open(path, Logbook::Access::write);
        QVERIFY2(opened.ok(), opened.ok() ? "" : opened.error().message().c_str());
        Logbook& logbook = **opened;
        QVERIFY2(!logbook.readOnly(), logbook.readOnlyReason().c_str());
        const auto problems = logbook.check();
        QVERIFY(problems.ok());
        QVERIFY2(problems->empty(), problems->empty() ? "" : problems->front().c_str());
        if (last == nullptr || last->head.empty()) return;
        const auto missing = logbook.notHeld(last->head);
        QVERIFY(missing.ok());
        QVERIFY2(missing->empty(), missing->c_str());
    }
    static QByteArray table(int readings) {
        QByteArray csv("batch,blade,gate,temper,value,scale,tester,time\n");
        for (int i = 0; i < readings; ++i)
            csv += "Hedge," + QByteArray::number(1 + i % 6) + ",temper,1," +
                   QByteArray::number(600 + i % 9).insert(2, '.') +
                   ",HRC,Bench 1,2026-11-20T10:" + QByteArray::number(10 + i % 50) + "\n";
        return csv;
    }

private slots:
    void cleanup() {
        if (m_states > 0) qInfo("%d states", std::exchange(m_states, 0));
    }

    // What is logged by hand: readings, one struck out, a temper, and the file closed.
    void whatIsLogged() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        log->settle();
        std::vector<Promise> promises;
        RecordedDisk disk(QFileInfo(log.path()).path());
        const auto promise = [&] { promises.push_back({disk.calls(), log->head().value()}); };
        promise();
        std::string last;
        for (int i = 0; i < 6; ++i) {
            last = logReading(*log, log.reading(batch, 0, 61.0 + 0.1 * i)).value();
            promise();
        }
        QVERIFY(strikeReading(*log, last, StrikeReason::edge, "").ok());
        promise();
        log->settle();
        promise();
        QVERIFY(logReading(*log, log.reading(batch, 1, 62.4)).ok());
        promise();
        log.close();
        QVERIFY(disk.calls() > 20);
        cut(disk, 1, [&](std::size_t calls) { sound(found("shop.rollcall"), promises, calls); });
    }

    // A new logbook is whole or not there.
    void aNewLogbook() {
        QTemporaryDir dir;
        std::vector<Promise> promises;
        RecordedDisk disk(dir.path());
        {
            auto made = Logbook::create(dir.filePath("new.rollcall"));
            QVERIFY(made.ok());
            promises.push_back({disk.calls(), (*made)->head().value()});
            QVERIFY(addPerson(**made, "HB", "").ok());
            promises.push_back({disk.calls(), (*made)->head().value()});
        }
        cut(disk, 2, [&](std::size_t calls) {
            QVERIFY(calls < promises.front().calls || QFile::exists(found("new.rollcall")));
            sound(found("new.rollcall"), promises, calls);
        });
    }

    // A table of readings is taken in whole or not at all.
    void anImport() {
        TempLogbook log;
        log.withBatch();
        log->settle();
        const int before = log->counts().value().at("reading");
        RecordedDisk disk(QFileInfo(log.path()).path());
        std::vector<Promise> promises{{0, log->head().value()}};
        const auto report = importReadings(*log, fixtures::tables(), "readings.csv", table(120));
        QVERIFY2(report.ok(), report.ok() ? "" : report.error().message().c_str());
        const int taken = report->readings;
        QVERIFY(taken > 100);
        promises.push_back({disk.calls(), log->head().value()});
        log.close();
        cut(disk, 3, [&](std::size_t calls) {
            sound(found("shop.rollcall"), promises, calls);
            auto read = Logbook::open(found("shop.rollcall"), Logbook::Access::read);
            QVERIFY(read.ok());
            const int now = (*read)->counts().value().at("reading") - before;
            QVERIFY2(now == 0 || now == taken, qPrintable(QString::number(now)));
        });
    }

    // Another logbook is taken in whole or not at all, and the copy before it is there when it is.
    void aMerge() {
        TempLogbook log;
        log.withBatch();
        TempLogbook other;
        other.passTime(5000);
        QVERIFY(addPerson(*other, "WS", "").ok());
        other.close();
        log->settle();
        RecordedDisk disk(QFileInfo(log.path()).path());
        std::vector<Promise> promises{{0, log->head().value()}};
        QVERIFY(mergeLogbook(*log, other.path(), false).ok());
        promises.push_back({disk.calls(), log->head().value()});
        log.close();
        cut(disk, 4, [&](std::size_t calls) {
            sound(found("shop.rollcall"), promises, calls);
            auto read = Logbook::open(found("shop.rollcall"), Logbook::Access::read);
            QVERIFY(read.ok());
            const bool merged = !(*read)->shop()->people.empty();
            const QStringList copies = QDir(found(""))
                                           .entryList({"*.before-merge-*"}, QDir::Files)
                                           .filter(QRegularExpression("^(?!.*\\.part-)"));
            QVERIFY(!merged || copies.size() == 1);
            for (const QString& copy : copies) {
                auto kept = Logbook::open(found(copy), Logbook::Access::read);
                QVERIFY2(kept.ok(), kept.ok() ? "" : kept.error().message().c_str());
                QVERIFY((*kept)->shop()->people.empty());
            }
        });
    }

    // A logbook of an earlier Rollcall is brought up to date whole or not at all.
    void anUpgrade() {
        QTemporaryDir dir;
        const QString path = dir.filePath("old.rollcall");
        fixtures::putOldLogbook(path);
        RecordedDisk disk(dir.path());
        QVERIFY(Logbook::open(path, Logbook::Access::write).ok());
        QVERIFY(disk.calls() > 20);
        cut(disk, 5, [&](std::size_t) {
            auto opened = Logbook::open(found("old.rollcall"), Logbook::Access::write);
            QVERIFY2(opened.ok(), opened.ok() ? "" : opened.error().message().c_str());
            QCOMPARE((*opened)->schemaVersion(), schema::version);
            QCOMPARE((*opened)->shop()->people.size(), std::size_t(1));
        });
    }

    // A copy has its name only when it is whole.
    void aBackup() {
        TempLogbook log;
        log.withBatch();
        log->settle();
        const std::string head = log->head().value();
        QTemporaryDir stick;
        RecordedDisk disk(stick.path());
        QVERIFY(log->backup(stick.filePath("kept.rollcall")).ok());
        const std::vector<Promise> promises{{disk.calls(), head}};
        cut(disk, 6, [&](std::size_t calls) {
            QVERIFY(calls < promises.front().calls || QFile::exists(found("kept.rollcall")));
            sound(found("kept.rollcall"), promises, calls);
        });
    }

    // A paper is the old one or the new one, and the new one once that was said.
    void aPaper() {
        QTemporaryDir dir;
        const QByteArray before(5000, 'o');
        const QByteArray after(9000, 'n');
        fixtures::put(dir.filePath("certificate.pdf"), before);
        RecordedDisk disk(dir.path());
        QVERIFY(writeFile(dir.filePath("certificate.pdf"), after).ok());
        cut(disk, 7, [&](std::size_t calls) {
            const QByteArray now = fixtures::content(found("certificate.pdf"));
            QVERIFY(now == after || (now == before && calls < disk.calls()));
        });
    }
};

QTEST_GUILESS_MAIN(tst_PowerLoss)
#include "tst_power_loss.moc"
