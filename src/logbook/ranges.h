// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"

#include <optional>
#include <vector>

/// What a number of the record may be. Whatever way it comes (typed, imported, logged, merged, in a package), it is
/// held against this one table; wide enough for any knife and any bench, narrow enough that a slip of thousands is
/// told where it is made.
namespace rollcall {

struct StoredRange {
    const char* table;
    const char* column;
    const char* what; ///< as it is told: "thickness"
    const char* unit;
    double least = 0;
    double most = 0;
    bool list = false; ///< a text that holds any number of them
};

const std::vector<StoredRange>& storedRanges();

/// The range of a column; null where any number may stand.
const StoredRange* rangeOf(const char* table, const char* column);

/// The numbers in the text of a list; none where one of them cannot be.
std::optional<std::vector<double>> numbersIn(const StoredRange& range, const std::string& text);

/// What of a text is too long for its place, as an error (range); none where it is not. Marks, names and initials have
/// 200 characters, every other text a million.
std::optional<Error> tooLong(const char* column, std::size_t characters);

/// "a window of 63000000 HRC lies outside 0 to 110": what is wrong with a number, as an error (range).
Error outside(const StoredRange& range, double value);
/// The same of a list.
Error outside(const StoredRange& range, const std::string& list);

} // namespace rollcall
