// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QPainter>
#include <QRectF>
#include <QString>

namespace rollcall {

/// A text as a square code, with the white around it that readers need. Nothing where the text is too long for one.
void drawCode(QPainter& painter, const QRectF& area, const QString& text);

} // namespace rollcall
