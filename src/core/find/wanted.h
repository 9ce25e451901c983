// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/instant.h"
#include "core/base/tables.h"
#include "core/judge/gates.h"

#include <map>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace rollcall {

/// What somebody looks for in a logbook, from a sentence such as "115CrV3, tempered 200 to 210 °C, since spring,
/// failed, tip". Every part narrows; none of them: everything.
struct Wanted {
    std::vector<std::string> words;                      ///< beginnings of words; all must stand there
    std::optional<std::string> grade;                    ///< designation as the library writes it
    std::optional<std::pair<double, double>> tempered_c; ///< a temper of the blade from, to; °C
    std::optional<std::int64_t> since_ms;                ///< the batch was made then or later
    std::optional<std::int64_t> before_ms;               ///< and earlier than this
    std::optional<State> state;                          ///< of a blade at a gate that its batch asks

    bool everything() const { return words.empty() && !grade && !tempered_c && !since_ms && !before_ms && !state; }
};

/// Reads such a sentence. Its parts stand between commas; a part that is no grade, temper, time or verdict is words.
/// Times: "since" or "before" a day (2026-03-01, 1.3.2026), a month (2026-03, March, March 2025), a year, a season of
/// the northern half (spring begins on 1 March); "in" a month or year; "today", "yesterday", "this week", "this month",
/// "this year". A month or season without its year is the last one that has begun. Temperatures: °C, or with F behind.
/// What is being typed is never an error: a part that is not complete yet is words.
Wanted wantedFrom(const std::string& sentence, const Tables& tables, const Instant& now);

/// The verdicts of each blade at the gates that its batch asks, by its id.
std::map<std::string, std::vector<State>> statesOf(const Batch& batch, const BatchVerdicts& verdicts);

/// Whether a blade with these verdicts is one that is looked for: it has the verdict at a gate; passed, at all of them.
bool hasVerdict(const std::vector<State>& states, State wanted);

} // namespace rollcall
