// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/paged_bench.h"
#include "app/shared/seams.h"

namespace rollcall {

/// The ledger: what all batches of the shop say together, a question a page.
class LedgerBench : public PagedBench {
    Q_OBJECT

public:
    enum class Page { week, tempers, against, drift, yield, tried, whatIf, plan };

    LedgerBench(Document& document, const Seams& seams, const Look& look, QWidget* parent = nullptr);

    bool needsBlade() const override { return false; }
    bool isRoll() const override { return true; }
    bool leadsBack() const override { return true; }
    Commands doors() override;
    QWidget* focusTarget() override { return current()->focusTarget(); }
    void openPageAt(int index) override;
};

} // namespace rollcall
