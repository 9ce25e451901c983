// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <array>
#include <cstddef>
#include <optional>
#include <string_view>

namespace rollcall {

/// The words under which the values of an enum are stored and exchanged, in the order of its values. Each enum that
/// has such words gives them beside its declaration; nowhere else are they written down.
template<class Enum>
inline constexpr std::array<const char*, 0> namesOf{};

/// The word of a value: "temper again".
template<class Enum>
requires(namesOf<Enum>.size() > 0) constexpr const char* nameOf(Enum value) {
    return namesOf<Enum>[static_cast<std::size_t>(value)];
}

/// The value of a word; none where the word is not known.
template<class Enum>
requires(namesOf<Enum>.size() > 0) constexpr std::optional<Enum> named(std::string_view word) {
    for (std::size_t i = 0; i < namesOf<Enum>.size(); ++i) {
        if (word == namesOf<Enum>[i]) return static_cast<Enum>(i);
    }
    return std::nullopt;
}

} // namespace rollcall
