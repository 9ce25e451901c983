// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <QPoint>
#include <QString>

class QWidget;

namespace rollcall {

/// Tells beside the pointer, as it moves over something painted, what lies under it: the value of a point, what a mark
/// means. says is asked with a place of the widget; empty: nothing lies there.
void tellUnder(QWidget* widget, std::function<QString(const QPoint& at)> says);

} // namespace rollcall
