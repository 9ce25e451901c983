// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/block_face.h"

#include <limits>
#include <QtTest>

using namespace rollcall;

class tst_BlockFace : public QObject {
    Q_OBJECT

private slots:
    void capacity() {
        QCOMPARE(blockCapacity({60, 3, 0.5}).value(), 333); // the worked example of M13
        // A quarter of the spacing, sixteen times the places but for rounding.
        QVERIFY(std::abs(blockCapacity({60, 1.5, 0.5}).value() - 4 * 333) < 4);
    }

    void placesKeepTheirDistances() {
        const std::vector<Spot> places = blockPlaces({60, 3, 0.5}).value();
        QCOMPARE(places.size(), std::size_t(337)); // counted by another program, the best of three patterns
        for (std::size_t i = 0; i < places.size(); ++i) {
            QVERIFY(distance(places[i], {0, 0}) <= 30 - 1.25 + 1e-9);
            for (std::size_t j = 0; j < i; ++j) QVERIFY(distance(places[i], places[j]) >= 3 - 1e-9);
        }
    }

    void refusesWhatCannotBe_data() {
        QTest::addColumn<double>("diameter");
        QTest::addColumn<double>("spacing");
        QTest::addColumn<double>("indent");
        QTest::newRow("spacing under three diameters") << 60.0 << 1.4 << 0.5;
        QTest::newRow("no room") << 2.0 << 3.0 << 0.5;
        QTest::newRow("no diameter") << 0.0 << 3.0 << 0.5;
        QTest::newRow("not a number") << std::numeric_limits<double>::quiet_NaN() << 3.0 << 0.5;
    }
    void refusesWhatCannotBe() {
        QFETCH(double, diameter);
        QFETCH(double, spacing);
        QFETCH(double, indent);
        QVERIFY(!blockCapacity({diameter, spacing, indent}));
        QVERIFY(!blockPlaces({diameter, spacing, indent}));
    }
};

QTEST_APPLESS_MAIN(tst_BlockFace)
#include "tst_block_face.moc"
