// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/stretch.h"
#include "plot/ledger_chart.h"

#include <optional>
#include <QWidget>

namespace rollcall {

/// The picture of a view of the ledger: a click picks the nearest point, a frame drawn over it all points inside.
class LedgerChartView : public QWidget {
    Q_OBJECT

public:
    explicit LedgerChartView(const Look& look, QWidget* parent = nullptr);

    void show(LedgerChart chart);
    /// Picks out the points of these rows of the table.
    void choose(const std::set<int>& rows);
    const LedgerChart& chart() const { return m_chart; }
    Stretch& stretch() { return *m_stretch; }

signals:
    void picked(const std::set<int>& rows);
    void opened(int row);

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;

private:
    LedgerChart shown() const;

    const Look& m_look;
    LedgerChart m_chart;
    Stretch* m_stretch;
    std::optional<QRect> m_frame; ///< that is being drawn
    QPoint m_pressed;
};

} // namespace rollcall
