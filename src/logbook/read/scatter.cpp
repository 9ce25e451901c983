// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/rows.h"

#include <algorithm>
#include <array>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>
#include <tuple>

// M9. What a tester's own past readings say of its scatter: sums over the days before today, kept on disk for each
// thousand blades and each thousand runs on blocks. What changes in one of them leaves the others.
namespace rollcall {

namespace {

constexpr const char* mark = "scatter"; // how far the sums go
constexpr int together = 1000;

/// Who is read: blades, or blocks in runs.
struct Read {
    const char* table;
    const char* column; ///< of a reading
};
constexpr std::array reads{Read{"blade", "blade"}, Read{"verification", "verification"}};

QString partName(const Read& read, qint64 part) {
    return QStringLiteral("scatter %1 %2").arg(QLatin1String(read.table)).arg(part);
}

using Days = std::map<std::int64_t, ScatterSum>; // by the local day of the readings, 0 where it is not known
using Sums = std::map<std::string, Days>;        // by tester

struct Group {
    int n = 0;
    double sum = 0;
    double sum_of_squares = 0;
};

Sums sumsIn(const QString& text) {
    Sums sums;
    const QJsonObject stored = QJsonDocument::fromJson(text.toUtf8()).object();
    for (auto tester = stored.begin(); tester != stored.end(); ++tester) {
        const QJsonObject days = tester.value().toObject();
        for (auto day = days.begin(); day != days.end(); ++day) {
            const QJsonArray sum = day.value().toArray();
            sums[tester.key().toStdString()][day.key().toLongLong()] = {sum.at(0).toDouble(), sum.at(1).toDouble()};
        }
    }
    return sums;
}

QString textOf(const QJsonObject& object) {
    return QString::fromUtf8(QJsonDocument(object).toJson(QJsonDocument::Compact));
}

QString textOf(const Sums& sums) {
    QJsonObject testers;
    for (const auto& [id, days] : sums) {
        QJsonObject all;
        for (const auto& [day, sum] : days) all.insert(QString::number(day), QJsonArray{sum.squares, sum.dof});
        testers.insert(q(id), all);
    }
    return textOf(testers);
}

// The sums of one part, as far as it was read before the moment.
Result<Sums> made(Database& database, const Read& read, qint64 part, qint64 before_ms,
                  const std::map<std::string, double>& usual) {
    Sums sums;
    using Where = std::tuple<std::string, std::string, qint64, qint64, qint64>; // tester, gate, round, temper, day
    std::map<Where, Group> groups;
    const auto close = [&] {
        for (const auto& [where, group] : groups) {
            // About 60, where hardness lies: sums of squares of small numbers lose nothing.
            const double squares = std::max(0.0, group.sum_of_squares - group.sum * group.sum / group.n);
            if (const auto sd = usual.find(std::get<0>(where)); sd != usual.end())
                sums[sd->first][std::get<4>(where)].add({group.n, squares}, sd->second);
        }
        groups.clear();
    };
    // SQLite would sort all of them into groups; they come by whom they are of.
    const QString sql =
        QStringLiteral("SELECT o.rowid, r.value-60.0, r.tester, r.gate, r.round, COALESCE(r.after_cycle, -1), "
                       "COALESCE(r.at_ms, 0), COALESCE(r.at_offset, 0) FROM %1 o "
                       "CROSS JOIN reading r ON r.%2=o.id WHERE o.rowid>=? AND o.rowid<? AND r.scale='HRC' AND "
                       "(r.at_ms IS NULL OR r.at_ms<?) AND r.id NOT IN (SELECT reading FROM reading_mark WHERE "
                       "kind<>'accepted' AND id NOT IN taken_back) ORDER BY o.rowid")
            .arg(QLatin1String(read.table), QLatin1String(read.column));
    qint64 of = -1;
    auto done = database.eachRaw(sql, {part * together, (part + 1) * together, before_ms}, [&](const RawRow& row) {
        if (row.whole(0) != of) close();
        of = row.whole(0);
        const double value = row[1].toDouble();
        const Instant at{row.whole(6), static_cast<int>(row.whole(7))};
        const qint64 day = at.utc_ms == 0 ? 0 : at.localDay();
        Group& group = groups[{row[2].text(), row[3].text(), row.whole(4), row.whole(5), day}];
        ++group.n;
        group.sum += value;
        group.sum_of_squares += value * value;
    });
    if (!done) return done.error();
    close();
    return sums;
}

// In what is derived, everything that is called so or begins so.
Result<Done> forget(Database& database, const QString& name) {
    return database.run(QStringLiteral("DELETE FROM derived WHERE what=? OR what>? AND what<?"),
                        {name, name + QLatin1Char(' '), name + QLatin1Char('!')});
}

// The part that a row lies in, whose id a statement gives.
Result<Done> forgetPartOf(Database& database, const QString& sql, const QString& id) {
    for (const Read& read : reads) {
        auto row = database.single(QStringLiteral("SELECT rowid FROM %1 WHERE id=(%2)")
                                       .arg(QLatin1String(read.table), sql.arg(QLatin1String(read.column))),
                                   {id});
        if (!row) return row.error();
        if (!row->isValid()) continue;
        auto done = database.run(QStringLiteral("DELETE FROM derived WHERE what=?"),
                                 {partName(read, row->toLongLong() / together)});
        if (!done) return done;
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

    std::map<QString, QString> kept;
    auto done = m_database->each(QStringLiteral("SELECT what, value FROM derived WHERE what GLOB 'scatter*'"), {},
                                 [&](const Row& row) { kept[row[0].toString()] = row[1].toString(); });
    if (!done) return done;
    const QJsonObject stored = QJsonDocument::fromJson(kept[QLatin1String(mark)].toUtf8()).object();
    // Up to a row every reading was made before then, up to another those that were are in. A clock that was set back
    // knows less than what is kept; an earlier Rollcall kept one sum for all.
    const auto before_ms = static_cast<qint64>(stored[QStringLiteral("before_ms")].toDouble());
    const auto past = static_cast<qint64>(stored[QStringLiteral("row")].toDouble());
    const auto seen = static_cast<qint64>(stored[QStringLiteral("seen")].toDouble());
    if (before_ms > midnight_ms || !stored.contains(QStringLiteral("by_day"))) kept.clear();
    for (const Read& read : reads) {
        if (kept.empty()) break;
        done = m_database->each(
            QStringLiteral("SELECT DISTINCT o.rowid/%1 FROM reading r JOIN %2 o ON o.id=r.%3 WHERE r.rowid>? AND "
                           "(r.at_ms IS NULL OR r.at_ms<?)")
                .arg(together)
                .arg(QLatin1String(read.table), QLatin1String(read.column)),
            {before_ms == midnight_ms ? seen : past, midnight_ms},
            [&](const Row& row) { kept.erase(partName(read, row[0].toLongLong())); });
        if (!done) return done;
    }
    std::map<QString, QString> parts; // that are made now
    Sums all;
    for (const Read& read : reads) {
        const auto last =
            m_database->single(QStringLiteral("SELECT MAX(rowid) FROM %1").arg(QLatin1String(read.table)));
        if (!last) return last.error();
        for (qint64 part = 0; part <= last->toLongLong() / together; ++part) {
            const QString name = partName(read, part);
            const auto known = kept.find(name);
            if (known == kept.end()) {
                const auto sums = made(*m_database, read, part, midnight_ms, usual);
                if (!sums) return sums.error();
                parts[name] = textOf(*sums);
            }
            for (const auto& [tester, days] : sumsIn(known == kept.end() ? parts[name] : known->second)) {
                for (const auto& [day, sum] : days) {
                    all[tester][day].squares += sum.squares;
                    all[tester][day].dof += sum.dof;
                }
            }
        }
    }
    const auto rows = m_database->select(
        QStringLiteral("SELECT COALESCE((SELECT MIN(rowid)-1 FROM reading WHERE rowid>? AND at_ms>=?), MAX(rowid), 0), "
                       "COALESCE(MAX(rowid), 0) FROM reading"),
        {kept.empty() ? 0 : past, midnight_ms});
    if (!rows) return rows.error();
    parts[QLatin1String(mark)] = textOf(QJsonObject{{QStringLiteral("before_ms"), double(midnight_ms)},
                                                    {QStringLiteral("row"), rows->front()[0].toDouble()},
                                                    {QStringLiteral("seen"), rows->front()[1].toDouble()},
                                                    {QStringLiteral("by_day"), true}});
    if (!m_readOnly) {
        Database::Transaction whole(*m_database);
        if (!whole.begun()) return whole.begun();
        if (kept.empty()) {
            if (auto forgot = forget(*m_database, QLatin1String(mark)); !forgot) return forgot;
        }
        for (const auto& [name, value] : parts) {
            auto put = m_database->run(QStringLiteral("INSERT OR REPLACE INTO derived (what, value) VALUES (?,?)"),
                                       {name, value});
            if (!put) return put;
        }
        if (auto put = whole.commit(); !put) return put;
    }
    m_learned.clear();
    for (const auto& [tester, days] : all) {
        std::vector<ScatterDay> known;
        ScatterSum sum;
        for (const auto& [day, own] : days) {
            sum.squares += own.squares;
            sum.dof += own.dof;
            known.push_back({day, sum.pooled()});
        }
        m_learned[tester] = std::make_shared<const std::vector<ScatterDay>>(std::move(known));
    }
    m_learnedDay = today;
    return Done{};
}

Result<Done> Logbook::forgetScatter(const QJsonArray& notes) {
    // What comes in is found by its row when the sums are asked for; what changes is not.
    const QString markedReading = QStringLiteral("SELECT r.%1 FROM reading r JOIN reading_mark m ON m.reading=r.id "
                                                 "WHERE m.id=?");
    for (const QJsonValue value : notes) {
        const QString table = value[QStringLiteral("table")].toString();
        const bool changed = value[QStringLiteral("id")].isString();
        const QString id = changed ? value[QStringLiteral("id")].toString()
                                   : value[QStringLiteral("row")][QStringLiteral("id")].toString();
        Result<Done> done = Done{};
        if (table == QLatin1String("reading_mark"))
            done = forgetPartOf(*m_database, markedReading, id);
        else if (table == QLatin1String("undone")) // a reading may be struck out no more
            done = forgetPartOf(*m_database, markedReading, id);
        else if (table == QLatin1String("reading") && changed)
            done = forgetPartOf(*m_database, QStringLiteral("SELECT %1 FROM reading WHERE id=?"), id);
        else if (table == QLatin1String("tester") && changed) // it may be of another kind now
            done = forget(*m_database, QLatin1String(mark));
        if (!done) return done;
    }
    return Done{};
}

} // namespace rollcall
