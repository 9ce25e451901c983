// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/row_list.h"

#include "app/shared/growing_model.h"
#include "app/shared/plain_text.h"

#include <QAbstractListModel>
#include <QStyledItemDelegate>

namespace rollcall {

class RowList::Model : public GrowingModel<QAbstractListModel> {
public:
    Model(const RowList& list, QObject* parent) : GrowingModel(parent), m_list(list) {}

    int rowCount(const QModelIndex& parent = {}) const override { return parent.isValid() ? 0 : m_count; }
    QVariant data(const QModelIndex& index, int role) const override {
        if (!checkIndex(index, CheckIndexOption::IndexIsValid) || !m_list.rows().text) return {};
        if (role == Qt::ToolTipRole) return plainTip(m_list.rows().text(index.row()));
        return role == Qt::DisplayRole || role == Qt::AccessibleTextRole ? m_list.rows().text(index.row()) : QVariant();
    }
    void setCount(int count) {
        changeRows(m_count, count, [&] { m_count = count; });
    }

private:
    const RowList& m_list;
    int m_count = 0;
};

namespace {

class RowDelegate : public QStyledItemDelegate {
public:
    RowDelegate(const RowList& list, QObject* parent) : QStyledItemDelegate(parent), m_list(list) {}
    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        painter->save();
        m_list.rows().paint(*painter, option.rect, index.row());
        painter->restore();
    }
    QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex&) const override { return {100, m_list.rowHeight()}; }

private:
    const RowList& m_list;
};

} // namespace

RowList::RowList(int rowHeight, const Look& look, QWidget* parent)
    : QListView(parent), m_look(look), m_rowHeight(look.px(rowHeight)), m_model(new Model(*this, this)) {
    setModel(m_model);
    setItemDelegate(new RowDelegate(*this, this));
    setFrameShape(QFrame::NoFrame);
    setUniformItemSizes(true);
    setSelectionMode(QAbstractItemView::SingleSelection);
    setVerticalScrollMode(QAbstractItemView::ScrollPerItem); // no half rows
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    setEditTriggers(QAbstractItemView::NoEditTriggers);
    setFocusPolicy(Qt::TabFocus);
}

void RowList::show(Rows rows) {
    m_showing = true;
    m_rows = std::move(rows);
    m_model->setCount(m_rows.count);
    const QModelIndex current = m_rows.current < 0 ? QModelIndex() : m_model->index(m_rows.current);
    setCurrentIndex(current);
    if (current.isValid()) scrollTo(current);
    m_showing = false;
    viewport()->update();
}

void RowList::paintEvent(QPaintEvent* event) {
    QPainter(viewport()).fillRect(viewport()->rect(), m_look.palette.panel);
    QListView::paintEvent(event);
}

void RowList::currentChanged(const QModelIndex& current, const QModelIndex& previous) {
    QListView::currentChanged(current, previous);
    if (!m_showing && current.isValid()) emit chosen(current.row());
}

} // namespace rollcall
