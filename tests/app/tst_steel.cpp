// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "sim/simulated_xrf.h"
#include "tests/support/window_driver.h"

using namespace rollcall;
using fixtures::WindowDriver;

class tst_Steel : public QObject {
    Q_OBJECT

    QTemporaryDir m_dir;

    // The batch of the driver is 115CrV3: 0.50 to 0.80 chromium, vanadium 0.07 to 0.12.
    static void open(WindowDriver& d) {
        d.makeBatch("Quench only");
        d.press(Qt::Key_F2);
        QCOMPARE(d.window().place(), QStringLiteral("steel-bench"));
    }

private slots:
    void init() { QSettings().clear(); }

    // Dropped, read, re-assigned: windows and minima follow, and the gates are judged anew.
    void dropReadReassign() {
        WindowDriver d;
        QSettings().remove(QStringLiteral("xrf/sigmas")); // as on a new computer
        open(d);
        d.drop(d.writeFile(
            "shot.csv", "element,percent,error\nCr,13.4,0.08\nMn,0.45,0.04\nV,<0.03,\nMo,0.02,0.005\nNi,0.1,0.03\n"));
        QVERIFY2(d.dialogText().contains("What does the analyser print"), qPrintable(d.dialogText()));
        d.type("1");
        QCOMPARE(d.word(), QStringLiteral("Fail"));
        QVERIFY2(d.reasons().contains("Cr 13.4, needs 0.50 to 0.80"), qPrintable(d.reasons()));
        QVERIFY2(d.reasons().contains("X46Cr13"), qPrintable(d.reasons()));
        d.press(Qt::Key_F4);
        d.verifyTester();
        d.type("571\n\n572\n573\n"); // below 63 of 115CrV3, well above 54 of X46Cr13
        d.document().selectBlade(0);
        QVERIFY2(d.word() != "Pass", qPrintable(d.word()));
        d.press(Qt::Key_F2);
        // More than one may be it: the button asks for what would part them, and opens the place to type it.
        QVERIFY2(d.act().contains("Carbon by OES") || d.act().contains("coupon") || d.act().contains("Sparks"),
                 qPrintable(d.act()));
        QVERIFY2(d.reasons().contains("May be "), qPrintable(d.reasons()));
        d.press(Qt::Key_Return);
        QVERIFY2(d.dialogText().contains("A shot at the bar"), qPrintable(d.dialogText()));
        d.press(Qt::Key_Escape);
        d.type("*"); // taken for one of them all the same
        QVERIFY2(d.dialogText().contains("X46Cr13"), qPrintable(d.dialogText()));
        d.type("o");
        d.fill("grade", "1.4034"); // by its number
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.fill("reason", "composition");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().batch().grade, std::string("X46Cr13"));
        QCOMPARE(d.document().batch().claimed, std::string("115CrV3"));
        QVERIFY2(d.word() == "Pass", qPrintable(d.reasons()));
        QVERIFY2(d.reasons().contains("Sold as 115CrV3, taken for X46Cr13"), qPrintable(d.reasons()));
        QCOMPARE(d.act(), QStringLiteral("On to the batch"));
        d.press(Qt::Key_Return);
        QVERIFY(d.window().overviewOpen());
        d.press(Qt::Key_F4);
        d.document().selectBlade(0);
        QVERIFY2(d.word() == "Pass", qPrintable(d.word() + d.reasons()));
        d.restart();
        QCOMPARE(d.document().batch().grade, std::string("X46Cr13"));
    }
    void badShotsAreSaid() {
        WindowDriver d;
        open(d);
        d.drop(d.writeFile("bad.csv", "a,b\n1,2\n"));
        QVERIFY2(d.now().contains("element and percent"), qPrintable(d.now()));
        d.drop(d.writeFile("half.csv", "element,percent\nCr,0.6\nMn,much\n"));
        QVERIFY2(d.now().contains("line 3"), qPrintable(d.now()));
        d.type("n");
        d.fill("values", "Cr lots");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.formMessage().contains("0 to 100"), qPrintable(d.formMessage()));
        d.giveUp();
        QCOMPARE(d.document().batch().shots.size(), std::size_t(1));
        d.type("/1"); // struck out
        QVERIFY(d.document().batch().shots[0].struck);
        QCOMPARE(d.word(), QStringLiteral("Not yet"));
    }
    void sparkAndCouponWithoutAnAnalyser() {
        WindowDriver d;
        open(d);
        d.run("steel.spark");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.reasons().contains("Sparks like the known bar"));
        d.run("steel.coupon");
        d.fill("hrc", "54");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.reasons().contains("54.0 does not suit 115CrV3"), qPrintable(d.reasons()));
        d.run("steel.lot");
        d.fill("supplier", "river market");
        d.fill("heat", "H 4711");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.run("steel.certificate");
        d.fill("values", "C 1.15; Cr 0.62; V 0.09; Mn 0.3");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.reasons().contains("certificate only"), qPrintable(d.reasons()));
        d.run("steel.changed");
        d.fill("marks", "GK-9");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("No blade is marked GK-9"));
        d.fill("marks", "GK-2, GK-3");
        d.fill("text", "carburised");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().batch().steel_notes.back().marks.size(), std::size_t(2));
        QCOMPARE(d.document().batch().heat_number, std::string("H 4711"));
    }
    // An own version of a grade moves the minimum at once; the shipped one stays in the library.
    void ownGrades() {
        WindowDriver d;
        open(d);
        d.run("steel.library");
        d.fill("text", "115CrV3");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.type("1");
        d.fill("as_quenched", "66 64 67");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.formMessage().contains("rising"), qPrintable(d.formMessage()));
        d.fill("as_quenched", "64 65.5 67");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(windowOf(d.document().batch(), *d.document().blade(), Gate::quench, d.document().tables()).low.value(),
                 64.0);
        int shipped = 0;
        for (const Grade& grade : d.document().tables().grades())
            shipped += grade.name == "115CrV3" && !grade.own ? 1 : 0;
        QCOMPARE(shipped, 1);
        for (const char* name : {"own.json", "own.csv"}) {
            const QString path = m_dir.filePath(QLatin1String(name));
            d.chooseFile(path);
            d.run("steel.library");
            d.press(Qt::Key_Return, Qt::ControlModifier);
            d.type("e");
            QVERIFY(QFile::exists(path));
        }
        d.stop();
        for (const char* name : {"own.json", "own.csv"}) {
            const QString path = m_dir.filePath(QLatin1String(name));
            WindowDriver other;
            open(other);
            other.chooseFile(path);
            other.run("steel.library");
            other.press(Qt::Key_Return, Qt::ControlModifier);
            other.type("i");
            QCOMPARE(
                windowOf(other.document().batch(), *other.document().blade(), Gate::quench, other.document().tables())
                    .low.value(),
                64.0);
        }
    }
    // Each shot that the analyser drops into its folder is taken in once, when it is whole.
    void theWatchedFolder() {
        QTemporaryDir shots;
        SimulatedXrf xrf(shots.path(), typedShot("Cr 0.62; Mn 0.3; V 0.09; Ni 0.08").value(), 5);
        QVERIFY(xrf.command("shoot").ok()); // lies there already: not told
        WindowDriver d;
        open(d);
        d.run("steel.watch");
        d.fill("folder", m_dir.filePath("nowhere"));
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("no such folder"));
        d.fill("folder", shots.path());
        d.press(Qt::Key_Return, Qt::ControlModifier);
        const auto taken = [&] { return d.document().batch().shots.size(); };
        QVERIFY(xrf.command("half").ok());
        QVERIFY(xrf.command("rest").ok());
        QTRY_COMPARE(taken(), std::size_t(1));
        QCOMPARE(d.document().batch().shots[0].composition.elements.size(), std::size_t(4));
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        QVERIFY(xrf.command("rubbish").ok());
        QTRY_VERIFY(d.now().contains("shot-003.csv"));
        QVERIFY(xrf.command("coated").ok());
        QTRY_COMPARE(taken(), std::size_t(2));
        QVERIFY2(d.reasons().contains("bare metal"), qPrintable(d.reasons()));
        QVERIFY(!xrf.command("dance").ok());
    }
};

QTEST_MAIN(tst_Steel)
#include "tst_steel.moc"
