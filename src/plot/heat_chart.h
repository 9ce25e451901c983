// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/heat/schedule.h"
#include "core/heat/trace.h"
#include "core/heat/warp.h"
#include "plot/look.h"
#include "plot/told.h"

#include <functional>
#include <optional>
#include <QRect>
#include <vector>

namespace rollcall {

/// A heat as it is drawn: oven and steel through time, and each blade's soak under it on the same time axis.
struct SoakChart {
    const Trace* oven = nullptr;
    Trace steel; ///< estimated, on the run's clock; empty when not known
    double set_c = 800;
    double threshold_c = 790; ///< soaking counts from here
    double from_s = 0;
    double to_s = 3600;
    std::function<QString(double)> clock; ///< label of a moment of the run's clock
    struct Bar {
        QString mark;
        std::optional<double> in_s;
        std::optional<double> out_s;
        std::optional<double> minutes; ///< of soak
        State state = State::notYet;
        bool current = false;
    };
    std::vector<Bar> bars;
    std::optional<double> least; ///< soak limits, minutes
    std::optional<double> most;
    std::optional<double> cursor_s;
};

/// Draws the heat. Needs about 150 px for the traces and 18 px for each blade at scale 1; with more blades the bars
/// thin.
void drawSoakChart(QPainter& painter, const QRect& area, const SoakChart& chart, const Look& look);
/// The moment of the run's clock at a place in the area, for the mouse.
double soakChartMoment(const QRect& area, const SoakChart& chart, int x, const Look& look);

/// What lies at a place of that picture, in words: the moment, the oven and the steel; empty outside the plane.
QString soakChartSays(const QRect& area, const SoakChart& chart, const QPoint& at, const Look& look);

/// Several heats over each other, each from the moment its first blade went in.
struct HeatOverlay {
    struct Run {
        QString name;
        const Trace* trace = nullptr;
        double zero_s = 0;
        double length_s = 0;
    };
    std::vector<Run> runs;
};
void drawHeatOverlay(QPainter& painter, const QRect& area, const HeatOverlay& overlay, const Look& look);

/// The ovens of a day with their tempers on one time axis.
struct DayChart {
    std::vector<PlannedRun> runs;
    std::vector<QString> ovens;
    std::vector<std::string> oven_ids;
    std::int64_t from_ms = 0;
    std::int64_t to_ms = 0;
    std::int64_t now_ms = 0;
    std::function<QString(std::int64_t)> clock;
    int current = -1; ///< place of the run in hand
};
void drawDayChart(QPainter& painter, const QRect& area, const DayChart& chart, const Look& look);
/// The place of the run whose bar lies there; -1 for none.
int dayChartRun(const QRect& area, const DayChart& chart, const QPoint& at, const Look& look);

/// Blades from the side, their bow drawn ten times as large as it is, in a stack with its turns and shims.
struct WarpStack {
    struct Piece {
        QString mark;
        double mm = 0;
        WarpSide lies = WarpSide::left; ///< its high side as it lies in the stack
        bool turn_over = false;
        double shim_mm = 0;
    };
    std::vector<Piece> pieces;
};
void drawWarpStack(QPainter& painter, const QRect& area, const WarpStack& stack, const Look& look,
                   Told* told = nullptr);

/// Oxide colours as bands on a strip of steel, in order; the chosen one framed.
struct OxideStrip {
    struct Band {
        QString name;
        QColor colour;
        QString below; ///< its temperatures
    };
    std::vector<Band> bands;
    int chosen = 0;
};
void drawOxideStrip(QPainter& painter, const QRect& area, const OxideStrip& strip, const Look& look,
                    Told* told = nullptr);

} // namespace rollcall
