// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/blades.h"
#include "logbook/actions/notes.h"
#include "logbook/actions/undo.h"
#include "logbook/read/finder.h"
#include "tests/support/temp_logbook.h"

#include <QtTest>

using namespace rollcall;
using fixtures::TempLogbook;

// What was written about a batch, a blade or in a note is found by the beginnings of its words, and no more than fits.
class tst_Finder : public QObject {
    Q_OBJECT

    static void gather(Finder& finder) {
        while (finder.step().value()) {
        }
    }
    static QStringList found(Finder& finder, const std::vector<std::string>& words, const Wanted& more = {}) {
        Wanted wanted = more;
        wanted.words = words;
        QStringList titles;
        for (const Hit& hit : finder.find(wanted, 50).value())
            titles << QString::fromStdString(hit.kind == Hit::Kind::note ? "note"
                                             : hit.mark.empty()          ? hit.batch
                                                                         : hit.mark);
        return titles;
    }

private slots:
    void byWhatIsKnown() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const QString name = QString::fromStdString(batch.name);
        const QString first = QString::fromStdString(batch.blades[0].mark);
        QVERIFY(logReading(*log, log.reading(batch, 0, 62.4)).ok());
        TemperDraft temper;
        temper.batch = batch.id;
        temper.blades = {batch.blades[1].id};
        temper.temperature_c = 207;
        temper.as_entered = "207 2";
        temper.hours = 2;
        QVERIFY(logTemper(*log, temper).ok());
        Finder finder(*log);
        gather(finder);
        QCOMPARE(finder.left().first, std::size_t(0));
        QCOMPARE(found(finder, {"62.4"}), QStringList{first});
        QCOMPARE(found(finder, {"62"}), QStringList{first}); // the beginning of it
        QCOMPARE(found(finder, {"2.4"}), QStringList());     // a word is not found by its end
        QVERIFY(found(finder, {batch.name}).contains(name));
        QCOMPARE(found(finder, {"115crv3"}).size(), 3); // the batch and both its blades
        // Quotation marks and signs of a search language are words like all others, or none.
        for (const char* odd : {"\"", "a\" OR b", "*", "NEAR(", "-x", "\xC3\xA4\"*"})
            QVERIFY2(finder.find(Wanted{{odd}, {}, {}, {}, {}, {}}, 10).ok(), odd);
        Wanted tempered;
        tempered.tempered_c = {205, 210};
        QCOMPARE(found(finder, {}, tempered), QStringList{QString::fromStdString(batch.blades[1].mark)});
        tempered.tempered_c = {208, 210};
        QCOMPARE(found(finder, {}, tempered), QStringList());
        Wanted grade;
        grade.grade = "80CrV2";
        QCOMPARE(found(finder, {}, grade), QStringList());
        Wanted time;
        time.since_ms = log->now().utc_ms + 1000;
        QCOMPARE(found(finder, {}, time), QStringList());
        time.since_ms = log->now().utc_ms - 86400000;
        QCOMPARE(found(finder, {}, time).size(), 3);
    }

    // What is done while somebody looks is found, what was undone is not; the batch alone is read anew.
    void whatIsDoneMeanwhile() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        Finder finder(*log);
        gather(finder);
        (void)log->takeTouched();
        QCOMPARE(found(finder, {"slipped"}), QStringList());
        Note note;
        note.text = "slipped in the vice";
        note.blade = batch.blades[0].id;
        QVERIFY(addNote(*log, batch.id, note).ok());
        finder.touched(log->takeTouched());
        QCOMPARE(finder.left().first, std::size_t(1));
        gather(finder);
        QCOMPARE(found(finder, {"slip", "vice"}), QStringList{"note"});
        QVERIFY(undo(*log, lastAct(*log).value()->entry).ok());
        finder.touched(log->takeTouched());
        gather(finder);
        QCOMPARE(found(finder, {"slipped"}), QStringList());
        QCOMPARE(found(finder, {"115CrV3"}).size(), 3); // once each, not twice
    }

    // One that is open for reading only is searched too, and not a byte of it changes.
    void aLogbookForReading() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        log.close();
        QFile file(log.path());
        QVERIFY(file.open(QIODevice::ReadOnly));
        const QByteArray before = file.readAll();
        {
            auto opened = Logbook::open(log.path(), Logbook::Access::read);
            QVERIFY(opened.ok());
            Finder finder(**opened);
            gather(finder);
            QCOMPARE(found(finder, {batch.blades[0].mark}).first(), QString::fromStdString(batch.blades[0].mark));
        }
        QVERIFY(file.seek(0));
        QCOMPARE(file.readAll(), before);
    }
};

QTEST_GUILESS_MAIN(tst_Finder)
#include "tst_finder.moc"
