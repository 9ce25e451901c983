// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/bench.h"

#include "report/gate_table.h"

namespace rollcall {

std::vector<ReportTable> Bench::tables() const {
    if (!gate() || !m_document.hasBatch()) return {};
    return {gateTable(m_document.batch(), m_document.verdicts(), m_document.tables(), *gate())};
}

} // namespace rollcall
