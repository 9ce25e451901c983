// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/gates.h"
#include "core/judge/grain_study.h"
#include "tests/support/fixtures.h"

#include <cmath>
#include <QtTest>

using namespace rollcall;
using fixtures::tables;

namespace {

// Blades and coupons of one heat, pulled a minute apart from each other; the first two are the blades.
Batch heated(int coupons) {
    std::vector<std::string> marks{"A", "B"};
    for (int i = 1; i <= coupons; ++i) marks.push_back("C" + std::to_string(i));
    Batch batch = fixtures::batch("1095", {59, 62}, marks);
    batch.plan[indexOf(Gate::proof)] = {true, 1};
    HeatRun run;
    run.id = "h1";
    run.set_c = 800;
    run.zero = fixtures::at(6);
    std::vector<TraceSample> samples;
    for (double s = 0; s <= 3600; s += 10) samples.push_back({s, 800});
    run.trace = std::make_shared<const Trace>(Trace::of(std::move(samples)).value());
    batch.heat_runs.push_back(run);
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        BladeHeat heat;
        heat.run = "h1";
        heat.in_s = 0;
        heat.out_s = i == 0 ? 700 : i == 1 ? 1100 : 600 + 150.0 * static_cast<double>(i - 2);
        heat.quenched_s = *heat.out_s + 1;
        batch.blades[i].heats.push_back(heat);
        if (i < 2) continue;
        batch.blades[i].tempers.clear();
        batch.blades[i].fate = BladeFate{Fate::coupon, Gate::quench, "broken for its grain", "HB", fixtures::at(8)};
    }
    return batch;
}

// A photo on which five lines of a millimetre were crossed so many times each.
FracturePhoto photo(int crossings, FractureZone zone = FractureZone::middle) {
    FracturePhoto made;
    made.px_per_mm = 1500;
    for (const int more : {0, 1, -1, 0, 0}) {
        CountedLine line;
        line.zone = zone;
        line.line = {false, {0, 0}, {1500, 0}};
        line.crossings.resize(static_cast<std::size_t>(crossings + more));
        made.lines.push_back(std::move(line));
    }
    return made;
}

Verdict at(const Batch& batch, std::size_t blade) {
    return *judgeBatch(batch, tables(), fixtures::at(12)).at(blade, Gate::proof);
}

} // namespace

class tst_GrainGate : public QObject {
    Q_OBJECT

private slots:
    // C4 soaked 1050 s, longer than A and about as long as B; A soaked 700 s, C1 600 s.
    void aFineCouponSpeaksForThoseThatSoakedNoLonger() {
        Batch batch = heated(4);
        QCOMPARE(at(batch, 0).state, State::notYet);
        batch.blades[2 + 3].fractures = {photo(80)};
        QCOMPARE(at(batch, 5).state, State::pass); // broken and out of the batch, it has its answer
        QCOMPARE(at(batch, 0).state, State::excused);
        QCOMPARE(at(batch, 1).state, State::excused);
        batch.blades[2 + 3].fractures.clear();
        batch.blades[2].fractures = {photo(80)}; // C1
        const Verdict longer = at(batch, 1);
        QCOMPARE(longer.state, State::notYet);
        QVERIFY(longer.has(Fact::pieceDoesNotSpeak));
        QCOMPARE(longer.reasons[1].texts[1], std::string("soak"));
    }
    // Tempered since, other edge and shape: of no weight for the grain.
    void whatCameLaterDoesNotMatter() {
        Batch batch = heated(4);
        batch.blades[5].fractures = {photo(80)};
        batch.blades[0].shape.thickness_mm = 6;
        batch.blades[0].edges = {{0.3, 15, EdgeGrind::flat, "", {}}};
        QCOMPARE(at(batch, 0).state, State::excused);
        batch.blades[0].heats[0].run = "another";
        QVERIFY(at(batch, 0).state != State::excused);
    }
    void aCoarseCouponSpeaksAgainstThoseThatSoakedAsLong() {
        Batch batch = heated(4);
        batch.recipe =
            Recipe{"r",
                   "Sickles",
                   1,
                   "1095",
                   {{StageKind::normalise, 870, 30, {}, 10, "", ""}, {StageKind::temper, 205, 150, {}, 5, "", ""}},
                   ""};
        batch.blades[5].fractures = {photo(30)};
        const Verdict coupon = at(batch, 5);
        QCOMPARE(coupon.state, State::fail);
        QVERIFY(coupon.has(Fact::grainCoarse));
        const Verdict as_long = at(batch, 1);
        QCOMPARE(as_long.state, State::fail);
        QCOMPARE(as_long.next.act, Act::hardenFiner);
        const auto cost = std::find_if(as_long.reasons.begin(), as_long.reasons.end(),
                                       [](const Reason& r) { return r.fact == Fact::grainCost; });
        QVERIFY(cost != as_long.reasons.end());
        QCOMPARE(cost->numbers[0], 3.0); // 30 and 150 minutes
        QCOMPARE(cost->numbers[1], 2.0);
        QCOMPARE(at(batch, 0).state, State::notYet); // it soaked less
    }
    // A trial of its own passed, but a coupon that soaked no longer is coarse: the maker decides.
    void aPassedTrialDoesNotHideACoarseCoupon() {
        Batch batch = heated(4);
        Trial trial;
        trial.after_temper = 1;
        trial.protocol = {"Bend", {}};
        trial.protocol.steps.resize(1);
        trial.protocol.steps[0].name = "Bend";
        trial.protocol.steps[0].kind = StepKind::yesNo;
        trial.events = {{TrialAct::answer, 0, 0, 0, "", {}}};
        batch.blades[1].trials = {trial};
        QCOMPARE(at(batch, 1).state, State::pass);
        batch.blades[5].fractures = {photo(30)};
        QCOMPARE(at(batch, 1).state, State::borderline);
    }
    void betweenUnevenAndTooFewLines() {
        Batch batch = heated(4);
        batch.blades[5].fractures = {photo(50)}; // G 8.0 of 8 asked
        QCOMPARE(at(batch, 5).state, State::borderline);
        QCOMPARE(at(batch, 1).state, State::borderline); // and it carries no further than that
        batch.grain_least = 7;
        QCOMPARE(at(batch, 5).state, State::pass);
        batch.blades[5].fractures = {photo(95, FractureZone::spine), photo(45, FractureZone::edge)};
        QCOMPARE(at(batch, 5).state, State::borderline);
        QVERIFY(at(batch, 5).has(Fact::grainUneven));
        batch.blades[5].fractures = {photo(80)};
        batch.blades[5].fractures[0].lines.resize(2);
        const Verdict few = at(batch, 5);
        QCOMPARE(few.state, State::notYet);
        QCOMPARE(few.next.act, Act::countGrain);
        batch.blades[5].fractures[0].round = 2; // of another hardening
        QCOMPARE(at(batch, 5).state, State::excused);
    }
    // Five coupons in perfect order: 2 of the 120 orders are as far from chance.
    void trendOverTheSoak() {
        Batch batch = heated(5);
        const std::array<int, 5> crossings{90, 80, 70, 62, 50};
        for (std::size_t i = 0; i < 5; ++i) batch.blades[2 + i].fractures = {photo(crossings[i])};
        const GrainStudy study = grainStudy(batch, tables(), GrainFactor::soak);
        QCOMPARE(study.says, GrainStudy::Says::coarser);
        QVERIFY(std::abs(study.trend->p - 2.0 / 120) < 1e-9);
        QVERIFY(study.trend->slope < 0);
        QVERIFY(study.beside.empty());
        QCOMPARE(study.expected.size(), std::size_t(2)); // the blades, between the outermost coupons
        QVERIFY(study.expected[0].g > study.expected[1].g);
        // One that is another steel is said first; four are too few.
        batch.steel_notes.push_back({SteelNoteKind::changed, "normalised thrice", {}, {}, {"C2"}, {}});
        QCOMPARE(grainStudy(batch, tables(), GrainFactor::soak).beside.front().trait, Trait::changed);
        batch.blades[2].fractures.clear();
        QCOMPARE(grainStudy(batch, tables(), GrainFactor::soak).says, GrainStudy::Says::tooFew);
    }
    void withoutATrendNothingIsForetold() {
        Batch batch = heated(5);
        const std::array<int, 5> crossings{70, 90, 62, 80, 75};
        for (std::size_t i = 0; i < 5; ++i) batch.blades[2 + i].fractures = {photo(crossings[i])};
        const GrainStudy study = grainStudy(batch, tables(), GrainFactor::soak);
        QCOMPARE(study.says, GrainStudy::Says::noTrend);
        QVERIFY(study.expected.empty());
        batch.blades[3].heats.clear();
        const GrainStudy missing = grainStudy(batch, tables(), GrainFactor::soak);
        QCOMPARE(missing.left_out.size(), std::size_t(1));
        QCOMPARE(missing.coupons.size(), std::size_t(4));
    }
};

QTEST_APPLESS_MAIN(tst_GrainGate)
#include "tst_grain_gate.moc"
