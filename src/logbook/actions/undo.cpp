// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/undo.h"

#include "logbook/database.h"
#include "logbook/rows.h"

#include <algorithm>
#include <array>
#include <fmt/format.h>
#include <QJsonArray>
#include <QJsonDocument>
#include <QJsonObject>

namespace rollcall {

namespace {

// Entries that changed nothing but the record.
constexpr std::array written{"batch added",         "blade added",
                             "blade renamed",       "batch renamed",
                             "blade measured anew", "cold treatment logged",
                             "blade excused",       "blade taken out",
                             "claim changed",       "limits changed",
                             "zone window changed", "plan changed",
                             "means changed",       "rules changed",
                             "note kept",           "signed",
                             "temper cycle logged", "temper cycle struck out",
                             "grade re-assigned",   "edge asked for",
                             "grain asked for",     "sample asked for",
                             "steel named",         "surprise looked into",
                             "recipe chosen",       "reading struck out",
                             "readings superseded", "reading accepted",
                             "temper meant"};

LastAct::Kind kindOf(const std::string& action) {
    if (std::find(written.begin(), written.end(), action) != written.end()) return LastAct::Kind::written;
    if (action == "reading logged" || action == "series of strikes logged") return LastAct::Kind::reading;
    if (action == "logbook taken in") return LastAct::Kind::merge;
    return action == "readings imported" ? LastAct::Kind::import : LastAct::Kind::physical;
}

QJsonArray notesIn(const QVariant& payload) {
    return QJsonDocument::fromJson(payload.toString().toUtf8()).array();
}

LastAct actOf(const Row& row) {
    LastAct act{row[0].toLongLong(), s(row[1]), kindOf(s(row[1])), {}};
    for (const QJsonValue note : notesIn(row[2])) {
        if (note[QStringLiteral("table")].toString() == QLatin1String("reading"))
            act.reading = note[QStringLiteral("row")][QStringLiteral("id")].toString().toStdString();
    }
    return act;
}

class TakingBack {
public:
    TakingBack(Logbook& logbook, qint64 entry) : m_logbook(logbook), m_entry(entry) {}

    Result<Done> run() {
        if (auto done = readEntry(); !done) return done;
        if (auto free = refuseWhatHangsOnIt(); !free) return free;
        return m_logbook.transact("undone", [&]() -> Result<Done> {
            for (qsizetype i = m_notes.size(); i-- > 0;) {
                const QJsonObject note = m_notes[i].toObject();
                auto done = note.contains(QStringLiteral("id")) ? before(note) : hide(note);
                if (!done) return done;
            }
            return mark("entry-" + std::to_string(m_entry), "entry", true);
        });
    }

    Result<Done> bringBack() {
        if (auto done = readEntry(); !done) return done;
        return m_logbook.transact("done again", [&]() -> Result<Done> {
            for (const QJsonValue value : m_notes) {
                const QJsonObject note = value.toObject();
                auto done = note.contains(QStringLiteral("id")) ? again(note) : show(note);
                if (!done) return done;
            }
            return mark("entry-" + std::to_string(m_entry), "entry", false);
        });
    }

private:
    Database& database() { return m_logbook.database(); }

    Result<Done> readEntry() {
        const auto rows = database().select(QStringLiteral("SELECT seq, action, payload FROM change WHERE seq=?"),
                                            {QVariant::fromValue(m_entry)});
        if (!rows) return rows.error();
        if (rows->empty()) return refused("entry", "there is no such entry");
        const LastAct act = actOf(rows->front());
        if (act.kind != LastAct::Kind::written)
            return refused("entry", fmt::format("'{}' happened and cannot be undone", act.action));
        m_notes = notesIn(rows->front()[2]);
        return Done{};
    }

    // Whatever was entered later on a batch, a blade or a temper must be taken back before it.
    Result<Done> refuseWhatHangsOnIt() {
        for (const QJsonValue note : m_notes) {
            if (note.toObject().contains(QStringLiteral("id"))) continue;
            const QString table = note[QStringLiteral("table")].toString();
            const QJsonObject row = note[QStringLiteral("row")].toObject();
            const QString id = row[QStringLiteral("id")].toString();
            if (table == QLatin1String("blade")) {
                for (const char* on : {"reading", "file_test", "cycle_blade", "heat_mark", "heat_note", "warp",
                                       "temper_colour", "edge_geometry", "edge_rung", "trial", "fracture", "damage"}) {
                    const auto used = database().single(
                        QStringLiteral("SELECT COUNT(*) FROM %1 WHERE blade=?").arg(QLatin1String(on)), {id});
                    if (!used) return used.error();
                    if (used->toInt() > 0)
                        return refused("entry", fmt::format("more was entered for {} since",
                                                            row[QStringLiteral("mark")].toString().toStdString()));
                }
            }
            if (table == QLatin1String("cycle_blade")) {
                const auto used = database().single(
                    QStringLiteral("SELECT COUNT(*) FROM reading WHERE blade=? AND gate='temper' AND round=? AND "
                                   "after_cycle>=? AND id NOT IN (SELECT reading FROM reading_mark WHERE "
                                   "kind<>'accepted' AND id NOT IN taken_back)"),
                    {row[QStringLiteral("blade")].toString(), row[QStringLiteral("round")].toInt(),
                     row[QStringLiteral("number")].toInt()});
                if (!used) return used.error();
                if (used->toInt() > 0)
                    return refused("entry", "readings were taken after this temper: strike them out, or the temper");
            }
        }
        return Done{};
    }

    // What is unlike every other in its table: its name is free for the one that was meant.
    static const char* nameOfRow(const QString& table) {
        return table == QLatin1String("batch") ? "name" : table == QLatin1String("blade") ? "mark" : nullptr;
    }

    Result<Done> hide(const QJsonObject& note) {
        const QString table = note[QStringLiteral("table")].toString();
        const QJsonObject row = note[QStringLiteral("row")].toObject();
        const QString id = row[QStringLiteral("id")].toString();
        if (const char* column = nameOfRow(table)) {
            const QString name =
                QStringLiteral("%1 (undone %2)").arg(row[QLatin1String(column)].toString()).arg(m_entry);
            if (auto done = database().update(table.toLatin1().constData(), id, {{column, name}}); !done) return done;
        }
        return mark(id.toStdString(), table.toLatin1().constData(), true);
    }

    Result<Done> show(const QJsonObject& note) {
        const QString table = note[QStringLiteral("table")].toString();
        const QJsonObject row = note[QStringLiteral("row")].toObject();
        const QString id = row[QStringLiteral("id")].toString();
        if (const char* column = nameOfRow(table)) {
            const QString name = row[QLatin1String(column)].toString();
            auto done = database().update(table.toLatin1().constData(), id, {{column, name}});
            if (!done) return refused("entry", fmt::format("there is another {} now", name.toStdString()));
        }
        return mark(id.toStdString(), table.toLatin1().constData(), false);
    }

    // What a change left is what stands there now, else somebody changed it since.
    Result<Done> stillAs(const QString& table, const QString& id, const QJsonObject& row) {
        for (auto field = row.begin(); field != row.end(); ++field) {
            const auto now =
                database().single(QStringLiteral("SELECT %1 FROM %2 WHERE id=?").arg(field.key(), table), {id});
            if (!now) return now.error();
            if (jsonOf(*now) != field.value()) return refused("entry", "it was changed again since");
        }
        return Done{};
    }

    // The values that the rows had before this entry: of the latest entry before that says them.
    Result<QJsonObject> earlier(const QString& table, const QString& id, const QJsonObject& row) {
        QJsonObject found;
        const auto entries = database().select(
            QStringLiteral("SELECT payload FROM change WHERE seq<? AND instr(payload, ?)>0 ORDER BY seq DESC"),
            {QVariant::fromValue(m_entry), id});
        if (!entries) return entries.error();
        for (const Row& entry : *entries) {
            const QJsonArray notes = notesIn(entry[0]);
            for (qsizetype i = notes.size(); i-- > 0;) {
                const QJsonObject note = notes[i].toObject();
                const QJsonObject said = note[QStringLiteral("row")].toObject();
                const QString whose = note.contains(QStringLiteral("id")) ? note[QStringLiteral("id")].toString()
                                                                          : said[QStringLiteral("id")].toString();
                if (note[QStringLiteral("table")].toString() != table || whose != id) continue;
                for (auto field = row.begin(); field != row.end(); ++field) {
                    if (said.contains(field.key()) && !found.contains(field.key()))
                        found.insert(field.key(), said[field.key()]);
                }
            }
            if (found.size() == row.size()) return found;
        }
        return Error{ErrorKind::refused, "entry", "the record does not say what was there before"};
    }

    Result<Done> set(const QString& table, const QString& id, const QJsonObject& row) {
        std::vector<QByteArray> names;
        for (const QString& key : row.keys()) names.push_back(key.toLatin1());
        Fields fields;
        for (const QByteArray& name : names)
            fields.emplace_back(name.constData(), row[QString::fromLatin1(name)].toVariant());
        return database().update(table.toLatin1().constData(), id, fields);
    }

    Result<Done> before(const QJsonObject& note) {
        const QString table = note[QStringLiteral("table")].toString();
        const QString id = note[QStringLiteral("id")].toString();
        const QJsonObject row = note[QStringLiteral("row")].toObject();
        if (auto same = stillAs(table, id, row); !same) return same;
        // Entries of an earlier Rollcall do not say themselves what stood there.
        if (const QJsonObject stood = note[QStringLiteral("was")].toObject(); !stood.isEmpty())
            return set(table, id, stood);
        const Result<QJsonObject> was = earlier(table, id, row);
        return was ? set(table, id, *was) : Result<Done>(was.error());
    }

    Result<Done> again(const QJsonObject& note) {
        const QString table = note[QStringLiteral("table")].toString();
        const QString id = note[QStringLiteral("id")].toString();
        return set(table, id, note[QStringLiteral("row")].toObject());
    }

    Result<Done> mark(const std::string& id, const char* kind, bool hidden) {
        const Fields fields = stamped({{"hidden", hidden ? 1 : 0}}, m_logbook.now(), m_logbook.person());
        const auto known = database().single(QStringLiteral("SELECT COUNT(*) FROM undone WHERE id=?"), {q(id)});
        if (!known) return known.error();
        if (known->toInt() > 0) return database().update("undone", q(id), fields);
        Fields row = fields;
        row.insert(row.begin(),
                   {{"id", q(id)}, {"kind", QString::fromLatin1(kind)}, {"entry", QVariant::fromValue(m_entry)}});
        return database().insert("undone", row);
    }

    Logbook& m_logbook;
    qint64 m_entry;
    QJsonArray m_notes;
};

// Entries of undoing and of doing again say nothing themselves.
constexpr const char* acts =
    "SELECT seq, action, payload FROM change WHERE action NOT IN ('undone','done again') AND seq "
    "NOT IN (SELECT entry FROM undone WHERE kind='entry' AND hidden=1) ORDER BY seq DESC LIMIT 1";

Result<bool> isUndone(Logbook& logbook, qint64 entry) {
    const auto hidden = logbook.database().single(
        QStringLiteral("SELECT COUNT(*) FROM undone WHERE entry=? AND hidden=1"), {QVariant::fromValue(entry)});
    if (!hidden) return hidden.error();
    return hidden->toInt() > 0;
}

} // namespace

Result<std::optional<LastAct>> lastAct(Logbook& logbook) {
    const auto rows = logbook.database().select(QString::fromLatin1(acts));
    if (!rows) return rows.error();
    return rows->empty() ? std::optional<LastAct>() : std::optional(actOf(rows->front()));
}

Result<Done> undo(Logbook& logbook, qint64 entry) {
    const Result<bool> hidden = isUndone(logbook, entry);
    if (!hidden) return hidden.error();
    if (*hidden) return refused("entry", "it is undone already");
    return TakingBack(logbook, entry).run();
}

Result<std::optional<LastAct>> lastUndone(Logbook& logbook) {
    const auto last = logbook.database().single(QStringLiteral("SELECT action FROM change ORDER BY seq DESC LIMIT 1"));
    if (!last) return last.error();
    if (s(*last) != "undone" && s(*last) != "done again") return std::optional<LastAct>();
    const auto rows = logbook.database().select(
        QStringLiteral("SELECT c.seq, c.action, c.payload FROM undone u JOIN change c ON c.seq=u.entry WHERE "
                       "u.kind='entry' AND u.hidden=1 ORDER BY u.at_ms DESC, u.entry LIMIT 1"));
    if (!rows) return rows.error();
    return rows->empty() ? std::optional<LastAct>() : std::optional(actOf(rows->front()));
}

Result<Done> redo(Logbook& logbook, qint64 entry) {
    const Result<bool> hidden = isUndone(logbook, entry);
    if (!hidden) return hidden.error();
    if (!*hidden) return refused("entry", "it was not undone");
    return TakingBack(logbook, entry).bringBack();
}

} // namespace rollcall
