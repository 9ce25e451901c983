// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/gates.h"
#include "core/judge/second_opinion.h"
#include "tests/support/fixtures.h"

#include <QtTest>

using namespace rollcall;
using fixtures::at;

class tst_SecondOpinion : public QObject {
    Q_OBJECT

    // Blades A to D read at Temper by two testers; the second reads 1.0, 1.2, 0.8, 1.0 less.
    static Batch readTwice() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A", "B", "C", "D"});
        Tester second;
        second.id = "t2";
        second.name = "Bench 2";
        batch.testers.push_back(second);
        const double less[] = {1.0, 1.2, 0.8, 1.0};
        for (std::size_t i = 0; i < 4; ++i) {
            fixtures::read(batch.blades[i], Gate::temper, {62.0, 62.2});
            fixtures::read(batch.blades[i], Gate::temper, {62.1 - less[i]});
            batch.blades[i].readings.back().tester = "t2";
        }
        return batch;
    }

private slots:
    void pairsBladeByBlade() {
        const SecondOpinion opinion = secondOpinion(readTwice(), Gate::temper, "t1", "t2").value();
        QCOMPARE(opinion.blades.size(), std::size_t(4));
        QVERIFY(std::abs(opinion.comparison.bias - 1.0) < 1e-9);
        QVERIFY(opinion.comparison.differ());
        QCOMPARE(opinion.readings_a.size(), std::size_t(8));
        QCOMPARE(opinion.readings_b.size(), std::size_t(4));
    }

    // What does not count does not compare: struck out, another round, before the last temper, another scale.
    void onlyWhatCountsIsCompared() {
        Batch batch = readTwice();
        batch.blades[0].readings[2].struck = Strike{StrikeReason::seating, "", "HB", at(11)};
        QCOMPARE(secondOpinion(batch, Gate::temper, "t1", "t2")->blades.size(), std::size_t(3));
        batch.blades[1].readings[2].scale = "HR45N";
        QVERIFY(!secondOpinion(batch, Gate::temper, "t1", "t2")); // two pairs are too few
        batch = readTwice();
        for (Blade& blade : batch.blades) blade.tempers.push_back({"c2", 1, 2, 210, 2, "", at(12)});
        QVERIFY(!secondOpinion(batch, Gate::temper, "t1", "t2"));
        QVERIFY(!secondOpinion(readTwice(), Gate::quench, "t1", "t2"));
    }

    void namesTheTestersThatCanBeCompared() {
        Batch batch = readTwice();
        QCOMPARE(testersRead(batch, Gate::temper).size(), std::size_t(2));
        for (std::size_t i = 0; i < 2; ++i)
            batch.blades[i].readings[2].struck = Strike{StrikeReason::other, "", "HB", at(11)};
        const auto left = testersRead(batch, Gate::temper);
        QCOMPARE(left.size(), std::size_t(1));
        QCOMPARE(left[0]->id, std::string("t1"));
        QVERIFY(testersRead(batch, Gate::quench).empty());
    }

    // Two testers stand beside each other; once one set is superseded the other stands alone and says so.
    void theSupersededSetStaysVisible() {
        Batch batch = readTwice();
        const auto judged = [&] { return *judgeBatch(batch, fixtures::tables(), std::nullopt).at(0, Gate::temper); };
        QVERIFY(judged().has(Fact::testersAgree) || judged().has(Fact::mixedTesters));
        QVERIFY(judged().has(Fact::notLookedAt));
        batch.blades[0].readings[2].struck = Strike{StrikeReason::superseded, "Bench 1 stands", "HB", at(11)};
        batch.plan[indexOf(Gate::temper)].planned_readings = 2;
        const Verdict v = judged();
        QCOMPARE(v.state, State::pass);
        QVERIFY(!v.has(Fact::mixedTesters) && !v.has(Fact::testersAgree));
        const auto told = std::find_if(v.reasons.begin(), v.reasons.end(),
                                       [](const Reason& r) { return r.fact == Fact::secondOpinion; });
        QVERIFY(told != v.reasons.end());
        QVERIFY(std::abs(told->numbers[0] - 61.1) < 1e-9);
        QCOMPARE(told->texts[0], std::string("Bench 1 stands"));
    }
};

QTEST_APPLESS_MAIN(tst_SecondOpinion)
#include "tst_second_opinion.moc"
