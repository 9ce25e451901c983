// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/notes.h"
#include "logbook/database.h"
#include "logbook/read/finder.h"
#include "logbook/schema.h"
#include "tests/support/temp_logbook.h"

#include <QtTest>

using namespace rollcall;
using fixtures::TempLogbook;

// Plain notes: kept with the batch, never changed, found again by their words.
class tst_Notes : public QObject {
    Q_OBJECT

    static Note on(const std::string& text, const std::string& blade = {}, const std::string& reading = {}) {
        Note note;
        note.text = text;
        note.blade = blade;
        note.reading = reading;
        return note;
    }

private slots:
    void areKeptOnBatchBladeAndReading() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const auto reading = logReading(*log, log.reading(batch, 0, 62.1));
        log->setPerson("HB");
        (void)log->takeTouched();
        QVERIFY(addNote(*log, batch.id, on("the oil smelt burnt")).ok());
        QCOMPARE(log->takeTouched().batches, std::set<std::string>{batch.id});
        QVERIFY(addNote(*log, batch.id, on("a tick on the anvil", batch.blades[0].id, *reading)).ok());
        const Batch kept = log->batch(batch.id).value();
        QCOMPARE(kept.notes.size(), std::size_t(2));
        QCOMPARE(kept.notes[0].text, std::string("the oil smelt burnt"));
        QCOMPARE(kept.notes[0].by, std::string("HB"));
        QVERIFY(kept.notes[0].blade.empty() && kept.notes[0].at.utc_ms > 0);
        QCOMPARE(kept.notes[1].blade, batch.blades[0].id);
        QCOMPARE(kept.notes[1].reading, *reading);
        QVERIFY(log->check().value().empty());
    }

    void whatCannotBeIsRefusedAndLeavesNoTrace() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const auto reading = logReading(*log, log.reading(batch, 0, 62.1));
        const int changes = log->counts().value().at("change");
        QVERIFY(!addNote(*log, batch.id, on("  ")).ok());
        QVERIFY(!addNote(*log, batch.id, on(std::string(2001, 'a'))).ok());
        QVERIFY(!addNote(*log, batch.id, on("x", "no blade")).ok());
        QVERIFY(!addNote(*log, batch.id, on("x", batch.blades[1].id, *reading)).ok());
        QVERIFY(!addNote(*log, "no batch", on("x")).ok());
        QCOMPARE(log->counts().value().at("change"), changes);
        QVERIFY(addNote(*log, batch.id, on(std::string(2000, 'a'))).ok());
    }

    void neverChange() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        QVERIFY(addNote(*log, batch.id, on("one")).ok());
        QVERIFY(!log->database().run(QStringLiteral("UPDATE note SET text='other'")).ok());
        QVERIFY(!log->database().run(QStringLiteral("DELETE FROM note")).ok());
    }

    // Every word counts, in any case, wherever it stands; the newest come first.
    void areFoundByTheirWords() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        for (const char* text : {"The oil smelt burnt", "Ölwechsel, neues Fass", "oil changed", "new belt"}) {
            QVERIFY(addNote(*log, batch.id, on(text)).ok());
            log.passTime(60'000);
        }
        QVERIFY(addNote(*log, batch.id, on("bent a little", batch.blades[1].id)).ok());
        Finder finder(*log);
        while (finder.step().value()) {
        }
        const auto texts = [&](const char* words, int most = 10) {
            Wanted wanted;
            wanted.words = split(words, ' ');
            QStringList found;
            const auto hits = finder.find(wanted, 50);
            for (const Hit& one : hits.value()) {
                if (one.kind == Hit::Kind::note && found.size() < most)
                    found << QString::fromStdString(one.text).section(QStringLiteral(" \u00B7 "), 0, 0);
            }
            return found;
        };
        QCOMPARE(texts("OIL"), QStringList({"oil changed", "The oil smelt burnt"}));
        QCOMPARE(texts("burnt oil"), QStringList({"The oil smelt burnt"}));
        QCOMPARE(texts("\u00F6lwechsel"), QStringList({"\u00D6lwechsel, neues Fass"}));
        QCOMPARE(texts("oil belt"), QStringList());
        QCOMPARE(texts("", 2), QStringList({"bent a little", "new belt"}));
        QCOMPARE(texts("bent"), QStringList({"bent a little"}));
    }

    // A logbook of the schema before notes opens, is copied first, and takes them.
    void anOlderLogbookTakesThem() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        log.close();
        const QString path = log.path();
        QCOMPARE(TempLogbook::meddle(path,
                                     "DROP TABLE study_plan;;DROP TABLE block_certificate;;DROP TABLE cold;;DROP TABLE "
                                     "blade_claim;;DROP VIEW "
                                     "taken_back;;DROP TABLE undone;;DROP "
                                     "TABLE note;;DROP TABLE damage_clear;;DROP TABLE surprise_look;;DROP TABLE "
                                     "gate_means;;DROP TABLE steel_part;;DROP "
                                     "TABLE batch_rules;;DROP TABLE batch_rule;;DROP TABLE temper_meant;;DROP TABLE "
                                     "zone_window;;DROP TABLE reading_zone;;PRAGMA user_version=7"),
                 QString());
        auto opened = Logbook::open(path, Logbook::Access::write);
        QVERIFY(opened.ok());
        QVERIFY(QFile::exists(path + QStringLiteral(".before-schema-%1").arg(schema::version)));
        QVERIFY((*opened)->batch(batch.id)->notes.empty());
        QVERIFY(addNote(**opened, batch.id, on("late")).ok());
        QCOMPARE((*opened)->batch(batch.id)->notes.size(), std::size_t(1));
    }
};

QTEST_GUILESS_MAIN(tst_Notes)
#include "tst_notes.moc"
