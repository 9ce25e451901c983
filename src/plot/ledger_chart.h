// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/units.h"
#include "plot/look.h"

#include <optional>
#include <QPointF>
#include <QRect>
#include <QStringList>
#include <set>
#include <utility>
#include <vector>

namespace rollcall {

/// What the ledger shows as a picture: points that each belong to a row of the table beside it, lines, bands and
/// limits, over a number, a temperature, a day or names.
struct LedgerChart {
    enum class Over { number, degrees, day, names };
    enum class Tone { plain, shop, library, limit, alarm };

    struct Point {
        double x = 0;
        double y = 0;
        std::optional<std::pair<double, double>> bar; ///< what is known of y, from and to
        int row = -1;                                 ///< of the table
        Tone tone = Tone::plain;
        QString says; ///< what it is, in words
    };
    struct Line {
        std::vector<QPointF> points;
        Tone tone = Tone::shop;
        bool dashed = false;
        bool steps = false; ///< holds its value until the next point
        QString label;
    };
    struct Band {
        std::vector<QPointF> low; ///< both over the same x
        std::vector<double> high;
        Tone tone = Tone::shop;
    };
    struct Limit {
        double y = 0;
        QString label;
        bool dashed = true;
    };

    Over over = Over::number;
    QStringList names; ///< of places 0, 1, 2 along the axis
    QString x_title;
    QString y_title;
    bool percent = false; ///< y is a share from 0 to 1
    std::vector<Band> bands;
    std::vector<Line> lines;
    std::vector<Limit> limits;
    std::vector<Point> points;
    std::optional<std::pair<double, double>> y_range; ///< none: as the values need
    std::optional<std::pair<double, double>> x_range; ///< likewise
    std::pair<double, double> part{0, 1};             ///< of the long axis, what is in view
    std::set<int> chosen;                             ///< rows that are picked out
    QString empty;                                    ///< what is said where there is nothing to show
};

/// Draws it; a function of its values, for the window, paper and pictures alike.
void drawLedgerChart(QPainter& painter, const QRect& area, const LedgerChart& chart, const Look& look);

/// What the point nearest to a place says; empty where none is near.
QString ledgerChartSays(const QRect& area, const LedgerChart& chart, const QPoint& at, const Look& look);

/// Rows of the points inside a rectangle; of one without size that of the nearest point.
std::set<int> ledgerRowsIn(const QRect& area, const LedgerChart& chart, const QRect& picked, const Look& look);

} // namespace rollcall
