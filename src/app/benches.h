// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/seams.h"
#include "app/store/document.h"
#include "plot/look.h"

#include <QWidget>
#include <vector>

namespace rollcall {

class Bench;
class DayClock;
class ExchangeActions;
class ReadingStation;
class ShopActions;
struct Links;

/// What the places of the window are made with.
struct Workshop {
    Document& document;
    const Look& look;
    const Look& chart_look; ///< for charts and tables: no larger than the window has room for
    const Seams& seams;
    ReadingStation& station;
    Links& links;
    DayClock& day;
    ShopActions& actions;
    ExchangeActions& exchange;
};

/// All places of the window, the batch at a glance first. Whoever adds one adds it here and nowhere else.
std::vector<Bench*> makeBenches(const Workshop& shop);

} // namespace rollcall
