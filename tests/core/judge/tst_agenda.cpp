// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/agenda.h"
#include "core/judge/gate_case.h"
#include "core/judge/release_judge.h"
#include "tests/support/fixtures.h"

#include <QtTest>

using namespace rollcall;
using fixtures::at;

// What is left to do, in the order to do it; and what a blade's siblings tell.
class tst_Agenda : public QObject {
    Q_OBJECT

    static std::vector<Task> tasksOf(const Batch& batch) {
        return agenda(batch, judgeBatch(batch, fixtures::tables(), std::nullopt));
    }
    // Only Temper is asked, so that each blade has one open gate.
    static Batch tempered(const std::vector<std::string>& marks) {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, marks);
        batch.plan[indexOf(Gate::quench)].required = false;
        return batch;
    }

private slots:
    void readingsComeBeforeHeatBeforeWhatCannotBeMended() {
        Batch batch = tempered({"soft", "hard", "unread", "good", "border"});
        fixtures::read(batch.blades[0], Gate::temper, {58.0, 58.1, 58.2});
        fixtures::read(batch.blades[1], Gate::temper, {63.7, 63.8, 63.9});
        fixtures::read(batch.blades[3], Gate::temper, {62.1, 62.2, 62.3});
        fixtures::read(batch.blades[4], Gate::temper, {62.7, 62.6, 62.8});
        const std::vector<Task> tasks = tasksOf(batch);
        QStringList order;
        for (const Task& task : tasks) order << QString::fromStdString(batch.blades[task.blade].mark);
        QCOMPARE(order, (QStringList{"unread", "border", "hard", "soft"})); // good asks for nothing
        QCOMPARE(tasks[2].next.act, Act::temperAgain);
    }

    // Who was signed for asks for nothing, until something changes under the signature; to temper or harden it again is
    // no end.
    void aSignatureSettles_data() {
        QTest::addColumn<int>("disposition");
        QTest::addColumn<bool>("settled");
        QTest::newRow("released over it") << int(Disposition::release) << true;
        QTest::newRow("another purpose") << int(Disposition::otherPurpose) << true;
        QTest::newRow("held") << int(Disposition::hold) << true;
        QTest::newRow("sent back") << int(Disposition::sendBack) << true;
        QTest::newRow("temper again") << int(Disposition::temperAgain) << false;
        QTest::newRow("re-harden") << int(Disposition::reharden) << false;
    }
    void aSignatureSettles() {
        QFETCH(int, disposition);
        QFETCH(bool, settled);
        Batch batch = tempered({"A"});
        fixtures::read(batch.blades[0], Gate::temper, {58.0, 58.1, 58.2});
        QCOMPARE(tasksOf(batch).size(), std::size_t(1));
        const BatchVerdicts verdicts = judgeBatch(batch, fixtures::tables(), std::nullopt);
        Signature signature;
        signature.disposition = static_cast<Disposition>(disposition);
        signature.basis = releaseBasis(verdicts.blades[0]);
        batch.blades[0].signatures.push_back(signature);
        QCOMPARE(tasksOf(batch).empty(), settled);
        batch.window = {56, 60}; // judged otherwise now: what was signed for is no more
        fixtures::read(batch.blades[0], Gate::temper, {61.0});
        QCOMPARE(tasksOf(batch).size(), std::size_t(1));
    }

    void anUnverifiedTesterComesFirst() {
        Batch batch = tempered({"A", "B"});
        batch.verifications.clear();
        fixtures::read(batch.blades[1], Gate::temper, {62.1, 62.2, 62.3});
        const std::vector<Task> tasks = tasksOf(batch);
        QCOMPARE(tasks.front().blade, std::size_t(1));
        QCOMPARE(tasks.front().next.act, Act::verifyTester);
    }

    void aBladeIsAskedAtTheFurthestGateThatHasBegun() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A", "B"});
        for (Blade& blade : batch.blades) blade.tempers.clear();
        QCOMPARE(tasksOf(batch).front().gate, Gate::quench); // nothing begun
        fixtures::read(batch.blades[0], Gate::quench, {65.2, 65.3, 65.4});
        const std::vector<Task> passed = tasksOf(batch);
        const auto first = std::find_if(passed.begin(), passed.end(), [](const Task& t) { return t.blade == 0; });
        QCOMPARE(first->gate, Gate::temper); // the gate before is passed
        batch.blades[1].tempers.push_back({"c1", 1, 1, 205, 2, "", at(9)});
        const std::vector<Task> tempered = tasksOf(batch);
        const auto second = std::find_if(tempered.begin(), tempered.end(), [](const Task& t) { return t.blade == 1; });
        QCOMPARE(second->gate, Gate::temper); // a temper was logged though nothing was read at Quench
    }

    void bladesThatAreDoneOrOutAskForNothing() {
        Batch batch = tempered({"A", "B"});
        fixtures::read(batch.blades[0], Gate::temper, {62.1, 62.2, 62.3});
        batch.blades[1].excuses.push_back({Gate::temper, "a sibling stands for it", "HB", at(9)});
        QVERIFY(tasksOf(batch).empty());
        Batch cracked = fixtures::batch("115CrV3", {61, 63}, {"A"});
        cracked.blades[0].fate = BladeFate{Fate::cracked, Gate::quench, "in the oil", "HB", at(9)};
        fixtures::read(cracked.blades[0], Gate::quench, {65.2, 65.3, 65.4});
        QVERIFY(tasksOf(cracked).empty());
    }

    // The median of the others, whatever their number: by hand from 60, 61, 62, 64 with the tester's error 0.2.
    void siblingsAreTheOthersOfTheSameRound_data() {
        QTest::addColumn<int>("blade");
        QTest::addColumn<double>("median");
        QTest::newRow("without 60: 61, 62, 64") << 0 << 62.0;
        QTest::newRow("without 61: 60, 62, 64") << 1 << 62.0;
        QTest::newRow("without 62: 60, 61, 64") << 2 << 61.0;
        QTest::newRow("without 64: 60, 61, 62") << 3 << 61.0;
        QTest::newRow("not read: all four") << 4 << 61.5;
    }
    void siblingsAreTheOthersOfTheSameRound() {
        QFETCH(int, blade);
        QFETCH(double, median);
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A", "B", "C", "D", "E", "F"});
        const double values[] = {60, 61, 62, 64};
        for (std::size_t i = 0; i < 4; ++i)
            fixtures::read(batch.blades[i], Gate::temper, {values[i], values[i], values[i]});
        fixtures::read(batch.blades[5], Gate::temper, {50, 50, 50}); // of another hardening: no sibling
        batch.blades[5].round = 2;
        for (Reading& r : batch.blades[5].readings) r.round = 2;
        for (Temper& c : batch.blades[5].tempers) c.round = 2;
        const VerificationBook book(batch, fixtures::tables());
        std::vector<Case> cases;
        for (const Blade& b : batch.blades) cases.push_back(caseOf(batch, b, Gate::temper, book, fixtures::tables()));
        const Siblings siblings = Family(batch, cases).siblingsOf(cases[std::size_t(blade)]);
        QVERIFY(std::abs(siblings.median.value() - (median - 0.2)) < 1e-9);
        QCOMPARE(siblings.judged, blade == 4 ? 4 : 3);
    }

    void oneAloneHasNoSiblings() {
        Batch batch = tempered({"A"});
        fixtures::read(batch.blades[0], Gate::temper, {62, 62, 62});
        const VerificationBook book(batch, fixtures::tables());
        const std::vector<Case> cases{caseOf(batch, batch.blades[0], Gate::temper, book, fixtures::tables())};
        const Siblings siblings = Family(batch, cases).siblingsOf(cases[0]);
        QCOMPARE(siblings.judged, 0);
        QVERIFY(!siblings.median);
    }
};

QTEST_APPLESS_MAIN(tst_Agenda)
#include "tst_agenda.moc"
