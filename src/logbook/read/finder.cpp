// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/read/finder.h"

#include "logbook/change_log.h"
#include "logbook/database.h"
#include "logbook/rows.h"

#include <algorithm>
#include <map>
#include <QElapsedTimer>

namespace rollcall {

namespace {

constexpr int stepMs = 15; // an act waits no longer for a step

// What stands about one blade, or about the batch itself under no blade.
using Texts = std::map<std::string, QStringList>;

// Each gives a blade's id, or none for the batch, and words about it.
constexpr const char* evidence[] = {
    "SELECT r.blade, group_concat(DISTINCT printf('%.1f', r.value)) || ' ' || group_concat(DISTINCT r.person) || ' ' "
    "|| group_concat(DISTINCT t.name) || ' ' || group_concat(DISTINCT r.note) FROM reading r JOIN blade e ON "
    "e.id=r.blade JOIN tester t ON t.id=r.tester WHERE e.batch=? GROUP BY r.blade",
    "SELECT cb.blade, 'tempered ' || group_concat(DISTINCT c.as_entered) FROM cycle c JOIN cycle_blade cb ON "
    "cb.cycle=c.id WHERE c.batch=? AND c.id NOT IN (SELECT cycle FROM cycle_mark WHERE id NOT IN taken_back) GROUP BY "
    "cb.blade",
    "SELECT f.blade, f.fate || ' ' || f.reason || ' ' || f.person FROM blade_fate f JOIN blade e ON e.id=f.blade WHERE "
    "e.batch=? AND f.id NOT IN taken_back",
    "SELECT d.blade, d.decision || ' ' || d.reason || ' ' || d.person FROM disposition d JOIN blade e ON e.id=d.blade "
    "WHERE e.batch=? AND d.id NOT IN taken_back",
    "SELECT d.blade, d.kind || ' ' || d.note || ' ' || d.person FROM damage d JOIN blade e ON e.id=d.blade WHERE "
    "e.batch=? AND d.id NOT IN taken_back",
    "SELECT x.blade, x.reason || ' ' || x.person FROM excuse x JOIN blade e ON e.id=x.blade WHERE e.batch=? AND x.id "
    "NOT IN taken_back",
    "SELECT c.blade, COALESCE(c.claimed, '') || ' ' || COALESCE(c.grade, '') || ' ' || COALESCE(p.name, '') FROM "
    "blade_claim c JOIN blade e ON e.id=c.blade LEFT JOIN purpose p ON p.id=c.purpose WHERE e.batch=? AND c.id NOT IN "
    "taken_back",
    "SELECT '', s.kind || ' ' || s.text || ' ' || s.person FROM steel_note s WHERE s.batch=? AND s.id NOT IN "
    "taken_back",
    "SELECT '', o.name || ' ' || h.medium FROM heat_run h JOIN oven o ON o.id=h.oven WHERE h.batch=? AND h.id NOT IN "
    "taken_back",
};

// A word as FTS5 takes it: what begins like it. Quotation marks are its own.
QString prefixOf(const std::string& word) {
    QString text = q(word);
    text.replace(QLatin1Char('"'), QStringLiteral("\"\""));
    return QLatin1Char('"') + text + QStringLiteral("\" *");
}

} // namespace

Finder::Finder(Logbook& logbook) : m_logbook(logbook) {}

Result<Done> Finder::begin() {
    Database& database = m_logbook.database();
    // A point belongs to its number: 62.1 is one word.
    for (const char* sql :
         {"DROP TABLE IF EXISTS temp.found",
          "DROP TABLE IF EXISTS temp.found_place", // of one that was given up halfway
          "DROP TABLE IF EXISTS temp.found_temper",
          "CREATE VIRTUAL TABLE temp.found USING fts5(words, tokenize=\"unicode61 tokenchars '.'\", prefix='1 2 3')",
          "CREATE TABLE temp.found_place (rowid INTEGER PRIMARY KEY, kind INTEGER NOT NULL, batch TEXT NOT NULL, blade "
          "TEXT NOT NULL, name TEXT NOT NULL, mark TEXT NOT NULL, grade TEXT NOT NULL, made_ms INTEGER NOT NULL, "
          "made_offset INTEGER NOT NULL)",
          "CREATE INDEX temp.found_by_batch ON found_place(batch)",
          "CREATE INDEX temp.found_by_time ON found_place(made_ms)",
          "CREATE INDEX temp.found_by_grade ON found_place(grade, made_ms)",
          "CREATE TABLE temp.found_temper (place INTEGER NOT NULL, celsius REAL NOT NULL)",
          "CREATE INDEX temp.found_by_temper ON found_temper(celsius, place)",
          "CREATE INDEX temp.found_temper_by_place ON found_temper(place)"}) {
        if (auto done = database.run(QLatin1String(sql)); !done) return done;
    }
    m_known.clear();
    m_left.clear();
    auto done = listBatches();
    m_begun = done.ok();
    return done;
}

Result<Done> Finder::listBatches() {
    const auto batches = m_logbook.batches();
    if (!batches) return batches.error();
    m_batches = batches->size();
    for (const BatchSummary& batch : *batches) {
        if (m_known.insert(batch.id).second) m_left.push_back(batch.id);
    }
    return Done{};
}

void Finder::touched(const Touched& touched) {
    if (!m_begun) return;
    if (touched.everything) {
        m_known.clear();
        m_left.clear();
    }
    // What was just done is looked for soonest.
    for (const std::string& batch : touched.batches) {
        if (m_known.insert(batch).second || std::find(m_left.begin(), m_left.end(), batch) == m_left.end())
            m_left.push_front(batch);
    }
    // Where the list cannot be read, all of it is begun again with the next step.
    if (touched.everything || touched.list) m_begun = listBatches().ok();
}

Result<bool> Finder::step() {
    if (!m_begun) {
        if (auto done = begin(); !done) return done.error();
    }
    QElapsedTimer clock;
    clock.start();
    if (m_left.empty()) return false;
    // One write of the step, not one for each row. It is a temporary file's: the logbook is not asked to be written to,
    // which one that is open for reading would refuse, and nothing waits for a disk.
    Database& database = m_logbook.database();
    Database::Transaction transaction(database, Database::Transaction::Writes::temporary);
    auto done = transaction.begun();
    std::deque<std::string> taken;
    while (done && !m_left.empty() && clock.elapsed() < stepMs) {
        taken.push_back(std::move(m_left.front()));
        m_left.pop_front();
        done = read(taken.back());
    }
    if (done) done = transaction.commit();
    if (done) return !m_left.empty();
    // Nothing of this step is in the index. They come last, so that one which cannot be read holds up no other.
    m_left.insert(m_left.end(), taken.begin(), taken.end());
    return done.error();
}

Result<Done> Finder::read(const std::string& id) {
    Database& database = m_logbook.database();
    auto done = Result<Done>(Done{});
    for (const char* sql :
         {"DELETE FROM temp.found WHERE rowid IN (SELECT rowid FROM temp.found_place WHERE batch=?)",
          "DELETE FROM temp.found_temper WHERE place IN (SELECT rowid FROM temp.found_place WHERE batch=?)",
          "DELETE FROM temp.found_place WHERE batch=?"}) {
        if (done) done = database.run(QLatin1String(sql), {q(id)});
    }
    if (!done) return done;
    const auto heads = database.select(
        QStringLiteral("SELECT b.name, p.name, COALESCE((SELECT ag.designation FROM grade_assignment a JOIN grade ag "
                       "ON ag.id=a.grade WHERE a.batch=b.id AND a.id NOT IN taken_back ORDER BY a.at_ms DESC, a.rowid "
                       "DESC LIMIT 1), g.designation, ''), COALESCE(g.designation, ''), COALESCE(l.name || ' ' || "
                       "l.supplier || ' ' || l.heat_number, ''), b.created_ms, b.created_offset FROM batch b JOIN "
                       "purpose p ON p.id=b.purpose LEFT JOIN lot l ON l.id=b.lot LEFT JOIN grade g ON g.id=l.grade "
                       "WHERE b.id=? AND b.id NOT IN taken_back"),
        {q(id)});
    if (!heads) return heads.error();
    if (heads->empty()) return Done{};
    const Row& head = heads->front();
    const QString name = head[0].toString();
    const QString grade = head[2].toString();

    Texts texts;
    for (const char* sql : evidence) {
        done =
            database.each(QLatin1String(sql), {q(id)}, [&](const Row& row) { texts[s(row[0])] << row[1].toString(); });
        if (!done) return done;
    }
    const auto blades = database.select(
        QStringLiteral("SELECT id, mark FROM blade WHERE batch=? AND id NOT IN taken_back ORDER BY position"), {q(id)});
    if (!blades) return blades.error();
    const auto notes =
        database.select(QStringLiteral("SELECT n.text, COALESCE(n.blade, ''), COALESCE(e.mark, ''), n.person, n.at_ms, "
                                       "n.at_offset FROM note n LEFT JOIN blade e ON e.id=n.blade WHERE n.batch=? AND "
                                       "n.id NOT IN taken_back ORDER BY n.at_ms, n.rowid"),
                        {q(id)});
    if (!notes) return notes.error();

    const auto put = [&](Hit::Kind kind, const QVariant& blade, const QVariant& mark, const QVariant& ms,
                         const QVariant& offset, const QString& words) {
        auto placed =
            database.run(QStringLiteral("INSERT INTO temp.found_place (kind, batch, blade, name, mark, grade, "
                                        "made_ms, made_offset) VALUES (?,?,?,?,?,?,?,?)"),
                         {static_cast<int>(kind), q(id), blade, name, mark, grade, ms, offset});
        if (!placed) return placed;
        return database.run(QStringLiteral("INSERT INTO temp.found (rowid, words) VALUES (last_insert_rowid(), ?)"),
                            {words});
    };
    const QStringList about{name, head[1].toString(), grade, head[3].toString(), head[4].toString()};
    const QString ofBatch = (about + texts[std::string()]).join(QStringLiteral(" \u00B7 "));
    done = put(Hit::Kind::batch, QStringLiteral(""), QStringLiteral(""), head[5], head[6], ofBatch);
    for (const Row& blade : *blades) {
        if (!done) return done;
        const QStringList words = QStringList{blade[1].toString(), name, grade} + texts[s(blade[0])];
        done = put(Hit::Kind::blade, blade[0], blade[1], head[5], head[6], words.join(QStringLiteral(" \u00B7 ")));
    }
    if (done)
        done =
            database.run(QStringLiteral("INSERT INTO temp.found_temper SELECT DISTINCT p.rowid, c.temperature_c FROM "
                                        "temp.found_place p JOIN cycle_blade cb ON cb.blade=p.blade JOIN cycle c ON "
                                        "c.id=cb.cycle WHERE p.batch=? AND p.kind=1 AND c.temperature_c IS NOT NULL "
                                        "AND c.id NOT IN (SELECT cycle FROM cycle_mark WHERE id NOT IN taken_back)"),
                         {q(id)});
    for (const Row& note : *notes) {
        if (!done) return done;
        done = put(Hit::Kind::note, note[1], note[2], note[4], note[5],
                   QStringList{note[0].toString(), note[2].toString(), name, note[3].toString()}.join(
                       QStringLiteral(" \u00B7 ")));
    }
    return done;
}

Result<std::vector<Hit>> Finder::find(const Wanted& wanted, int most) {
    if (!m_begun) {
        if (auto done = begin(); !done) return done.error();
    }
    QString sql =
        QStringLiteral("SELECT p.kind, p.batch, p.name, p.blade, p.mark, p.grade, p.made_ms, p.made_offset, ");
    Row values;
    QStringList where;
    if (wanted.words.empty()) {
        sql += QStringLiteral("(SELECT words FROM temp.found f WHERE f.rowid=p.rowid) FROM temp.found_place p");
    } else {
        // The index is gone through from its end, and no further than there is room to show.
        sql += QStringLiteral("CASE p.kind WHEN 2 THEN found.words ELSE snippet(found, 0, '', '', '\u2026', 14) END "
                              "FROM temp.found CROSS JOIN temp.found_place p ON p.rowid=found.rowid");
        QStringList words;
        for (const std::string& word : wanted.words) words << prefixOf(word);
        where << QStringLiteral("found MATCH ?");
        values.push_back(words.join(QLatin1Char(' ')));
    }
    const auto only = [&](const QString& condition, std::initializer_list<QVariant> with) {
        where << condition;
        values.insert(values.end(), with);
    };
    if (wanted.grade) only(QStringLiteral("p.grade=?"), {q(*wanted.grade)});
    if (wanted.since_ms) only(QStringLiteral("p.made_ms>=?"), {QVariant::fromValue(qint64(*wanted.since_ms))});
    if (wanted.before_ms) only(QStringLiteral("p.made_ms<?"), {QVariant::fromValue(qint64(*wanted.before_ms))});
    // Only a blade is tempered, and only a blade has a verdict.
    if (wanted.tempered_c || wanted.state) only(QStringLiteral("p.kind=1"), {});
    if (wanted.tempered_c)
        only(QStringLiteral("p.rowid IN (SELECT place FROM temp.found_temper WHERE celsius BETWEEN ? AND ?)"),
             {wanted.tempered_c->first, wanted.tempered_c->second});
    if (!where.isEmpty()) sql += QStringLiteral(" WHERE ") + where.join(QStringLiteral(" AND "));
    sql += wanted.words.empty() ? QStringLiteral(" ORDER BY p.made_ms DESC, p.rowid DESC LIMIT ?")
                                : QStringLiteral(" ORDER BY found.rowid DESC LIMIT ?");
    values.push_back(most);
    std::vector<Hit> hits;
    auto done = m_logbook.database().each(sql, values, [&](const Row& row) {
        hits.push_back({static_cast<Hit::Kind>(row[0].toInt()), s(row[1]), s(row[2]), s(row[3]), s(row[4]), s(row[5]),
                        instantOf(row[6], row[7]), s(row[8])});
    });
    if (!done) return done.error();
    return hits;
}

} // namespace rollcall
