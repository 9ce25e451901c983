// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/proof.h"
#include "tests/support/fixtures.h"
#include "tests/support/temp_logbook.h"

using namespace rollcall;
using fixtures::TempLogbook;

class tst_ProofRecord : public QObject {
    Q_OBJECT

private slots:
    void edgesAndRungsComeBackWhole() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const std::string blade = batch.blades[0].id;
        QVERIFY(measureEdge(*log, blade, {0.4, 15, EdgeGrind::hollow, "stone", 0.75}, "0.4 15").ok());
        QVERIFY(measureEdge(*log, blade, {0.3, 17, EdgeGrind::convex, "belt", {}}, "0.3 17").ok());
        EdgeRung rung;
        rung.round = 1;
        rung.after_temper = 2;
        rung.force_n = 88.5;
        rung.raise_deg = 35;
        rung.contact_mm = 2.5;
        rung.outcome = EdgeOutcome::roll;
        rung.size_mm = 0.12;
        rung.place_mm = 40;
        rung.sound = true;
        const std::string id = logRung(*log, blade, rung, "88.5 35").value();
        QVERIFY(logRung(*log, blade, EdgeRung{}, "by hand").ok());
        QVERIFY(noteGrinding(*log, blade, {true, false, "straw", {}}).ok());
        QVERIFY(askEdge(*log, batch.id, {"Chopper", "hard and thin", true, {120, 40}}).ok());
        QVERIFY(markDamage(*log, blade, {"", "chip", 40.0, 0.4, "bright", "", {}, {}, {}}, {"chip.png", "bytes"}).ok());

        QVERIFY(log.reopen().ok());
        const Batch back = log->batch(batch.id).value();
        const Blade& b = back.blades[0];
        QCOMPARE(b.edges.size(), std::size_t(2));
        QVERIFY(b.edges[0].grind == EdgeGrind::hollow && *b.edges[0].before_hardening_mm == 0.75);
        QVERIFY(b.edges[1].angle_per_side_deg == 17 && b.edges[1].finish == "belt" && !b.edges[1].before_hardening_mm);
        const EdgeRung& r = b.rungs.at(0);
        QVERIFY(r.id == id && *r.force_n == 88.5 && *r.raise_deg == 35 && *r.contact_mm == 2.5 && r.after_temper == 2);
        QVERIFY(r.outcome == EdgeOutcome::roll && *r.size_mm == 0.12 && *r.place_mm == 40 && r.sound && !r.struck);
        QVERIFY(!b.rungs.at(1).force_n && !b.rungs[1].raise_deg && !b.rungs[1].size_mm);
        QVERIFY(b.grinding.at(0).colour && b.grinding[0].text == "straw");
        QVERIFY(back.edge_ask->by_hand && back.edge_ask->rung == (EdgeLoadStep{120, 40}));
        QVERIFY(b.damage.at(0).photo == "chip.png" && *b.damage[0].size_mm == 0.4);
        QVERIFY(strikeRung(*log, id, "slipped").ok());
        QVERIFY(log->batch(batch.id).value().blades[0].rungs[0].struck);
        QVERIFY(log->check().value().empty());
    }
    void trialsAreKeptKeyByKey() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const Protocol protocol = fixtures::tables().protocols().front();
        const std::string trial = beginTrial(*log, batch.blades[1].id, 1, 2, protocol).value();
        QVERIFY(trialEvent(*log, trial, {TrialAct::answer, 370, 0, 0, "14.6 in", {}}).ok());
        QVERIFY(trialEvent(*log, trial, {TrialAct::photo, 0, 0, 0, "edge.png", {}}, {"edge.png", "bytes"}).ok());
        QVERIFY(trialEvent(*log, trial, {TrialAct::plan, 4.8, 100, 300, "", {}}).ok());
        QVERIFY(trialEvent(*log, trial, {TrialAct::takeBack, 0, 0, 0, "", {}}).ok());
        // The shop's own version of it changes nothing about the trial that runs.
        Protocol own = protocol;
        own.steps[0].most = 300;
        QVERIFY(keepProtocol(*log, own).ok());
        own.steps.pop_back();
        QVERIFY(keepProtocol(*log, own).ok());
        QVERIFY(log.reopen().ok());
        const Trial back = log->batch(batch.id).value().blades[1].trials.at(0);
        QCOMPARE(protocolText(back.protocol), protocolText(protocol));
        QCOMPARE(back.after_temper, 2);
        QCOMPARE(back.events.size(), std::size_t(4));
        QVERIFY(back.events[0].act == TrialAct::answer && back.events[0].value == 370 &&
                back.events[0].text == "14.6 in");
        QVERIFY(back.events[2].second == 100 && back.events[2].third == 300);
        QCOMPARE(back.events[3].act, TrialAct::takeBack);
        const auto kept = log->shop().value().own_protocols;
        QCOMPARE(kept.size(), std::size_t(1)); // its last version
        QCOMPARE(kept[0].steps.size(), protocol.steps.size() - 1);
        QCOMPARE(*kept[0].steps[0].most, 300.0);
        QVERIFY(log->check().value().empty());
    }
    void studiesAndWhatIsRefused() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        QVERIFY(addStudy(*log, {"", "Soaks", "soak", {batch.blades[0].id, batch.blades[1].id}}).ok());
        const Study study = log->shop().value().studies.at(0);
        QVERIFY(study.name == "Soaks" && study.factor == "soak" && study.blades.size() == 2);
        QCOMPARE(log->batchOf(study.blades[1]).value(), batch.id);
        QVERIFY(!log->batchOf("nobody").ok());
        QVERIFY(!addStudy(*log, {"", "Alone", "", {batch.blades[0].id}}).ok());
        QVERIFY(!addStudy(*log, {"", " ", "", {"a", "b"}}).ok());
        QVERIFY(!measureEdge(*log, batch.blades[0].id, {0, 15, EdgeGrind::flat, "", {}}, "").ok());
        QVERIFY(!measureEdge(*log, batch.blades[0].id, {0.3, 60, EdgeGrind::flat, "", {}}, "").ok());
        QVERIFY(!askEdge(*log, batch.id, {"", "", false, {0, 45}}).ok());
        QVERIFY(!strikeRung(*log, "any", " ").ok());
        QVERIFY(!markDamage(*log, batch.blades[0].id, {}).ok());
        QVERIFY(!keepProtocol(*log, {"", {}}).ok());
        QVERIFY(!keepProtocol(*log, {"empty", {}}).ok());
        QVERIFY(!beginTrial(*log, batch.blades[0].id, 1, 0, {"empty", {}}).ok());
    }
};

QTEST_GUILESS_MAIN(tst_ProofRecord)
#include "tst_proof_record.moc"
