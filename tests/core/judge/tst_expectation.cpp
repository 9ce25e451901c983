// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/expectation.h"
#include "tests/support/fixtures.h"

#include <cmath>
#include <QtTest>

using namespace rollcall;
using fixtures::read;
using fixtures::tables;

class tst_Expectation : public QObject {
    Q_OBJECT

    static Verdict temper(const Batch& batch, std::size_t blade = 0) {
        return *judgeBatch(batch, tables(), std::nullopt).at(blade, Gate::temper);
    }
    static const Reason& reason(const Verdict& v, Fact fact) {
        for (const Reason& r : v.reasons) {
            if (r.fact == fact) return r;
        }
        static const Reason none{};
        return none;
    }
    // A shop that has often tempered this grade once at 205 °C for 2 h and read what the library says plus this.
    static void learn(Batch& batch, double beside, int heats = 30) {
        const Grade& grade = *tables().grade(batch.grade);
        const double p = temperParameter(grade.hj_c, {{205, 2}}).value();
        const double library = TemperCurve::of(grade).value().at(p);
        for (int i = 0; i < heats; ++i)
            batch.temper_history.push_back({"h" + std::to_string(i), "b", p, library + beside, 0.2});
    }

private slots:
    void readingsBecomeObservations() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A", "B", "C"});
        read(batch.blades[0], Gate::temper, {62.2, 62.3, 62.1});
        read(batch.blades[1], Gate::temper, {62.2, 58.0, 65.0}); // uneven: it lies anywhere between them
        batch.blades[2].tempers[0].hours.reset();
        read(batch.blades[2], Gate::temper, {62.2, 62.3, 62.1});
        const auto seen = temperObservations(batch, tables());
        QCOMPARE(seen.size(), std::size_t(2));
        QVERIFY(seen[1].u > 3.5);
        QVERIFY(std::abs(seen[0].hrc - 62.0) < 1e-9); // the tester's error of 0.2 taken off
        QVERIFY(std::abs(seen[0].parameter - (205 + 273.15) * (14.485 + std::log10(2.0))) < 1e-6);
        QVERIFY(seen[0].u > 0.1 && seen[0].u < 0.4);
    }
    void asExpected() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A"});
        learn(batch, 1.0);
        read(batch.blades[0], Gate::temper, {62.1, 62.2, 62.0});
        const Verdict v = temper(batch);
        QVERIFY(v.has(Fact::evidenceAgrees) && !v.has(Fact::surprise));
        QCOMPARE(v.state, State::pass);
    }
    // Far off what the shop knows: said with how far, but the window decides.
    void surpriseAloneAndShared() {
        Batch batch = fixtures::batch("115CrV3", {58, 66}, {"A", "B", "C", "D"});
        learn(batch, 0.0);
        const double usual = TemperCurve::of(*tables().grade("115CrV3")).value().at(batch.temper_history[0].parameter);
        const auto readAll = [&](std::vector<double> offsets) {
            for (std::size_t i = 0; i < offsets.size(); ++i) {
                batch.blades[i].readings.clear();
                const double at = usual + 0.2 + offsets[i];
                read(batch.blades[i], Gate::temper, {at, at, at});
            }
        };
        readAll({3.5, 0, 0.1, -0.1});
        const Verdict alone = temper(batch);
        QVERIFY(alone.has(Fact::surprise) && alone.has(Fact::surpriseAlone));
        QVERIFY(std::abs(reason(alone, Fact::surprise).numbers[0] - 3.5) < 0.3);
        // E27: three standard uncertainties off, it waits for a person.
        QCOMPARE(alone.state, State::borderline);
        QCOMPARE(alone.next.act, Act::lookIntoSurprise);
        batch.blades[0].looks.push_back({1, 1, "the cycle was run", "HB", fixtures::at(11)});
        QCOMPARE(temper(batch).state, State::pass);
        QVERIFY(temper(batch).has(Fact::surpriseLooked));
        batch.blades[0].looks.clear();
        QVERIFY(!temper(batch, 1).has(Fact::surprise));
        readAll({3.5, 3.6, 3.4, 3.5});
        const Verdict shared = temper(batch);
        QVERIFY(shared.has(Fact::surpriseShared) && shared.has(Fact::surpriseFar));
        QVERIFY(std::abs(reason(shared, Fact::surpriseShared).numbers[0] - 3.5) < 0.3);
    }
    void hardBladesAreToldTheNextTemper() {
        Batch batch = fixtures::batch("115CrV3", {59, 61}, {"A"});
        learn(batch, 1.0);
        read(batch.blades[0], Gate::temper, {62.1, 62.2, 62.0});
        const Verdict v = temper(batch);
        QCOMPARE(v.next.act, Act::temperAgain);
        const auto* step = v.next.as<TemperStep>();
        QVERIFY(step != nullptr && step->advised);
        QVERIFY(step->advised->temperature_c > 205 && step->advised->temperature_c <= 230);
        QCOMPARE(step->advised->hours, 2.0); // as the temper before
        QVERIFY(step->advised->chance_soft <= 0.10 + 1e-9);
    }
    // Only inside the brittle range would reach it: it is offered, with the caution (E20).
    void onlyBrittleTempersAreOfferedWithTheCaution() {
        Batch batch = fixtures::batch("51CrV4", {50, 53}, {"A"});
        read(batch.blades[0], Gate::temper, {57.2, 57.3, 57.1});
        const Verdict v = temper(batch);
        QCOMPARE(v.state, State::borderline);
        QVERIFY(v.has(Fact::temperAvoided));
        QCOMPARE(v.next.act, Act::temperAgain);
        QVERIFY(v.next.as<TemperStep>()->advised);
    }
    // D2 on its low branch bottoms out near 58: no allowed temper reaches 50.
    void outOfReachIsAFail() {
        Batch batch = fixtures::batch("D2", {48, 50}, {"A"});
        batch.blades[0].tempers[0] = {"c1", 1, 1, 205, 2, "", fixtures::at(9)};
        batch.blades[0].tempers.push_back({"c2", 1, 2, 205, 2, "", fixtures::at(9)});
        read(batch.blades[0], Gate::temper, {61.2, 61.3, 61.1}, 2);
        const Verdict v = temper(batch);
        QCOMPARE(v.state, State::fail);
        QVERIFY(v.has(Fact::noTemperReaches));
    }
    void softFromTheQuenchFollowsNoCurve() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A"});
        read(batch.blades[0], Gate::quench, {55, 55.1, 55.2});
        read(batch.blades[0], Gate::temper, {62.1, 62.2, 62.0});
        TemperBook book(batch, tables());
        QVERIFY(book.quenchedTooSoft(batch.blades[0]));
        QVERIFY(!book.expected(batch.blades[0]));
        QVERIFY(!book.advice(batch.blades[0]));
    }
    void recipesNameTheNextTemper() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A"});
        QCOMPARE(temperAim(batch, batch.blades[0]).hours, 2.0);
        Recipe recipe;
        recipe.stages = {{StageKind::temper, 185, 120, {}, 5, "", ""}, {StageKind::temper, 200, 60, {}, 5, "", ""}};
        batch.recipe = recipe;
        QCOMPARE(temperAim(batch, batch.blades[0]).hours, 1.0);
    }
};

QTEST_APPLESS_MAIN(tst_Expectation)
#include "tst_expectation.moc"
