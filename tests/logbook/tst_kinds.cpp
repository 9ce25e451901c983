// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/kinds.h"

#include "logbook/actions/blades.h"
#include "logbook/actions/heat.h"
#include "logbook/actions/instruments.h"
#include "logbook/actions/proof.h"
#include "logbook/actions/release.h"
#include "logbook/actions/steel.h"
#include "logbook/database.h"
#include "logbook/schema.h"
#include "logbook/touched.h"
#include "tests/support/temp_logbook.h"

#include <set>
#include <stdexcept>

using namespace rollcall;
using fixtures::TempLogbook;

// The list of kinds against the database itself, and what follows from it: what acts touch.
class tst_Kinds : public QObject {
    Q_OBJECT

    static QStringList column(Database& database, const QString& sql) {
        QStringList texts;
        for (const Row& row : database.select(sql).value()) texts << row[0].toString();
        return texts;
    }

private slots:
    // Every table is a kind, or one of the few that the change log does not describe.
    void everyTableIsAKind() {
        TempLogbook log;
        const QSet<QString> bare{"change", "attachment_blob", "derived"};
        std::set<std::string> known;
        for (const Kind& kind : kinds()) QVERIFY2(known.insert(kind.table).second, kind.table);
        for (const QString& table :
             column(log->database(), "SELECT name FROM sqlite_master WHERE type='table' AND name NOT LIKE 'sqlite_%'"))
            QVERIFY2(bare.contains(table) != (known.count(table.toStdString()) != 0), qPrintable(table));
        for (const Kind& kind : kinds()) QVERIFY2(kind.since >= 1 && kind.since <= schema::version, kind.table);
    }

    // What the list says of a kind is so in the database: columns that are named exist, append-only rows are guarded.
    void theListIsTrue() {
        TempLogbook log;
        for (const Kind& kind : kinds()) {
            const QString table = QLatin1String(kind.table);
            const QStringList columns =
                column(log->database(), QStringLiteral("SELECT name FROM pragma_table_info('%1')").arg(table));
            QVERIFY2(columns.contains("id"), kind.table);
            for (const ColumnWords& words : kind.words)
                QVERIFY2(columns.contains(QLatin1String(words.column)), kind.table);
            const std::string_view owner = kind.owner;
            if (!owner.empty() && owner != kind.table)
                QVERIFY2(columns.contains(QLatin1String(kind.owner)), kind.table);
            QVERIFY2(kind.reach == Reach::batch || kind.reach == Reach::list || owner.empty(), kind.table);
            // A person's initials never leave in a copy without names.
            for (const char* who : {"person", "initials"}) {
                const auto words = std::find_if(kind.words.begin(), kind.words.end(), [&](const ColumnWords& one) {
                    return std::string_view(one.column) == who;
                });
                if (columns.contains(QLatin1String(who)) && kind.copied)
                    QVERIFY2(words != kind.words.end() && words->are == ColumnWords::Are::numbered, kind.table);
            }
            const QStringList triggers = column(
                log->database(),
                QStringLiteral("SELECT name FROM sqlite_master WHERE type='trigger' AND tbl_name='%1'").arg(table));
            QCOMPARE(triggers.size(), kind.append_only ? 2 : 0);
        }
        QCOMPARE(kindOf("reading")->table, "reading");
        QCOMPARE(kindOf("nothing"), static_cast<const Kind*>(nullptr));
    }

    // Each act touches what it changes, and no more.
    void actsTouchWhatTheyChange() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        const std::string blade = batch.blades[0].id;
        (void)log->takeTouched();
        const auto touched = [&](const char* what, bool done) {
            if (!done) qWarning("%s failed", what);
            return log->takeTouched();
        };
        const auto onlyBatch = [&](const Touched& t) {
            return t.batches == std::set<std::string>{batch.id} && !t.shop && !t.runs && !t.list && !t.everything;
        };
        const auto logged = logReading(*log, log.reading(batch, 0, 62.1));
        QVERIFY(onlyBatch(touched("reading", logged.ok())));
        QVERIFY(onlyBatch(touched("strike", strikeReading(*log, *logged, StrikeReason::edge, "").ok())));
        QVERIFY(onlyBatch(touched("excuse", excuse(*log, blade, Gate::temper, "no flat").ok())));
        QVERIFY(onlyBatch(touched("shot note", addSteelNote(*log, batch.id, {}).ok())));
        QVERIFY(onlyBatch(touched("edge", measureEdge(*log, blade, {0.3, 15, EdgeGrind::flat, "", {}}, "").ok())));
        TemperDraft temper;
        temper.batch = batch.id;
        temper.blades = {blade};
        const auto tempered = logTemper(*log, temper);
        QVERIFY(onlyBatch(touched("temper", tempered.ok())));
        QVERIFY(onlyBatch(touched("struck temper", strikeTemper(*log, *tempered, "slip").ok())));
        HeatDraft heat;
        heat.batch = batch.id;
        const auto oven = addOven(*log, {"", "Oven 1", 5, {}});
        QVERIFY(touched("oven", oven.ok()).shop);
        heat.oven = *oven;
        heat.set_c = 800;
        const auto run = startHeat(*log, heat);
        QVERIFY(onlyBatch(touched("heat", run.ok())));
        QVERIFY(onlyBatch(touched("mark", markHeat(*log, *run, blade, 1, HeatMoment::in, 0).ok())));
        QVERIFY(onlyBatch(touched("lot value", addCertificate(*log, batch.id, {{"C", 1.1, {}, {}}}, {}, {}).ok())));

        Touched t = touched("limits", changeLimits(*log, batch.id, {60, 62}, "60:62", {}).ok());
        QVERIFY(t.list && t.batches.count(batch.id) == 1 && !t.runs);
        t = touched("rename", renameBlade(*log, blade, "A-9").ok());
        QVERIFY(t.list && t.batches.count(batch.id) == 1);
        t = touched("person", addPerson(*log, "HB", "").ok());
        QVERIFY(t.shop && !t.list && !t.runs && t.batches.empty());
        const auto verification = startVerification(*log, log.tester(), log.block());
        QVERIFY(touched("run", verification.ok()).runs);
        t = touched("block reading", logBlockReading(*log, *verification, 62.7, "").ok());
        QVERIFY(t.runs && t.batches.empty() && !t.everything);
        QVERIFY(log->takeTouched().nothing());
        // What is refused touches nothing.
        QVERIFY(!excuse(*log, blade, Gate::temper, " ").ok());
        QVERIFY(log->takeTouched().nothing());
    }

    // A batch's own lot and purpose lead to it though it is they that are pointed at.
    void aLotLeadsToItsBatch() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        (void)log->takeTouched();
        QVERIFY(changeLot(*log, batch.id, "bar A", "the mill", "H 1").ok());
        const Touched t = log->takeTouched();
        QCOMPARE(t.batches, std::set<std::string>{batch.id});
        QVERIFY(t.list);
    }

    void tooMuchToFollowTouchesEverything() {
        TempLogbook log;
        const Batch batch = log.withBatch();
        (void)log->takeTouched();
        QVERIFY(log->transact("many",
                              [&]() -> Result<Done> {
                                  for (int i = 0; i < 1001; ++i) {
                                      auto done = log->database().insert(
                                          "setting", {{"id", QString::number(i)}, {"value", QStringLiteral("x")}});
                                      if (!done) return done;
                                  }
                                  return Done{};
                              })
                    .ok());
        QVERIFY(log->takeTouched().everything);
    }

    // --- transactions
    void workThatThrowsLeavesNoTraceAndNoOpenTransaction() {
        TempLogbook log;
        log.withBatch();
        const auto before = log->counts().value();
        bool thrown = false;
        try {
            (void)log->inOneTransaction([&]() -> Result<Done> {
                if (auto done = addPerson(*log, "HB", ""); !done) return done.error();
                throw std::runtime_error("the work threw");
            });
        } catch (const std::runtime_error&) {
            thrown = true;
        }
        QVERIFY(thrown);
        QCOMPARE(log->counts().value(), before);
        QVERIFY(addPerson(*log, "HB", "").ok()); // nothing is open that would swallow it
        QVERIFY(log.reopen().ok());
        QCOMPARE(log->shop().value().people.size(), std::size_t(1));
        QVERIFY(log->check().value().empty());
    }

    void anInnerStretchIsUndoneAlone() {
        TempLogbook log;
        Database& database = log->database();
        Database::Transaction outer(database);
        QVERIFY(outer.begun().ok());
        QVERIFY(database.run("INSERT INTO derived VALUES ('a', '1')").ok());
        {
            Database::Transaction inner(database);
            QVERIFY(inner.begun().ok());
            QVERIFY(database.run("INSERT INTO derived VALUES ('b', '2')").ok());
            {
                Database::Transaction innermost(database);
                QVERIFY(database.run("INSERT INTO derived VALUES ('c', '3')").ok());
                QVERIFY(innermost.commit().ok());
            }
        } // left without commit
        QVERIFY(outer.commit().ok());
        QCOMPARE(column(database, "SELECT what FROM derived ORDER BY what"), QStringList{"a"});
    }
};

QTEST_GUILESS_MAIN(tst_Kinds)
#include "tst_kinds.moc"
