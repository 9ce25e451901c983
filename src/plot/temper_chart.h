// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"
#include "core/heat/recipe.h"
#include "core/judge/measurement.h"
#include "plot/look.h"
#include "plot/told.h"

#include <optional>
#include <QRect>
#include <vector>

namespace rollcall {

/// Hardness against temper temperature for one blade and a time: library, shop's own curve with its band, points.
struct TemperChart {
    struct At {
        double temperature_c = 0;
        double hrc = 0;
        double low = 0;
        double high = 0;
        double library = 0;
        bool has_library = true;
    };
    std::vector<At> curve; ///< by rising temperature; the blade's own expectation
    struct Point {
        double temperature_c = 0;
        double hrc = 0;
    };
    std::vector<Point> shop;  ///< earlier batches
    std::vector<Point> batch; ///< other blades of this one
    std::vector<Point> blade; ///< the blade in hand
    Window window;
    std::optional<At> trial;
    std::optional<double> advised_c;
    double avoid_low = 0; ///< tempers to avoid; equal ends: none known
    double avoid_high = 0;
    std::vector<std::pair<double, QColor>> oxide; ///< from this temperature on this colour
    QString hours;
};
void drawTemperChart(QPainter& painter, const QRect& area, const TemperChart& chart, const Look& look);
/// The temperature at a place in the area, for the mouse.
double temperChartTemperature(const QRect& area, const TemperChart& chart, int x, const Look& look);

/// What lies at a place of that picture, in words: a reading, else the curve; empty outside it.
QString temperChartSays(const QRect& area, const TemperChart& chart, const QPoint& at, const Look& look);

/// One rung of the temper ladder.
struct LadderRung {
    QString title;    ///< "190 °C, 2 h"
    QString expected; ///< "expected 63.0 ± 0.8"
    QString read;     ///< "read 63.4"
    enum class Kind { quench, done, next, later } kind = Kind::done;
    bool surprise = false;
};
void drawLadder(QPainter& painter, const QRect& area, const std::vector<LadderRung>& rungs, const Look& look);

/// A recipe as a line of temperature through its stages; not to scale in time.
struct RecipeLine {
    std::vector<RecipeStage> stages;
    std::vector<QString> names;
    std::vector<QString> holds;
    std::vector<bool> warned;
    std::vector<bool> done;
    std::vector<QString> says; ///< under the pointer
    int chosen = 0;
};
void drawRecipe(QPainter& painter, const QRect& area, const RecipeLine& recipe, const Look& look, Told* told = nullptr);
/// The stage at a place in the area; -1 beside them.
int recipeStageAt(const QRect& area, const RecipeLine& recipe, int x, const Look& look);

} // namespace rollcall
