// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/gates.h"
#include "logbook/actions/blades.h"
#include "logbook/transfer/import.h"
#include "tests/support/fixtures.h"
#include "tests/support/temp_logbook.h"

#include <atomic>
#include <thread>

using namespace rollcall;
using fixtures::tables;
using fixtures::TempLogbook;

class tst_ImportReadings : public QObject {
    Q_OBJECT

    static ImportReport import(TempLogbook& log, const QByteArray& csv) {
        return importReadings(*log, tables(), "readings.csv", csv).value();
    }
    static Batch batch(TempLogbook& log, const char* name) {
        for (const BatchSummary& summary : log->batches().value()) {
            if (summary.name == name) return log->batch(summary.id).value();
        }
        return {};
    }
    static constexpr const char* whole =
        "batch,blade,gate,value,time,tester,x_mm,y_mm,cycle,temperature_c,hours,grade,window_low,window_high,thickness_"
        "mm,certified,block_uncertainty,smith\n"
        ",62.6,block,62.7,2026-11-24T08:00:00Z,Bench 1,,,,,,,,,,62.6,0.3,\n"
        ",62.6,block,62.9,2026-11-24T08:01:00Z,Bench 1,,,,,,,,,,62.6,0.3,\n"
        "Hedge,B1,temper,62.1,2026-11-24T10:00:00Z,Bench 1,10,3,2,404.6F,2,115CrV3,61,63,0.095in,,,by lamp\n"
        "Hedge,B1,temper,62.2,2026-11-24T10:01:00Z,Bench 1,20,3,2,207,2,115CrV3,61,63,,,,\n"
        "Hedge,B1,temper,62.2,2026-11-24T10:01:00Z,Bench 1,20,3,2,207,2,115CrV3,61,63,,,,\n"
        "Hedge,B2,temper,59.0,2026-11-24T10:02:00Z,Bench 1,,,2,207,2,115CrV3,61,63,,,,\n"
        "Hedge,B2,temper,59.2,2026-11-24T10:03:00Z,Bench 1,,,2,207,2,115CrV3,61,63,,,,\n";

    static QByteArray longTable(int lines) {
        QByteArray csv = "batch,blade,gate,value\n";
        for (int i = 0; i < lines; ++i)
            csv += QStringLiteral("Hedge %1,B%2,quench,64.5\n").arg(i / 60).arg(i / 5 % 12).toUtf8();
        return csv;
    }

private slots:
    // Given up at any place, while lines are planned or written, nothing of it is there; not given up, all of it.
    void isGivenUpWithNothingHalfDone() {
        TempLogbook log;
        import(log, "batch,blade,gate,value\nHedge before,A,quench,64\n");
        const auto before = log->counts().value();
        const QByteArray csv = longTable(20000); // so long that whoever looks on is heard in time
        double far = 0;
        for (const double at : {0.05, 0.3}) {
            Progress progress;
            // Somebody who looks on from beside: gives up once it has come so far.
            std::atomic<bool> ended{false};
            std::thread other([&] {
                while (!ended && progress.part() < at) std::this_thread::yield();
                progress.giveUp();
            });
            const auto taken = importReadings(*log, tables(), "long.csv", csv, {}, false, &progress);
            ended = true;
            other.join();
            QVERIFY(progress.part() >= far);
            far = progress.part();
            QVERIFY(!taken);
            QCOMPARE(taken.error().kind, ErrorKind::refused);
            QVERIFY(QString::fromStdString(taken.error().text).contains("given up"));
            QCOMPARE(log->counts().value(), before);
        }
        Progress alone;
        QCOMPARE(importReadings(*log, tables(), "long.csv", csv, {}, false, &alone).value().readings, 20000);
        QVERIFY(log->check().value().empty());
    }
    // Two lines that each tell a part of a temper tell the whole of it.
    void aTemperIsToldInParts() {
        TempLogbook log;
        const auto report = import(log, "batch,blade,gate,value,cycle,temperature_c,hours\n"
                                        "Hedge,B1,temper,62.1,1,205,\nHedge,B1,temper,62.2,1,,2\n"
                                        "Hedge,B1,temper,62.3,1,210,\n");
        QCOMPARE(report.readings, 2);
        QCOMPARE(report.rejected.size(), std::size_t(1));
        QVERIFY(report.rejected[0].reason.find("another temperature or time for temper 1 of B1") == 0);
        const Temper temper = batch(log, "Hedge").blades[0].tempers.at(0);
        QCOMPARE(temper.temperature_c.value(), 205.0);
        QCOMPARE(temper.hours.value(), 2.0);
    }
    void takesAWholeFile() {
        TempLogbook log;
        const ImportReport report = import(log, whole);
        QVERIFY(report.rejected.empty() || (qWarning() << report.rejected[0].reason.c_str(), false));
        QCOMPARE(report.batches, 1);
        QCOMPARE(report.blades, 2);
        QCOMPARE(report.readings, 7);
        const Batch b = batch(log, "Hedge");
        QCOMPARE(b.grade, std::string("115CrV3"));
        QCOMPARE(b.window.high.value(), 63.0);
        QCOMPARE(b.planOf(Gate::temper).required, true);
        QCOMPARE(b.planOf(Gate::quench).required, false); // only the gates seen
        QCOMPARE(b.planOf(Gate::temper).planned_readings, 2);
        QCOMPARE(b.testers.at(0).resolution, 0.1); // decimals seen
        QCOMPARE(b.blades[0].shape.thickness_mm, 0.095 * 25.4);
        QCOMPARE(b.blades[0].readings.size(), std::size_t(3)); // two honest equal readings both live
        QCOMPARE(b.blades[0].readings[0].note, std::string("smith: by lamp"));
        QCOMPARE(lastTemper(b.blades[0]), 2); // a reading after temper 2 says that two ran
        QVERIFY(!b.blades[0].tempers[0].temperature_c.has_value());
        QVERIFY(std::abs(*b.blades[0].tempers[1].temperature_c - 207) < 1e-9); // 404.6 F
        QCOMPARE(b.verifications.at(0).readings.size(), std::size_t(2));
        QVERIFY(log->check().value().empty());
    }

    // The readings above judged by hand: B2 is soft by 2.1 on the corrected mean (62.8 on a block of 62.6).
    void isJudgedLikeAnyBatch() {
        TempLogbook log;
        import(log, whole);
        const BatchVerdicts verdicts = judgeBatch(batch(log, "Hedge"), tables(), std::nullopt);
        QCOMPARE(verdicts.at(1, Gate::temper)->state, State::fail);
        QVERIFY(std::abs(verdicts.at(1, Gate::temper)->measurement->corrected_mean - 58.9) < 1e-9);
        QVERIFY(verdicts.at(1, Gate::temper)->has(Fact::testerVerified));
    }

    void importingTwiceAddsNothing() {
        TempLogbook log;
        import(log, whole);
        const auto before = log->counts().value();
        const ImportReport again = import(log, whole);
        QCOMPARE(again.readings, 0);
        QCOMPARE(again.already_there, 7);
        QCOMPARE(log->counts().value(), before);
        // A third equal line is new; struck-out readings count as there.
        const Batch b = batch(log, "Hedge");
        QVERIFY(strikeReading(*log, b.blades[1].readings[0].id, StrikeReason::other, "").ok());
        const ImportReport more =
            import(log, QByteArray(whole) +
                            "Hedge,B1,temper,62.2,2026-11-24T10:01:00Z,Bench 1,20,3,2,207,2,115CrV3,61,63,,,,\n");
        QCOMPARE(more.readings, 1);
        QCOMPARE(more.already_there, 7);
    }

    void understandsOtherWritings_data() {
        QTest::addColumn<QByteArray>("csv");
        QTest::newRow("semicolon, decimal comma, CRLF, BOM")
            << QByteArray("\xEF\xBB\xBF"
                          "batch;blade;gate;value\r\nP;1;quench;62,5\r\nP;1;quench;62,1\r\n");
        QTest::newRow("tab, order free, upper case")
            << QByteArray("VALUE\tGate\tBlade\tBatch\n62.5\tQuench\t1\tP\n62.1\tquench\t1\tP\n");
        QTest::newRow("local time and true minus position")
            << QByteArray("batch,blade,gate,value,time,x_mm,y_mm\nP,1,quench,62.5,2026-11-20T08:12,-3.5,4\nP,1,quench,"
                          "62.1,2026-11-20 08:13:00,,\n");
    }
    void understandsOtherWritings() {
        QFETCH(QByteArray, csv);
        TempLogbook log;
        QCOMPARE(import(log, csv).readings, 2);
        const Batch b = batch(log, "P");
        QCOMPARE(b.blades.at(0).readings.at(0).value, 62.5);
        QCOMPARE(b.planOf(Gate::quench).planned_readings, 2);
    }

    void badLinesAreReportedGoodOnesKept_data() {
        QTest::addColumn<QByteArray>("line");
        QTest::addColumn<QString>("reason");
        QTest::newRow("no number") << QByteArray("P,1,quench,hard,,,") << "value: 'hard' is not a number";
        QTest::newRow("outside the scale") << QByteArray("P,1,quench,92.1,,,") << "value 92.1 is outside 20 to 70 HRC";
        QTest::newRow("unknown gate") << QByteArray("P,1,polish,62.1,,,")
                                      << "gate 'polish' is not quench, temper or block";
        QTest::newRow("no blade") << QByteArray("P,,quench,62.1,,,") << "blade is empty";
        QTest::newRow("no batch") << QByteArray(",1,quench,62.1,,,") << "batch is empty";
        QTest::newRow("half a place") << QByteArray("P,1,quench,62.1,3,,") << "x_mm and y_mm are needed together";
        QTest::newRow("decimal comma between commas")
            << QByteArray("P,1,quench,62,1,,,")
            << "8 fields where the header has 7; a decimal comma needs semicolons between the fields";
        QTest::newRow("a time that is none") << QByteArray("P,1,quench,62.1,,,tomorrow")
                                             << "time 'tomorrow' is not a date and time like 2026-11-20T08:12";
        QTest::newRow("a block without its value")
            << QByteArray(",55.2,block,55.4,,,") << "the certified value of block 55.2 is missing";
    }
    void badLinesAreReportedGoodOnesKept() {
        QFETCH(QByteArray, line);
        QFETCH(QString, reason);
        TempLogbook log;
        const ImportReport report = import(log, "batch,blade,gate,value,x_mm,y_mm,time\nP,1,quench,62.5,,,\n" + line +
                                                    "\nP,1,quench,62.4,,,\n");
        QCOMPARE(report.readings, 2);
        QCOMPARE(report.rejected.size(), std::size_t(1));
        QCOMPARE(report.rejected[0].line, 3);
        QCOMPARE(QString::fromStdString(report.rejected[0].reason), reason);
    }

    // A stray quotation mark costs its own line, whether another one comes later or none does.
    void aStrayQuotationMark() {
        QByteArray csv("batch,blade,gate,value,note\nP,1,quench,62.5,\nP,2,quench,62.4,\"slipped\n");
        for (int i = 3; i <= 60; ++i) csv += "P," + QByteArray::number(i) + ",quench,62.4,\n";
        csv += "P,61,quench,62.4,\"half\n";
        csv += "P,62,quench,62.4,\"two\nlines\"\n";
        TempLogbook log;
        const ImportReport report = import(log, csv);
        QCOMPARE(report.readings, 60);
        QCOMPARE(report.rejected.size(), std::size_t(2));
        QCOMPARE(report.rejected[0].line, 3);
        QCOMPARE(report.rejected[1].line, 62);
        QVERIFY(report.rejected[0].reason.find("quotation mark") != std::string::npos);
    }
    // What no blade, window or oven can be is told with its line; the other lines come in.
    void numbersThatCannotBe_data() {
        QTest::addColumn<QByteArray>("fields");
        QTest::addColumn<QString>("reason");
        QTest::newRow("window") << QByteArray("61,63000000,,,") << "a window of 6.3e+07 HRC lies outside 0 to 110";
        QTest::newRow("thickness") << QByteArray(",,24000,,") << "a thickness of 24000 mm lies outside 0.05 to 200";
        QTest::newRow("temperature") << QByteArray(",,,20500,2h") << "a temperature of 20500 °C lies outside 20 to 800";
        QTest::newRow("hours") << QByteArray(",,,205,20000h") << "a time of 20000 h lies outside 0 to 1000";
    }
    void numbersThatCannotBe() {
        QFETCH(QByteArray, fields);
        QFETCH(QString, reason);
        TempLogbook log;
        const ImportReport report =
            import(log, "batch,blade,gate,cycle,value,window_low,window_high,thickness_mm,temperature_c,hours\n"
                        "P,1,temper,1,62.5,,,,205,2h\nP,2,temper,1,62.4," +
                            fields + "\n");
        QCOMPARE(report.readings, 1);
        QCOMPARE(report.rejected.size(), std::size_t(1));
        QCOMPARE(report.rejected[0].line, 3);
        QCOMPARE(QString::fromStdString(report.rejected[0].reason), reason);
    }

    void windowsMustAgree() {
        TempLogbook log;
        const QByteArray head = "batch,blade,gate,value,window_low,window_high,grade,cycle,temperature_c\n";
        ImportReport report =
            import(log, head + "P,1,temper,62,61,63,115CrV3,1,200\nP,1,temper,62,60,63,115CrV3,1,200\nP,1,temper,62,,,"
                               "51CrV4,1,200\nP,1,temper,62,,,,1,210\nP,2,temper,62,64,63,,1,\n");
        QCOMPARE(report.readings, 1);
        QCOMPARE(report.rejected.size(), std::size_t(4));
        QCOMPARE(report.rejected[0].reason, std::string("another window than batch P has"));
        QCOMPARE(report.rejected[1].reason, std::string("batch P is 115CrV3, this line says 51CrV4"));
        QCOMPARE(report.rejected[2].reason,
                 std::string("another temperature or time for temper 1 of 1 than a line before"));
        QCOMPARE(report.rejected[3].reason, std::string("window_low is above window_high"));
        report = import(
            log, head + "P,3,temper,62,60,62,,1,\nP,3,temper,61.9,61,63,,1,\n"); // the logbook remembers its window
        QCOMPARE(report.readings, 1);
        QCOMPARE(report.rejected[0].line, 2);
    }

    void nothingToTakeIsAnError() {
        TempLogbook log;
        const auto before = log->counts().value();
        QCOMPARE(importReadings(*log, tables(), "x.csv", "batch,blade,gate,value\nP,1,quench,soft\n").error().kind,
                 ErrorKind::refused);
        QCOMPARE(importReadings(*log, tables(), "x.csv", "batch,blade,value\nP,1,62\n").error().text,
                 std::string("the column 'gate' is missing; a readings file needs batch, blade, gate and value"));
        QCOMPARE(importReadings(*log, tables(), "x.csv", "").error().kind, ErrorKind::input);
        QCOMPARE(importReadings(*log, tables(), "x.csv", "\xFF\xFE").error().kind, ErrorKind::input);
        QCOMPARE(log->counts().value(), before);
    }

    // Without a minimum, a known grade or a verification nothing is guessed.
    void whatIsNotInTheFileStaysUnknown() {
        TempLogbook log;
        import(log, "batch,blade,gate,value\nP,1,quench,62.5\nP,1,quench,62.4\nR,1,temper,62.5\n");
        const BatchVerdicts quench = judgeBatch(batch(log, "P"), tables(), std::nullopt);
        QCOMPARE(quench.at(0, Gate::quench)->state, State::notYet);
        QVERIFY(quench.at(0, Gate::quench)->has(Fact::noMinimumSet));
        QVERIFY(quench.at(0, Gate::quench)->has(Fact::testerNotVerified));
        QCOMPARE(judgeBatch(batch(log, "R"), tables(), std::nullopt).at(0, Gate::temper)->state, State::notYet);
    }
};

QTEST_GUILESS_MAIN(tst_ImportReadings)
#include "tst_import_readings.moc"
