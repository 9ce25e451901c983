// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/record.h"
#include "plot/axis.h"
#include "plot/look.h"

#include <optional>
#include <QRect>
#include <vector>

namespace rollcall {

/// A stretch of the hardness axis, whole HRC at both ends.
struct Axis {
    int low = 58;
    int high = 66;

    double at(double hrc, double left, double width) const {
        return PlotAxis{double(low), double(high), left, left + width}.at(hrc);
    }
    /// The axis of this least width that is centred on the window and holds all values.
    static Axis around(const Window& window, const std::vector<double>& values, int least);
};

/// What stands on the large rule.
struct RuleData {
    Axis axis;
    Window window;
    QString caption;      ///< under the rule, such as "window 61.0 to 62.5"; above it when compact
    bool compact = false; ///< needles with labels only, for many blades on one rule
    struct Needle {
        double value = 0;
        QString label;
    };
    std::vector<Needle> readings;
    std::optional<double> mean;
    double uncertainty = 0;
    State state = State::notYet;
    struct Earlier {
        double value = 0;
        QString label;
        bool quenched = false;
    };
    std::vector<Earlier> earlier;
    std::optional<Interval> bracket; ///< of the files; an infinite end is open
};

/// The large rule: window, needles of the readings, mean with its whisker, earlier tempers. Needs about 170 px of
/// height at scale 1.
void drawRule(QPainter& painter, const QRect& area, const RuleData& data, const Look& look);

/// What lies at a place of that rule, in words: a reading, the mean, an earlier one, the window; empty beside them.
QString ruleSays(const QRect& area, const RuleData& data, const QPoint& at, const Look& look);

/// One blade on the common axis of the roll.
struct Strip {
    std::optional<double> mean;
    double uncertainty = 0;
    std::vector<double> readings;
    std::vector<double> earlier;
    std::optional<double> quenched;
    State state = State::notYet;
};

/// A row's strip, baseline at y, between left and left + width. The window stripe is drawn by the row.
void drawStrip(QPainter& painter, int left, int width, int baseline, const Axis& axis, const Strip& strip,
               const Look& look);

/// The axis above the roll: ticks and labels standing on a line at y.
void drawStripAxis(QPainter& painter, int left, int width, int y, const Axis& axis, const Look& look);

/// Left and right end of a window on an axis, cut to it; an open end reaches the axis' end.
std::pair<int, int> windowSpan(const Axis& axis, const Window& window, int left, int width);

} // namespace rollcall
