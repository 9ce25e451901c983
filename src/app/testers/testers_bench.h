// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/links/device_link.h"
#include "app/shared/bench.h"
#include "app/shared/seams.h"
#include "app/shared/stretch.h"
#include "app/testers/tester_list.h"
#include "plot/control_chart.h"

#include <optional>

namespace rollcall {

class ShopActions;
class TesterActions;

/// The tester in the list: its last run on a block, its error through time, the face of its block.
class TestersBench : public Bench {
    Q_OBJECT

public:
    TestersBench(Document& document, DeviceLink& link, ShopActions& actions, const Seams& seams, const Look& look,
                 QWidget* parent = nullptr);
    QString title() const override { return tr("Testers"); }
    HelpText help() const override;
    bool needsBlade() const override { return false; }
    QWidget* side() override { return &m_list; }
    QWidget* focusTarget() override { return m_list.list(); }
    bool leadsBack() const override { return true; }
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override;
    void rightAct() override;
    Commands commands() override;
    Commands doors() override;
    QStringList movements() const override;
    bool key(QKeyEvent* event) override;
    std::vector<ReportTable> tables() const override;
    const Tester* tester() const;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    /// Whether the tester in hand may be verified on a block.
    bool verifiable() const;
    /// The control chart as it is on screen; none before the first run.
    std::optional<ControlChart> chart() const;
    /// Where it lies; empty where there is no room for it.
    QRect chartArea() const;
    bool hasRoomForBlock() const;
    const TesterHealth* health() const;
    const Block* block() const;
    void paintRun(QPainter& painter, int top) const;
    QString certificateText(const Block& block) const;
    void paintBlock(QPainter& painter, int top) const;
    std::optional<double> work() const;

    TesterList& m_list; ///< stands beside it, in the place of the roll
    ShopActions& m_actions;
    TesterActions* m_own;
    std::optional<BlockLife> m_life;
    Stretch* m_stretch;
};

} // namespace rollcall
