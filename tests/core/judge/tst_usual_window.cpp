// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/usual_window.h"
#include "tests/support/fixtures.h"

#include <QtTest>

using namespace rollcall;
using fixtures::tables;

// E38. What is usual for a purpose, bounded by what its grade can give.
class tst_UsualWindow : public QObject {
    Q_OBJECT

private slots:
    void bothSchoolsAreProposed() {
        const auto usual = usualWindows(tables(), "kitchen, petty", tables().grade("W2"));
        QCOMPARE(usual.size(), std::size_t(2));
        for (const UsualWindow& one : usual) {
            QCOMPARE(*one.window.low, one.profile->window_low);
            QCOMPARE(*one.window.high, one.profile->window_high);
            QVERIFY(!one.by_grade && !one.profile->why.empty());
        }
    }
    // X20Cr13 gives 47.5 as quenched: nothing usual for a kitchen knife is left of it.
    void aGradeBoundsThem() {
        QVERIFY(usualWindows(tables(), "Kitchen", tables().grade("X20Cr13")).empty());
        // 440A gives about 56: the harder school is out of its reach, the softer one is narrowed.
        for (const UsualWindow& one : usualWindows(tables(), "Kitchen", tables().grade("440A")))
            QVERIFY(*one.window.high <= tables().grade("440A")->as_quenched_typical - 1.5);
    }
    void nothingIsProposedForAnUnknownPurpose() {
        QVERIFY(usualWindows(tables(), "grafting", nullptr).empty());
        QVERIFY(usualWindows(tables(), "", nullptr).empty());
    }
};

QTEST_APPLESS_MAIN(tst_UsualWindow)
#include "tst_usual_window.moc"
