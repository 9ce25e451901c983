// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/ledger/ledger_page.h"
#include "tests/support/window_driver.h"

namespace rollcall::fixtures {

/// The page of the ledger in sight, when all batches are gone through and it has its answer; null when none is in
/// sight.
inline LedgerPage* ledgerPage(WindowDriver& d) {
    LedgerPage* in_sight = nullptr;
    const auto answered = [&] {
        in_sight = nullptr;
        for (LedgerPage* one : d.window().findChildren<LedgerPage*>()) {
            if (one->isVisible()) in_sight = one;
        }
        return in_sight == nullptr || (!in_sight->busy() && d.document().pending() == 0);
    };
    if (!QTest::qWaitFor(answered, 20000)) qFatal("the ledger has no answer");
    d.settle();
    return in_sight;
}

} // namespace rollcall::fixtures
