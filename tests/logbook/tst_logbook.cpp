// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/gates.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/instruments.h"
#include "tests/support/fixtures.h"
#include "tests/support/temp_logbook.h"

using namespace rollcall;
using fixtures::TempLogbook;

class tst_Logbook : public QObject {
    Q_OBJECT

private slots:
    void keepsABatchAsItWasTyped() {
        TempLogbook log;
        log.withBatch();
        QVERIFY(log.reopen().ok());
        const auto summaries = log->batches().value();
        QCOMPARE(summaries.size(), std::size_t(1));
        QCOMPARE(summaries[0].grade, std::string("115CrV3"));
        QCOMPARE(log->gatesAsked().value()[summaries[0].id], (std::vector<Gate>{Gate::quench, Gate::temper}));
        const Batch batch = log->batch(summaries[0].id).value();
        QCOMPARE(batch.window.low.value(), 61.0);
        QCOMPARE(batch.window.high.value(), 63.0);
        QCOMPARE(batch.planOf(Gate::quench).planned_readings, 2);
        QVERIFY(!batch.planOf(Gate::edge).required);
        QCOMPARE(batch.blades.size(), std::size_t(2));
        QCOMPARE(batch.blades[0].shape.outline, BladeShape::knife(58, 16, 2.4).outline);
        QCOMPARE(batch.blades[0].shape.thickness_mm, 2.4);
        QCOMPARE(batch.blades[0].round, 1);
    }

    void refusesBatchesThatCannotBe() {
        TempLogbook log;
        BatchDraft draft;
        draft.blades = {{"A", {}, ""}};
        QCOMPARE(addBatch(*log, draft).error().place, std::string("name"));
        draft.name = "X";
        draft.blades.clear();
        QCOMPARE(addBatch(*log, draft).error().place, std::string("blades"));
        draft.blades = {{"A", {}, ""}, {"A", {}, ""}};
        QCOMPARE(addBatch(*log, draft).error().text, std::string("two blades are marked A"));
        draft.blades.pop_back();
        draft.window = {63, 61};
        QCOMPARE(addBatch(*log, draft).error().place, std::string("window"));
        draft.window = {61, 63};
        QVERIFY(addBatch(*log, draft).ok());
        QCOMPARE(addBatch(*log, draft).error().place, std::string("name"));
        QCOMPARE(log->counts().value().at("batch"), 1); // nothing of the refused ones is left
    }

    void readingsAreOnlyEverAdded() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const std::string id = logReading(*log, log.reading(batch, 0, 62.1)).value();
        QVERIFY(strikeReading(*log, id, StrikeReason::seating, "swarf").ok());
        QVERIFY(!strikeReading(*log, id, StrikeReason::edge, "").ok()); // once is enough
        const Blade blade = log->batch(batch.id).value().blades[0];
        QCOMPARE(blade.readings.size(), std::size_t(1));
        QCOMPARE(blade.readings[0].struck->reason, StrikeReason::seating);
        QCOMPARE(blade.readings[0].struck->note, std::string("swarf"));
        log.close();
        // The database itself refuses, whatever program asks.
        QVERIFY(TempLogbook::meddle(log.path(), "UPDATE reading SET value=65").contains("append-only"));
        QVERIFY(TempLogbook::meddle(log.path(), "DELETE FROM reading").contains("append-only"));
        QVERIFY(TempLogbook::meddle(log.path(), "DELETE FROM reading_mark").contains("append-only"));
        QVERIFY(TempLogbook::meddle(log.path(), "DELETE FROM change").contains("append-only"));
        QVERIFY(log.reopen().ok());
        QCOMPARE(log->batch(batch.id).value().blades[0].readings[0].value, 62.1);
    }

    void aReadingKnowsItsChain() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        log->setPerson("HB");
        ReadingDraft draft = log.reading(batch, 1, 61.9);
        draft.spot = Spot{12.5, 2.6};
        draft.note = "after lunch";
        QVERIFY(logReading(*log, draft).ok());
        const Reading r = log->batch(batch.id).value().blades[1].readings.at(0);
        QCOMPARE(r.tester, log.tester());
        QCOMPARE(r.indenter, std::string("cone"));
        QCOMPARE(r.anvil, std::string("flat"));
        QCOMPARE(r.person, std::string("HB"));
        QCOMPARE(r.spot.value(), (Spot{12.5, 2.6}));
        QCOMPARE(r.time->offset_minutes, 60);
        QCOMPARE(r.note, std::string("after lunch"));
        draft.tester = "nobody";
        QCOMPARE(logReading(*log, draft).error().kind, ErrorKind::refused);
    }

    void verificationsAreRunsOfReadings() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const std::string run = startVerification(*log, log.tester(), log.block()).value();
        for (const double value : {62.7, 62.9, 61.0}) QVERIFY(logBlockReading(*log, run, value, "").ok());
        Batch loaded = log->batch(batch.id).value();
        QCOMPARE(loaded.verifications.size(), std::size_t(1));
        QCOMPARE(loaded.verifications[0].readings, (std::vector<double>{62.7, 62.9, 61.0}));
        QCOMPARE(loaded.verifications[0].certified, 62.6);
        QVERIFY(strikeReading(*log, loaded.verifications[0].reading_ids[2], StrikeReason::overshoot, "").ok());
        QCOMPARE(log->batch(batch.id).value().verifications[0].readings.size(), std::size_t(2));
        QVERIFY(!startVerification(*log, log.tester(), "no block").ok());
        QVERIFY(!logBlockReading(*log, "no run", 62, "").ok());
    }

    void tempersAreCountedForEachBlade() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        TemperDraft temper;
        temper.batch = batch.id;
        temper.temperature_c = 190;
        temper.hours = 2;
        QVERIFY(!logTemper(*log, temper).ok()); // for no blade
        temper.blades = {batch.blades[0].id, batch.blades[1].id};
        QVERIFY(logTemper(*log, temper).ok());
        temper.blades = {batch.blades[0].id};
        temper.temperature_c = 207;
        const std::string second = logTemper(*log, temper).value();
        Batch loaded = log->batch(batch.id).value();
        QCOMPARE(lastTemper(loaded.blades[0]), 2);
        QCOMPARE(lastTemper(loaded.blades[1]), 1);
        QCOMPARE(loaded.blades[0].tempers[1].temperature_c.value(), 207.0);
        QVERIFY(strikeTemper(*log, second, "logged by mistake").ok());
        QCOMPARE(lastTemper(log->batch(batch.id).value().blades[0]), 1);
        // A new hardening round begins its count anew.
        QVERIFY(reharden(*log, batch.blades[0].id, "soft", std::nullopt).ok());
        loaded = log->batch(batch.id).value();
        QCOMPARE(loaded.blades[0].round, 2);
        QCOMPARE(lastTemper(loaded.blades[0]), 0);
        QVERIFY(logTemper(*log, temper).ok());
        QCOMPARE(log->batch(batch.id).value().blades[0].tempers.back().number, 1);
    }

    // Marks ground off belong to an earlier surface; readings made before and after tell which.
    void marksAreGroundOff() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const std::string blade = batch.blades[0].id;
        QVERIFY(!grindOff(*log, blade).ok()); // nothing to grind off
        const auto at = [&](double x) {
            ReadingDraft draft = log.reading(batch, 0, 62.1);
            draft.spot = Spot{x, 3};
            return logReading(*log, draft).ok();
        };
        QVERIFY(at(10) && at(20));
        QVERIFY(grindOff(*log, blade).ok());
        QVERIFY(at(10.5));
        QVERIFY(grindOff(*log, blade).ok());
        QVERIFY(at(10.2));
        QVERIFY(log.reopen().ok());
        const Blade loaded = log->batch(batch.id).value().blades[0];
        QCOMPARE(loaded.surface, 2);
        std::vector<int> surfaces;
        for (const Reading& reading : loaded.readings) surfaces.push_back(reading.surface);
        QCOMPARE(surfaces, (std::vector<int>{0, 0, 1, 2}));
        QVERIFY(log->check().value().empty());
    }

    void excusesFatesAndNames() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        QVERIFY(!excuse(*log, batch.blades[0].id, Gate::temper, " ").ok());
        QVERIFY(excuse(*log, batch.blades[0].id, Gate::temper, "a sibling stands").ok());
        QVERIFY(takeOut(*log, batch.blades[1].id, Fate::cracked, Gate::quench, "in the oil").ok());
        QVERIFY(!takeOut(*log, batch.blades[1].id, Fate::scrapped, Gate::quench, "twice").ok());
        QCOMPARE(renameBlade(*log, batch.blades[0].id, "A-2").error().place, std::string("mark"));
        QVERIFY(renameBlade(*log, batch.blades[0].id, "A-9").ok());
        QVERIFY(changeLimits(*log, batch.id, {60, 62}, "60:62", 64.0).ok());
        QVERIFY(changePlan(*log, batch.id, Gate::temper, {true, 5}).ok());
        const Batch loaded = log->batch(batch.id).value();
        QCOMPARE(loaded.blades[0].mark, std::string("A-9"));
        QCOMPARE(loaded.blades[0].excuses[0].reason, std::string("a sibling stands"));
        QCOMPARE(loaded.blades[1].fate->fate, Fate::cracked);
        QCOMPARE(loaded.window.low.value(), 60.0);
        QCOMPARE(loaded.quench_minimum.value(), 64.0);
        QCOMPARE(loaded.planOf(Gate::temper).planned_readings, 5);
        QVERIFY(log->check().value().empty());
    }

    void aSecondOpenerIsTold() {
        TempLogbook log;
        const auto second = Logbook::open(log.path(), Logbook::Access::write);
        QVERIFY(!second.ok());
        QCOMPARE(second.error().kind, ErrorKind::locked);
        QVERIFY(second.error().text.find("is open in another window") != std::string::npos);
        log.close();
        QVERIFY(Logbook::open(log.path(), Logbook::Access::write).ok());
    }

    void whatIsNoLogbookIsNotTouched() {
        QTemporaryDir dir;
        const QString path = dir.filePath("notes.rollcall");
        const auto write = [&](const QByteArray& bytes) {
            QFile file(path);
            QVERIFY(file.open(QIODevice::WriteOnly));
            file.write(bytes);
        };
        QCOMPARE(Logbook::open(path, Logbook::Access::write).error().kind, ErrorKind::input);       // missing
        QCOMPARE(Logbook::open(dir.path(), Logbook::Access::write).error().kind, ErrorKind::input); // a folder
        write("these are only notes, long enough to look like something");
        QCOMPARE(Logbook::open(path, Logbook::Access::write).error().kind, ErrorKind::damaged);
        QFile file(path);
        QVERIFY(file.open(QIODevice::ReadOnly));
        QVERIFY(file.readAll().startsWith("these are only notes"));
        QCOMPARE(Logbook::create(path).error().kind, ErrorKind::exists);
    }

    void aForeignDatabaseIsRefused() {
        QTemporaryDir dir;
        const QString path = dir.filePath("other.db");
        QCOMPARE(TempLogbook::meddle(path, "CREATE TABLE t (x)"), QString());
        QCOMPARE(Logbook::open(path, Logbook::Access::write).error().kind, ErrorKind::damaged);
    }

    void aNewerLogbookIsReadOnly() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        log.close();
        QCOMPARE(TempLogbook::meddle(log.path(), "PRAGMA user_version=99"), QString());
        QVERIFY(log.reopen().ok());
        QVERIFY(log->readOnly());
        QCOMPARE(log->batches().value().size(), std::size_t(1));
        const auto refused = logReading(*log, log.reading(batch, 0, 62));
        QVERIFY(!refused.ok());
        QVERIFY(refused.error().text.find("newer Rollcall") != std::string::npos);
    }

    void aClosedLogbookIsOneFileThatAReadOnlyFolderCanHold() {
        TempLogbook log;
        log.withBatch();
        log.close();
        QVERIFY(!QFile::exists(log.path() + "-wal"));
        QVERIFY(!QFile::exists(log.path() + ".lock"));
        const auto opened = Logbook::open(log.path(), Logbook::Access::read);
        QVERIFY(opened.ok());
        QCOMPARE((*opened)->batches().value().size(), std::size_t(1));
    }

    void aFailedActionLeavesNoTrace() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const auto before = log->counts().value();
        TemperDraft temper;
        temper.batch = batch.id;
        temper.blades = {batch.blades[0].id, "no such blade"};
        QVERIFY(!logTemper(*log, temper).ok());
        QCOMPARE(log->counts().value(), before);
        QVERIFY(log->check().value().empty());
    }

    void manyActionsInOneTransaction() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const auto before = log->counts().value();
        const auto failed = log->inOneTransaction([&]() -> Result<Done> {
            if (!logReading(*log, log.reading(batch, 0, 62)).ok()) return Error{};
            return Error{ErrorKind::refused, "", "second thoughts"};
        });
        QVERIFY(!failed.ok());
        QCOMPARE(log->counts().value(), before);
    }
};

QTEST_GUILESS_MAIN(tst_Logbook)
#include "tst_logbook.moc"
