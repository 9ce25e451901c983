// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/testers/tester_list.h"
#include "sim/simulated_tester.h"
#include "tests/support/window_driver.h"

#include <QListView>

using namespace rollcall;
using fixtures::WindowDriver;

// A batch called from the tester's wire, and the Testers bench it hangs on.
class tst_Instruments : public QObject {
    Q_OBJECT

    QTemporaryDir m_dir;

    static void toTesters(WindowDriver& d) {
        d.makeBatch("Quench only");
        d.type("r");
        QCOMPARE(d.window().place(), QStringLiteral("testers-bench"));
    }
    SimulatedTester* wired(WindowDriver& d) {
        auto* sim = new SimulatedTester(0.2, 1);
        sim->link = m_dir.filePath(QStringLiteral("tester"));
        if (!sim->plug()) qFatal("no pseudo terminal");
        toTesters(d);
        d.run("testers.line");
        d.type("1");
        d.fill("port", sim->link);
        d.press(Qt::Key_Return, Qt::ControlModifier);
        return sim;
    }
    static int readings(WindowDriver& d) {
        int n = 0;
        for (const Blade& blade : d.document().batch().blades) n += static_cast<int>(blade.readings.size());
        return n;
    }

private slots:
    // Verified and called without a key but for Enter at the block; the wire is pulled in the middle.
    void aWholeBatchFromTheWire() {
        WindowDriver d;
        const std::unique_ptr<SimulatedTester> sim(wired(d));
        QTRY_VERIFY(d.now().contains("line open"));
        d.press(Qt::Key_Return); // verify
        const auto send = [&](const QString& command) { QVERIFY(sim->command(command).ok()); };
        for (const char* value : {"62.7", "62.9", "62.8", "62.8", "62.8"}) send(QStringLiteral("read ") + value);
        QTRY_COMPARE(d.word(), QStringLiteral("Good"));
        QTRY_COMPARE(d.document().batch().verifications.at(0).readings.size(), std::size_t(5));
        d.settle();
        d.press(Qt::Key_Return); // back to where it was begun
        QCOMPARE(d.window().place(), QStringLiteral("testers-bench"));
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        d.press(Qt::Key_F4);

        for (const char* value : {"65.2", "65.3", "65.4"}) send(QStringLiteral("read ") + value);
        QTRY_COMPARE(d.word(), QStringLiteral("Pass"));
        send("read 65.1"); // the next reading belongs to the next blade
        QTRY_COMPARE(readings(d), 4);
        QCOMPARE(d.document().bladeIndex(), 1);
        send("unplug");
        QTRY_VERIFY(d.lineText().contains("lost"));
        send("plug");
        QTRY_COMPARE(d.lineText(), QStringLiteral("line open"));
        send("again"); // what the instrument repeats after the break is no second reading
        send("read 65.3");
        send("garbage");
        send("read 65.2");
        for (const char* value : {"65.0", "65.1", "65.2"}) send(QStringLiteral("read ") + value);
        QTRY_COMPARE(readings(d), 9);
        for (int i = 0; i < 3; ++i) {
            QCOMPARE(d.document().batch().blades[std::size_t(i)].readings.size(), std::size_t(3));
            QCOMPARE(d.document().verdict(i, Gate::quench)->state, State::pass);
            QVERIFY(d.document().batch().blades[std::size_t(i)].readings[2].spot.has_value()); // placed without a key
        }
        d.restart();
        QCOMPARE(readings(d), 9);
    }

    // A reading for a blade that has all its readings and did not pass is asked about, not dropped and not misplaced.
    void whatComesUnexpectedlyWaits() {
        WindowDriver d;
        const std::unique_ptr<SimulatedTester> sim(wired(d));
        d.press(Qt::Key_Escape);
        d.press(Qt::Key_F4);
        for (const char* value : {"65.2", "65.3", "65.4"}) QVERIFY(sim->command(QStringLiteral("read ") + value).ok());
        QTRY_COMPARE(readings(d), 3);
        QCOMPARE(d.word(), QStringLiteral("Borderline")); // the tester was not verified
        QVERIFY(sim->command("read 64.9").ok());
        QTRY_VERIFY(d.field().contains("64.9 came, not logged"));
        QCOMPARE(readings(d), 3);
        d.type("*"); // it was meant for this one
        QTRY_COMPARE(readings(d), 4);
        QCOMPARE(d.document().bladeIndex(), 0);
        QVERIFY(sim->command("flood 40").ok());
        QTRY_COMPARE(d.window().station().waiting(), 40);
        d.press(Qt::Key_Return); // the next blade takes its three
        QTRY_COMPARE(readings(d), 7);
        QTRY_COMPARE(d.window().station().waiting(), 37);
        d.press(Qt::Key_Escape);
        QTRY_COMPARE(d.window().station().waiting(), 0);
        QVERIFY(d.now().contains("37 readings that came are left unlogged"));
    }

    void scalesAndRangesAreMinded() {
        WindowDriver d;
        const std::unique_ptr<SimulatedTester> sim(wired(d));
        d.press(Qt::Key_F4);
        QVERIFY(sim->command("read 99.9").ok());
        QTRY_VERIFY(d.field().contains("99.9 came: outside HRC, not logged"));
        QCOMPARE(readings(d), 0);
        d.type("r");
        d.run("testers.line");
        d.type("2"); // what came can be seen
        QVERIFY(d.dialogText().contains("R 1 99.9 HRC   read"));
        d.press(Qt::Key_Return);
    }

    void anIndenterChangeEndsTheVerification() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.verifyTester();
        d.type("r");
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        QCOMPARE(d.act(), QStringLiteral("Back"));
        d.type("m");
        d.fill("indenter", "cone D-9");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.word(), QStringLiteral("Not yet"));
        QVERIFY(d.act().startsWith("Verify"));
        d.press(Qt::Key_F4);
        d.type("652\n653\n654\n");
        QCOMPARE(d.word(), QStringLiteral("Borderline"));
        QVERIFY(d.reasons().contains("is not verified"));
    }

    void testersAndBlocksAreKept() {
        WindowDriver d;
        toTesters(d);
        d.type("n");
        d.fill("name", "Old files");
        d.fill("kind", "set of files");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("hardness of each file"));
        d.fill("files", "60 40 50");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.settle();
        const Tester files = d.document().state().shop().testers.back();
        QCOMPARE(files.files, (std::vector<double>{40, 50, 60}));
        d.press(Qt::Key_Down);
        QCOMPARE(d.word(), QStringLiteral("Usable"));
        QVERIFY(d.document().tester()->id != files.id); // files are no tester to read numbers with
        d.type("k1");
        d.fill("spacing", "1");
        d.fill("certified", "62,6");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.settle();
        QCOMPARE(d.document().state().shop().blocks[0].spacing_mm, 1.0);
        d.press(Qt::Key_Escape);
        QVERIFY(d.window().place() != QStringLiteral("testers-bench"));
    }

    // By keys and by mouse, in either order; a bracket that contradicts the bench keeps the blade from Pass.
    void filesAreTriedOnABlade() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.type("f");
        QVERIFY(d.now().contains("No set of files yet"));
        d.type("rn");
        d.fill("name", "Files");
        d.fill("kind", "set of files");
        d.fill("files", "50 55 60 65");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.press(Qt::Key_F4);
        d.verifyTester();
        d.type("652\n653\n654\n");
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        d.type("f");
        d.press(Qt::Key_Return); // with nothing tapped nothing is logged
        QVERIFY(d.document().blade()->file_tests.empty());
        d.type("s"); // Esc asks before what was tapped is lost
        d.press(Qt::Key_Escape);
        QVERIFY(QApplication::activeModalWidget() != nullptr);
        d.press(Qt::Key_Escape);
        QVERIFY(QApplication::activeModalWidget() == nullptr);
        QVERIFY(d.document().blade()->file_tests.empty());
        d.type("f");
        // The middle file first, then the one that halves what is left: 60 bites, 55 bites, 50 skates.
        d.type("bbs");
        QVERIFY(d.dialog()->accessibleName().contains("The files say 50.0 to 55.0, each known to ± 1.5"));
        d.press(Qt::Key_Return);
        QCOMPARE(d.word(), QStringLiteral("Borderline"));
        QVERIFY(d.reasons().contains("Files say 50.0 to 55.0: repeat both on bare metal"));
        d.type("f"); // again, on what was scale the first time
        const auto tap = [&](const char* name) {
            auto* button = d.dialog()->findChild<QAbstractButton*>(QLatin1String(name));
            QVERIFY2(button != nullptr, name);
            QTest::mouseClick(button, Qt::LeftButton);
        };
        tap("file65-C");
        tap("file60-S");
        tap("file55-S");
        QVERIFY(d.dialog()->accessibleName().contains("The files say 63.5 to 66.5"));
        d.press(Qt::Key_Return);
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        QVERIFY(d.reasons().contains("Agrees with the files: 63.5 to 66.5"));
        QCOMPARE(d.document().blade()->file_tests.size(), std::size_t(2)); // the first one is not erased
        d.type("f");
        tap("file65-B");
        tap("file60-B");
        tap("file55-B");
        tap("file50-S");
        tap("surface-O");
        QVERIFY(d.dialog()->accessibleName().contains("on scale: it skates falsely"));
        d.press(Qt::Key_Escape);
        QCOMPARE(d.document().blade()->file_tests.size(), std::size_t(2));
        d.restart();
        QCOMPARE(d.document().batch().blades[0].file_tests.back().trials.size(), std::size_t(4));
    }

    // 0.7 mm bears no HRC at 65: the lighter scale is proposed, read, and converted with its mark.
    void thinStockIsReadOnALighterScale() {
        WindowDriver d;
        d.makeBatch("Quench only", "0.6");
        d.press(Qt::Key_F4);
        d.type("652\n");
        QVERIFY2(d.reasons().contains("too thin") || d.reasons().contains("0.66 needed"), qPrintable(d.reasons()));
        d.type("k");
        QCOMPARE(d.dialog()->findChild<QComboBox*>("scale")->currentText(), QStringLiteral("HR45N"));
        d.fill("radius", "2");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("Below 3 mm"));
        d.fill("radius", "");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.document().selectBlade(1);
        d.settle();
        d.type("720\n720\n720\n"); // 72.0 HR45N is 65 HRC by the conversion table
        QTRY_COMPARE(d.document().blade()->readings.size(), std::size_t(3));
        QCOMPARE(d.document().blade()->readings[0].scale, std::string("HR45N"));
        QVERIFY(std::abs(d.document().verdict()->measurement->mean - 65) < 1e-9);
        QVERIFY2(d.reasons().contains("onverted"), qPrintable(d.reasons()));
        QVERIFY(d.rollText(1).contains("65.0"));
        // A ball scale is recorded, but HRC windows cannot be asked with it.
        d.type("k");
        d.fill("scale", "HRBW");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.document().selectBlade(2);
        d.settle();
        d.type("95\n");
        QTRY_COMPARE(d.document().blade()->readings.size(), std::size_t(1));
        QVERIFY2(d.reasons().contains("95.0 HRBW does not convert to HRC: not judged"), qPrintable(d.reasons()));
        QCOMPARE(d.word(), QStringLiteral("Not yet"));
    }

    void theDwellIsTimed() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.press(Qt::Key_F4);
        auto* row = d.window().findChild<QWidget*>("reading-row");
        const QImage before = row->grab().toImage();
        d.press(Qt::Key_Space);
        QTRY_VERIFY(row->grab().toImage() != before);
        d.type("652\n"); // typing takes the timer away
        QTRY_COMPARE(d.document().blade()->readings.size(), std::size_t(1));
    }

    // Good at first, then failed twice: what was read since the good run is suspect, and listed.
    void aTesterFoundOutOfToleranceMakesItsReadingsSuspect() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.verifyTester();
        d.type("652\n653\n654\n");
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        for (int run = 0; run < 2; ++run) {
            d.type("v");
            d.type("639\n640\n");
            d.press(Qt::Key_Escape);
        }
        QCOMPARE(d.word(), QStringLiteral("Borderline")); // it fails again: a person decides
        QVERIFY2(d.reasons().contains("suspect"), qPrintable(d.reasons()));
        d.type("r");
        QCOMPARE(d.word(), QStringLiteral("Fail"));
        QVERIFY2(d.reasons().contains("Failed 2 times: stop"), qPrintable(d.reasons()));
        d.type("*"); // one block only: it stays
        d.run("testers.suspect");
        QVERIFY2(d.dialogText().contains("Failed 2 times in a row"), qPrintable(d.dialogText()));
        QVERIFY(d.dialogText().contains("Orchard 13, GK-1 at Quench: 65.4 HRC"));
        d.press(Qt::Key_Return);
    }

    // A shop that owns files only has no tester to type numbers for: the first number asks for one.
    void filesAreNoTesterToReadWith() {
        WindowDriver d;
        d.type("r");
        d.type("n");
        d.fill("name", "Old files");
        d.fill("kind", "set of files");
        d.fill("files", "50 60");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.settle();
        QCOMPARE(d.document().state().shop().testers.size(), std::size_t(1));
        QVERIFY(d.document().tester() == nullptr);
        QCOMPARE(d.word(), QStringLiteral("Usable"));
    }

    // Six strikes, one of them on the spot of the one before: it reads high, and the instrument's average with it.
    void aStrikeOnTheSameSpotIsCaught() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.press(Qt::Key_F4);
        d.type("q");
        QVERIFY(d.now().contains("choose a rebound tester"));
        d.type("rn");
        d.fill("name", "Rebound 1");
        d.fill("kind", "rebound");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.press(Qt::Key_Down);
        d.press(Qt::Key_F4);
        const auto series = [&](const char* strikes, const char* mean) {
            d.type("q");
            d.fill("strikes", strikes);
            d.fill("mean", mean);
            d.fill("support", "coupled to a heavy block");
            d.press(Qt::Key_Return, Qt::ControlModifier);
        };
        series("64.8 hard", "");
        QVERIFY(d.formMessage().contains("hard: type HRC 20 to 70"));
        d.press(Qt::Key_Escape);
        // By its place: the average of all six is 65.6, of the five that count 64.9.
        series("64.8 65.1 =69.0 64.9 65.0 64.7", "65.6");
        QTRY_COMPARE(d.document().blade()->readings.size(), std::size_t(6));
        QVERIFY2(d.reasons().contains("69.0 left out: 0.0 mm from another strike, 3.0 needed"),
                 qPrintable(d.reasons()));
        QVERIFY2(d.reasons().contains("Its own average says 65.6; the strikes that count give 64.9"),
                 qPrintable(d.reasons()));
        QVERIFY(d.reasons().contains("Support: coupled to a heavy block"));
        QVERIFY(d.reasons().contains("2.4 mm thick; rebound strikes need 10.0"));
        QCOMPARE(d.word(), QStringLiteral("Borderline"));
        // By its number alone, when nobody says that it was the same spot.
        d.document().selectBlade(1);
        d.settle();
        series("64.8 65.1 69.0 64.9 65.0 64.7", "65.6");
        QTRY_COMPARE(d.document().blade()->readings.size(), std::size_t(6));
        QVERIFY2(d.reasons().contains("69.0 stands apart: same spot struck twice?"), qPrintable(d.reasons()));
        QVERIFY(d.reasons().contains("the strikes that count give 65.6, without the flagged 64.9"));
        QVERIFY(d.document().blade()->readings[3].spot.has_value());
        d.restart();
        QCOMPARE(d.document().batch().blades[1].series.at(0).instrument_mean.value(), 65.6);
    }

    // Bench 2 reads 1.1 to 1.3 harder on three blades; the maker lets one set stand, the other stays visible.
    void twoTestersAndWhichOneStands() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.verifyTester();
        const auto readAll = [&](const char* first, const char* second, const char* third) {
            d.press(Qt::Key_F4);
            int blade = 0;
            for (const char* values : {first, second, third}) {
                d.document().selectBlade(blade++);
                d.settle();
                for (const QString& value : QString(values).split(' ')) d.type("*" + value + "\n");
            }
        };
        readAll("652 653 654", "651 652 653", "650 651 652");
        d.type("c");
        QVERIFY(d.now().contains("No three blades are read by two testers"));
        d.type("rn");
        d.fill("name", "Bench 2");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.press(Qt::Key_Down);
        QCOMPARE(d.document().tester()->name, std::string("Bench 2"));
        readAll("664 664", "664 664", "664 664");
        QCOMPARE(d.word(), QStringLiteral("Borderline")); // two testers mixed
        d.type("c");
        QVERIFY2(d.dialogText().contains("Bench 1 minus Bench 2: bias \u22121.2"), qPrintable(d.dialogText()));
        QVERIFY(d.dialogText().contains("They differ"));
        QVERIFY(d.dialog()->findChild<QWidget*>("picture") != nullptr);
        d.type("1");
        d.fill("reason", "verified nearer to the work");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.settle();
        for (int i = 0; i < 3; ++i) QCOMPARE(d.document().verdict(i, Gate::quench)->state, State::pass);
        QVERIFY2(
            d.reasons().contains("A second tester's 2 readings, mean 66.4, are superseded: Bench 1 stands: verified"),
            qPrintable(d.reasons()));
        d.restart();
        const Blade& blade = d.document().batch().blades[0];
        QCOMPARE(blade.readings.size(), std::size_t(5));
        QCOMPARE(blade.readings[4].struck->reason, StrikeReason::superseded);
        d.press(Qt::Key_F4);
        d.type("w"); // the budget as a picture and as words
        QVERIFY(d.dialog()->findChild<QWidget*>("picture") != nullptr);
        QVERIFY(d.dialogText().contains("would help most"));
        d.press(Qt::Key_Escape);
    }

    void theChartLeavesTheWindow() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.verifyTester();
        d.type("r");
        for (const char* name : {"chart.csv", "chart.svg", "chart.png", "chart.doc"}) {
            const QString path = m_dir.filePath(QLatin1String(name));
            d.chooseFile(path);
            d.type("i");
            QCOMPARE(QFile::exists(path), !path.endsWith("doc"));
        }
        QVERIFY(d.now().contains("must be png, svg or csv"));
        QFile csv(m_dir.filePath("chart.csv"));
        QVERIFY(csv.open(QIODevice::ReadOnly));
        const QByteArrayList lines = csv.readAll().split('\n');
        QVERIFY(lines.at(1).contains(",0.2,0.2,0.5,1")); // error, spread and what E18 allows from 60 HRC
    }

    void whatIfShowsAndStoresNothing() {
        WindowDriver d;
        d.makeBatch("Quench only");
        d.verifyTester();
        d.type("652\n653\n654\n");
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        d.type("r");
        d.run("testers.what-if");
        d.fill("error", "3");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.dialogText().contains("GK-1 at Quench: Pass becomes"), qPrintable(d.dialogText()));
        d.press(Qt::Key_Return);
        d.press(Qt::Key_Escape);
        QCOMPARE(d.word(), QStringLiteral("Pass"));
    }
};

QTEST_MAIN(tst_Instruments)
#include "tst_instruments.moc"
