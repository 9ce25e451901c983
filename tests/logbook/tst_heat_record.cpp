// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/blades.h"
#include "logbook/actions/heat.h"
#include "logbook/read/history.h"
#include "logbook/schema.h"
#include "tests/support/fixtures.h"
#include "tests/support/temp_logbook.h"

using namespace rollcall;
using fixtures::TempLogbook;

class tst_HeatRecord : public QObject {
    Q_OBJECT

    static HeatDraft heat(const Batch& batch, const std::string& oven) {
        HeatDraft draft;
        draft.batch = batch.id;
        draft.oven = oven;
        draft.set_c = 810;
        draft.min_minutes = 5;
        draft.max_minutes = 12;
        return draft;
    }

private slots:
    void aHeatComesBackWhole() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const std::string oven = addOven(*log, {"", "Oven 1", 5, {}}).value();
        QVERIFY(!addOven(*log, {"", "Oven 1", 5, {}}));
        const std::string run = startHeat(*log, heat(batch, oven)).value();
        TraceDraft trace;
        trace.run = run;
        trace.name = "oven.csv";
        trace.file = "0,20\n60,800.125\n";
        trace.trace = Trace::of({{0, 20}, {60, 800.125}}).value();
        trace.shift_s = 30;
        QVERIFY(addTrace(*log, trace).ok());
        TraceDraft more = trace;
        more.file.clear();
        more.fresh = false;
        more.trace = Trace::of({{60, 800.125}, {90, 805}}).value();
        QVERIFY(addTrace(*log, more).ok());
        const std::string& blade = batch.blades[0].id;
        QVERIFY(markHeat(*log, run, blade, 1, HeatMoment::in, 40).ok());
        QVERIFY(markHeat(*log, run, blade, 1, HeatMoment::out, 70).ok());
        QVERIFY(markHeat(*log, run, blade, 1, HeatMoment::out, 75).ok()); // a later mark takes its place
        HeatNoteDraft note;
        note.run = run;
        note.blade = blade;
        note.quenchant_c = 55;
        QVERIFY(noteHeat(*log, note).ok());
        note.quenchant_c.reset();
        note.transfer_s = 1.5;
        QVERIFY(noteHeat(*log, note).ok());
        QVERIFY(logWarp(*log, blade, 1, 0, {"", 1.2, WarpSide::right}, "1.2R").ok());
        QVERIFY(logColour(*log, blade, {1, 1, "spine", "dark blue", OxideSurface::bare, true, {}}).ok());
        Recipe recipe;
        recipe.name = "R";
        recipe.stages = {{StageKind::austenitise, 810, 5, 12, 10, "", "810"}};
        QVERIFY(addRecipe(*log, recipe).ok());
        const std::string second = addRecipe(*log, recipe).value();
        QVERIFY(useRecipe(*log, batch.id, second).ok());

        QVERIFY(log.reopen().ok());
        const Batch back = log->batch(batch.id).value();
        QCOMPARE(back.heat_runs.size(), std::size_t(1));
        const Trace& stored = *back.heat_runs[0].trace;
        QCOMPARE(stored.samples().size(), std::size_t(4));
        QCOMPARE(stored.start(), 30.0);
        QCOMPARE(stored.samples()[1].c, 800.125);
        QCOMPARE(stored.end(), 120.0);
        const BladeHeat& own = back.blades[0].heats.at(0);
        QCOMPARE(own.in_s.value(), 40.0);
        QCOMPARE(own.out_s.value(), 75.0);
        QCOMPARE(own.quenchant_c.value(), 55.0);
        QCOMPARE(own.transfer_s().value(), 1.5);
        QVERIFY(back.blades[0].warps.at(0).mm == 1.2 && back.blades[0].warps[0].high == WarpSide::right);
        QVERIFY(back.blades[0].colours.at(0).torch && back.blades[0].colours[0].zone == "spine");
        QCOMPARE(back.recipe->version, 2);
        QCOMPARE(back.recipe->stages[0].max_minutes.value(), 12.0);
        QVERIFY(log->check().value().empty());

        QVERIFY(strikeHeat(*log, run, "by mistake").ok());
        QVERIFY(log->batch(batch.id).value().heat_runs.empty());
        QVERIFY(log->batch(batch.id).value().blades[0].heats.empty());
        QVERIFY(!strikeHeat(*log, run, ""));
    }
    void heatsThatCannotBeAreRefused() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const std::string oven = addOven(*log, {"", "Oven 1", 5, {}}).value();
        HeatDraft draft = heat(batch, oven);
        draft.set_c = 20;
        QVERIFY(!startHeat(*log, draft));
        draft = heat(batch, oven);
        draft.max_minutes = 3;
        QVERIFY(!startHeat(*log, draft));
        QVERIFY(!addTrace(*log, {"none", "x", {}, Trace(), 0, true}));
        Recipe recipe;
        recipe.name = "empty";
        QVERIFY(!addRecipe(*log, recipe));
        QVERIFY(!logWarp(*log, batch.blades[0].id, 1, 0, {"", -1, WarpSide::left}, ""));
    }
    void marksAreOnlyAdded() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const std::string run = startHeat(*log, heat(batch, addOven(*log, {"", "Oven 1", 5, {}}).value())).value();
        QVERIFY(markHeat(*log, run, batch.blades[0].id, 1, HeatMoment::in, 40).ok());
        log.close();
        QVERIFY(TempLogbook::meddle(log.path(), "UPDATE heat_mark SET clock_s=0").contains("append-only"));
        QVERIFY(TempLogbook::meddle(log.path(), "DELETE FROM heat_run").contains("append-only"));
    }
    void ovensAreNotBookedTwice() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        PlannedRun temper;
        temper.batch = batch.id;
        temper.oven = addOven(*log, {"", "Oven 1", 5, {}}).value();
        temper.what = "temper 1";
        temper.temperature_c = 205;
        temper.hours = 2;
        temper.start_ms = log->now().utc_ms;
        const std::string id = planRun(*log, temper, "205 2").value();
        temper.start_ms += 3600000;
        const auto clash = planRun(*log, temper, "205 2");
        QVERIFY(!clash && clash.error().text.find("Oven 1 is taken") != std::string::npos);
        QVERIFY(markPlanned(*log, id, "cancelled").ok());
        QVERIFY(planRun(*log, temper, "205 2").ok());
        QVERIFY(!markPlanned(*log, id, "cancelled")); // said once
    }
    void otherBatchesTeachTheCurve() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        TemperDraft temper;
        temper.batch = batch.id;
        temper.blades = {batch.blades[0].id, batch.blades[1].id};
        temper.temperature_c = 205;
        temper.hours = 2;
        QVERIFY(logTemper(*log, temper).ok());
        // Only what a verified tester has read teaches (E19).
        QVERIFY(logReading(*log, log.reading(batch, 1, 61.5)).ok());
        std::map<std::string, std::vector<TemperObservation>> unverified;
        QVERIFY(temperHistory(
                    *log, fixtures::tables(),
                    [] {
                        Batch none;
                        none.id = "other";
                        none.grade = "115CrV3";
                        return none;
                    }(),
                    unverified)
                    .value()
                    .empty());
        const std::string run = startVerification(*log, log.tester(), log.block()).value();
        for (const double value : {62.6, 62.7, 62.5}) QVERIFY(logBlockReading(*log, run, value, "").ok());
        QVERIFY(logReading(*log, log.reading(batch, 0, 61.5)).ok());
        Batch other;
        other.id = "other";
        other.grade = "115crv3";
        std::map<std::string, std::vector<TemperObservation>> known;
        QCOMPARE(temperHistory(*log, fixtures::tables(), other, known).value().size(), std::size_t(1));
        other.grade = "O1";
        QVERIFY(temperHistory(*log, fixtures::tables(), other, known).value().empty());
        other = batch;
        QVERIFY(temperHistory(*log, fixtures::tables(), other, known).value().empty()); // never from itself
    }
    // A file of the first schema is brought up to date when it is opened, and stays beside it as it was.
    void anOlderLogbookIsBroughtUpToDate() {
        QTemporaryDir dir;
        const QString path = dir.filePath("old.rollcall");
        QString sql = QStringLiteral("PRAGMA application_id=%1;;PRAGMA user_version=1").arg(schema::applicationId);
        for (const char* statement : schema::migration(1)) sql += QStringLiteral(";;") + QLatin1String(statement);
        QCOMPARE(TempLogbook::meddle(path, sql), QString());
        {
            auto opened = Logbook::open(path, Logbook::Access::read);
            QVERIFY2(opened.ok(), opened.ok() ? "" : opened.error().message().c_str());
            QCOMPARE((*opened)->schemaVersion(), schema::version);
            QVERIFY(addOven(**opened, {"", "Oven 1", 5, {}}).ok());
            QVERIFY((*opened)->check().value().empty());
        }
        QVERIFY(QFile::exists(path + QStringLiteral(".before-schema-%1").arg(schema::version)));
        QCOMPARE(TempLogbook::meddle(path, "DELETE FROM heat_mark"), QString()); // empty: nothing to refuse
        auto again = Logbook::open(path, Logbook::Access::write);
        QVERIFY(again.ok());
        QCOMPARE((*again)->shop().value().ovens.size(), std::size_t(1));
    }
};

QTEST_GUILESS_MAIN(tst_HeatRecord)
#include "tst_heat_record.moc"
