// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/accessible.h"

#include <functional>
#include <QPainter>
#include <QWidget>

namespace rollcall {

/// A drawing of values in a dialog: of fixed height, as wide as there is room, named for who cannot see it.
class Picture : public QWidget {
public:
    using Draw = std::function<void(QPainter&, const QRect&)>;

    Picture(int height, const QString& name, Draw draw, QWidget* parent = nullptr)
        : QWidget(parent), m_draw(std::move(draw)) {
        setFixedHeight(height);
        setRole(this, QAccessible::Graphic);
        setAccessibleName(name);
        setObjectName(QStringLiteral("picture"));
    }

protected:
    void paintEvent(QPaintEvent*) override {
        QPainter painter(this);
        m_draw(painter, rect());
    }

private:
    Draw m_draw;
};

} // namespace rollcall
