// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/agenda.h"
#include "core/judge/heat_book.h"
#include "tests/support/fixtures.h"

#include <QtTest>

using namespace rollcall;
using fixtures::tables;

class tst_HeatBook : public QObject {
    Q_OBJECT

    // Three blades of 2.4 mm put into a steady oven of 810 °C; steel is within 10 °C after about two and a half
    // minutes.
    static Batch heated(std::vector<double> outMinutes) {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A", "B", "C"});
        batch.plan[indexOf(Gate::heat)] = {true, 1};
        HeatRun run;
        run.id = "r";
        run.set_c = 810;
        run.min_minutes = 5;
        run.max_minutes = 12;
        run.medium_c = 55;
        run.edge_mm = 0.75;
        run.oven_checked = fixtures::at(7);
        run.zero = fixtures::at(9);
        run.trace = std::make_shared<const Trace>(Trace::of({{0, 810}, {3600, 810}}).value());
        batch.heat_runs.push_back(run);
        for (std::size_t i = 0; i < outMinutes.size(); ++i) {
            BladeHeat heat;
            heat.run = "r";
            heat.in_s = 0;
            heat.out_s = outMinutes[i] * 60;
            heat.quenched_s = *heat.out_s + 1;
            heat.quenchant_c = 56;
            batch.blades[i].heats.push_back(heat);
        }
        return batch;
    }
    static Verdict temperOf(const Batch& batch, std::size_t blade) {
        return *judgeBatch(batch, tables(), std::nullopt).at(blade, Gate::heat);
    }

private slots:
    void eachBladeHasItsOwnSoak() {
        const Batch batch = heated({10, 5, 20});
        QCOMPARE(temperOf(batch, 0).state, State::pass);
        const Verdict under = temperOf(batch, 1);
        QVERIFY(under.state == State::borderline && under.has(Fact::soakUnder));
        const Verdict over = temperOf(batch, 2);
        QVERIFY(over.state == State::borderline && over.has(Fact::soakOver));
        QCOMPARE(over.next.act, Act::breakCoupon);
        QVERIFY(temperOf(batch, 0).has(Fact::transferGood) && temperOf(batch, 0).has(Fact::quenchantGood));
    }
    void aSlowTransferIsNamed() {
        Batch batch = heated({10, 10, 10});
        // By a finer grid of another program: a 0.75 mm edge before 2.4 mm falls from 810 to 672 °C in 8 s; fast oil
        // takes it down to 40 below Ac1, which is 735.
        batch.blades[1].heats[0].quenched_s = *batch.blades[1].heats[0].out_s + 8;
        QVERIFY(temperOf(batch, 1).has(Fact::transferLate));
        QVERIFY(!temperOf(batch, 0).has(Fact::transferLate));
        batch.blades[2].heats[0].quenched_s.reset();
        QVERIFY(temperOf(batch, 2).has(Fact::transferNotNoted));
        QCOMPARE(temperOf(batch, 2).state, State::pass); // not looked at is not a finding
    }
    void quenchantAndNoteAreCompared() {
        Batch batch = heated({10, 10, 10});
        batch.blades[0].heats[0].quenchant_c = 75;
        QVERIFY(temperOf(batch, 0).has(Fact::quenchantOff));
        batch.blades[1].heats[0].noted_c = 830;
        QVERIFY(temperOf(batch, 1).has(Fact::noteAgainstTrace));
        batch.blades[2].heats[0].noted_minutes = 15;
        QVERIFY(temperOf(batch, 2).has(Fact::noteAgainstTrace));
    }
    void withoutATraceTheClockCounts() {
        Batch batch = heated({10, 14, 10});
        batch.heat_runs[0].trace.reset();
        QVERIFY(temperOf(batch, 0).has(Fact::soakByClock));
        QVERIFY(temperOf(batch, 1).has(Fact::soakOver));
        batch.blades[2].heats.clear();
        QVERIFY(temperOf(batch, 2).has(Fact::noHeatLogged));
        QCOMPARE(temperOf(batch, 2).state, State::notYet);
    }
    void anOvershootingOvenIsNamed() {
        Batch batch = heated({10, 10, 10});
        batch.heat_runs[0].trace =
            std::make_shared<const Trace>(Trace::of({{0, 810}, {300, 825}, {3600, 810}}).value());
        QVERIFY(temperOf(batch, 0).has(Fact::ovenOvershot));
        batch.heat_runs[0].oven_checked.reset();
        QVERIFY(temperOf(batch, 0).has(Fact::ovenNeverChecked));
    }
    // A soak off its plan is said at the hardness gates too, but takes no Pass away.
    void theHardnessGatesHearOfIt() {
        Batch batch = heated({10, 10, 20});
        for (Blade& blade : batch.blades) fixtures::read(blade, Gate::temper, {62.2, 62.3, 62.1});
        const BatchVerdicts verdicts = judgeBatch(batch, tables(), std::nullopt);
        QCOMPARE(verdicts.at(2, Gate::temper)->state, State::pass);
        QVERIFY(verdicts.at(2, Gate::temper)->has(Fact::soakOffPlan));
    }
    void aBorderlineHeatDoesNotHoldUpTheQuench() {
        const Batch batch = heated({10, 10, 20});
        for (const Task& task : agenda(batch, judgeBatch(batch, tables(), std::nullopt))) {
            if (task.blade == 2) QCOMPARE(task.gate, Gate::temper); // tempered already: it is asked there
        }
    }
    void tracesFindTheirPlaceOnTheClock() {
        HeatRun run;
        run.zero = {1795500000000, 60}; // 2026-11-24 06:00:00 UTC... local clock an hour ahead
        TraceFile dated;
        dated.first_ms = 1795500090000;
        QCOMPARE(clockShift(run, dated), 90.0);
        dated.first_is_local = true;
        QCOMPARE(clockShift(run, dated), 90.0 - 3600);
        TraceFile clocked;
        const double localMidnight = std::fmod(1795500000.0 + 3600, 86400);
        clocked.first_clock_s = localMidnight - 30;
        QVERIFY(std::abs(clockShift(run, clocked) + 30) < 1e-6);
        QCOMPARE(clockShift(run, TraceFile()), 0.0);
        QCOMPARE(traceBegan(dated, run.zero).utc_ms, 1795500090000 - 3600000);
    }

    // A file that comes in later tells when it began: by its date, by its clock, of yesterday where today's time has
    // not been yet, or else by its length before now.
    void whenATraceBegan() {
        Instant now = fixtures::at(0, 10); // ten past one by a clock an hour ahead
        now.offset_minutes = 60;
        TraceFile file;
        file.trace = Trace::of({{0, 20}, {600, 790}}).value();
        QCOMPARE(traceBegan(file, now).utc_ms, fixtures::at(0, 0).utc_ms);
        file.first_clock_s = 23 * 3600 + 40 * 60;
        QCOMPARE(traceBegan(file, now).utc_ms, fixtures::at(22, 40, 23).utc_ms);
        file.first_clock_s = 50 * 60;
        QCOMPARE(traceBegan(file, now).utc_ms, fixtures::at(23, 50, 23).utc_ms);
        file.first_ms = static_cast<double>(fixtures::at(0, 30).utc_ms); // half past midnight, as the clock on the wall
        file.first_is_local = true;
        QCOMPARE(traceBegan(file, now).utc_ms, fixtures::at(23, 30, 23).utc_ms);
        file.first_is_local = false;
        QCOMPARE(traceBegan(file, now).utc_ms, fixtures::at(0, 30).utc_ms);
    }
};

QTEST_APPLESS_MAIN(tst_HeatBook)
#include "tst_heat_book.moc"
