// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace rollcall {

/// How a column's text leaves in a copy without names. What is not listed is a maker's own words and stays behind, so
/// that a column that comes later gives nothing away until it is named.
struct ColumnWords {
    enum class Are {
        code,     ///< one of a few words, or numbers: goes as it is
        numbered, ///< tells things apart: becomes "Batch 3"
        marks,    ///< a list of blades' marks, each numbered
        hazard,   ///< goes where it names a hazard that was read
        reason,   ///< one of the reasons for striking out goes, others are told to be there
        sheet     ///< a grade's sheet or a protocol: its numbers go, the words about them do not
    };
    const char* column;
    Are are;
    const char* as = ""; ///< of numbered: the word before the number
};

/// What a row of a kind has changed for those who read the record.
enum class Reach {
    shop,  ///< people, testers, ovens, settings, the shop's own grades and protocols, studies, the day
    runs,  ///< blocks, readings on them, and with these what every tester is worth
    list,  ///< the list of batches and the batch itself
    batch, ///< one batch
    none   ///< nothing that is shown
};

/// One kind of thing in the record: a table whose rows the change log describes. What is append-only, what is
/// exported, merged, checked and copied without names, and who must look anew after an act follows from this list.
struct Kind {
    const char* table;
    int since;        ///< schema version it came with
    bool append_only; ///< triggers in the database refuse to change or erase its rows
    Reach reach;
    const char* owner = ""; ///< column that leads to its batch: "batch", "blade", or a row of another kind
    bool copied = true;     ///< goes into a copy without names
    std::vector<ColumnWords> words = {};
    /// The statements that make it, of what came with schema 8 or later; what is older stands in schema.cpp.
    std::vector<const char*> made = {};
    /// Columns of which two rows that stand share no values, though the table lets them: one that is taken back may lie
    /// beside the one that stands.
    std::vector<const char*> one_each = {};
};

/// All kinds, in the order in which they are merged and exported; a row's owner stands before it where it can.
const std::vector<Kind>& kinds();

/// The kind of a table; null for one that the change log does not describe.
const Kind* kindOf(std::string_view table);

} // namespace rollcall
