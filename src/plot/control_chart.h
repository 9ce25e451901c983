// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/measure/control.h"
#include "core/measure/outline.h"
#include "plot/look.h"

#include <optional>
#include <QRect>
#include <utility>
#include <vector>

namespace rollcall {

/// A tester's error and spread on one block through time.
struct ControlChart {
    std::vector<ControlPoint> errors;  ///< days since 1970
    std::vector<ControlPoint> spreads; ///< of the same runs
    double allowed_error = 0;          ///< either side
    double allowed_spread = 0;
    std::optional<ControlLimits> limits;  ///< the shop's own
    std::optional<Drift> drift;           ///< drawn when it is likely
    std::optional<double> weeks_left;     ///< until it meets what is allowed
    QString drift_text;                   ///< what the drift says
    QString limit_text;                   ///< where it meets what is allowed
    std::pair<double, double> part{0, 1}; ///< of the days, what is in view
};

/// Draws the chart; a function of its values, for the window, a printed page and exported pictures alike. Needs about
/// 200 px of height at scale 1.
void drawControlChart(QPainter& painter, const QRect& area, const ControlChart& chart, const Look& look);

/// The run nearest to a place of that picture, in words; empty where none is near.
QString controlChartSays(const QRect& area, const ControlChart& chart, const QPoint& at, const Look& look);

/// One number on its own rule: allowed stretch, ticks and needle. Half the width of a bench.
struct NumberRule {
    QString caption;
    QString allowed;
    double low = -1, high = 1, step = 0.5;
    double allowed_low = -0.5, allowed_high = 0.5;
    std::optional<double> value;
    bool good = true;
};
void drawNumberRule(QPainter& painter, const QRect& area, const NumberRule& rule, const Look& look);

/// The face of a block with its places, the first of them used, the next one marked.
void drawBlockFace(QPainter& painter, const QRect& area, double diameter_mm, const std::vector<Spot>& places, int used,
                   const Look& look);

} // namespace rollcall
