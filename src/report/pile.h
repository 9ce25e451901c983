// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "report/batch_table.h"

#include <optional>
#include <QString>
#include <vector>

namespace rollcall {

struct Paper;

/// Where a mean lies by its window: half a point outside is near, or what the batch's rule allows.
enum class PileZone { notRead, inside, near, off };
QString zoneName(PileZone zone);

/// Whether a knife is of the steel it was sold as.
enum class PileSteel { notLooked, yes, no, undecided };
QString steelName(PileSteel steel);

/// One finished knife on the page of the pile.
struct PileRow {
    QString mark;
    QString sold_as;
    QString purpose;
    PileSteel steel = PileSteel::notLooked;
    QString decided_by; ///< the element that decides, with what it read; empty where none does
    std::optional<double> hrc;
    double expanded_uncertainty = 0; ///< at 95 %
    int readings = 0;
    Window window;
    PileZone zone = PileZone::notRead;
    State state = State::notYet; ///< against the window
    QString note;
};

/// The knives of a batch as they lie in it; those made by mistake are left out.
std::vector<PileRow> pileRows(const Batch& batch, const BatchVerdicts& verdicts);

ReportTable pileTable(const std::vector<PileRow>& rows, const QString& title);

/// Draws the pile as one table. It goes on on the next page when there are many. Returns the number of pages.
int drawPile(Paper& paper, const std::vector<PileRow>& rows, const QString& title, const QString& shop,
             const Instant& now);

} // namespace rollcall
