// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/colour.h"
#include "tests/support/fixtures.h"

#include <cmath>
#include <QtTest>

using namespace rollcall;
using fixtures::tables;

class tst_Colour : public QObject {
    Q_OBJECT

private slots:
    // Straw at one hour: midpoints 195 and 206 of the table, 15 either way.
    void straw() {
        const ColourRange range = colourRange(tables(), "Straw", 1, OxideSurface::bare, 0, false).value();
        QCOMPARE(range.low_c, 180.0);
        QCOMPARE(range.high_c, 221.0);
        QVERIFY(range.confidence == Confidence::low);
    }
    void longerTempersNeedLess() {
        const ColourRange range = colourRange(tables(), "straw", 2, OxideSurface::bare, 0, false).value();
        QCOMPARE(range.low_c, 170.0);
        QCOMPARE(range.high_c, 211.0);
    }
    void chromiumHoldsTheOxideBack() {
        const ColourRange range = colourRange(tables(), "straw", 1, OxideSurface::bare, 12, false).value();
        QVERIFY(range.low_c == 260 && range.high_c == 341);
        QCOMPARE(colourRange(tables(), "straw", 1, OxideSurface::bare, 0.65, false).value().high_c, 227.5);
    }
    void stainlessHasItsOwnChart() {
        const ColourRange range = colourRange(tables(), "blue", 1, OxideSurface::bare, 14, true).value();
        QVERIFY(range.chart_of_minutes && range.low_c < 540 && range.high_c > 540);
        QVERIFY(!colourRange(tables(), "purple", 1, OxideSurface::bare, 14, true));
    }
    void coveredSurfacesSayNothing() {
        for (const OxideSurface surface : {OxideSurface::coated, OxideSurface::scaled, OxideSurface::foil})
            QVERIFY(!colourRange(tables(), "straw", 1, surface, 0, false));
        QVERIFY(!colourRange(tables(), "mauve", 1, OxideSurface::bare, 0, false));
        QVERIFY(!colourRange(tables(), "straw", 0, OxideSurface::bare, 0, false));
    }
    void offTheOven() {
        const ColourRange range{180, 221, Confidence::low, false};
        QCOMPARE(offColour(range, 200), 0.0);
        QCOMPARE(offColour(range, 265), 44.0);
        QCOMPARE(offColour(range, 150), -30.0);
    }
};

QTEST_APPLESS_MAIN(tst_Colour)
#include "tst_colour.moc"
