// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/look.h"

namespace rollcall {

/// A verdict's glyph in a square of this size at (x, y): filled square with a tick, half-filled diamond, cross,
/// ring, bar. The background shows through the tick. A blade being called is a ring in the primary colour.
void drawVerdictGlyph(QPainter& painter, double x, double y, double size, State state, const Look& look,
                      const QColor& background, bool calling = false);

/// The mark of a caution for hand and eye: an outlined triangle, never a verdict's shape.
void drawCautionGlyph(QPainter& painter, double x, double y, double size, const QColor& color);

/// The small mark before a reason: the verdict glyph that its tone belongs to, a dot for notes, a dash for
/// what nobody looked at.
void drawToneGlyph(QPainter& painter, double x, double y, double size, Tone tone, const Look& look,
                   const QColor& background);

/// A key's name in a frame; returns the width used. x is the left end.
int drawKeyCap(QPainter& painter, int x, int centre, const QString& key, const Look& look, const QColor& color,
               int height = 20);
int keyCapWidth(const QString& key, const Look& look);

} // namespace rollcall
