// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/gates.h"
#include "core/judge/proof_judge.h"
#include "core/judge/study.h"
#include "tests/support/fixtures.h"

#include <QtTest>

using namespace rollcall;
using fixtures::tables;

namespace {

// Four blades of one heat, read alike; C soaked longest.
Batch heated() {
    Batch batch = fixtures::batch("51CrV4", {53.0, 57.0}, {"A", "B", "C", "D"});
    batch.plan[indexOf(Gate::proof)] = {true, 1};
    HeatRun run;
    run.id = "h1";
    run.oven = "Oven 1";
    run.set_c = 845;
    run.max_minutes = 30;
    run.zero = fixtures::at(6);
    std::vector<TraceSample> samples;
    for (double s = 0; s <= 3600; s += 10) samples.push_back({s, 845});
    run.trace = std::make_shared<const Trace>(Trace::of(std::move(samples)).value());
    batch.heat_runs.push_back(run);
    const std::vector<double> out{900, 900, 1800, 900};
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        Blade& blade = batch.blades[i];
        BladeHeat heat;
        heat.run = "h1";
        heat.in_s = 0;
        heat.out_s = out[i];
        heat.quenched_s = out[i] + 1;
        blade.heats.push_back(heat);
        blade.edges = {{0.8, 20, EdgeGrind::flat, "belt", {}}};
        fixtures::read(blade, Gate::temper, {55.1, 55.0, 55.2});
    }
    return batch;
}

Trial trial(const std::string& protocol, bool pass) {
    Trial made;
    made.after_temper = 1;
    made.protocol = {protocol, {}};
    ProtocolStep step;
    step.name = "Bend";
    step.kind = StepKind::yesNo;
    made.protocol.steps = {step};
    made.events = {{pass ? TrialAct::answer : TrialAct::fail, 0, 0, 0, "broke", {}}};
    return made;
}

State stateOf(const Batch& batch, std::size_t blade) {
    return judgeBatch(batch, tables(), fixtures::at(12)).at(blade, Gate::proof)->state;
}

} // namespace

class tst_ProofGate : public QObject {
    Q_OBJECT

private slots:
    void nothingTriedYet() {
        const BatchVerdicts verdicts = judgeBatch(heated(), tables(), fixtures::at(12));
        QCOMPARE(verdicts.at(0, Gate::proof)->state, State::notYet);
        QCOMPARE(verdicts.at(0, Gate::proof)->next.act, Act::runTrial);
        QVERIFY(!verdicts.at(0, Gate::edge).has_value()); // not asked
    }
    // A piece that soaked as long stands for its siblings; for the one that soaked longer it does not.
    void aPassingPieceStandsForThoseTreatedNoWorse() {
        Batch batch = heated();
        batch.blades[0].trials = {trial("Bend", true)};
        QCOMPARE(stateOf(batch, 0), State::pass);
        QCOMPARE(stateOf(batch, 1), State::excused);
        QCOMPARE(stateOf(batch, 2), State::notYet);
        const Verdict longer = *judgeBatch(batch, tables(), fixtures::at(12)).at(2, Gate::proof);
        QVERIFY(longer.has(Fact::pieceDoesNotSpeak));
        QCOMPARE(longer.reasons[1].texts[1], std::string("soak"));
    }
    // The piece with the longer soak failed: it does not speak against blades that soaked shorter.
    void aFailingPieceThatSoakedLongerDoesNotSpeak() {
        Batch batch = heated();
        batch.blades[2].trials = {trial("Bend", false)};
        QCOMPARE(stateOf(batch, 2), State::fail);
        const Verdict sibling = *judgeBatch(batch, tables(), fixtures::at(12)).at(0, Gate::proof);
        QCOMPARE(sibling.state, State::notYet);
        QVERIFY(sibling.has(Fact::pieceDoesNotSpeak));
        // One that soaked as long as they did speaks against them, whatever another piece passed.
        batch.blades[3].trials = {trial("Bend", false)};
        batch.blades[1].trials = {trial("Bend", true)};
        QCOMPARE(stateOf(batch, 0), State::fail);
    }
    void whatIsNotKnownIsAReservation() {
        Batch batch = heated();
        batch.blades[0].trials = {trial("Bend", true)};
        batch.blades[1].edges.clear();
        const Verdict verdict = *judgeBatch(batch, tables(), fixtures::at(12)).at(1, Gate::proof);
        QCOMPARE(verdict.state, State::borderline);
        QVERIFY(verdict.has(Fact::pieceSpeaksInPart) && verdict.has(Fact::pieceTraitNotKnown));
        QCOMPARE(verdict.next.act, Act::makerDecides);
        batch.blades[1].excuses.push_back({Gate::proof, "same edge by eye", "HB", fixtures::at(11)});
        QCOMPARE(stateOf(batch, 1), State::excused);
    }
    void trialsOfAnotherStateOfTheBladeSayNothing() {
        Batch batch = heated();
        batch.blades[0].trials = {trial("Bend", true)};
        batch.blades[0].trials[0].after_temper = 0; // tempered since
        QCOMPARE(stateOf(batch, 0), State::notYet);
        batch.blades[0].trials = {trial("Bend", true)};
        batch.blades[0].round = 2;
        QCOMPARE(stateOf(batch, 0), State::notYet);
    }
    void runningVoidAndRepeated() {
        Batch batch = heated();
        Trial running = trial("Bend", true);
        running.events.clear();
        batch.blades[0].trials = {running};
        QCOMPARE(stateOf(batch, 0), State::notYet);
        QVERIFY(judgeBatch(batch, tables(), {}).at(0, Gate::proof)->has(Fact::trialRunning));
        // The same protocol again: the later answer stands.
        batch.blades[0].trials = {trial("Bend", false), trial("Bend", true)};
        QCOMPARE(stateOf(batch, 0), State::pass);
        batch.blades[0].trials = {trial("Bend", false), trial("Nail", true)};
        QCOMPARE(stateOf(batch, 0), State::fail); // another protocol's failure stays
    }
    void cutsProveNothing() {
        Batch batch = heated();
        Trial cuts = trial("Cut to dull", true);
        cuts.protocol.steps[0].kind = StepKind::cuts;
        cuts.events = {{TrialAct::cuts, 10, 0, 0, "", {}}, {TrialAct::fail, 10, 0, 0, "dull", {}}};
        batch.blades[0].trials = {cuts};
        QCOMPARE(stateOf(batch, 0), State::notYet);
        const StudyPiece piece = studyPiece(batch, 0, tables());
        QCOMPARE(piece.dull->last_pass, 10.0);
        QVERIFY(piece.trials.empty());
        QVERIFY(std::abs(*piece.facts.hrc - 54.9) < 1e-9); // 55.1 as read, less the error of 0.2
        QVERIFY(piece.facts.equivalent_min.has_value());
    }
};

QTEST_APPLESS_MAIN(tst_ProofGate)
#include "tst_proof_gate.moc"
