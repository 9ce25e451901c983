// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/control.h"

#include <cmath>
#include <QtTest>

using namespace rollcall;

class tst_Control : public QObject {
    Q_OBJECT

    static std::vector<ControlPoint> weekly(const std::vector<double>& values) {
        std::vector<ControlPoint> points;
        for (std::size_t i = 0; i < values.size(); ++i) points.push_back({7.0 * double(i), values[i]});
        return points;
    }

private slots:
    // Mean 0.1, moving ranges all 0.2: sigma = 0.2 / 1.128.
    void limitsFromTwelvePointsOn() {
        std::vector<double> values;
        for (int i = 0; i < 11; ++i) values.push_back(i % 2 == 0 ? 0.0 : 0.2);
        QVERIFY(!controlLimits(weekly(values)));
        values.push_back(0.2);
        const ControlLimits limits = controlLimits(weekly(values)).value();
        QVERIFY(std::abs(limits.mean - 0.1) < 1e-12);
        QVERIFY(std::abs(limits.high - (0.1 + 4.5 * 0.2 / 1.128)) < 1e-9);
        QVERIFY(std::abs(limits.low - (0.1 - 4.5 * 0.2 / 1.128)) < 1e-9);
    }

    // Eight values in order: S = 28, variance 8·7·21/18 = 65.33, z = 27/8.083 = 3.340.
    void driftWorkedByHand() {
        const Drift drift = driftOf(weekly({0.0, 0.02, 0.04, 0.06, 0.08, 0.10, 0.12, 0.14})).value();
        QVERIFY(std::abs(drift.per_week - 0.02) < 1e-9);
        QVERIFY(std::abs(drift.standard_errors - 3.340) < 0.002);
        QVERIFY(drift.likely);
        QVERIFY(std::abs(drift.level_now - 0.14) < 1e-9);
        QVERIFY(std::abs(weeksUntil(drift, 0.5).value() - 18) < 1e-6);
        QVERIFY(!weeksUntil(drift, -0.5)); // it drifts away from that limit
    }

    // Ten runs alternating by 0.2 in pairs (two apart: always 0.2), then ten 0.3 higher: sigma = 0.2/1.128 but for the
    // two steps of 0.1 and 0.5 at the change; u = sigma·sqrt(2/10).
    void twentyRunsWorkedByHand() {
        std::vector<double> values;
        for (int i = 0; i < 20; ++i) values.push_back((i / 2 % 2 == 0 ? 0.0 : 0.2) + (i < 10 ? 0.0 : 0.6));
        double steps = 0;
        for (std::size_t i = 2; i < 20; ++i) steps += std::abs(values[i] - values[i - 2]);
        const double before = (6 * 0.0 + 4 * 0.2) / 10;
        const double after = (4 * 0.6 + 6 * 0.8) / 10;
        const double expected = (after - before) / (steps / 18 / 1.128 * std::sqrt(0.2));
        const Drift drift = driftOf(weekly(values)).value();
        QVERIFY(std::abs(drift.standard_errors - expected) < 1e-9);
        QVERIFY(drift.likely && drift.per_week > 0);
    }

    void sensSlopeShrugsAtAnOutlier() {
        const Drift drift = driftOf(weekly({0, -0.02, -0.04, -0.06, 0.9, -0.10, -0.12, -0.14, -0.16})).value();
        QVERIFY(std::abs(drift.per_week + 0.02) < 1e-9);
    }

    void constantAndShortSeriesDoNotDrift() {
        QVERIFY(!driftOf(weekly({0, 1, 2, 3, 4, 5, 6})));
        const Drift still = driftOf(weekly({0.1, 0.1, 0.1, 0.1, 0.1, 0.1, 0.1, 0.1})).value();
        QCOMPARE(still.standard_errors, 0.0);
        QVERIFY(!still.likely);
        QVERIFY(!driftOf({{1, 0}, {1, 1}, {1, 2}, {1, 3}, {1, 4}, {1, 5}, {1, 6}, {1, 7}}));
    }

    // Three readings of s 0.3 and five of s 0.2: sqrt((2·0.09 + 4·0.04)/6); below eight degrees nothing is said.
    void poolsScatter() {
        std::vector<ScatterGroup> groups{{3, 0.18}, {5, 0.16}};
        QVERIFY(!pooledScatter(groups, 0.3));
        groups.push_back({4, 0.12});
        groups.push_back({1, 0});    // one reading has no scatter
        groups.push_back({3, 12.0}); // an uneven blade, not the tester
        const PooledScatter pooled = pooledScatter(groups, 0.3).value();
        QCOMPARE(pooled.dof, 9.0);
        QVERIFY(std::abs(pooled.sd - std::sqrt(0.46 / 9)) < 1e-12);
    }
};

QTEST_APPLESS_MAIN(tst_Control)
#include "tst_control.moc"
