// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/gates.h"
#include "core/judge/tester_health.h"
#include "demo/demo.h"
#include "tests/support/fixtures.h"

#include <QtTest>
#include <set>

using namespace rollcall;

class tst_Demo : public QObject {
    Q_OBJECT

private slots:
    void showsEveryVerdictAndSoundRecord_data() {
        QTest::addColumn<int>("hour");
        QTest::newRow("afternoon") << 15;
        QTest::newRow("just after midnight") << 0;
    }
    void showsEveryVerdictAndSoundRecord() {
        QFETCH(int, hour);
        QTemporaryDir dir;
        const QString path = dir.filePath("demo.rollcall");
        DemoOptions options;
        options.today = fixtures::at(hour, 4);
        QVERIFY(writeDemo(path, fixtures::tables(), options).ok());
        auto log = Logbook::open(path, Logbook::Access::read).value();
        QVERIFY(log->check().value().empty());
        std::map<Gate, std::set<State>> states;
        std::set<Fact> facts;
        for (const BatchSummary& summary : log->batches().value()) {
            const Batch batch = log->batch(summary.id).value();
            for (const Blade& blade : batch.blades) {
                for (const Reading& r : blade.readings) QVERIFY(r.time->utc_ms <= options.today.utc_ms);
            }
            const BatchVerdicts verdicts = judgeBatch(batch, fixtures::tables(), options.today);
            for (const BladeVerdicts& blade : verdicts.blades) {
                for (const auto& verdict : blade) {
                    if (!verdict) continue;
                    states[verdict->gate].insert(verdict->state);
                    for (const Reason& reason : verdict->reasons) facts.insert(reason.fact);
                }
            }
        }
        // Bench 1 drifts by 0.02 a week and is reported while it is still good.
        const Tester bench = log->shop().value().testers.at(0);
        const std::vector<Verification> runs = log->verifications().value();
        const TesterHealth health = testerHealth(bench, runs, fixtures::tables(), options.today);
        QVERIFY(health.answer->ok);
        QVERIFY(health.drift->likely && health.weeks_left.value() > 4);
        QVERIFY(std::abs(health.drift->per_week - 0.02) < 0.006);
        QVERIFY(bench.learned.has_value());
        QCOMPARE(states[Gate::temper].size(), std::size_t(5));
        QVERIFY(states[Gate::quench].count(State::pass) && states[Gate::quench].count(State::borderline) &&
                states[Gate::quench].count(State::fail) && states[Gate::quench].count(State::notYet));
        for (const Fact fact :
             {Fact::tempersMissing, Fact::unevenBlade, Fact::notYetDone, Fact::testerNotVerified, Fact::moreReadingsMay,
              Fact::allBladesLow, Fact::steelFailed, Fact::onlyThisBladeLow, Fact::excusedBecause, Fact::outBecause,
              Fact::filesAgree, Fact::filesContradict, Fact::instrumentAverage, Fact::spacingBroken}) {
            QVERIFY2(facts.count(fact), qPrintable(QString::number(int(fact))));
        }
    }
};

QTEST_GUILESS_MAIN(tst_Demo)
#include "tst_demo.moc"
