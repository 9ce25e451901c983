// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/database.h"
#include "logbook/logbook.h"

#include <map>
#include <string>

namespace rollcall {

/// Columns of a tester's and a block's row.
Fields fieldsOf(const Tester& tester);
Fields fieldsOf(const Block& block);

/// From the columns blade, id, gate, round, after_temper, skates, bites, touches, surface, person, at_ms, at_offset.
FileTest fileTestOf(const RawRow& row);

/// The value of a stored word; one that another version wrote reads as the first.
template<class Enum, class Value>
Enum storedAs(const Value& word) {
    return named<Enum>(s(word)).value_or(static_cast<Enum>(0));
}

/// The blade that a row's first column names; null where it is not of this batch, or was made by mistake: what is said
/// of it stays in the record and is not shown.
inline Blade* bladeOf(Batch& batch, const std::map<std::string, std::size_t>& index, const Row& row) {
    const auto place = index.find(s(row[0]));
    return place == index.end() ? nullptr : &batch.blades[place->second];
}

inline Error refused(const std::string& place, const std::string& text) {
    return {ErrorKind::refused, place, text};
}

/// The fields with who and when.
inline Fields stamped(Fields fields, const Instant& at, const std::string& person) {
    fields.emplace_back("person", q(person));
    fields.emplace_back("at_ms", QVariant::fromValue<qint64>(at.utc_ms));
    fields.emplace_back("at_offset", at.offset_minutes);
    return fields;
}

inline Result<std::string> idOr(const Result<Done>& done, const std::string& id) {
    if (!done) return done.error();
    return id;
}

} // namespace rollcall
