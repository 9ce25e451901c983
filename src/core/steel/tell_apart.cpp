// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/steel/tell_apart.h"

#include <cmath>
#include <optional>
#include <utility>

namespace rollcall {

namespace {

std::optional<std::pair<double, double>> carbonOf(const Grade& grade) {
    for (const ElementLimits& limits : grade.composition) {
        if (limits.element == "C" && limits.low && limits.high) return std::pair(*limits.low, *limits.high);
    }
    return std::nullopt;
}

bool apart(double a_low, double a_high, double b_low, double b_high) {
    return a_high < b_low || b_high < a_low;
}

} // namespace

TellApart howToTellApart(const Grade& a, const Grade& b) {
    const auto ca = carbonOf(a);
    const auto cb = carbonOf(b);
    if (ca && cb && apart(ca->first, ca->second, cb->first, cb->second))
        return {TellApart::Test::carbon, ca->first, ca->second, cb->first, cb->second};
    // A range as wide as 420's (carbon from 0.15 up) holds the others: its typical value parts nothing.
    constexpr double told = 6;
    const bool narrow = a.as_quenched_max - a.as_quenched_min <= told && b.as_quenched_max - b.as_quenched_min <= told;
    if (apart(a.as_quenched_min, a.as_quenched_max, b.as_quenched_min, b.as_quenched_max) ||
        (narrow && std::abs(a.as_quenched_typical - b.as_quenched_typical) >= 2))
        return {TellApart::Test::coupon, a.as_quenched_min, a.as_quenched_max, b.as_quenched_min, b.as_quenched_max};
    constexpr double seenInSparks = 0.2; // per cent of carbon
    if (ca && cb && std::abs(ca->first + ca->second - cb->first - cb->second) / 2 >= seenInSparks)
        return {TellApart::Test::spark, ca->first, ca->second, cb->first, cb->second};
    return {};
}

bool couponFits(const Grade& grade, double hrc, double uncertainty) {
    return hrc + uncertainty >= grade.as_quenched_min && hrc - uncertainty <= grade.as_quenched_max;
}

} // namespace rollcall
