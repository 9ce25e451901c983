// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/look.h"

#include <functional>
#include <QListView>

namespace rollcall {

/// Rows that a bench paints, in a list that scrolls, is reached by Tab, moved in by arrows and read aloud.
class RowList : public QListView {
    Q_OBJECT

public:
    struct Rows {
        int count = 0;
        int current = -1; ///< none is in hand where it is negative
        std::function<void(QPainter& painter, const QRect& row, int index)> paint;
        std::function<QString(int index)> text; ///< what the row says
    };

    /// Height of a row before the look's factor, px.
    RowList(int rowHeight, const Look& look, QWidget* parent = nullptr);
    /// Rows are added and taken away at the end; the others stay what they are.
    void show(Rows rows);
    const Rows& rows() const { return m_rows; }
    int rowHeight() const { return m_rowHeight; }

signals:
    /// Somebody went to another row.
    void chosen(int index);

protected:
    void currentChanged(const QModelIndex& current, const QModelIndex& previous) override;
    void paintEvent(QPaintEvent* event) override;

private:
    class Model;

    const Look& m_look;
    int m_rowHeight;
    Rows m_rows;
    Model* m_model;
    bool m_showing = false;
};

} // namespace rollcall
