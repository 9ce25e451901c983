// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"
#include "core/judge/record.h"

#include <QString>

namespace rollcall {

struct Paper;

/// Where the readings of a blade go on its card, in the order they are numbered there: those of the quench first, then
/// those after temper, as many as are planned and have room. Marks logged already are not looked at: a card is blank.
std::vector<Spot> cardSpots(const Batch& batch, const Blade& blade, const Tables& tables);
/// Readings at this gate that the card has room for.
int cardReadings(const Batch& batch, Gate gate);

/// A blank card of a batch to print, for power cuts and hot hands: each blade with its mark, the spots to read in order
/// from the heel, the limits, and room for every number that is planned. Returns the number of pages.
int drawBatchCard(Paper& paper, const Batch& batch, const Tables& tables, const Instant& now);

/// The card as a PDF. Errors: disk.
Result<int> writeBatchCard(const QString& path, const Batch& batch, const Tables& tables, bool letter,
                           const Instant& now);

} // namespace rollcall
