// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/trace.h"

#include "core/base/number.h"

#include <algorithm>
#include <charconv>
#include <chrono>
#include <cmath>
#include <fmt/format.h>

namespace rollcall {

Result<Trace> Trace::of(std::vector<TraceSample> samples) {
    if (samples.size() < 2) return Error{ErrorKind::range, "", "a trace needs at least two samples"};
    for (std::size_t i = 0; i < samples.size(); ++i) {
        const TraceSample& sample = samples[i];
        if (!std::isfinite(sample.s) || !(sample.c > -273.15 && sample.c <= 2000))
            return Error{ErrorKind::range, "", fmt::format("sample {} of the trace is not a temperature", i + 1)};
        if (i > 0 && sample.s < samples[i - 1].s)
            return Error{ErrorKind::range, "", fmt::format("time runs backwards at sample {} of the trace", i + 1)};
    }
    Trace trace;
    trace.m_samples = std::move(samples);
    return trace;
}

std::vector<std::pair<double, double>> Trace::gaps() const {
    std::vector<double> apart;
    for (std::size_t i = 1; i < m_samples.size(); ++i) apart.push_back(m_samples[i].s - m_samples[i - 1].s);
    std::vector<std::pair<double, double>> gaps;
    if (apart.empty()) return gaps;
    std::vector<double> sorted = apart;
    const auto middle = sorted.begin() + static_cast<std::ptrdiff_t>(sorted.size() / 2);
    std::nth_element(sorted.begin(), middle, sorted.end());
    constexpr double minute = 60;
    constexpr double asRule = 2.5;
    const double longest = std::max(minute, asRule * *middle);
    for (std::size_t i = 0; i < apart.size(); ++i) {
        if (apart[i] > longest) gaps.emplace_back(m_samples[i].s, m_samples[i + 1].s);
    }
    return gaps;
}

Trace Trace::withoutFaults(std::vector<TraceSample>& faults) const {
    constexpr double off = 100;  // °C
    constexpr double near = 120; // s: a minute's logger; a slower one may have missed a real peak
    Trace sound;
    for (std::size_t i = 0; i < m_samples.size(); ++i) {
        if (i > 0 && i + 1 < m_samples.size() && m_samples[i].s - m_samples[i - 1].s <= near &&
            m_samples[i + 1].s - m_samples[i].s <= near) {
            const double before = m_samples[i].c - m_samples[i - 1].c;
            const double after = m_samples[i].c - m_samples[i + 1].c;
            if (std::min(before, after) > off || std::max(before, after) < -off) {
                if (std::abs(before - after) < off) {
                    faults.push_back(m_samples[i]);
                    continue;
                }
            }
        }
        sound.m_samples.push_back(m_samples[i]);
    }
    return sound;
}

Trace Trace::shifted(double seconds) const {
    Trace trace = *this;
    for (TraceSample& sample : trace.m_samples) sample.s += seconds;
    return trace;
}

double Trace::at(double s) const {
    if (m_samples.empty()) return 0;
    const auto after = std::lower_bound(m_samples.begin(), m_samples.end(), s,
                                        [](const TraceSample& sample, double moment) { return sample.s < moment; });
    if (after == m_samples.begin()) return m_samples.front().c;
    if (after == m_samples.end()) return m_samples.back().c;
    const TraceSample& before = *(after - 1);
    if (after->s == before.s) return after->c;
    return before.c + (after->c - before.c) * (s - before.s) / (after->s - before.s);
}

std::vector<TraceSample> Trace::between(double from, double to) const {
    std::vector<TraceSample> part;
    if (m_samples.empty() || !(to > from)) return part;
    part.push_back({from, at(from)});
    const auto first = std::upper_bound(m_samples.begin(), m_samples.end(), from,
                                        [](double moment, const TraceSample& sample) { return moment < sample.s; });
    for (auto sample = first; sample != m_samples.end() && sample->s < to; ++sample) part.push_back(*sample);
    part.push_back({to, at(to)});
    return part;
}

namespace {

// A number in front of a text, which is moved behind it; not finite ones are refused.
std::optional<double> takeNumber(std::string_view& text) {
    double value = 0;
    const auto [end, fault] = std::from_chars(text.data(), text.data() + text.size(), value);
    if (fault != std::errc() || !std::isfinite(value)) return std::nullopt;
    text.remove_prefix(static_cast<std::size_t>(end - text.data()));
    return value;
}

std::optional<double> takeDigits(std::string_view& text, std::size_t digits) {
    if (text.size() < digits) return std::nullopt;
    double value = 0;
    for (std::size_t i = 0; i < digits; ++i) {
        if (text[i] < '0' || text[i] > '9') return std::nullopt;
        value = 10 * value + (text[i] - '0');
    }
    text.remove_prefix(digits);
    return value;
}

bool takeCharacter(std::string_view& text, std::string_view anyOf) {
    if (text.empty() || anyOf.find(text.front()) == std::string_view::npos) return false;
    text.remove_prefix(1);
    return true;
}

enum class TimeForm { seconds, clock, date, dateWithOffset };

struct TraceTime {
    double s = 0;
    TimeForm form = TimeForm::seconds;
};

std::optional<TraceTime> clockTime(std::string_view text) {
    double s = 0;
    int parts = 0;
    while (true) {
        const auto value = takeNumber(text);
        if (!value || *value < 0 || (parts > 0 && *value >= 60)) return std::nullopt;
        s = 60 * s + *value;
        ++parts;
        if (text.empty()) break;
        if (!takeCharacter(text, ":") || parts > 2 || *value != std::floor(*value)) return std::nullopt;
    }
    return TraceTime{s, parts == 1 ? TimeForm::seconds : TimeForm::clock};
}

// ISO 8601: date, T or blank, time of day with optional seconds, and an optional offset.
std::optional<TraceTime> dateTime(std::string_view text) {
    const auto year = takeDigits(text, 4);
    if (!year || !takeCharacter(text, "-")) return std::nullopt;
    const auto month = takeDigits(text, 2);
    if (!month || !takeCharacter(text, "-")) return std::nullopt;
    const auto day = takeDigits(text, 2);
    if (!day || !takeCharacter(text, "Tt ")) return std::nullopt;
    const auto hour = takeDigits(text, 2);
    if (!hour || !takeCharacter(text, ":")) return std::nullopt;
    const auto minute = takeDigits(text, 2);
    if (!minute || *hour > 24 || *minute > 59) return std::nullopt;
    double second = 0;
    if (takeCharacter(text, ":")) {
        const auto value = takeNumber(text);
        if (!value || *value < 0 || *value >= 61) return std::nullopt;
        second = *value;
    }
    const std::chrono::year_month_day date{std::chrono::year(static_cast<int>(*year)),
                                           std::chrono::month(static_cast<unsigned>(*month)),
                                           std::chrono::day(static_cast<unsigned>(*day))};
    if (!date.ok()) return std::nullopt;
    const auto days = std::chrono::sys_days(date).time_since_epoch().count();
    TraceTime time{days * 86400.0 + *hour * 3600 + *minute * 60 + second, TimeForm::date};
    if (text.empty()) return time;
    time.form = TimeForm::dateWithOffset;
    if (takeCharacter(text, "Zz")) return text.empty() ? std::optional(time) : std::nullopt;
    const double sign = text.front() == '-' ? -1 : 1;
    if (!takeCharacter(text, "+-")) return std::nullopt;
    const auto offsetHours = takeDigits(text, 2);
    (void)takeCharacter(text, ":");
    const auto offsetMinutes = text.empty() ? std::optional<double>(0) : takeDigits(text, 2);
    if (!offsetHours || !offsetMinutes || !text.empty()) return std::nullopt;
    time.s -= sign * (*offsetHours * 3600 + *offsetMinutes * 60);
    return time;
}

std::string_view unquoted(std::string_view field) {
    field = trimmed(field);
    if (field.size() >= 2 && field.front() == '"' && field.back() == '"')
        field = trimmed(field.substr(1, field.size() - 2));
    return field;
}

} // namespace

Result<double> parseClock(std::string_view text) {
    const auto time = clockTime(trimmed(text));
    if (!time) return Error{ErrorKind::argument, "", fmt::format("'{}' is no time like 14:30 or 90 seconds", text)};
    return time->s;
}

// Line by line without a general CSV reader: a logger writes a million of these lines, and two plain columns need no
// more than this.
Result<TraceFile> readTrace(std::string_view text) {
    constexpr double gapMinutes = 5;
    constexpr double halfDay = 43200;
    TraceFile file;
    if (text.substr(0, 3) == "\xEF\xBB\xBF") text.remove_prefix(3);
    std::vector<TraceSample> samples;
    std::optional<TimeForm> form;
    char separator = 0;
    double midnight = 0;
    int line = 0;
    bool headerPossible = true;
    while (!text.empty()) {
        ++line;
        const std::size_t end = std::min(text.find('\n'), text.size());
        std::string_view row = text.substr(0, end);
        text.remove_prefix(std::min(end + 1, text.size()));
        row = trimmed(row);
        if (!row.empty() && row.back() == '\r') row = trimmed(row.substr(0, row.size() - 1));
        if (row.empty()) continue;
        if (separator == 0) separator = row.find(';') != row.npos ? ';' : row.find('\t') != row.npos ? '\t' : ',';
        const std::size_t cut = row.find(separator);
        const auto skip = [&](const char* why) { file.skipped.push_back({line, why}); };
        const std::string_view timeText = unquoted(row.substr(0, cut));
        std::string_view valueText = cut == row.npos ? std::string_view() : row.substr(cut + 1);
        valueText = unquoted(valueText.substr(0, valueText.find(separator)));
        auto time = clockTime(timeText);
        if (!time) time = dateTime(timeText);
        if (headerPossible) {
            headerPossible = false;
            if (!time) { // a header, which may name the unit
                std::string name = lowered(valueText);
                file.fahrenheit = name.find("°f") != name.npos || name.find("deg f") != name.npos ||
                                  name.find("fahrenheit") != name.npos ||
                                  (name.size() >= 2 &&
                                   (name.substr(name.size() - 2) == "_f" || name.substr(name.size() - 2) == " f")) ||
                                  name == "f" || name.find("(f)") != name.npos || name.find("[f]") != name.npos;
                continue;
            }
        }
        if (cut == row.npos) {
            skip("there is no second column");
            continue;
        }
        if (!time) {
            skip("the time is not understood");
            continue;
        }
        std::optional<double> value;
        std::string_view rest = valueText;
        value = takeNumber(rest);
        if (!value || !rest.empty()) {
            const Result<double> typed = parseNumber(valueText); // a decimal comma
            value = typed ? std::optional<double>(*typed) : std::nullopt;
        }
        if (!value) {
            skip("the temperature is not a number");
            continue;
        }
        const double celsius = file.fahrenheit ? (*value - 32.0) / 1.8 : *value;
        if (!(celsius > -273.15 && celsius <= 2000)) {
            skip("the temperature cannot be");
            continue;
        }
        if (form && *form != time->form &&
            (*form == TimeForm::seconds || time->form == TimeForm::seconds || *form == TimeForm::clock ||
             time->form == TimeForm::clock)) {
            skip("the time is written in another way than before");
            continue;
        }
        if (!form) {
            form = time->form;
            if (*form == TimeForm::date || *form == TimeForm::dateWithOffset) {
                file.first_ms = time->s * 1000.0;
                file.first_is_local = *form == TimeForm::date;
            }
        }
        double s = time->s + midnight;
        if (!samples.empty() && s < samples.back().s) {
            if (*form == TimeForm::clock && midnight == 0 && samples.back().s - s > halfDay) {
                midnight = 86400;
                s += midnight;
            } else {
                return Error{ErrorKind::input, fmt::format("line {}", line), "time runs backwards here"};
            }
        }
        if (!samples.empty() && s - samples.back().s > gapMinutes * 60)
            file.gaps.push_back({line, (s - samples.back().s) / 60.0});
        samples.push_back({s, celsius});
    }
    if (samples.size() < 2)
        return Error{ErrorKind::input, "", "this is no trace: fewer than two lines hold a time and a temperature"};
    const double start = samples.front().s;
    if (form == TimeForm::clock) file.first_clock_s = start;
    for (TraceSample& sample : samples) sample.s -= start;
    Result<Trace> trace = Trace::of(std::move(samples));
    if (!trace) return Error{ErrorKind::input, "", trace.error().text};
    file.trace = std::move(trace).value();
    file.trace.withoutFaults(file.faults);
    return file;
}

} // namespace rollcall
