// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/files.h"

#include "core/base/number.h"

#include <algorithm>
#include <cmath>
#include <limits>

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

std::optional<double> nextFile(const std::vector<double>& files, const std::vector<FileTrial>& trials) {
    if (files.empty()) return std::nullopt;
    if (trials.empty()) return files[files.size() / 2];
    const FileBracket bracket = fileBracket(trials);
    if (bracket.conflict != FileConflict::none) return std::nullopt;
    const double low = bracket.lower.value_or(files.front() - 1);
    const double high = bracket.upper.value_or(files.back() + 1);
    std::optional<double> best;
    for (const double file : files) {
        const bool tried =
            std::any_of(trials.begin(), trials.end(), [&](const FileTrial& trial) { return trial.file_hrc == file; });
        if (tried || !(file > low && file < high)) continue;
        const double middle = (low + high) / 2;
        if (!best || std::abs(file - middle) < std::abs(*best - middle)) best = file;
    }
    return best;
}

FilesReach filesReach(const std::vector<double>& files) {
    FilesReach reach{std::numeric_limits<double>::infinity(), 0};
    for (std::size_t i = 1; i < files.size(); ++i)
        reach.narrowest = std::min(reach.narrowest, files[i] - files[i - 1] + 2 * filesThemselves);
    if (!files.empty()) reach.highest = files.back() - filesThemselves;
    return reach;
}

bool filesConfirm(const std::vector<double>& files, const std::optional<double>& low,
                  const std::optional<double>& high) {
    if (!high) return low && !files.empty() && atLeast(files.back() - filesThemselves, *low);
    for (std::size_t i = 0; i < files.size(); ++i) {
        for (std::size_t k = i + 1; k < files.size(); ++k) {
            if ((!low || atLeast(files[i] - filesThemselves, *low)) && atMost(files[k] + filesThemselves, *high))
                return true;
        }
    }
    return false;
}

} // namespace rollcall
