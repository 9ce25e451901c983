// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/measure/comparison.h"
#include "core/measure/uncertainty.h"
#include "plot/look.h"

#include <QRect>
#include <QStringList>

namespace rollcall {

/// Two testers on the same blades: difference of each pair against its mean, bias with its interval, limits of
/// agreement. Needs about 220 px of height at scale 1.
void drawDifferences(QPainter& painter, const QRect& area, const Comparison& comparison, const Look& look);

/// The parts of an uncertainty as bars of their share of the variance, the largest named first. One row of 30 px each.
void drawBudget(QPainter& painter, const QRect& area, const Budget& budget, const QStringList& names, const Look& look);

} // namespace rollcall
