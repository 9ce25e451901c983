// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/long_press.h"

#include <QAbstractButton>
#include <QApplication>
#include <QContextMenuEvent>
#include <QMouseEvent>

namespace rollcall {

namespace {
constexpr int rest_ms = 650;
constexpr int stillNear_px = 12;
} // namespace

LongPress::LongPress(QWidget* window) : QObject(window), m_window(window) {
    m_rest.setSingleShot(true);
    m_rest.setInterval(rest_ms);
    connect(&m_rest, &QTimer::timeout, this, [this] {
        if (m_under != nullptr) emit asked(m_under, m_at);
    });
    qApp->installEventFilter(this);
}

bool LongPress::eventFilter(QObject* watched, QEvent* event) {
    auto* widget = qobject_cast<QWidget*>(watched);
    if (widget == nullptr || widget->window() != m_window || QApplication::activePopupWidget() != nullptr) return false;
    if (widget->contextMenuPolicy() == Qt::PreventContextMenu) return false;
    switch (event->type()) {
    case QEvent::ContextMenu: {
        m_rest.stop();
        const auto* menu = static_cast<QContextMenuEvent*>(event);
        emit asked(widget, menu->globalPos());
        return true;
    }
    case QEvent::MouseButtonPress: {
        const auto* press = static_cast<QMouseEvent*>(event);
        if (press->button() != Qt::LeftButton || qobject_cast<QAbstractButton*>(widget) != nullptr) break;
        m_under = widget;
        m_at = press->globalPosition().toPoint();
        m_rest.start();
        break;
    }
    case QEvent::MouseMove:
        if ((static_cast<QMouseEvent*>(event)->globalPosition().toPoint() - m_at).manhattanLength() > stillNear_px)
            m_rest.stop();
        break;
    case QEvent::MouseButtonRelease:
        m_rest.stop();
        break;
    default:
        break;
    }
    return false;
}

} // namespace rollcall
