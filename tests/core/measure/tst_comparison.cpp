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

    // The same on both displays is not the same to nothing: two roundings to 0.1 hide 0.1/sqrt(6) of a difference.
    void equalReadingsStillHaveAWidth() {
        const Comparison c = compareTesters({62, 61, 60, 61}, {62, 61, 60, 61}).value();
        QVERIFY(std::abs((c.high - c.low) / 2 - 3.182 * 0.1 / std::sqrt(6.0) / 2) < 1e-4); // t(0.975, 3) = 3.182
    }
    // E7, worked by hand: 60, 61 and 62 with u 0.5 each. Q = 8, its freedom 2, sum of weights 12, of squares 48:
    // variance between (8 - 2)/(12 - 4) = 0.75; mean 61, u = sqrt(1/3) = 0.577.
    void threeWhoReadOnePiece() {
        const Consensus c = consensusOf({60, 61, 62}, {0.5, 0.5, 0.5}).value();
        QVERIFY(std::abs(c.mean - 61) < 1e-9);
        QVERIFY(std::abs(c.between - std::sqrt(0.75)) < 1e-9);
        QVERIFY(std::abs(c.u - std::sqrt(1.0 / 3)) < 1e-9);
        QVERIFY(c.apart[1] < 1e-9);
        // Of two: |E_n| = 2/(2·sqrt(0.25 + 0.25)) = 1.414.
        QVERIFY(std::abs(consensusOf({60, 62}, {0.5, 0.5})->apart[0] - std::sqrt(2.0)) < 1e-9);
        QVERIFY(!consensusOf({60}, {0.5}) && !consensusOf({60, 61}, {0.5, 0}));
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
