// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ledger/ledger_table.h"

#include "app/shared/plain_text.h"
#include "plot/glyphs.h"

#include <algorithm>
#include <cmath>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLocale>
#include <QPainter>
#include <QScrollBar>
#include <QStyledItemDelegate>

namespace rollcall {

namespace {

constexpr int lineHeight = 34;
constexpr int sentenceHeight = 96; // three lines
constexpr int sentenceLeft = 52;
constexpr int mostMeasured = 200; // rows that a column's width is taken from

bool isNumber(const QVariant& value) {
    return value.typeId() == QMetaType::Double || value.typeId() == QMetaType::Int;
}

class LedgerCell : public QStyledItemDelegate {
public:
    LedgerCell(const Look& look, QObject* parent) : QStyledItemDelegate(parent), m_look(look) {}

    void paint(QPainter* painter, const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        const Palette& p = m_look.palette;
        const QRect& cell = option.rect;
        const bool chosen = option.state & QStyle::State_Selected;
        painter->fillRect(cell, chosen ? p.window_on_panel : p.panel);
        painter->fillRect(cell.left(), cell.bottom(), cell.width(), 1, p.hair);
        if (const QVariant tone = index.data(LedgerModel::toneRole); tone.isValid())
            return paintSentence(*painter, option, static_cast<Tone>(tone.toInt()), index.data().toString());
        const QVariant strip = index.data(LedgerModel::stripRole);
        int right = cell.right() - m_look.px(10);
        if (strip.isValid()) {
            const auto at = strip.value<LedgerModel::Strip>();
            const int wide = m_look.px(64);
            const int left = right - wide;
            const int middle = cell.center().y();
            const auto x = [&](double share) { return left + qRound(std::clamp(share, 0.0, 1.0) * wide); };
            painter->fillRect(left, middle, wide, 1, p.line);
            if (at.high > at.low)
                painter->fillRect(x(at.low), middle - m_look.px(3), std::max(1, x(at.high) - x(at.low)), m_look.px(7),
                                  p.window);
            painter->fillRect(x(at.at) - 1, middle - m_look.px(8), m_look.px(3), m_look.px(16), p.ink);
            right = left - m_look.px(10);
        }
        const QString text = index.data().toString();
        const bool number = index.data(LedgerModel::numberRole).toBool();
        const QRect room(cell.left() + m_look.px(8), cell.top(), right - cell.left() - m_look.px(8), cell.height());
        const double baseline = cell.center().y() + m_look.px(6);
        const QFont font = m_look.font(16, index.column() == 0);
        drawText(*painter, number ? room.right() : room.left(), baseline, shortened(text, font, room.width()), font,
                 p.ink, number ? Qt::AlignRight : Qt::AlignLeft);
        if (option.state & QStyle::State_HasFocus) {
            painter->setPen(QPen(p.primary, 2));
            painter->setBrush(Qt::NoBrush);
            painter->drawRect(cell.adjusted(1, 1, -1, -2));
        }
    }

    QSize sizeHint(const QStyleOptionViewItem&, const QModelIndex& index) const override {
        const int text = m_look.width(index.data().toString(), 16, index.column() == 0);
        const int strip = index.data(LedgerModel::stripRole).isValid() ? m_look.px(84) : 0;
        return {text + strip + m_look.px(22), m_look.px(lineHeight)};
    }

private:
    void paintSentence(QPainter& painter, const QStyleOptionViewItem& option, Tone tone, const QString& text) const {
        const QRect& cell = option.rect;
        const int glyph = m_look.px(26);
        drawToneGlyph(painter, cell.left() + m_look.px(8), cell.top() + m_look.px(12), glyph, tone, m_look,
                      m_look.palette.panel);
        const int left = cell.left() + m_look.px(sentenceLeft);
        painter.save();
        painter.setFont(m_look.font(20));
        painter.setPen(m_look.palette.ink);
        painter.drawText(QRect(left, cell.top() + m_look.px(8), cell.right() - left - m_look.px(8), cell.height() - 8),
                         Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, text);
        painter.restore();
        if (!(option.state & QStyle::State_HasFocus)) return;
        painter.setPen(QPen(m_look.palette.primary, 2));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(cell.adjusted(1, 1, -1, -2));
    }

    const Look& m_look;
};

} // namespace

void LedgerModel::show(LedgerView view) {
    beginResetModel(); // another question has another table
    m_view = std::move(view);
    m_low = 1e300;
    m_high = -1e300;
    if (m_view.strip >= 0) {
        for (const QVariantList& row : m_view.table.rows) {
            if (!row[m_view.strip].isValid()) continue;
            const double half = m_view.strip_u >= 0 ? row[m_view.strip_u].toDouble() : 0;
            m_low = std::min(m_low, row[m_view.strip].toDouble() - half);
            m_high = std::max(m_high, row[m_view.strip].toDouble() + half);
        }
    }
    m_columns.assign(static_cast<std::size_t>(m_view.table.head.size()), {});
    for (const QVariantList& row : m_view.table.rows) {
        for (std::size_t c = 0; c < m_columns.size(); ++c) {
            const QVariant& value = row[static_cast<int>(c)];
            if (!isNumber(value)) continue;
            m_columns[c].number = true;
            double power = 1;
            int decimals = 0;
            for (; decimals < 2 && std::abs(std::round(value.toDouble() * power) / power - value.toDouble()) > 1e-9;
                 power *= 10)
                ++decimals;
            m_columns[c].decimals = std::max(m_columns[c].decimals, decimals);
        }
    }
    endResetModel();
}

QString LedgerModel::textOf(const QVariant& value, int column) const {
    if (!value.isValid()) return QStringLiteral("–");
    if (!isNumber(value)) return value.toString();
    return QString::number(value.toDouble(), 'f', m_columns[static_cast<std::size_t>(column)].decimals)
        .replace(QLatin1Char('-'), QChar(0x2212));
}

int LedgerModel::rowCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(m_view.table.rows.size());
}

int LedgerModel::columnCount(const QModelIndex& parent) const {
    return parent.isValid() ? 0 : static_cast<int>(m_view.table.head.size());
}

QVariant LedgerModel::data(const QModelIndex& index, int role) const {
    if (!checkIndex(index, CheckIndexOption::IndexIsValid)) return {};
    const QVariantList& row = m_view.table.rows[static_cast<std::size_t>(index.row())];
    const QVariant& value = row[index.column()];
    switch (role) {
    case Qt::DisplayRole:
        return textOf(value, index.column());
    case Qt::AccessibleTextRole:
        return QStringLiteral("%1: %2").arg(m_view.table.head[index.column()], textOf(value, index.column()));
    case Qt::ToolTipRole:
        return plainTip(data(index, Qt::AccessibleTextRole).toString());
    case toneRole:
        return m_view.tones.empty() ? QVariant() : QVariant(int(m_view.tones[static_cast<std::size_t>(index.row())]));
    case sortRole:
        return value;
    case numberRole:
        return m_columns[static_cast<std::size_t>(index.column())].number;
    case stripRole: {
        if (index.column() != m_view.strip || !value.isValid() || m_high <= m_low) return {};
        const double half = m_view.strip_u >= 0 ? row[m_view.strip_u].toDouble() : 0;
        const auto share = [&](double v) { return (v - m_low) / (m_high - m_low); };
        const double at = value.toDouble();
        return QVariant::fromValue(Strip{share(at), share(at - half), share(at + half)});
    }
    default:
        return {};
    }
}

QVariant LedgerModel::headerData(int section, Qt::Orientation orientation, int role) const {
    if (orientation != Qt::Horizontal || section < 0 || section >= m_view.table.head.size()) return {};
    const bool right = m_columns[static_cast<std::size_t>(section)].number && section != m_view.strip;
    if (role == Qt::TextAlignmentRole) return QVariant(Qt::AlignVCenter | (right ? Qt::AlignRight : Qt::AlignLeft));
    return role == Qt::DisplayRole ? QVariant(m_view.table.head[section]) : QVariant();
}

LedgerTable::LedgerTable(const Look& look, QWidget* parent)
    : QTableView(parent), m_look(look), m_model(new LedgerModel(this)), m_order(new QSortFilterProxyModel(this)) {
    setObjectName(QStringLiteral("ledger-table"));
    m_order->setSourceModel(m_model);
    m_order->setSortRole(LedgerModel::sortRole);
    setModel(m_order);
    setItemDelegate(new LedgerCell(look, this));
    setFrameShape(QFrame::NoFrame);
    setShowGrid(false);
    setSortingEnabled(true);
    setSelectionBehavior(SelectRows);
    setSelectionMode(ExtendedSelection);
    setTabKeyNavigation(false);
    setWordWrap(false);
    verticalHeader()->hide();
    verticalHeader()->setDefaultSectionSize(look.px(lineHeight));
    verticalHeader()->setSectionResizeMode(QHeaderView::Fixed);
    QHeaderView* head = horizontalHeader();
    head->setSortIndicator(-1, Qt::AscendingOrder); // as the view gives them
    head->setSectionsMovable(true);
    head->setHighlightSections(false);
    head->setDefaultAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    head->setFont(look.font(14, true));
    head->setMinimumHeight(look.px(30));
    setHorizontalScrollMode(ScrollPerPixel);
    connect(selectionModel(), &QItemSelectionModel::selectionChanged, this, [this] {
        if (!m_choosing) emit chosenChanged();
    });
    connect(horizontalScrollBar(), &QScrollBar::rangeChanged, this, &LedgerTable::roomChanged);
    connect(this, &QTableView::doubleClicked, this,
            [this](const QModelIndex& index) { emit opened(m_order->mapToSource(index).row()); });
}

void LedgerTable::show(LedgerView view) {
    const bool other = view.table.head != m_head;
    m_head = view.table.head;
    m_choosing = true;
    m_model->show(std::move(view));
    m_choosing = false;
    setAccessibleName(m_model->view().table.title);
    if (other) {
        horizontalHeader()->setVisible(!isSentences());
        horizontalHeader()->setStretchLastSection(isSentences());
        verticalHeader()->setDefaultSectionSize(m_look.px(lineHeight));
        horizontalHeader()->setSortIndicator(-1, Qt::AscendingOrder);
        m_order->sort(-1);
    }
    if (isSentences()) return fitSentences();
    // A column becomes wider with what comes in, never narrower: what was set by hand stays.
    const int rows = std::min(mostMeasured, m_model->rowCount());
    for (int column = 0; column < m_model->columnCount(); ++column) {
        if (other) setColumnHidden(column, false);
        int wide = m_look.width(m_head[column], 14, true) + m_look.px(16); // the arrow of its order
        for (int row = 0; row < rows; ++row)
            wide = std::max(wide, itemDelegate()->sizeHint({}, m_order->index(row, column)).width());
        wide = std::min(wide, m_look.px(320));
        if (other || wide > columnWidth(column)) setColumnWidth(column, wide);
    }
}

int LedgerTable::heightFor(int rows) const {
    const int bar = horizontalScrollBar()->maximum() > 0 ? horizontalScrollBar()->sizeHint().height() : 0;
    return horizontalHeader()->sizeHint().height() + rows * m_look.px(lineHeight) + bar;
}

void LedgerTable::wish(int rows) {
    m_wished = std::max(1, rows);
    setMaximumHeight(isSentences() ? QWIDGETSIZE_MAX : heightFor(m_wished));
    updateGeometry();
}

int LedgerTable::rowsIn(int height) const {
    return (height - heightFor(0)) / m_look.px(lineHeight);
}

int LedgerTable::current() const {
    return currentIndex().isValid() ? m_order->mapToSource(currentIndex()).row() : -1;
}

void LedgerTable::stepRows(int by, bool extend) {
    const int rows = m_order->rowCount();
    if (rows == 0) return;
    const int from = currentIndex().isValid() ? currentIndex().row() : (by > 0 ? -1 : rows);
    const int to = std::clamp(from + by, 0, rows - 1);
    const QModelIndex index = m_order->index(to, 0);
    if (!extend || from < 0 || from >= rows) {
        selectionModel()->setCurrentIndex(index, QItemSelectionModel::ClearAndSelect | QItemSelectionModel::Rows);
    } else {
        selectionModel()->select(
            QItemSelection(m_order->index(std::min(from, to), 0), m_order->index(std::max(from, to), 0)),
            QItemSelectionModel::Select | QItemSelectionModel::Rows);
        selectionModel()->setCurrentIndex(index, QItemSelectionModel::NoUpdate);
    }
    scrollTo(index);
}

std::set<int> LedgerTable::chosen() const {
    std::set<int> rows;
    for (const QModelIndex& index : selectionModel()->selectedRows()) rows.insert(m_order->mapToSource(index).row());
    return rows;
}

void LedgerTable::choose(const std::set<int>& rows) {
    m_choosing = true;
    QItemSelection selection;
    for (const int row : rows) {
        const QModelIndex index = m_order->mapFromSource(m_model->index(row, 0));
        selection.select(index, index);
    }
    selectionModel()->select(selection, QItemSelectionModel::ClearAndSelect | QItemSelectionModel::Rows);
    if (!rows.empty()) {
        const QModelIndex first = m_order->mapFromSource(m_model->index(*rows.begin(), 0));
        selectionModel()->setCurrentIndex(first, QItemSelectionModel::NoUpdate);
        scrollTo(first);
    }
    m_choosing = false;
    emit chosenChanged();
}

ReportTable LedgerTable::shownTable() const {
    const ReportTable& all = m_model->view().table;
    ReportTable shown{all.title, {}, {}};
    std::vector<int> columns;
    for (int visual = 0; visual < m_model->columnCount(); ++visual) {
        const int column = horizontalHeader()->logicalIndex(visual);
        if (isColumnHidden(column)) continue;
        columns.push_back(column);
        shown.head << all.head[column];
    }
    for (int i = 0; i < m_order->rowCount(); ++i) {
        const auto row = static_cast<std::size_t>(m_order->mapToSource(m_order->index(i, 0)).row());
        QVariantList line;
        for (const int column : columns) line << all.rows[row][column];
        shown.rows.push_back(std::move(line));
    }
    return shown;
}

// Sentences share the height there is; each has at least what its lines need.
void LedgerTable::fitSentences() {
    setColumnWidth(0, viewport()->width());
    const int rows = std::max(1, m_model->rowCount());
    const int share = std::min(viewport()->height() / rows, m_look.px(sentenceHeight));
    const QFontMetrics font(m_look.font(20));
    const int wide = viewport()->width() - m_look.px(sentenceLeft + 8);
    for (int row = 0; row < m_order->rowCount(); ++row) {
        const QString text = m_order->index(row, 0).data().toString();
        const int lines = font.boundingRect(QRect(0, 0, wide, 10000), Qt::TextWordWrap, text).height();
        setRowHeight(row, std::max(share, lines + m_look.px(20)));
    }
}

void LedgerTable::resizeEvent(QResizeEvent* event) {
    QTableView::resizeEvent(event);
    if (isSentences()) fitSentences();
}

// Rows go on under a head that is wider than their columns: where they end, columns would seem to be missing.
void LedgerTable::paintEvent(QPaintEvent* event) {
    QTableView::paintEvent(event);
    const int from = horizontalHeader()->length() - horizontalOffset();
    const int wide = viewport()->width() - from;
    if (wide <= 0) return;
    const Palette& p = m_look.palette;
    QPainter painter(viewport());
    for (int row = std::max(0, rowAt(0)); row < m_order->rowCount(); ++row) {
        const int top = rowViewportPosition(row);
        if (top >= viewport()->height()) break;
        const bool chosen = selectionModel()->isRowSelected(row);
        painter.fillRect(from, top, wide, rowHeight(row), chosen ? p.window_on_panel : p.panel);
        painter.fillRect(from, top + rowHeight(row) - 1, wide, 1, p.hair);
    }
}

void LedgerTable::keyPressEvent(QKeyEvent* event) {
    // Digits and letters belong to the place: pages and acts; a table would look for rows that begin with them.
    const bool moves = event->text().isEmpty() || event->key() == Qt::Key_Space;
    if (!moves || event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) return event->ignore();
    QTableView::keyPressEvent(event);
}

} // namespace rollcall
