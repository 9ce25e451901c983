// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/measurement.h"

#include <QtTest>
#include <random>

using namespace rollcall;

class tst_Measurement : public QObject {
    Q_OBJECT

    static MeasurementInput input(std::vector<double> readings, Window window) {
        MeasurementInput in;
        in.readings = std::move(readings);
        in.window = window;
        return in;
    }

private slots:
    // M9's worked example carried through M15 and M16: c = 61.933, u = 0.2309, nu = 31.6 in 61:62.5. With t(31.6)
    // the upper limit lies 2.4537 u away: 1 - 0.0099.
    void workedExample() {
        const Measurement m = measure(input({62.1, 61.8, 61.9}, {61, 62.5})).value();
        QVERIFY(std::abs(m.mean - 61.9333) < 1e-4);
        QVERIFY(std::abs(m.decided_uncertainty - 0.471) < 5e-4);
        QVERIFY(std::abs(m.probability_inside - 0.990) < 1e-3);
        QCOMPARE(m.outcome, Outcome::pass);
        QCOMPARE(m.more_readings.value(), 0);
    }

    void decidesOnTheCorrectedMean() {
        MeasurementInput in = input({62.1, 61.8, 61.9}, {61, 62.5});
        in.bias = BlockBias{0.2, 2};
        const Measurement m = measure(in).value();
        QVERIFY(std::abs(m.corrected_mean - 61.7333) < 1e-4);
        QVERIFY(std::abs(m.decided_uncertainty - 0.642) < 5e-4);
        in.uncorrected = true;
        const Measurement u = measure(in).value();
        QVERIFY(std::abs(u.decided_mean - 61.9333) < 1e-4);
        QVERIFY(std::abs(u.decided_uncertainty - 0.842) < 5e-4); // enlarged by the error's size
        QCOMPARE(u.probability_inside, m.probability_inside);    // never by |E|
        QCOMPARE(u.outcome, Outcome::borderline);
    }

    void guardedRule_data() {
        QTest::addColumn<double>("c");
        QTest::addColumn<double>("u");
        QTest::addColumn<int>("n");
        QTest::addColumn<int>("outcome");
        const int pass = int(Outcome::pass), borderline = int(Outcome::borderline), fail = int(Outcome::fail);
        QTest::newRow("well inside") << 62.0 << 0.5 << 3 << pass;
        QTest::newRow("touching the limit from inside") << 61.5 << 0.5 << 3 << pass;
        QTest::newRow("just across it") << 61.49 << 0.5 << 3 << borderline;
        QTest::newRow("outside but touching") << 60.5 << 0.5 << 3 << borderline;
        QTest::newRow("soft") << 60.49 << 0.5 << 3 << fail;
        QTest::newRow("hard") << 63.51 << 0.5 << 3 << fail;
        QTest::newRow("wider than the window") << 62.0 << 1.2 << 3 << borderline;
        QTest::newRow("one reading never passes") << 62.0 << 0.5 << 1 << borderline;
        QTest::newRow("one reading may fail") << 59.0 << 0.5 << 1 << fail;
    }
    void guardedRule() {
        QFETCH(double, c);
        QFETCH(double, u);
        QFETCH(int, n);
        QFETCH(int, outcome);
        QCOMPARE(int(decide({61, 63}, DecisionRule::guarded, 0, c, u, n)), outcome);
    }

    void plainAndAllowance() {
        const Window window{61, 63};
        QCOMPARE(decide(window, DecisionRule::plain, 0, 60.95, 0.5, 2),
                 Outcome::pass); // 61.0 at one decimal, half to even
        QCOMPARE(decide(window, DecisionRule::plain, 0, 62, 0.5, 1), Outcome::borderline); // E65
        QCOMPARE(decide(window, DecisionRule::plain, 0, 60.94, 0.5, 3), Outcome::fail);
        QCOMPARE(decide(window, DecisionRule::allowance, 0.5, 60.5, 0.5, 3), Outcome::pass);
        QCOMPARE(decide(window, DecisionRule::allowance, 0.5, 60.5, 0.5, 1), Outcome::borderline);
        QCOMPARE(decide(window, DecisionRule::allowance, 0.5, 60.4, 0.5, 3), Outcome::fail);
        QCOMPARE(decide(window, DecisionRule::allowance, 0.5, 63.5, 0.5, 3), Outcome::pass);
    }

    void aMinimumHasOneSide() {
        const Window minimum{63, std::nullopt};
        QCOMPARE(decide(minimum, DecisionRule::guarded, 0, 69, 0.5, 3), Outcome::pass);
        QCOMPARE(decide(minimum, DecisionRule::guarded, 0, 63.4, 0.5, 3), Outcome::borderline);
        QCOMPARE(decide(minimum, DecisionRule::guarded, 0, 62.4, 0.5, 3), Outcome::fail);
        QCOMPARE(sideOf(minimum, 69), Side::inside);
    }

    // At the limit itself the chance is one half, whatever u and nu.
    void chances() {
        QVERIFY(std::abs(chanceInside({63, std::nullopt}, 63, 0.3, 10) - 0.5) < 1e-12);
        QVERIFY(std::abs(chanceInside({62, 64}, 63, 1.0, std::numeric_limits<double>::infinity()) - 0.6827) < 1e-4);
    }

    // E40: said only where it comes true in 8 of 10. One reading in the middle: one more decides. c = 62.5, H = 63
    // after three: U falls from 0.54 to 0.498 at n = 5, but the mean moves too: about even.
    void countsAdditionalReadings() {
        MeasurementInput in = input({62.0}, {61, 63});
        in.bias = BlockBias{0, 5};
        QCOMPARE(measure(in)->more_readings.value(), 1);
        in.readings = {62.5, 62.4, 62.6};
        const Measurement m = measure(in).value();
        QCOMPARE(m.outcome, Outcome::borderline);
        QVERIFY(!m.more_readings);
        const double chance = chanceSettledBy(in, m.may_settle.value());
        QVERIFY2(chance >= 0.5 && chance < 0.8, qPrintable(QString::number(chance)));
        in.readings = {62.9, 63.0, 62.8};
        QVERIFY(!measure(in)->may_settle.has_value()); // no number up to ten settles it
    }

    void disagreementAsksForAThird() {
        const Measurement m = measure(input({61.2, 62.8}, {60, 64})).value();
        QCOMPARE(m.outcome, Outcome::borderline);
        QVERIFY(!m.more_readings); // a third is asked for, and promises nothing
    }

    void aFlaggedReadingThatChangesTheVerdict() {
        const Measurement m = measure(input({62.1, 61.8, 61.9, 65.0}, {61, 63})).value();
        QVERIFY(m.changed_by_flagged);
        QCOMPARE(m.outcome, Outcome::borderline);
        QVERIFY(std::abs(m.mean - 62.7) < 1e-9); // with all unstruck readings
    }

    void unevenIsBorderline() {
        const Measurement m = measure(input({58.0, 58.1, 61.0, 61.2}, {63, 64})).value();
        QVERIFY(m.agreement.uneven);
        QCOMPARE(m.outcome, Outcome::borderline);
    }

    // Enough further readings nearly always settle a mean in the middle; readings at a limit hardly ever.
    void chanceThatMoreSettle() {
        MeasurementInput middle = input({62.3, 62.5, 62.1}, {61.7, 63.1});
        middle.bias = BlockBias{0, 5};
        MeasurementInput limit = middle;
        limit.readings = {63.0, 63.2, 63.1};
        QVERIFY(chanceSettledBy(middle, 6) > 0.8);
        QVERIFY(chanceSettledBy(limit, 6) < 0.25);
        QCOMPARE(chanceSettledBy(middle, 2), chanceSettledBy(middle, 2));
    }

    // Coverage of U by simulation: bias of the tester, block and blade readings drawn as M9 assumes.
    void intervalCoversTheTruth() {
        std::mt19937_64 random(7);
        std::normal_distribution<double> normal;
        int covered = 0;
        constexpr int trials = 4000;
        for (int i = 0; i < trials; ++i) {
            const double error = 0.5 * normal(random);
            const double certificate = 0.15 * normal(random); // the block's true value differs from its certificate
            double block = 0;
            for (int k = 0; k < 2; ++k) block += (certificate + error + 0.3 * normal(random)) / 2;
            MeasurementInput in = input({}, {50, 70});
            for (int k = 0; k < 3; ++k) in.readings.push_back(60 + error + 0.3 * normal(random));
            in.bias = BlockBias{block, 2};
            in.tester.resolution = 0;
            const Measurement m = measure(in).value();
            if (std::abs(m.corrected_mean - 60) <= m.decided_uncertainty) ++covered;
        }
        const double share = double(covered) / trials;
        QVERIFY2(share > 0.94 && share < 0.985, qPrintable(QString::number(share)));
    }

    void refusesWhatCannotBeJudged() {
        QVERIFY(!measure(input({}, {61, 63})).ok());
        QVERIFY(!measure(input({62, std::nan("")}, {61, 63})).ok());
        QVERIFY(!measure(input({62}, {})).ok());
        QVERIFY(!measure(input({62}, {63, 61})).ok());
        MeasurementInput in = input({62}, {61, 63});
        in.allowance = -1;
        QCOMPARE(measure(in).error().kind, ErrorKind::range);
    }

    void saysBeforehandWhatATesterCanDo() {
        QVERIFY(std::abs(expectedUncertainty(TesterModel::bench(), 3, BlockBias{0, 2}) - 0.642) < 5e-4);
    }
};

QTEST_APPLESS_MAIN(tst_Measurement)
#include "tst_measurement.moc"
