// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/database.h"

#include <map>
#include <optional>
#include <QJsonObject>
#include <QStringList>

namespace rollcall {

/// New rows of one table that an entry of the change log tells of together, as an import makes them: their ids are
/// numbers behind one prefix, and the entry holds a SHA-256 over the fields of each thousand of them, in that order. So
/// an altered, missing or added row is found as it is where every row stands in the entry itself.
struct RowSeries {
    QString table;
    QString prefix;
    QStringList columns; ///< those that the digests are over
    qint64 rows = 0;
    QStringList digests;
};

/// The id of a row in a series: the order of these texts is that of their numbers, up to 2,176,782,335.
QString idInSeries(const QString& prefix, qint64 number);
/// The prefix of such an id; of any other one a text that is no prefix.
QString prefixOf(const QString& id);

/// What stood in fields that were changed since: id -> column -> value.
using Earlier = std::map<QString, QJsonObject>;

/// Reads the rows that stand there behind the prefix and makes their digests. Errors: disk, damaged.
Result<RowSeries> readSeries(Database& database, const QString& table, const QString& prefix);

/// The rows that stand there behind the prefix, in the order of their ids, with these in front. Errors: disk, damaged.
Result<Done> eachRowOf(Database& database, const RowSeries& series, const std::function<void(const Row&)>& take);

QJsonObject noteOf(const RowSeries& series);
/// None where a note tells of one row.
std::optional<RowSeries> seriesIn(const QJsonObject& note);

/// Compares rows with their digests, some at a time.
class SeriesReader {
public:
    explicit SeriesReader(RowSeries series) : m_series(std::move(series)) {}
    /// Reads so many thousands of rows more; true while there are others. What was changed since by later entries is
    /// taken as it was. Adds a sentence where rows are not those of the entry.
    Result<bool> compare(Database& database, int thousands, const Earlier& earlier, std::vector<std::string>& problems);

private:
    RowSeries m_series;
    QString m_after;       ///< id of the last row that was read
    qint64 m_thousand = 0; ///< that is next
};

} // namespace rollcall
