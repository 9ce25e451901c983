// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ledger/compare.h"
#include "core/ledger/proof_ledger.h"
#include "core/ledger/shop_series.h"
#include "core/ledger/temper_ledger.h"
#include "core/ledger/what_if.h"
#include "core/ledger/yield.h"
#include "tests/support/fixtures.h"

#include <cmath>
#include <QtTest>
#include <random>

using namespace rollcall;
using fixtures::read;
using fixtures::tables;

namespace {

LedgerBatch kept(const Batch& batch) {
    const Judged judged(batch, tables(), std::nullopt);
    return ledgerBatchOf(batch, judged, tables());
}

// Days later, all of it.
Batch later(Batch batch, int days) {
    const std::int64_t by = std::int64_t{days} * 86400000;
    for (Blade& blade : batch.blades) {
        for (Reading& reading : blade.readings) reading.time->utc_ms += by;
        for (Temper& temper : blade.tempers) temper.time->utc_ms += by;
    }
    for (Verification& run : batch.verifications) run.time->utc_ms += by;
    return batch;
}

// A heat of three, tempered once, that reads this as corrected.
Batch heat(const std::string& id, double hrc, double temper_c = 205, int day = 0) {
    Batch batch = fixtures::batch("115CrV3", {61, 63}, {id + "-1", id + "-2", id + "-3"});
    batch.id = id;
    batch.name = "Batch " + id;
    int i = 0;
    for (Blade& blade : batch.blades) {
        blade.tempers[0].temperature_c = temper_c;
        const double own = hrc + 0.2 + 0.1 * (i++ - 1); // 0.2 is the tester's error
        read(blade, Gate::temper, {own, own + 0.1, own - 0.1});
    }
    return later(batch, day);
}

double library(double celsius) {
    const Grade& grade = *tables().grade("115CrV3");
    return TemperCurve::of(grade).value().at(temperParameter(grade.hj_c, {{celsius, 2}}).value());
}

const Grade& steel() {
    return *tables().grade("115CrV3");
}

} // namespace

class tst_Ledger : public QObject {
    Q_OBJECT

    static bool near(double a, double b, double by) { return std::abs(a - b) <= by; }

private slots:
    // The oldest first, whatever order they come in; one that is read anew takes its new place; a copy stays as it was.
    void batchesInOrderOfTheirLastReading() {
        const auto at = [](const char* id, std::int64_t read_ms, int blades = 0) {
            LedgerBatch batch;
            batch.id = id;
            batch.read_ms = read_ms;
            batch.blades.resize(static_cast<std::size_t>(blades));
            return batch;
        };
        const auto ids = [](const Ledger& ledger) {
            std::string all;
            for (const LedgerBatch* batch : ledger.batches()) all += batch->id + std::to_string(batch->blades.size());
            return all;
        };
        Ledger ledger;
        QVERIFY(ledger.batches().empty());
        for (const auto& [id, ms] : {std::pair("c", 30), {"a", 10}, {"e", 20}, {"d", 20}, {"b", 40}})
            ledger.put(at(id, ms));
        QCOMPARE(ids(ledger), std::string("a0d0e0c0b0"));
        const Ledger before = ledger;
        ledger.put(at("d", 50, 2));
        ledger.put(at("a", 10, 3)); // of the same moment
        QCOMPARE(ids(ledger), std::string("a3e0c0b0d2"));
        ledger.drop("c");
        ledger.drop("nobody");
        QCOMPARE(ids(ledger), std::string("a3e0b0d2"));
        QCOMPARE(ledger.size(), std::size_t(4));
        QCOMPARE(ids(before), std::string("a0d0e0c0b0"));
    }
    void whatIsKeptOfABatch() {
        Batch batch = heat("a", 62);
        batch.blades[1].tempers.push_back({"c2", 1, 2, 215, 1.5, "215 1.5", fixtures::at(11)});
        batch.blades[2].round = 2;
        const LedgerBatch one = kept(batch);
        QCOMPARE(one.name, std::string("Batch a"));
        QCOMPARE(one.blades.size(), std::size_t(3));
        QCOMPARE(one.readings, 9);
        QCOMPARE(one.tester, std::string("Bench 1"));
        const LedgerBlade& first = one.blades[0];
        QVERIFY(near(first.tempered->mean, 61.9, 1e-9)); // corrected
        QVERIFY(near(first.tempered->error, 0.2, 1e-9));
        QCOMPARE(first.at(Gate::temper), std::optional(State::pass));
        QVERIFY(!first.at(Gate::proof)); // not asked
        QCOMPARE(first.spare_tempers, 0);
        QCOMPARE(first.readings.size(), std::size_t(1));
        QVERIFY(near(first.readings[0].hrc, 61.9, 1e-9));
        QCOMPARE(one.blades[1].spare_tempers, 1); // this steel needs one, and it was read after that
        QVERIFY(near(one.blades[1].spare_hours, 1.5, 1e-9));
        batch.blades[1].readings.clear();
        QCOMPARE(kept(batch).blades[1].spare_tempers, 0); // two were meant from the start
        QCOMPARE(one.blades[2].round, 2);
        QCOMPARE(one.day(), fixtures::at(11).localDay());
    }
    void aPileTeachesNoCurve() {
        Batch batch = heat("a", 62);
        batch.blades[1].own = BladeClaim{};
        batch.blades[1].own->grade = "1084";
        const LedgerBatch one = kept(batch);
        QCOMPARE(one.blades[1].grade, std::string("1084"));
        QVERIFY(one.blades[1].readings.empty());
        Ledger ledger;
        ledger.put(one);
        QCOMPARE(heatsTempered(ledger, steel()).front().blades, 2);
        QCOMPARE(ledger.grades(), (std::vector<std::string>{"115CrV3", "1084"}));
    }
    // Ten heats that all read 0.8 more than the library says: so does the shop's curve, and a point is one heat.
    void theShopsCurve() {
        Ledger ledger;
        for (int i = 0; i < 10; ++i) {
            const double celsius = 190 + 5 * (i % 4);
            ledger.put(kept(heat("h" + std::to_string(i), library(celsius) + 0.8, celsius, i)));
        }
        const auto found = temperLedger(ledger, steel(), {});
        QVERIFY(found);
        QCOMPARE(found->heats.size(), std::size_t(10));
        QCOMPARE(found->blades, 30);
        for (const HeatMean& heat : found->heats) {
            QVERIFY(near(heat.from_library, 0.8, 1e-6));
            QVERIFY(near(heat.high - heat.low, 0.2, 1e-9));
        }
        int steps = 0;
        for (const TemperLedger::Step& step : found->curve) {
            if (step.celsius < 190 || step.celsius > 205) continue;
            ++steps;
            QVERIFY2(near(step.shop - step.library, 0.8, 0.15), qPrintable(QString::number(step.shop - step.library)));
            QVERIFY(step.low < step.shop && step.high > step.shop);
        }
        QVERIFY(steps > 0);
        QVERIFY(found->teaches && found->teaches->after <= found->teaches->before);
    }
    // What is known far from where anything was read is known worst, and there a heat teaches most.
    void whereTheNextTemperTeaches() {
        Ledger ledger;
        for (int i = 0; i < 12; ++i) ledger.put(kept(heat("h" + std::to_string(i), library(180), 180, i)));
        Batch soft = heat("s", library(180), 180, 20);
        soft.window = {54, 63}; // the stretch that matters reaches far below
        ledger.put(kept(soft));
        const auto found = temperLedger(ledger, steel(), {});
        QVERIFY(found && found->teaches);
        QVERIFY2(found->teaches->celsius > 230, qPrintable(QString::number(found->teaches->celsius)));
        QVERIFY(found->teaches->after < found->teaches->before);
    }
    void nothingReadSaysTheLibrary() {
        const auto found = temperLedger(Ledger(), steel(), {});
        QVERIFY(found && found->heats.empty() && !found->teaches && !found->curve.empty());
    }

    // What the ledger says would change is what judging the changed batches anew says.
    void whatIfAsJudgedAnew_data() {
        QTest::addColumn<double>("low");
        QTest::addColumn<double>("high");
        QTest::addColumn<double>("error");
        QTest::addColumn<int>("rule");
        QTest::newRow("nothing") << 0.0 << 0.0 << 0.0 << -1;
        QTest::newRow("lower limit up") << 0.6 << 0.0 << 0.0 << -1;
        QTest::newRow("both down") << -1.0 << -0.7 << 0.0 << -1;
        QTest::newRow("tester reads harder") << 0.0 << 0.0 << 0.25 << -1;
        QTest::newRow("plain") << 0.0 << 0.0 << 0.0 << int(DecisionRule::plain);
        QTest::newRow("allowance") << 0.3 << 0.0 << 0.0 << int(DecisionRule::allowance);
    }
    void whatIfAsJudgedAnew() {
        QFETCH(double, low);
        QFETCH(double, high);
        QFETCH(double, error);
        QFETCH(int, rule);
        std::mt19937 chance(3);
        std::uniform_real_distribution<double> anywhere(59.5, 64.5);
        int changed = 0;
        for (int i = 0; i < 40; ++i) {
            const Batch batch = heat("h" + std::to_string(i), anywhere(chance));
            Ledger ledger;
            ledger.put(kept(batch));
            WhatIf wish;
            wish.low_by = low;
            wish.high_by = high;
            wish.error_by = error;
            if (rule >= 0) wish.rule = static_cast<DecisionRule>(rule);
            const WhatIfAnswer answer = whatIf(ledger, tables(), wish);
            Batch other = error == 0 ? batch : withError(batch, "t1", fixtures::at(8).localDay(), 0.2 + error);
            *other.window.low += low;
            *other.window.high += high;
            if (wish.rule) other.rule = *wish.rule;
            const BatchVerdicts anew = judgeBatch(other, tables(), std::nullopt);
            const BatchVerdicts before = judgeBatch(batch, tables(), std::nullopt);
            std::array<int, namesOf<State>.size()> states{};
            for (std::size_t b = 0; b < batch.blades.size(); ++b) {
                ++states[static_cast<std::size_t>(anew.at(b, Gate::temper)->state)];
                changed += anew.at(b, Gate::temper)->state != before.at(b, Gate::temper)->state;
            }
            QCOMPARE(answer.would_be, states);
            QCOMPARE(answer.blades, 3);
        }
        QVERIFY(changed > 0 || (low == 0 && high == 0 && error == 0 && rule < 0));
    }
    // Readings that contradict each other hold a blade back whatever its mean: nothing moved changes nothing.
    void whatHoldsABladeStays() {
        Batch batch = heat("a", 62);
        batch.blades[0].readings.clear();
        read(batch.blades[0], Gate::temper, {62.2, 62.3, 59.4, 64.9});
        batch.blades[1].tempers.clear(); // a temper is missing
        Ledger ledger;
        ledger.put(kept(batch));
        const State uneven = *ledger.batches()[0]->blades[0].at(Gate::temper);
        QVERIFY(uneven != State::pass);
        WhatIf wish;
        QVERIFY(whatIf(ledger, tables(), wish).changed.empty());
        wish.low_by = -2;
        wish.high_by = 2;
        for (const ChangedVerdict& changed : whatIf(ledger, tables(), wish).changed)
            QVERIFY2(changed.blade->mark != "a-2", "what is not read after its temper is not judged by hardness");
        wish.low_by = 4; // surely soft then
        const WhatIfAnswer worse = whatIf(ledger, tables(), wish);
        QVERIFY(worse.would_be[static_cast<std::size_t>(State::fail)] >= 2);
    }
    // Ten degrees more soften by what the library's curve says.
    void whatIfHotter() {
        Ledger ledger;
        ledger.put(kept(heat("a", 61.6)));
        WhatIf wish;
        wish.temper_by = 40;
        const WhatIfAnswer answer = whatIf(ledger, tables(), wish);
        const double then = 61.6 + library(245) - library(205);
        QVERIFY(then < 60.4); // surely soft
        QCOMPARE(answer.would_be[static_cast<std::size_t>(State::fail)], 3);
        QCOMPARE(answer.changed.size(), std::size_t(3));
        wish.grade = "1084";
        QCOMPARE(whatIf(ledger, tables(), wish).blades, 0);
    }
    // Made-up heats of the shop's own kind pass about as often as was foretold.
    void forecastComesTrue() {
        std::mt19937 chance(5);
        std::normal_distribution<double> heats(0, 0.5);
        Ledger ledger;
        for (int i = 0; i < 40; ++i)
            ledger.put(kept(heat("h" + std::to_string(i), library(200) + heats(chance), 200, i)));
        const auto told = forecastYield(ledger, steel(), {61, 63}, DecisionRule::plain, {});
        QVERIFY(told && *told);
        QVERIFY2((*told)->share > 0.6 && (*told)->share < 1, qPrintable(QString::number((*told)->share)));
        QVERIFY(near(library((*told)->celsius), 62, 0.8));
        QVERIFY((*told)->of_ten.low <= 10 * (*told)->share && (*told)->of_ten.high >= 10 * (*told)->share - 1);
        const auto narrow = forecastYield(ledger, steel(), {61.9, 62.1}, DecisionRule::guarded, {});
        QVERIFY(narrow && *narrow && (*narrow)->share < 0.01); // narrower than what can be read
        QVERIFY(!*forecastYield(Ledger(), steel(), {61, 63}, DecisionRule::plain, {}));
    }

    void yieldCounts() {
        Ledger ledger;
        ledger.put(kept(heat("good", 62)));
        Batch soft = heat("soft", 58);
        soft.blades[0].round = 2;
        ledger.put(kept(later(soft, 31)));
        const YieldLedger found = yieldLedger(ledger, "115CrV3");
        const Share& temper = found.gates[indexOf(Gate::temper)];
        QCOMPARE(temper.passed, 3);
        QCOMPARE(temper.of, 5); // the one that was hardened again is not read after its temper yet
        QVERIFY(temper.known && temper.known->low < 0.6 && temper.known->high > 0.6);
        QCOMPARE(found.rehardenings, 1);
        QVERIFY(!found.causes.empty());
        QCOMPARE(found.causes.front().batches.front()->name, std::string("Batch soft"));
        QCOMPARE(yieldLedger(ledger, "1084").gates[indexOf(Gate::temper)].of, 0);
    }
    void monthsAreOfTheShopsCalendar() {
        Ledger ledger;
        Batch first = heat("a", 62);
        first.plan[indexOf(Gate::quench)].required = false;
        ledger.put(kept(later(first, 6))); // 30 November
        Batch second = heat("b", 62);
        second.plan[indexOf(Gate::quench)].required = false;
        ledger.put(kept(later(second, 7))); // 1 December
        const YieldLedger found = yieldLedger(ledger, {});
        QCOMPARE(found.months.size(), std::size_t(2));
        QCOMPARE(found.months[0].month, 11);
        QCOMPARE(found.months[1].month, 12);
        QCOMPARE(found.all.passed, 6);
        QCOMPARE(found.all.of, 6);
    }

    // Recipes whose heats differ by 1.5 are told apart, and blades of a heat count once.
    void heatsAreCompared() {
        Ledger ledger;
        for (int i = 0; i < 8; ++i) {
            Batch batch = heat("h" + std::to_string(i), library(205) + (i % 2 ? 1.5 : 0) + 0.1 * (i / 2), 205, i);
            batch.recipe = Recipe{};
            batch.recipe->name = i % 2 ? "Slow" : "Quick";
            ledger.put(kept(batch));
        }
        const Comparisons found = compareLevels(ledger, {&steel()}, Factor::recipe, Response::tempered);
        QCOMPARE(found.levels.size(), std::size_t(2));
        QCOMPARE(found.levels[0].values.size(), std::size_t(4));
        QCOMPARE(found.levels[0].pieces, 12);
        QVERIFY(found.pairs.front().differ);
        QVERIFY(near(std::abs(found.pairs.front().difference), 1.5, 1e-6));
        QCOMPARE(compareLevels(ledger, {&steel()}, Factor::oven, Response::tempered).unnamed, 8);
    }
    // An oven whose heats read 1 HRC soft seems hotter by what softens so much.
    void anOvenSeemsHotter() {
        Ledger ledger;
        for (int i = 0; i < 40; ++i) {
            Batch batch = heat("h" + std::to_string(i), library(205) + (i % 2 ? -0.5 : 0.5) + 0.02 * (i % 5), 205, i);
            HeatRun run;
            run.oven = i % 2 ? "Old" : "New";
            run.zero = fixtures::at(7);
            batch.heat_runs.push_back(run);
            ledger.put(kept(batch));
        }
        const auto all = shopSeries(ledger, tables(), {}, {}, fixtures::at(12));
        int ovens = 0;
        for (const ShopSeries& series : all) {
            if (series.kind != ShopSeries::Kind::oven) continue;
            ++ovens;
            QCOMPARE(series.values.size(), std::size_t(20));
            QVERIFY(std::is_sorted(series.days.begin(), series.days.end()));
            const SeriesSays says = saysOf(series);
            QVERIFY(says.chart && says.hotter_c && says.hotter_known);
            const double perDegree = (library(215) - library(205)) / 10;
            QVERIFY2(near(*says.hotter_c, says.mean / perDegree, std::abs(*says.hotter_c) * 0.05),
                     qPrintable(QString::number(*says.hotter_c)));
            QCOMPARE(*says.hotter_c > 0, series.name == "Old");
            QVERIFY(says.hotter_known->low < *says.hotter_c && says.hotter_known->high > *says.hotter_c);
        }
        QCOMPARE(ovens, 2);
    }

    void aWeek() {
        Ledger ledger;
        for (int week = 1; week <= 10; ++week) {
            Batch batch = heat("w" + std::to_string(week), 62, 205, -7 * week);
            batch.plan[indexOf(Gate::quench)].required = false;
            ledger.put(kept(batch));
        }
        for (int i = 0; i < 4; ++i) {
            Batch soft = heat("soft" + std::to_string(i), 58);
            soft.plan[indexOf(Gate::quench)].required = false;
            ledger.put(kept(soft));
        }
        Tester bench;
        bench.id = "t1";
        bench.name = "Bench 1";
        const Week week = weekOf(ledger, tables(), {bench}, {}, {{"62", "HRC", 62, 20, 3, 30}}, fixtures::at(18));
        QCOMPARE(week.worked.size(), std::size_t(4));
        QCOMPARE(week.blades, 12);
        QCOMPARE(week.passed.passed, 0);
        QCOMPARE(week.passed.of, 12);
        QCOMPARE(week.before.passed, 30);
        QCOMPARE(week.before.of, 30);
        QVERIFY(week.chance < 0.001);
        QVERIFY(!week.causes.empty());
        QCOMPARE(week.causes.front().blades, 12);
        QCOMPARE(ledger.batch(week.causes.front().batches.front()->id), week.causes.front().batches.front());
        QCOMPARE(week.overdue.size(), std::size_t(1)); // read on, and never verified by any run given
        QVERIFY(!week.overdue.front().days_since);
        QCOMPARE(week.blocks.size(), std::size_t(1));
        // Nothing of what lies ahead is counted.
        QCOMPARE(weekOf(ledger, tables(), {}, {}, {}, {fixtures::at(18).utc_ms - 8 * 86400000LL, 0}).worked.size(),
                 std::size_t(1));
    }
    // A week like those before is told as chance.
    void anUsualWeek() {
        Ledger ledger;
        for (int week = 0; week <= 10; ++week) {
            Batch batch = heat("w" + std::to_string(week), week % 2 ? 62 : 58, 205, -7 * week);
            batch.plan[indexOf(Gate::quench)].required = false;
            ledger.put(kept(batch));
        }
        const Week week = weekOf(ledger, tables(), {}, {}, {}, fixtures::at(18));
        QCOMPARE(week.passed.of, 3);
        QVERIFY(week.chance > 0.05);
    }

    // Groups of blades that were tried: each property alone, ties where intervals meet.
    void whatWasTried() {
        LedgerBatch batch;
        batch.id = batch.name = "b";
        const auto add = [&](const char* grade, int held, int failed, double grain) {
            for (int i = 0; i < held + failed; ++i) {
                LedgerBlade blade;
                blade.id = blade.mark = std::string(grade) + std::to_string(i);
                blade.grade = grade;
                StudyPiece piece;
                piece.held = EdgeLoadStep{};
                if (i >= held) piece.failed_as = EdgeOutcome::chip;
                piece.facts.hrc = 60 + i % 2;
                piece.facts.angle_deg = 17;
                blade.piece = std::make_shared<const StudyPiece>(piece);
                blade.grain = grain + 0.1 * i;
                batch.blades.push_back(blade);
            }
        };
        add("1084", 12, 0, 9);
        add("D2", 1, 11, 7);
        Ledger ledger;
        ledger.put(batch);
        const ProofLedger byGrade = proofLedger(ledger, {}, ProofBy::grade);
        QCOMPARE(byGrade.groups.size(), std::size_t(2));
        QCOMPARE(byGrade.properties.size(), std::size_t(2));
        for (const ProofProperty& property : byGrade.properties) {
            const std::size_t best = byGrade.groups[0].name == "1084" ? 0 : 1;
            QCOMPARE(property.cells[best].tried, 12);
            QVERIFY(property.cells[best].place && property.cells[best].place->worst == 1);
            QCOMPARE(property.cells[1 - best].place->best, 2);
        }
        const ProofLedger byHardness = proofLedger(ledger, {}, ProofBy::hardness);
        QCOMPARE(byHardness.groups.size(), std::size_t(1)); // 60 to 62
        QCOMPARE(byHardness.groups[0].low, 60.0);
        const ProofLedger byAngle = proofLedger(ledger, "D2", ProofBy::angle);
        QCOMPARE(byAngle.groups[0].blades, 12);
        QCOMPARE(byAngle.groups[0].low, 15.0);
        QVERIFY(proofLedger(ledger, {}, ProofBy::purpose).groups.empty());
    }
};

QTEST_APPLESS_MAIN(tst_Ledger)
#include "tst_ledger.moc"
