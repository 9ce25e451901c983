// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ledger/ledger_chart_view.h"

#include "app/shared/accessible.h"
#include "app/shared/pointing.h"

#include <QMouseEvent>
#include <QPainter>

namespace rollcall {

LedgerChartView::LedgerChartView(const Look& look, QWidget* parent)
    : QWidget(parent), m_look(look), m_stretch(new Stretch(this, [this] { return rect(); })) {
    setObjectName(QStringLiteral("ledger-chart"));
    setRole(this, QAccessible::Chart);
    setMinimumHeight(look.px(124));
    setCursor(Qt::CrossCursor);
    connect(m_stretch, &Stretch::changed, this, qOverload<>(&QWidget::update));
    tellUnder(this, [this](const QPoint& at) { return ledgerChartSays(rect(), shown(), at, m_look); });
}

void LedgerChartView::show(LedgerChart chart) {
    chart.chosen = std::move(m_chart.chosen);
    m_chart = std::move(chart);
    setAccessibleName(m_chart.y_title.isEmpty() ? m_chart.empty : m_chart.y_title);
    update();
}

void LedgerChartView::choose(const std::set<int>& rows) {
    if (m_chart.chosen == rows) return;
    m_chart.chosen = rows;
    update();
}

LedgerChart LedgerChartView::shown() const {
    LedgerChart chart = m_chart;
    chart.part = m_stretch->of(0, 1);
    return chart;
}

void LedgerChartView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), m_look.palette.panel);
    drawLedgerChart(painter, rect(), shown(), m_look);
    if (!m_frame) return;
    QColor fill = m_look.palette.primary;
    constexpr int faint = 40;
    fill.setAlpha(faint);
    painter.fillRect(*m_frame, fill);
    painter.setPen(QPen(m_look.palette.primary, 1, Qt::DashLine));
    painter.drawRect(*m_frame);
}

void LedgerChartView::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return QWidget::mousePressEvent(event);
    m_pressed = event->pos();
}

void LedgerChartView::mouseMoveEvent(QMouseEvent* event) {
    if (!(event->buttons() & Qt::LeftButton)) return QWidget::mouseMoveEvent(event);
    if ((event->pos() - m_pressed).manhattanLength() < m_look.px(6) && !m_frame) return;
    m_frame = QRect(m_pressed, event->pos()).normalized();
    update();
}

void LedgerChartView::mouseReleaseEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return QWidget::mouseReleaseEvent(event);
    const QRect picked_ = m_frame.value_or(QRect(m_pressed, QSize(1, 1)));
    m_frame.reset();
    const std::set<int> rows = ledgerRowsIn(rect(), shown(), picked_, m_look);
    choose(rows);
    emit picked(rows);
}

void LedgerChartView::mouseDoubleClickEvent(QMouseEvent* event) {
    const std::set<int> rows = ledgerRowsIn(rect(), shown(), QRect(event->pos(), QSize(1, 1)), m_look);
    if (!rows.empty()) emit opened(*rows.begin());
}

} // namespace rollcall
