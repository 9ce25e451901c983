// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/agenda.h"
#include "core/judge/steel_book.h"
#include "tests/support/fixtures.h"

#include <QtTest>

using namespace rollcall;
using fixtures::tables;

class tst_SteelBook : public QObject {
    Q_OBJECT

    static Batch asked() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A", "B"});
        batch.claimed = batch.grade;
        batch.plan[indexOf(Gate::steel)] = {true, 1};
        return batch;
    }
    static SteelShot shot(const char* text, const std::string& blade = {},
                          AnalysisMethod method = AnalysisMethod::xrf) {
        SteelShot s;
        s.id = text;
        s.blade = blade;
        s.method = method;
        s.composition = typedShot(text).value();
        return s;
    }
    static Verdict steelOf(const Batch& batch, std::size_t blade = 0) {
        return *judgeBatch(batch, tables(), std::nullopt).at(blade, Gate::steel);
    }

    static constexpr const char* another = "Cr 14.6 0.1; Mo 0.6 0.03; V 0.15 0.02; Mn 0.5 0.05"; // stainless

private slots:
    void nobodyLooked() {
        const Verdict v = steelOf(asked());
        QVERIFY(v.state == State::notYet && v.has(Fact::noShotTaken));
        QCOMPARE(v.next.act, Act::takeShot);
    }
    void consistentButNotAlone() {
        Batch batch = fixtures::batch("X46Cr13", {54, 57}, {"A"});
        batch.plan[indexOf(Gate::steel)] = {true, 1};
        batch.shots.push_back(shot("Cr 13.4 0.1; Mn 0.5 0.05; Mo 0.03 0.01; V 0.02 0.01"));
        const Verdict v = steelOf(batch);
        QCOMPARE(v.state, State::pass);
        QVERIFY(v.has(Fact::alsoConsistent) && v.has(Fact::methodCannotSee));
    }
    void aBladesOwnShotSpeaksForIt() {
        Batch batch = asked();
        batch.shots.push_back(shot("Cr 0.62 0.02; Mn 0.3 0.04; V 0.09 0.02"));
        batch.shots.push_back(shot(another, "B"));
        QCOMPARE(steelOf(batch, 0).state, State::pass);
        QCOMPARE(steelOf(batch, 1).state, State::fail);
        QVERIFY(steelOf(batch, 1).has(Fact::looksMoreLike));
        batch.shots[1].struck = true;
        QCOMPARE(steelOf(batch, 1).state, State::pass);
    }
    // Together or one by one: the same verdicts, each of its own blade.
    void allBladesAreJudgedAsEachAlone() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A", "B", "C", "D"});
        batch.claimed = batch.grade;
        batch.plan[indexOf(Gate::steel)] = {true, 1};
        batch.shots.push_back(shot("Cr 0.62 0.02; Mn 0.3 0.04; V 0.09 0.02"));
        batch.shots.push_back(shot(another, "C"));
        batch.blades[1].excuses.push_back({Gate::steel, "no shot of it", "Ada", {}});
        const HeatBook heats(batch, tables());
        const VerificationBook runs(batch, tables());
        const SteelBook book(batch, tables(), heats, runs);
        const std::vector<Verdict> together = judgeSteel(batch, book, tables());
        QCOMPARE(together.size(), batch.blades.size());
        for (std::size_t i = 0; i < together.size(); ++i) {
            const Verdict alone = judgeSteel(batch, i, book, tables());
            QCOMPARE(together[i].blade, batch.blades[i].id);
            QCOMPARE(together[i].state, alone.state);
            QCOMPARE(together[i].reasons.size(), alone.reasons.size());
        }
        QCOMPARE(together[0].state, State::pass);
        QCOMPARE(together[1].state, State::excused);
        QCOMPARE(together[2].state, State::fail);
        QCOMPARE(together[3].state, State::pass);
    }
    // E50: of a wrong steel no hardness is judged.
    void theHardnessGatesHearOfIt() {
        Batch batch = asked();
        batch.shots.push_back(shot(another));
        fixtures::read(batch.blades[0], Gate::temper, {62.2, 62.3, 62.1});
        BatchVerdicts verdicts = judgeBatch(batch, tables(), std::nullopt);
        QCOMPARE(verdicts.at(0, Gate::temper)->state, State::fail);
        QVERIFY(verdicts.at(0, Gate::temper)->has(Fact::steelFailed));
        // What may be a plating says nothing of the steel, and lets no hardness pass either.
        batch.shots.back() = shot("Cr 13.4 0.1; Mn 0.5 0.05");
        verdicts = judgeBatch(batch, tables(), std::nullopt);
        QCOMPARE(verdicts.at(0, Gate::steel)->state, State::borderline);
        QCOMPARE(verdicts.at(0, Gate::temper)->state, State::borderline);
        QVERIFY(verdicts.at(0, Gate::temper)->has(Fact::evidenceConflicts));
    }
    void sparkEmissionGoesBeforeXrf() {
        Batch batch = asked();
        batch.shots.push_back(shot("Cr 0.62 0.02; Mn 0.3 0.04; V 0.09 0.02"));
        batch.shots.push_back(shot("C 0.8 0.01; Cr 0.62 0.01; Mn 0.3 0.01; V 0.09 0.005", {}, AnalysisMethod::oes));
        const Verdict v = steelOf(batch);
        QCOMPARE(v.state, State::fail); // carbon 0.80, 1.10 needed
        QCOMPARE(v.reasons[0].texts[0], std::string("C"));
    }
    void couponAndSparkWhereThereIsNoAnalyser() {
        Batch batch = asked();
        SteelNote coupon;
        coupon.kind = SteelNoteKind::coupon;
        coupon.hrc = 65;
        batch.steel_notes.push_back(coupon);
        QCOMPARE(steelOf(batch).state, State::pass);
        SteelNote spark;
        spark.agrees = false;
        batch.steel_notes.push_back(spark);
        QCOMPARE(steelOf(batch).state, State::borderline);
    }
    void theMillsOwnValues() {
        Batch batch = asked();
        batch.certificate = typedShot("C 1.15; Cr 0.62; V 0.09; Mn 0.3")->elements;
        QVERIFY(steelOf(batch).has(Fact::certificateConsistent));
        batch.certificate[0].percent = 0.8;
        QCOMPARE(steelOf(batch).state, State::fail);
    }
    void nothingInTheLibraryFits() {
        Batch batch = asked();
        batch.shots.push_back(shot("Cr 30 0.1; Ni 20 0.1; Mn 5 0.05"));
        QVERIFY(steelOf(batch).has(Fact::noGradeFits));
        batch.shots[0] = shot("Cr 0.62 0.02; Mn 0.3 0.04; V 0.09 0.02; Zn 4 0.1");
        QVERIFY(steelOf(batch).has(Fact::shotCoated));
        QVERIFY(steelOf(batch).state != State::pass);
    }
};

QTEST_APPLESS_MAIN(tst_SteelBook)
#include "tst_steel_book.moc"
