// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/bench.h"
#include "core/judge/grain_study.h"

namespace rollcall {

/// Coupons of the batch in order of one factor, their grain over it, and whether the trend is real.
class CouponPage : public Bench {
    Q_OBJECT

public:
    CouponPage(Document& document, const Look& look);

    QString title() const override { return tr("Coupons"); }
    HelpText help() const override;
    void refresh() override;
    ColumnContent content() const override;
    void act() override { copy(); }
    void leftAct() override { nextFactor(); }
    Commands commands() override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    QString factorName() const;
    QString xText(double x) const;
    /// A place on the axis of the factor, and the trend along it, in what the shop reads.
    double shown(double x) const;
    double slope() const;
    std::vector<QStringList> rows() const;
    void nextFactor();
    void copy();

    GrainFactor m_factor = GrainFactor::soak;
    GrainStudy m_study;
};

} // namespace rollcall
