// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/heat_study.h"

#include <cmath>
#include <QtTest>

using namespace rollcall;

class tst_HeatStudy : public QObject {
    Q_OBJECT

private slots:
    // Two coupons, both ten minutes at their set point; one was put in hot, the other climbed from 780 for twenty.
    void aClimbIsNotEqual() {
        const Trace hot = Trace::of({{0, 830}, {600, 830}}).value();
        const Trace climb = Trace::of({{0, 780}, {1200, 830}, {1560, 830}}).value();
        const StudyHeat a{"hot", &hot, 830, 10, 0, 600, 0};
        const StudyHeat b{"climb", &climb, 830, 10, 0, 1560, 0};
        const HeatStudy study = compareHeats({a, b}).value();
        QVERIFY(std::abs(study.heats[0].soak_minutes - 10) < 1e-9);
        QVERIFY(std::abs(study.heats[1].soak_minutes - 10) < 1e-9); // 820 is reached after 16 minutes
        QCOMPARE(study.differences.size(), std::size_t(1));
        QCOMPARE(study.differences[0].what, StudyDifference::What::ramp);
        QVERIFY(study.heats[1].equivalent_minutes > study.heats[0].equivalent_minutes);
    }
    void equalHeatsHaveNothingToSay() {
        const Trace steady = Trace::of({{0, 800}, {900, 800}}).value();
        const Trace hotter = Trace::of({{0, 830}, {900, 830}}).value();
        const HeatStudy study =
            compareHeats({{"a", &steady, 800, 10, 0, 900, 0}, {"b", &hotter, 830, 10, 0, 900, 0}}).value();
        QVERIFY(study.differences.empty());
        QCOMPARE(study.reference_c, 800.0);
        QVERIFY(!compareHeats({{"a", &steady, 800, 10, 0, 900, 0}}));
    }
};

QTEST_APPLESS_MAIN(tst_HeatStudy)
#include "tst_heat_study.moc"
