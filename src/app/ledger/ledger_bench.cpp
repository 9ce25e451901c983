// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ledger/ledger_bench.h"

#include "app/ledger/evidence_pages.h"
#include "app/ledger/plan_page.h"
#include "app/ledger/what_if_page.h"

namespace rollcall {

LedgerBench::LedgerBench(Document& document, const Seams& seams, const Look& look, QWidget* parent)
    : PagedBench(document, look, parent) {
    setObjectName(QStringLiteral("ledger-bench"));
    for (LedgerPage* page : std::initializer_list<LedgerPage*>{
             new WeekPage(document, seams, look), new HardnessPage(document, seams, look),
             new ComparePage(document, seams, look), new SeriesPage(document, seams, look),
             new YieldPage(document, seams, look), new TriedPage(document, seams, look),
             new WhatIfPage(document, seams, look), new PlanPage(document, seams, look)})
        addPage(page);
}

Commands LedgerBench::doors() {
    return {{QStringLiteral("ledger"), tr("Ledger"), tr("what this shop has learnt: yield, curves, drift, what if"),
             Verb::none, [this] { emit wanted(); },
             [this] { return m_document.isOpen() ? QString() : tr("No logbook is open. Ctrl+O opens one"); }, Qt::Key_L,
             Qt::ControlModifier, Group::shop}};
}

void LedgerBench::openPageAt(int index) {
    PagedBench::openPageAt(index);
    if (m_inFront) focusTarget()->setFocus();
}

} // namespace rollcall
