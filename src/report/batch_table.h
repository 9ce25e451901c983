// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/gates.h"

#include <QByteArray>
#include <QString>
#include <QStringList>
#include <QVariant>
#include <vector>

namespace rollcall {

/// A table that leaves the shop: numbers stay numbers, what is not known is an invalid value.
struct ReportTable {
    QString title;
    QStringList head;
    std::vector<QVariantList> rows;
};

/// One line a blade: what it was sold as and what the composition says of it, hardness with uncertainty, whether it
/// lies inside its window, the other gates, what was decided. For a pile of finished knives as for a batch in work.
ReportTable bladeTable(const Batch& batch, const BatchVerdicts& verdicts, const Tables& tables);

/// Every reading, struck out and superseded ones too, with what became of it.
ReportTable readingTable(const Batch& batch);

QByteArray csvOf(const ReportTable& table);
/// Errors: disk.
Result<Done> writeCsv(const QString& path, const ReportTable& table);
/// Writes the first table as CSV or all of them as a workbook, by the ending of the path. Errors: argument (another
/// ending), disk.
Result<Done> writeTablesTo(const QString& path, const std::vector<ReportTable>& tables);
/// A workbook with a sheet for each table. Errors: disk.
Result<Done> writeWorkbook(const QString& path, const std::vector<ReportTable>& tables);

} // namespace rollcall
