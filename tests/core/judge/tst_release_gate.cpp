// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/release_judge.h"
#include "core/judge/sampling_plan.h"
#include "tests/support/fixtures.h"

#include <cmath>
#include <QtTest>

using namespace rollcall;
using fixtures::tables;

namespace {

// Three blades hardened well and tempered into their window; Quench, Temper and Release are asked.
Batch good() {
    Batch batch = fixtures::batch("115CrV3", {60.5, 63.5}, {"A", "B", "C"});
    batch.plan[indexOf(Gate::release)] = {true, 1};
    for (Blade& blade : batch.blades) {
        fixtures::read(blade, Gate::quench, {65.2, 65.3, 65.1});
        fixtures::read(blade, Gate::temper, {62.1, 62.0, 62.2});
    }
    return batch;
}

BatchVerdicts judged(const Batch& batch) {
    return judgeBatch(batch, tables(), fixtures::at(12));
}

Verdict at(const Batch& batch, std::size_t blade) {
    return *judged(batch).at(blade, Gate::release);
}

ReleaseAnswer answer(const Batch& batch, std::size_t blade) {
    return releaseAnswer(batch, blade, judged(batch).blades[blade], tables());
}

Signature signedNow(const Batch& batch, std::size_t blade, Disposition disposition, const char* reason = "") {
    return {disposition, batch.blades[blade].round, releaseBasis(judged(batch).blades[blade]), reason,
            "HB",        fixtures::at(11)};
}

} // namespace

class tst_ReleaseGate : public QObject {
    Q_OBJECT

private slots:
    void whatIsAnsweredMayBeSigned() {
        Batch batch = good();
        QCOMPARE(at(batch, 0).state, State::notYet);
        QCOMPARE(at(batch, 0).next.act, Act::sign);
        QVERIFY(answer(batch, 0).maySign());
        QCOMPARE(answer(batch, 0).suggestion.disposition, Disposition::release);
        batch.blades[0].signatures = {signedNow(batch, 0, Disposition::release)};
        QCOMPARE(at(batch, 0).state, State::pass);
        QVERIFY(answer(batch, 0).released() && !answer(batch, 0).maySign());
        QCOMPARE(at(batch, 1).state, State::notYet);
    }
    // A reading superseded after signing: the signature is stale and says what it rested on.
    void aLaterChangeMakesASignatureStale() {
        Batch batch = good();
        batch.blades[0].signatures = {signedNow(batch, 0, Disposition::release)};
        batch.blades[0].readings.back().struck =
            Strike{StrikeReason::superseded, "read anew", "HB", fixtures::at(11, 30)};
        const Verdict stale = at(batch, 0);
        QCOMPARE(stale.state, State::borderline);
        QVERIFY(stale.has(Fact::signatureStale));
        const ReleaseAnswer one = answer(batch, 0);
        QCOMPARE(one.changed.size(), std::size_t(1));
        QCOMPARE(one.changed[0].gate, std::string("temper"));
        QVERIFY2(one.changed[0].was.starts_with("pass 6"), one.changed[0].was.c_str());
        QVERIFY2(one.changed[0].is.starts_with("not yet"), one.changed[0].is.c_str());
    }
    void whatIsMissingInWorkingOrder() {
        Batch batch = good();
        batch.blades[0].readings.clear();
        const ReleaseAnswer one = answer(batch, 0);
        QCOMPARE(one.open.size(), std::size_t(2));
        QCOMPARE(one.open[0].gate, Gate::quench);
        QCOMPARE(one.open[1].gate, Gate::temper);
        QCOMPARE(at(batch, 0).next.act, Act::answerGates);
        // Signed over all the same: released, and said to be over open gates.
        batch.blades[0].signatures = {signedNow(batch, 0, Disposition::release, "for my own use")};
        QCOMPARE(at(batch, 0).state, State::pass);
        QVERIFY(at(batch, 0).has(Fact::signedOver));
    }
    // Too soft: harden again while the shop's limit allows it, then another purpose whose window holds it.
    void whatIsSuggested() {
        Batch batch = good();
        batch.blades[0].readings.clear();
        fixtures::read(batch.blades[0], Gate::quench, {65.2, 65.3, 65.1});
        fixtures::read(batch.blades[0], Gate::temper, {57.1, 57.0, 57.2});
        QCOMPARE(answer(batch, 0).suggestion.disposition, Disposition::reharden);
        QCOMPARE(answer(batch, 0).suggestion.next_round, 2);
        batch.rehardening_limit = 0;
        const Suggestion other = answer(batch, 0).suggestion;
        QCOMPARE(other.disposition, Disposition::otherPurpose);
        QVERIFY(!other.purpose.empty());
        // Still hard after its temper: temper again.
        batch = good();
        batch.blades[1].readings.clear();
        fixtures::read(batch.blades[1], Gate::quench, {65.2, 65.3, 65.1});
        fixtures::read(batch.blades[1], Gate::temper, {63.6, 63.7, 63.5});
        QCOMPARE(answer(batch, 1).suggestion.disposition, Disposition::temperAgain);
    }
    void heldScrappedAndOfAnotherRound() {
        Batch batch = good();
        batch.blades[0].signatures = {signedNow(batch, 0, Disposition::hold, "handle to be fitted")};
        QCOMPARE(at(batch, 0).state, State::borderline);
        batch.blades[0].signatures.push_back(signedNow(batch, 0, Disposition::scrap, "bent in the vise"));
        QCOMPARE(at(batch, 0).state, State::fail);
        batch.blades[0].fate = BladeFate{Fate::scrapped, Gate::release, "bent", "HB", fixtures::at(11)};
        QVERIFY(answer(batch, 0).out);
        batch.blades[1].signatures = {signedNow(batch, 1, Disposition::release)};
        batch.blades[1].round = 2; // hardened again: nobody has signed for that
        QVERIFY(answer(batch, 1).signature == nullptr);
        for (std::size_t i = 0; i < dispositions; ++i)
            QCOMPARE(*named<Disposition>(nameOf(static_cast<Disposition>(i))), static_cast<Disposition>(i));
    }
    // Five of seven read: the others are excused where the sample reaches what is asked and covers them.
    void bladesLeftUnread() {
        Batch batch = fixtures::batch("115CrV3", {60.0, 64.0}, {"A", "B", "C", "D", "E", "F", "G"});
        for (Blade& blade : batch.blades) fixtures::read(blade, Gate::quench, {65.2, 65.3, 65.1});
        for (std::size_t i = 0; i < 5; ++i) {
            const double mean = 61.9 + 0.05 * static_cast<double>(i);
            fixtures::read(batch.blades[i], Gate::temper, {mean, mean + 0.1, mean - 0.1});
        }
        FileTest files;
        files.gate = Gate::temper;
        files.after_temper = 1;
        files.trials = {{60, FileTouch::skates}, {65, FileTouch::bites}};
        batch.blades[5].file_tests = {files};
        QCOMPARE(judged(batch).at(5, Gate::temper)->state, State::notYet); // no plan declared
        batch.sample_asked = 0.9;
        QCOMPARE(judged(batch).at(5, Gate::temper)->state, State::excused);
        const Verdict noFiles = *judged(batch).at(6, Gate::temper);
        QCOMPARE(noFiles.state, State::notYet);
        QVERIFY(noFiles.has(Fact::sampleNotCovers));
        // A stouter one than any that was read is not covered, whatever the files say.
        batch.blades[5].shape.thickness_mm = 6;
        QVERIFY(judged(batch).at(5, Gate::temper)->has(Fact::sampleNotCovers));
        batch.blades[5].shape.thickness_mm = 2.4;
        batch.sample_asked = 0.9999;
        QVERIFY(judged(batch).at(5, Gate::temper)->has(Fact::sampleTooWeak));
    }
    // Nothing read yet: first and last, the middle, the quarters.
    void aFairSample() {
        Batch batch = fixtures::batch("115CrV3", {60.0, 64.0}, {"1", "2", "3", "4", "5", "6", "7", "8", "9"});
        BatchVerdicts nothing;
        nothing.blades.resize(9);
        const SampleState state = sampleState(batch, nothing, HeatBook(batch, tables()));
        QCOMPARE(state.next, (std::vector<std::size_t>{0, 8, 4, 2, 6}));
        QVERIFY(!state.chance && !state.holds);
    }
};

QTEST_APPLESS_MAIN(tst_ReleaseGate)
#include "tst_release_gate.moc"
