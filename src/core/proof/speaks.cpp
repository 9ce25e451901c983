// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/proof/speaks.h"

#include "core/base/number.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <functional>

namespace rollcall {

namespace {

struct WordTrait {
    Trait trait;
    std::string PieceFacts::*word;
    bool empty_is_known; ///< nothing noted means that there was nothing
};
constexpr std::array<WordTrait, 8> wordTraits{{{Trait::grade, &PieceFacts::grade, false},
                                               {Trait::lot, &PieceFacts::lot, false},
                                               {Trait::changed, &PieceFacts::changed, true},
                                               {Trait::recipe, &PieceFacts::recipe, false},
                                               {Trait::heat, &PieceFacts::heat, false},
                                               {Trait::tempers, &PieceFacts::tempers, false},
                                               {Trait::spine, &PieceFacts::spine, true},
                                               {Trait::finish, &PieceFacts::finish, false}}};

struct NumberTrait {
    Trait trait;
    std::optional<double> PieceFacts::*number;
    int places;
};
constexpr std::array<NumberTrait, 5> numberTraits{{{Trait::soak, &PieceFacts::equivalent_min, 1},
                                                   {Trait::hardness, &PieceFacts::hrc, 1},
                                                   {Trait::thickness, &PieceFacts::thickness_mm, 1},
                                                   {Trait::edge, &PieceFacts::edge_mm, 2},
                                                   {Trait::angle, &PieceFacts::angle_deg, 0}}};

constexpr double traitHair = 1e-9;

std::string shown(const std::optional<double>& value, int places) {
    if (!value) return {};
    return places == 1 ? tenthText(*value) : fmt::format("{:.{}f}", *value, places);
}

// Whether a result on `tested` also holds for `other`, for one number: tested was treated no more kindly.
bool carries(Trait trait, double tested, double other) {
    switch (trait) {
    case Trait::soak:
        return tested >= 0.9 * other - traitHair;
    case Trait::hardness:
        return tested >= other - 0.5 - traitHair;
    case Trait::thickness:
    case Trait::edge:
        return tested <= 1.1 * other + traitHair && tested >= 0.8 * other - traitHair;
    case Trait::angle:
        return std::abs(tested - other) <= 3 + traitHair;
    default:
        return true;
    }
}

bool alike(Trait trait, double a, double b) {
    switch (trait) {
    case Trait::hardness:
        return std::abs(a - b) <= 0.5 + traitHair;
    case Trait::angle:
        return std::abs(a - b) <= 3 + traitHair;
    default:
        return std::abs(a - b) <= 0.1 * std::max(std::abs(a), std::abs(b)) + traitHair;
    }
}

} // namespace

std::optional<Trait> traitNamed(const std::string& name) {
    return name == "cycles" ? Trait::tempers : named<Trait>(name);
}

namespace {

// Of no weight when a piece is bent, chopped with or broken: its finish. Of weight for the grain: what was done to the
// steel until it was quenched.
bool weighs(Trait trait, bool grain) {
    if (!grain) return trait != Trait::finish;
    return trait == Trait::grade || trait == Trait::lot || trait == Trait::changed || trait == Trait::recipe ||
           trait == Trait::heat || trait == Trait::soak;
}

Speech speech(const PieceFacts& piece, const PieceFacts& blade, bool passed, bool grain) {
    Speech speech;
    bool differs = false;
    for (const WordTrait& trait : wordTraits) {
        if (!weighs(trait.trait, grain)) continue;
        const std::string& a = piece.*trait.word;
        const std::string& b = blade.*trait.word;
        const bool known = trait.empty_is_known || (!a.empty() && !b.empty());
        if (known && a == b) continue;
        differs = differs || known;
        speech.differences.push_back({trait.trait, known, a, b});
    }
    for (const NumberTrait& trait : numberTraits) {
        if (!weighs(trait.trait, grain)) continue;
        const std::optional<double>& a = piece.*trait.number;
        const std::optional<double>& b = blade.*trait.number;
        const bool known = a && b;
        if (known && (passed ? carries(trait.trait, *a, *b) : carries(trait.trait, *b, *a))) continue;
        differs = differs || known;
        speech.differences.push_back({trait.trait, known, shown(a, trait.places), shown(b, trait.places)});
    }
    speech.speaks = differs ? Speaks::no : speech.differences.empty() ? Speaks::yes : Speaks::withReservations;
    return speech;
}

} // namespace

Speech speaksFor(const PieceFacts& piece, const PieceFacts& blade, bool passed) {
    return speech(piece, blade, passed, false);
}

Speech grainSpeaksFor(const PieceFacts& piece, const PieceFacts& blade, bool fine) {
    return speech(piece, blade, fine, true);
}

std::vector<Difference> differencesBeside(const std::vector<PieceFacts>& pieces, std::optional<Trait> factor) {
    std::vector<Difference> differences;
    if (pieces.size() < 2) return differences;
    // The first piece, and the one that is least like it.
    for (const WordTrait& trait : wordTraits) {
        if (trait.trait == factor) continue;
        const std::string& first = pieces.front().*trait.word;
        for (const PieceFacts& piece : pieces) {
            const std::string& other = piece.*trait.word;
            const bool known = trait.empty_is_known || (!first.empty() && !other.empty());
            if (first == other && known) continue;
            differences.push_back({trait.trait, known, first, other});
            break;
        }
    }
    for (const NumberTrait& trait : numberTraits) {
        if (trait.trait == factor) continue;
        std::optional<double> least;
        std::optional<double> most;
        bool known = true;
        for (const PieceFacts& piece : pieces) {
            const std::optional<double>& value = piece.*trait.number;
            known = known && value;
            if (!value) continue;
            least = std::min(least.value_or(*value), *value);
            most = std::max(most.value_or(*value), *value);
        }
        const bool same = least && alike(trait.trait, *least, *most);
        if (known && same) continue;
        differences.push_back({trait.trait, least && !same, shown(least, trait.places), shown(most, trait.places)});
    }
    return differences;
}

} // namespace rollcall
