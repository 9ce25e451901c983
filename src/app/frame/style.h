// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/look.h"

#include <QString>

namespace rollcall {

/// The style sheet for the standard widgets in forms and dialogs, from the palette and scale.
QString styleSheet(const Look& look);

} // namespace rollcall
