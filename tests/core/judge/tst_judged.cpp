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

    // A pile: A and B of the batch's own claim, C a knife of its own grade, D of the bar with a softer window.
    static Batch pile() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A", "C", "B", "D"});
        batch.shots.push_back({"bar", "", AnalysisMethod::xrf, "", typedShot("Cr 0.6; V 0.09").value(), false, {}});
        batch.shots.push_back(
            {"own", batch.blades[1].id, AnalysisMethod::xrf, "", typedShot("Cr 13.1; Mo 0.05").value(), false, {}});
        batch.blades[1].own = BladeClaim{"X46Cr13", "X46Cr13", "", Window{54, 56}, {}, 0};
        batch.blades[3].own = BladeClaim{"", "", "", Window{57, 59}, {}, {}};
        for (Blade& blade : batch.blades) fixtures::read(blade, Gate::temper, {62.0, 62.1, 61.9});
        return batch;
    }

    static void isJudgedAsFromNothing(const Batch& batch, const Judged& before) {
        const Judged after(batch, tables(), std::nullopt, &before);
        const Judged fresh(batch, tables(), std::nullopt);
        for (std::size_t i = 0; i < batch.blades.size(); ++i) {
            const auto& one = after.steel(i).candidates;
            const auto& other = fresh.steel(i).candidates;
            QCOMPARE(one.size(), other.size());
            for (std::size_t k = 0; k < one.size(); ++k) {
                QCOMPARE(one[k].grade, other[k].grade);
                QCOMPARE(one[k].share, other[k].share);
            }
            for (const Gate gate : allGates) QCOMPARE(after.verdict(i, gate).state, fresh.verdict(i, gate).state);
        }
    }

private slots:
    // What was found out before spares only what rests on the same evidence.
    void whatWasKnownBeforeIsTakenWhereItStillStands() {
        Batch batch = pile();
        SteelNote coupon;
        coupon.kind = SteelNoteKind::coupon;
        coupon.hrc = 65;
        batch.steel_notes.push_back(coupon);
        const Batch before_batch = batch;
        const Judged before(before_batch, tables(), std::nullopt);
        const double share = before.bar().candidates.front().share;
        isJudgedAsFromNothing(batch, before);
        fixtures::read(batch.blades[0], Gate::temper, {58.0, 58.1});
        isJudgedAsFromNothing(batch, before);
        batch.steel_notes[0].hrc = 58; // another hardness: other grades
        isJudgedAsFromNothing(batch, before);
        QVERIFY(Judged(batch, tables(), std::nullopt, &before).bar().candidates.front().share != share);
        batch.shots[0].composition = typedShot("Cr 13.1; Mo 0.05").value();
        isJudgedAsFromNothing(batch, before);
        batch.shots.erase(batch.shots.begin());
        isJudgedAsFromNothing(batch, before);
        batch.blades[3].own.reset(); // other groups
        isJudgedAsFromNothing(batch, before);
        batch.blades.erase(batch.blades.begin());
        isJudgedAsFromNothing(batch, before);
        const Tables others = tables(); // grades that stand elsewhere
        const Judged elsewhere(batch, others, std::nullopt, &before);
        for (const GradeCandidate& candidate : elsewhere.steel(0).candidates) {
            const auto& no_blade_steels = others.otherSteels();
            const bool there = candidate.grade->for_blades ? candidate.grade == others.grade(candidate.grade->name)
                                                           : candidate.grade >= &no_blade_steels.front() &&
                                                                 candidate.grade <= &no_blade_steels.back();
            QVERIFY2(there, candidate.grade->name.c_str());
        }
    }
    void claimsAreJudgedApart() {
        const Batch batch = pile();
        const auto groups = groupsOf(batch, tables());
        QCOMPARE(groups.size(), std::size_t(3));
        QCOMPARE(groups[0].blades, (std::vector<std::size_t>{0, 2}));
        QCOMPARE(groups[1].blades, std::vector<std::size_t>{1});
        QCOMPARE(groups[1].own->grade, std::string("X46Cr13"));
        QCOMPARE(groups[1].own->shots.size(), std::size_t(1)); // its own, not the bar's
        QCOMPARE(groups[2].own->shots.size(), std::size_t(2)); // of the same bar
        const Judged judged(batch, tables(), std::nullopt);
        QCOMPARE(judged.verdicts().blades.size(), batch.blades.size());
        for (std::size_t i = 0; i < batch.blades.size(); ++i) {
            QCOMPARE(judged.verdicts().at(i, Gate::temper)->blade, batch.blades[i].id);
            QCOMPARE(judged.verdict(i, Gate::steel).blade, batch.blades[i].id);
            QVERIFY(std::abs(*judged.means()[i] - 61.8) < 1e-9);
        }
        QCOMPARE(judged.verdicts().at(0, Gate::temper)->state, State::pass);
        QCOMPARE(judged.verdicts().at(2, Gate::temper)->state, State::pass);
        QCOMPARE(judged.verdicts().at(1, Gate::temper)->state, State::fail);
        QCOMPARE(judged.verdicts().at(1, Gate::temper)->next.act, Act::acceptOrReturn);
        QCOMPARE(judged.verdicts().at(3, Gate::temper)->next.act, Act::temperAgain);
        QCOMPARE(judged.batchOf(1).blades.size(), std::size_t(1));
        // Its pieces are compared together, each of its own steel.
        QCOMPARE(judged.facts(1).grade, std::string("X46Cr13"));
        QCOMPARE(judged.facts(3).grade, std::string("115CrV3"));
        QVERIFY(judged.facts(1).lot != judged.facts(0).lot);
        QCOMPARE(judged.facts(3).lot, judged.facts(0).lot);
        // A sample speaks for its own group, in the places of the batch.
        const SampleState sample = judged.sample(2);
        QCOMPARE(sample.read, (std::vector<std::size_t>{0, 2}));
    }
    // What a claim leaves empty is the batch's, whatever changes there later.
    void anEmptyClaimIsTheBatchs() {
        Batch batch = pile();
        batch.blades[3].own->window.reset();
        QCOMPARE(batch.claimOf(batch.blades[3]).window->low.value(), 61.0);
        batch.window = {58, 60};
        batch.purpose = "chopper";
        QCOMPARE(batch.claimOf(batch.blades[3]).window->low.value(), 58.0);
        QCOMPARE(batch.claimOf(batch.blades[1]).purpose, std::string("chopper"));
        QCOMPARE(batch.claimOf(batch.blades[1]).window->low.value(), 54.0);
        QVERIFY(batch.isFinished(batch.blades[1]) && !batch.isFinished(batch.blades[0]));
        QVERIFY(batch.ofOneBar(batch.blades[3]) && !batch.ofOneBar(batch.blades[1]));
    }

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

    // Runs on blocks that can bear on a batch: from its day to its last reading, two after that of each setting, the
    // newest of the shop, and of the testers it was read on the last sixteen before (E3), of no other.
    void runsInReachAreThoseThatCanBear() {
        Batch batch = readBatch(); // read on the 24th
        batch.created = fixtures::at(9, 0, 20);
        std::vector<Verification> runs;
        for (const int day : {1, 10, 17, 19, 20, 24, 26, 27, 28, 30}) {
            Verification run = fixtures::goodRun();
            run.id = "v" + std::to_string(day);
            run.time = fixtures::at(8, 0, day);
            runs.push_back(run);
        }
        const auto names = [](const std::vector<Verification>& some) {
            std::string text;
            for (const Verification& run : some) text += run.id + " ";
            return text;
        };
        const auto inReach = runsInReach(batch, runs);
        QCOMPARE(names(inReach), std::string("v1 v10 v17 v19 v20 v24 v26 v27 v30 "));
        // With another anvil two of its own count; of one with a single reading nothing is known, so the next counts.
        runs[7].anvil = "V anvil";
        runs[6].readings.resize(1);
        QCOMPARE(names(runsInReach(batch, runs)), std::string("v1 v10 v17 v19 v20 v24 v26 v27 v28 v30 "));
        // Nothing read: what is read next rests on the newest alone.
        Batch unread = batch;
        for (Blade& blade : unread.blades) blade.readings.clear();
        QCOMPARE(names(runsInReach(unread, runs)), std::string("v30 "));

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
        // The verdicts are those that all runs together give.
        batch.verifications = many;
        const Judged all(batch, tables(), std::nullopt);
        batch.verifications = few;
        const Judged near(batch, tables(), std::nullopt);
        for (const Gate gate : {Gate::quench, Gate::temper})
            QCOMPARE(all.verdict(0, gate).verification, near.verdict(0, gate).verification);
    }

    // Two failed runs after a reading make it suspect, however many good ones follow them.
    void laterRunsStillMakeReadingsSuspect() {
        Batch batch = readBatch();
        std::vector<Verification> runs{fixtures::goodRun()};
        for (const int day : {25, 26, 27, 28, 29}) {
            Verification run = fixtures::goodRun();
            run.id = "v" + std::to_string(day);
            run.time = fixtures::at(8, 0, day);
            if (day < 27) {
                for (double& value : run.readings) value += 3;
            }
            runs.push_back(run);
        }
        batch.verifications = runsInReach(batch, runs);
        const Judged judged(batch, tables(), std::nullopt);
        const std::vector<Reason>& reasons = judged.verdict(0, Gate::temper).reasons;
        QVERIFY(std::any_of(reasons.begin(), reasons.end(),
                            [](const Reason& reason) { return reason.fact == Fact::readingsSuspect; }));
    }
};

QTEST_APPLESS_MAIN(tst_Judged)
#include "tst_judged.moc"
