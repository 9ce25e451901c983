// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/proof/cutting.h"
#include "plot/look.h"
#include "plot/told.h"

#include <optional>
#include <QRect>
#include <vector>

namespace rollcall {

/// A blade in the vise before it is bent: the planned arc of its free length and what it strains the steel.
struct BendPicture {
    double thickness_mm = 0;
    double free_mm = 0;
    double angle_deg = 0;
    QString strain;   ///< "3.7 %"
    QString at_least; ///< "at least 5.1 % at the jaw"; empty without a lever
};
void drawBend(QPainter& painter, const QRect& area, const BendPicture& bend, const Look& look, Told* told = nullptr);

/// Runs of cuts side by side: passes, first hesitation, and the interval in which the edge went dull.
struct CutChart {
    struct Run {
        QString name;
        std::vector<CutLook> looks;
        DullInterval dull;
        bool chosen = false;
    };
    std::vector<Run> runs;
};
void drawCuts(QPainter& painter, const QRect& area, const CutChart& chart, const Look& look);
/// The look at the edge that is drawn there, in words: "BH-1 run 1: hesitates after 100 cuts"; empty for none.
QString cutsSay(const QRect& area, const CutChart& chart, const QPoint& at, const Look& look);

/// A stone crossed out: the edge may not be touched up.
void drawNoStone(QPainter& painter, double x, double y, double size, const QColor& color, const QColor& background);

} // namespace rollcall
