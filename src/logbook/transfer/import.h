// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/logbook.h"
#include "logbook/transfer/column_map.h"
#include "logbook/transfer/progress.h"

namespace rollcall {

/// What an import of readings did, or would do.
struct ImportReport {
    std::string id;  ///< of the import; empty when nothing was taken
    int batches = 0; ///< newly added
    int blades = 0;
    int readings = 0;
    int already_there = 0;
    struct Rejected {
        int line = 0;
        std::string reason;
    };
    std::vector<Rejected> rejected;
};

/// An import that could be taken back.
struct PastImport {
    std::string id;
    std::string file;
    int readings = 0;
    Instant at;
};

/// Takes the good lines of a readings.csv, or of any table whose columns the map names, reports the others, and
/// keeps the file. Importing it again adds nothing. A trial reports and does nothing. Errors: input when it is no
/// such file, refused when not a single line could be taken, or when it was given up.
Result<ImportReport> importReadings(Logbook& logbook, const Tables& tables, const QString& fileName,
                                    const QByteArray& bytes, const std::optional<ColumnMap>& map = {},
                                    bool trial = false, Progress* progress = nullptr);
/// The last import that was not taken back; none when there is none.
Result<std::optional<PastImport>> lastImport(Logbook& logbook);
/// The inverse of an import: its readings are struck out, its tempers too, the blades it made are out and give
/// their names free. Errors (refused): taken back already, something was logged on what it brought.
Result<Done> takeBackImport(Logbook& logbook, const std::string& import);

} // namespace rollcall
