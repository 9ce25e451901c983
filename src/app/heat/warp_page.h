// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/bench.h"
#include "app/shared/seams.h"
#include "plot/heat_chart.h"

namespace rollcall {

/// Warp: each blade as it lies on the plate, the stack that works them against each other, and what it gained.
class WarpPage : public Bench {
    Q_OBJECT

public:
    WarpPage(Document& document, Seams seams, const Look& look);

    QString title() const override { return tr("Warp"); }
    HelpText help() const override;
    std::vector<ReportTable> tables() const override;
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override;
    void rightAct() override;
    Commands commands() override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    void measure();
    void exportPicture();
    WarpStack stack() const;

    Seams m_seams;
};

} // namespace rollcall
