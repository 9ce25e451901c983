// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/proof/cuts_page.h"
#include "app/proof/proof_bench.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/proof.h"
#include "tests/support/window_driver.h"

#include <QClipboard>

using namespace rollcall;
using fixtures::WindowDriver;

class tst_ProofBench : public QObject {
    Q_OBJECT

    static void open(WindowDriver& d) {
        d.makeBatch("Steel to Proof");
        d.press(Qt::Key_F7);
        QCOMPARE(d.window().place(), QStringLiteral("proof-bench"));
    }
    static void begin(WindowDriver& d, const QString& protocol) {
        d.press(Qt::Key_Return);
        QDialog* dialog = d.dialog();
        for (auto* row : dialog->findChildren<RowButton*>()) {
            if (row->text() != protocol) continue;
            QTest::mouseClick(row, Qt::LeftButton);
            d.settle();
            return;
        }
        qFatal("no protocol %s", qPrintable(protocol));
    }
    static void number(WindowDriver& d, const char* value) {
        d.press(Qt::Key_Return);
        d.fill("value", value);
        d.press(Qt::Key_Return, Qt::ControlModifier);
    }
    static TrialProgress progress(WindowDriver& d, std::size_t blade = 0) {
        return progressOf(d.document().batch().blades[blade].trials.back());
    }
    // To the first chop: sizes and rope.
    static void toTheChop(WindowDriver& d) {
        number(d, "14.5 in");
        number(d, "250");
        number(d, "50");
        d.press(Qt::Key_Return); // the caution was read
        d.press(Qt::Key_Return); // one stroke
        d.type("*");             // through
        d.press(Qt::Key_Return); // the chop's caution
    }

private slots:
    void init() { QSettings().clear(); }

    // Every step by its one key, over the whole window; the piece is used up by the bend.
    void performanceTrialPasses() {
        WindowDriver d;
        open(d);
        QCOMPARE(d.word(), QStringLiteral("Not yet"));
        begin(d, "Performance trial");
        QVERIFY(!d.window().findChild<VerdictColumn*>()->isVisible()); // it has the window
        number(d, "16 in");
        QCOMPARE(progress(d).outcome, TrialOutcome::failed); // over 15 in
        d.press(Qt::Key_Return);
        d.press(Qt::Key_Escape);
        begin(d, "Performance trial");
        toTheChop(d);
        QCOMPARE(progress(d).current, std::size_t(4));
        for (int i = 0; i < 5; ++i) d.press(Qt::Key_Return);
        d.type("/"); // counted one too many
        // A typed digit is a number of strokes, never the end of the trial.
        d.type("2");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(progress(d).steps[4].count, 6.0);
        d.type("/");
        QCOMPARE(progress(d).steps[4].count, 4.0);
        // Left in the middle, and the window closed: nothing is lost.
        d.press(Qt::Key_Escape);
        QVERIFY(d.window().findChild<VerdictColumn*>()->isVisible());
        QVERIFY2(d.reasons().contains("4 of 8 done"), qPrintable(d.reasons()));
        d.restart();
        d.press(Qt::Key_F7);
        QCOMPARE(d.act(), QStringLiteral("Go on with the trial"));
        d.press(Qt::Key_Return);
        QCOMPARE(progress(d).steps[4].count, 4.0);
        d.type("*");
        d.press(Qt::Key_Return);
        d.type("*");             // the second board
        d.press(Qt::Key_Return); // the bare edge's caution
        d.press(Qt::Key_Return); // shaves
        d.press(Qt::Key_Return); // the bend's caution
        d.press(Qt::Key_Return); // plans it first
        d.fill("free", "80");
        d.fill("lever", "200");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.now().contains("mean strain 2.4 %"), qPrintable(d.now())); // 2.4 mm over 80 mm at 90°
        d.press(Qt::Key_Return);
        d.fill("angle", "92");
        d.fill("force", "150");
        d.fill("set", "60");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(progress(d).outcome, TrialOutcome::passed);
        QCOMPARE(*progress(d).steps[7].set_deg, 60.0);
        QCOMPARE(d.word(), QStringLiteral("Pass")); // of one protocol the later answer stands
        QVERIFY(d.document().batch().blades[0].fate.has_value());
        QCOMPARE(d.document().batch().blades[0].fate->fate, Fate::coupon);
    }
    void aFailInTheMiddleEndsIt() {
        WindowDriver d;
        open(d);
        begin(d, "Performance trial");
        toTheChop(d);
        d.press(Qt::Key_Return);
        // What is not the steel ends nothing: the step is done again (E32).
        d.press(Qt::Key_Delete);
        d.type("0"); // the operator slipped
        QCOMPARE(progress(d).outcome, TrialOutcome::running);
        QVERIFY(progress(d).not_steel.size() == 1);
        d.press(Qt::Key_Delete);
        QVERIFY2(d.dialogText().contains("This ends the trial"), qPrintable(d.dialogText()));
        d.type("1");                                          // chipped
        QCOMPARE(progress(d).outcome, TrialOutcome::running); // only after it is confirmed
        QVERIFY2(d.dialogText().contains("End the trial as failed"), qPrintable(d.dialogText()));
        d.type("1");
        QVERIFY2(d.word() == "Fail", qPrintable(d.word()));
        QVERIFY2(d.reasons().contains("Performance trial failed at Chop 1: chipped"), qPrintable(d.reasons()));
        QCOMPARE(progress(d).steps[5].state, StepState::waiting); // later steps stay open
        QVERIFY(!d.document().batch().blades[0].fate);            // not destroyed
    }
    void aTouchUpVoidsIt() {
        WindowDriver d;
        open(d);
        begin(d, "Performance trial");
        toTheChop(d);
        d.run("trial.touch-up");
        QVERIFY2(d.now().contains("void"), qPrintable(d.now()));
        QCOMPARE(d.word(), QStringLiteral("Not yet"));
        QVERIFY2(d.reasons().contains("void: the edge was touched up"), qPrintable(d.reasons()));
    }
    void photosNotesTimersAndGivingUp() {
        WindowDriver d;
        open(d);
        begin(d, "Flex and hold");
        d.press(Qt::Key_Return);
        d.press(Qt::Key_Return);
        d.fill("free", "100");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.press(Qt::Key_Return);
        d.fill("angle", "30");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.press(Qt::Key_Return); // the timer begins
        d.press(Qt::Key_Return);
        QVERIFY2(d.now().contains("Hold on"), qPrintable(d.now()));
        QCOMPARE(progress(d).current, std::size_t(1));
        d.chooseFile(d.writeFile("flex.png", "bytes"));
        d.run("trial.photo");
        d.type("n");
        d.fill("text", "creaked");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(progress(d).steps[1].photos, 1);
        QCOMPARE(progress(d).notes.at(0), std::string("creaked"));
        d.type("x");
        d.fill("why", "the jaws slipped");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(progress(d).outcome, TrialOutcome::givenUp);
        QVERIFY2(d.reasons().contains("the jaws slipped"), qPrintable(d.reasons()));
    }
    // What a piece passed stands for its siblings as far as that is known.
    void forWhomAPieceSpeaks() {
        WindowDriver d;
        open(d);
        begin(d, "Tip");
        d.press(Qt::Key_Return);
        for (int i = 0; i < 5; ++i) d.press(Qt::Key_Return);
        QCOMPARE(d.word(), QStringLiteral("Pass"));
        d.type("+");
        QCOMPARE(d.word(), QStringLiteral("Borderline")); // neither heat nor hardness nor edge is known
        QVERIFY2(d.reasons().contains("soak not known of both"), qPrintable(d.reasons()));
        d.type("2");
        QVERIFY(d.act().contains("Excuse GK-2"));
        d.press(Qt::Key_Return);
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("Say why"));
        d.fill("reason", "same bar, same hour");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.word(), QStringLiteral("Excused"));
        // GK-3 gets a temper more: the piece speaks for it no longer.
        d.document().selectBlade(2);
        const std::string blade = d.document().blade()->id;
        TemperDraft temper;
        temper.batch = d.document().batch().id;
        temper.blades = {blade};
        temper.temperature_c = 220;
        temper.hours = 2;
        d.document().perform([temper](Logbook& logbook) -> Result<Done> {
            if (auto logged = logTemper(logbook, temper); !logged) return logged.error();
            return Done{};
        });
        d.settle();
        QCOMPARE(d.word(), QStringLiteral("Not yet"));
        QVERIFY2(d.reasons().contains("does not speak for it"), qPrintable(d.reasons()));
        QVERIFY2(d.reasons().contains("tempers none against 220 °C 2 h"), qPrintable(d.reasons()));
    }
    void cutsAreCompared() {
        WindowDriver d;
        open(d);
        const auto cut = [&](int passes) {
            begin(d, "Cut to dull");
            d.press(Qt::Key_Return); // rope
            for (int i = 0; i < passes; ++i) d.press(Qt::Key_Return);
            d.type("*"); // once hesitating, then dull
            d.press(Qt::Key_Delete);
        };
        cut(4);
        d.type("+");
        cut(2);
        d.type("3");
        QCOMPARE(d.word(), QStringLiteral("30 cuts"));
        QVERIFY2(d.reasons().contains("One trial each"), qPrintable(d.reasons()));
        QVERIFY2(d.reasons().contains("0.50 to 0.80 times"), qPrintable(d.reasons())); // 30/60 to 40/50
        const auto* page = d.window().findChild<CutsPage*>();
        QStringList told;
        for (int x = 0; x < page->width(); ++x) {
            const QString says = page->saysAt({x, 70});
            if (says.startsWith("GK-1 run") && (told.isEmpty() || told.last() != says)) told << says;
        }
        QCOMPARE(told.first(), QStringLiteral("GK-1 run 1: passes after 10 cuts"));
        QCOMPARE(told.last(), QStringLiteral("GK-1 run 1: fails after 60 cuts"));
        // What each blade brought stands under it, the one that was not cut too.
        const auto rows = d.window().findChild<CutsPage*>()->tables().front().rows;
        QCOMPARE(rows[0][1].toString(), QStringLiteral("50 to 60"));
        QCOMPARE(rows[1][1].toString(), QStringLiteral("30 to 40"));
        QCOMPARE(rows[2][1].toString(), QStringLiteral("not cut yet"));
        d.press(Qt::Key_Return);
        QVERIFY(d.dialogText().contains("Cut to dull")); // another run
        d.press(Qt::Key_Escape);
    }
    void studiesListWhatElseDiffers() {
        WindowDriver d;
        open(d);
        d.press(Qt::Key_F6);
        for (const auto& [behind, key] : {std::pair("0.3", "+"), std::pair("0.5", "")}) {
            d.type("g");
            d.fill("behind", behind);
            d.fill("angle", "15");
            d.press(Qt::Key_Return, Qt::ControlModifier);
            d.type(key);
        }
        d.press(Qt::Key_F7);
        d.type("4");
        d.press(Qt::Key_Return);
        d.fill("name", "Thin and thick");
        d.fill("factor", "edge thickness");
        d.fill("pieces", "GK-1, GK-9");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.now().contains("There is no piece GK-9"), qPrintable(d.now()));
        d.press(Qt::Key_Return);
        d.fill("name", "Thin and thick");
        d.fill("factor", "edge thickness");
        d.fill("pieces", "GK-1, Orchard 13/GK-2");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.settle();
        QVERIFY2(d.reasons().contains("Varied: edge thickness"), qPrintable(d.reasons()));
        QCOMPARE(d.word(), QStringLiteral("Not fair")); // nobody knows their soak
        QVERIFY2(d.reasons().contains("soak not known of both"), qPrintable(d.reasons()));
        d.press(Qt::Key_C, Qt::ControlModifier);
        const QString table = WindowDriver::plain(QGuiApplication::clipboard()->text());
        QVERIFY2(table.contains("edge thickness\t0.30 mm\t0.50 mm"), qPrintable(table));
    }
    // E33. What is counted until something is seen stands in the study with what a count is worth, and ranks only
    // where chance cannot have done it.
    void countsInAStudy() {
        WindowDriver d;
        open(d);
        const auto strikes = [&](std::size_t at, double count) {
            d.document().perform([blade = d.document().batch().blades[at].id, count,
                                  protocols = d.document().tables().protocols()](Logbook& logbook) -> Result<Done> {
                const auto concrete = std::find_if(protocols.begin(), protocols.end(),
                                                   [](const Protocol& p) { return p.name == "Concrete"; });
                const auto trial = beginTrial(logbook, blade, 1, 0, *concrete);
                if (!trial) return trial.error();
                TrialEvent counted;
                counted.value = count;
                if (auto done = trialEvent(logbook, *trial, counted, {}); !done) return done;
                TrialEvent seen;
                seen.act = TrialAct::answer;
                return trialEvent(logbook, *trial, seen, {});
            });
            d.settle();
        };
        strikes(0, 1);
        strikes(0, 3); // twice on this one: 2 in the mean
        strikes(1, 200);
        d.type("4");
        d.press(Qt::Key_Return);
        d.fill("name", "Two steels on concrete");
        d.fill("pieces", "GK-1, GK-2");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        d.settle();
        d.press(Qt::Key_C, Qt::ControlModifier);
        const QString table = WindowDriver::plain(QGuiApplication::clipboard()->text());
        // 8/11.143 and 8/0.4844 of 4 degrees of freedom; 400/7.378 and 400/0.0506 of 2.
        QVERIFY2(table.contains("Concrete\nTo the first mark\t2\t200\n"), qPrintable(table));
        QVERIFY2(table.contains("known to\t1 to 17\t54 to 79"), qPrintable(table));
        QVERIFY2(table.contains("its place\t2\t1"), qPrintable(table));
        const auto& below = d.column().below;
        QVERIFY(std::any_of(below.begin(), below.end(),
                            [](const auto& line) { return line.text.contains("as likely as the next"); }));
    }
    void protocolsOfTheShopsOwn() {
        WindowDriver d;
        open(d);
        d.type("5");
        d.press(Qt::Key_Down);
        d.press(Qt::Key_Return);
        d.fill("most", "10 in");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY2(d.formMessage().contains("Type a number"), qPrintable(d.formMessage()));
        d.fill("most", "260");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().state().shop().own_protocols.at(0).name, std::string("Performance trial, own"));
        QCOMPARE(*d.document().state().shop().own_protocols[0].steps[1].most, 260.0);
        d.type("a");
        d.fill("name", "Look");
        d.fill("kind", "yes or no");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QCOMPARE(d.document().state().shop().own_protocols[0].steps[2].name, std::string("Look"));
        d.press(Qt::Key_Up, Qt::ShiftModifier);
        QCOMPARE(d.document().state().shop().own_protocols[0].steps[1].name, std::string("Look"));
        d.type("x");
        QCOMPARE(d.document().state().shop().own_protocols[0].steps.size(), std::size_t(8));
        QTemporaryDir dir;
        d.chooseFile(dir.filePath("own.csv"));
        d.run("protocol.save");
        QVERIFY2(d.now().contains("written"), qPrintable(d.now()));
        d.chooseFile(d.writeFile("bad.csv", "protocol,step,kind\nP,one,hop\n"));
        d.type("i");
        QVERIFY2(d.now().contains("no kind of step"), qPrintable(d.now()));
        d.chooseFile(d.writeFile("good.csv", "protocol,step,kind,least\nWhittle,Curls,count,5\n"));
        d.type("i");
        QCOMPARE(d.document().state().shop().own_protocols.size(), std::size_t(2));
        d.type("n");
        d.fill("name", "Whittle");
        d.fill("step", "one");
        d.press(Qt::Key_Return, Qt::ControlModifier);
        QVERIFY(d.formMessage().contains("one of this name"));
        d.giveUp();
        // The shop's own is offered first.
        d.type("1");
        begin(d, "Whittle");
        QCOMPARE(d.document().batch().blades[0].trials.back().protocol.steps[0].name, std::string("Curls"));
    }
};

QTEST_MAIN(tst_ProofBench)
#include "tst_proof_bench.moc"
