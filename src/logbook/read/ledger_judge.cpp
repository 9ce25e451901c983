// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/read/ledger_judge.h"

#include "core/judge/judged.h"
#include "core/judge/standing.h"

#include <utility>

namespace rollcall {

LedgerJudge::LedgerJudge(Ledger& ledger) : m_ledger(ledger) {
    m_beside.setMaxThreadCount(1);
    m_beside.setExpiryTimeout(-1);
}

void LedgerJudge::take(Batch batch, std::shared_ptr<const std::vector<Verification>> runs,
                       std::shared_ptr<const Tables> tables, const Instant& now) {
    const auto judging = std::make_shared<std::packaged_task<LedgerBatch()>>(
        [batch = std::move(batch), runs = std::move(runs), tables = std::move(tables), now]() mutable {
            batch.verifications = runsInReach(batch, *runs);
            return ledgerBatchOf(batch, Judged(batch, *tables, now), *tables);
        });
    std::future<LedgerBatch> before = std::exchange(m_before, judging->get_future());
    m_beside.start([judging] { (*judging)(); });
    if (before.valid()) m_ledger.put(before.get());
}

void LedgerJudge::finish() {
    if (m_before.valid()) m_ledger.put(m_before.get());
}

} // namespace rollcall
