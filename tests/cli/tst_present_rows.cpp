// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "demo/demo.h"
#include "logbook/actions/grain.h"
#include "logbook/actions/heat.h"
#include "logbook/kinds.h"
#include "logbook/read/present_rows.h"
#include "logbook/transfer/import.h"
#include "tests/support/every_act.h"
#include "tests/support/in_short.h"

#include <QTemporaryDir>
#include <QtTest>

using namespace rollcall;
using fixtures::everyAct;
using fixtures::inShort;
using fixtures::LoggedLines;
using fixtures::plain;

// Where many batches are read, tables that one has no row in are not asked: what is read must be the same, after any
// act that came in between, and after one that was given up.
class tst_PresentRows : public QObject {
    Q_OBJECT

    LoggedLines m_shop;

    Result<Done> log(const char* line) { return m_shop.log(plain(line)); }
    // The shop's work up to an act.
    void workUpTo(const char* act) {
        m_shop.begin("shop.rollcall");
        for (const char* line : everyAct()) {
            if (QByteArray(line).contains(act)) break;
            QVERIFY(log(line).ok());
        }
        QVERIFY(m_shop->expectMany().ok());
    }
    // All batches as they are read now, and as they are where nothing is left out: within a transaction.
    void compare(const char* after) { compare(*m_shop, after); }
    static void compare(Logbook& logbook, const char* after) {
        for (const BatchSummary& batch : logbook.batches().value()) {
            const std::string now = inShort(logbook.batchAlone(batch.id).value());
            std::string whole;
            QVERIFY(logbook
                        .inOneTransaction([&]() -> Result<Done> {
                            whole = inShort(logbook.batchAlone(batch.id).value());
                            return Done{};
                        })
                        .ok());
            QVERIFY2(now == whole, fmt::format("{}\n{}\n{}", after, now, whole).c_str());
        }
    }

private slots:
    // Known before anything was there: each act in turn is followed.
    void afterEachAct() {
        m_shop.begin("shop.rollcall");
        QVERIFY(m_shop->expectMany().ok());
        for (const char* line : everyAct()) {
            const auto logged = log(line);
            if (QByteArray(line).contains("'undo'")) continue; // these acts have no entries of their own to take back
            QVERIFY2(logged.ok(), logged.ok() ? "" : logged.error().message().c_str());
            compare(line);
        }
        // Two acts that no line tells.
        const std::string pear = m_shop->batches()->front().id;
        const std::string quince = m_shop->batches()->back().id;
        Recipe recipe;
        recipe.name = "Orchard";
        recipe.grade = "115CrV3";
        recipe.stages = {{StageKind::austenitise, 800, 10, {}, 5, "oil", ""}};
        const auto written = addRecipe(*m_shop, recipe);
        QVERIFY2(written.ok(), written.ok() ? "" : written.error().message().c_str());
        QVERIFY(useRecipe(*m_shop, pear, *written).ok());
        compare("recipe");
        QVERIFY(askGrain(*m_shop, pear, 9).ok());
        compare("grain asked");
        PresentRows present;
        QVERIFY(present.learn(m_shop->database()).ok());
        QVERIFY(present.holds(m_shop->database()).value());
        QVERIFY(present.has("warp", pear) && !present.has("warp", quince));
        QVERIFY(present.has("reading_mark", pear) && !present.has("reading_mark", quince));
        QVERIFY(present.has("reading", quince)); // always asked
        const std::map<std::string, int> counts = m_shop->counts().value();
        QStringList missing; // tables that may be left out and that no act has written to
        for (const Kind& kind : kinds()) {
            if (!present.has(kind.table, "no batch") && counts.at(kind.table) == 0)
                missing << QString::fromLatin1(kind.table);
        }
        QCOMPARE(missing.join(' '), QString());
    }
    // An act that was given up after its entry: the number of that entry is the next act's.
    void afterAnActThatWasGivenUp() {
        workUpTo("'verify'");
        QVERIFY(!m_shop
                     ->inOneTransaction([&]() -> Result<Done> {
                         auto done = log("{'do':'note','batch':'Pear 3','text':'not after all'}");
                         return done ? Result<Done>(Error{ErrorKind::refused, "", "given up"}) : done;
                     })
                     .ok());
        compare("given up");
        QVERIFY(log("{'do':'warp','batch':'Plum 1','blade':'A','mm':1.2,'high':'L'}").ok());
        compare("another act");
        QVERIFY(m_shop->expectMany().ok());
        compare("known anew");
    }
    void afterAnImport() {
        workUpTo("'sign'");
        const auto report = importReadings(*m_shop, fixtures::tables(), "r.csv",
                                           "batch,blade,gate,temper,value,scale,tester,time,zone\n"
                                           "Pear 3,P-1,temper,1,61.2,HRC,Bench 1,2026-11-20T10:10,\n"
                                           "Medlar 1,M-1,temper,1,61.2,HRC,Bench 1,2026-11-20T10:11,\n");
        QVERIFY2(report.ok(), report.ok() ? "" : report.error().message().c_str());
        compare("import");
        QVERIFY(m_shop->expectMany().ok());
        compare("import, known anew");
    }
    // A year of a shop.
    void theDemo() {
        const QTemporaryDir dir;
        const QString path = dir.filePath(QStringLiteral("demo.rollcall"));
        DemoOptions options;
        options.today = LogbookSeams::real().now();
        QVERIFY(writeDemo(path, fixtures::tables(), options).ok());
        const auto demo = Logbook::open(path, Logbook::Access::write).value();
        QVERIFY(demo->expectMany().ok());
        compare(*demo, "the demo");
    }
};

QTEST_GUILESS_MAIN(tst_PresentRows)
#include "tst_present_rows.moc"
