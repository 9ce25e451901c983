// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/measure/outline.h"

#include <QString>

namespace rollcall {

/// A blade's outline as stored: a JSON array of [x, y] in mm.
QString outlineText(const BladeShape& shape);

/// Reads it back; corners that are no pair of numbers are left out.
std::vector<Spot> outlineFromText(const QString& text);

} // namespace rollcall
