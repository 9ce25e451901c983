// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/record.h"
#include "logbook/database.h"

#include <QByteArray>
#include <QString>
#include <string>
#include <vector>

namespace rollcall {

/// One entry of the change log. Its hash covers the entry and the hash of the one before, from entry 1 on.
struct ChangeEntry {
    qint64 seq = 0;
    Instant at;
    QString person;
    QString action;
    QString payload; ///< JSON: the rows inserted and updated
    QString previous;

    QString hash() const;
};

/// The hash that the first entry follows.
inline QString chainBeginning() {
    return QString(64, QLatin1Char('0'));
}

/// Appends an entry with what the database noted since the last one.
Result<Done> appendChange(Database& database, const Instant& at, const QString& person, const char* action);

/// Sentences about every break of the chain and every row that differs from what the log says of it.
Result<std::vector<std::string>> checkChanges(Database& database);

} // namespace rollcall
