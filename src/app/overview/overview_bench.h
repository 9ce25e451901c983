// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/bench.h"
#include "app/shared/growing_model.h"

#include <QAbstractTableModel>
#include <QTableView>

namespace rollcall {

class ExchangeActions;
class ShopActions;

/// Blades by gates: the verdict of each, and its number where there is one.
class MatrixModel : public GrowingModel<QAbstractTableModel> {
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
class OverviewBench : public Bench {
    Q_OBJECT

public:
    OverviewBench(Document& document, ShopActions& actions, ExchangeActions& exchange, const Look& look,
                  QWidget* parent = nullptr);
    QString title() const override { return tr("Batch"); }
    HelpText help() const override;
    QWidget* focusTarget() override;
    bool needsBlade() const override { return false; }
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override;
    void rightAct() override;
    QStringList offers() const override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    ShopActions& m_actions;
    ExchangeActions& m_exchange;
    MatrixModel* m_model;
    QTableView* m_table;
    bool m_refreshing = false;
};

} // namespace rollcall
