// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <QString>

namespace rollcall {

/// Whether a path is meant as a zip file.
inline bool isZip(const QString& path) {
    return path.endsWith(QLatin1String(".zip"), Qt::CaseInsensitive);
}

/// Packs a folder and the folders in it into a new zip file. Errors: exists, disk.
Result<Done> zipFolder(const QString& folder, const QString& zip);

/// Unpacks a zip file into an existing folder. Errors (input): no zip file, a damaged one, a name in it that leads out
/// of the folder, more than 4 GiB; disk.
Result<Done> unzipInto(const QString& zip, const QString& folder);

} // namespace rollcall
