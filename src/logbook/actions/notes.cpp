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

} // namespace rollcall
