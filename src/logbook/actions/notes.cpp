// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/notes.h"

#include "logbook/database.h"
#include "logbook/rows.h"

#include <algorithm>
#include <QStringList>

namespace rollcall {

Result<std::string> addNote(Logbook& logbook, const std::string& batch, const Note& note) {
    constexpr std::size_t longest = 2000;
    const std::string text(trimmed(note.text));
    if (text.empty()) return refused("text", "a note needs a word at least");
    if (q(text).size() > static_cast<qsizetype>(longest)) return refused("text", "a note has at most 2000 characters");
    Database& database = logbook.database();
    if (!note.blade.empty()) {
        const auto owner = database.single(QStringLiteral("SELECT batch FROM blade WHERE id=?"), {q(note.blade)});
        if (!owner) return owner.error();
        if (s(*owner) != batch) return refused("blade", "this blade is of another batch");
    }
    if (!note.reading.empty()) {
        const auto owner = database.single(QStringLiteral("SELECT blade FROM reading WHERE id=?"), {q(note.reading)});
        if (!owner) return owner.error();
        if (s(*owner) != note.blade) return refused("reading", "this reading is of another blade");
    }
    const std::string id = logbook.newId();
    const auto orNull = [](const std::string& value) { return value.empty() ? QVariant() : QVariant(q(value)); };
    const Result<Done> done = logbook.transact("note kept", [&] {
        return database.insert("note", stamped({{"id", q(id)},
                                                {"batch", q(batch)},
                                                {"blade", orNull(note.blade)},
                                                {"reading", orNull(note.reading)},
                                                {"text", q(text)},
                                                {"on_card", note.on_card ? 1 : 0}},
                                               logbook.now(), logbook.person()));
    });
    if (!done) return done.error();
    return id;
}

Result<std::vector<FoundNote>> findNotes(Logbook& logbook, const std::string& words, int most) {
    const QStringList wanted = q(words).split(QLatin1Char(' '), Qt::SkipEmptyParts);
    const auto rows = logbook.database().select(
        QStringLiteral("SELECT n.id, n.text, COALESCE(n.blade, ''), COALESCE(n.reading, ''), n.on_card, n.person, "
                       "n.at_ms, n.at_offset, n.batch, b.name, COALESCE(e.mark, '') FROM note n JOIN batch b ON "
                       "b.id=n.batch LEFT JOIN blade e ON e.id=n.blade WHERE n.id NOT IN taken_back AND n.batch NOT IN "
                       "taken_back ORDER BY n.at_ms DESC, n.rowid DESC"));
    if (!rows) return rows.error();
    std::vector<FoundNote> found;
    for (const Row& row : *rows) {
        // The database folds the case of ASCII letters alone; Ä is ä too.
        const QString all =
            row[1].toString() + QLatin1Char(' ') + row[9].toString() + QLatin1Char(' ') + row[10].toString();
        const bool fits = std::all_of(wanted.begin(), wanted.end(),
                                      [&](const QString& word) { return all.contains(word, Qt::CaseInsensitive); });
        if (!fits) continue;
        found.push_back(
            {{s(row[0]), s(row[1]), s(row[2]), s(row[3]), row[4].toBool(), s(row[5]), instantOf(row[6], row[7])},
             s(row[8]),
             s(row[9]),
             s(row[10])});
        if (static_cast<int>(found.size()) == most) break;
    }
    return found;
}

} // namespace rollcall
