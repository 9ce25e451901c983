// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/standing.h"
#include "tests/support/fixtures.h"

#include <QtTest>

using namespace rollcall;
using fixtures::at;
using fixtures::tables;

class tst_Standing : public QObject {
    Q_OBJECT

    using Standing = VerificationBook::Standing;

    static VerificationBook::Found standing(const std::vector<Verification>& runs, const Reading& reading) {
        Batch batch;
        batch.verifications = runs;
        return VerificationBook(batch, tables()).standingFor(reading);
    }
    static Verification badRun(Instant time) { return fixtures::goodRun({63.6, 63.5}, time); }

    static ReadingSet setOf(const Blade& blade, const Batch& batch) {
        std::vector<const Reading*> candidates;
        for (const Reading& r : blade.readings) candidates.push_back(&r);
        return standingReadings(batch, blade, candidates, VerificationBook(batch, tables()), tables(), 0);
    }
    static bool says(const ReadingSet& set, Fact fact) {
        return std::any_of(set.reasons.begin(), set.reasons.end(), [&](const Reason& r) { return r.fact == fact; });
    }

private slots:
    void aRunHoldsForItsDaySettingAndBand() {
        const Reading reading = fixtures::reading("r", 62, Gate::temper, 1, at(10));
        QCOMPARE(standing({fixtures::goodRun()}, reading).standing, Standing::good);
        QCOMPARE(standing({}, reading).standing, Standing::none);
        QCOMPARE(standing({fixtures::goodRun({62.7, 62.8}, at(11))}, reading).standing,
                 Standing::none); // after the reading
        QCOMPARE(standing({fixtures::goodRun({62.7, 62.8}, at(23, 59, 23))}, reading).standing,
                 Standing::none); // the day before
        Reading other = reading;
        other.indenter = "another cone";
        QCOMPARE(standing({fixtures::goodRun()}, other).standing, Standing::none);
        other = reading;
        other.time = std::nullopt; // a reading without a time matches no run
        QCOMPARE(standing({fixtures::goodRun()}, other).standing, Standing::none);
    }

    // Midnight is the shop's, not Greenwich's: with an offset of +2 h, 23:30 UTC belongs to the next local day.
    void theDayIsLocal() {
        Reading reading = fixtures::reading("r", 62, Gate::temper, 1, Instant{at(1).utc_ms, 120});
        Verification run = fixtures::goodRun({62.7, 62.8}, Instant{at(23, 30, 23).utc_ms, 120});
        QCOMPARE(standing({run}, reading).standing, Standing::good);
        run.time->utc_ms = at(21, 30, 23).utc_ms;
        QCOMPARE(standing({run}, reading).standing, Standing::none);
    }

    // E1, E3. A tester of which no run tells today's error is as far off as its own earlier runs were, once it has
    // eight of them; not as far as the standard allows.
    void earlierRunsSpeakForADayWithoutARun() {
        Batch batch;
        batch.grade = "115CrV3";
        batch.window = {61.0, 63.0};
        Tester tester;
        tester.id = "t1";
        batch.testers.push_back(tester);
        const std::vector<double> errors{0.4, -0.4, 0.4, -0.4, 0.4, -0.4, 0.4, -0.4};
        const double block = fixtures::goodRun().certified;
        for (std::size_t i = 0; i < errors.size(); ++i)
            batch.verifications.push_back(
                fixtures::goodRun({block + errors[i], block + errors[i]}, at(9, 0, 10 + static_cast<int>(i))));
        Blade blade;
        blade.readings = {fixtures::reading("r", 62, Gate::temper, 1, at(10))};
        const ReadingSet set = setOf(blade, batch);
        QVERIFY(!set.verified && !set.bias && set.usual);
        QCOMPARE(set.usual->runs, 8);
        QVERIFY(std::abs(set.usual->mean) < 1e-9);
        // Their variance, 8 times 0.16 by 7, without what two readings of 0.3 make of a run, 0.09 by 2; and the mean's
        // own doubt: an eighth more.
        const double expected = std::sqrt((8 * 0.16 / 7 - 0.09 / 2) * 9 / 8);
        QVERIFY2(std::abs(set.usual->unknownError() - expected) < 1e-9,
                 qPrintable(QString::number(set.usual->unknownError())));
        batch.verifications.pop_back();
        QVERIFY(!setOf(blade, batch).usual);
    }

    void aFailedRunAndFailingTwice() {
        const Reading reading = fixtures::reading("r", 62, Gate::temper, 1, at(10));
        QCOMPARE(standing({fixtures::goodRun(), badRun(at(9))}, reading).standing, Standing::failed);
        QCOMPARE(standing({badRun(at(8)), fixtures::goodRun({62.7, 62.8}, at(9))}, reading).standing, Standing::good);
        // E57: failing once later holds everything since the last good run; failing twice makes it suspect.
        QCOMPARE(standing({fixtures::goodRun(), badRun(at(11))}, reading).standing, Standing::held);
        QCOMPARE(standing({fixtures::goodRun(), badRun(at(11)), badRun(at(12))}, reading).standing, Standing::suspect);
        QCOMPARE(
            standing({fixtures::goodRun(), fixtures::goodRun({62.7, 62.8}, at(10, 30)), badRun(at(11)), badRun(at(12))},
                     reading)
                .standing,
            Standing::good);
    }

    void ofTwoBlocksTheNearerSpeaks() {
        Verification soft = fixtures::goodRun({55.4, 55.4}, at(9));
        soft.id = "soft";
        soft.block = "55.2";
        soft.certified = 55.2;
        const Reading reading = fixtures::reading("r", 62, Gate::temper, 1, at(10));
        QCOMPARE(standing({fixtures::goodRun(), soft}, reading).run->certified, 62.6);
        QCOMPARE(standing({soft}, reading).standing, Standing::good);
    }

    void marksTooNearAreLeftOutButKept() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A"});
        Blade& blade = batch.blades[0];
        fixtures::read(blade, Gate::temper, {62.0, 62.1, 62.2});
        blade.readings[0].spot = Spot{20, 2.6};
        blade.readings[1].spot = Spot{21, 2.6}; // 1.0 mm; 3 d at 62 is 1.46
        blade.readings[2].spot = Spot{40, 0.8}; // 2.5 d is 1.22
        const ReadingSet set = setOf(blade, batch);
        QCOMPARE(set.standing.size(), std::size_t(1)); // the earlier of the two marks stands
        QCOMPARE(set.standing[0]->value, 62.0);
        QCOMPARE(set.left_out.size(), std::size_t(2));
        QVERIFY(says(set, Fact::spacingBroken));
        blade.readings[1].accepted_because = "measured with calipers";
        QCOMPARE(setOf(blade, batch).standing.size(), std::size_t(2));
    }

    void marksGroundOffKeepNoneAway() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A"});
        Blade& blade = batch.blades[0];
        fixtures::read(blade, Gate::temper, {62.0, 62.1, 62.2});
        blade.readings[0].spot = Spot{20, 2.6};
        blade.readings[1].spot = Spot{21, 2.6};   // too near to the first, but that one was ground off before
        blade.readings[2].spot = Spot{20.5, 2.6}; // too near to the second, which was there
        blade.readings[1].surface = blade.readings[2].surface = blade.surface = 1;
        const ReadingSet set = setOf(blade, batch);
        QCOMPARE(set.standing.size(), std::size_t(2));
        QCOMPARE(set.left_out.size(), std::size_t(1));
        QCOMPARE(set.left_out[0]->value, 62.2);
    }

    void aStruckReadingStillLeavesItsMark() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A"});
        Blade& blade = batch.blades[0];
        fixtures::read(blade, Gate::temper, {62.0, 62.1});
        blade.readings[0].spot = Spot{20, 2.6};
        blade.readings[0].struck = Strike{};
        blade.readings[1].spot = Spot{21, 2.6};
        const std::vector<const Reading*> candidates{&blade.readings[1]};
        const ReadingSet set =
            standingReadings(batch, blade, candidates, VerificationBook(batch, tables()), tables(), 0);
        QVERIFY(set.standing.empty());
    }

    void thinSteelIsNotReadOnThisScale() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A"});
        batch.blades[0].shape.thickness_mm = 0.6; // 0.71 needed at 62
        fixtures::read(batch.blades[0], Gate::temper, {62.0, 62.1});
        const ReadingSet set = setOf(batch.blades[0], batch);
        QVERIFY(set.standing.empty());
        QVERIFY(says(set, Fact::tooThin));
        batch.blades[0].shape.thickness_mm = 0.74; // thick enough by the table, under ten depths (0.758)
        QVERIFY(says(setOf(batch.blades[0], batch), Fact::belowTenDepths));
    }

    // E140: 90.2 HR15N is 60 HRC; one HRC is 0.45 of its points, so sigma-0 grows to 0.667 HRC.
    void convertsOtherScales() {
        Batch batch = fixtures::batch("115CrV3", {59, 63}, {"A"});
        fixtures::read(batch.blades[0], Gate::temper, {90.2, 90.2, 90.2});
        for (Reading& r : batch.blades[0].readings) r.scale = "HR15N";
        const ReadingSet set = setOf(batch.blades[0], batch);
        QCOMPARE(set.hrc.size(), std::size_t(3));
        QVERIFY(std::abs(set.hrc[0] - 60.0) < 1e-9);
        QVERIFY(std::abs(set.tester.pooled_sd - 0.3 / 0.45) < 1e-9);
        QCOMPARE(set.conversion_u, 0.5);
        QVERIFY(!set.verified); // the run was on HRC
    }

    void mixturesAreCapped() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A"});
        fixtures::read(batch.blades[0], Gate::temper, {62.0, 62.1});
        batch.blades[0].readings[1].tester = "t2";
        // Nobody checked the second one, so it may be off by 0.5: the two agree, and are not averaged (E7).
        QVERIFY(says(setOf(batch.blades[0], batch), Fact::testersAgree));
        QCOMPARE(setOf(batch.blades[0], batch).hrc, std::vector<double>{62.0});
        QCOMPARE(setOf(batch.blades[0], batch).beside.size(), std::size_t(1));
        for (const Reason& reason : setOf(batch.blades[0], batch).reasons) {
            if (reason.fact == Fact::testersAgree) // names, then of each whether a run on a block speaks for it
                QCOMPARE(QString::fromStdString(reason.texts.at(3)), QString::fromLatin1(setNotVerified));
        }
        batch.blades[0].readings[1].value = 65.0;
        QVERIFY(says(setOf(batch.blades[0], batch), Fact::mixedTesters));
        const auto reasons = setOf(batch.blades[0], batch).reasons;
        QVERIFY(std::any_of(reasons.begin(), reasons.end(), [](const Reason& r) { return r.tone == Tone::caution; }));
    }
};

QTEST_APPLESS_MAIN(tst_Standing)
#include "tst_standing.moc"
