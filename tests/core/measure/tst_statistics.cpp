// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/statistics.h"

#include <limits>
#include <QtTest>

using namespace rollcall;

class tst_Statistics : public QObject {
    Q_OBJECT

private slots:
    // Printed tables of Student's t, two-sided 95 per cent.
    void quantilesOfT_data() {
        QTest::addColumn<double>("dof");
        QTest::addColumn<double>("t");
        QTest::newRow("1") << 1.0 << 12.706;
        QTest::newRow("2") << 2.0 << 4.303;
        QTest::newRow("10") << 10.0 << 2.228;
        QTest::newRow("30") << 30.0 << 2.042;
        QTest::newRow("endless") << std::numeric_limits<double>::infinity() << 1.960;
    }
    void quantilesOfT() {
        QFETCH(double, dof);
        QFETCH(double, t);
        QVERIFY(std::abs(tQuantile(0.975, dof) - t) < 0.0006);
        QVERIFY(std::abs(tProbability(t, dof) - 0.975) < 0.0001);
    }

    // Printed 95 per cent points of F: F(1;8) 5.318, F(2;8) 4.459.
    void pointsOfF() {
        QVERIFY(exceedsF(5.33, 0.95, 1, 8));
        QVERIFY(!exceedsF(5.30, 0.95, 1, 8));
        QVERIFY(exceedsF(4.47, 0.95, 2, 8));
        QVERIFY(!exceedsF(4.45, 0.95, 2, 8));
        QVERIFY(!exceedsF(0.5, 0.95, 2, 8));
    }

    // Grubbs' printed two-sided critical values at 5 per cent: n = 4 1.481, n = 7 2.020.
    void grubbs() {
        QVERIFY(grubbsFindsOutlier({60, 60.1, 60.05, 65}, 0.05));
        QVERIFY(!grubbsFindsOutlier({60, 61, 62, 63}, 0.05));
        QVERIFY(!grubbsFindsOutlier({60, 65}, 0.05));
        QVERIFY(!grubbsFindsOutlier({60, 60, 60}, 0.05));
        const std::vector<double> six{0, 0, 0, 0, 0, 0};
        std::vector<double> seven(six);
        seven.push_back(1);
        QVERIFY(grubbsFindsOutlier(seven, 0.05)); // G = 2.268
    }

    void simpleOnes() {
        QCOMPARE(medianOf({3, 1, 2}), 2.0);
        QCOMPARE(medianOf({4, 1, 2, 3}), 2.5);
        QCOMPARE(rangeOf({62.1, 61.8, 61.9}), 62.1 - 61.8);
        QVERIFY(!sampleSd({62}).has_value());
        QVERIFY(std::abs(*sampleSd({62.1, 61.8, 61.9}) - 0.152753) < 1e-6);
    }

    // Perfect order of n: two of n! orders are as far from chance. Ties count for neither side.
    void trendsByRank() {
        QVERIFY(std::abs(trendOf({1, 2, 3, 4}, {9, 8, 6, 5})->p - 2.0 / 24) < 1e-12);
        const Trend five = *trendOf({6, 9, 11, 12, 14}, {9.0, 8.7, 8.4, 8.3, 7.9});
        QVERIFY(std::abs(five.p - 2.0 / 120) < 1e-12);
        QVERIFY(std::abs(five.slope + 0.13) < 0.03);
        QCOMPARE(trendOf({1, 2, 3, 4, 5}, {7, 7, 7, 7, 7})->p, 1.0);
        QVERIFY(!trendOf({3, 3, 3}, {1, 2, 3}));
        // Ten in order, normal with continuity: (45 - 1) / sqrt(125) = 3.935.
        const std::vector<double> ten{1, 2, 3, 4, 5, 6, 7, 8, 9, 10};
        QVERIFY(std::abs(trendOf(ten, ten)->p - 8.3e-5) < 2e-6);
    }
};

QTEST_APPLESS_MAIN(tst_Statistics)
#include "tst_statistics.moc"
