// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <stdexcept>
#include <string>

namespace rollcall::bench {

/// Ends a measurement that cannot be one.
inline void require(bool ok, const std::string& what) {
    if (!ok) throw std::runtime_error(what);
}

} // namespace rollcall::bench
