// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/read/ledger_judge.h"
#include "tests/support/fixtures.h"

#include <QtTest>

using namespace rollcall;

class tst_LedgerJudge : public QObject {
    Q_OBJECT

    static Batch read(int number) {
        Batch batch = fixtures::batch("115CrV3", {61, 63}, {"A", "B"});
        batch.id = batch.name = "B" + std::to_string(number);
        for (Blade& blade : batch.blades) fixtures::read(blade, Gate::temper, {62.0 + 0.1 * number, 62.1, 61.9});
        return batch;
    }

private slots:
    // One after the other comes in with its own numbers; the last when it is asked to finish.
    void eachBatchComesInOnce() {
        const std::shared_ptr<const Tables> tables(std::shared_ptr<void>(), &fixtures::tables());
        Ledger ledger;
        LedgerJudge judge(ledger);
        // The shop's runs are found among all by the judge: as it is read, a batch has none.
        const auto runs = std::make_shared<const std::vector<Verification>>(read(0).verifications);
        QVERIFY(!runs->empty());
        constexpr int count = 20;
        for (int i = 0; i < count; ++i) {
            Batch batch = read(i);
            batch.verifications.clear();
            judge.take(std::move(batch), runs, tables, fixtures::at(12));
            QCOMPARE(ledger.size(), static_cast<std::size_t>(i));
        }
        judge.finish();
        QCOMPARE(ledger.size(), std::size_t(count));
        judge.finish(); // nothing is left
        for (int i = 0; i < count; ++i) {
            const LedgerBatch* kept = ledger.batch("B" + std::to_string(i));
            QVERIFY(kept != nullptr);
            const auto& tempered = kept->blades.front().tempered;
            QVERIFY(tempered.has_value());
            // The mean of its three readings, less the error of 0.2 of the run on the block.
            QVERIFY(std::abs(tempered->mean - (62.0 + 0.1 * i / 3 - 0.2)) < 1e-9);
        }
    }
};

QTEST_APPLESS_MAIN(tst_LedgerJudge)
#include "tst_ledger_judge.moc"
