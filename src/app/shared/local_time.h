// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/instant.h"

#include <QDateTime>

namespace rollcall {

/// A moment on the clock that stood on the wall where it was noted.
inline QDateTime localTime(const Instant& at) {
    return QDateTime::fromMSecsSinceEpoch(at.utc_ms, Qt::OffsetFromUTC, at.offset_minutes * 60);
}

} // namespace rollcall
