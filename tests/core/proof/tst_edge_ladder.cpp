// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/edge_judge.h"
#include "tests/support/fixtures.h"

#include <cmath>
#include <QtTest>

using namespace rollcall;
using fixtures::tables;

namespace {

EdgeRung rung(double force, double raise, EdgeOutcome outcome, std::optional<double> size = {},
              std::optional<double> place = {}) {
    EdgeRung r;
    r.force_n = force;
    r.raise_deg = raise;
    r.outcome = outcome;
    r.size_mm = size;
    r.place_mm = place;
    r.after_temper = 1;
    return r;
}

// 15° per side at HRC 60: the worked edge of the method; 133 N at 25° is expected to yield metal under 0.197 mm.
const EdgeGeometry worked{0.4, 15, EdgeGrind::flat, "", {}};

LadderAnswer read(const std::vector<EdgeRung>& rungs, EdgeLoadStep asked = {90, 45}) {
    return readLadder(tables(), worked, 60.0, rungs, asked);
}

Batch edged(const std::vector<EdgeRung>& rungs, std::optional<EdgeGeometry> edge = worked) {
    Batch batch = fixtures::batch("115CrV3", {59.0, 61.0}, {"A"});
    batch.plan[indexOf(Gate::edge)] = {true, 1};
    if (edge) batch.blades[0].edges = {*edge};
    batch.blades[0].rungs = rungs;
    return batch;
}

Verdict judged(const Batch& batch) {
    return judgeEdge(batch, 0, 60.0, tables());
}

} // namespace

class tst_EdgeLadder : public QObject {
    Q_OBJECT

private slots:
    // Damage is compared as thickness at its root: depth * 2 tan 15° against 0.197 and 0.591 mm.
    void whatExplainsDamage_data() {
        QTest::addColumn<double>("depth");
        QTest::addColumn<int>("cause");
        QTest::newRow("0.30 mm: 0.161 thick, yields anyway") << 0.30 << int(DamageCause::yields);
        QTest::newRow("0.40 mm: 0.214 thick, geometry") << 0.40 << int(DamageCause::geometry);
        QTest::newRow("1.09 mm: 0.584 thick, geometry") << 1.09 << int(DamageCause::geometry);
        QTest::newRow("1.12 mm: 0.600 thick, the heat") << 1.12 << int(DamageCause::heat);
    }
    void whatExplainsDamage() {
        QFETCH(double, depth);
        QFETCH(int, cause);
        const LadderAnswer ladder = read({rung(133, 25, EdgeOutcome::chip, depth)});
        QCOMPARE(int(ladder.rungs.at(0).cause), cause);
        QVERIFY(std::abs(*ladder.rungs[0].damage_thickness_mm - depth * 2 * std::tan(M_PI / 12)) < 1e-12);
        QVERIFY(!ladder.rungs[0].gross);
    }
    void withoutSizeOrGeometryNothingIsExplained() {
        QCOMPARE(read({rung(133, 25, EdgeOutcome::roll)}).rungs[0].cause, DamageCause::unknown);
        QCOMPARE(readLadder(tables(), std::nullopt, 60.0, {rung(133, 25, EdgeOutcome::roll, 0.3)}, {}).rungs[0].cause,
                 DamageCause::unknown);
        QCOMPARE(readLadder(tables(), worked, std::nullopt, {rung(133, 25, EdgeOutcome::roll, 0.3)}, {}).rungs[0].cause,
                 DamageCause::unknown);
    }
    void tinySetsHold() {
        QVERIFY(!rung(90, 45, EdgeOutcome::set, 0.05).failed());
        QVERIFY(rung(90, 45, EdgeOutcome::set, 0.06).failed());
        QVERIFY(rung(90, 45, EdgeOutcome::set).failed()); // its size is not known
        QVERIFY(read({rung(90, 45, EdgeOutcome::set, 0.04)}).asked_held);
    }
    // The rung the maker is led to: from the lightest up to the asked one, round a failure.
    void nextRung() {
        QCOMPARE(*read({}).next, (EdgeLoadStep{45, 25}));
        QCOMPARE(*read({rung(45, 25, EdgeOutcome::held)}).next, (EdgeLoadStep{90, 25}));
        QCOMPARE(*read({rung(90, 35, EdgeOutcome::held)}).next, (EdgeLoadStep{45, 45}));
        QVERIFY(!read({rung(88, 45, EdgeOutcome::held)}).next); // 90 within what a scale shows
        QVERIFY(!read({rung(88, 45, EdgeOutcome::held)}).next && read({rung(88, 45, EdgeOutcome::held)}).asked_held);
        QVERIFY(!read({rung(80, 45, EdgeOutcome::held)}).asked_held);
        const LadderAnswer failed = read({rung(45, 25, EdgeOutcome::chip, 0.2)});
        QVERIFY(failed.asked_failed && !failed.next); // everything is harder than that
        // A held rung that was struck out says nothing.
        EdgeRung gone = rung(90, 45, EdgeOutcome::held);
        gone.struck = true;
        QVERIFY(!read({gone}).asked_held);
        QVERIFY(read({gone}).rungs.empty());
    }
    void raisesUnderTheEdgesOwnAngleAreLeftOut() {
        const LadderGrid grid = ladderGrid(EdgeGeometry{0.9, 25, EdgeGrind::flat, "", {}}, {100, 40});
        QCOMPARE(grid.raises_deg, (std::vector<double>{35, 40, 45}));
        QCOMPARE(grid.forces_n, (std::vector<double>{45, 90, 100, 135, 200}));
    }
    // 30° per side: at 45 N and 45° metal under 0.025 mm yields, 0.022 mm deep: no mark of 0.05 is to be expected.
    void lightLoadsSayLittle() {
        const EdgeGeometry stout{1.5, 30, EdgeGrind::convex, "", {}};
        const LadderAnswer light = readLadder(tables(), stout, 60.0, {rung(45, 45, EdgeOutcome::held)}, {45, 45});
        QVERIFY(light.weak && light.asked_held && !light.strong);
        // Twice the depth and a little more is needed: 135 N give 0.066.
        QCOMPARE(*light.meaningful, (EdgeLoadStep{135, 45}));
        const LadderAnswer heavy = readLadder(tables(), stout, 60.0, {rung(135, 45, EdgeOutcome::held)}, {45, 45});
        QVERIFY(!heavy.weak);
    }
    void strongIsThreeTimesTheMarkingLoad() {
        QVERIFY(read({rung(133, 25, EdgeOutcome::held)}).strong); // 0.368 mm expected, 0.15 asked
        QVERIFY(!read({rung(45, 45, EdgeOutcome::held)}).strong); // 0.097
    }
    void damageAtOnePlaceOnly() {
        const std::vector<EdgeRung> rungs{rung(133, 25, EdgeOutcome::held, {}, 30),
                                          rung(133, 25, EdgeOutcome::held, {}, 60),
                                          rung(133, 25, EdgeOutcome::chip, 1.5, 45)};
        QVERIFY(read(rungs).rungs[2].local);
        QVERIFY(!read({rungs[0], rungs[2]}).rungs[1].local); // one other place is not enough
        const Verdict verdict = judged(edged(rungs));
        QCOMPARE(verdict.state, State::borderline);
        QVERIFY(verdict.has(Fact::localDamage));
    }

    // The gate.
    void passesWhatIsAsked() {
        const Verdict verdict = judged(edged({rung(90, 45, EdgeOutcome::held)}));
        QCOMPARE(verdict.state, State::pass);
        QVERIFY(verdict.has(Fact::askedRungHeld));
    }
    void thinChipAndThickChipDiffer() {
        const Verdict thin = judged(edged({rung(90, 45, EdgeOutcome::chip, 0.4)}));
        QCOMPARE(thin.state, State::borderline);
        QVERIFY(thin.has(Fact::geometryExplains) && !thin.has(Fact::heatTreatmentAsked));
        const Verdict thick = judged(edged({rung(90, 45, EdgeOutcome::chip, 1.5)}));
        QCOMPARE(thick.state, State::fail);
        QCOMPARE(thick.reasons.front().fact, Fact::heatTreatmentAsked);
        QCOMPARE(thick.next.act, Act::lookAtHeat);
        QVERIFY(!thick.has(Fact::grosslyHard));
        QVERIFY(judged(edged({rung(40, 45, EdgeOutcome::chip, 1.5)})).has(Fact::grosslyHard));
        QVERIFY(judged(edged({rung(40, 45, EdgeOutcome::roll, 1.5)})).has(Fact::grosslySoft));
    }
    void withoutGeometryItIsAskedFor() {
        const Verdict verdict = judged(edged({}, std::nullopt));
        QCOMPARE(verdict.state, State::notYet);
        QCOMPARE(verdict.next.act, Act::noteEdge);
    }
    void burntInGrinding() {
        Batch batch = edged({rung(90, 45, EdgeOutcome::held)});
        batch.blades[0].grinding = {{true, false, "", {}}};
        QCOMPARE(judged(batch).state, State::borderline);
        batch.blades[0].grinding.push_back({true, true, "", {}});
        QCOMPARE(judged(batch).state, State::pass);
    }
    void byHandIsWeakEvidence() {
        Batch batch = edged({});
        batch.edge_ask = EdgeAsk{"", "", true, {}};
        QCOMPARE(judged(batch).state, State::notYet);
        EdgeRung flex;
        flex.after_temper = 1;
        batch.blades[0].rungs = {flex};
        QCOMPARE(judged(batch).state, State::pass);
        QVERIFY(judged(batch).has(Fact::weakEvidence));
        flex.outcome = EdgeOutcome::chip;
        batch.blades[0].rungs.push_back(flex);
        QCOMPARE(judged(batch).state, State::borderline);
        QVERIFY(judged(batch).has(Fact::flexChipped));
    }
    void rungsBeforeTheLastTemperAreHistory() {
        Batch batch = edged({rung(90, 45, EdgeOutcome::held)});
        batch.blades[0].tempers.push_back({"c2", 1, 2, 220, 2, "220 2", fixtures::at(12)});
        QCOMPARE(judged(batch).state, State::notYet);
    }
};

QTEST_APPLESS_MAIN(tst_EdgeLadder)
#include "tst_edge_ladder.moc"
