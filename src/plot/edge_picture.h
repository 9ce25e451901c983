// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/measure/outline.h"
#include "core/proof/edge_ladder.h"
#include "plot/look.h"
#include "plot/told.h"

#include <map>
#include <optional>
#include <QRect>
#include <vector>

namespace rollcall {

/// What an edge did, end-on with its apex up; ink always: it is a fact, not a verdict.
void drawEdgeOutcome(QPainter& painter, double x, double y, double size, EdgeOutcome outcome, const QColor& color);

/// The ladder as a grid: forces across, angles up.
struct LadderPicture {
    LadderGrid grid;
    struct Cell {
        std::optional<EdgeOutcome> outcome; ///< taken; none: not yet
        std::optional<double> size_mm;      ///< of the damage
        QString expected;                   ///< depth of the yield expected, where it was not taken
        bool marks = false;                 ///< a mark of 0.05 mm is expected here
    };
    std::vector<Cell> cells; ///< row by row, the smallest angle first
    std::optional<EdgeLoadStep> next;
    std::optional<EdgeLoadStep> asked;
    int chosen_force = 0;
    int chosen_raise = 0;
};
void drawEdgeLadder(QPainter& painter, const QRect& area, const LadderPicture& ladder, const Look& look);
/// Force and angle index at a place; none beside the grid.
std::optional<std::pair<int, int>> ladderCellAt(const QRect& area, const LadderPicture& ladder, const QPoint& at,
                                                const Look& look);

/// The edge end-on, to scale: the wedge, how far it is expected to yield, and what was seen.
struct WedgePicture {
    EdgeGeometry geometry;
    std::optional<double> yield_mm; ///< thickness of the metal expected to yield
    std::optional<EdgeOutcome> outcome;
    double damage_mm = 0; ///< depth
    QString caption;      ///< such as "15° per side, 60.2 HRC"
};
void drawWedge(QPainter& painter, const QRect& area, const WedgePicture& wedge, const Look& look, Told* told = nullptr);

/// Where a damage lies: yields anyway, geometry explains it, look at the heat treatment. All are thicknesses in mm.
struct DamageRule {
    double yield_mm = 0;
    std::optional<double> damage_mm; ///< thickness of the metal at its root
};
void drawDamageRule(QPainter& painter, const QRect& area, const DamageRule& rule, const Look& look,
                    Told* told = nullptr);

/// Something at the edge of the blade: a rung of the rod test, a damage.
struct EdgeMark {
    double x_mm = 0;
    QString label;
    bool next = false; ///< where the next rung goes
    QString says = {}; ///< under the pointer
};

/// The lower part of a blade along its whole edge, to scale, with what happened where.
void drawEdgeStrip(QPainter& painter, const QRect& area, const BladeShape& shape, const std::vector<EdgeMark>& marks,
                   const Look& look, Told* told = nullptr);
/// The place on the edge at a pixel, mm from the heel.
double edgePlaceAt(const QRect& area, const BladeShape& shape, int x, const Look& look);

} // namespace rollcall
