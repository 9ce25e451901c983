// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

namespace rollcall {

/// 0 °C in kelvin.
inline constexpr double kelvin = 273.15;

} // namespace rollcall
