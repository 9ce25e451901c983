// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QString>
#include <QStringList>

namespace rollcall::cli {

/// What rollcallctl would print and exit with.
struct Answer {
    int exit_code = 0;
    QByteArray output; ///< one JSON object and a line end; empty when it failed
    QByteArray error;  ///< one line; empty when it did not
};

/// Runs one command: arguments without the program's name, tables from this folder.
Answer run(const QStringList& arguments, const QString& tablesFolder);

} // namespace rollcall::cli
