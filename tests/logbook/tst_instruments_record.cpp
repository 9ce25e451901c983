// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/blades.h"
#include "logbook/actions/heat.h"
#include "logbook/actions/instruments.h"
#include "logbook/transfer/import.h"
#include "tests/support/fixtures.h"
#include "tests/support/temp_logbook.h"

using namespace rollcall;
using fixtures::TempLogbook;

// Testers, blocks, files, series and second sets in the record.
class tst_InstrumentsRecord : public QObject {
    Q_OBJECT

    static Blade blade(TempLogbook& log, std::size_t index = 0) {
        return log->batch(log->batches().value().front().id).value().blades[index];
    }

private slots:
    void testersChangeAndReadingsKeepTheirSetting() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        QVERIFY(logReading(*log, log.reading(batch, 0, 62.1)).ok());
        Tester tester = log->shop().value().testers.at(0);
        tester.indenter = "another cone";
        tester.anvil = "spot";
        QVERIFY(changeTester(*log, tester).ok());
        QVERIFY(logReading(*log, log.reading(batch, 0, 62.2)).ok());
        const Blade read = blade(log);
        QCOMPARE(read.readings[0].indenter, std::string("cone"));
        QCOMPARE(read.readings[1].indenter, std::string("another cone"));
        QCOMPARE(read.readings[1].anvil, std::string("spot"));
        QVERIFY(log->check().value().empty());    // the change is in the change log
        QVERIFY(!addTester(*log, Tester()).ok()); // no name
    }

    // A form that was filled in while another logbook came in hand: what it would change is not there. It was told of
    // in the change log all the same, and the logbook did not pass its check any more.
    void whatIsNotThereCannotBeChanged() {
        TempLogbook log;
        log.withBatch();
        const int before = log->counts().value().at("change");
        Tester tester = log->shop().value().testers.at(0);
        tester.id = "a tester of another logbook";
        Block block;
        block.id = "a block of another logbook";
        block.name = "62.6";
        block.certified = 62.6;
        Oven oven;
        oven.id = "an oven of another logbook";
        oven.name = "Kiln";
        for (const Result<Done>& done :
             {changeTester(*log, tester), changeBlock(*log, block), changeOven(*log, oven)}) {
            QVERIFY(!done.ok());
            QVERIFY2(done.error().text.find("is not in this logbook") != std::string::npos, done.error().text.c_str());
        }
        QCOMPARE(log->counts().value().at("change"), before);
        QCOMPARE(log->check().value(), std::vector<std::string>());
    }

    void fileSetsAndTheirTries() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        Tester set;
        set.name = "Files";
        set.kind = TesterKind::files;
        set.files = {40, 52.5, 65};
        const std::string id = addTester(*log, set).value();
        QCOMPARE(log->shop().value().testers.back().files, set.files);
        QCOMPARE(log->shop().value().testers.back().kind, TesterKind::files);
        FileTest test;
        test.gate = Gate::temper;
        test.after_temper = 1;
        QVERIFY(!logFileTest(*log, batch.blades[0].id, id, test).ok()); // nothing tried
        test.trials = {{40, FileTouch::skates}, {52.5, FileTouch::touches}, {65, FileTouch::bites}};
        test.surface = Surface::decarburised;
        QVERIFY(logFileTest(*log, batch.blades[0].id, id, test).ok());
        const Blade tried = blade(log);
        QCOMPARE(tried.file_tests.size(), std::size_t(1));
        QCOMPARE(tried.file_tests[0].trials.size(), std::size_t(3));
        QCOMPARE(tried.file_tests[0].surface, Surface::decarburised);
        QCOMPARE(tried.file_tests[0].after_temper, 1);
        QVERIFY(blade(log, 1).file_tests.empty());
    }

    void blocksCountTheirIndents() {
        TempLogbook log;
        log.withBatch();
        const std::string run = startVerification(*log, log.tester(), log.block()).value();
        const std::string first = logBlockReading(*log, run, 62.7, "62.7").value();
        QVERIFY(logBlockReading(*log, run, 62.8, "62.8").ok());
        QVERIFY(strikeReading(*log, first, StrikeReason::seating, "").ok());
        Block block = log->shop().value().blocks.at(0);
        QCOMPARE(block.used, 2); // a struck reading leaves its mark too
        QCOMPARE(log->verifications().value().at(0).readings.size(), std::size_t(1));
        block.used_before = 40;
        block.spacing_mm = 2;
        QVERIFY(changeBlock(*log, block).ok());
        QCOMPARE(log->shop().value().blocks.at(0).used_before, 40);
        block.spacing_mm = 0;
        QVERIFY(!changeBlock(*log, block).ok()); // the record itself refuses what cannot be
        QVERIFY(log->check().value().empty());
    }

    void aSeriesIsOneAction() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        SeriesDraft series;
        QVERIFY(!logSeries(*log, series).ok());
        series.instrument_mean = 62.4;
        series.support = "heavy block";
        for (const double value : {62.0, 62.2, 63.9}) series.strikes.push_back(log.reading(batch, 1, value));
        series.strikes[1].convex_radius_mm = 9.5;
        const int before = log->counts().value().at("change");
        QVERIFY(logSeries(*log, series).ok());
        QCOMPARE(log->counts().value().at("change"), before + 1);
        const Blade struck = blade(log, 1);
        QCOMPARE(struck.readings.size(), std::size_t(3));
        QCOMPARE(struck.series.at(0).support, std::string("heavy block"));
        QCOMPARE(struck.readings[2].series, struck.series[0].id);
        QCOMPARE(struck.readings[1].convex_radius_mm.value(), 9.5);
        series.strikes[1].blade = "nobody"; // fails in the middle: nothing of it stays
        QVERIFY(!logSeries(*log, series).ok());
        QCOMPARE(blade(log, 1).readings.size(), std::size_t(3));
        QCOMPARE(blade(log, 1).series.size(), std::size_t(1));
    }

    void aSupersededSetNeedsAReasonAndStays() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        std::vector<std::string> ids;
        for (const double value : {62.0, 62.2}) ids.push_back(logReading(*log, log.reading(batch, 0, value)).value());
        QVERIFY(!supersedeReadings(*log, ids, "  ").ok());
        QVERIFY(supersedeReadings(*log, ids, "Bench 2 stands: nearer block").ok());
        const Blade read = blade(log);
        QCOMPARE(read.readings.size(), std::size_t(2));
        for (const Reading& r : read.readings) {
            QCOMPARE(r.struck->reason, StrikeReason::superseded);
            QCOMPARE(r.struck->note, std::string("Bench 2 stands: nearer block"));
        }
        QVERIFY(!supersedeReadings(*log, {"nobody"}, "x").ok());
    }

    void listsWhatHangsOnATester() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        QVERIFY(logReading(*log, log.reading(batch, 0, 62.1)).ok());
        const Instant between = log->now();
        const std::string struck = logReading(*log, log.reading(batch, 1, 61.0)).value();
        QVERIFY(logReading(*log, log.reading(batch, 1, 62.3)).ok());
        QVERIFY(strikeReading(*log, struck, StrikeReason::edge, "").ok());
        const auto since = log->readingsSince(log.tester(), between).value();
        QCOMPARE(since.size(), std::size_t(1));
        QCOMPARE(since[0].mark, std::string("A-2"));
        QCOMPARE(since[0].batch, std::string("Orchard"));
        QCOMPARE(since[0].value, 62.3);
        QVERIFY(log->readingsSince("another", between).value().empty());
    }

    // Five sets of three with s 0.1 on earlier days: sigma-0 0.1 with ten degrees of freedom, and none of today's.
    void learnsATestersScatterFromTheDaysBefore() {
        TempLogbook log;
        log.withBatch();
        QVERIFY(!log->shop().value().testers[0].learned);
        QByteArray csv("batch,blade,gate,value,time,tester\n");
        for (int set = 0; set < 5; ++set) {
            for (const char* value : {"62.0", "62.1", "62.2"})
                csv += QByteArray("Old,B") + QByteArray::number(set) + ",quench," + value + ",2020-03-0" +
                       QByteArray::number(set + 1) + "T10:00:00Z,Bench 1\n";
        }
        QVERIFY(importReadings(*log, fixtures::tables(), "old.csv", csv).ok());
        QVERIFY(log.reopen().ok());
        const auto learned = log->shop().value().testers[0].learned;
        QVERIFY(learned.has_value());
        QCOMPARE(learned->dof, 10.0);
        QVERIFY(std::abs(learned->sd - 0.1) < 1e-9);
        const Batch batch = log->batch(log->batches().value().front().id).value();
        for (const double value : {60.0, 65.0, 55.0}) QVERIFY(logReading(*log, log.reading(batch, 0, value)).ok());
        QVERIFY(log.reopen().ok());
        QVERIFY(std::abs(log->shop().value().testers[0].learned->sd - 0.1) < 1e-9); // today does not count yet
    }

    void theNewTablesAreAppendOnly_data() {
        QTest::addColumn<QString>("sql");
        QTest::newRow("series") << "UPDATE strike_series SET support='x'";
        QTest::newRow("files") << "DELETE FROM file_test";
        QTest::newRow("marks") << "DELETE FROM reading_mark";
    }
    void theNewTablesAreAppendOnly() {
        QFETCH(QString, sql);
        TempLogbook log;
        const Batch batch = log.withBatch();
        SeriesDraft series;
        series.strikes.push_back(log.reading(batch, 0, 62));
        QVERIFY(logSeries(*log, series).ok());
        Tester set;
        set.name = "Files";
        set.kind = TesterKind::files;
        set.files = {60};
        FileTest test;
        test.trials = {{60, FileTouch::bites}};
        QVERIFY(logFileTest(*log, batch.blades[0].id, addTester(*log, set).value(), test).ok());
        QVERIFY(supersedeReadings(*log, {blade(log).readings[0].id}, "x").ok());
        const QString path = log.path();
        log.close();
        QVERIFY(TempLogbook::meddle(path, sql).contains("append-only"));
    }
};

QTEST_GUILESS_MAIN(tst_InstrumentsRecord)
#include "tst_instruments_record.moc"
