// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/drop_down.h"

#include <QPainter>
#include <QStyleOptionComboBox>

namespace rollcall {

// A style sheet takes the arrow of a style only as a picture, which knows neither palette nor size of text.
void DropDown::paintEvent(QPaintEvent* event) {
    QComboBox::paintEvent(event);
    if (!isEnabled() && count() == 0) return;
    QStyleOptionComboBox option;
    initStyleOption(&option);
    const QRectF place = style()->subControlRect(QStyle::CC_ComboBox, &option, QStyle::SC_ComboBoxArrow, this);
    const double half = fontMetrics().height() * 0.22;
    const QPointF middle = place.center();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(palette().color(QPalette::Text), 2, Qt::SolidLine, Qt::SquareCap, Qt::MiterJoin));
    painter.drawPolyline(QPolygonF{middle + QPointF(-half, -half / 2), middle + QPointF(0, half / 2),
                                   middle + QPointF(half, -half / 2)});
}

} // namespace rollcall
