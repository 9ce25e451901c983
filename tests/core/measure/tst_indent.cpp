// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/indent.h"
#include "tests/support/fixtures.h"

#include <QtTest>

using namespace rollcall;
using fixtures::tables;

class tst_Indent : public QObject {
    Q_OBJECT

private slots:
    // M2 names these diameters.
    void diameters_data() {
        QTest::addColumn<double>("hrc");
        QTest::addColumn<double>("mm");
        QTest::newRow("45") << 45.0 << 0.630;
        QTest::newRow("55") << 55.0 << 0.546;
        QTest::newRow("60") << 60.0 << 0.504;
        QTest::newRow("65") << 65.0 << 0.461;
    }
    void diameters() {
        QFETCH(double, hrc);
        QFETCH(double, mm);
        QVERIFY(std::abs(indentDiameter(tables(), "HRC", hrc).value() - mm) < 0.0006);
    }

    void overSixtyEightTheDiameterStays() {
        QCOMPARE(indentDiameter(tables(), "HRC", 69.5).value(), indentDiameter(tables(), "HRC", 68).value());
    }

    // A lighter scale leaves a smaller mark; at equal pressure the area goes with the force.
    void lighterScales_() {
        const double heavy = indentDiameter(tables(), "HRC", 60).value();
        const double light = indentDiameter(tables(), "HR15N", 90.2).value();
        QVERIFY(std::abs(light / heavy - std::sqrt(15.0 / 150.0)) < 1e-3);
    }

    // Geometry of a ball of 1.588 mm pressed in by (130 - 80) * 0.002 = 0.1 mm.
    void ballScale() {
        QVERIFY(std::abs(indentDiameter(tables(), "HRBW", 80).value() - 2 * std::sqrt(1.588 * 0.1 - 0.01)) < 1e-9);
    }

    void refusesOutside() {
        QVERIFY(!indentDiameter(tables(), "HRC", 71).ok());
        QVERIFY(!indentDiameter(tables(), "HRC", 19).ok());
        QVERIFY(!indentDiameter(tables(), "HR15N", 69.3).ok()); // in the scale, below the conversion table
    }

    // M4, read in steps; inches of the printed table.
    void thicknessInSteps_data() {
        QTest::addColumn<QString>("scale");
        QTest::addColumn<double>("value");
        QTest::addColumn<double>("inches");
        QTest::newRow("60 takes the 57 row") << "HRC" << 60.0 << 0.030;
        QTest::newRow("exactly 57") << "HRC" << 57.0 << 0.030;
        QTest::newRow("just under 57") << "HRC" << 56.9 << 0.032;
        QTest::newRow("65") << "HRC" << 65.0 << 0.026;
        QTest::newRow("over the hardest row") << "HRC" << 70.0 << 0.022;
        QTest::newRow("HR30N") << "HR30N" << 77.5 << 0.016;
    }
    void thicknessInSteps() {
        QFETCH(QString, scale);
        QFETCH(double, value);
        QFETCH(double, inches);
        QVERIFY(std::abs(minThickness(tables(), scale.toStdString(), value)->min_thickness_mm - inches * 25.4) < 1e-9);
    }

    void thicknessLimits() {
        const ThicknessAnswer answer = minThickness(tables(), "HRC", 60).value();
        QVERIFY(thickEnough(answer, 0.762));
        QVERIFY(thickEnough(answer, 0.757)); // what rounding to inches may cost
        QVERIFY(!thickEnough(answer, 0.756));
        QVERIFY(std::abs(answer.ten_depths_mm - 0.80) < 1e-9);
        QVERIFY(!minThickness(tables(), "HRBW", 80).ok());
        QVERIFY(!minThickness(tables(), "HRA", 59).ok());
    }

    void proposesLighterScalesInOrder() {
        QCOMPARE(::rollcall::lighterScales(tables(), "HRC", 60, 0.7),
                 (std::vector<std::string>{"HR45N", "HR30N", "HRA", "HR15N"}));
        QCOMPARE(::rollcall::lighterScales(tables(), "HRC", 60, 0.45), (std::vector<std::string>{"HR30N", "HR15N"}));
        QVERIFY(::rollcall::lighterScales(tables(), "HRC", 60, 0.1).empty());
    }
};

QTEST_APPLESS_MAIN(tst_Indent)
#include "tst_indent.moc"
