// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/buttons.h"
#include "core/measure/statistics.h"
#include "tests/support/window_driver.h"

#include <QScrollBar>

using namespace rollcall;
using fixtures::WindowDriver;

// What a maker does beside reading: change, rename, correct, open, switch; all by the menu's keys.
class tst_Everyday : public QObject {
    Q_OBJECT

    QTemporaryDir m_dir;

    static void read(WindowDriver& d, const QString& keys) {
        d.press(Qt::Key_F4);
        d.type(keys);
    }

private slots:
    // Another minimum and everything is judged anew at once; what cannot be is refused in words.
    void limitsChangeAndEverythingIsJudgedAnew() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.verifyTester();
        read(d, "640\n641\n642\n");
        QCOMPARE(d.word(), QStringLiteral("Pass")); // 63.9, the grade asks for 63
        d.type("l");
        d.fill("minimum", "90");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("20 to 70"));
        d.fill("minimum", "65");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.settle();
        QCOMPARE(d.word(), QStringLiteral("Fail"));
        QVERIFY(d.reasons().contains("Soft by 1.1"));
        d.restart();
        d.press(Qt::Key_F4);
        QCOMPARE(d.word(), QStringLiteral("Fail"));
    }

    void plannedReadingsChange() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.verifyTester();
        read(d, "652\n653\n");
        QCOMPARE(d.word(), QStringLiteral("Not yet"));
        d.type("p");
        d.fill("planned", "0");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.formMessage(), QStringLiteral("Type 1 to 10."));
        d.fill("planned", "2");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.settle();
        QCOMPARE(d.word(), QStringLiteral("Pass"));
    }

    void marksAreRenamedWithTheirHistory() {
        WindowDriver d;
        d.makeBatch("Quench only");
        read(d, "652\n");
        d.type("m");
        d.fill("mark", "GK-2");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.formMessage(), QStringLiteral("Another blade has that mark."));
        d.fill("mark", "GK-1 left");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.settle();
        QVERIFY(d.rollText(0).startsWith("GK-1 left"));
        QCOMPARE(d.document().batch().blades[0].readings.size(), std::size_t(1));
    }

    // A temper logged by mistake is struck out for all its blades; the readings after it are not forgotten.
    void aTemperLoggedByMistakeIsStruckOut() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F5);
        d.type("u");
        QVERIFY(d.now().contains("No temper is logged"));
        d.type("t");
        d.fill("temperature", "20");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("between 80 and 750"));
        d.fill("temperature", "401F");
        d.fill("blades", "GK-1, GK-9");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.formMessage(), QStringLiteral("No blade is marked GK-9."));
        d.fill("blades", "GK-1, GK-2");
        d.fill("hours", "90min");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.settle();
        const Temper& temper = d.document().batch().blades[1].tempers.at(0);
        QVERIFY(std::abs(*temper.temperature_c - 205) < 0.01);
        QCOMPARE(*temper.hours, 1.5);
        QVERIFY(d.document().batch().blades[2].tempers.empty());
        d.type("u");
        d.fill("reason", "wrong blades");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.settle();
        QVERIFY(d.document().batch().blades[0].tempers.empty());
        QVERIFY(d.document().batch().blades[1].tempers.empty());
    }

    // Left out for its place, then counted with a reason that stays beside it.
    void aReadingLeftOutMayBeAccepted() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.verifyTester();
        QFile csv(m_dir.filePath("near.csv"));
        QVERIFY(csv.open(QIODevice::WriteOnly));
        csv.write(
            "batch,blade,gate,value,x_mm,y_mm\nOrchard 13,GK-1,quench,65.2,20,6\nOrchard 13,GK-1,quench,65.3,20.4,6\n"
            "Orchard 13,GK-1,quench,65.4,30,6\n");
        csv.close();
        d.drop(csv.fileName());
        d.press(Qt::Key_Return);
        d.press(Qt::Key_F4);
        QVERIFY2(d.reasons().contains("65.3 left out: 0.4 mm from another indent"), qPrintable(d.reasons()));
        QCOMPARE(d.document().verdict()->taken, 2);
        d.type("a");
        d.fill("reason", "distance measured, it is enough");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.settle();
        QCOMPARE(d.document().verdict()->taken, 3);
        QVERIFY(d.reasons().contains("65.3 counts against the rule: distance measured, it is enough"));
    }

    void sameAgainAndChoosingBatches() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.press(Qt::Key_F9);
        d.type("s");
        QCOMPARE(d.dialog()->findChild<QComboBox*>("grade")->currentText(), QStringLiteral("115CrV3"));
        d.fill("name", "Orchard 13");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(!d.formMessage().isEmpty()); // the name is in use
        d.fill("name", "Orchard 14");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.settle();
        QCOMPARE(d.document().batch().name, std::string("Orchard 14"));
        QVERIFY2(d.now().contains("Orchard 13"), qPrintable(d.now())); // the Now line looks across batches
        d.type("b");
        QVERIFY(d.dialogText().contains("3 blades, 115CrV3"));
        d.type("2");
        QCOMPARE(d.document().batch().name, std::string("Orchard 13"));
    }

    void theOneAtWorkIsWrittenWithEveryEntry() {
        WindowDriver d;
        d.makeBatch("Quench only");
        read(d, "652\n");
        d.press(Qt::Key_F11);
        d.type("n");
        d.fill("initials", "WS");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.settle();
        QCOMPARE(d.document().person(), QStringLiteral("WS"));
        d.type("653\n");
        QCOMPARE(d.document().blade()->readings[0].person, std::string("HB"));
        QCOMPARE(d.document().blade()->readings[1].person, std::string("WS"));
        d.press(Qt::Key_F11);
        d.type("1");
        QCOMPARE(d.document().person(), QStringLiteral("HB"));
    }

    void anotherLogbookIsMadeAndOpened() {
        WindowDriver d;
        d.makeBatch("Quench only");
        const QString first = d.path();
        d.chooseFile(m_dir.filePath("second.rollcall"));
        d.run("new-logbook");
        d.settle();
        QVERIFY(!d.document().hasBatch());
        QVERIFY(d.now().contains("first batch"));
        d.chooseFile(m_dir.filePath("there-is-none.rollcall"));
        d.run("open");
        QVERIFY(d.dialogText().contains("there is no such file"));
        d.press(Qt::Key_Return);
        d.chooseFile(first);
        d.run("open");
        d.settle();
        QCOMPARE(d.document().batch().name, std::string("Orchard 13"));
        d.drop(m_dir.filePath("second.rollcall")); // a logbook may be dropped as well
        QVERIFY(!d.document().hasBatch());
    }

    // From a bench into a logbook without a batch: back to the overview, and no key of the bench does anything.
    void anEmptyLogbookOpenedFromABench() {
        for (const Qt::Key gate :
             {Qt::Key_F2, Qt::Key_F3, Qt::Key_F4, Qt::Key_F5, Qt::Key_F6, Qt::Key_F7, Qt::Key_F8, Qt::Key_F12}) {
            WindowDriver d;
            d.makeBatch();
            d.press(gate);
            QVERIFY(!d.window().overviewOpen());
            d.document().open(d.path() + "-empty.rollcall", true);
            d.settle();
            QVERIFY(d.window().overviewOpen());
            d.press(Qt::Key_Return);
            QVERIFY(d.dialogText().contains("tester")); // what to do first
            d.press(Qt::Key_Escape);
        }
    }

    void aFileThatIsNoLogbookStaysAsItIs() {
        QFile file(m_dir.filePath("letter.rollcall"));
        QVERIFY(file.open(QIODevice::WriteOnly));
        file.write("Dear smith, the blades are ready.");
        file.close();
        WindowDriver d;
        d.chooseFile(file.fileName());
        d.run("open");
        QVERIFY2(d.dialogText().contains("not a logbook") || d.dialogText().contains("not a Rollcall logbook"),
                 qPrintable(d.dialogText()));
        QVERIFY(file.open(QIODevice::ReadOnly));
        QCOMPARE(file.readAll(), QByteArray("Dear smith, the blades are ready."));
    }

    // At every text size nothing that speaks leaves the window, and the primary act keeps its words.
    void everyTextSizeKeepsTheWindowWhole_data() {
        QTest::addColumn<int>("steps");
        QTest::newRow("100 %") << 0;
        QTest::newRow("125 %") << 1;
        QTest::newRow("150 %") << 2;
        QTest::newRow("80 %") << 3;
    }
    void everyTextSizeKeepsTheWindowWhole() {
        QFETCH(int, steps);
        WindowDriver d;
        d.makeBatch("Quench only");
        d.press(Qt::Key_F4);
        for (int i = 0; i < steps; ++i) d.run("text-size");
        const QRect whole = d.window().rect();
        for (const char* name : {"primary", "roll", "reading-row", "reasons"}) {
            auto* widget = d.window().findChild<QWidget*>(QLatin1String(name));
            QVERIFY2(widget != nullptr, name);
            const QRect at(widget->mapTo(&d.window(), QPoint(0, 0)), widget->size());
            QVERIFY2(whole.contains(at.topLeft()), name);
            QVERIFY2(widget->width() > 40 && widget->height() > 20, name);
        }
        QVERIFY(!d.act().isEmpty());
        while (d.window().look().factor != 1.0) d.run("text-size");
    }

    // Names, roles and texts for who cannot see the painting.
    void whatIsPaintedIsAlsoSaid() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.verifyTester();
        read(d, "652\n653\n654\n");
        QVERIFY(d.rollText(0).startsWith("GK-1: Pass, 65.1"));
        auto* column = d.window().findChild<VerdictColumn*>();
        QVERIFY(column->accessibleName().contains("GK-1 at Quench: Pass"));
        QVERIFY(d.field().contains("Reading 4"));
        d.type("r");
        QVERIFY(d.window().findChild<QWidget*>("testers-bench")->accessibleName().contains("Bench 1 today"));
    }
};

QTEST_MAIN(tst_Everyday)
#include "tst_everyday.moc"
