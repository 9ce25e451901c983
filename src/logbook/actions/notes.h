// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/logbook.h"

/// Plain dated notes. Each act is one transaction with its entry in the change log.
namespace rollcall {

/// Keeps a note on a batch; of the note its text, blade, reading and whether it goes onto the card count. Gives its id.
/// Errors (refused): no text, over 2000 characters, a blade of another batch, a reading of another blade.
Result<std::string> addNote(Logbook& logbook, const std::string& batch, const Note& note);

/// A note with the names of what it is on.
struct FoundNote {
    Note note;
    std::string batch_id;
    std::string batch;
    std::string mark; ///< of its blade; empty where it is on the batch
};

/// The notes of the whole logbook whose text, batch or mark holds every one of these words, the newest first, at most
/// so many. Upper and lower case are the same.
Result<std::vector<FoundNote>> findNotes(Logbook& logbook, const std::string& words, int most);

} // namespace rollcall
