// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/pointing.h"

#include "app/shared/plain_text.h"

#include <QHelpEvent>
#include <QMouseEvent>
#include <QWidget>

namespace rollcall {

namespace {

class Teller : public QObject {
public:
    Teller(QWidget* widget, std::function<QString(const QPoint&)> says)
        : QObject(widget), m_widget(widget), m_says(std::move(says)) {
        widget->setMouseTracking(true);
        widget->installEventFilter(this);
    }

protected:
    bool eventFilter(QObject* watched, QEvent* event) override {
        // A pressed button draws or moves something: a tip would stand in its way.
        if (event->type() == QEvent::MouseMove) {
            const auto* mouse = static_cast<QMouseEvent*>(event);
            if (mouse->buttons() == Qt::NoButton) tell(mouse->pos());
        } else if (event->type() == QEvent::ToolTip) {
            tell(static_cast<QHelpEvent*>(event)->pos());
            return true;
        }
        return QObject::eventFilter(watched, event);
    }

private:
    void tell(const QPoint& at) {
        const QString says = m_says(at);
        if (says.isEmpty() && !m_told) return;
        m_told = !says.isEmpty();
        showTip(m_widget->mapToGlobal(at), says, m_widget);
    }

    QWidget* m_widget;
    std::function<QString(const QPoint&)> m_says;
    bool m_told = false;
};

} // namespace

void tellUnder(QWidget* widget, std::function<QString(const QPoint&)> says) {
    new Teller(widget, std::move(says));
}

void tellUnder(QWidget* widget, const Told& told) {
    tellUnder(widget, [&told](const QPoint& at) { return told.at(at); });
}

} // namespace rollcall
