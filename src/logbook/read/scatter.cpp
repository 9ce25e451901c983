// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/rows.h"

#include <limits>
#include <QJsonDocument>
#include <QJsonObject>

// M9. What a tester's own past readings say of its scatter. The sums over all days before one midnight are kept on
// disk; a new day adds its own groups and leaves the rest.
namespace rollcall {

namespace {

constexpr const char* what = "scatter";

struct KeptScatter {
    qint64 before_ms = std::numeric_limits<qint64>::min(); ///< readings up to here are in
    qint64 row = 0;                                        ///< and all of them stand up to this row
    std::map<std::string, ScatterSum> testers;
};

std::optional<KeptScatter> keptIn(const QString& text) {
    const QJsonObject stored = QJsonDocument::fromJson(text.toUtf8()).object();
    if (!stored.contains(QStringLiteral("before_ms"))) return std::nullopt;
    KeptScatter kept;
    kept.before_ms = static_cast<qint64>(stored[QStringLiteral("before_ms")].toDouble());
    kept.row = static_cast<qint64>(stored[QStringLiteral("row")].toDouble());
    const QJsonObject testers = stored[QStringLiteral("testers")].toObject();
    for (auto tester = testers.begin(); tester != testers.end(); ++tester) {
        const QJsonObject sum = tester.value().toObject();
        kept.testers[tester.key().toStdString()] = {sum[QStringLiteral("squares")].toDouble(),
                                                    sum[QStringLiteral("dof")].toDouble()};
    }
    return kept;
}

QString textOf(const KeptScatter& kept) {
    QJsonObject testers;
    for (const auto& [id, sum] : kept.testers)
        testers.insert(q(id), QJsonObject{{QStringLiteral("squares"), sum.squares}, {QStringLiteral("dof"), sum.dof}});
    return QString::fromUtf8(QJsonDocument(QJsonObject{{QStringLiteral("before_ms"), double(kept.before_ms)},
                                                       {QStringLiteral("row"), double(kept.row)},
                                                       {QStringLiteral("testers"), testers}})
                                 .toJson(QJsonDocument::Compact));
}

// Adds the groups that have a row after the one given, each as far as it was read before the moment. The groups of the
// whole past follow from row 0.
Result<Done> addGroups(Database& database, std::map<std::string, ScatterSum>& sums, qint64 afterRow, qint64 before_ms,
                       double weight, const std::map<std::string, double>& usual) {
    // About 60, where hardness lies: sums of squares of small numbers lose nothing.
    QString sql = QStringLiteral(
        "SELECT tester, COUNT(*), SUM(value-60.0), SUM((value-60.0)*(value-60.0)) FROM reading WHERE scale='HRC' AND "
        "(at_ms IS NULL OR at_ms<?) AND id NOT IN (SELECT reading FROM reading_mark WHERE kind<>'accepted' AND id NOT "
        "IN taken_back)");
    Row values{before_ms};
    if (afterRow > 0) {
        sql += QStringLiteral(" AND (blade IN (SELECT blade FROM reading WHERE rowid>?) OR verification IN (SELECT "
                              "verification FROM reading WHERE rowid>?))");
        values.insert(values.end(), {afterRow, afterRow});
    }
    sql += QStringLiteral(" GROUP BY tester, blade, verification, gate, round, after_cycle HAVING COUNT(*)>1");
    const auto rows = database.select(sql, values);
    if (!rows) return rows.error();
    for (const Row& row : *rows) {
        const int n = row[1].toInt();
        const double sum = row[2].toDouble();
        const auto sd = usual.find(s(row[0]));
        if (sd == usual.end()) continue;
        sums[s(row[0])].add({n, std::max(0.0, row[3].toDouble() - sum * sum / n)}, sd->second, weight);
    }
    return Done{};
}

} // namespace

Result<Done> Logbook::learnScatter() {
    // Days before today only, so that verdicts do not shift while a day's readings come in.
    const Instant now = m_seams.now();
    const std::int64_t today = now.localDay();
    if (m_learnedDay == today) return Done{};
    const qint64 midnight_ms = today * 86400000 - static_cast<std::int64_t>(now.offset_minutes) * 60000;
    std::map<std::string, double> usual;
    const auto testers = m_database->select(QStringLiteral("SELECT id, kind FROM tester"));
    if (!testers) return testers.error();
    for (const Row& row : *testers)
        usual[s(row[0])] = (s(row[1]) == "rebound" ? TesterModel::reboundTester() : TesterModel::bench()).pooled_sd;

    KeptScatter kept;
    const auto stored = m_database->single(QStringLiteral("SELECT value FROM derived WHERE what=?"), {what});
    if (!stored) return stored.error();
    if (const auto known = keptIn(stored->toString()); known && known->before_ms <= midnight_ms) kept = *known;
    const qint64 from = kept.row;
    if (kept.before_ms < midnight_ms) {
        if (from > 0) {
            // Groups that go on: out with what they were, in with what they are.
            if (auto done = addGroups(*m_database, kept.testers, from, kept.before_ms, -1, usual); !done) return done;
        }
        if (auto done = addGroups(*m_database, kept.testers, from, midnight_ms, 1, usual); !done) return done;
        // Every reading up to this row was made before midnight.
        const auto row = m_database->single(
            QStringLiteral("SELECT COALESCE((SELECT MIN(rowid)-1 FROM reading WHERE rowid>? AND at_ms>=?), (SELECT "
                           "COALESCE(MAX(rowid), 0) FROM reading))"),
            {from, midnight_ms});
        if (!row) return row.error();
        kept.row = row->toLongLong();
        kept.before_ms = midnight_ms;
        if (!m_readOnly) {
            auto done = m_database->run(QStringLiteral("INSERT OR REPLACE INTO derived (what, value) VALUES (?,?)"),
                                        {what, textOf(kept)});
            if (!done) return done;
        }
    }
    m_learned.clear();
    for (const auto& [tester, sum] : kept.testers) {
        if (const auto pooled = sum.pooled()) m_learned[tester] = *pooled;
    }
    m_learnedDay = today;
    m_scatterBefore_ms = midnight_ms;
    return Done{};
}

Result<Done> Logbook::forgetScatter(const QJsonArray& notes) {
    // A reading of the past that comes in or goes out belongs to sums that were made without it.
    bool past = false;
    for (const QJsonValue value : notes) {
        const QString table = value[QStringLiteral("table")].toString();
        const QJsonObject row = value[QStringLiteral("row")].toObject();
        if (value[QStringLiteral("series")].isString()) {
            past = true; // an import
        } else if (table == QLatin1String("reading")) {
            const QJsonValue at = row[QStringLiteral("at_ms")];
            past = at.isNull() || static_cast<qint64>(at.toDouble()) < m_scatterBefore_ms;
        } else if (table == QLatin1String("reading_mark")) {
            const auto at = m_database->single(QStringLiteral("SELECT at_ms FROM reading WHERE id=?"),
                                               {row[QStringLiteral("reading")].toString()});
            if (!at) return at.error();
            past = at->isNull() || at->toLongLong() < m_scatterBefore_ms;
        } else if (table == QLatin1String("undone")) {
            past = true; // a reading may be struck out no more
        } else if (table == QLatin1String("tester") && value[QStringLiteral("id")].isString()) {
            past = true; // it may be of another kind now
        }
        if (past) return m_database->run(QStringLiteral("DELETE FROM derived WHERE what=?"), {what});
    }
    return Done{};
}

} // namespace rollcall
