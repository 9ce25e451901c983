// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <functional>
#include <QImage>
#include <QPainter>
#include <QString>

namespace rollcall {

/// Writes a picture as PNG. Errors: disk, refused as writeFile().
Result<Done> savePng(const QString& path, const QImage& picture);

/// Writes a drawing as PNG or SVG, by the ending of the path, on this background. Errors: argument (another ending),
/// disk, refused.
Result<Done> savePicture(const QString& path, const QSize& size, const QString& title, const QColor& background,
                         const std::function<void(QPainter&, const QRect&)>& draw);

} // namespace rollcall
