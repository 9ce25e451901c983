// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/store/ledger_book.h"
#include "app/store/shop_knowledge.h"
#include "core/judge/expectation.h"
#include "demo/demo.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/instruments.h"
#include "tests/support/fixtures.h"

#include <QTemporaryDir>
#include <QtTest>

using namespace rollcall;

// What is kept of a shop follows what acts touch, and is what reading everything anew would give.
class tst_ShopKnowledge : public QObject {
    Q_OBJECT

    QTemporaryDir m_dir;
    std::unique_ptr<Logbook> m_logbook;
    std::unique_ptr<ShopKnowledge> m_shop;

    static std::shared_ptr<const Tables> tables() { return std::make_shared<const Tables>(fixtures::tables()); }
    void keepUp() {
        const auto kept = m_shop->keepUp(m_logbook->takeTouched());
        QVERIFY2(kept.ok(), kept ? "" : kept.error().text.c_str());
    }
    void lookAround() {
        while (m_shop->lookAtOneMore().value()) {
        }
    }
    std::string idOf(const std::string& name) {
        for (const BatchSummary& batch : m_shop->snapshot().batches()) {
            if (batch.name == name) return batch.id;
        }
        qFatal("no batch %s", name.c_str());
    }

private slots:
    void init() {
        m_shop.reset();
        m_logbook.reset();
        const QString path = m_dir.filePath(QStringLiteral("%1.rollcall").arg(QTest::currentTestFunction()));
        QFile::remove(path);
        DemoOptions options;
        options.today = fixtures::at(15);
        QVERIFY(writeDemo(path, fixtures::tables(), options).ok());
        m_logbook = Logbook::open(path, Logbook::Access::write,
                                  {[] { return fixtures::at(15); },
                                   [] {
                                       static int ids = 0;
                                       return "k-" + std::to_string(++ids);
                                   }})
                        .value();
        m_shop = std::make_unique<ShopKnowledge>(*m_logbook, tables());
        QVERIFY(m_shop->begin().ok());
    }

    // Tried once more after the others, as memory may have run out, then left out: the rest of the ledger is there.
    void aBatchThatCannotBeReadEndsNoLedger() {
        const std::string gone = idOf("Orchard 12");
        LedgerBook book(*m_shop);
        for (const char* sql : {"PRAGMA foreign_keys=OFF", "DROP TRIGGER IF EXISTS batch_no_delete"})
            QVERIFY(m_logbook->database().run(QLatin1String(sql)).ok());
        QVERIFY(m_logbook->database()
                    .run(QStringLiteral("DELETE FROM batch WHERE id=?"), {QString::fromStdString(gone)})
                    .ok());
        int failed = 0;
        int steps = 0;
        constexpr int withoutEnd = 5000;
        for (bool more = true; more && steps < withoutEnd; ++steps) { // as the store goes on
            const Result<bool> step = book.step();
            failed += step ? 0 : 1;
            more = !step || *step;
        }
        QVERIFY(steps < withoutEnd);
        QCOMPARE(failed, 2);
        const LedgerNow now = book.now();
        QCOMPARE(now.left, std::size_t(0));
        QCOMPARE(now.ledger->size(), m_shop->snapshot().batches().size() - 1);
        QVERIFY(now.ledger->batch(gone) == nullptr);
    }

    void oneReadingJudgesOneBatch() {
        QVERIFY(m_shop->takeInHand(idOf("Orchard 12")).ok());
        lookAround();
        const int judged = m_shop->judged();
        const Batch& batch = m_shop->snapshot().inHand()->batch;
        ReadingDraft reading;
        reading.blade = batch.blades[6].id;
        reading.after_temper = lastTemper(batch.blades[6]);
        reading.value = 62.0;
        reading.tester = batch.testers.front().id;
        const std::size_t before = batch.blades[6].readings.size();
        QVERIFY(logReading(*m_logbook, reading).ok());
        keepUp();
        lookAround();
        QCOMPARE(m_shop->judged(), judged + 1);
        QCOMPARE(m_shop->snapshot().inHand()->batch.blades[6].readings.size(), before + 1);
    }

    // Kept up act by act, or begun anew: the same.
    void whatIsKeptIsWhatIsThere() {
        QVERIFY(m_shop->takeInHand(idOf("Orchard 12")).ok());
        lookAround();
        const std::string hedge = idOf("Hedge 5");
        const Batch other = m_logbook->batch(hedge).value();
        QVERIFY(excuse(*m_logbook, other.blades[0].id, Gate::temper, "no flat left").ok());
        keepUp();
        QVERIFY(changeLimits(*m_logbook, idOf("Galley 8"), {55, 57}, "55:57", {}).ok());
        keepUp();
        const std::string tester = m_shop->snapshot().shop().testers.front().id;
        const auto run = startVerification(*m_logbook, tester, m_shop->snapshot().shop().blocks.front().id);
        for (const double value : {66.0, 66.1}) QVERIFY(logBlockReading(*m_logbook, *run, value, "").ok());
        keepUp();
        lookAround();
        ShopKnowledge fresh(*m_logbook, tables());
        QVERIFY(fresh.begin().ok());
        QVERIFY(fresh.takeInHand(idOf("Orchard 12")).ok());
        while (fresh.lookAtOneMore().value()) {
        }
        QCOMPARE(m_shop->snapshot().runs().size(), fresh.snapshot().runs().size());
        QCOMPARE(m_shop->snapshot().elsewhere().size(), fresh.snapshot().elsewhere().size());
        for (std::size_t i = 0; i < fresh.snapshot().elsewhere().size(); ++i) {
            QCOMPARE(m_shop->snapshot().elsewhere()[i].batch, fresh.snapshot().elsewhere()[i].batch);
            QCOMPARE(m_shop->snapshot().elsewhere()[i].mark, fresh.snapshot().elsewhere()[i].mark);
            QCOMPARE(int(m_shop->snapshot().elsewhere()[i].task.next.act),
                     int(fresh.snapshot().elsewhere()[i].task.next.act));
        }
        const auto& kept = m_shop->snapshot().inHand()->judged.verdicts().blades;
        const auto& anew = fresh.snapshot().inHand()->judged.verdicts().blades;
        for (std::size_t i = 0; i < anew.size(); ++i) QCOMPARE(releaseBasis(kept[i]), releaseBasis(anew[i]));
    }

    // The shop's curve is taught by the latest sixty batches of the grade, whatever order they were looked at in.
    void theLatestBatchesTeachTheCurve() {
        QVERIFY(m_shop->takeInHand(idOf("Orchard 12")).ok());
        const std::size_t taught = m_shop->snapshot().inHand()->batch.temper_history.size();
        QVERIFY(taught > 0);
        std::size_t expected = 0;
        for (const BatchSummary& batch : m_shop->snapshot().batches()) {
            if (batch.grade != "115CrV3" || batch.name == "Orchard 12") continue;
            expected += temperObservations(m_logbook->batch(batch.id).value(), fixtures::tables()).size();
        }
        QCOMPARE(taught, expected); // the demo has fewer than sixty
    }

    // Finished batches are not asked for what is next.
    void onlyBatchesInWorkAreLookedAt() {
        QVERIFY(m_shop->takeInHand(idOf("Orchard 12")).ok());
        const int before = m_shop->judged();
        lookAround();
        int inWork = 0;
        for (const BatchSummary& batch : m_shop->snapshot().batches()) {
            const bool recent = fixtures::at(15).utc_ms - batch.created.utc_ms < std::int64_t{21} * 86400000;
            inWork += recent && batch.name != "Orchard 12" ? 1 : 0;
        }
        QCOMPARE(m_shop->judged() - before, inWork);
    }
};

QTEST_GUILESS_MAIN(tst_ShopKnowledge)
#include "tst_shop_knowledge.moc"
