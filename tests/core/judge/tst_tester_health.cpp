// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/gates.h"
#include "core/judge/tester_health.h"
#include "tests/support/fixtures.h"

#include <QtTest>

using namespace rollcall;
using fixtures::at;
using fixtures::goodRun;
using fixtures::tables;

class tst_TesterHealth : public QObject {
    Q_OBJECT

    static Tester tester() {
        Tester t;
        t.id = "t1";
        return t;
    }
    static Verification weeksAgo(int weeks, double error) {
        Verification run = goodRun({62.6 + error, 62.6 + error});
        run.time = Instant{at(8).utc_ms - weeks * std::int64_t{7} * 86400000, 0};
        return run;
    }

private slots:
    void saysWhetherItMayBeUsed() {
        std::vector<Verification> runs{goodRun()};
        QCOMPARE(testerHealth(tester(), runs, tables(), at(10)).state, State::pass);
        QCOMPARE(testerHealth(tester(), runs, tables(), at(10, 0, 25)).state, State::notYet); // the day has ended
        Tester changed = tester();
        changed.indenter = "another cone";
        QCOMPARE(testerHealth(changed, runs, tables(), at(10)).state, State::notYet);
        QVERIFY(testerHealth(changed, runs, tables(), at(10)).other_setting);
        runs.push_back(goodRun({63.3, 63.4}, at(9)));
        runs.push_back(goodRun({63.3, 63.4}, at(9, 30)));
        const TesterHealth bad = testerHealth(tester(), runs, tables(), at(10));
        QCOMPARE(bad.state, State::fail);
        QCOMPARE(bad.failed_in_row, 2);
        Tester files = tester();
        files.kind = TesterKind::files;
        QCOMPARE(testerHealth(files, runs, tables(), at(10)).state, State::excused);
        QCOMPARE(testerHealth(tester(), {}, tables(), at(10)).state, State::notYet);
    }

    // 0.02 HRC a week from -0.2, twenty weeks long: 0.2 today, 15 weeks before it meets +0.5.
    void reportsADriftBeforeItLeavesTolerance() {
        std::vector<Verification> runs;
        for (int weeks = 20; weeks >= 0; --weeks) runs.push_back(weeksAgo(weeks, 0.2 - 0.02 * weeks));
        const TesterHealth health = testerHealth(tester(), runs, tables(), at(10));
        QCOMPARE(health.state, State::pass);
        QVERIFY(health.drift->likely);
        QVERIFY(std::abs(health.drift->per_week - 0.02) < 1e-9);
        QVERIFY(std::abs(health.weeks_left.value() - 15) < 1e-6);
        QCOMPARE(health.errors.size(), std::size_t(21));
        QVERIFY(health.limits.has_value());
        for (Verification& run : runs) run.readings = {62.7, 62.7}; // steady: no drift
        QVERIFY(!testerHealth(tester(), runs, tables(), at(10)).drift->likely);
    }

    void saysHowLongABlockLasts() {
        std::vector<Verification> runs;
        for (int week = 0; week < 13; ++week) runs.push_back(weeksAgo(week, 0)); // two indents a week
        const BlockLife life = blockLife({60, 3, 0.5}, 300, runs, at(10)).value();
        QCOMPARE(life.free, 37);
        QVERIFY(std::abs(life.per_month - 26 * 30.4 / 91) < 1e-9);
        QVERIFY(std::abs(life.months_left.value() - 37 / life.per_month) < 1e-9);
        QVERIFY(!life.nearly_full); // 300 of 337 is 89 %
        QVERIFY(blockLife({60, 3, 0.5}, 304, runs, at(10))->nearly_full);
        QVERIFY(!blockLife({60, 3, 0.5}, 10, {}, at(10))->months_left);
        QCOMPARE(blockLife({60, 3, 0.5}, 900, {}, at(10))->free, 0);
    }

    void advisesBlocks() {
        using Kind = BlockAdvice::Kind;
        QCOMPARE(adviseBlocks({}, 62).kind, Kind::none);
        QCOMPARE(adviseBlocks({55.2, 62.6}, 62).kind, Kind::near);
        QCOMPARE(adviseBlocks({55.2, 62.6}, 62).blocks, std::vector<std::size_t>{1});
        QCOMPARE(adviseBlocks({45, 62.6}, 54).kind, Kind::bracket);
        QCOMPARE(adviseBlocks({45}, 62).kind, Kind::far);
    }

    // The same readings with the tester's error 0.2 taken as -0.4: everything moves up by 0.6.
    void whatIfTheErrorWereAnother() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A"});
        fixtures::read(batch.blades[0], Gate::temper, {62.1, 62.2, 62.3});
        const Batch other = withError(batch, "t1", at(8).localDay(), -0.4);
        const auto mean = [](const Batch& b) {
            return judgeBatch(b, tables(), std::nullopt).at(0, Gate::temper)->measurement->corrected_mean;
        };
        QVERIFY(std::abs(mean(other) - mean(batch) - 0.6) < 1e-9);
        const Batch yesterday = withError(batch, "t1", at(8).localDay() - 1, -0.4);
        QVERIFY(std::abs(mean(yesterday) - mean(batch)) < 1e-9);
    }
};

QTEST_APPLESS_MAIN(tst_TesterHealth)
#include "tst_tester_health.moc"
