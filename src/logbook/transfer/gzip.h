// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <QByteArray>

namespace rollcall {

/// What the name of a packed file ends in.
inline constexpr const char* packedEnding = ".gz";

/// The bytes packed as gzip does, which any archiver opens: quickly, not as small as can be. Errors: disk (no
/// memory), refused (four gigabytes).
Result<QByteArray> gzip(const QByteArray& bytes);

} // namespace rollcall
