// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "report/ledger_view.h"
#include "report/page.h"

namespace rollcall {

/// A view of the ledger on paper: what it says, how sure that is, the picture and the table. Gives the number of pages.
int drawLedgerPages(Paper& paper, const LedgerView& view, const QString& shop, const Instant& now);

/// Labels of a planned study, to cut and stick to its pieces in the order of work: mark, level, place. Gives the number
/// of pages.
int drawStudyLabels(Paper& paper, const StudyPlan& plan);

} // namespace rollcall
