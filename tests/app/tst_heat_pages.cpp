// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/heat_bench.h"
#include "app/shared/day_clock.h"
#include "logbook/logbook.h"
#include "tests/support/window_driver.h"

using namespace rollcall;
using fixtures::WindowDriver;

// What the pages of the Heat bench do beside the walk of tst_heat.
class tst_HeatPages : public QObject {
    Q_OBJECT

    static void page(WindowDriver& d, const char* number) {
        d.press(Qt::Key_F3);
        d.type(QLatin1String(number));
    }
    static QString steady(WindowDriver& d, const char* name, int celsius) {
        QByteArray text("s,C\n");
        for (int s = 0; s <= 1800; s += 60) text += QByteArray::number(s) + ',' + QByteArray::number(celsius) + '\n';
        return d.writeFile(QLatin1String(name), text);
    }
    static void temper(WindowDriver& d, const char* celsius) {
        d.type("t");
        d.fill("temperature", QLatin1String(celsius));
        d.fill("hours", "2");
        d.press(Qt::Key_Return, Qt::ControlModifier);
    }

private slots:
    void init() { QSettings().clear(); }

    // Hours and the number of tempers move the expectation as they must: longer and oftener is softer.
    void schoolsAndHours() {
        WindowDriver d;
        d.makeBatch();
        temper(d, "185");
        page(d, "2");
        const auto expected = [&] { return d.column().numbers.at(0).value.toDouble(); };
        const double once = expected();
        d.run("ladder.tempers");
        QVERIFY2(d.column().detail.contains("first of 2"), qPrintable(d.column().detail));
        const double twice = expected();
        d.run("ladder.tempers");
        const double thrice = expected();
        QVERIFY(once > twice && twice > thrice);
        d.run("ladder.tempers");
        QCOMPARE(expected(), once);
        for (int i = 0; i < 4; ++i) d.press(Qt::Key_Up);
        QVERIFY(expected() < once);
        QVERIFY2(d.column().detail.contains("3"), qPrintable(d.column().detail)); // hours
    }
    void unknownGradesSayWhy() {
        WindowDriver d;
        d.type("n");
        d.setUpShop();
        d.fill("name", "Own 1");
        d.fill("count", "2");
        d.fill("grade", "a steel of its own");
        d.fill("window", "61 to 63");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        if (d.document().hasBatch()) {
            page(d, "2");
            QVERIFY2(d.column().sub.contains("not in the library"), qPrintable(d.column().sub));
            d.type("w");
            QVERIFY(d.now().contains("no prediction to explain"));
            page(d, "3");
            d.press(Qt::Key_Return); // the bare bones
            QCOMPARE(d.document().batch().recipe->stages.size(), std::size_t(3));
            QVERIFY2(d.reasons().contains("not in the library"), qPrintable(d.reasons()));
        }
    }
    void secondaryHardeningHasTwoBranches() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F2);
        d.type("*o");
        d.fill("grade", "D2");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.fill("reason", "typed wrongly");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        page(d, "2");
        d.run("ladder.branch");
        const auto temperature = [&] { return d.column().act.section("at ", 1).section(QChar(0xA0), 0, 0).toInt(); };
        const int other = temperature();
        d.run("ladder.branch");
        QVERIFY2(std::abs(other - temperature()) > 150 || d.column().word == "Risky", qPrintable(d.column().act));
    }
    void recipesAreExtendedCutAndChosen() {
        WindowDriver d;
        d.makeBatch();
        page(d, "3");
        d.run("recipe.choose");
        QVERIFY(d.now().contains("no recipe yet"));
        d.press(Qt::Key_Return);
        d.type("1");
        const std::size_t stages = d.document().batch().recipe->stages.size();
        d.press(Qt::Key_Right);
        d.type("a");
        d.fill("kind", "Cold treatment");
        d.fill("temperature", "-75");
        d.fill("hold", "1 h");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().batch().recipe->stages.size(), stages + 1);
        QCOMPARE(d.document().batch().recipe->stages[2].kind, StageKind::cold);
        QCOMPARE(d.document().batch().recipe->version, 2);
        d.type("x");
        QCOMPARE(d.document().batch().recipe->stages.size(), stages);
        d.press(Qt::Key_Return);
        d.fill("hold", "soon");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("such as 8 min"));
        d.giveUp();
        d.run("recipe.choose");
        QVERIFY(d.dialog());
        d.type("3"); // the first version again
        QCOMPARE(d.document().batch().recipe->version, 1);
    }
    void heatsAreComparedAndStruckOut() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F3);
        d.drop(steady(d, "one.csv", 810));
        d.fill("set", "810");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.type("c");
        QVERIFY(d.now().contains("Two heats"));
        d.type("h"); // a second heat of the same blades
        d.fill("set", "830");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.drop(steady(d, "two.csv", 825));
        QVERIFY2(d.now().contains("31 samples"), qPrintable(d.now()));
        d.type("c");
        QVERIFY2(d.dialogText().contains("worth"), qPrintable(d.dialogText()));
        d.press(Qt::Key_Escape);
        d.type("x");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("reason"));
        d.fill("reason", "begun by mistake");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().batch().heat_runs.size(), std::size_t(1));
        QCOMPARE(d.document().batch().heat_runs[0].set_c, 810.0);
    }
    void badHeatsAreRefused() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F3);
        d.press(Qt::Key_Return);
        d.fill("set", "hot");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("100 to 1400"));
        d.fill("set", "810");
        d.fill("least", "20");
        d.fill("most", "5");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("shorter than"));
        d.fill("least", "5");
        d.fill("most", "15");
        d.fill("edge", "none");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("0.1 mm or more"));
        d.fill("edge", "0.03in");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(std::abs(d.document().batch().heat_runs.at(0).edge_mm.value() - 0.762) < 1e-9);
        QVERIFY(d.document().batch().planOf(Gate::heat).required);
        d.run("soak.note");
        d.fill("blades", "GK-1, GK-7");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("No blade is marked GK-7"));
        d.fill("blades", "*");
        d.fill("transfer", "1.5");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        for (const Blade& blade : d.document().batch().blades) QCOMPARE(blade.heats.at(0).transfer_s().value(), 1.5);
    }
    void theAlarmIsHushedAndRunsCancelled() {
        WindowDriver d;
        d.makeBatch();
        d.type("y");
        d.type("k");
        d.fill("name", "Oven 1");
        d.fill("step", "0");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("up to 50"));
        d.fill("step", "1");
        d.fill("checked", "today");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.reasons().contains("Oven 1 checked"), qPrintable(d.reasons()));
        d.type("n");
        d.fill("start", "25:00");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("14:20"));
        d.fill("start", QTime::currentTime().toString("HH:mm"));
        d.press(Qt::Key_Return, Qt::ControlModifier);
        const DayClock clock(d.document());
        QVERIFY(clock.ringing());
        QCOMPARE(clock.events().size(), std::size_t(1));
        d.type("j");
        QVERIFY(d.now().contains("put Orchard 13")); // hushed, not forgotten
        d.type("x");
        QVERIFY(!d.now().contains("put Orchard 13"));
        QCOMPARE(d.word(), QStringLiteral("Free"));
        QVERIFY(!clock.ringing());
    }
    void zonesSurfacesAndTorch() {
        WindowDriver d;
        d.makeBatch();
        temper(d, "200");
        page(d, "6");
        d.type("z"); // from the flat to the edge
        QVERIFY2(d.column().left.contains("edge"), qPrintable(d.column().left));
        d.press(Qt::Key_Return);
        d.type("z");
        d.run("colour.torch"); // the spine, by torch
        for (int i = 0; i < 6; ++i) d.press(Qt::Key_Right);
        QCOMPARE(d.word(), QStringLiteral("Estimate"));
        d.press(Qt::Key_Return);
        QVERIFY2(d.reasons().contains("One torch pass"), qPrintable(d.reasons()));
        const auto& colours = d.document().batch().blades[0].colours;
        QVERIFY(colours[0].zone == "edge" && !colours[0].torch);
        QVERIFY(colours[1].zone == "spine" && colours[1].torch);
        d.type("k"); // coated: the colour says nothing
        QCOMPARE(d.word(), QStringLiteral("Says nothing"));
    }
    void pagesByTabKeyAndMouse() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F3);
        auto* bench = d.window().findChild<HeatBench*>();
        const auto page = [&] { return static_cast<HeatBench::Page>(bench->pageIndex()); };
        QCOMPARE(page(), HeatBench::Page::soak);
        d.press(Qt::Key_Tab, Qt::ControlModifier);
        QCOMPARE(page(), HeatBench::Page::ladder);
        d.press(Qt::Key_Backtab, Qt::ControlModifier | Qt::ShiftModifier);
        d.press(Qt::Key_Backtab, Qt::ControlModifier | Qt::ShiftModifier);
        QCOMPARE(page(), HeatBench::Page::colour);
        auto* tabs = bench->findChild<QTabBar*>("pages");
        QTest::mouseClick(tabs, Qt::LeftButton, Qt::NoModifier, tabs->tabRect(0).center());
        QCOMPARE(page(), HeatBench::Page::soak);
        d.type("3");
        QCOMPARE(page(), HeatBench::Page::recipe);
        d.press(Qt::Key_Escape);
        QCOMPARE(d.window().place(), QStringLiteral("overview-bench"));
    }
    // A reading from another bench's time never lands at the Heat gate.
    void readingsFindTheirGate() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F4);
        d.press(Qt::Key_F3);
        QCOMPARE(d.document().gate(), Gate::heat);
        d.press(Qt::Key_F4);
        d.verifyTester();
        d.type("652\n");
        QCOMPARE(d.document().batch().blades[0].readings.at(0).gate, Gate::quench);
    }
};

QTEST_MAIN(tst_HeatPages)
#include "tst_heat_pages.moc"
