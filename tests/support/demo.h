// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "demo/demo.h"
#include "tests/support/fixtures.h"

#include <QtTest>

namespace rollcall::fixtures {

/// The demo logbook as it is made now.
inline void putDemo(const QString& path) {
    DemoOptions options;
    options.today = LogbookSeams::real().now();
    QVERIFY(writeDemo(path, tables(), options).ok());
}

} // namespace rollcall::fixtures
