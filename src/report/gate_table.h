// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "report/batch_table.h"

namespace rollcall {

/// What was recorded at a gate, one line each: shots at Steel, tempers at Heat, readings at Quench and Temper, rungs
/// at Edge, events of trials at Proof. Release has the table of the blades.
ReportTable gateTable(const Batch& batch, const BatchVerdicts& verdicts, const Tables& tables, Gate gate);

/// Lines counted on fractures and ratings, as they were taken.
ReportTable fractureTable(const Batch& batch);

/// Runs on blocks, oldest first: mean error and spread of each.
ReportTable runTable(const std::vector<Verification>& runs, const std::vector<Tester>& testers);

/// Everything of a batch, a sheet for each table that has lines.
std::vector<ReportTable> allTables(const Batch& batch, const BatchVerdicts& verdicts, const Tables& tables);

} // namespace rollcall
