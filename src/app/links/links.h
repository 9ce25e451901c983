// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/links/device_link.h"
#include "app/links/force_link.h"
#include "app/links/oven_link.h"
#include "app/links/watched_folder.h"

namespace rollcall {

/// What comes into the window by itself: wires, and folders that other programs write to.
struct Links {
    explicit Links(Document& document)
        : tester(document), oven(document), shots(QStringLiteral("xrf/folder"), {QStringLiteral("*.csv")}),
          fractures(QStringLiteral("grain/folder"),
                    {QStringLiteral("*.png"), QStringLiteral("*.jpg"), QStringLiteral("*.jpeg"),
                     QStringLiteral("*.tif"), QStringLiteral("*.tiff")}) {}

    DeviceLink tester;
    OvenLink oven;
    ForceLink force;
    WatchedFolder shots;
    WatchedFolder fractures;
};

} // namespace rollcall
