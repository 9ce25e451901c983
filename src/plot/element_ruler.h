// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/grade.h"
#include "core/steel/composition.h"
#include "plot/look.h"
#include "plot/told.h"

#include <QRect>
#include <vector>

namespace rollcall {

/// One element on a scale of its own: what the grade asks as a band, what was measured as a needle with its whisker.
struct ElementRuler {
    ElementMatch match;
    State state =
        State::pass; ///< Pass inside, Borderline outside but within doubt, Fail; Excused: only a residual limit
    QString name;    ///< "molybdenum"
    QString value;   ///< "0.05", "under 0.05"
    QString need;    ///< "needs 0.50 to 0.80"
};
/// A row of about 62 px.
void drawElementRuler(QPainter& painter, const QRect& area, const ElementRuler& ruler, const Look& look);

/// What a hardened coupon would read if the steel were one of these, and what it read.
struct CouponRule {
    std::vector<const Grade*> grades;
    std::optional<double> read;
};
void drawCouponRule(QPainter& painter, const QRect& area, const CouponRule& rule, const Look& look,
                    Told* told = nullptr);

} // namespace rollcall
