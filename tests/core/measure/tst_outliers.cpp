// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/outliers.h"

#include <QtTest>

using namespace rollcall;

class tst_Outliers : public QObject {
    Q_OBJECT

    static Agreement bench(const std::vector<double>& readings) { return agreementOf(readings, 0.3, 8, 0.1); }

private slots:
    // 3.64 * 0.3 = 1.092
    void twoReadingsDisagree() {
        QVERIFY(!bench({62.0, 63.0}).disagree);
        QVERIFY(bench({62.0, 63.1}).disagree);
        QVERIFY(!bench({62.0}).disagree);
    }

    void aSingleFarReadingIsFlaggedNotDropped() {
        const Agreement a = bench({62.1, 61.8, 61.9, 65.0});
        QCOMPARE(a.flagged, (std::vector<std::size_t>{3}));
        QVERIFY(std::abs(*a.mean_without_flagged - 61.9333) < 1e-4);
        QVERIFY(!a.uneven);
        QVERIFY(a.grubbs);
    }

    // 3.5 * 0.3 = 1.05 from the median
    void theLimitIsInclusive() {
        QVERIFY(bench({62.0, 62.0, 63.0}).flagged.empty());
        QCOMPARE(bench({62.0, 62.0, 63.1}).flagged.size(), std::size_t(1));
    }

    void fromSixReadingsOnScatterCountsToo() {
        const std::vector<double> wide{60.0, 60.6, 61.2, 61.8, 62.4, 63.0};
        QVERIFY(bench(wide).flagged.empty()); // far by sigma-0, but not by their own scatter
        QVERIFY(bench(wide).uneven);
    }

    void unevenBladesAreNotAveraged() {
        QVERIFY(bench({60.4, 62.2, 63.6}).uneven);
        QVERIFY(bench({60.4, 62.2, 63.6}).flagged.empty());
        QVERIFY(!bench({62.0, 62.3, 61.9}).uneven);
    }

    void twoGroupsAreNamedByTheirGap() {
        const Agreement a = bench({60.0, 60.1, 63.0, 63.2});
        QVERIFY(a.uneven);
        QVERIFY(std::abs(*a.cluster_gap - 2.9) < 1e-9);
        QVERIFY(a.flagged.empty());
        QVERIFY(!bench({60.0, 60.1, 60.2, 63.2}).cluster_gap.has_value()); // one alone is no group
    }
};

QTEST_APPLESS_MAIN(tst_Outliers)
#include "tst_outliers.moc"
