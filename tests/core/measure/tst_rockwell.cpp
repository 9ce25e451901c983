// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/rockwell.h"
#include "tests/support/fixtures.h"

#include <QtTest>

using namespace rollcall;
using fixtures::tables;

class tst_Rockwell : public QObject {
    Q_OBJECT

private slots:
    // M1: HR = N - h/S by hand.
    void numberFromDepth_data() {
        QTest::addColumn<QString>("scale");
        QTest::addColumn<double>("depth");
        QTest::addColumn<double>("value");
        QTest::newRow("HRC 60") << "HRC" << 0.0800 << 60.0;
        QTest::newRow("lowest HRC") << "HRC" << 0.1600 << 20.0;
        QTest::newRow("highest HRC") << "HRC" << 0.0600 << 70.0;
        QTest::newRow("HR15N") << "HR15N" << 0.0100 << 90.0;
        QTest::newRow("HRBW counts from 130") << "HRBW" << 0.1000 << 80.0;
    }
    void numberFromDepth() {
        QFETCH(QString, scale);
        QFETCH(double, depth);
        QFETCH(double, value);
        const auto number = rockwellNumber(tables().scale(scale.toStdString()).value(), depth);
        QVERIFY(number.ok());
        QVERIFY(std::abs(*number - value) < 1e-9);
    }

    void refusesOutsideTheScale() {
        const RockwellScale hrc = tables().scale("HRC").value();
        for (const double depth : {0.1602, 0.0598, -0.01, std::numeric_limits<double>::quiet_NaN(),
                                   std::numeric_limits<double>::infinity()}) {
            const auto number = rockwellNumber(hrc, depth);
            QVERIFY(!number.ok());
            QCOMPARE(number.error().kind, ErrorKind::range);
        }
    }

    void aScaleWithoutRangeGivesTheValue() {
        const RockwellScale scale = tables().scale("HRLW").value();
        QVERIFY(!hasRange(scale));
        QVERIFY(rockwellNumber(scale, 0.02).ok());
    }

    // M8: lines of the printed table and points half way between two of them.
    void converts_data() {
        QTest::addColumn<QString>("from");
        QTest::addColumn<double>("value");
        QTest::addColumn<QString>("to");
        QTest::addColumn<double>("result");
        QTest::newRow("a line") << "HRC" << 60.0 << "HV" << 697.0;
        QTest::newRow("half way") << "HRC" << 60.5 << "HV" << 708.5;
        QTest::newRow("back") << "HV" << 697.0 << "HRC" << 60.0;
        QTest::newRow("last line") << "HRC" << 68.0 << "HR15N" << 93.2;
        QTest::newRow("first line") << "HRC" << 20.0 << "HRA" << 60.5;
        QTest::newRow("short names") << "C" << 45.0 << "30N" << 64.0;
        QTest::newRow("between two other columns") << "HRA" << 81.2 << "HR45N" << 66.6;
    }
    void converts() {
        QFETCH(QString, from);
        QFETCH(double, value);
        QFETCH(QString, to);
        QFETCH(double, result);
        const auto converted = convertHardness(tables(), from.toStdString(), value, to.toStdString());
        QVERIFY(converted.ok());
        QVERIFY(std::abs(converted->value - result) < 1e-9);
    }

    void refusesOutsideTheTable() {
        QCOMPARE(convertHardness(tables(), "HRC", 68.1, "HV").error().kind, ErrorKind::range);
        QCOMPARE(convertHardness(tables(), "HRC", 19.9, "HV").error().kind, ErrorKind::range);
        QCOMPARE(convertHardness(tables(), "HRC", 66.0, "HBW").error().kind, ErrorKind::range); // the column ends at 65
        QCOMPARE(convertHardness(tables(), "HRC", std::nan(""), "HV").error().kind, ErrorKind::range);
        QCOMPARE(convertHardness(tables(), "HRX", 60, "HV").error().kind, ErrorKind::argument);
    }

    // M8 names the slopes at 60 HRC.
    void slopesAtSixty() {
        const std::pair<const char*, double> slopes[]{
            {"HR15N", 0.45}, {"HRA", 0.55}, {"HR30N", 0.90}, {"HR45N", 1.125}};
        for (const auto& [scale, slope] : slopes)
            QVERIFY2(std::abs(pointsPerHrc(tables(), scale, 60).value() - slope) < 1e-9, scale);
        QVERIFY(pointsPerHrc(tables(), "HRA", 68).ok()); // one-sided at the table's end
        QCOMPARE(conversionUncertainty(5.0), 0.5);
        QCOMPARE(conversionUncertainty(5.1), 0.8);
    }
};

QTEST_APPLESS_MAIN(tst_Rockwell)
#include "tst_rockwell.moc"
