// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/agenda.h"
#include "core/judge/gates.h"
#include "tests/support/fixtures.h"

#include <QtTest>

using namespace rollcall;
using fixtures::at;
using fixtures::read;
using fixtures::tables;

// Verdicts of the Quench and Temper gates, one behaviour of judgement at a time.
class tst_Gates : public QObject {
    Q_OBJECT

    static Verdict at_(const Batch& batch, Gate gate, std::size_t blade = 0) {
        return *judgeBatch(batch, tables(), at(12)).at(blade, gate);
    }
    static Batch tempered(std::vector<double> readings) {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A"});
        read(batch.blades[0], Gate::temper, std::move(readings));
        return batch;
    }
    static Batch quenched(const std::string& grade, const std::vector<std::vector<double>>& blades) {
        std::vector<std::string> marks;
        for (std::size_t i = 0; i < blades.size(); ++i) marks.push_back("Q" + std::to_string(i + 1));
        Batch batch = fixtures::batch(grade, {61, 63}, marks);
        for (std::size_t i = 0; i < blades.size(); ++i) {
            batch.blades[i].tempers.clear();
            read(batch.blades[i], Gate::quench, blades[i]);
        }
        return batch;
    }

private slots:
    void passesInItsWindow() {
        const Verdict v = at_(tempered({62.1, 62.2, 62.3}), Gate::temper);
        QCOMPARE(v.state, State::pass);
        QCOMPARE(v.next.act, Act::done);
        QVERIFY(std::abs(v.measurement->corrected_mean - 62.0) < 1e-9);
        QCOMPARE(v.verification, std::string("v1"));
        QCOMPARE(v.standing.size(), std::size_t(3));
        for (const Reason& reason : v.reasons) QVERIFY(!reason.rule.empty());
    }

    void isNotYetUntilThePlannedReadingsAreThere() {
        const Verdict v = at_(tempered({62.1, 62.2}), Gate::temper);
        QCOMPARE(v.state, State::notYet);
        QCOMPARE(v.next.act, Act::takeReadings);
        QCOMPARE(v.next.as<ReadStep>()->readings, 1);
        QVERIFY(v.measurement.has_value()); // what is known so far is shown
    }

    void whatNobodyLookedAtIsNeverPassed() {
        const Verdict v = at_(tempered({62.1, 62.2, 62.3}), Gate::temper);
        int unseen = 0;
        for (const Reason& r : v.reasons) {
            if (r.fact == Fact::notLookedAt) {
                ++unseen;
                QCOMPARE(r.tone, Tone::unseen);
            }
        }
        QCOMPARE(unseen, 4); // files, second tester, steel, soak; a temper at a known temperature is expected
    }

    void otherEvidenceMayContradict() {
        Batch batch = tempered({62.1, 62.2, 62.3});
        const auto tried = [&](std::vector<FileTrial> trials, Surface surface = Surface::bare) {
            batch.blades[0].file_tests.push_back({"f", Gate::temper, 1, 1, std::move(trials), surface, "HB", at(11)});
            return at_(batch, Gate::temper);
        };
        // Skates 50, bites 58: even with the files' own 1.5 it stays below 61.4.
        Verdict v = tried({{50, FileTouch::skates}, {58, FileTouch::bites}});
        QCOMPARE(v.state, State::borderline);
        QCOMPARE(v.next.act, Act::clearConflict);
        QCOMPARE(v.reasons.front().fact, Fact::filesConflict);
        v = tried({{58, FileTouch::skates}, {60.5, FileTouch::bites}}); // the later try takes its place
        QCOMPARE(v.state, State::pass);
        QVERIFY(v.has(Fact::filesAgree));
        v = tried({{50, FileTouch::bites}}, Surface::decarburised); // soft skin says nothing of the steel
        QCOMPARE(v.state, State::pass);
        QVERIFY(v.has(Fact::filesNotOnBareMetal));
        v = tried({{62, FileTouch::skates}, {58, FileTouch::bites}});
        QCOMPARE(v.state, State::pass); // files at odds with each other say nothing against the bench
        QVERIFY(v.has(Fact::filesContradict));
        v = tried({{65, FileTouch::skates}}); // nothing bit: harder than 65 - 1.5, the readings are below
        QCOMPARE(v.state, State::borderline);
        batch.blades[0].file_tests.clear();
        SteelShot shot; // a chromium of 13 per cent is not what it was sold as
        shot.composition.elements = {{"Cr", 13.0, {}, 0.1}, {"Mn", 0.3, {}, 0.03}};
        batch.shots.push_back(shot);
        QCOMPARE(at_(batch, Gate::temper).state, State::fail); // E50
    }

    // M11: five strikes at least, 10 mm of steel, 3 mm between strikes, never alone.
    void reboundStrikesAreAskedMoreOf() {
        Batch batch = tempered({62.0, 62.1, 62.2});
        batch.testers[0].kind = TesterKind::rebound;
        Verdict v = at_(batch, Gate::temper);
        QCOMPARE(v.state, State::notYet);
        QCOMPARE(v.planned, 5);
        QVERIFY(v.has(Fact::reboundThin));
        batch.window = {50, 70}; // wide enough for the coupling's 1.5 HRC
        batch.blades[0].shape.thickness_mm = 10;
        read(batch.blades[0], Gate::temper, {62.1, 62.0});
        // Strikes alone pass nothing; files that bracket the blade back them up (E8).
        v = at_(batch, Gate::temper);
        QCOMPARE(v.state, State::borderline);
        QCOMPARE(v.next.act, Act::backUpRebound);
        FileTest files;
        files.gate = Gate::temper;
        files.round = batch.blades[0].round;
        files.after_temper = 1;
        files.trials = {{60, FileTouch::skates}, {65, FileTouch::bites}};
        batch.blades[0].file_tests.push_back(files);
        QCOMPARE(at_(batch, Gate::temper).state, State::pass);
        for (std::size_t i = 0; i < 5; ++i) batch.blades[0].readings[i].spot = Spot{6 + 4.0 * double(i), 4};
        batch.blades[0].readings[4].spot = Spot{8.5, 4}; // 1.5 mm from the second strike
        v = at_(batch, Gate::temper);
        QCOMPARE(v.left_out, std::vector<std::string>{batch.blades[0].readings[4].id});
        QCOMPARE(v.state, State::notYet); // four strikes are left
    }

    // sigma-0 from the tester's own history takes the place of the usual 0.3.
    void theTestersOwnScatterIsUsed() {
        Batch batch = tempered({62.1, 62.2, 62.3});
        batch.testers[0].learned = PooledScatter{0.15, 40};
        const Measurement m = at_(batch, Gate::temper).measurement.value();
        // 0.15 certificate, 0.15/sqrt(5) block mean, 0.1/sqrt(12), 0.15/sqrt(3), 0.03 of 0.4 from the block
        QVERIFY(std::abs(m.budget.standard_uncertainty - 0.18836) < 1e-4);
    }

    void withoutVerificationBorderlineAtBest() {
        Batch batch = tempered({62.1, 62.2, 62.3});
        batch.verifications.clear();
        Verdict v = at_(batch, Gate::temper);
        QCOMPARE(v.state, State::borderline);
        QCOMPARE(v.next.act, Act::verifyTester);
        QVERIFY(v.has(Fact::testerNotVerified));
        batch.blades[0].readings.clear();
        read(batch.blades[0], Gate::temper, {58, 58.1, 58.2});
        // A tester nobody checked fails nothing either, whatever the numbers (E1).
        v = at_(batch, Gate::temper);
        QCOMPARE(v.state, State::borderline);
        QCOMPARE(v.next.act, Act::verifyTester);
        QVERIFY(v.has(Fact::soft));
    }

    void tempersMissingWhateverTheReading() {
        Batch batch = tempered({62.1, 62.2, 62.3});
        batch.grade = "A2"; // air-hardening: two
        Verdict v = at_(batch, Gate::temper);
        QCOMPARE(v.state, State::notYet);
        QVERIFY(v.has(Fact::tempersMissing));
        QCOMPARE(v.next.act, Act::logTemper);
        batch.minimum_tempers = 1; // the recipe decides where it speaks
        QCOMPARE(at_(batch, Gate::temper).state, State::pass);
        batch.blades[0].tempers.clear();
        QVERIFY(at_(batch, Gate::temper).has(Fact::tempersMissing));
    }

    void onlyReadingsAfterTheLastTemperCount() {
        Batch batch = tempered({64.0, 64.1, 64.2});
        batch.blades[0].tempers.push_back({"c2", 1, 2, 215, 2, "", at(11)});
        Verdict v = at_(batch, Gate::temper);
        QCOMPARE(v.state, State::notYet);
        QCOMPARE(v.taken, 0);
        QVERIFY(v.has(Fact::noReadingsAfterLastTemper));
        read(batch.blades[0], Gate::temper, {62.1, 62.2, 62.3}, 2);
        QCOMPARE(at_(batch, Gate::temper).state, State::pass);
        QCOMPARE(batch.blades[0].readings.size(), std::size_t(6)); // earlier ones stay in the record
    }

    void rehardeningStartsAnew() {
        Batch batch = tempered({62.1, 62.2, 62.3});
        batch.blades[0].round = 2;
        QCOMPARE(at_(batch, Gate::temper).state, State::notYet);
        QCOMPARE(at_(batch, Gate::quench).taken, 0);
    }

    void hardIsNotYetDone() {
        const Verdict v = at_(tempered({63.9, 64.0, 64.1}), Gate::temper);
        QCOMPARE(v.state, State::borderline);
        QCOMPARE(v.next.act, Act::temperAgain);
        QVERIFY(v.has(Fact::notYetDone));
    }

    void softFailsAndTemperingCannotRaiseIt() {
        Batch batch = tempered({59.1, 59.2, 59.3});
        Verdict v = at_(batch, Gate::temper);
        QCOMPARE(v.state, State::fail);
        QCOMPARE(v.reasons.front().fact, Fact::soft);
        QVERIFY(std::abs(v.reasons.front().numbers[0] - 2.0) < 1e-9); // 61 - (59.2 - 0.2)
        QVERIFY(v.has(Fact::temperingCannotRaise));
        QVERIFY(v.has(Fact::ruleOutFalseSoftness));
        QVERIFY(v.has(Fact::normaliseFirst));
        QVERIFY(!v.has(Fact::overHardeningLimit));
        batch.grade = "D2";
        batch.minimum_tempers = 1;
        QVERIFY(at_(batch, Gate::temper).has(Fact::fullAnnealFirst));
        batch.blades[0].round = 3; // hardened again twice: the shop's limit
        batch.blades[0].tempers[0].round = 3;
        for (Reading& r : batch.blades[0].readings) r.round = 3;
        QVERIFY(at_(batch, Gate::temper).has(Fact::overHardeningLimit));
    }

    void aRiseAfterATemperAsksForOneMore() {
        Batch batch = tempered({62.1, 62.2, 62.3});
        read(batch.blades[0], Gate::quench, {60.0, 60.1, 60.2});
        const Verdict v = at_(batch, Gate::temper);
        QVERIFY(v.has(Fact::roseAfterTemper));
        QCOMPARE(v.state, State::notYet);
        QCOMPARE(v.next.act, Act::logTemper);
    }

    void borderlineAsksForMoreAndThenPasses() {
        Batch batch = tempered({62.7, 62.6, 62.8}); // corrected 62.5 +- 0.54 in 61:63
        Verdict v = at_(batch, Gate::temper);
        QCOMPARE(v.state, State::borderline);
        QCOMPARE(v.next.act, Act::readAgain);
        QVERIFY(v.has(Fact::moreReadingsMay) && v.next.as<ReadStep>()->readings <= 4);
        QVERIFY(v.has(Fact::mayBeHard));
        read(batch.blades[0], Gate::temper, {62.7, 62.7});
        v = at_(batch, Gate::temper);
        QCOMPARE(v.state, State::pass);
    }

    void unevenBladesAreMapped() {
        const Verdict v = at_(tempered({62.2, 60.4, 63.6}), Gate::temper);
        QCOMPARE(v.state, State::borderline);
        QCOMPARE(v.next.act, Act::mapReadings);
        QVERIFY(v.has(Fact::unevenBlade));
    }

    void saysWhenTheTesterCannotDecide() {
        Batch batch = tempered({62.1, 62.2, 62.3});
        batch.window = {61.5, 62.5}; // 1.0 wide; 2 U is 1.08
        QVERIFY(at_(batch, Gate::temper).has(Fact::windowTooNarrow));
        batch.blades[0].readings.clear();
        QVERIFY(at_(batch, Gate::temper).has(Fact::windowTooNarrow)); // before reading
    }

    void excusedBladesLeaveTheGate() {
        Batch batch = tempered({});
        batch.blades[0].excuses.push_back({Gate::temper, "a sibling stands for it", "HB", at(9)});
        QCOMPARE(at_(batch, Gate::temper).state, State::excused);
        QCOMPARE(at_(batch, Gate::quench).state, State::notYet);
        batch.blades[0].excuses.clear();
        batch.blades[0].fate = BladeFate{Fate::cracked, Gate::quench, "cracked in the oil", "HB", at(9)};
        QCOMPARE(at_(batch, Gate::temper).state, State::excused);
        QCOMPARE(at_(batch, Gate::quench).state, State::notYet); // the gate it fell at still asks
    }

    void aGateThatIsNotRequiredShowsNothing() {
        Batch batch = tempered({62, 62, 62});
        batch.plan[indexOf(Gate::quench)].required = false;
        QVERIFY(!judgeBatch(batch, tables(), at(12)).at(0, Gate::quench).has_value());
    }

    // --- Quench
    void quenchTakesTheGradesMinimum() {
        Batch batch = quenched("115CrV3", {{65.2, 65.3, 65.4}});
        QCOMPARE(at_(batch, Gate::quench).state, State::pass);
        QCOMPARE(windowOf(batch, batch.blades.front(), Gate::quench, tables()).low.value(), 63.0);
        batch.quench_minimum = 66;
        QCOMPARE(at_(batch, Gate::quench).state, State::fail);
        batch.quench_minimum.reset();
        batch.grade = "a steel of its own";
        const Verdict v = at_(batch, Gate::quench);
        QCOMPARE(v.state, State::notYet);
        QVERIFY(v.has(Fact::noMinimumSet));
    }

    void oneLowAmongGoodSiblings() {
        const Verdict v =
            at_(quenched("115CrV3", {{61.0, 61.1, 61.2}, {65.2, 65.3, 65.4}, {65.0, 65.1, 65.2}}), Gate::quench);
        QCOMPARE(v.state, State::fail);
        QVERIFY(v.has(Fact::onlyThisBladeLow));
        QCOMPARE(v.next.act, Act::falseSoftness);
    }

    void allLowByALittleOrByMuch() {
        Verdict v = at_(quenched("115CrV3", {{61.0, 61.1, 61.2}, {61.2, 61.3, 61.4}}), Gate::quench);
        QVERIFY(v.has(Fact::allBladesLow));
        v = at_(quenched("115CrV3", {{55.0, 55.1, 55.2}, {55.2, 55.3, 55.4}}), Gate::quench);
        QVERIFY(v.has(Fact::allBladesVeryLow));
        QCOMPARE(v.next.act, Act::backToSteel);
        QVERIFY(!v.has(Fact::softAlloyTwoCauses));
        v = at_(quenched("X50CrMoV15", {{52.0, 52.1, 52.2}, {52.2, 52.3, 52.4}}), Gate::quench);
        QVERIFY(v.has(Fact::softAlloyTwoCauses)); // opposite cures in alloy steel
    }

    void scatterAndEdgeLine() {
        Batch batch = quenched("115CrV3", {{59.0, 61.5, 63.9}});
        QVERIFY(at_(batch, Gate::quench).has(Fact::scatterOverThree));
        batch = quenched("115CrV3", {{60.0, 60.2, 61.9}});
        auto& readings = batch.blades[0].readings;
        readings[0].spot = Spot{20, 2.6};
        readings[1].spot = Spot{35, 2.6};
        readings[2].spot = Spot{10, 11}; // near the spine
        QVERIFY(at_(batch, Gate::quench).has(Fact::edgeLineLow));
    }

    void aboveWhatTheGradeCanGive() {
        Batch batch = quenched("51CrV4", {{64.0, 64.1, 64.2}}); // at most 62
        // The block of 62.6 is near: the number is true, and the three readings of it are named (E29).
        Verdict v = at_(batch, Gate::quench);
        QCOMPARE(v.state, State::pass);
        QVERIFY(v.has(Fact::aboveGradeVerified) && !v.has(Fact::aboveGradeMaximum));
        batch.verifications[0].certified = 57.8; // six away
        batch.verifications[0].readings = {57.8, 57.9, 57.8, 57.8, 57.7};
        v = at_(batch, Gate::quench);
        QCOMPARE(v.state, State::borderline);
        QVERIFY(v.has(Fact::aboveGradeMaximum));
        QCOMPARE(v.next.act, Act::verifyOnHarderBlock);
    }

    void anHourUntempered() {
        Batch batch = quenched("115CrV3", {{65.2, 65.3, 65.4}});
        batch.blades[0].quenched_at = at(10, 30);
        QVERIFY(at_(batch, Gate::quench).has(Fact::longSinceQuench)); // judged at 12:00
        batch.blades[0].quenched_at = at(11, 15);
        QVERIFY(!at_(batch, Gate::quench).has(Fact::longSinceQuench));
    }

    void whatIsNextInTheBatch() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"pass", "soft", "waits", "out"});
        for (Blade& blade : batch.blades) read(blade, Gate::quench, {65.2, 65.3, 65.4});
        read(batch.blades[0], Gate::temper, {62.1, 62.2, 62.3});
        read(batch.blades[1], Gate::temper, {59.1, 59.2, 59.3});
        batch.blades[3].fate = BladeFate{Fate::coupon, Gate::quench, "", "", at(9)};
        const std::vector<Task> tasks = agenda(batch, judgeBatch(batch, tables(), at(12)));
        QCOMPARE(tasks.size(), std::size_t(2));
        QCOMPARE(tasks[0].blade, std::size_t(2)); // readings in hand come before soft blades
        QCOMPARE(tasks[0].gate, Gate::temper);
        QCOMPARE(tasks[1].blade, std::size_t(1));
    }
};

QTEST_APPLESS_MAIN(tst_Gates)
#include "tst_gates.moc"
