// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/edge/edge_bench.h"
#include "sim/simulated_scale.h"
#include "tests/support/window_driver.h"

#include <QFileInfo>
#include <QPointer>

using namespace rollcall;
using fixtures::WindowDriver;

class tst_Edge : public QObject {
    Q_OBJECT

    QTemporaryDir m_dir;

    static void open(WindowDriver& d) {
        d.makeBatch("Steel to Proof");
        d.press(Qt::Key_F6);
        QCOMPARE(d.window().place(), QStringLiteral("edge-bench"));
    }
    static void measure(WindowDriver& d, const char* behind, const char* angle) {
        d.type("g");
        d.fill("behind", behind);
        d.fill("angle", angle);
        d.press(Qt::Key_Return, Qt::ControlModifier);
    }
    // Force and angle of the driver's own, then what came of it.
    static void rung(WindowDriver& d, const char* force, const char* raise, const QString& outcome,
                     const char* depth = "", const char* place = "") {
        d.type("*");
        d.fill("force", force);
        d.fill("raise", raise);
        d.fill("place", place);
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.dialog());
        d.type(outcome);
        if (outcome == "1") return;
        d.fill("size", depth);
        d.press(Qt::Key_Return, Qt::ControlModifier);
    }

private slots:
    void init() { QSettings().clear(); }

    // From nothing to a Pass: the edge is asked for first, then the ladder leads from rung to rung.
    void theLadderLeadsToAPass() {
        WindowDriver d;
        open(d);
        QCOMPARE(d.word(), QStringLiteral("Not yet"));
        QCOMPARE(d.act(), QStringLiteral("Measure the edge"));
        d.press(Qt::Key_Return);
        d.fill("behind", "nothing");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.formMessage().contains("0.30 mm"), qPrintable(d.formMessage()));
        d.fill("behind", "0.012in");
        d.fill("angle", "15");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(std::abs(d.document().batch().blades[0].edges.at(0).behind_edge_mm - 0.3048) < 1e-9);
        QCOMPARE(d.act(), QStringLiteral("Take 45 N at 25°"));
        d.press(Qt::Key_Return);
        d.type("1"); // true
        QCOMPARE(d.act(), QStringLiteral("Take 90 N at 25°"));
        // Straight to what is asked: up two angles.
        d.press(Qt::Key_Up);
        d.press(Qt::Key_Up);
        QCOMPARE(d.act(), QStringLiteral("Take 90 N at 45°"));
        d.press(Qt::Key_Return);
        d.type("2"); // a set, tiny
        d.fill("size", "0.04mm");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.word() == "Pass", qPrintable(d.reasons()));
        QVERIFY2(d.reasons().contains("90 N at 45° is asked, and held"), qPrintable(d.reasons()));
        d.run("edge.grinding");
        QVERIFY(d.dialog());
        d.type("2"); // burnt in grinding
        QCOMPARE(d.word(), QStringLiteral("Borderline"));
        d.press(Qt::Key_Return);
        QVERIFY(d.dialog());
        d.type("3"); // cleared
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        d.restart();
        QCOMPARE(d.document().batch().blades[0].rungs.size(), std::size_t(2));
    }
    // The window becomes smaller while a form is open, as where a screen is turned or unplugged: the bench that asks
    // stays until it has its answer, then all is drawn at the new size.
    void theWindowShrinksUnderAForm() {
        WindowDriver d;
        open(d);
        const QPointer bench = d.window().findChild<EdgeBench*>();
        d.press(Qt::Key_Return);
        d.window().resize(920, 560);
        QTRY_VERIFY(d.window().width() < 1280);                        // the least it can be
        for (int i = 0; i < 3; ++i) QCoreApplication::processEvents(); // it asks for another layout at once
        QVERIFY(bench != nullptr);
        d.fill("behind", "0.3");
        d.fill("angle", "15");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().batch().blades[0].edges.at(0).angle_per_side_deg, 15.0);
        QTRY_VERIFY(bench == nullptr);
        QVERIFY(d.window().findChild<EdgeBench*>() != nullptr);
        QCOMPARE(d.act(), QStringLiteral("Take 45 N at 25°"));
    }
    // A thin-edged chip that geometry explains, and a stout one that it does not, in different words.
    void thinAndStoutChipsAreToldApart() {
        WindowDriver d;
        open(d);
        measure(d, "0.4", "15");
        rung(d, "90", "45", "4", "0.4");
        QCOMPARE(d.word(), QStringLiteral("Borderline"));
        QVERIFY2(d.reasons().contains("geometry explains it"), qPrintable(d.reasons()));
        QVERIFY(!d.reasons().contains("look at the heat"));
        d.type("+");
        measure(d, "0.9", "23");
        rung(d, "20.2 lbf", "45", "4", "0.9");
        QCOMPARE(d.word(), QStringLiteral("Fail"));
        QVERIFY2(d.reasons().contains("look at the heat treatment"), qPrintable(d.reasons()));
        QCOMPARE(d.act(), QStringLiteral("Look at the heat"));
        d.press(Qt::Key_Return);
        QVERIFY2(d.dialogText().contains("break a coupon"), qPrintable(d.dialogText()));
        d.press(Qt::Key_Escape);
        QVERIFY(std::abs(*d.document().batch().blades[1].rungs.at(0).force_n - 89.85) < 0.01);
        // Struck out, it no longer counts; it stays in the record.
        d.type("/");
        QVERIFY(d.dialog());
        d.type("1");
        QCOMPARE(d.word(), QStringLiteral("Not yet"));
        QVERIFY(d.document().batch().blades[1].rungs.at(0).struck);
    }
    void purposeAsksItsOwnRung() {
        WindowDriver d;
        open(d);
        d.type("p");
        QVERIFY2(d.dialogText().contains("hard and thin") && d.dialogText().contains("softer and thicker"),
                 qPrintable(d.dialogText()));
        d.type("1"); // thin slicer, hard and thin
        QCOMPARE(d.document().batch().edge_ask->purpose, std::string("Thin slicer"));
        QVERIFY(!d.reasons().contains("is usual")); // 61 to 63 lies within reach of 62 to 66
        d.type("p");
        QVERIFY(d.dialog());
        d.type("8"); // chopper, softer and thicker
        QVERIFY2(d.reasons().contains("53.0 to 56.0 HRC is usual"), qPrintable(d.reasons()));
        QVERIFY2(d.reasons().contains("135 N at 45° is asked"), qPrintable(d.reasons()));
        d.run("edge.own-ask");
        d.fill("school", "by hand, flexed over the rod");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        measure(d, "0.3", "15");
        QCOMPARE(d.act(), QStringLiteral("Flex it on the rod"));
        d.press(Qt::Key_Return);
        QVERIFY(d.dialog());
        d.type("1");
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        QVERIFY2(d.reasons().contains("Weak evidence"), qPrintable(d.reasons()));
    }
    void damageHistoryAndPicture() {
        WindowDriver d;
        open(d);
        measure(d, "0.4", "15");
        measure(d, "0.3", "17");
        d.run("edge.history");
        QVERIFY2(d.dialogText().contains("0.40 mm behind the edge, 15"), qPrintable(d.dialogText()));
        d.press(Qt::Key_Escape);
        d.run("edge.damage");
        d.fill("kind", "dent");
        d.fill("place", "far");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.formMessage().contains("mm from the heel"), qPrintable(d.formMessage()));
        d.fill("place", "31");
        d.fill("photo", d.writeFile("dent.png", "not really"));
        d.press(Qt::Key_Return, Qt::ControlModifier);
        const DamageMark mark = d.document().batch().blades[0].damage.at(0);
        QVERIFY(mark.kind == "dent" && *mark.place_mm == 31 && mark.photo == "dent.png");
        const QString picture = m_dir.filePath("ladder.svg");
        d.chooseFile(picture);
        d.type("i");
        QVERIFY2(QFileInfo(picture).size() > 1000, qPrintable(d.now()));
    }
    // Damage that nobody measured: the button measures it, in place of the rung as it stood.
    void damageIsMeasuredAfterwards() {
        WindowDriver d;
        open(d);
        measure(d, "0.4", "15");
        rung(d, "90", "45", "4");
        QCOMPARE(d.act(), QStringLiteral("Measure the damage"));
        d.press(Qt::Key_Return);
        d.fill("size", "deep");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.formMessage().contains("Type a depth"), qPrintable(d.formMessage()));
        d.fill("size", "0.4");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        const std::vector<EdgeRung>& rungs = d.document().batch().blades[0].rungs;
        QCOMPARE(rungs.size(), std::size_t(2));
        QVERIFY(rungs[0].struck && !rungs[1].struck);
        QCOMPARE(*rungs[1].size_mm, 0.4);
        QCOMPARE(*rungs[1].force_n, 90.0);
        QVERIFY2(d.reasons().contains("geometry explains it"), qPrintable(d.reasons()));
    }
    // A cracked edge is not flexed again, and a cracked piece not tried: the button asks about the crack.
    void aCrackIsAskedAboutFirst() {
        WindowDriver d;
        open(d);
        measure(d, "0.4", "15");
        d.run("edge.damage");
        d.fill("kind", "crack");
        d.fill("place", "31");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.press(Qt::Key_F7);
        QCOMPARE(d.act(), QStringLiteral("Clear the crack"));
        QCOMPARE(d.column().sub, QStringLiteral("It is cracked."));
        d.press(Qt::Key_F6);
        QCOMPARE(d.act(), QStringLiteral("Clear the crack"));
        d.press(Qt::Key_Return);
        QVERIFY2(d.dialogText().contains("no longer counts"), qPrintable(d.dialogText()));
        d.fill("reason", "inspected: a scratch");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.act().startsWith("Take "), qPrintable(d.act()));
    }
    // The scale on a wire, in pounds: the peak of the press is the rung's force.
    void forceFromTheWire() {
        SimulatedScale scale(2);
        scale.unit = QStringLiteral("lbf");
        scale.link = m_dir.filePath("scale");
        QVERIFY(scale.plug().ok());
        WindowDriver d;
        open(d);
        measure(d, "0.3", "15");
        d.run("edge.wire");
        d.fill("port", scale.link);
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.now().contains("line open"), qPrintable(d.now()));
        QVERIFY(scale.command("press 60").ok());
        QVERIFY(scale.command("press 97").ok());
        QVERIFY(scale.command("garbage").ok());
        QVERIFY(scale.command("overload").ok());
        QVERIFY(scale.command("press 80").ok());
        QTRY_VERIFY(d.window().links().force.now_n() && std::abs(*d.window().links().force.now_n() - 80) < 0.5);
        QVERIFY(std::abs(*d.window().links().force.peak_n() - 97) < 0.5);
        d.press(Qt::Key_Up);
        d.press(Qt::Key_Up);
        QVERIFY(d.column().detail.contains("97 N"));
        d.press(Qt::Key_Return);
        d.type("1");
        QVERIFY(std::abs(*d.document().batch().blades[0].rungs.at(0).force_n - 97) < 0.5);
        QVERIFY(!d.window().links().force.peak_n()); // gone into the record
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        QVERIFY(scale.command("let go").ok());
        QVERIFY(scale.command("press 30").ok());
        QTRY_VERIFY(d.window().links().force.peak_n() && std::abs(*d.window().links().force.peak_n() - 30) < 0.5);
    }
    void placesByMouseAndCells() {
        WindowDriver d;
        open(d);
        measure(d, "0.3", "15");
        QWidget* bench = d.window().findChild<QWidget*>("edge-bench");
        QTest::mouseClick(bench, Qt::LeftButton, {}, QPoint(76 + 68 * 3 + 30, 62 + 30)); // the last force, steepest
        d.settle();
        QCOMPARE(d.act(), QStringLiteral("Take 200 N at 45°"));
        QTest::mouseClick(bench, Qt::LeftButton, {}, QPoint(bench->width() / 2, bench->height() - 70));
        d.settle();
        QVERIFY2(WindowDriver::plain(d.column().detail).contains("29 mm"),
                 qPrintable(d.column().detail)); // the middle of 58
        d.press(Qt::Key_Right, Qt::ShiftModifier);
        QVERIFY(WindowDriver::plain(d.column().detail).contains("30 mm"));
    }
};

QTEST_MAIN(tst_Edge)
#include "tst_edge.moc"
