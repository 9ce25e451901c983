// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/proof/trial.h"
#include "tests/support/fixtures.h"

#include <cmath>
#include <QtTest>

using namespace rollcall;
using fixtures::tables;

namespace {

Protocol shipped(const std::string& name) {
    for (const Protocol& protocol : tables().protocols()) {
        if (protocol.name == name) return protocol;
    }
    return {};
}

struct Run {
    Trial trial;
    explicit Run(const std::string& name) { trial.protocol = shipped(name); }
    Run& add(TrialAct act, double value = 0, const std::string& text = {}, double second = 0, double third = 0) {
        trial.events.push_back({act, value, second, third, text, {}});
        return *this;
    }
    Run& sizes() { return add(TrialAct::answer, 370).add(TrialAct::answer, 250).add(TrialAct::answer, 50); }
    Run& rope() { return add(TrialAct::count).add(TrialAct::answer); }
    Run& chop(int strokes) {
        for (int i = 0; i < strokes; ++i) add(TrialAct::count);
        return add(TrialAct::answer);
    }
    TrialProgress now() const { return progressOf(trial); }
};

} // namespace

class tst_Trial : public QObject {
    Q_OBJECT

private slots:
    void theWholePerformanceTrial() {
        Run run("Performance trial");
        run.sizes().rope().chop(30).chop(28).add(TrialAct::answer); // shaves
        QCOMPARE(run.now().outcome, TrialOutcome::running);
        QCOMPARE(run.now().current, std::size_t(7));
        QVERIFY(!run.now().destroyed);
        run.add(TrialAct::plan, 4.8, "", 100).add(TrialAct::bend, 45, "", 200).add(TrialAct::answer, 91, "", 300);
        QCOMPARE(run.now().outcome, TrialOutcome::passed);
        QVERIFY(run.now().destroyed);
        QCOMPARE(run.now().done, 8);
        QCOMPARE(run.now().steps[4].count, 30.0);
    }
    void limitsEndIt() {
        QCOMPARE(Run("Performance trial").add(TrialAct::answer, 382).now().outcome,
                 TrialOutcome::failed); // 15 in is 381
        QCOMPARE(Run("Performance trial").add(TrialAct::answer, 381).now().outcome, TrialOutcome::running);
        // The rope is to be cut in one stroke.
        const TrialProgress two = Run("Performance trial").sizes().add(TrialAct::count).add(TrialAct::count).now();
        QCOMPARE(two.outcome, TrialOutcome::failed);
        QCOMPARE(two.steps[3].state, StepState::failed);
        const TrialProgress bent = Run("Performance trial")
                                       .sizes()
                                       .rope()
                                       .chop(3)
                                       .chop(3)
                                       .add(TrialAct::answer)
                                       .add(TrialAct::answer, 80)
                                       .now();
        QCOMPARE(bent.outcome, TrialOutcome::failed);
        // What comes after the end is passed over, but for photos and notes.
        Run late("Performance trial");
        late.add(TrialAct::answer, 400).add(TrialAct::answer, 200).add(TrialAct::photo, 0, "a.png");
        QCOMPARE(late.now().outcome, TrialOutcome::failed);
        QCOMPARE(late.now().steps[0].photos, 1);
        QCOMPARE(late.now().done, 1);
    }
    void aTouchUpVoidsIt() {
        Run before("Performance trial");
        before.sizes().add(TrialAct::touchUp); // not begun on the rope yet
        QCOMPARE(before.now().outcome, TrialOutcome::running);
        QVERIFY(!before.now().touchUpForbidden(before.trial.protocol));
        Run during("Performance trial");
        during.sizes().rope();
        QVERIFY(during.now().touchUpForbidden(during.trial.protocol));
        during.add(TrialAct::touchUp);
        QCOMPARE(during.now().outcome, TrialOutcome::voided);
        Run after("Performance trial");
        after.sizes().rope().chop(3).chop(3).add(TrialAct::answer).add(TrialAct::touchUp); // it has shaved
        QCOMPARE(after.now().outcome, TrialOutcome::running);
    }
    void takenBack() {
        Run run("Performance trial");
        run.sizes().add(TrialAct::acknowledged, 0, "rope").add(TrialAct::count).add(TrialAct::count); // fails
        run.add(TrialAct::takeBack);
        QCOMPARE(run.now().outcome, TrialOutcome::running);
        QCOMPARE(run.now().steps[3].count, 1.0);
        run.add(TrialAct::takeBack).add(TrialAct::takeBack);
        QCOMPARE(run.now().current, std::size_t(2)); // the width is asked again
        QVERIFY(run.now().acknowledged.size() == 1); // what was read stays read
        Run empty("Performance trial");
        QCOMPARE(empty.add(TrialAct::takeBack).now().current, std::size_t(0));
    }
    void aCountPassesAtItsLeast() {
        Run run("Impact ladder");
        for (int i = 0; i < 19; ++i) run.add(TrialAct::count);
        QCOMPARE(run.now().current, std::size_t(0));
        run.add(TrialAct::count);
        QCOMPARE(run.now().current, std::size_t(1));
        run.add(TrialAct::fail, 0, "chipped"); // goes on, and is not forgotten
        QCOMPARE(run.now().outcome, TrialOutcome::running);
        run.chop(2);
        for (int i = 0; i < 10; ++i) run.add(TrialAct::count);
        QCOMPARE(run.now().outcome, TrialOutcome::failed);
    }
    void cutsUntilDull() {
        Run run("Cut to dull");
        run.add(TrialAct::cuts, 10)
            .add(TrialAct::cuts, 10)
            .add(TrialAct::hesitates, 10)
            .add(TrialAct::fail, 10, "dull");
        QCOMPARE(run.now().outcome, TrialOutcome::passed);
        const DullInterval dull = dullInterval(run.now().steps[0].looks).value();
        QCOMPARE(dull.last_pass, 30.0);
        QCOMPARE(*dull.first_fail, 40.0);
        QCOMPARE(*dull.first_hesitation, 30.0);
        QVERIFY(run.trial.protocol.onlyMeasures());
        QVERIFY(!shipped("Chop").onlyMeasures());
        run.trial.protocol.steps[0].least = 50; // now it is asked to last
        QCOMPARE(run.now().outcome, TrialOutcome::failed);
    }
    void cautionsOncePerTrial() {
        Run run("Performance trial");
        run.sizes();
        QCOMPARE(run.now().caution(run.trial.protocol), std::string("rope"));
        run.add(TrialAct::acknowledged, 0, "rope").rope();
        QCOMPARE(run.now().caution(run.trial.protocol), std::string("chop"));
        run.add(TrialAct::acknowledged, 0, "chop").chop(4);
        QCOMPARE(run.now().caution(run.trial.protocol), std::string()); // the second board needs none
    }
    void givenUp() {
        Run run("Tip");
        run.add(TrialAct::count).add(TrialAct::giveUp, 0, "the board split");
        QCOMPARE(run.now().outcome, TrialOutcome::givenUp);
        QCOMPARE(run.now().steps[0].how, std::string("the board split"));
    }
    // 0 to 200 N over 30°, then 200 to 400 N over 30° more, at 0.3 m: 0.3 * (100 + 300) * pi/6 = 62.83 J.
    void workOfABend() {
        QVERIFY(std::abs(*bendWork_j({{30, 200}, {60, 400}}, 300) - 62.8319) < 1e-3);
        QVERIFY(!bendWork_j({{30, 0}, {60, 0}}, 300));
        QVERIFY(!bendWork_j({{30, 200}}, std::nullopt));
    }

    void protocolsComeBackAsWritten() {
        for (const Protocol& protocol : tables().protocols()) {
            const auto again = readProtocols(protocolText(protocol)).value();
            QCOMPARE(again.size(), std::size_t(1));
            QCOMPARE(again[0].name, protocol.name);
            QCOMPARE(protocolText(again[0]), protocolText(protocol));
        }
        // A limit that takes many digits, or an exponent, is the same again.
        for (const char* limit : {"0.00001", "0.1234567890123", "123456789.5"}) {
            const auto read =
                readProtocols(std::string("protocol,step,kind,most\nP,one,number,") + limit + '\n').value();
            const auto again = readProtocols(protocolText(read[0]));
            QVERIFY2(again.ok() && again->at(0).steps.at(0).most == read[0].steps[0].most, limit);
        }
        QVERIFY(shipped("Performance trial").destroys() && !shipped("Cut to dull").destroys());
    }
    void badProtocols_data() {
        QTest::addColumn<QByteArray>("csv");
        QTest::addColumn<QString>("says");
        QTest::newRow("no such table") << QByteArray("a,b\n1,2\n") << "column protocol";
        QTest::newRow("kind") << QByteArray("protocol,step,kind\nP,one,hop\n") << "line 2: 'hop' is no kind";
        QTest::newRow("number") << QByteArray("protocol,step,kind,least\nP,one,count,few\n") << "'few' is no number";
        QTest::newRow("swapped") << QByteArray("protocol,step,kind,least,most\nP,one,number,5,1\n") << "swapped";
        QTest::newRow("endless") << QByteArray("protocol,step,kind,most\nP,one,number,3e58\n")
                                 << "a limit lies between";
        QTest::newRow("nameless") << QByteArray("protocol,step,kind\nP,,count\n") << "needs a name";
        QTest::newRow("caution") << QByteArray("protocol,step,kind,caution\nP,one,count,bear\n") << "no caution 'bear'";
        QTest::newRow("flat bend") << QByteArray("protocol,step,kind\nP,one,bend\n") << "angle to reach";
    }
    void badProtocols() {
        QFETCH(QByteArray, csv);
        QFETCH(QString, says);
        const auto read = readProtocols(csv.toStdString());
        QVERIFY(!read);
        const QString said = QString::fromStdString(read.error().message());
        QVERIFY2(said.contains(says), qPrintable(said));
    }
};

QTEST_APPLESS_MAIN(tst_Trial)
#include "tst_trial.moc"
