// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/steel/composition.h"

#include <string>
#include <string_view>
#include <vector>

namespace rollcall {

/// Shots of several pieces in one table, as programs of analysers and spreadsheets write them.
struct ShotTable {
    struct Row {
        std::string piece; ///< as it is called in the table; empty where it has no such column
        CompositionShot shot;
        int line = 0; ///< its first
    };
    std::vector<Row> rows; ///< in order
    bool names_pieces = false;
    bool has_errors = false;  ///< of so many sigma as the analyser prints
    bool numbers_lod = false; ///< beside a bare "<LOD" stands a number
    std::vector<CompositionShot::Skipped> skipped;
};

/// Reads a table with one row a shot and a column an element ("Cr", "Cr [%]", "Cr %", with "Cr +/-" or "Cr error"
/// beside it), or one row an element ("element", "percent", "error") with the piece it is of. A piece stands under
/// piece, blade, mark, knife, sample, specimen, name or id. Not found is "<LOD", "< 0.05", "ND", "n.d.", "-" or
/// nothing. Errors (input): no table, or neither shape; (range): not 1, 2 or 3 sigma.
Result<ShotTable> readShotTable(std::string_view text, const PrintedError& printed = {});

} // namespace rollcall
