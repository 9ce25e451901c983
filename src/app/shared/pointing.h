// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/told.h"

#include <functional>
#include <QPoint>
#include <QString>

class QWidget;

namespace rollcall {

/// Tells beside the pointer, as it moves over something painted, what lies under it: the value of a point, what a mark
/// means. says is asked with a place of the widget; empty: nothing lies there.
void tellUnder(QWidget* widget, std::function<QString(const QPoint& at)> says);
/// The same of a picture that notes down what it says as it is painted.
void tellUnder(QWidget* widget, const Told& told);

} // namespace rollcall
