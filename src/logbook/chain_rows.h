// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/database.h"
#include "logbook/logbook.h"

#include <array>

namespace rollcall {

/// Columns of a tester's and a block's row.
Fields fieldsOf(const Tester& tester);
Fields fieldsOf(const Block& block);

/// From the columns blade, id, gate, round, after_cycle, skates, bites, touches, surface, person, at_ms, at_offset.
FileTest fileTestOf(const Row& row);

/// The value whose stored name this is; what another version wrote reads as the first.
template<class Enum, std::size_t N>
Enum enumNamed(const std::array<const char*, N>& names, const std::string& name) {
    for (std::size_t i = 0; i < N; ++i) {
        if (name == names[i]) return static_cast<Enum>(i);
    }
    return static_cast<Enum>(0);
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
