// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/gates.h"
#include "core/measure/convex.h"
#include "tests/support/fixtures.h"

#include <QtTest>

using namespace rollcall;
using fixtures::tables;

class tst_Convex : public QObject {
    Q_OBJECT

private slots:
    void corrections_data() {
        QTest::addColumn<QString>("scale");
        QTest::addColumn<double>("reading");
        QTest::addColumn<double>("radius");
        QTest::addColumn<double>("correction"); // -1: refused
        QTest::newRow("a line of the table") << "HRC" << 20.0 << 8.0 << 2.5;
        QTest::newRow("half way in radius, 2.5 and 2.0") << "HRC" << 20.0 << 8.75 << 2.25;
        QTest::newRow("another scale of the same table") << "HRA" << 20.0 << 8.0 << 2.5;
        QTest::newRow("superficial") << "HR15N" << 20.0 << 3.2 << 3.0;
        QTest::newRow("as good as flat") << "HRC" << 60.0 << 19.5 << 0.0;
        QTest::newRow("over 3") << "HRC" << 20.0 << 5.0 << -1.0;
        QTest::newRow("radius below 3 mm") << "HRC" << 60.0 << 2.9 << -1.0;
        QTest::newRow("superficial, beyond its table") << "HR15N" << 60.0 << 15.0 << -1.0;
        QTest::newRow("reading outside") << "HRC" << 10.0 << 8.0 << -1.0;
        QTest::newRow("no table for this scale") << "HRBW" << 60.0 << 8.0 << -1.0;
    }
    void corrections() {
        QFETCH(QString, scale);
        QFETCH(double, reading);
        QFETCH(double, radius);
        QFETCH(double, correction);
        const auto found = convexCorrection(tables(), scale.toStdString(), reading, radius);
        QCOMPARE(found.ok(), correction >= 0);
        if (found) QVERIFY(std::abs(*found - correction) < 1e-9);
    }

    // HRC 60 at 6.5 mm: the table adds 1.0 to each of the readings; what is over 3 is refused, not corrected.
    void aConvexBladeIsCorrected() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A"});
        fixtures::read(batch.blades[0], Gate::temper, {60.0, 60.0, 60.0});
        const double flat = judgeBatch(batch, tables(), std::nullopt).at(0, Gate::temper)->measurement->mean;
        const double added = convexCorrection(tables(), "HRC", 60, 6.5).value();
        QVERIFY(added > 0.4 && added < 2.1);
        for (Reading& r : batch.blades[0].readings) r.convex_radius_mm = 6.5;
        const Verdict v = *judgeBatch(batch, tables(), std::nullopt).at(0, Gate::temper);
        QVERIFY(std::abs(v.measurement->mean - flat - added) < 1e-9);
        QVERIFY(v.has(Fact::convexCorrected));
        const auto& parts = v.measurement->budget.parts;
        QVERIFY(std::any_of(parts.begin(), parts.end(), [](const BudgetPart& p) {
            return p.source == BudgetPart::Source::convex && p.standard_uncertainty == 0.25;
        }));
        for (Reading& r : batch.blades[0].readings) r.convex_radius_mm = 2.0;
        const Verdict refused = *judgeBatch(batch, tables(), std::nullopt).at(0, Gate::temper);
        QCOMPARE(refused.left_out.size(), std::size_t(3));
        QVERIFY(refused.has(Fact::convexRefused));
    }
};

QTEST_APPLESS_MAIN(tst_Convex)
#include "tst_convex.moc"
