// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "tests/support/mouse.h"

using namespace rollcall;
using fixtures::Mouse;
using fixtures::WindowDriver;

// What a working day in a real shop brings beside the readings: a block that grows old, a dial, a load nobody clocked,
// inches, a hammer on a spine.
class tst_Workshop : public QObject {
    Q_OBJECT

    static const Blade& blade(WindowDriver& d, std::size_t i = 0) { return d.document().batch().blades[i]; }
    static void submit(WindowDriver& d) { d.press(Qt::Key_Return, Qt::ControlModifier); }
    static QImage row(WindowDriver& d) {
        return d.window().findChild<QWidget*>(QStringLiteral("reading-row"))->grab().toImage();
    }

private slots:
    void init() {
        QCoreApplication::setOrganizationName(QStringLiteral("rollcall-test"));
        QSettings().clear();
    }

    // By whom, since when, until when, and its other face; a certificate that ran out is said wherever it counts.
    void theCertificateOfABlock() {
        WindowDriver d;
        d.makeBatch();
        d.type("r");
        d.run("testers.blocks");
        d.type("1");
        d.fill("by", "the block's maker");
        d.fill("on", "2024-05-31");
        d.fill("until", "soon");
        submit(d);
        QVERIFY2(d.formMessage().contains("2027-05-31"), qPrintable(d.formMessage()));
        d.fill("until", "2023-05-31");
        submit(d);
        QVERIFY2(d.formMessage().contains("ends before it begins"), qPrintable(d.formMessage()));
        d.fill("until", "2026-02"); // the last day of that month
        submit(d);
        const Block kept = d.document().state().shop().blocks.front();
        QCOMPARE(kept.certificate.by, std::string("the block's maker"));
        QCOMPARE(kept.certificate.until, std::string("2026-02-28"));
        d.run("testers.blocks");
        d.type("n");
        d.fill("name", "62.6 back");
        d.fill("certified", "40.2");
        d.fill("used", "12");
        d.fill("face", QString::fromStdString(kept.name));
        submit(d);
        QCOMPARE(d.document().state().shop().blocks.back().certificate.other_face, kept.id);
        QVERIFY2(d.reasons().contains("certificate of block 62.6 ran out on 2026-02-28"), qPrintable(d.reasons()));
        QVERIFY2(d.reasons().contains("other face is indented"), qPrintable(d.reasons()));
        d.press(Qt::Key_Escape);
        d.press(Qt::Key_F4);
        d.type("v");
        QVERIFY2(d.dialogText().contains("its certificate ran out on 2026-02-28"), qPrintable(d.dialogText()));
        d.type("1");
        d.type("627\n629\n628\n628\n628\n");
        d.press(Qt::Key_Return);
        d.type("652\n653\n654\n");
        QVERIFY2(d.reasons().contains("certificate of block 62.6 had run out"), qPrintable(d.reasons()));
        QCOMPARE(d.word(), QStringLiteral("Borderline")); // E63: no Pass rests on it
        d.restart();
        QCOMPARE(d.document().state().shop().blocks.front().certificate.until, std::string("2026-02-28"));
        d.press(Qt::Key_F4);
        QVERIFY2(d.reasons().contains("error 0.2"), qPrintable(d.reasons()));
        // A value of the certificate that was mistyped is judged anew as soon as it is mended.
        d.type("r");
        d.run("testers.blocks");
        d.type("1");
        d.fill("certified", "62.5");
        submit(d);
        d.press(Qt::Key_Escape);
        d.press(Qt::Key_F4);
        QVERIFY2(d.reasons().contains("error 0.3"), qPrintable(d.reasons()));
        // Keeping a block as it is adds no certificate.
        d.type("r");
        d.run("testers.blocks");
        d.type("1");
        submit(d);
        QCOMPARE(d.document().state().shop().blocks.front().certificate.by, std::string("the block's maker"));
    }

    // Beside the dwell timer a dial shows its habits, unless they are turned off; a digital display has none.
    void habitsOfTheDial() {
        WindowDriver d;
        d.makeBatch();
        d.press(Qt::Key_F4);
        d.run("dial-habits");
        QVERIFY2(d.now().contains("has no dial"), qPrintable(d.now()));
        d.type("r");
        d.run("testers.change");
        d.fill("kind", "bench, dial");
        submit(d);
        d.press(Qt::Key_Escape);
        d.press(Qt::Key_F4);
        const QImage at_rest = row(d);
        d.press(Qt::Key_Space);
        const QRect left(0, 0, at_rest.width() / 3, at_rest.height());
        const QImage habits = row(d);
        QVERIFY(habits.copy(left) != at_rest.copy(left));
        d.run("dial-habits");
        QVERIFY(row(d).copy(left) == at_rest.copy(left));
        d.press(Qt::Key_Space);
    }

    // Nobody clocked the blades: oven, minutes, oil and transfer of the load are one note, and answer the Heat gate.
    void theLoadAsOneNote() {
        WindowDriver d;
        d.makeBatch("Steel to Proof");
        d.press(Qt::Key_F3);
        QCOMPARE(d.word(), QStringLiteral("Not yet"));
        d.run("soak.load");
        QCOMPARE(d.formValue("blades"), QStringLiteral("GK-1, GK-2, GK-3"));
        submit(d);
        QVERIFY2(d.formMessage().contains("how long they soaked"), qPrintable(d.formMessage()));
        d.fill("blades", "GK-1, GK-9");
        submit(d);
        QVERIFY(d.formMessage().contains("No blade is marked GK-9"));
        d.fill("blades", "GK-1, GK-2");
        d.fill("minutes", "8");
        d.fill("quenchant", "136F");
        d.fill("transfer", "1.5");
        submit(d);
        QCOMPARE(d.document().batch().heat_runs.size(), std::size_t(1));
        for (std::size_t i : {0U, 1U}) {
            QCOMPARE(blade(d, i).heats.front().noted_minutes.value(), 8.0);
            QVERIFY(std::abs(blade(d, i).heats.front().quenchant_c.value() - 57.7778) < 1e-3);
            QVERIFY(d.document().verdict(int(i), Gate::heat)->has(Fact::soakByNote));
        }
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        QVERIFY2(d.reasons().contains("8.0 min as it was written down"), qPrintable(d.reasons()));
        QCOMPARE(d.document().verdict(2, Gate::heat)->state, State::notYet); // it was not in it
    }

    // Space as the blade leaves the oven and again as it is in the quench: the transfer is noted.
    void theStopwatch() {
        WindowDriver d;
        d.makeBatch("Steel to Proof");
        d.press(Qt::Key_F3);
        d.run("soak.load");
        d.fill("minutes", "8");
        submit(d);
        QVERIFY(!blade(d).heats.front().noted_transfer_s);
        d.press(Qt::Key_Space);
        QVERIFY2(d.now().contains("once more as GK-1 is in the quench"), qPrintable(d.now()));
        d.passTime(2500);
        d.press(Qt::Key_Space);
        const double seconds = blade(d).heats.front().noted_transfer_s.value();
        QVERIFY2(seconds >= 2.5 && seconds < 4, qPrintable(QString::number(seconds))); // the test's own time is in it
        d.press(Qt::Key_Space);
        d.document().selectBlade(1);
        d.press(Qt::Key_Space); // begun for another blade: nothing is noted
        QVERIFY(!blade(d, 1).heats.front().noted_transfer_s);
        QVERIFY(d.now().contains("nothing is noted"));
    }

    // Between two steps of the cursor a moment is typed.
    void aMomentIsTyped() {
        WindowDriver d;
        d.makeBatch("Steel to Proof");
        d.press(Qt::Key_F3);
        d.run("soak.moment");
        QVERIFY(d.now().contains("no trace"));
        QByteArray trace("seconds,celsius\n");
        for (int s = 0; s <= 1200; s += 10) trace += QByteArray::number(s) + ",802\n";
        d.drop(d.writeFile("oven.csv", trace));
        d.fill("set", "800");
        submit(d);
        d.run("soak.moment");
        d.fill("at", "5000");
        submit(d);
        QVERIFY2(d.formMessage().contains("from 0 to 1200 s"), qPrintable(d.formMessage()));
        d.fill("at", "12.3");
        submit(d);
        d.press(Qt::Key_Return);
        QCOMPARE(blade(d).heats.front().in_s.value(), 12.3);
    }

    // Two shops of one record: what is shown and typed is the shop's, what is kept is mm and °C.
    void inchesAndFahrenheit() {
        WindowDriver d;
        d.makeBatch();
        d.verifyTester();
        d.run("units");
        QVERIFY2(d.now().contains("in or °F"), qPrintable(d.now()));
        d.run("rename");
        QCOMPARE(d.formValue("thickness"), QStringLiteral("0.0945")); // 2.4 mm
        d.fill("mark", "GK-11");
        submit(d);
        QCOMPARE(blade(d).shape.thickness_mm, 2.4); // what was not touched stays to the last digit
        d.run("rename");
        d.fill("thickness", "1/8");
        submit(d);
        QVERIFY(std::abs(blade(d).shape.thickness_mm - 3.175) < 1e-9);
        d.run("temper");
        d.fill("temperature", "401");
        d.fill("hours", "2");
        submit(d);
        QVERIFY(std::abs(blade(d).tempers.front().temperature_c.value() - 205) < 1e-9);
        d.press(Qt::Key_F5);
        d.type("640\n641\n639\n");
        const QString act = WindowDriver::plain(d.act());
        QVERIFY2(act.contains("°F") && !act.contains("°C"), qPrintable(act));
        d.type("t");
        const double advised = d.formValue("temperature").toDouble();
        QVERIFY2(advised > 401 && advised < 600, qPrintable(d.formValue("temperature")));
        QCOMPARE(std::fmod(advised, 10), 0.0); // what its oven can be set to
        d.press(Qt::Key_Escape);
        d.restart(); // the shop's choice is in its logbook
        QCOMPARE(d.document().state().shop().units(), Units::inch);
        d.run("units");
        QVERIFY(d.now().contains("mm or °C"));
    }

    // A sheet of the library in an inch shop: its temperatures are Fahrenheit, a bare one that is typed too; what was
    // not touched is kept to the digit.
    void ownGradeInFahrenheit() {
        WindowDriver d;
        d.makeBatch("Steel to Proof");
        d.run("units");
        d.press(Qt::Key_F2);
        d.run("steel.library");
        d.fill("text", "1095");
        submit(d);
        d.press(Qt::Key_1);
        const Grade* shipped = d.document().tables().grade("1095");
        QVERIFY(shipped != nullptr);
        const double low = *shipped->austenitise_c.low;
        QCOMPARE(d.formValue("austenitise").section(QLatin1Char('-'), 0, 0).toInt(), std::lround(low * 1.8 + 32));
        QVERIFY2(d.formValue("curve").startsWith(
                     QString::number(std::lround(shipped->temper_curve.front().temperature_c * 1.8 + 32)) +
                     QLatin1Char(':')),
                 qPrintable(d.formValue("curve")));
        d.fill("name", "1095 as poured");
        d.fill("austenitise", "1436-1500F"); // 780 to 815.6 °C
        submit(d);
        const Grade* own = d.document().tables().grade("1095 as poured");
        QVERIFY2(own != nullptr, qPrintable(d.now()));
        QVERIFY(std::abs(*own->austenitise_c.low - 780) < 1e-9);
        QVERIFY(std::abs(*own->austenitise_c.high - 1468 / 1.8) < 1e-9);
        QCOMPARE(own->temper_curve.front().temperature_c, shipped->temper_curve.front().temperature_c);
    }

    // Blows on a spine: by a typed number, one by one, and by the mouse; a crack ends it as the steel's.
    void blowsOnTheSpine() {
        WindowDriver d;
        d.makeBatch("Steel to Proof");
        d.press(Qt::Key_F7);
        Mouse m(d);
        m.primary();
        m.choose(QStringLiteral("Spine strikes"));
        d.press(Qt::Key_Return); // the caution was read
        d.type("12");
        d.fill("value", "12");
        submit(d);
        const auto progress = [&] { return progressOf(blade(d).trials.back()); };
        QCOMPARE(progress().steps[0].count, 12.0);
        for (int i = 0; i < 8; ++i) d.press(Qt::Key_Return);
        QCOMPARE(progress().steps[0].state, StepState::passed); // twenty
        d.press(Qt::Key_Return);
        QCOMPARE(progress().outcome, TrialOutcome::passed);
        d.document().selectBlade(1);
        d.settle();
        m.primary();
        m.choose(QStringLiteral("Spine strikes"));
        m.act("trial.fail"); // nothing before the caution was read
        QVERIFY2(d.now().contains("Read the caution first"), qPrintable(d.now()));
        d.press(Qt::Key_Return);
        d.press(Qt::Key_Return);
        m.act("trial.fail");
        m.choose(QStringLiteral("cracked"));
        m.choose(QStringLiteral("End it as failed"));
        QCOMPARE(progressOf(blade(d, 1).trials.back()).outcome, TrialOutcome::failed);
        QCOMPARE(d.word(), QStringLiteral("Fail"));
    }

    // What measures and proves nothing: strokes to each level of damage, typed afterwards.
    void barConcreteBatoningTip_data() {
        QTest::addColumn<QString>("protocol");
        QTest::addColumn<bool>("measures");
        QTest::newRow("bar") << "Bar with the edge" << true;
        QTest::newRow("bar, spine") << "Bar with the spine" << true;
        QTest::newRow("concrete") << "Concrete" << true;
        QTest::newRow("batoning") << "Batoning" << false;
        QTest::newRow("tip") << "Tip into wood" << false;
        QTest::newRow("straightened") << "Bend and straighten" << false;
    }
    void barConcreteBatoningTip() {
        QFETCH(QString, protocol);
        QFETCH(bool, measures);
        WindowDriver d;
        d.makeBatch("Steel to Proof");
        d.press(Qt::Key_F7);
        Mouse m(d);
        m.primary();
        m.choose(protocol);
        const Protocol begun = blade(d).trials.back().protocol;
        QCOMPARE(QString::fromStdString(begun.name), protocol);
        QCOMPARE(begun.onlyMeasures(), measures);
        d.press(Qt::Key_Return); // every one of them can hurt: its caution comes first
        if (!measures) return;
        for (std::size_t step = 0; step < begun.steps.size(); ++step) {
            d.type("7");
            d.fill("value", "70");
            submit(d);
            d.type("*"); // to here
        }
        const TrialProgress done = progressOf(blade(d).trials.back());
        QCOMPARE(done.outcome, TrialOutcome::passed);
        for (const StepProgress& step : done.steps) QCOMPARE(step.count, 70.0);
    }
};

QTEST_MAIN(tst_Workshop)
#include "tst_workshop.moc"
