// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "cli/log_acts.h"

/// What the acts of log_acts.cpp do with a line: read its values, then call the window's own function.
namespace rollcall::cli {

/// An act that makes something, as one that is only done.
template<class T>
Result<Done> only(const Result<T>& made) {
    if (!made) return made.error();
    return Done{};
}

/// The elements of a shot or certificate.
std::vector<ElementReading> elementsIn(const LogLine& line);

Result<Done> makeBatch(const LogLine& line);
Result<Done> changeOneClaim(const LogLine& line);
Result<Done> addOneBlade(const LogLine& line);
Result<Done> verifyOnBlock(const LogLine& line);
Result<Done> logOneReading(const LogLine& line);
Result<Done> logStrikes(const LogLine& line);
Result<Done> strikeOut(const LogLine& line);
Result<Done> replaceSet(const LogLine& line);
Result<Done> tryFiles(const LogLine& line);
Result<Done> takeShot(const LogLine& line);
Result<Done> steelNote(const LogLine& line, SteelNoteKind kind);
Result<Done> keepGrade(const LogLine& line);
Result<Done> beginHeat(const LogLine& line);
Result<Done> inHeat(const LogLine& line);
Result<Done> temperBlades(const LogLine& line);
Result<Done> noteColour(const LogLine& line);
Result<Done> noteWarp(const LogLine& line);
Result<Done> measure(const LogLine& line);
Result<Done> rungOnRod(const LogLine& line);
Result<Done> burnt(const LogLine& line);
Result<Done> damaged(const LogLine& line);
Result<Done> tryPiece(const LogLine& line);
Result<Done> cutRope(const LogLine& line);
Result<Done> countFracture(const LogLine& line);
Result<Done> newStudy(const LogLine& line);
Result<Done> signFor(const LogLine& line);
Result<Done> eachBlade(const LogLine& line, const std::function<Result<Done>(const Blade&)>& act);
Result<Done> newLimits(const LogLine& line);
Result<Done> newZoneWindow(const LogLine& line);

} // namespace rollcall::cli
