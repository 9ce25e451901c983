// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/transfer/kept_copies.h"
#include "tests/support/files.h"
#include "tests/support/temp_logbook.h"

using namespace rollcall;
using fixtures::TempLogbook;

// Copies against loss: one more where something was logged, looked through before it counts, fewer the older they are.
class tst_KeptCopies : public QObject {
    Q_OBJECT

    static QDateTime at(const QString& moment) {
        QDateTime time = QDateTime::fromString(moment, QStringLiteral("yyyy-MM-dd HH:mm"));
        time.setTimeSpec(Qt::UTC);
        return time;
    }
    static std::vector<KeptCopy> everyMinutes(int minutes, int count) {
        std::vector<KeptCopy> copies;
        QDateTime time = at("2026-11-28 14:05");
        for (int i = 0; i < count; ++i, time = time.addSecs(-60LL * minutes))
            copies.push_back({time.toString("yyyy-MM-dd HH:mm"), time});
        return copies;
    }
    static std::vector<QString> staying(const std::vector<KeptCopy>& copies) {
        const auto go = superfluous(copies);
        std::vector<QString> stay;
        for (const KeptCopy& copy : copies) {
            const bool goes = std::any_of(go.begin(), go.end(), [&](const auto& one) { return one.path == copy.path; });
            if (!goes) stay.push_back(copy.path);
        }
        return stay;
    }

private slots:
    // A copy each ten minutes of three days: the newest of each of 24 hours, then of each day.
    void theNewestOfEachHourAndDay() {
        const auto stay = staying(everyMinutes(10, 3 * 24 * 6));
        QCOMPARE(stay.front(), QStringLiteral("2026-11-28 14:05"));
        QCOMPARE(stay[1], QStringLiteral("2026-11-28 13:55"));
        QVERIFY(std::find(stay.begin(), stay.end(), "2026-11-27 23:55") != stay.end()); // the newest of yesterday
        QVERIFY(std::find(stay.begin(), stay.end(), "2026-11-26 23:55") != stay.end());
        QVERIFY(std::find(stay.begin(), stay.end(), "2026-11-26 20:55") == stay.end());
        QCOMPARE(stay.size(), std::size_t(24 + 2)); // 24 hours, which hold the newest of two days; two days before
    }

    // A copy a day for two years: seven days, five weeks, twelve months, some of them one and the same.
    void fewerTheOlder() {
        const auto stay = staying(everyMinutes(24 * 60, 730));
        QVERIFY(stay.size() >= 24 && stay.size() <= 24 + 12);
        QCOMPARE(stay.back(), QStringLiteral("2025-12-31 14:05")); // the twelfth month back
        QCOMPARE(stay[0], QStringLiteral("2026-11-28 14:05"));
        QVERIFY(std::find(stay.begin(), stay.end(), "2026-08-31 14:05") != stay.end());
        QVERIFY(std::find(stay.begin(), stay.end(), "2026-08-30 14:05") == stay.end());
    }

    // However few there are, all stay; a single one does.
    void theLastOneNeverGoes() {
        QVERIFY(superfluous(everyMinutes(10, 1)).empty());
        QVERIFY(superfluous({}).empty());
        QVERIFY(superfluous(everyMinutes(400 * 24 * 60, 3)).empty());
    }

    void aCopyIsMadeWhereSomethingIsNew() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        QTemporaryDir stick;
        const QString folder = stick.filePath("copies");
        const auto first = keepCopy(*log, log.path(), folder);
        QVERIFY2(first.ok(), first.ok() ? "" : first.error().message().c_str());
        QVERIFY(first->made.has_value());
        QCOMPARE(first->kept, 1);
        const auto same = keepCopy(*log, log.path(), folder);
        QVERIFY(same.ok() && !same->made);
        QVERIFY(logReading(*log, log.reading(batch, 0, 62.4)).ok());
        log.passTime(5000);
        const auto second = keepCopy(*log, log.path(), folder);
        QVERIFY(second.ok() && second->made);
        QCOMPARE(second->removed, 1); // both of one hour
        const auto copies = keptCopies(folder, log.path());
        QCOMPARE(copies.size(), std::size_t(1));
        QCOMPARE(QFileInfo(copies.front().path).fileName().left(5), QStringLiteral("shop "));
        QVERIFY(copies.front().path.endsWith(".rollcall"));
    }

    // What lies there under other names is nobody's copy and stays.
    void othersAreLeftAlone() {
        TempLogbook log;
        log.withBatch();
        QTemporaryDir stick;
        for (const char* name : {"shop 2026-01-01 120000.rollcall.old", "shop.rollcall",
                                 "workshop 2026-01-01 120000.rollcall", "shop 2026-13-41 999999.rollcall"})
            fixtures::put(stick.filePath(name), "mine");
        QVERIFY(keepCopy(*log, log.path(), stick.path()).ok());
        QCOMPARE(keptCopies(stick.path(), log.path()).size(), std::size_t(1));
        QCOMPARE(QDir(stick.path()).entryList(QDir::Files).size(), 5);
    }

    // Lost with its disk, it goes on from the newest copy, with all that this one had.
    void aRehearsedRestore() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        QVERIFY(logReading(*log, log.reading(batch, 0, 62.4)).ok());
        QTemporaryDir stick;
        QVERIFY(keepCopy(*log, log.path(), stick.path()).ok());
        const std::string head = log->head().value();
        log.close();
        QVERIFY(QFile::remove(log.path()));
        const auto copies = keptCopies(stick.path(), log.path());
        QCOMPARE(copies.size(), std::size_t(1));
        {
            auto look = Logbook::open(copies.front().path, Logbook::Access::read);
            QVERIFY(look.ok());
            QVERIFY((*look)->backup(log.path()).ok());
        }
        QVERIFY(log.reopen().ok());
        QVERIFY(!log->readOnly());
        QVERIFY(log->notHeld(head)->empty());
        QVERIFY(log->check()->empty());
        QVERIFY(logReading(*log, log.reading(batch, 0, 62.5)).ok());
    }

    // A damaged logbook is told at once, and the sound copies of before stay.
    void aDamagedOneIsNotKept() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        QVERIFY(logReading(*log, log.reading(batch, 0, 62.4)).ok());
        QTemporaryDir stick;
        QVERIFY(keepCopy(*log, log.path(), stick.path()).ok());
        QVERIFY(logReading(*log, log.reading(batch, 0, 62.5)).ok());
        log.close();
        QCOMPARE(TempLogbook::meddle(log.path(), "DROP TRIGGER reading_no_update;;UPDATE reading SET value=70 WHERE "
                                                 "value=62.4;;CREATE TRIGGER reading_no_update BEFORE UPDATE ON "
                                                 "reading BEGIN SELECT RAISE(ABORT, 'reading is append-only'); END"),
                 QString());
        QVERIFY(log.reopen(Logbook::Access::read).ok());
        const auto kept = keepCopy(*log, log.path(), stick.path());
        QVERIFY(!kept.ok());
        QCOMPARE(kept.error().kind, ErrorKind::damaged);
        QVERIFY2(kept.error().text.find("is not what the change log says") != std::string::npos,
                 kept.error().text.c_str());
        QCOMPARE(keptCopies(stick.path(), log.path()).size(), std::size_t(1));
    }
};

QTEST_GUILESS_MAIN(tst_KeptCopies)
#include "tst_kept_copies.moc"
