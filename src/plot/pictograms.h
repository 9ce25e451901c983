// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/look.h"

namespace rollcall {

/// What a step of the help is about, as a small line drawing.
enum class Pictogram {
    blade,
    indent,
    block,
    dial,
    file,
    oven,
    trace,
    clock,
    tank,
    peaks,
    magnifier,
    bend,
    hammer,
    rod,
    rope,
    page,
    pen,
    window,
    boxes,
    arrows,
    question
};

/// In a square of this size at (x, y), in the ink of the look.
void drawPictogram(QPainter& painter, double x, double y, double size, Pictogram which, const Look& look);

} // namespace rollcall
