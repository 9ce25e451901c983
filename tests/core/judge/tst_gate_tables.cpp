// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/rules/readings.h"
#include "core/judge/rules/rules.h"
#include "tests/support/fixtures.h"

#include <QtTest>
#include <random>
#include <set>

using namespace rollcall;
using fixtures::tables;

// Fact and tone, as a test row names them.
struct Found {
    Fact fact;
    Tone tone = Tone::caution;
};
Q_DECLARE_METATYPE(std::vector<Found>)
Q_DECLARE_METATYPE(Gate)
Q_DECLARE_METATYPE(State)
Q_DECLARE_METATYPE(Act)

// The decision tables of the gates, row by row, as the handbook of judgement tells them: what was found on the left,
// what a careful maker then decides on the right.
class tst_GateTables : public QObject {
    Q_OBJECT

    static const GateTable& table(Gate gate) {
        static const std::vector<GateTable> all = gateTables();
        return all[indexOf(gate)];
    }
    static const DecisionRow& decided(Gate gate, const Findings& findings) {
        for (const DecisionRow& row : *table(gate).decisions) {
            if (row.fits(findings)) return row;
        }
        return table(gate).decisions->back();
    }
    static Findings findings(const std::vector<Found>& found) {
        Findings all;
        for (const Found& one : found) all.say(one.fact, one.tone, "test");
        return all;
    }
    static void row(const char* name, Gate gate, std::vector<Found> found, State state, Act act) {
        QTest::newRow(name) << gate << std::move(found) << state << act;
    }

private slots:
    void everyRowDecidesAsTheHandbookSays_data() {
        QTest::addColumn<Gate>("gate");
        QTest::addColumn<std::vector<Found>>("found");
        QTest::addColumn<State>("state");
        QTest::addColumn<Act>("act");
        const auto good = [](Fact f) { return Found{f, Tone::good}; };
        const auto bad = [](Fact f) { return Found{f, Tone::bad}; };
        const auto open = [](Fact f) { return Found{f, Tone::open}; };
        const Found inside = good(Fact::inWindow);

        row("steel outside", Gate::steel, {bad(Fact::steelNotConsistent)}, State::fail, Act::reassign);
        row("steel outside, and two may be it", Gate::steel,
            {bad(Fact::steelNotConsistent), {Fact::severalFit, Tone::note}}, State::fail, Act::tellApart);
        row("steel outside whatever the coupon", Gate::steel, {bad(Fact::steelNotConsistent), good(Fact::couponAgrees)},
            State::fail, Act::reassign);
        row("steel between", Gate::steel, {{Fact::steelUndecided}}, State::borderline, Act::takeShot);
        row("coupon against a good shot", Gate::steel, {good(Fact::steelConsistent), {Fact::couponContradicts}},
            State::borderline, Act::reassign);
        row("spark alone against it", Gate::steel, {{Fact::sparkContradicts}}, State::borderline, Act::reassign);
        row("good, through a coating", Gate::steel, {good(Fact::steelConsistent), {Fact::shotCoated}},
            State::borderline, Act::takeShot);
        row("good by the certificate", Gate::steel, {good(Fact::certificateConsistent)}, State::pass, Act::done);
        row("no analyser, a spark", Gate::steel, {good(Fact::sparkAgrees)}, State::pass, Act::done);
        row("nobody looked at the steel", Gate::steel, {open(Fact::noShotTaken)}, State::notYet, Act::takeShot);

        row("no heat", Gate::heat, {open(Fact::noHeatLogged)}, State::notYet, Act::startHeat);
        row("in the oven", Gate::heat, {open(Fact::notOutYet), {Fact::noteAgainstTrace}}, State::notYet,
            Act::markBlade);
        row("soaked too long and late", Gate::heat, {{Fact::soakOver}, {Fact::transferLate}}, State::borderline,
            Act::breakCoupon);
        row("oil too warm", Gate::heat, {good(Fact::soakGood), {Fact::quenchantOff}}, State::borderline,
            Act::makerDecides);
        row("heat as planned", Gate::heat, {good(Fact::soakGood), good(Fact::transferGood)}, State::pass, Act::done);

        row("no minimum", Gate::quench, {open(Fact::noMinimumSet)}, State::notYet, Act::setWindow);
        row("too thin to read", Gate::quench, {open(Fact::readingsTaken), {Fact::tooThin}}, State::notYet,
            Act::readThicker);
        row("two of three", Gate::quench, {open(Fact::readingsTaken), inside}, State::notYet, Act::takeReadings);
        row("harder than the grade can be", Gate::quench, {inside, {Fact::aboveGradeMaximum}}, State::borderline,
            Act::verifyOnHarderBlock);
        row("soft and all over the place", Gate::quench, {bad(Fact::soft), {Fact::scatterOverThree}}, State::fail,
            Act::mapReadings);
        row("all far too soft", Gate::quench, {bad(Fact::soft), {Fact::allBladesVeryLow}}, State::fail,
            Act::backToSteel);
        row("soft by a tester nobody checked", Gate::quench, {{Fact::soft}, {Fact::testerNotVerified}},
            State::borderline, Act::verifyTester);
        row("soft by a tester that failed twice", Gate::quench, {{Fact::soft}, {Fact::readingsSuspect}}, State::notYet,
            Act::verifyTester);
        row("soft, and quenched between plates", Gate::quench,
            {bad(Fact::soft), {Fact::heatExplains}, {Fact::allBladesVeryLow}}, State::fail, Act::lookAtHeat);
        row("harder than the grade, the tester near and good", Gate::quench, {inside, {Fact::aboveGradeVerified}},
            State::pass, Act::done);
        row("soft", Gate::quench, {bad(Fact::soft), good(Fact::testerVerified)}, State::fail, Act::falseSoftness);

        for (const Gate gate : {Gate::quench, Gate::temper}) {
            const auto named = [&](const char* name) {
                static std::set<QByteArray> kept; // names must outlive the table
                return kept.insert(QByteArray(name) + (gate == Gate::quench ? ", quench" : ", temper"))
                    .first->constData();
            };
            row(named("inside"), gate, {inside}, State::pass, Act::done);
            row(named("inside by a tester nobody checked"), gate, {inside, {Fact::testerNotVerified}},
                State::borderline, Act::verifyTester);
            row(named("inside by a tester that failed"), gate, {inside, {Fact::testerFailed}}, State::borderline,
                Act::verifyTester);
            row(named("inside against the files"), gate, {inside, {Fact::filesConflict}}, State::borderline,
                Act::clearConflict);
            row(named("inside of another steel"), gate, {inside, {Fact::evidenceConflicts}}, State::borderline,
                Act::clearConflict);
            row(named("strikes alone"), gate, {inside, {Fact::reboundNotAlone}}, State::borderline, Act::backUpRebound);
            row(named("strikes backed up by files"), gate, {inside, {Fact::reboundNotAlone, Tone::note}}, State::pass,
                Act::done);
            row(named("a block over ten off"), gate, {inside, {Fact::blockFarOff}}, State::borderline,
                Act::verifyOnHarderBlock);
            row(named("a block over five off"), gate, {inside, {Fact::blockFarOff, Tone::note}}, State::pass,
                Act::done);
            row(named("two testers apart"), gate, {inside, {Fact::mixedTesters}}, State::borderline, Act::chooseSet);
            row(named("two testers apart, the better one soft"), gate, {bad(Fact::soft), {Fact::mixedTesters}},
                State::borderline, Act::chooseSet);
            if (gate == Gate::temper)
                row(named("far from expected"), gate, {inside, {Fact::surpriseFar}}, State::borderline,
                    Act::lookIntoSurprise);
            row(named("two groups"), gate, {{Fact::mayBeSoft}, {Fact::twoGroups}, {Fact::moreReadingsSettle}},
                State::borderline, Act::mapReadings);
            row(named("near the edge"), gate, {{Fact::mayBeSoft}, {Fact::moreReadingsSettle}}, State::borderline,
                Act::readAgain);
            row(named("one stands apart"), gate, {{Fact::mayBeSoft}, {Fact::flaggedReading}}, State::borderline,
                Act::readAgain);
            row(named("just below"), gate, {{Fact::mayBeSoft}, {Fact::meanBelow, Tone::note}}, State::borderline,
                Act::falseSoftness);
            row(named("just inside, nothing settles it"), gate, {{Fact::mayBeSoft}}, State::borderline,
                Act::makerDecides);
        }

        row("no window", Gate::temper, {open(Fact::noWindowSet)}, State::notYet, Act::setWindow);
        row("one temper to go", Gate::temper, {inside, open(Fact::tempersMissing)}, State::notYet, Act::logTemper);
        row("too thin at temper", Gate::temper, {open(Fact::readingsTaken), {Fact::tooThin}}, State::notYet,
            Act::readThicker);
        row("none of three", Gate::temper, {open(Fact::readingsTaken)}, State::notYet, Act::takeReadings);
        row("no temper gets it down", Gate::temper, {bad(Fact::hard), bad(Fact::noTemperReaches)}, State::fail,
            Act::makerDecides);
        row("hard by a tester nobody checked", Gate::temper,
            {{Fact::hard}, {Fact::notYetDone}, {Fact::testerNotVerified}}, State::borderline, Act::verifyTester);
        row("out of reach by a tester nobody checked", Gate::temper,
            {{Fact::hard}, bad(Fact::noTemperReaches), {Fact::testerFailed}}, State::borderline, Act::verifyTester);
        row("cracked", Gate::temper, {bad(Fact::crackSeen), inside}, State::fail, Act::clearCrack);
        row("cracked at the edge", Gate::edge, {bad(Fact::crackSeen), good(Fact::askedRungHeld)}, State::fail,
            Act::clearCrack);
        row("cracked on trial", Gate::proof, {bad(Fact::crackSeen), good(Fact::trialPassed)}, State::fail,
            Act::clearCrack);
        row("cracked, everything else answered", Gate::release, {bad(Fact::crackSeen), good(Fact::allAnswered)},
            State::fail, Act::clearCrack);
        row("cracked after it was released", Gate::release, {bad(Fact::crackSeen), good(Fact::signedFor)}, State::fail,
            Act::clearCrack);
        row("hard and uneven", Gate::temper, {{Fact::hard}, {Fact::notYetDone}, {Fact::unevenBlade}}, State::borderline,
            Act::mapReadings);
        row("only a brittle temper would do", Gate::temper,
            {{Fact::hard}, {Fact::notYetDone}, {Fact::temperAvoided, Tone::caution}}, State::borderline,
            Act::temperAgain);
        row("a temper beside the brittle range will do", Gate::temper,
            {{Fact::hard}, {Fact::notYetDone}, {Fact::temperAvoided, Tone::note}}, State::borderline, Act::temperAgain);
        row("hard", Gate::temper, {{Fact::hard}, {Fact::notYetDone}}, State::borderline, Act::temperAgain);
        row("tempered soft, tester unknown", Gate::temper, {{Fact::soft}, {Fact::verificationOtherBand}},
            State::borderline, Act::verifyTester);
        row("tempered soft", Gate::temper, {bad(Fact::soft)}, State::fail, Act::falseSoftness);

        row("thick metal chipped", Gate::edge, {bad(Fact::heatTreatmentAsked), {Fact::damageNotExplained}}, State::fail,
            Act::lookAtHeat);
        row("chipped by hand", Gate::edge, {{Fact::flexChipped}}, State::borderline, Act::takeRung);
        row("chipped, geometry unknown", Gate::edge, {{Fact::damageNotExplained}, open(Fact::edgeNotMeasured)},
            State::borderline, Act::noteEdge);
        row("chipped, size unknown", Gate::edge, {{Fact::damageNotExplained}}, State::borderline, Act::measureDamage);
        row("chipped at one place", Gate::edge, {{Fact::heatTreatmentAsked}, {Fact::localDamage}}, State::borderline,
            Act::takeRung);
        row("asked rung failed, none lower", Gate::edge, {{Fact::askedRungOpen}, {Fact::ladderEnds, Tone::note}},
            State::borderline, Act::makerDecides);
        row("asked rung failed", Gate::edge, {{Fact::askedRungOpen}}, State::borderline, Act::takeRung);
        row("asked rung failed, geometry unknown", Gate::edge, {{Fact::askedRungOpen}, open(Fact::edgeNotMeasured)},
            State::borderline, Act::noteEdge);
        row("no rung, geometry unknown", Gate::edge, {open(Fact::askedRungOpen), open(Fact::edgeNotMeasured)},
            State::notYet, Act::noteEdge);
        row("no flex yet", Gate::edge, {open(Fact::askedFlexOpen)}, State::notYet, Act::takeRung);
        row("held, but says little", Gate::edge, {good(Fact::askedRungHeld), {Fact::weakEvidence}}, State::borderline,
            Act::takeRung);
        row("held, geometry unknown", Gate::edge, {good(Fact::askedRungHeld), open(Fact::edgeNotMeasured)},
            State::borderline, Act::noteEdge);
        row("held, burnt in grinding", Gate::edge, {good(Fact::askedRungHeld), {Fact::burntInGrinding}},
            State::borderline, Act::fileEdge);
        row("held", Gate::edge, {good(Fact::askedRungHeld)}, State::pass, Act::done);
        row("flexed and came back", Gate::edge, {good(Fact::flexHeld), {Fact::weakEvidence, Tone::note}}, State::pass,
            Act::done);

        row("broken coupon, coarse", Gate::proof, {bad(Fact::grainCoarse), {Fact::outBecause, Tone::note}}, State::fail,
            Act::done);
        row("coarse", Gate::proof, {bad(Fact::grainCoarse), good(Fact::trialPassed)}, State::fail, Act::hardenFiner);
        row("trial failed", Gate::proof, {bad(Fact::trialFailed)}, State::fail, Act::lookAtHeat);
        row("trial running", Gate::proof, {open(Fact::trialRunning)}, State::notYet, Act::runTrial);
        row("grain across what is asked", Gate::proof, {{Fact::grainBetween}}, State::borderline, Act::countGrain);
        row("grain not counted out", Gate::proof, {open(Fact::grainOpen)}, State::notYet, Act::countGrain);
        row("passed, but its coupon is coarse", Gate::proof, {good(Fact::trialPassed), {Fact::pieceSpeaksAgainst}},
            State::borderline, Act::makerDecides);
        row("passed", Gate::proof, {good(Fact::trialPassed)}, State::pass, Act::done);
        row("its coupon is coarse", Gate::proof, {bad(Fact::pieceSpeaksAgainst), {Fact::grainCost, Tone::note}},
            State::fail, Act::hardenFiner);
        row("its sister broke", Gate::proof, {bad(Fact::pieceSpeaksAgainst)}, State::fail, Act::lookAtHeat);
        row("its sister broke, and may speak", Gate::proof, {{Fact::pieceAgainstInPart}}, State::borderline,
            Act::makerDecides);
        row("its sister passed", Gate::proof, {good(Fact::pieceSpeaksFor)}, State::excused, Act::done);
        row("its sister passed, and may speak", Gate::proof, {{Fact::pieceSpeaksInPart}}, State::borderline,
            Act::makerDecides);
        row("not tried", Gate::proof, {open(Fact::noTrialYet)}, State::notYet, Act::runTrial);

        row("signed, then changed", Gate::release, {{Fact::signatureStale}, {Fact::signedFor, Tone::note}},
            State::borderline, Act::sign);
        row("signed, then opened again", Gate::release, {{Fact::signatureStale}, open(Fact::gateMissing)},
            State::borderline, Act::answerGates);
        row("signed over an open gate", Gate::release, {{Fact::signedOver}, {Fact::gateMissing}}, State::pass,
            Act::done);
        row("released", Gate::release, {good(Fact::signedFor)}, State::pass, Act::done);
        row("scrapped", Gate::release, {bad(Fact::signedFor)}, State::fail, Act::done);
        row("held back", Gate::release, {{Fact::signedFor}, {Fact::gateMissing}}, State::borderline, Act::done);
        row("signed for another round", Gate::release, {{Fact::signedFor, Tone::note}}, State::notYet, Act::done);
        row("a gate is open", Gate::release, {bad(Fact::gateMissing)}, State::notYet, Act::answerGates);
        row("ready to sign", Gate::release, {good(Fact::allAnswered)}, State::notYet, Act::sign);
    }
    void everyRowDecidesAsTheHandbookSays() {
        QFETCH(Gate, gate);
        QFETCH(std::vector<Found>, found);
        const DecisionRow& row = decided(gate, findings(found));
        QTEST(row.state, "state");
        QTEST(row.act, "act");
    }

    // A row that an earlier one always takes the place of would be dead.
    void everyRowCanBeReached() {
        for (const GateTable& gate : gateTables()) {
            QVERIFY2(gate.decisions->back().when.empty() && gate.decisions->back().unless.empty(), nameOf(gate.gate));
            for (const DecisionRow& row : *gate.decisions) {
                bool reached = false;
                std::vector<std::size_t> pick(row.when.size(), 0);
                for (bool more = true; more && !reached;) { // each way to meet its conditions, one sign for each
                    Findings found;
                    for (std::size_t i = 0; i < pick.size(); ++i) {
                        const Sign& sign = row.when[i].any[pick[i]];
                        found.say(sign.fact, sign.tone.value_or(Tone::note), "test");
                    }
                    reached = &decided(gate.gate, found) == &row;
                    more = false;
                    for (std::size_t i = 0; i < pick.size() && !more; ++i) {
                        more = ++pick[i] < row.when[i].any.size();
                        if (!more) pick[i] = 0;
                    }
                }
                QVERIFY2(reached, qPrintable(QString("%1: %2").arg(nameOf(gate.gate), row.text().c_str())));
            }
        }
    }

    // Only what a rule of the gate may find is asked for; a condition on anything else could never hold.
    void everyConditionCanBeFound() {
        for (const GateTable& gate : gateTables()) {
            std::set<Fact> finds;
            for (const RuleRow& rule : gate.rules) finds.insert(rule.finds.begin(), rule.finds.end());
            for (const DecisionRow& row : *gate.decisions) {
                for (const auto* conditions : {&row.when, &row.unless}) {
                    for (const Condition& condition : *conditions) {
                        for (const Sign& sign : condition.any) QVERIFY2(finds.count(sign.fact) > 0, nameOf(sign.fact));
                    }
                }
            }
        }
    }

    // The rules of Quench and Temper say the same in any order.
    void rulesDoNotDependOnTheirOrder() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A", "B", "C", "D"});
        fixtures::read(batch.blades[0], Gate::temper, {62.0, 62.1, 61.9});
        fixtures::read(batch.blades[1], Gate::temper, {64.4, 64.6, 64.5});
        fixtures::read(batch.blades[2], Gate::temper, {58.0, 58.2, 55.9});
        fixtures::read(batch.blades[2], Gate::quench, {57.0, 56.2, 60.9});
        fixtures::read(batch.blades[3], Gate::temper, {62.0});
        const VerificationBook runs(batch, tables());
        std::mt19937 random(7);
        for (const Gate gate : {Gate::quench, Gate::temper}) {
            const std::vector<Case> cases = casesAt(batch, gate, runs, tables());
            const Family family(batch, cases);
            const std::optional<Instant> now;
            const GateRules<ReadBlade>& rules = gate == Gate::quench ? quenchGate() : temperGate();
            GateRules<ReadBlade> shuffled = rules;
            for (int turn = 0; turn < 20; ++turn) {
                std::shuffle(shuffled.rules.begin(), shuffled.rules.end(), random);
                for (const Case& c : cases) {
                    const Siblings siblings = family.siblingsOf(c);
                    const Outlook outlook;
                    const ReadBlade blade(batch, tables(), c, siblings, outlook, SteelStands::asClaimed, false, nullptr,
                                          runs, now);
                    const Verdict a = rules.judge(*c.blade, blade);
                    const Verdict b = shuffled.judge(*c.blade, blade);
                    QCOMPARE(b.state, a.state);
                    QCOMPARE(b.next.act, a.next.act);
                    const auto facts = [](const Verdict& v) {
                        std::multiset<std::pair<Fact, Tone>> all;
                        for (const Reason& r : v.reasons) all.insert({r.fact, r.tone});
                        return all;
                    };
                    QVERIFY(facts(a) == facts(b));
                }
            }
        }
    }

    // What decided is the first of what bites.
    void whatDecidedSpeaksFirst() {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A"});
        fixtures::read(batch.blades[0], Gate::temper, {58.0, 58.1, 57.9});
        const Verdict v = *judgeBatch(batch, tables(), std::nullopt).at(0, Gate::temper);
        QCOMPARE(v.state, State::fail);
        QCOMPARE(v.reasons.front().fact, Fact::soft);
        QVERIFY(v.row != nullptr);
        QCOMPARE(v.row->act, v.next.act);
    }

    void methodPrintsTheseTables() {
        QFile file(QStringLiteral(ROLLCALL_SOURCE_DIR "/docs/method.md"));
        QVERIFY(file.open(QIODevice::ReadOnly));
        const QString text = QString::fromUtf8(file.readAll());
        const QString expected = QString::fromStdString(gateTablesText());
        if (text.contains(expected)) return;
        const QStringList lines = expected.split('\n');
        for (const QString& line : lines)
            QVERIFY2(line.isEmpty() || text.contains(line), // rollcallctl rules prints them anew
                     qPrintable("docs/method.md has not: " + line));
        QFAIL("docs/method.md has the lines of the tables in another order; `rollcallctl rules` prints them");
    }
};

QTEST_APPLESS_MAIN(tst_GateTables)
#include "tst_gate_tables.moc"
