// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/judged.h"
#include "tests/support/fixtures.h"

#include <QtTest>

using namespace rollcall;
using fixtures::tables;

// A batch is judged once, at every gate; what is asked is a flag.
class tst_Judged : public QObject {
    Q_OBJECT

    static Batch readBatch() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A", "B"});
        for (Blade& blade : batch.blades) {
            fixtures::read(blade, Gate::quench, {65.2, 65.3, 65.1});
            fixtures::read(blade, Gate::temper, {62.0, 62.1, 61.9});
        }
        return batch;
    }

private slots:
    void everyGateIsJudgedAndOnlyTheAskedAreVerdictsOfTheBatch() {
        const Batch batch = readBatch(); // asks Quench and Temper
        const Judged judged(batch, tables(), std::nullopt);
        for (std::size_t blade = 0; blade < batch.blades.size(); ++blade) {
            for (const Gate gate : allGates) {
                const Verdict& verdict = judged.verdict(blade, gate);
                QCOMPARE(verdict.gate, gate);
                QCOMPARE(verdict.blade, batch.blades[blade].id);
                QCOMPARE(verdict.asked, gate == Gate::quench || gate == Gate::temper);
                QCOMPARE(judged.verdicts().at(blade, gate).has_value(), verdict.asked);
                if (verdict.asked) QCOMPARE(judged.verdicts().at(blade, gate)->state, verdict.state);
            }
        }
        QCOMPARE(judged.verdict(0, Gate::temper).state, State::pass);
    }

    // An edge that the plan does not ask for is tried and judged all the same, and holds up nothing.
    void anUnaskedEdgeIsJudgedAndHoldsUpNothing() {
        Batch batch = readBatch();
        batch.plan[indexOf(Gate::release)] = {true, 1};
        EdgeRung chip;
        chip.round = 1;
        chip.after_temper = 1;
        chip.force_n = 30;
        chip.raise_deg = 20;
        chip.outcome = EdgeOutcome::chip;
        chip.size_mm = 1.0;
        batch.blades[0].edges.push_back({0.5, 20, EdgeGrind::flat, "", {}});
        batch.blades[0].rungs.push_back(chip);
        const Judged judged(batch, tables(), std::nullopt);
        QVERIFY(!judged.verdict(0, Gate::edge).asked);
        QVERIFY(judged.verdict(0, Gate::edge).state != State::pass);
        QVERIFY(judged.release(0).open.empty());
    }

    // A gate says the same whether it is asked or not: the plan decides what it holds up, not what it finds.
    void askingAGateDoesNotChangeWhatItFinds() {
        Batch batch = readBatch();
        const Judged before(batch, tables(), std::nullopt);
        for (const Gate gate : {Gate::steel, Gate::heat, Gate::edge, Gate::proof})
            batch.plan[indexOf(gate)] = {true, 1};
        const Judged after(batch, tables(), std::nullopt);
        for (const Gate gate : {Gate::steel, Gate::heat, Gate::edge, Gate::proof}) {
            const Verdict& a = before.verdict(0, gate);
            const Verdict& b = after.verdict(0, gate);
            QCOMPARE(a.state, b.state);
            QCOMPARE(a.reasons.size(), b.reasons.size());
            QCOMPARE(int(a.next.act), int(b.next.act));
        }
    }

    void meansAreTheReadOnes() {
        const Batch batch = readBatch();
        const Judged judged(batch, tables(), std::nullopt);
        QCOMPARE(judged.means().size(), std::size_t(2));
        // Corrected by the run's error of 0.2 (fixtures::goodRun).
        QVERIFY(std::abs(*judged.means()[0] - 61.8) < 1e-9);
        QVERIFY(judged.ended().empty());
        QVERIFY(judged.tempers(0).now() != nullptr);
    }

    // Runs on blocks that can bear on a batch: of the day of its first reading on, and every later one; of the testers
    // it was read on the last sixteen before, which tell their usual error (E3), and of no other.
    void runsInReachBeginWithTheFirstReadingsDay() {
        Batch batch = readBatch();
        batch.created = fixtures::at(9, 0, 20);
        std::vector<Verification> runs;
        for (const int day : {1, 10, 17, 19, 20, 24, 26}) {
            Verification run = fixtures::goodRun();
            run.id = "v" + std::to_string(day);
            run.time = fixtures::at(8, 0, day);
            runs.push_back(run);
        }
        const auto inReach = runsInReach(batch, runs);
        QCOMPARE(inReach.size(), runs.size());
        QCOMPARE(inReach.back().id, std::string("v26"));
        std::vector<Verification> many;
        for (int i = 0; i < 30; ++i) {
            many.push_back(fixtures::goodRun());
            many.back().time = fixtures::at(8, i, 1);
            many.push_back(many.back());
            many.back().tester = "another";
        }
        many.insert(many.end(), runs.begin(), runs.end());
        const auto few = runsInReach(batch, many);
        QCOMPARE(std::count_if(
                     few.begin(), few.end(),
                     [](const Verification& run) { return run.time->localDay() <= fixtures::at(8, 0, 1).localDay(); }),
                 std::ptrdiff_t(14)); // of the sixteen two are of the 10th and the 17th
        for (const Verification& run : few) QCOMPARE(run.tester, std::string("t1"));
        // The verdicts rest on nothing older.
        batch.verifications = runs;
        const Judged all(batch, tables(), std::nullopt);
        batch.verifications = inReach;
        const Judged near(batch, tables(), std::nullopt);
        for (const Gate gate : {Gate::quench, Gate::temper})
            QCOMPARE(all.verdict(0, gate).verification, near.verdict(0, gate).verification);
    }
};

QTEST_APPLESS_MAIN(tst_Judged)
#include "tst_judged.moc"
