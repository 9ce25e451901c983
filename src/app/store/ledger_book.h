// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/store/shop_knowledge.h"
#include "logbook/read/ledger_judge.h"

#include <deque>

namespace rollcall {

/// The ledger as far as it is gathered. A value: what it points to stays as it is while it is held.
struct LedgerNow {
    std::shared_ptr<const Ledger> ledger;
    std::shared_ptr<const Tables> tables; ///< that its batches were judged by
    std::size_t left = 0;                 ///< batches that are still to be gone through
};

/// Goes through all batches of a logbook for the ledger, the newest first, in steps that no act waits long for, and
/// again through those that an act has touched. Lives on the storage thread.
class LedgerBook {
public:
    explicit LedgerBook(ShopKnowledge& knowledge);

    /// Goes on for some milliseconds; false when nothing is left. Errors: as the reads; that batch is read once more
    /// after the others, then left out.
    Result<bool> step();
    void touched(const Touched& touched);
    LedgerNow now();

private:
    void list();

    ShopKnowledge& m_knowledge;
    std::shared_ptr<const Tables> m_tables; ///< that the batches were judged by
    Ledger m_ledger;
    LedgerJudge m_judge{m_ledger};
    std::shared_ptr<const Ledger> m_shown; ///< null: something has changed since
    std::deque<std::string> m_left;
    std::set<std::string> m_known;
    std::set<std::string> m_failed; ///< once already: a second time they are left out
    bool m_manyExpected = false;
};

} // namespace rollcall
