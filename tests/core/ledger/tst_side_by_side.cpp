// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ledger/compare.h"
#include "core/ledger/series.h"
#include "core/ledger/study_read.h"
#include "core/measure/statistics.h"

#include <cmath>
#include <QtTest>
#include <random>
#include <set>

using namespace rollcall;

class tst_SideBySide : public QObject {
    Q_OBJECT

    static Level level(const char* name, std::vector<double> values) {
        Level one;
        one.name = name;
        one.values = std::move(values);
        return one;
    }
    static bool near(double a, double b, double by) { return std::abs(a - b) <= by; }

private slots:
    // Student's sleep data, as published in 1908; difference, interval and p of Welch's test as any statistics package
    // prints them: t -1.8608 with 17.776 degrees of freedom.
    void welchOnStudentsSleep() {
        const Comparisons found = compareLevels({level("1", {0.7, -1.6, -0.2, -1.2, -0.1, 3.4, 3.7, 0.8, 0.0, 2.0}),
                                                 level("2", {1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4})});
        QCOMPARE(found.pairs.size(), std::size_t(1));
        const LevelPair& pair = found.pairs.front();
        QVERIFY(near(pair.difference, -1.58, 1e-9));
        QVERIFY2(near(pair.known.low, -3.3654832, 2e-5) && near(pair.known.high, 0.2054832, 2e-5),
                 qPrintable(QStringLiteral("%1 %2").arg(pair.known.low).arg(pair.known.high)));
        QVERIFY(near(pair.p, 0.07939, 2e-5));
        QVERIFY(!pair.differ);
        QVERIFY(pair.heats_to_tell && *pair.heats_to_tell > 10); // ten of each did not tell
    }
    // By hand: distances from the medians 1 0 1 and 2 0 2; F = 0.8 with 1 and 4 degrees of freedom, p = 0.42164.
    void scatterByBrownAndForsythe() {
        const Comparisons found = compareLevels({level("a", {1, 2, 3}), level("b", {2, 4, 6})});
        QVERIFY(found.scatter_p && near(*found.scatter_p, 0.42164, 1e-4));
        const Comparisons apart = compareLevels({level("a", {61.9, 62.0, 62.1, 62.0, 61.9, 62.1, 62.0, 62.0}),
                                                 level("b", {60, 64, 61, 63, 62, 65, 59, 62})});
        QVERIFY(apart.scatter_p && *apart.scatter_p < 0.01);
        QVERIFY(!compareLevels({level("a", {1, 2}), level("b", {2, 4})}).scatter_p);
    }
    // All pairs are counted: the clearest times the number of pairs, and none below one that is clearer.
    void manyPairsAreCounted() {
        const Comparisons found = compareLevels({level("a", {1.0, 1.2, 0.9, 1.1}), level("b", {1.1, 1.3, 1.2, 1.0}),
                                                 level("c", {2.0, 2.2, 2.1, 1.9}), level("d", {1.0, 1.1, 1.2, 0.9})});
        QCOMPARE(found.pairs.size(), std::size_t(6));
        QVERIFY(near(found.pairs[0].adjusted, std::min(1.0, 6 * found.pairs[0].p), 1e-12));
        for (std::size_t i = 1; i < found.pairs.size(); ++i) {
            QVERIFY(found.pairs[i].adjusted >= found.pairs[i - 1].adjusted);
            QVERIFY(found.pairs[i].adjusted >= found.pairs[i].p);
        }
        for (const LevelPair& pair : found.pairs) {
            const bool withC = found.levels[pair.a].name == "c" || found.levels[pair.b].name == "c";
            QCOMPARE(pair.differ, withC);
        }
    }
    // Of shops in which nothing differs at most one in twenty is told that something does.
    void chanceMakesNothingBetter() {
        std::mt19937 chance(20261128);
        std::normal_distribution<double> normal(0, 0.8);
        int told = 0;
        constexpr int shops = 400;
        for (int shop = 0; shop < shops; ++shop) {
            std::vector<Level> levels;
            for (const char* name : {"a", "b", "c", "d", "e"}) {
                std::vector<double> values;
                for (int i = 0; i < 6; ++i) values.push_back(normal(chance));
                levels.push_back(level(name, values));
            }
            const Comparisons found = compareLevels(levels);
            told += std::any_of(found.pairs.begin(), found.pairs.end(), [](const LevelPair& p) { return p.differ; });
        }
        QVERIFY2(told <= shops * 0.075, qPrintable(QString::number(told)));
    }
    void onlyEightLevelsAndOnesWithOneHeat() {
        std::vector<Level> levels;
        for (int i = 0; i < 11; ++i) levels.push_back(level(std::to_string(i).c_str(), {1.0}));
        levels.push_back(level("two", {1.0, 2.0}));
        const Comparisons found = compareLevels(levels);
        QCOMPARE(found.levels.size(), std::size_t(8));
        QCOMPARE(found.levels.front().name, std::string("two"));
        QCOMPARE(found.more, 4);
        QVERIFY(found.pairs.empty());
    }

    // Published examples of power: two groups of 20, difference and deviation 1: 0.8689528; 0.9 needs 22.02 of each;
    // four groups whose means have variance 1, within 3: 0.8 needs 11.93 of each, five give 0.3535594.
    void powerAsPublished() {
        QVERIFY(near(powerOf(1, 1, 2, 20), 0.8689528, 1e-6));
        QCOMPARE(piecesToTell(1, 1, 2, 0.9), std::optional(23));
        const double between = std::sqrt(6.0); // lowest to highest, the other two in the middle: variance 1
        QVERIFY(near(powerOf(between, std::sqrt(3.0), 4, 5), 0.3535594, 1e-6));
        QCOMPARE(piecesToTell(between, std::sqrt(3.0), 4, 0.8), std::optional(12));
        QVERIFY(!piecesToTell(0.01, 1, 2, 0.8));
    }
    // Simulated studies show the difference as often as promised.
    void powerComesTrue() {
        std::mt19937 chance(7);
        std::normal_distribution<double> normal(0, 0.5);
        const int n = *piecesToTell(0.6, 0.5, 2, 0.8);
        int shown = 0;
        constexpr int studies = 2000;
        for (int i = 0; i < studies; ++i) {
            std::vector<double> a;
            std::vector<double> b;
            for (int k = 0; k < n; ++k) {
                a.push_back(normal(chance));
                b.push_back(0.6 + normal(chance));
            }
            shown += compareLevels({level("a", a), level("b", b)}).pairs.front().differ ? 1 : 0;
        }
        QVERIFY2(shown > 0.77 * studies && shown < 0.86 * studies, qPrintable(QString::number(shown)));
    }

    // The example of the NIST handbook, 6.3.2.3: target 325, slack 0.3175, which here is three quarters of a
    // sigma; sums in the unit of the values.
    void cumulativeAsPublished() {
        const std::vector<double> values{324.925, 324.675, 324.725, 324.350, 325.350, 325.225, 324.125,
                                         324.525, 325.225, 324.600, 324.625, 325.150, 328.325, 327.250,
                                         327.829, 328.500, 326.675, 327.775, 326.875, 328.350};
        Individuals chart;
        chart.mean = 325;
        constexpr double sigma = 0.3175 / 0.75;
        chart.sigma = sigma;
        Cumulative sums = cumulativeOf(values, chart);
        QVERIFY(near(sums.up[4] * sigma, 0.03, 0.005));
        QVERIFY(near(sums.up[12] * sigma, 3.01, 0.006));
        QVERIFY(near(sums.up[13] * sigma, 4.94, 0.006));
        QVERIFY(near(sums.up[19] * sigma, 19.05, 0.02));
        QVERIFY(sums.signal && *sums.signal == 13 && sums.began == 12 && sums.side == 1);
    }
    void individualsAndTheirRules() {
        // Moving ranges of 1 throughout: sigma 1/1.128 about 0.5.
        std::vector<double> values;
        for (int i = 0; i < 20; ++i) values.push_back(i / 2 % 2);
        std::optional<Individuals> chart = individualsOf(values);
        QVERIFY(chart && chart->learned_from == 20);
        QVERIFY(near(chart->mean, 0.5, 1e-9) && near(chart->sigma, 1 / 1.128, 1e-9));
        QVERIFY(chart->alarms.empty());
        std::vector<double> more = values;
        more.push_back(0.5 + 4.6 / 1.128);
        chart = individualsOf(more);
        QCOMPARE(chart->alarms.size(), std::size_t(1));
        QCOMPARE(chart->alarms[0].rule, RunRule::beyond);
        QCOMPARE(chart->alarms[0].at, std::size_t(20));
        more = values;
        for (const double z : {-2.2, 0.1, -2.2}) more.push_back(0.5 + z / 1.128);
        QVERIFY(individualsOf(more)->alarms.empty()); // chance alone makes these every other year
        more = values;
        for (int i = 0; i < 13; ++i) more.push_back(0.5 - 0.4);
        more.insert(more.begin() + 20, 0.5 + 0.4);
        QVERIFY(individualsOf(more)->alarms.empty());
        more.push_back(0.5 - 0.4);
        chart = individualsOf(more);
        QCOMPARE(chart->alarms.size(), std::size_t(1));
        QCOMPARE(chart->alarms[0].rule, RunRule::longOnSide);
        QCOMPARE(chart->alarms[0].side, -1);
        QVERIFY(!individualsOf(std::vector<double>(19, 1.0)));
        QVERIFY(!individualsOf(std::vector<double>(30, 1.0))); // no scatter at all sets no limits
    }
    // A shift of one sigma is seen by the sums after 36.7 values on average: (exp(-2db) + 2db - 1) / (2d²) with d 0.25
    // and b 10 + 1.166 (D. Siegmund, Sequential Analysis, 1985).
    void smallShiftsAddUp() {
        std::mt19937 chance(11);
        std::normal_distribution<double> normal(0, 1);
        Individuals chart;
        chart.mean = 0;
        chart.sigma = 1;
        double waited = 0;
        constexpr int runs = 600;
        for (int run = 0; run < runs; ++run) {
            std::vector<double> values;
            for (int i = 0; i < 2000; ++i) values.push_back(1 + normal(chance));
            const Cumulative sums = cumulativeOf(values, chart);
            QVERIFY(sums.signal);
            waited += static_cast<double>(*sums.signal + 1) / runs;
        }
        QVERIFY2(near(waited, 36.7, 1.5), qPrintable(QString::number(waited)));
    }

    void aStudyIsPlanned() {
        StudyPlan wish;
        wish.name = "Soak";
        wish.factor = "soak at temperature";
        wish.levels = {"5 min", "10 min", "15 min"};
        wish.difference = 1;
        wish.sd = 0.5;
        const auto plan = planned(wish);
        QVERIFY(plan);
        QVERIFY(plan->pieces >= 3 && powerOf(1, 0.5, 3, plan->pieces) >= 0.8 &&
                powerOf(1, 0.5, 3, plan->pieces - 1) < 0.8);
        const auto order = orderOf(*plan);
        QCOMPARE(order.size(), std::size_t(3 * plan->pieces));
        for (int round = 0; round < plan->pieces; ++round) {
            const std::set<std::size_t> levels(order.begin() + 3 * round, order.begin() + 3 * round + 3);
            QCOMPARE(levels.size(), std::size_t(3)); // each once a round
        }
        QCOMPARE(orderOf(*plan), order);
        const auto marks = marksOf(*plan);
        QCOMPARE(std::set<std::string>(marks.begin(), marks.end()).size(), marks.size());
        for (std::size_t i = 0; i < marks.size(); ++i) QCOMPARE(marks[i].front(), static_cast<char>('A' + order[i]));
    }
    // The lot favours no level: each stands first in a third of the draws.
    void theLotIsFair() {
        StudyPlan plan;
        plan.levels = {"a", "b", "c"};
        plan.pieces = 2;
        std::array<int, 3> first{};
        constexpr int draws = 3000;
        for (std::uint32_t seed = 1; seed <= draws; ++seed) {
            plan.seed = seed;
            ++first[orderOf(plan).front()];
        }
        for (const int count : first) QVERIFY2(std::abs(count - draws / 3) < 110, qPrintable(QString::number(count)));
    }
    void whatCannotBePlanned_data() {
        QTest::addColumn<QString>("field");
        QTest::addColumn<QString>("value");
        QTest::addColumn<QString>("place");
        QTest::newRow("no name") << "name"
                                 << ""
                                 << "name";
        QTest::newRow("one level") << "levels"
                                   << "a"
                                   << "levels";
        QTest::newRow("twins") << "levels"
                               << "a,a"
                               << "levels";
        QTest::newRow("thirteen") << "levels"
                                  << "a,b,c,d,e,f,g,h,i,j,k,l,m"
                                  << "levels";
        QTest::newRow("nothing matters") << "difference"
                                         << "0"
                                         << "difference";
        QTest::newRow("too little") << "difference"
                                    << "0.05"
                                    << "difference";
        QTest::newRow("no scatter") << "sd"
                                    << "0"
                                    << "sd";
        QTest::newRow("certainty") << "power"
                                   << "1"
                                   << "power";
    }
    void whatCannotBePlanned() {
        QFETCH(QString, field);
        QFETCH(QString, value);
        QFETCH(QString, place);
        StudyPlan wish;
        wish.name = "Soak";
        wish.levels = {"a", "b"};
        if (field == "name") wish.name = value.toStdString();
        if (field == "levels") {
            wish.levels.clear();
            for (const QString& one : value.split(',')) wish.levels.push_back(one.toStdString());
        }
        if (field == "difference") wish.difference = value.toDouble();
        if (field == "sd") wish.sd = value.toDouble();
        if (field == "power") wish.power = value.toDouble();
        const auto plan = planned(wish);
        QVERIFY(!plan);
        QCOMPARE(QString::fromStdString(plan.error().place), place);
    }
    void aStudyIsReadAgainstItsPlan() {
        StudyPlan plan;
        plan.name = "Soak";
        plan.levels = {"5 min", "15 min"};
        plan.difference = 1;
        plan.sd = 0.4;
        plan.pieces = 4;
        LedgerBatch batch;
        for (const auto& [mark, value] : std::map<std::string, double>{{"A1", 61.0},
                                                                       {"A2", 61.3},
                                                                       {"A3", 60.8},
                                                                       {"A4", 61.1},
                                                                       {"B1", 62.4},
                                                                       {"B2", 62.1},
                                                                       {"B3", 62.6},
                                                                       {"x", 70}}) {
            LedgerBlade blade;
            blade.mark = mark;
            blade.tempered = LedgerMeasurement{};
            blade.tempered->mean = value;
            batch.blades.push_back(blade);
        }
        const auto values = valuesOf(plan, batch);
        QCOMPARE(values[0].size(), std::size_t(4));
        QCOMPARE(values[1].size(), std::size_t(3)); // x is none of its pieces, B4 is not read
        const StudyRead read = readStudy(plan, values);
        QCOMPARE(read.missing, 1);
        QVERIFY(read.comparisons.pairs.front().differ);
        QVERIFY(near(std::abs(read.comparisons.pairs.front().difference), (62.4 + 62.1 + 62.6) / 3 - 61.05, 1e-9));
        QVERIFY(read.power_had > 0.9);
    }
};

QTEST_APPLESS_MAIN(tst_SideBySide)
#include "tst_side_by_side.moc"
