// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/warp.h"

#include <QtTest>

using namespace rollcall;

class tst_Warp : public QObject {
    Q_OBJECT

private slots:
    void biggestFirstBowAgainstBow() {
        const auto plan = stackPlan(parseWarps("A=1.2L,B=0.8R,C=2.0L").value()).value();
        QCOMPARE(plan.size(), std::size_t(3));
        // C lies as it is, A is turned against it, B lies as C does: its high side must change to left.
        QCOMPARE(plan[0].blade, std::string("C"));
        QVERIFY(!plan[0].turn_over);
        QCOMPARE(plan[1].blade, std::string("A"));
        QVERIFY(plan[1].turn_over);
        QCOMPARE(plan[2].blade, std::string("B"));
        QVERIFY(plan[2].turn_over);
        QCOMPARE(plan[0].shim_mm, 0.0);
        QCOMPARE(plan[1].shim_mm, 1.2); // between the backs of A and B
    }
    // However they lie: neighbours of a pair end with their high sides towards each other.
    void pairsAlwaysFaceEachOther() {
        const auto warps = parseWarps("a=1L,b=1R,c=0.5R,d=0.4R,e=0.1L").value();
        const auto plan = stackPlan(warps).value();
        for (std::size_t i = 0; i + 1 < plan.size(); i += 2) {
            const auto high = [&](const StackPlace& place) {
                for (const Warp& warp : warps) {
                    if (warp.blade == place.blade) return (warp.high == WarpSide::right) != place.turn_over;
                }
                return false;
            };
            QVERIFY(high(plan[i]) != high(plan[i + 1]));
        }
        QCOMPARE(plan.back().blade, std::string("e")); // the flattest is outside
        QCOMPARE(plan[0].blade, std::string("a"));     // ties as given
    }
    void whatCannotBe() {
        QVERIFY(!parseWarps(""));
        QVERIFY(!parseWarps("A=1.2"));
        QVERIFY(!parseWarps("A=bentL"));
        QVERIFY(!parseWarps("=1L"));
        QVERIFY(parseWarps("A=0").ok());
        QCOMPARE(parseWarps("A=0.01inR").value()[0].mm, 0.254);
        QVERIFY(!stackPlan({{"A", -1, WarpSide::left}}));
        QVERIFY(!stackPlan({{"A", 1, WarpSide::left}, {"A", 2, WarpSide::left}}));
    }
};

QTEST_APPLESS_MAIN(tst_Warp)
#include "tst_warp.moc"
