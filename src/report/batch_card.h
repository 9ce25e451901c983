// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"
#include "core/judge/record.h"

#include <QPagedPaintDevice>
#include <QString>

class QPainter;

namespace rollcall {

/// A blank card of a batch to print, for power cuts and hot hands: each blade with its mark, the spots to read in order
/// from the heel, the limits, and room for every number that is planned. Returns the number of pages.
int drawBatchCard(QPainter& painter, QPagedPaintDevice& device, const Batch& batch, const Tables& tables,
                  const Instant& now);

/// The card as a PDF. Errors: disk.
Result<int> writeBatchCard(const QString& path, const Batch& batch, const Tables& tables, bool letter,
                           const Instant& now);

} // namespace rollcall
