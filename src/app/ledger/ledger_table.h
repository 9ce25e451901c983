// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/look.h"
#include "report/ledger_view.h"

#include <QAbstractTableModel>
#include <QSortFilterProxyModel>
#include <QTableView>
#include <set>

namespace rollcall {

/// The table of a view of the ledger, with a small rule where a column has one.
class LedgerModel : public QAbstractTableModel {
    Q_OBJECT

public:
    using QAbstractTableModel::QAbstractTableModel;

    enum Role { stripRole = Qt::UserRole, sortRole, numberRole, toneRole };
    /// Where a value lies between the least and the most of its column, and what is known of it, from 0 to 1.
    struct Strip {
        double at = 0;
        double low = 0;
        double high = 0;
    };

    void show(LedgerView view);
    const LedgerView& view() const { return m_view; }
    int rowCount(const QModelIndex& parent = {}) const override;
    int columnCount(const QModelIndex& parent = {}) const override;
    QVariant data(const QModelIndex& index, int role) const override;
    QVariant headerData(int section, Qt::Orientation orientation, int role) const override;

private:
    LedgerView m_view;
    struct Column {
        bool number = false;
        int decimals = 0; ///< as many as any of its values needs, two at most
    };
    QString textOf(const QVariant& value, int column) const;

    std::vector<Column> m_columns;
    double m_low = 0; ///< of the column with the rule
    double m_high = 1;
};

/// It sorts by a click on a column's head, and shows the columns that are wished.
class LedgerTable : public QTableView {
    Q_OBJECT

public:
    explicit LedgerTable(const Look& look, QWidget* parent = nullptr);

    void show(LedgerView view);
    const LedgerModel& ledger() const { return *m_model; }
    /// Whether its rows are sentences: larger, and told with their tone.
    bool isSentences() const { return !m_model->view().tones.empty(); }
    /// Height that shows so many whole rows, and how many a height shows.
    int heightFor(int rows) const;
    int rowsIn(int height) const;
    /// It would like to show so many rows, and is content with one.
    void wish(int rows);
    QSize sizeHint() const override { return {QTableView::sizeHint().width(), heightFor(m_wished)}; }
    QSize minimumSizeHint() const override { return {m_look.px(100), heightFor(1)}; }
    /// Row of the view that is in hand; -1 for none.
    int current() const;
    /// So many rows further, as they are sorted; extended, those on the way are picked out too.
    void stepRows(int by, bool extend);
    /// Rows of the view that are picked out, and back.
    std::set<int> chosen() const;
    void choose(const std::set<int>& rows);
    /// The table as it stands: sorted, without the columns that are hidden.
    ReportTable shownTable() const;

signals:
    void chosenChanged();
    void opened(int row);
    /// It needs, or needs no longer, a bar to scroll along.
    void roomChanged();

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    void fitSentences();

    const Look& m_look;
    LedgerModel* m_model;
    QSortFilterProxyModel* m_order;
    QStringList m_head; ///< of the table whose widths are set
    bool m_choosing = false;
    int m_wished = 2;
};

} // namespace rollcall

Q_DECLARE_METATYPE(rollcall::LedgerModel::Strip)
