// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"
#include "logbook/logbook.h"

#include <cstdint>
#include <QString>

namespace rollcall {

struct DemoOptions {
    std::uint64_t seed = 1;
    Instant today; ///< the demo's last entries lie shortly before this moment, on its local day
    int scale = 1; ///< times as many finished batches; for benchmarks
};

/// Writes the made-up logbook of a shop for orchard and hedgerow tools: three batches in work that show every
/// verdict, and a year of finished ones. The same options give the same file
/// content. Errors: exists, disk.
Result<Done> writeDemo(const QString& path, const Tables& tables, const DemoOptions& options);

} // namespace rollcall
