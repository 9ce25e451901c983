// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/stretch.h"

#include <algorithm>
#include <cmath>
#include <QGestureEvent>
#include <QMouseEvent>
#include <QWheelEvent>
#include <QWidget>

namespace rollcall {

namespace {
constexpr double closest = 1.0 / 256; // of the whole; beyond it there is nothing to tell apart
constexpr double step = 1.5;
} // namespace

Stretch::Stretch(QWidget* chart, std::function<QRect()> area) : QObject(chart), m_area(std::move(area)) {
    chart->installEventFilter(this);
    chart->grabGesture(Qt::PinchGesture);
}

void Stretch::show(double from, double to) {
    const double wide = std::clamp(to - from, closest, 1.0);
    from = std::clamp(from, 0.0, 1.0 - wide);
    if (from == m_from && from + wide == m_to) return;
    m_from = from;
    m_to = from + wide;
    emit changed();
}

void Stretch::closer(double times, double about) {
    const double at = m_from + about * (m_to - m_from);
    const double wide = std::clamp((m_to - m_from) / times, closest, 1.0);
    show(at - about * wide, at + (1 - about) * wide);
}

void Stretch::along(double by) {
    const double wide = m_to - m_from;
    show(m_from + by * wide, m_to + by * wide);
}

void Stretch::showAll() {
    show(0, 1);
}

Commands Stretch::commands(const QString& place) {
    const auto isWhole = [this] { return whole() ? tr("All of it is in view.") : QString(); };
    Commands all{{place + QStringLiteral(".closer"), tr("Closer"), tr("the chart; or the wheel over it"), Verb::none,
                  [this] { closer(step); }},
                 {place + QStringLiteral(".wider"), tr("Wider"), tr("the chart"), Verb::none,
                  [this] { closer(1 / step); }, isWhole},
                 {place + QStringLiteral(".earlier"), tr("Earlier part"), tr("of the chart; or Shift and the wheel"),
                  Verb::none, [this] { along(-0.5); }, isWhole},
                 {place + QStringLiteral(".later"), tr("Later part"), tr("of the chart; or Shift and the wheel"),
                  Verb::none, [this] { along(0.5); }, isWhole},
                 {place + QStringLiteral(".whole"), tr("Whole chart"), tr("or a double click on it"), Verb::none,
                  [this] { showAll(); }, isWhole}};
    for (Command& command : all) command.in_row = false; // the wheel and the fingers are nearer
    return all;
}

bool Stretch::eventFilter(QObject* watched, QEvent* event) {
    // Of a place that is going away events come too, when it can no longer be asked.
    const QEvent::Type type = event->type();
    if (type != QEvent::Wheel && type != QEvent::MouseButtonDblClick && type != QEvent::Gesture)
        return QObject::eventFilter(watched, event);
    const QRect area = m_area();
    const auto placeOf = [&](const QPointF& at) { return (at.x() - area.left()) / std::max(1, area.width()); };
    switch (type) {
    case QEvent::Wheel: {
        const auto* wheel = static_cast<QWheelEvent*>(event);
        if (!area.contains(wheel->position().toPoint())) break;
        constexpr double notch = 120; // eighths of a degree
        const QPoint turned = wheel->angleDelta();
        const bool sideways = (wheel->modifiers() & Qt::ShiftModifier) || std::abs(turned.x()) > std::abs(turned.y());
        const double notches = (turned.y() != 0 ? turned.y() : turned.x()) / notch;
        if (sideways)
            along(-0.2 * notches);
        else
            closer(std::pow(step, notches), std::clamp(placeOf(wheel->position()), 0.0, 1.0));
        return true;
    }
    case QEvent::MouseButtonDblClick:
        if (whole() || !area.contains(static_cast<QMouseEvent*>(event)->pos())) break;
        showAll();
        return true;
    case QEvent::Gesture: {
        const auto* pinch = static_cast<QPinchGesture*>(static_cast<QGestureEvent*>(event)->gesture(Qt::PinchGesture));
        if (pinch == nullptr) break;
        closer(pinch->scaleFactor());
        return true;
    }
    default:
        break;
    }
    return QObject::eventFilter(watched, event);
}

} // namespace rollcall
