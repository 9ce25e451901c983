// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/schema.h"
#include "tests/support/temp_logbook.h"

namespace rollcall::fixtures {

/// A logbook as the first Rollcall left it, with HB in it.
inline void putOldLogbook(const QString& path) {
    QString sql = QStringLiteral("PRAGMA application_id=%1;;PRAGMA user_version=1").arg(schema::applicationId);
    for (const char* statement : schema::migration(1)) sql += QStringLiteral(";;") + QLatin1String(statement);
    sql += ";;INSERT INTO person VALUES ('p1', 'HB', '')";
    QCOMPARE(TempLogbook::meddle(path, sql), QString());
}

} // namespace rollcall::fixtures
