// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/day_page.h"
#include "logbook/logbook.h"
#include "sim/simulated_oven.h"
#include "tests/support/window_driver.h"

#include <QTemporaryDir>

using namespace rollcall;
using fixtures::WindowDriver;

class tst_Heat : public QObject {
    Q_OBJECT

    QTemporaryDir m_dir;

    // An oven at 810 °C for fifty minutes.
    static QString steadyTrace(WindowDriver& driver) {
        QByteArray text("time,temp C\n");
        for (int s = 0; s <= 3000; s += 10) text += QByteArray::number(s) + ",810\n";
        return driver.writeFile("oven.csv", text);
    }
    static Batch stored(WindowDriver& driver) {
        driver.stop();
        auto log = Logbook::open(driver.path(), Logbook::Access::read).value();
        Batch batch = log->batch(log->batches().value().back().id).value();
        const auto problems = log->check().value();
        if (!problems.empty()) qFatal("%s", problems.front().c_str());
        return batch;
    }

private slots:
    void init() { QSettings().clear(); }

    // From the dropped trace over marks and readings to a Pass: what is foretold is on screen before it is read.
    void traceMarksReadingsAdvicePass() {
        WindowDriver driver;
        driver.makeBatch("Heat, Quench and Temper");
        driver.press(Qt::Key_F3);
        QCOMPARE(driver.column().word, QStringLiteral("Not yet"));
        driver.drop(steadyTrace(driver));
        driver.fill("set", "810");
        driver.fill("least", "5");
        driver.fill("most", "15");
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(driver.now().contains("301 samples"), qPrintable(driver.now()));

        driver.type("a"); // all in at the trace's beginning
        const auto leave = [&](int minutes) {
            for (int i = 0; i < minutes; ++i) driver.press(Qt::Key_Right, Qt::ControlModifier);
            driver.press(Qt::Key_Return);
            driver.press(Qt::Key_Right, Qt::ShiftModifier); // a second later it is in the oil
            driver.press(Qt::Key_Return);
        };
        QVERIFY(driver.column().act.contains("GK-1 leaves"));
        leave(10);
        QVERIFY2(driver.column().act.contains("GK-2 leaves"), qPrintable(driver.column().act));
        leave(3);
        leave(8);
        driver.document().selectBlade(0);
        QCOMPARE(driver.word(), QStringLiteral("Pass"));
        driver.document().selectBlade(2);
        QCOMPARE(driver.word(), QStringLiteral("Borderline"));
        QVERIFY2(driver.reasons().contains("15.0 at most"), qPrintable(driver.reasons()));
        QVERIFY(driver.rollText(2).contains("soak"));

        // The written card says otherwise: both are shown.
        driver.document().selectBlade(0);
        driver.type("w");
        QVERIFY2(driver.dialogText().contains("Steel of 2.4 mm"), qPrintable(driver.dialogText()));
        driver.press(Qt::Key_Escape);
        driver.run("soak.note");
        driver.fill("minutes", "15");
        driver.fill("quenchant", "131F");
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(driver.reasons().contains("note says 15.0 min"), qPrintable(driver.reasons()));
        QVERIFY(driver.reasons().contains("55"));

        driver.press(Qt::Key_F4);
        driver.verifyTester();
        driver.document().selectBlade(0);
        driver.type("654\n655\n653\n");
        driver.press(Qt::Key_F3);
        driver.type("2");
        driver.document().selectBlade(0);
        QVERIFY2(!driver.column().numbers.empty() && driver.column().numbers[0].label == "Expect",
                 qPrintable(driver.word()));
        const double advised = driver.column().act.section("at ", 1).section(QChar(0xA0), 0, 0).toDouble();
        // Before the shop has read anything the curve is known to 1.5 only: a first temper from the hard side.
        QVERIFY2(advised >= 100 && advised < 180, qPrintable(driver.column().act));
        driver.type("w");
        QVERIFY2(driver.dialogText().contains("P = T (C + log10 t)"), qPrintable(driver.dialogText()));
        driver.press(Qt::Key_Escape);
        // Another first temper: the trial is moved by hand and the number follows.
        const QString before = driver.column().numbers[0].value;
        for (double t = advised; t < 180; t += 5) driver.press(Qt::Key_Right);
        QVERIFY(driver.column().numbers[0].value.toDouble() < before.toDouble());
        driver.press(Qt::Key_Return);
        QCOMPARE(driver.formValue("temperature"), QStringLiteral("180"));
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        driver.press(Qt::Key_F5);
        driver.document().selectBlade(0);
        driver.type("638\n639\n637\n");
        driver.document().selectBlade(0);
        QVERIFY2(driver.reasons().contains("expected hardness"), qPrintable(driver.reasons()));
        QVERIFY2(driver.column().act.startsWith("Temper again at"), qPrintable(driver.column().act));
        const QString next = driver.column().act.section("at ", 1).section(QChar(0xA0), 0, 0);
        driver.press(Qt::Key_Return);
        QCOMPARE(driver.formValue("temperature"), next); // the advice is accepted
        driver.fill("blades", "GK-1");
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        driver.type("622\n623\n621\n");
        driver.document().selectBlade(0);
        QCOMPARE(driver.word(), QStringLiteral("Pass"));

        const Batch batch = stored(driver);
        QCOMPARE(batch.blades[0].tempers.size(), std::size_t(2));
        QCOMPARE(batch.blades[0].tempers[1].temperature_c.value(), next.toDouble());
        QCOMPARE(batch.heat_runs.size(), std::size_t(1));
        QCOMPARE(batch.heat_runs[0].trace->samples().size(), std::size_t(301));
        QCOMPARE(batch.blades[0].heats[0].transfer_s().value(), 1.0);
        QVERIFY(std::abs(batch.blades[0].heats[0].quenchant_c.value() - 55) < 1e-9);
        QCOMPARE(batch.blades[2].heats[0].out_s.value(), 600.0 + 1 + 180 + 1 + 480);
    }

    void badTracesSayWhatIsWrong_data() {
        QTest::addColumn<QByteArray>("text");
        QTest::addColumn<QString>("message");
        QTest::newRow("no trace") << QByteArray("hello\nworld\n") << "no trace";
        QTest::newRow("backwards") << QByteArray("0,20\n60,800\n30,810\n") << "line 3";
        QTest::newRow("empty") << QByteArray() << "no trace";
    }
    void badTracesSayWhatIsWrong() {
        QFETCH(QByteArray, text);
        QFETCH(QString, message);
        WindowDriver driver;
        driver.makeBatch();
        driver.press(Qt::Key_F3);
        driver.drop(driver.writeFile("bad.csv", text));
        QVERIFY2(driver.now().contains(message), qPrintable(driver.now()));
        QVERIFY(driver.document().batch().heat_runs.empty());
    }

    void marksKeepTheirOrder() {
        WindowDriver driver;
        driver.makeBatch();
        driver.press(Qt::Key_F3);
        driver.drop(steadyTrace(driver));
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        for (int i = 0; i < 5; ++i) driver.press(Qt::Key_Right, Qt::ControlModifier);
        driver.press(Qt::Key_Return); // GK-1 in at five minutes
        driver.document().selectBlade(0);
        driver.press(Qt::Key_Left, Qt::ControlModifier);
        driver.press(Qt::Key_Return); // out before it went in
        QVERIFY2(driver.now().contains("before GK-1"), qPrintable(driver.now()));
        QVERIFY(!driver.document().batch().blades[0].heats[0].out_s);
    }

    void brittleTempersNeedAReason() {
        WindowDriver driver;
        driver.makeBatch();
        driver.type("t");
        driver.fill("temperature", "260");
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(driver.formMessage().contains("brittle"), qPrintable(driver.formMessage()));
        driver.fill("reason", "a spring, not a knife");
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        const Batch batch = stored(driver);
        QVERIFY(batch.blades[0].tempers[0].as_entered.find("a spring") != std::string::npos);
    }

    // 400 °F is typed where °C is shown: asked once, and what is typed again stands.
    void aTemperInAnotherUnitIsAskedAboutOnce() {
        WindowDriver driver;
        driver.makeBatch();
        driver.type("t");
        driver.fill("temperature", "400");
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(driver.formMessage().contains("204"), qPrintable(driver.formMessage()));
        QVERIFY(driver.document().batch().blades[0].tempers.empty());
        driver.fill("temperature", "205");
        driver.fill("blades", "GK-1");
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(stored(driver).blades[0].tempers.at(0).temperature_c.value(), 205.0);
    }
    // Where no thermometer stood, the colour of the edge is what is known.
    void aTemperIsLoggedByItsColour() {
        WindowDriver driver;
        driver.makeBatch();
        driver.type("t");
        driver.fill("temperature", "");
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(!driver.formMessage().isEmpty(), "a temper without temperature or colour");
        driver.fill("colour", "straw");
        driver.fill("blades", "GK-1");
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        const Blade blade = stored(driver).blades[0];
        QCOMPARE(blade.tempers.size(), std::size_t(1));
        QVERIFY(!blade.tempers[0].temperature_c);
        QCOMPARE(blade.colours.at(0).colour, std::string("straw"));
        QCOMPARE(blade.colours.at(0).after_temper, 1);
    }

    void recipeByTemplateThenChanged() {
        WindowDriver driver;
        driver.makeBatch();
        driver.press(Qt::Key_F3);
        driver.type("3");
        driver.press(Qt::Key_Return);
        driver.type("1"); // stock removal
        QCOMPARE(driver.word(), QStringLiteral("Sound"));
        driver.press(Qt::Key_Return); // the soak
        driver.fill("temperature", "1562F");
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(driver.word(), QStringLiteral("Look again"));
        QVERIFY2(driver.reasons().contains("850") && driver.reasons().contains("830"), qPrintable(driver.reasons()));
        const Batch batch = stored(driver);
        QCOMPARE(batch.recipe->version, 2);
        QVERIFY(std::abs(batch.recipe->stage(StageKind::austenitise)->temperature_c - 850) < 1e-9);
    }

    void theDayIsPlannedRingsAndSurvivesARestart() {
        WindowDriver driver;
        driver.makeBatch();
        driver.type("y");
        driver.press(Qt::Key_Return); // no oven yet
        driver.fill("name", "Oven 1");
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        const auto plan = [&](const QString& start) {
            driver.type("n");
            driver.fill("temperature", "205");
            driver.fill("hours", "2");
            driver.fill("start", start);
            driver.press(Qt::Key_Return, Qt::ControlModifier);
        };
        const QTime now = QTime::currentTime();
        plan(now.toString("HH:mm"));
        QCOMPARE(driver.word(), QStringLiteral("Now"));
        QVERIFY2(driver.now().contains("put Orchard 13, temper 1 into Oven 1"), qPrintable(driver.now()));
        plan(now.addSecs(3600).toString("HH:mm"));
        QVERIFY2(driver.formMessage().contains("First free"), qPrintable(driver.formMessage()));
        driver.press(Qt::Key_Escape);
        driver.restart();
        QVERIFY2(driver.now().contains("put Orchard 13"), qPrintable(driver.now()));
        driver.type("y");
        driver.press(Qt::Key_Return); // it is in the oven
        QCOMPARE(driver.word(), QStringLiteral("Planned"));
        QVERIFY2(driver.now().contains("Oven 1 out at"), qPrintable(driver.now()));
        driver.press(Qt::Key_Return); // out again: the temper is to be logged
        QCOMPARE(driver.formValue("temperature"), QStringLiteral("205"));
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        const Batch batch = stored(driver);
        QCOMPARE(batch.blades[2].tempers[0].temperature_c.value(), 205.0);
    }

    // A temper that is advised and has no oven yet stands under the ovens' day, until it is planned.
    void theDayShowsWhatWaits() {
        WindowDriver driver;
        driver.makeBatch();
        driver.press(Qt::Key_F4);
        driver.verifyTester();
        driver.type("655\n653\n656\n");
        driver.type("y");
        driver.press(Qt::Key_Return);
        driver.fill("name", "Oven 1");
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        auto* page = driver.window().findChild<DayPage*>();
        const auto waits = [&] { return page->tables().at(1).rows; };
        QCOMPARE(waits().size(), std::size_t(1));
        const QString line = waits().front().front().toString();
        QVERIFY2(line.contains("for 2 h: GK-1, GK-2, GK-3 of Orchard 13"), qPrintable(line));
        driver.type("n");
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(waits().empty());
    }

    // A bar that is too short for its words says them all under the pointer, and is chosen by a click.
    void aRunIsToldAndChosen() {
        WindowDriver driver;
        driver.makeBatch();
        driver.type("y");
        driver.press(Qt::Key_Return);
        driver.fill("name", "Oven 1");
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        const QTime now = QTime::currentTime();
        for (const auto& [after, celsius] : {std::pair(600, "205"), std::pair(3 * 3600, "190")}) {
            driver.type("n");
            driver.fill("temperature", celsius);
            driver.fill("hours", "1");
            driver.fill("start", now.addSecs(after).toString("HH:mm"));
            driver.press(Qt::Key_Return, Qt::ControlModifier);
        }
        auto* page = driver.window().findChild<DayPage*>();
        const auto placeOf = [&](const QString& text) {
            for (int y = 0; y < page->height(); y += 4) {
                for (int x = 0; x < page->width(); x += 4) {
                    if (page->saysAt({x, y}).contains(text)) return QPoint(x + 4, y + 4);
                }
            }
            return QPoint(-1, -1);
        };
        const QString later = page->saysAt(placeOf("190"));
        QVERIFY2(later.startsWith("Orchard 13, temper 1: 190"), qPrintable(later));
        QVERIFY2(later.contains("in at " + now.addSecs(3 * 3600).toString("HH:mm")), qPrintable(later));
        QCOMPARE(driver.column().numbers.front().value, QStringLiteral("205")); // the next one, while none is chosen
        QTest::mouseClick(page, Qt::LeftButton, {}, placeOf("190"));
        driver.settle();
        QCOMPARE(driver.column().numbers.front().value, QStringLiteral("190"));
    }

    void warpIsStackedAndExported() {
        WindowDriver driver;
        driver.makeBatch();
        driver.press(Qt::Key_F3);
        driver.type("5");
        for (const char* warp : {"1.2L", "0.8R", "2.0L"}) {
            driver.press(Qt::Key_Return);
            driver.fill("warp", warp);
            driver.press(Qt::Key_Return, Qt::ControlModifier);
        }
        QVERIFY2(driver.reasons().contains("3 blades are not tempered"), qPrintable(driver.reasons()));
        const QString picture = m_dir.filePath("stack.svg");
        driver.chooseFile(picture);
        driver.type("i");
        QFile svg(picture);
        QVERIFY(svg.open(QIODevice::ReadOnly));
        const QByteArray text = svg.readAll();
        QVERIFY(text.contains("turn over") && text.contains("shim 1.2\u00A0mm"));
        driver.press(Qt::Key_Return);
        driver.fill("warp", "bent");
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(driver.formMessage().contains("such as 1.2L"));
    }

    void coloursAgainstTheOven() {
        WindowDriver driver;
        driver.makeBatch();
        driver.type("t");
        driver.fill("temperature", "180");
        driver.fill("hours", "1");
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        driver.press(Qt::Key_F3);
        driver.type("6");
        QCOMPARE(driver.word(), QStringLiteral("Agrees"));
        for (int i = 0; i < 7; ++i) driver.press(Qt::Key_Right); // bright blue
        QCOMPARE(driver.word(), QStringLiteral("Check the oven"));
        driver.press(Qt::Key_Return);
        driver.press(Qt::Key_F5);
        QVERIFY2(driver.reasons().contains("check the oven"), qPrintable(driver.reasons()));
        const Batch batch = stored(driver);
        QCOMPARE(batch.blades[0].colours[0].colour, std::string("bright blue"));
    }

    // The oven on a wire: what it says is seen at once and ends up in the logbook, rubbish does not.
    void ovenOnAWire() {
        SimulatedOven oven(3);
        oven.link = m_dir.filePath("oven-line");
        QVERIFY(oven.plug().ok());
        WindowDriver driver;
        driver.makeBatch();
        driver.press(Qt::Key_F3);
        driver.press(Qt::Key_Return);
        driver.fill("oven", "Oven 1");
        driver.fill("set", "800");
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        driver.run("soak.wire");
        driver.fill("port", oven.link);
        driver.press(Qt::Key_Return, Qt::ControlModifier);
        QTRY_VERIFY(driver.window().links().oven.stateText().contains("open"));
        for (int i = 0; i < 5; ++i) {
            const std::size_t had = driver.window().links().oven.fresh().size();
            QVERIFY(oven.command("tick").ok());
            QTRY_COMPARE(driver.window().links().oven.fresh().size(), had + 1);
        }
        QVERIFY(oven.command("garbage").ok());
        QVERIFY(oven.command("broken").ok());
        QVERIFY(oven.command("again").ok());
        driver.type("a");
        driver.window().links().oven.flush();
        driver.settle();
        QVERIFY(driver.document().batch().heat_runs[0].trace != nullptr);
        QCOMPARE(driver.document().batch().heat_runs[0].trace->samples().size(), std::size_t(5));
        for (const TraceSample& sample : driver.document().batch().heat_runs[0].trace->samples())
            QVERIFY(std::abs(sample.c - 800) < 5);
        QVERIFY(driver.document().batch().blades[2].heats[0].in_s.has_value());
    }
};

QTEST_MAIN(tst_Heat)
#include "tst_heat.moc"
