// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/acts/files_dialog.h"
#include "tests/support/window_driver.h"

using namespace rollcall;
using fixtures::WindowDriver;

// Shops without a bench tester: what is there is asked, nothing is invented, and files lead from blade to blade.
class tst_Kits : public QObject {
    Q_OBJECT

    static QString note(WindowDriver& d) { return d.dialog()->findChild<QLabel*>("note")->text(); }

    // From the empty logbook to six blades asked by files.
    static void filesShop(WindowDriver& d, const QString& gates = "Quench and Temper, by files") {
        d.type("n");
        QVERIFY2(d.dialogText().contains("What is there to measure with?"), qPrintable(d.dialogText()));
        d.type("3");
        d.fill("initials", "HB");
        QCOMPARE(d.formValue("files"), QStringLiteral("40 45 50 55 60 65"));
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.formValue("profile"), gates); // a shop of files is asked by files
        d.fill("name", "Hedge 4");
        d.fill("count", "6");
        d.fill("marks", "H-#");
        d.fill("grade", "1084");
        d.fill("window", "50 to 63");
        d.fill("minimum", "58");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().batch().blades.size(), std::size_t(6));
    }

private slots:
    void whatIsThereIsAsked_data() {
        QTest::addColumn<QString>("key");
        QTest::addColumn<int>("testers");
        QTest::addColumn<QString>("kind");
        QTest::newRow("rebound") << "2" << 1 << "rebound";
        QTest::newRow("one file") << "4" << 1 << "files";
        QTest::newRow("a rod, or nothing yet") << "5" << 0 << "";
    }
    void whatIsThereIsAsked() {
        QFETCH(QString, key);
        QFETCH(int, testers);
        QFETCH(QString, kind);
        WindowDriver d;
        d.type("n");
        d.type(key);
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("initials"));
        d.fill("initials", "WS");
        if (key == "4") { // nobody knows a file's hardness but who made it
            d.press(Qt::Key_Return, Qt::ControlModifier);
            QVERIFY2(d.formMessage().contains("HRC 20 to 75"), qPrintable(d.formMessage()));
            d.fill("files", "62");
        }
        d.press(Qt::Key_Return, Qt::ControlModifier);
        const auto& kept = d.document().state().shop().testers;
        QCOMPARE(static_cast<int>(kept.size()), testers);
        if (testers > 0) QCOMPARE(QString::fromLatin1(nameOf(kept.front().kind)), kind);
        QCOMPARE(d.document().person(), QStringLiteral("WS"));
        QVERIFY(d.dialog()->findChild<QWidget*>("count") != nullptr); // and on to the batch
        d.fill("name", "First");
        d.fill("window", "58 to 62");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().state().batches().size(), std::size_t(1));
    }

    // E38, E36, E37: the form proposes and says what this kit can do, and follows what is typed.
    void theFormSaysWhatTheKitCanDo() {
        WindowDriver d;
        d.type("n");
        d.setUpShop();
        d.fill("grade", "115CrV3");
        d.fill("purpose", "Kitchen, petty");
        QVERIFY2(!d.formValue("window").isEmpty(), "a usual window is proposed");
        const QString proposed = d.formValue("window");
        QVERIFY2(note(d).contains("by judgement") && note(d).contains(proposed), qPrintable(note(d)));
        QVERIFY2(note(d).contains("With Bench 1 and 3 readings a blade"), qPrintable(note(d)));
        // What a hand has typed is not written over.
        auto* window = d.dialog()->findChild<QLineEdit*>("window");
        window->setFocus();
        window->selectAll();
        QTest::keyClicks(window, "60 to 60.6");
        QVERIFY2(note(d).contains("no mean"), qPrintable(note(d)));
        d.fill("purpose", "chopper");
        QCOMPARE(d.formValue("window"), QStringLiteral("60 to 60.6"));
        d.fill("minimum", "55");
        QVERIFY2(note(d).contains("just reaches 55.0"), qPrintable(note(d)));
        d.fill("profile", "Quench and Temper, by files");
        QVERIFY2(note(d).contains("No set of files is known"), qPrintable(note(d)));
        // A wider one passes 60 + U to 63 - U; U of three readings on a tester with two on the block is about 0.64.
        d.fill("profile", "Quench and Temper");
        d.fill("window", "60 to 63");
        QVERIFY2(note(d).contains("60.6 to 62.4"), qPrintable(note(d)));
        d.press(Qt::Key_Escape);
    }

    void oneFileConfirmsAMinimumAlone() {
        WindowDriver d;
        d.type("n");
        d.type("4");
        d.fill("initials", "HB");
        d.fill("files", "62");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.fill("window", "58 to 62");
        QVERIFY2(note(d).contains("One file confirms no window, and a minimum of 60.5 at most"), qPrintable(note(d)));
        d.fill("window", "60");
        QVERIFY2(note(d).contains("can confirm this window"), qPrintable(note(d)));
        d.press(Qt::Key_Escape);
    }

    // The dialog goes to the file that halves the bracket; three taps say all that six files can.
    void threeTapsABlade() {
        WindowDriver d;
        filesShop(d);
        QCOMPARE(d.document().gate(), Gate::quench);
        d.press(Qt::Key_Return); // the primary act is to try a file
        auto* files = qobject_cast<FilesDialog*>(d.dialog());
        QVERIFY(files != nullptr);
        d.type("s"); // 55, the middle one
        QVERIFY2(files->accessibleName().contains("next the file of 60"), qPrintable(files->accessibleName()));
        d.type("s");
        QVERIFY2(files->accessibleName().contains("next the file of 65"), qPrintable(files->accessibleName()));
        d.type("b");
        QVERIFY2(files->accessibleName().contains("60.0 to 65.0") &&
                     files->accessibleName().contains("no file narrows"),
                 qPrintable(files->accessibleName()));
        d.press(Qt::Key_Return);
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        QCOMPARE(d.document().blade()->file_tests.size(), std::size_t(1));
        QCOMPARE(d.document().blade()->file_tests.front().trials.size(), std::size_t(3));
    }

    // Six blades by files through Quench, a temper and Temper to a signature each; one came soft, one stays hard.
    void sixBladesToADecisionEach() {
        WindowDriver d;
        filesShop(d);
        const auto tryFiles = [&](const QString& taps) {
            d.type("f");
            d.type(taps);
            d.press(Qt::Key_Return);
        };
        for (int i = 0; i < 6; ++i) {
            d.document().selectBlade(i);
            d.settle();
            tryFiles(i == 5 ? "bbb" : "ssb"); // 55, then 45 or 60, and so on
        }
        QCOMPARE(d.document().verdict(0, Gate::quench)->state, State::pass);
        // Where files answer, what each did stands where readings would; a file is known to 1.5.
        d.document().selectBlade(0);
        d.settle();
        auto* files = d.window().findChild<QAbstractButton*>("left");
        QVERIFY(files != nullptr);
        QTest::mouseClick(files, Qt::LeftButton);
        QVERIFY(d.window().findChild<QWidget*>("files") != nullptr);
        d.press(Qt::Key_Escape);
        d.settle();
        const auto* row = d.window().findChild<QWidget*>("reading-row");
        QVERIFY(row != nullptr);
        QCOMPARE(row->accessibleName().section(". ", 0, 0),
                 QStringLiteral("By the files: 55 skates, 60 skates, 65 bites, 58.5 to 66.5"));
        QCOMPARE(d.document().verdict(5, Gate::quench)->state, State::fail);
        d.document().selectBlade(0);
        d.settle();
        d.type("t");
        d.fill("temperature", "205");
        d.fill("hours", "2");
        d.fill("blades", "H-1, H-2, H-3, H-4, H-5");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.settle();
        d.press(Qt::Key_F5);
        for (int i = 0; i < 5; ++i) {
            d.document().selectBlade(i);
            d.settle();
            tryFiles(i == 4 ? "ssb" : "sb"); // 55 skates and 60 bites; the last one lies between 60 and 65
        }
        QCOMPARE(d.document().verdict(0, Gate::temper)->state, State::pass);
        const Verdict& hard = *d.document().verdict(4, Gate::temper);
        QVERIFY(hard.state != State::pass);
        // Those that pass are signed for in one act; Enter leads on to each of the others, then to the batch.
        d.document().selectBlade(0);
        d.press(Qt::Key_F8);
        QCOMPARE(d.act(), QStringLiteral("Sign for 4 blades"));
        d.press(Qt::Key_Return);
        d.press(Qt::Key_Return, Qt::ControlModifier);
        for (const auto& [mark, key] : {std::pair("H-5", "5"), std::pair("H-6", "6")}) { // hold, scrap
            QCOMPARE(d.act(), QStringLiteral("On to ") + mark);
            d.press(Qt::Key_Return);
            QCOMPARE(d.document().blade()->mark, std::string(mark));
            d.press(Qt::Key_Return);
            d.type(key);
            d.fill("reason", "by files");
            d.press(Qt::Key_Return, Qt::ControlModifier);
        }
        for (int i = 0; i < 6; ++i) {
            const Blade& blade = d.document().batch().blades[static_cast<std::size_t>(i)];
            QCOMPARE(blade.signatures.size(), std::size_t(1));
            QCOMPARE(blade.signatures.front().disposition, i < 4    ? Disposition::release
                                                           : i == 4 ? Disposition::hold
                                                                    : Disposition::scrap);
        }
        QCOMPARE(d.act(), QStringLiteral("To the batch"));
        d.press(Qt::Key_Return);
        QVERIFY(d.window().overviewOpen());
    }
};

QTEST_MAIN(tst_Kits)
#include "tst_kits.moc"
