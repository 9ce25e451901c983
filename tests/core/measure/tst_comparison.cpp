// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/comparison.h"

#include <cmath>
#include <limits>
#include <QtTest>

using namespace rollcall;

class tst_Comparison : public QObject {
    Q_OBJECT

private slots:
    // Differences 1.0, 1.4, 1.2, 0.8, 1.1: mean 1.1, s 0.2236; t(0.975, 4) = 2.776 from the printed table.
    void workedByHand() {
        const Comparison c = compareTesters({62.0, 61.4, 63.2, 60.8, 62.1}, {61.0, 60.0, 62.0, 60.0, 61.0}).value();
        QCOMPARE(c.n, 5);
        QVERIFY(std::abs(c.bias - 1.1) < 1e-9);
        QVERIFY(std::abs(c.low - (1.1 - 2.776 * 0.1)) < 1e-3); // s / sqrt(5) = 0.1
        QVERIFY(std::abs(c.high - 1.3776) < 1e-3);
        QVERIFY(std::abs(c.agreement_high - (1.1 + 2.776 * 0.2236 * std::sqrt(1.2))) < 1e-3);
        QVERIFY(!c.rough);
        QVERIFY(c.differ());
        QCOMPARE(c.differences.size(), std::size_t(5));
        QCOMPARE(c.means[0], 61.5);
    }

    void fewPairs() {
        QVERIFY(!compareTesters({62, 61}, {61, 60}));
        QVERIFY(!compareTesters({62, 61, 60}, {61, 60}));
        QVERIFY(!compareTesters({62, 61, std::numeric_limits<double>::quiet_NaN()}, {61, 60, 60}));
        const Comparison c = compareTesters({62, 61, 60}, {61.9, 61.2, 60}).value();
        QVERIFY(c.rough);
        QVERIFY(!c.differ());
    }
};

QTEST_APPLESS_MAIN(tst_Comparison)
#include "tst_comparison.moc"
