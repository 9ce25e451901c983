// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/files.h"

#include "core/base/number.h"

#include <algorithm>

namespace rollcall {

FileBracket fileBracket(const std::vector<FileTrial>& trials) {
    FileBracket bracket;
    const auto conflict = [](FileConflict kind, double skating, double biting) {
        FileBracket none;
        none.conflict = kind;
        none.skating = skating;
        none.biting = biting;
        return none;
    };
    for (const FileTrial& trial : trials) {
        if (trial.touch == FileTouch::skates)
            bracket.lower = std::max(bracket.lower.value_or(trial.file_hrc), trial.file_hrc);
        if (trial.touch == FileTouch::bites)
            bracket.upper = std::min(bracket.upper.value_or(trial.file_hrc), trial.file_hrc);
    }
    if (bracket.lower && bracket.upper && atLeast(*bracket.lower, *bracket.upper)) {
        const bool same = atMost(*bracket.lower, *bracket.upper);
        return conflict(same ? FileConflict::oneFileDidBoth : FileConflict::softerBit, *bracket.lower, *bracket.upper);
    }
    for (const FileTrial& trial : trials) {
        if (trial.touch != FileTouch::touches) continue;
        bracket.lower = std::max(bracket.lower.value_or(0.0), trial.file_hrc - filesThemselves);
        const double above = trial.file_hrc + filesThemselves;
        bracket.upper = std::min(bracket.upper.value_or(above), above);
    }
    if (bracket.lower && bracket.upper && !atMost(*bracket.lower, *bracket.upper))
        return conflict(FileConflict::touchDoesNotMatch, *bracket.lower, *bracket.upper);
    return bracket;
}

} // namespace rollcall
