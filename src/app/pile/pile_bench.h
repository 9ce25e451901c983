// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/bench.h"
#include "app/shared/growing_model.h"
#include "report/pile.h"

#include <QAbstractTableModel>
#include <QSortFilterProxyModel>
#include <QTableView>

namespace rollcall {

class ShopActions;
struct Seams;

/// The knives of the pile as rows, with what each column sorts by.
class PileModel : public GrowingModel<QAbstractTableModel> {
    Q_OBJECT

public:
    enum Column { piece, soldAs, steel, decidedBy, hardness, readings, asked, zone, note, columns };
    /// The role whose values are compared when a column is sorted.
    static constexpr int sortRole = Qt::UserRole;

    using GrowingModel::GrowingModel;
    void show(std::vector<PileRow> rows);
    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;
    const PileRow& row(int index) const { return m_rows[static_cast<std::size_t>(index)]; }
    const std::vector<PileRow>& rows() const { return m_rows; }

private:
    std::vector<PileRow> m_rows;
};

/// A pile of finished knives on one page, sorted by any column, to be looked through and written.
class PileBench : public Bench {
    Q_OBJECT

public:
    PileBench(Document& document, ShopActions& actions, const Seams& seams, const Look& look,
              QWidget* parent = nullptr);
    QString title() const override { return tr("Pile"); }
    HelpText help() const override;
    QWidget* focusTarget() override;
    bool needsBlade() const override { return false; }
    bool isRoll() const override { return true; }
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void rightAct() override;
    Commands commands() override;
    Commands doors() override;
    std::vector<ReportTable> tables() const override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    /// The rows in the order in which they are sorted now.
    std::vector<PileRow> sorted() const;
    void open(const QModelIndex& index);
    void write(const QString& filter);

    ShopActions& m_actions;
    const Seams& m_seams;
    PileModel* m_model;
    QSortFilterProxyModel* m_order;
    QTableView* m_table;
    bool m_refreshing = false;
};

} // namespace rollcall
