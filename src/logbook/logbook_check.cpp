// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/logbook_check.h"

#include "logbook/change_log.h"
#include "logbook/kinds.h"
#include "logbook/logbook.h"
#include "logbook/ranges.h"

#include <fmt/format.h>
#include <limits>

namespace rollcall {

namespace {

using Sentences = std::vector<std::string>;

Result<Sentences> integrity(Database& database, const QString& table) {
    const auto found = database.select(QStringLiteral("PRAGMA integrity_check('%1')").arg(table));
    if (!found) return found.error();
    Sentences problems;
    for (const Row& row : *found) {
        if (s(row[0]) != "ok") problems.push_back("the file is damaged: " + s(row[0]));
    }
    return problems;
}

Result<Sentences> references(Database& database, const QString& table) {
    const auto found = database.select(QStringLiteral("PRAGMA foreign_key_check('%1')").arg(table));
    if (!found) return found.error();
    Sentences problems;
    for (const Row& row : *found)
        problems.push_back("a row of " + s(row[0]) + " refers to a missing row of " + s(row[2]));
    return problems;
}

// What belongs to two things must find them in one batch.
Result<Sentences> acrossBatches(Database& database, const char* table, const char* other, const char* by) {
    const auto found = database.select(QStringLiteral("SELECT t.id, b.mark FROM %1 t JOIN blade b ON b.id=t.blade JOIN "
                                                      "%2 o ON o.id=t.%3 WHERE o.batch<>b.batch LIMIT 20")
                                           .arg(QLatin1String(table), QLatin1String(other), QLatin1String(by)));
    if (!found) return found.error();
    Sentences problems;
    for (const Row& row : *found)
        problems.push_back(fmt::format("{} {} joins blade {} with another batch", table, s(row[0]), s(row[1])));
    return problems;
}

constexpr int told = 20; // rows of a column

Result<Sentences> listsOutside(Database& database, const StoredRange& range) {
    Sentences problems;
    const auto done = database.each(QStringLiteral("SELECT rowid, %2 FROM %1 WHERE %2<>''")
                                        .arg(QLatin1String(range.table), QLatin1String(range.column)),
                                    {}, [&](const Row& row) {
                                        if (problems.size() < told && !numbersIn(range, s(row[1])))
                                            problems.push_back(fmt::format("row {} of {}: {}", s(row[0]), range.table,
                                                                           outside(range, s(row[1])).text));
                                    });
    if (!done) return done.error();
    return problems;
}

Result<Sentences> numbersOutside(Database& database, const StoredRange& range) {
    if (range.list) return listsOutside(database, range);
    const auto wrong = database.select(
        QStringLiteral("SELECT rowid, %2 FROM %1 WHERE %2 IS NOT NULL AND (typeof(%2) NOT IN ('real', 'integer') OR %2 "
                       "< ? OR %2 > ?) LIMIT %3")
            .arg(QLatin1String(range.table), QLatin1String(range.column))
            .arg(told),
        {range.least, range.most});
    if (!wrong) return wrong.error();
    Sentences problems;
    for (const Row& row : *wrong) {
        bool number = false;
        const double value = row[1].toDouble(&number);
        problems.push_back(fmt::format("row {} of {}: ", s(row[0]), range.table) +
                           (number ? outside(range, value).text
                                   : fmt::format("{} is '{}', no number", range.column, s(row[1]).substr(0, 40))));
    }
    return problems;
}

} // namespace

LogbookCheck::LogbookCheck(Logbook& logbook, std::function<bool()> othersWait)
    : m_logbook(logbook), m_chain(std::make_unique<ChainReader>()), m_othersWait(std::move(othersWait)) {
    Database& database = logbook.database();
    m_steps.push_back([this, &database]() -> Result<Done> {
        const auto tables =
            database.select(QStringLiteral("SELECT name FROM sqlite_master WHERE type='table' AND name NOT LIKE "
                                           "'sqlite_%' ORDER BY name"));
        if (!tables) return tables.error();
        for (const Row& row : *tables) {
            const QString table = row[0].toString().replace(QLatin1Char('\''), QLatin1String("''"));
            add([&database, table] { return integrity(database, table); });
            add([&database, table] { return references(database, table); });
        }
        for (const StoredRange& range : storedRanges())
            add([&database, &range] { return numbersOutside(database, range); });
        add([&database] { return acrossBatches(database, "heat_mark", "heat_run", "run"); });
        add([&database] { return acrossBatches(database, "heat_note", "heat_run", "run"); });
        add([&database] { return acrossBatches(database, "cycle_blade", "cycle", "cycle"); });
        const auto files = database.select(QStringLiteral("SELECT sha256 FROM attachment_blob"));
        if (!files) return files.error();
        for (const Row& row : *files) add([this, sha = s(row[0])] { return m_logbook.damagedFile(sha); });
        m_steps.push_back([this] { return followChain(false); });
        return Done{};
    });
}

LogbookCheck::~LogbookCheck() = default;

// SQLite looks through a table of a hundred thousand rows and its indexes for a second or more.
Result<Done> LogbookCheck::ask(const Question& question) {
    const Database::GivingWay way(m_logbook.database(), m_othersWait);
    Result<Sentences> found = question();
    if (way.gaveWay()) {
        m_steps.push_front([this, question] { return ask(question); });
        return Done{};
    }
    if (!found) return found.error();
    look(std::move(found).value());
    return Done{};
}

Result<Done> LogbookCheck::followChain(bool toTheEnd) {
    constexpr int entriesAtOnce = 200;
    Result<bool> more = true;
    do {
        more = m_chain->read(m_logbook.database(), entriesAtOnce, m_problems);
        if (!more) return more.error();
    } while (toTheEnd && *more);
    if (toTheEnd) return Done{};
    if (*more) {
        m_steps.push_back([this] { return followChain(false); });
        return Done{};
    }
    for (const Kind& kind : kinds()) {
        m_steps.push_back([this, &kind] { return compare(kind.table, std::numeric_limits<qint64>::min()); });
    }
    m_steps.push_back([this] { return compareSeries(0); });
    return Done{};
}

Result<Done> LogbookCheck::compare(const char* table, qint64 after) {
    constexpr int rowsAtOnce = 2000;
    // What was stored since the last step belongs to what the log says.
    if (auto followed = followChain(true); !followed) return followed;
    const auto last = m_chain->compare(m_logbook.database(), table, after, rowsAtOnce, m_problems);
    if (!last) return last.error();
    if (*last) m_steps.push_front([this, table, next = **last] { return compare(table, next); });
    return Done{};
}

Result<Done> LogbookCheck::compareSeries(std::size_t series) {
    constexpr int thousandsAtOnce = 10;
    if (auto followed = followChain(true); !followed) return followed;
    if (series >= m_chain->series()) return Done{};
    const auto more = m_chain->compareSeries(m_logbook.database(), series, thousandsAtOnce, m_problems);
    if (!more) return more.error();
    m_steps.push_front([this, next = *more ? series : series + 1] { return compareSeries(next); });
    return Done{};
}

Result<bool> LogbookCheck::step() {
    if (m_steps.empty()) return false;
    const auto next = std::move(m_steps.front());
    m_steps.pop_front();
    if (auto done = next(); !done) return done.error();
    return !m_steps.empty();
}

} // namespace rollcall
