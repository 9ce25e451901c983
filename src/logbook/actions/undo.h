// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/logbook.h"

#include <optional>
#include <string>
#include <vector>

/// Taking back what was only written: a batch made by mistake, an excuse, a temper logged on the wrong blades. Nothing
/// is erased: the rows stay in the record with the entry that hides them, and the entry that brings them back. What was
/// done to metal cannot be undone; a reading is struck out instead.
namespace rollcall {

/// An entry of the change log as the one who made it would call it back.
struct LastAct {
    enum class Kind {
        written, ///< can be taken back
        reading, ///< is struck out with a reason
        import,  ///< is taken back as a whole, with what it brought
        merge,   ///< is taken back by going on from the copy before it
        physical ///< happened: a trial, a heat, a press on the rod
    };
    qint64 entry = 0;
    std::string action; ///< as the change log names it
    Kind kind = Kind::physical;
    std::string reading; ///< id of the reading, or of the last of its series
};

/// The latest entry that is not taken back itself; none in a logbook where nothing was done.
Result<std::optional<LastAct>> lastAct(Logbook& logbook);

/// Takes the entry back: its rows are hidden, what it changed is as it was. Errors (refused): it is none that can be
/// taken back, is taken back already, or later entries hang on it or changed the same.
Result<Done> undo(Logbook& logbook, qint64 entry);

/// What was taken back last and can be brought back, while nothing else was done since; none otherwise.
Result<std::optional<LastAct>> lastUndone(Logbook& logbook);

/// Brings an entry back that was taken back. Errors (refused): it was not, or what it changed was changed since.
Result<Done> redo(Logbook& logbook, qint64 entry);

} // namespace rollcall
