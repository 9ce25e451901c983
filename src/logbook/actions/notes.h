// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/logbook.h"

/// Plain dated notes. Each act is one transaction with its entry in the change log.
namespace rollcall {

/// Keeps a note on a batch; of the note its text, blade, reading and whether it goes onto the card count. Gives its id.
/// Errors (refused): no text, over 2000 characters, a blade of another batch, a reading of another blade.
Result<std::string> addNote(Logbook& logbook, const std::string& batch, const Note& note);

} // namespace rollcall
