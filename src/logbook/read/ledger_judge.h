// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/ledger/ledger_batch.h"

#include <future>
#include <memory>
#include <QThreadPool>

namespace rollcall {

/// Judges batches for a ledger on one thread beside the one that reads them: that one reads the next meanwhile. The
/// thread stays with what it keeps for itself. The ledger must outlive this.
class LedgerJudge {
public:
    explicit LedgerJudge(Ledger& ledger);

    /// Hands a batch over, without its runs on blocks, and puts the one before into the ledger. What judging that one
    /// throws comes out here; the new one is judged all the same. The runs are all of the shop's.
    void take(Batch batch, std::shared_ptr<const std::vector<Verification>> runs, std::shared_ptr<const Tables> tables,
              const Instant& now);
    /// Puts the last one into the ledger; throws what judging it throws.
    void finish();

private:
    Ledger& m_ledger;
    std::future<LedgerBatch> m_before;
    QThreadPool m_beside;
};

} // namespace rollcall
