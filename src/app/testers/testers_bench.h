// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/frame/verdict_column.h"
#include "app/store/document.h"
#include "app/testers/tester_list.h"
#include "plot/control_chart.h"

#include <optional>
#include <QWidget>

namespace rollcall {

/// The tester in the list: its last run on a block, its error through time, the face of its block.
class TestersBench : public QWidget {
    Q_OBJECT

public:
    TestersBench(Document& document, const TesterList& list, const Look& look, QWidget* parent = nullptr);
    void refresh();
    ColumnContent content() const;
    /// Whether the tester in hand may be verified on a block.
    bool verifiable() const;
    const Tester* tester() const;
    /// The control chart as it is on screen; none before the first run.
    std::optional<ControlChart> chart() const;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    const TesterHealth* health() const;
    const Block* block() const;
    void paintRun(QPainter& painter, int top) const;
    void paintBlock(QPainter& painter, int top) const;
    std::optional<double> work() const;

    Document& m_document;
    const TesterList& m_list;
    const Look& m_look;
    std::optional<BlockLife> m_life;
};

/// Writes the chart: PNG, SVG or CSV by the file's ending. Errors: disk; argument for another ending.
Result<Done> exportChart(const ControlChart& chart, const QString& path, const Look& look);

} // namespace rollcall
