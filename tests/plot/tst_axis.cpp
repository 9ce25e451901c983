// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "plot/axis.h"

#include <cmath>
#include <limits>
#include <QtTest>

using namespace rollcall;

class tst_Axis : public QObject {
    Q_OBJECT

private slots:
    // A mouse reads back what was drawn; upwards on a screen the pixels count down.
    void thereAndBack() {
        for (const PlotAxis& axis : {PlotAxis{55, 65, 100, 600}, PlotAxis{150, 300, 480, 20}}) {
            for (double v = axis.low; v <= axis.high; v += 0.7) QVERIFY(std::abs(axis.value(axis.at(v)) - v) < 1e-9);
            QCOMPARE(axis.at(axis.low), axis.from);
            QCOMPARE(axis.at(axis.high), axis.to);
        }
    }
    void beyondTheEnds() {
        const PlotAxis axis{0, 10, 0, 100};
        QCOMPARE(axis.at(12), 120.0);
        QCOMPARE(axis.within(12), 100.0);
        QCOMPARE(axis.within(-3), 0.0);
        QCOMPARE(axis.value(140), 10.0);
        QCOMPARE(axis.value(-20), 0.0);
    }
    void roundSteps_data() {
        QTest::addColumn<double>("span");
        QTest::addColumn<double>("pixels");
        QTest::addColumn<double>("apart");
        QTest::addColumn<double>("step");
        QTest::newRow("150 °C on 300 pixels, labels 40 wide") << 150.0 << 300.0 << 40.0 << 20.0;
        QTest::newRow("8 HRC on 400") << 8.0 << 400.0 << 40.0 << 1.0;
        QTest::newRow("0.3 % on 200") << 0.3 << 200.0 << 40.0 << 0.1;
        QTest::newRow("exactly one step apart") << 100.0 << 100.0 << 20.0 << 20.0;
        QTest::newRow("downwards") << 150.0 << -300.0 << 40.0 << 20.0;
    }
    void roundSteps() {
        QFETCH(double, span);
        QFETCH(double, pixels);
        QFETCH(double, apart);
        QFETCH(double, step);
        const PlotAxis axis{0, span, 0, pixels};
        QVERIFY2(std::abs(axis.roundStep(apart) - step) < 1e-12, qPrintable(QString::number(axis.roundStep(apart))));
        const auto ticks = axis.ticks(axis.roundStep(apart));
        for (std::size_t i = 1; i < ticks.size(); ++i)
            QVERIFY(std::abs(axis.at(ticks[i]) - axis.at(ticks[i - 1])) >= apart - 1e-6);
    }
    void ticksStandOnWholeSteps() {
        QCOMPARE(PlotAxis({58.3, 62.0, 0, 100}).ticks(1), (std::vector<double>{59, 60, 61, 62}));
        QCOMPARE(PlotAxis({-0.5, 0.5, 0, 100}).ticks(0.5), (std::vector<double>{-0.5, 0, 0.5}));
        QCOMPARE(PlotAxis({1.2, 1.8, 0, 100}).ticks(1), std::vector<double>());
    }
    // A clock counts in minutes and hours, not in tens.
    void clockSteps() {
        QCOMPARE(PlotAxis({0, 600, 0, 600}).clockStep(76), 120.0);
        QCOMPARE(PlotAxis({0, 36000, 0, 600}).clockStep(76), 7200.0);
        QCOMPARE(PlotAxis({0, 30, 0, 600}).clockStep(76), 10.0);
        QCOMPARE(PlotAxis({0, 1e6, 0, 600}).clockStep(76), 43200.0);
    }
    // Whatever a chart is given, it ends.
    void whatCannotBeDrawn() {
        QCOMPARE(PlotAxis({60, 60, 0, 100}).at(61), 0.0);
        QVERIFY(PlotAxis({60, 60, 0, 100}).roundStep(40) > 0);
        QVERIFY(PlotAxis({0, 63e6, 0, 100}).ticks(0.1).size() <= 1001);
        QVERIFY(PlotAxis({0, 10, 0, 100}).ticks(0).empty());
        QVERIFY(PlotAxis({0, std::numeric_limits<double>::quiet_NaN(), 0, 100}).ticks(1).empty());
        QCOMPARE(PlotAxis({0, 10, 50, 50}).value(50), 0.0);
    }
};

QTEST_GUILESS_MAIN(tst_Axis)
#include "tst_axis.moc"
