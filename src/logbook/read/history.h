// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/logbook.h"

namespace rollcall {

/// M20. The batches that teach a batch's curve: the latest sixty others of its grade, in the order they were made. What
/// an oven and a bar did years ago says less of today, and the model's cost grows with every heat.
std::vector<const BatchSummary*> teachersOf(const Batch& batch, const std::vector<BatchSummary>& all);

/// What the shop's other batches of this grade have read after their tempers, for the shop's curve (M20). Batches
/// already known by id are taken from known and put there otherwise; the batch in hand is left out.
/// Errors: as Logbook::batch.
Result<std::vector<TemperObservation>> temperHistory(Logbook& logbook, const Tables& tables, const Batch& inHand,
                                                     std::map<std::string, std::vector<TemperObservation>>& known);

} // namespace rollcall
