// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/find/wanted.h"

#include "core/base/number.h"

#include <algorithm>
#include <array>
#include <chrono>
#include <string_view>

namespace rollcall {

namespace {

using std::chrono::days;
using std::chrono::month;
using std::chrono::sys_days;
using std::chrono::year;
using std::chrono::year_month_day;

// From a day on, and up to but without another.
struct Span {
    sys_days from;
    sys_days to;
};

std::vector<std::string> wordsOf(const std::string& text) {
    std::vector<std::string> words;
    for (const std::string& word : split(text, ' ')) {
        if (!word.empty()) words.push_back(word);
    }
    return words;
}

std::optional<int> whole(std::string_view text) {
    if (text.empty() || text.size() > 4) return std::nullopt;
    int value = 0;
    for (const char c : text) {
        if (c < '0' || c > '9') return std::nullopt;
        value = value * 10 + (c - '0');
    }
    return value;
}

Span monthSpan(int y, unsigned m) {
    const year_month_day first{year(y), month(m), std::chrono::day(1)};
    const year_month_day next = first + std::chrono::months(1);
    return {sys_days(first), sys_days(next)};
}

Span yearSpan(int y) {
    return {monthSpan(y, 1).from, monthSpan(y, 12).to};
}

std::optional<Span> daySpan(int y, int m, int d) {
    const year_month_day day{year(y), month(static_cast<unsigned>(m)), std::chrono::day(static_cast<unsigned>(d))};
    if (!day.ok()) return std::nullopt;
    return Span{sys_days(day), sys_days(day) + days(1)};
}

constexpr std::array months{"january", "february", "march",     "april",   "may",      "june",
                            "july",    "august",   "september", "october", "november", "december"};

// The month that a word begins, three letters at least; 1 to 12.
std::optional<unsigned> monthNamed(const std::string& word) {
    if (word.size() < 3) return std::nullopt;
    for (unsigned i = 0; i < months.size(); ++i) {
        if (std::string_view(months[i]).substr(0, word.size()) == word) return i + 1;
    }
    return std::nullopt;
}

std::optional<unsigned> seasonNamed(const std::string& word) {
    constexpr unsigned march = 3, june = 6, september = 9, december = 12;
    if (word == "spring") return march;
    if (word == "summer") return june;
    if (word == "autumn" || word == "fall") return september;
    if (word == "winter") return december;
    return std::nullopt;
}

// The latest year in which that month has begun.
int latestYear(unsigned m, sys_days today) {
    const year_month_day now(today);
    return static_cast<int>(now.year()) - (m > static_cast<unsigned>(now.month()) ? 1 : 0);
}

std::optional<Span> spanOf(const std::vector<std::string>& words, sys_days today) {
    if (words.empty() || words.size() > 2) return std::nullopt;
    const std::string& first = words.front();
    const int itsYear = words.size() == 2 ? whole(words[1]).value_or(0) : 0;
    if (words.size() == 2 && itsYear == 0) return std::nullopt;
    const auto yearOf = [&](unsigned m) { return itsYear != 0 ? itsYear : latestYear(m, today); };
    if (const auto m = monthNamed(first)) return monthSpan(yearOf(*m), *m);
    if (const auto m = seasonNamed(first)) {
        const int y = yearOf(*m);
        return Span{monthSpan(y, *m).from,
                    sys_days(year_month_day(year(y), month(*m), std::chrono::day(1)) + std::chrono::months(3))};
    }
    if (words.size() == 2) return std::nullopt;
    if (first == "today") return Span{today, today + days(1)};
    if (first == "yesterday") return Span{today - days(1), today};
    const std::vector<std::string> iso = split(first, '-');
    const std::vector<std::string> dotted = split(first, '.');
    const auto number = [](const std::string& text) { return whole(text).value_or(0); };
    if (iso.size() == 3) return daySpan(number(iso[0]), number(iso[1]), number(iso[2]));
    if (dotted.size() == 3) return daySpan(number(dotted[2]), number(dotted[1]), number(dotted[0]));
    constexpr int earliest = 1900;
    if (iso.size() == 2 && number(iso[0]) >= earliest && number(iso[1]) >= 1 && number(iso[1]) <= 12)
        return monthSpan(number(iso[0]), static_cast<unsigned>(number(iso[1])));
    if (const auto y = whole(first); y && *y >= earliest) return yearSpan(*y);
    return std::nullopt;
}

std::optional<Span> thisOne(const std::string& unit, sys_days today) {
    const year_month_day now(today);
    if (unit == "week") {
        const auto monday = today - (std::chrono::weekday(today) - std::chrono::Monday);
        return Span{monday, monday + days(7)};
    }
    if (unit == "month") return monthSpan(static_cast<int>(now.year()), static_cast<unsigned>(now.month()));
    if (unit == "year") return yearSpan(static_cast<int>(now.year()));
    return std::nullopt;
}

// "205", "200-210", "200 to 210 °C", "400F"; a bare temperature stands for what an oven makes of it.
std::optional<std::pair<double, double>> temperatures(std::string text) {
    bool fahrenheit = false;
    for (const auto& [unit, isF] :
         {std::pair("°c", false), std::pair("°f", true), std::pair("c", false), std::pair("f", true)}) {
        const std::string_view sought(unit);
        while (!text.empty() && text.back() == ' ') text.pop_back();
        if (text.size() < sought.size() || std::string_view(text).substr(text.size() - sought.size()) != sought)
            continue;
        fahrenheit = isF;
        text.resize(text.size() - sought.size());
        break;
    }
    std::vector<double> ends;
    std::string number;
    for (const std::string& word : wordsOf(text)) {
        if (word == "to" || word == "-" || word == "°") continue;
        for (const std::string& part : split(word, '-')) {
            const auto value = parseNumber(part);
            if (!value) return std::nullopt;
            ends.push_back(fahrenheit ? (*value - 32) / 1.8 : *value);
        }
    }
    constexpr double asSet = 5; // °C either side of one temperature: steps of an oven
    if (ends.size() == 1) return std::pair(ends[0] - asSet, ends[0] + asSet);
    if (ends.size() == 2) return std::pair(std::min(ends[0], ends[1]), std::max(ends[0], ends[1]));
    return std::nullopt;
}

std::optional<State> stateNamed(const std::string& text) {
    if (text == "failed" || text == "fail") return State::fail;
    if (text == "passed" || text == "pass") return State::pass;
    if (text == "borderline") return State::borderline;
    return std::nullopt;
}

} // namespace

Wanted wantedFrom(const std::string& sentence, const Tables& tables, const Instant& now) {
    Wanted wanted;
    const sys_days today{days(now.localDay())};
    const auto momentOf = [&](sys_days day) {
        constexpr std::int64_t dayMs = 86400000;
        return day.time_since_epoch().count() * dayMs - std::int64_t{now.offset_minutes} * 60000;
    };
    for (const std::string& part : split(sentence, ',')) {
        const std::string text(trimmed(part));
        if (text.empty()) continue;
        const std::vector<std::string> typed = wordsOf(lowered(text));
        const std::vector<std::string> rest(typed.begin() + 1, typed.end());
        const std::string& first = typed.front();
        if (const Grade* grade = tables.grade(text); grade != nullptr && !wanted.grade) {
            wanted.grade = grade->name;
            continue;
        }
        if (first == "tempered" && !rest.empty()) {
            wanted.tempered_c = temperatures(lowered(text).substr(first.size()));
            if (wanted.tempered_c) continue;
        }
        std::optional<Span> span;
        if (first == "this" && rest.size() == 1)
            span = thisOne(rest[0], today);
        else if (first == "since" || first == "before" || first == "in")
            span = spanOf(rest, today);
        else if (typed.size() == 1 && (first == "today" || first == "yesterday"))
            span = spanOf(typed, today);
        if (span) {
            if (first != "before") wanted.since_ms = momentOf(span->from);
            if (first == "before") wanted.before_ms = momentOf(span->from);
            if (first != "before" && first != "since") wanted.before_ms = momentOf(span->to);
            continue;
        }
        if (const auto state = stateNamed(lowered(text))) {
            wanted.state = state;
            continue;
        }
        const std::vector<std::string> words = wordsOf(text);
        wanted.words.insert(wanted.words.end(), words.begin(), words.end());
    }
    return wanted;
}

std::map<std::string, std::vector<State>> statesOf(const Batch& batch, const BatchVerdicts& verdicts) {
    std::map<std::string, std::vector<State>> states;
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        std::vector<State>& own = states[batch.blades[i].id];
        for (const Gate gate : allGates) {
            if (const auto& verdict = verdicts.at(i, gate)) own.push_back(verdict->state);
        }
    }
    return states;
}

bool hasVerdict(const std::vector<State>& states, State wanted) {
    const auto is = [&](State state) { return state == wanted; };
    return wanted == State::pass ? !states.empty() && std::all_of(states.begin(), states.end(), is)
                                 : std::any_of(states.begin(), states.end(), is);
}

} // namespace rollcall
