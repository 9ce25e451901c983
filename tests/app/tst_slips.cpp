// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/logbook.h"
#include "tests/support/window_driver.h"

using namespace rollcall;
using fixtures::WindowDriver;

// A working day with its slips: each is mended where it happened, and the record tells both.
class tst_Slips : public QObject {
    Q_OBJECT

    static void undo(WindowDriver& d) { d.press(Qt::Key_Z, Qt::ControlModifier); }
    static void redo(WindowDriver& d) { d.press(Qt::Key_Y, Qt::ControlModifier); }
    static const Blade& blade(WindowDriver& d, std::size_t i) { return d.document().batch().blades[i]; }
    static int entries(WindowDriver& d) {
        d.stop();
        auto opened = Logbook::open(d.path(), Logbook::Access::read);
        const int count = opened.ok() ? (*opened)->counts().value().at("change") : -1;
        const bool sound = opened.ok() && (*opened)->check()->empty();
        opened.value().reset();
        d.start();
        return sound ? count : -1;
    }

private slots:
    // What is typed for one blade must not land on another: a form is left when something else comes in hand.
    void aFormIsAboutTheBladeItWasOpenedFor() {
        WindowDriver d;
        d.makeBatch();
        d.verifyTester();
        d.press(Qt::Key_F4);
        d.run("excuse");
        d.fill("reason", "a sibling stands for it");
        d.document().selectBlade(1); // as a batch does that was chosen just before
        d.settle();
        QVERIFY(d.dialog() == nullptr);
        QVERIFY2(d.now().contains("is left: something else came in hand"), qPrintable(d.now()));
        QVERIFY(blade(d, 0).excuses.empty() && blade(d, 1).excuses.empty());
        // A question likewise.
        d.run("out");
        QVERIFY(d.dialog() != nullptr);
        d.document().selectBlade(2);
        d.settle();
        QVERIFY(d.dialog() == nullptr);
        QVERIFY(!blade(d, 1).fate && !blade(d, 2).fate);
        // Another logbook.
        d.document().selectBlade(0);
        d.run("excuse");
        d.fill("reason", "typed for the first logbook");
        const QString other = d.writeFile("other.rollcall", {});
        QFile::remove(other);
        d.document().open(other, true);
        d.settle();
        QCOMPARE(d.document().path(), other);
        if (d.dialog() != nullptr) QVERIFY(d.dialog()->findChild<QWidget*>("reason") == nullptr);
    }
    // The bench tester goes on saying readings while a form is open: they wait, and the blade stays.
    void readingsWaitWhileAFormIsOpen() {
        WindowDriver d;
        d.makeBatch();
        d.verifyTester();
        d.press(Qt::Key_F4);
        d.type("652\n653\n651\n");
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        d.run("excuse");
        d.fill("reason", "typed slowly");
        d.window().station().receive(65.0, "65.0", "HRC");
        d.settle();
        QCOMPARE(d.document().bladeIndex(), 0);
        QVERIFY(d.dialog() != nullptr);
        QVERIFY(blade(d, 1).readings.empty());
        d.giveUp();
        QVERIFY2(d.field().contains("65.0 came, not logged"), qPrintable(d.field()));
        d.press(Qt::Key_Return); // now it goes on
        QCOMPARE(d.document().bladeIndex(), 1);
        QCOMPARE(blade(d, 1).readings.size(), std::size_t(1));
    }
    void twelveSlips() {
        WindowDriver d;
        d.makeBatch();
        d.verifyTester();
        d.press(Qt::Key_F4);

        // 1. A number typed wrongly: Ctrl+Z asks why, a typing slip; it stays in sight, struck out.
        d.type("652\n");
        undo(d);
        QVERIFY2(d.dialogText().contains("Strike out 65.2 of GK-1"), qPrintable(d.dialogText()));
        d.type("6");
        QCOMPARE(blade(d, 0).readings.front().struck->reason, StrikeReason::typingSlip);
        // 2. And it was right after all.
        undo(d);
        QVERIFY(!blade(d, 0).readings.front().struck);
        d.type("653\n651\n");
        QCOMPARE(d.word(), QStringLiteral("Pass"));

        // 3. The wrong blade excused.
        d.document().selectBlade(1);
        d.settle();
        d.run("excuse");
        d.fill("reason", "a sibling stands for it");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(blade(d, 1).excuses.size(), std::size_t(1));
        undo(d);
        QVERIFY(blade(d, 1).excuses.empty());
        QVERIFY2(d.now().contains("Undone: the excuse"), qPrintable(d.now()));

        // 4. The wrong blade out; and the right act again by Ctrl+Y after a look.
        d.run("out");
        d.type("2");
        if (d.dialog() != nullptr) {
            d.fill("reason", "dropped");
            d.press(Qt::Key_Return, Qt::ControlModifier);
        }
        QVERIFY(blade(d, 1).fate.has_value());
        undo(d);
        QVERIFY(!blade(d, 1).fate);
        redo(d);
        QVERIFY(blade(d, 1).fate.has_value());
        undo(d);

        // 5. A mark misspelt.
        d.run("rename");
        d.fill("mark", "GK-22");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(blade(d, 1).mark, std::string("GK-22"));
        undo(d);
        QCOMPARE(blade(d, 1).mark, std::string("GK-2"));

        // 6. Limits of another batch.
        d.run("limits");
        d.fill("window", "57 to 59");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().batch().window.low.value(), 57.0);
        undo(d);
        QCOMPARE(d.document().batch().window.low.value(), 61.0);

        // 7. A note on the wrong batch.
        d.run("note");
        d.fill("text", "new belt");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().batch().notes.size(), std::size_t(1));
        undo(d);
        QVERIFY(d.document().batch().notes.empty());

        // 8. A temper logged for blades that were not in the oven.
        d.run("temper");
        d.fill("temperature", "205");
        d.fill("hours", "2");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(!blade(d, 0).tempers.empty());
        undo(d);
        QVERIFY(blade(d, 0).tempers.empty());

        // 9. Struck out, and the temper that was struck out stands again.
        d.run("temper");
        d.fill("temperature", "205");
        d.fill("hours", "2");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.run("strike-temper");
        if (d.dialog() != nullptr) {
            if (d.dialog()->findChild<QWidget*>("reason") != nullptr) {
                d.fill("reason", "wrong oven");
                d.press(Qt::Key_Return, Qt::ControlModifier);
            } else {
                d.press(Qt::Key_Return);
            }
        }
        QVERIFY(blade(d, 0).tempers.empty());
        undo(d);
        QVERIFY(!blade(d, 0).tempers.empty());

        // 10. A batch made twice.
        d.run("same-again");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().state().batches().size(), std::size_t(2));
        undo(d);
        QCOMPARE(d.document().state().batches().size(), std::size_t(1));
        QCOMPARE(QString::fromStdString(d.document().batch().name), QStringLiteral("Orchard 13"));

        // 11. A blade forgotten when the batch was made.
        d.run("add-blade");
        d.fill("mark", "GK-4");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().batch().blades.size(), std::size_t(4));
        // 12. And it was none.
        undo(d);
        QCOMPARE(d.document().batch().blades.size(), std::size_t(3));

        // Nothing is erased: every slip and every mending is an entry of a record that proves itself, after a restart
        // too.
        const int count = entries(d);
        QVERIFY2(count >= 30, qPrintable(QString::number(count)));
        QCOMPARE(d.document().batch().blades.size(), std::size_t(3));
        QCOMPARE(blade(d, 0).readings.size(), std::size_t(3));
    }

    // A reading that was made on another blade, a thickness mistyped, a batch misnamed, a temper entered the day after.
    void whatWasEnteredWronglyIsMended() {
        WindowDriver d;
        d.makeBatch();
        d.verifyTester();
        d.press(Qt::Key_F4);
        d.type("652\n653\n");
        const Reading moved = blade(d, 0).readings.back();
        d.run("move-reading");
        QVERIFY2(d.dialogText().contains("Which blade was 65.3 made on?"), qPrintable(d.dialogText()));
        d.type("2"); // GK-3
        QVERIFY(blade(d, 0).readings.back().struck.has_value());
        QCOMPARE(blade(d, 0).readings.back().struck->note, std::string("made on GK-3"));
        QCOMPARE(blade(d, 2).readings.size(), std::size_t(1));
        QCOMPARE(blade(d, 2).readings.front().value, 65.3);
        QCOMPARE(blade(d, 2).readings.front().time->utc_ms, moved.time->utc_ms);
        QCOMPARE(blade(d, 2).readings.front().tester, moved.tester);
        QVERIFY(!blade(d, 2).readings.front().spot); // nobody knows where

        d.run("rename");
        d.fill("thickness", "3/32in");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(std::abs(blade(d, 0).shape.thickness_mm - 2.38125) < 1e-6);
        QCOMPARE(blade(d, 0).mark, std::string("GK-1"));
        undo(d);
        QCOMPARE(blade(d, 0).shape.thickness_mm, 2.4);

        d.run("rename-batch");
        d.fill("name", "Orchard 14");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(QString::fromStdString(d.document().batch().name), QStringLiteral("Orchard 14"));
        undo(d);
        QCOMPARE(QString::fromStdString(d.document().batch().name), QStringLiteral("Orchard 13"));

        d.run("temper");
        d.fill("temperature", "205");
        d.fill("hours", "2");
        d.fill("when", "tomorrow");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.formMessage().contains("14:30"), qPrintable(d.formMessage()));
        d.fill("when", "2199-01-01 10:00");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.formMessage().contains("cannot have happened yet"), qPrintable(d.formMessage()));
        d.fill("when", "2026-01-05 18:00");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        const Instant at = blade(d, 0).tempers.front().time.value();
        const QDateTime when = QDateTime::fromMSecsSinceEpoch(at.utc_ms, Qt::OffsetFromUTC, at.offset_minutes * 60);
        QCOMPARE(when.toString("yyyy-MM-dd HH:mm"), QStringLiteral("2026-01-05 18:00"));

        d.run("cold");
        QVERIFY2(d.dialogText().contains("burn skin"), qPrintable(d.dialogText()));
        d.fill("temperature", "20");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("−200 to 0"));
        d.fill("temperature", "-75");
        d.fill("blades", "GK-1");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(blade(d, 0).colds.size(), std::size_t(1));
        QCOMPARE(blade(d, 0).colds.front().after_temper, 1);
        undo(d);
        QVERIFY(blade(d, 0).colds.empty());
    }

    // What happened on metal is not undone by a key.
    void whatHappenedIsNotUndone() {
        WindowDriver d;
        d.makeBatch();
        d.verifyTester();
        undo(d);
        // The last act was a reading on the block: nothing of the batch is touched.
        d.press(Qt::Key_Escape);
        QCOMPARE(d.document().state().batches().size(), std::size_t(1));
        QCOMPARE(d.document().state().runs().size(), std::size_t(1));
    }
};

QTEST_MAIN(tst_Slips)
#include "tst_slips.moc"
