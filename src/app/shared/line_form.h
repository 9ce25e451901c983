// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/links/device_link.h"
#include "plot/look.h"

#include <functional>

class QWidget;

namespace rollcall {

/// Asks how an instrument is wired: port, form of its lines (from this file of data/devices, or typed), speed. An empty
/// port means that it is on no wire. An error tells that the file of forms cannot be read.
Result<Done> askLine(const QString& title, const QString& presetsFile, const LineSetup& now, const Look& look,
                     QWidget* parent, std::function<void(const LineSetup&)> done);

} // namespace rollcall
