// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <cstdint>

namespace rollcall {

/// A moment: UTC in milliseconds since 1970, and the offset of the local clock that wrote it.
struct Instant {
    std::int64_t utc_ms = 0;
    int offset_minutes = 0;

    /// Number of the local day since 1970; a verification is valid until this changes.
    std::int64_t localDay() const {
        const std::int64_t local = utc_ms + static_cast<std::int64_t>(offset_minutes) * 60000;
        return local >= 0 ? local / 86400000 : -((-local + 86399999) / 86400000);
    }
    friend bool operator==(const Instant&, const Instant&) = default;
};

} // namespace rollcall
