// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/choice_dialog.h"
#include "app/shared/form_dialog.h"
#include "cli/cli.h"
#include "logbook/actions/blades.h"
#include "tests/support/temp_logbook.h"
#include "tests/support/window_driver.h"

#include <QAbstractItemModelTester>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <QListView>
#include <QSettings>
#include <QTableView>

using namespace rollcall;
using fixtures::WindowDriver;

// A maker's walk through the real window: keys and clicks in, what is on screen and on disk out.
class tst_Window : public QObject {
    Q_OBJECT

    static void logTemper(WindowDriver& d, const QString& temperature) {
        d.type("t");
        d.fill("temperature", temperature);
        d.fill("hours", "2");
        d.press(Qt::Key_Return, Qt::ControlModifier);
    }

private slots:
    void initTestCase() { QStandardPaths::setTestModeEnabled(true); }

    void anEmptyLogbookSaysWhatToDoFirst() {
        WindowDriver d;
        QVERIFY(d.now().contains("first batch"));
        QCOMPARE(d.act(), QStringLiteral("New batch"));
        d.press(Qt::Key_F3); // a gate that is not there is said, not opened
        QVERIFY(d.window().overviewOpen());
    }

    void theFormSaysWhatIsWrong() {
        WindowDriver d;
        d.type("n");
        d.setUpShop();
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.formMessage(), QStringLiteral("Give the batch a name."));
        d.fill("name", "X");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("window"));
        d.press(Qt::Key_Escape);
        QVERIFY(d.document().state().batches().empty());
    }

    void aBatchFromTheFirstKeyToTheLastVerdict() {
        WindowDriver d;
        d.makeBatch();
        QCOMPARE(QString::fromStdString(d.document().batch().name), QStringLiteral("Orchard 13"));
        QCOMPARE(d.document().gate(), Gate::quench);
        QCOMPARE(d.act(), QStringLiteral("Verify the tester")); // asked for when missing
        d.press(Qt::Key_Return);
        d.type("627\n");
        QCOMPARE(d.word(), QStringLiteral("Not yet"));
        d.type("629\n628\n628\n628\n");
        QCOMPARE(d.word(), QStringLiteral("Good"));
        d.press(Qt::Key_Return);

        // Three blades called at Quench: six keys and Enter each, auto advance by Enter.
        for (int blade = 0; blade < 3; ++blade) {
            QCOMPARE(d.document().bladeIndex(), blade);
            QCOMPARE(d.act(), QStringLiteral("Take reading 1"));
            d.type("652\n65,3\n654\n");
            QCOMPARE(d.word(), QStringLiteral("Pass"));
            d.press(Qt::Key_Return);
        }
        QVERIFY(d.window().overviewOpen());

        // Temper gate: in the window, but a temper is missing.
        d.press(Qt::Key_F5);
        d.document().selectBlade(0);
        QCOMPARE(d.word(), QStringLiteral("Not yet"));
        d.type("*621\n622\n623\n");
        QVERIFY(d.reasons().contains("Tempers missing: 0 of 1 logged"));
        QCOMPARE(d.word(), QStringLiteral("Not yet"));
        logTemper(d, "405F");
        QCOMPARE(d.document().batch().blades[2].tempers.size(), std::size_t(1));
        QVERIFY(std::abs(*d.document().batch().blades[0].tempers[0].temperature_c - 207.22) < 0.01);
        d.type("621\n622\n623\n"); // read anew after the temper
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        QVERIFY(d.rollText(0).startsWith("GK-1: Pass, 62.0"));

        // A strike-out with its reason.
        d.press(Qt::Key_Plus);
        QCOMPARE(d.document().bladeIndex(), 1);
        d.type("627\n550\n");
        d.press(Qt::Key_Return); // far from the others: asked for once, then taken
        QCOMPARE(d.document().verdict()->taken, 2);
        d.type("/");
        QVERIFY(d.dialogText().contains("Strike out 55.0. Why?"));
        d.type("4"); // seating or warp
        QCOMPARE(d.document().verdict()->taken, 1);
        QVERIFY(d.now().contains("seating or warp"));

        // Near the limit, but inside by nine in ten: a batch of one's own passes.
        d.type("626\n628\n");
        QCOMPARE(d.word(), QStringLiteral("Pass"));

        // Everything is still there after a restart.
        d.restart();
        QCOMPARE(QString::fromStdString(d.document().batch().name), QStringLiteral("Orchard 13"));
        d.press(Qt::Key_F5);
        QVERIFY(d.rollText(0).startsWith("GK-1: Pass, 62.0"));
        QVERIFY(d.rollText(1).startsWith("GK-2: Pass, 62.5"));
        const Blade& second = d.document().batch().blades[1];
        QCOMPARE(std::count_if(second.readings.begin(), second.readings.end(),
                               [](const Reading& r) { return r.struck.has_value(); }),
                 std::ptrdiff_t(1));
        for (const Blade& blade : d.document().batch().blades) {
            for (const Reading& r : blade.readings) QCOMPARE(r.person, std::string("HB"));
        }
    }

    void numbersThatCannotBeAreRefusedInWords() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.type("921\n");
        QVERIFY(d.field().contains("HRC reads 20 to 70. Type it again."));
        QVERIFY(d.field().contains("921")); // nothing is cleared until the next key
        d.type("6");
        QVERIFY(!d.field().contains("921"));
        d.type("51\n");
        QCOMPARE(d.document().verdict()->taken, 1);
        d.type("261\n"); // 26.1 for 62.1
        QVERIFY(d.field().contains("Far from 65.1. Enter again logs 26.1."));
        QCOMPARE(d.document().verdict()->taken, 1);
        d.press(Qt::Key_Escape);
        d.type("652\n653\n");
        QCOMPARE(d.document().verdict()->taken, 3);
        d.type("7"); // the blade has its readings: the next blade's number must not land on it
        QVERIFY(d.field().contains("It has its readings. *: log it as one more. Esc: clear it."));
        QCOMPARE(d.word(), QStringLiteral("Borderline")); // not verified: Borderline at best
        QVERIFY(d.reasons().contains("is not verified"));
    }

    void numLockOffIsSaidAndMovesNothing() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.press(Qt::Key_PageDown, Qt::KeypadModifier);
        QVERIFY(d.now().contains("Num Lock is off"));
        QCOMPARE(d.document().bladeIndex(), 0);
        d.press(Qt::Key_PageDown);
        QCOMPARE(d.document().bladeIndex(), 1);
        QTest::keyClick(d.window().focusWidget(), '6', Qt::KeypadModifier); // with Num Lock on digits are digits
        QVERIFY(d.field().contains("6"));
    }

    void aSpotTooNearIsRefusedWithItsDistance() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.type("652\n");
        BladeView* view = d.bladeView();
        const Spot taken = d.document().blade()->readings[0].spot.value();
        QTest::mouseClick(view, Qt::LeftButton, Qt::NoModifier,
                          view->pixelOf({taken.x_mm + 0.9, taken.y_mm}).toPoint());
        QVERIFY2(QRegularExpression("Too near: (0\\.9|0\\.8|1\\.0) mm from an indent, 1\\.4 needed")
                     .match(d.field())
                     .hasMatch(),
                 qPrintable(d.field()));
        QTest::mouseClick(view, Qt::LeftButton, Qt::NoModifier, view->pixelOf({30, 0.5}).toPoint());
        QVERIFY(d.field().contains("from the edge"));
        QTest::mouseClick(view, Qt::LeftButton, Qt::NoModifier, view->pixelOf({30, 8}).toPoint());
        d.type("653\n");
        const Spot second = d.document().blade()->readings[1].spot.value();
        QVERIFY(std::abs(second.x_mm - 30) < 0.3 && std::abs(second.y_mm - 8) < 0.3);
        // Arrow keys move the next spot, stepping over what is too near.
        const Spot before = view->picture().next.value();
        d.press(Qt::Key_Right);
        QVERIFY(view->picture().next->x_mm > before.x_mm);
        QVERIFY(view->picture().next_allowed);
    }

    void aFailedRunOnTheBlockIsRepeatedOnce() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.type("v");
        d.type("638\n639\n");
        QCOMPARE(d.word(), QStringLiteral("Not good"));
        QCOMPARE(d.act(), QStringLiteral("Repeat the run"));
        d.press(Qt::Key_Return);
        d.type("638\n637\n");
        QCOMPARE(d.act(), QStringLiteral("Stop: tester not fit"));
        d.press(Qt::Key_Return);
        QCOMPARE(d.document().batch().verifications.size(), std::size_t(2)); // both runs stay in the log
        d.type("652\n653\n654\n");
        QCOMPARE(d.word(), QStringLiteral("Borderline"));
    }

    void excuseRehardenAndTakeOut() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.verifyTester();
        d.type("e");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.formMessage(), QStringLiteral("A reason is needed."));
        d.fill("reason", "a sibling stands for it");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.word(), QStringLiteral("Excused"));
        d.press(Qt::Key_Plus);
        d.type("600\n601\n602\n");
        QCOMPARE(d.word(), QStringLiteral("Fail"));
        d.type("h");
        d.fill("reason", "soft from the quench");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().blade()->round, 2);
        QCOMPARE(d.word(), QStringLiteral("Not yet"));
        d.type("x");
        d.type("1");
        QCOMPARE(d.document().blade()->fate->fate, Fate::cracked);
    }

    void importsByMenuAndByDrop() {
        QTemporaryDir dir;
        const auto write = [&](const char* name, const QByteArray& text) {
            QFile file(dir.filePath(name));
            if (!file.open(QIODevice::WriteOnly)) qFatal("not written");
            file.write(text);
            return file.fileName();
        };
        WindowDriver d;
        d.chooseFile(write("a.csv", "\xEF\xBB\xBF"
                                    "batch;blade;gate;value;minimum\r\nHedge;B-1;quench;62,4;60\r\nHedge;B-1;quench;62,"
                                    "6;60\r\nHedge;B-2;quench;wet;60\r\n"));
        d.press(Qt::Key_F10);
        QVERIFY(d.dialogText().contains("In and out"));
        d.press(Qt::Key_Escape);
        d.type("i1");
        QVERIFY(d.dialogText().contains("Readings taken: 2."));
        QVERIFY(d.dialogText().contains("Line 4 left out: value: 'wet' is not a number"));
        d.press(Qt::Key_Return);
        QCOMPARE(QString::fromStdString(d.document().batch().name), QStringLiteral("Hedge"));
        d.press(Qt::Key_F4);
        QCOMPARE(d.word(), QStringLiteral("Borderline")); // judged, not verified
        QVERIFY(std::abs(d.document().verdict()->measurement->mean - 62.5) < 1e-9);

        d.drop(write("b.csv", "batch,blade,gate,value\nHedge,B-1,quench,62.5\n"));
        QVERIFY(d.dialogText().contains("Readings taken: 1."));
        d.press(Qt::Key_Return);
        QCOMPARE(d.document().verdict()->taken, 3);

        // A table that does not say all: asked, not refused.
        d.drop(write("c.csv", "batch,blade,value\nHedge,B-1,62.5\n"));
        QCOMPARE(d.formValue("fixed-gate"), QStringLiteral("temper"));
        d.press(Qt::Key_Escape);
        d.drop(write("c.csv", ""));
        QVERIFY2(d.dialogText().contains("empty"), qPrintable(d.dialogText()));
        d.press(Qt::Key_Return);
        d.drop(write("d.doc", "x"));
        QVERIFY(d.now().contains("neither a CSV file nor a logbook"));
    }

    // The same file by window and by rollcallctl: the same numbers, from two logbooks.
    void windowAndCommandLineAgree() {
        QTemporaryDir dir;
        const QString csv = dir.filePath(QStringLiteral("readings.csv"));
        QFile file(csv);
        QVERIFY(file.open(QIODevice::WriteOnly));
        file.write(
            "batch,blade,gate,value,time,tester,cycle,temperature_c,hours,grade,window_low,window_high,certified\n"
            ",62.6,block,62.7,2026-11-20T08:00:00Z,Bench 1,,,,,,,62.6\n"
            ",62.6,block,62.9,2026-11-20T08:01:00Z,Bench 1,,,,,,,62.6\n"
            "Hedge,B-1,temper,62.1,2026-11-20T09:00:00Z,Bench 1,1,205,2,115CrV3,61,63,\n"
            "Hedge,B-1,temper,62.3,2026-11-20T09:01:00Z,Bench 1,1,205,2,115CrV3,61,63,\n"
            "Hedge,B-2,temper,59.3,2026-11-20T09:02:00Z,Bench 1,1,205,2,115CrV3,61,63,\n"
            "Hedge,B-2,temper,59.4,2026-11-20T09:03:00Z,Bench 1,1,205,2,115CrV3,61,63,\n");
        file.close();
        WindowDriver d;
        d.drop(csv);
        d.press(Qt::Key_Return);
        const auto run = [](const QStringList& words) {
            const cli::Answer answer = cli::run(words, QStringLiteral(ROLLCALL_DATA_DIR "/tables"));
            return QJsonDocument::fromJson(answer.output).object();
        };
        const QString other = dir.filePath(QStringLiteral("other.rollcall"));
        run({"new", other});
        QCOMPARE(run({"import", other, "--csv", csv})["readings"].toInt(), 6);
        const QJsonArray blades = run({"show", other, "Hedge"})["blades"].toArray();
        QCOMPARE(blades.size(), 2);
        for (int i = 0; i < 2; ++i) {
            const QJsonObject gate = blades[i].toObject()["gates"].toArray()[0].toObject();
            const Verdict* shown = d.document().verdict(i, Gate::temper);
            QCOMPARE(gate["corrected_mean"].toDouble(), shown->measurement->corrected_mean);
            QCOMPARE(gate["expanded_uncertainty"].toDouble(), shown->measurement->decided_uncertainty);
            QCOMPARE(gate["verdict"].toString(), QLatin1String(i == 0 ? "pass" : "fail"));
            QCOMPARE(shown->state, i == 0 ? State::pass : State::fail);
        }
    }

    void aSecondWindowOnTheSameLogbookIsTold() {
        WindowDriver first;
        first.makeBatch();
        WindowDriver second(first.path());
        QVERIFY(second.dialogText().contains("is open in another window"));
        second.press(Qt::Key_Return);
        QVERIFY(!second.document().isOpen());
        QVERIFY(first.document().isOpen());
    }

    // What the check behind the window finds is named row by row, where everybody sees it.
    void whatTheCheckFindsIsNamed() {
        const QTemporaryDir dir;
        const QString path = dir.filePath("shop.rollcall");
        {
            auto logbook = Logbook::create(path).value();
            for (int i = 0; i < 60; ++i) (void)addPerson(*logbook, "P" + std::to_string(i), "").value();
        }
        // Longer ago than the look at opening reaches.
        for (const char* sql : {"UPDATE person SET name='another' WHERE initials='P1'",
                                "UPDATE person SET name='another' WHERE initials='P2'"})
            QCOMPARE(fixtures::TempLogbook::meddle(path, sql), QString());
        WindowDriver d(path);
        QVERIFY(QTest::qWaitFor([&] { return d.dialogText().contains("does not pass its check"); }, 10000));
        QCOMPARE(d.dialogText().count("name is not what the change log says"), 2);
        QVERIFY2(d.dialogText().contains("person "), qPrintable(d.dialogText()));
        d.press(Qt::Key_Escape);
        QVERIFY2(d.now().contains("For reading only") && d.now().contains("and 1 more"), qPrintable(d.now()));
    }

    void whyShowsTheNumbersWithTheirRules() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.verifyTester();
        d.type("652\n653\n654\nw");
        const QString text = d.dialogText();
        QVERIFY(text.contains("65.300"));
        QVERIFY(text.contains("c = 65.100"));
        QVERIFY(text.contains("(M9)") && text.contains("(M15)"));
        d.press(Qt::Key_Escape);
    }

    void lookChangesKeepTheWork() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.type("65");
        d.run("dark"); // dark
        QVERIFY(d.window().look().palette.dark);
        QVERIFY(d.field().contains("65"));
        d.run("text-size"); // larger text
        QCOMPARE(d.window().look().factor, 1.25);
        d.type("2\n");
        QCOMPARE(d.document().verdict()->taken, 1);
        d.run("dark");
        d.run("text-size");
        d.run("text-size");
        d.run("text-size");
        QCOMPARE(d.window().look().factor, 1.0);
    }

    // The window is laid out anew only when nothing is being stored that would call back to what was there before.
    void aNewLookWaitsForTheRecord() {
        WindowDriver d;
        d.makeBatch();
        bool called = false;
        d.document().perform(
            [](Logbook&) -> Result<Done> {
                QThread::msleep(150);
                return Done{};
            },
            [&](const Result<Done>&) {
                QVERIFY(!d.window().look().palette.dark);
                called = true;
            });
        const QPointer<BladeView> before = d.bladeView();
        QVERIFY(before != nullptr);
        Look look = d.window().look();
        look.palette = Palette::darkOne();
        d.window().setLook(look);
        QVERIFY(before != nullptr);
        QVERIFY(QTest::qWaitFor([&] { return d.window().look().palette.dark; }, 5000));
        QVERIFY(called);
        QVERIFY(before == nullptr && d.bladeView() != nullptr);
    }

    void theMouseReachesWhatTheKeysDo() {
        WindowDriver d;
        d.makeBatch();
        d.click("batch-cell");
        QVERIFY(d.window().overviewOpen());
        d.click("gate-temper");
        QCOMPARE(d.document().gate(), Gate::temper);
        auto* list = d.window().findChild<QListView*>("roll");
        QTest::mouseClick(list->viewport(), Qt::LeftButton, Qt::NoModifier,
                          list->visualRect(list->model()->index(2, 0)).center());
        QCOMPARE(d.document().bladeIndex(), 2);
        d.click("batch-cell");
        auto* table = d.window().findChild<QTableView*>("matrix");
        const QPoint cell = table->visualRect(table->model()->index(1, 2)).center();
        QTest::mouseClick(table->viewport(), Qt::LeftButton, Qt::NoModifier, cell);
        QTest::mouseDClick(table->viewport(), Qt::LeftButton, Qt::NoModifier, cell);
        QCOMPARE(d.document().gate(), Gate::quench);
        d.click("left"); // one more
        d.type("652\n");
        QCOMPARE(d.document().verdict()->taken, 1);
        d.click("right"); // strike out
        d.type("1");
        QCOMPARE(d.document().verdict()->taken, 0);
    }

    void modelsKeepTheirPromises() {
        WindowDriver d;
        QAbstractItemModelTester roll(d.window().findChild<QListView*>("roll")->model(),
                                      QAbstractItemModelTester::FailureReportingMode::QtTest);
        QAbstractItemModelTester matrix(d.window().findChild<QTableView*>("matrix")->model(),
                                        QAbstractItemModelTester::FailureReportingMode::QtTest);
        d.makeBatch();
        d.verifyTester();
        d.type("652\n");
        d.press(Qt::Key_F9);
    }

    // A disk that is full, or a file that is damaged, stands in the Now line until something is stored again.
    void whatIsNotStoredStaysInSight() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F4);
        d.document().perform([](Logbook&) -> Result<Done> {
            return Error{ErrorKind::disk, "shop.rollcall", "the disk is full"};
        });
        d.settle();
        d.press(Qt::Key_Down); // which hushes a message, and not this
        QVERIFY2(d.now().contains("not stored") && d.now().contains("the disk is full"), qPrintable(d.now()));
        d.document().perform([](Logbook&) -> Result<Done> {
            return Error{ErrorKind::refused, "blade", "it is out"};
        }); // the maker's own
        d.settle();
        d.press(Qt::Key_Down);
        QVERIFY2(d.now().contains("the disk is full"), qPrintable(d.now()));
        d.type("652\n");
        QCOMPARE(d.document().blade()->readings.size(), std::size_t(1));
        d.press(Qt::Key_Down);
        QVERIFY2(!d.now().contains("not stored"), qPrintable(d.now()));
    }
};

QTEST_MAIN(tst_Window)
#include "tst_window.moc"
