// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/frame/verdict_column.h"
#include "app/store/document.h"
#include "plot/look.h"

#include <QAbstractTableModel>
#include <QTableView>
#include <QWidget>

namespace rollcall {

/// Blades by gates: the verdict of each, and its number where there is one.
class MatrixModel : public QAbstractTableModel {
    Q_OBJECT

public:
    explicit MatrixModel(const Document& document, QObject* parent = nullptr);
    void refresh();
    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    const Verdict* verdict(const QModelIndex& index) const;

private:
    const Document& m_document;
    int m_rows = 0;
};

/// The batch at a glance: the matrix and all tempered blades on one rule.
class OverviewBench : public QWidget {
    Q_OBJECT

public:
    OverviewBench(Document& document, const Look& look, QWidget* parent = nullptr);
    void refresh();
    ColumnContent content() const;

signals:
    void gateChosen(rollcall::Gate gate);

protected:
    void paintEvent(QPaintEvent*) override;

private:
    Document& m_document;
    const Look& m_look;
    MatrixModel* m_model;
    QTableView* m_table;
    bool m_refreshing = false;
};

} // namespace rollcall
