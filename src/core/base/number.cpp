// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"

#include <algorithm>
#include <array>
#include <cctype>
#include <charconv>
#include <cmath>
#include <fmt/format.h>
#include <optional>

namespace rollcall {

double roundToTenth(double x) {
    const double nine = std::round(x * 1e9) / 1e8; // tenths, cleaned of binary noise
    const double lower = std::floor(nine);
    const double part = nine - lower;
    constexpr double noise = 1e-7;
    double tenths = lower;
    if (part > 0.5 + noise) {
        tenths = lower + 1;
    } else if (part > 0.5 - noise && std::fmod(lower, 2.0) != 0.0) {
        tenths = lower + 1;
    }
    return tenths / 10.0;
}

double roundUpToTenth(double x) {
    return std::ceil(std::round(x * 1e9) / 1e8 - limitTolerance) / 10.0;
}

std::string tenthText(double x) {
    const double rounded = roundToTenth(x);
    return fmt::format("{:.1f}", rounded == 0.0 ? 0.0 : rounded);
}

std::string uncertaintyText(double u) {
    return fmt::format("{:.1f}", roundUpToTenth(u) + 0.0); // + 0.0: no negative zero
}

std::string_view trimmed(std::string_view text) {
    const auto blank = [](char c) { return c == ' ' || c == '\t' || c == '\r' || c == '\n'; };
    while (!text.empty() && blank(text.front())) text.remove_prefix(1);
    while (!text.empty() && blank(text.back())) text.remove_suffix(1);
    return text;
}

bool sameName(std::string_view a, std::string_view b) {
    if (a == b) return true; // asked a hundred thousand times when a large batch is judged
    const auto small = [](char c) { return std::tolower(static_cast<unsigned char>(c)); };
    const std::string_view x = trimmed(a);
    const std::string_view y = trimmed(b);
    if (x.size() != y.size()) return false;
    return std::equal(x.begin(), x.end(), y.begin(), y.end(), [&](char p, char q) { return small(p) == small(q); });
}

std::string lowered(std::string_view text) {
    std::string low(text);
    for (char& c : low) c = static_cast<char>(std::tolower(static_cast<unsigned char>(c)));
    return low;
}

std::vector<std::string> split(std::string_view text, char separator) {
    std::vector<std::string> parts;
    if (trimmed(text).empty()) return parts;
    std::size_t start = 0;
    while (true) {
        const std::size_t end = text.find(separator, start);
        parts.emplace_back(trimmed(text.substr(start, end == std::string_view::npos ? end : end - start)));
        if (end == std::string_view::npos) return parts;
        start = end + 1;
    }
}

namespace {

struct Prefix {
    double value;
    std::string_view rest;
};

Result<Prefix> numberPrefix(std::string_view text) {
    const std::string_view whole = trimmed(text);
    std::string_view body = whole;
    if (body.empty()) return Error{ErrorKind::argument, "", "a number is missing"};
    bool negative = false;
    if (body.substr(0, 3) == "\xE2\x88\x92") { // the true minus sign, as shown on screen
        negative = true;
        body.remove_prefix(3);
    } else if (body.front() == '-' || body.front() == '+') {
        negative = body.front() == '-';
        body.remove_prefix(1);
    }
    std::size_t length = 0;
    while (length < body.size() && (std::isdigit(static_cast<unsigned char>(body[length])) != 0 ||
                                    body[length] == '.' || body[length] == ',')) {
        ++length;
    }
    // "1e-05", as programs write what is small or large; a letter without digits behind it is no exponent.
    if (length > 0 && length < body.size() && (body[length] == 'e' || body[length] == 'E')) {
        const std::size_t sign = length + 1;
        std::size_t end = sign < body.size() && (body[sign] == '+' || body[sign] == '-') ? sign + 1 : sign;
        const std::size_t first = end;
        while (end < body.size() && std::isdigit(static_cast<unsigned char>(body[end])) != 0) ++end;
        if (end > first) length = end;
    }
    std::string digits(body.substr(0, length));
    for (char& c : digits) {
        if (c == ',') c = '.';
    }
    double value = 0;
    const auto [end, failure] = std::from_chars(digits.data(), digits.data() + digits.size(), value);
    if (failure != std::errc() || end != digits.data() + digits.size() || !std::isfinite(value)) {
        return Error{ErrorKind::argument, "", fmt::format("'{}' is not a number", whole)};
    }
    return Prefix{negative ? -value : value, trimmed(body.substr(length))};
}

struct Unit {
    std::string_view name;
    double factor;
    double offset;
};

// Celsius = Fahrenheit * 5/9 - 160/9; 1 in = 25.4 mm, 1 kgf = 9.80665 N, 1 lbf = 4.4482216 N (exact by definition).
constexpr std::array<Unit, 4> temperatureUnits{{{"c", 1, 0},
                                                {"\xC2\xB0"
                                                 "c",
                                                 1, 0},
                                                {"f", 5.0 / 9.0, -160.0 / 9.0},
                                                {"\xC2\xB0"
                                                 "f",
                                                 5.0 / 9.0, -160.0 / 9.0}}};
constexpr std::array<Unit, 8> lengthUnits{{{"mm", 1, 0},
                                           {"cm", 10, 0},
                                           {"m", 1000, 0},
                                           {"in", 25.4, 0},
                                           {"inch", 25.4, 0},
                                           {"\"", 25.4, 0},
                                           {"thou", 0.0254, 0},
                                           {"mil", 0.0254, 0}}};
// A scale for kitchens or fish says kg or lb and means the force.
constexpr std::array<Unit, 6> forceUnits{{{"n", 1, 0},
                                          {"kgf", 9.80665, 0},
                                          {"kg", 9.80665, 0},
                                          {"lbf", 4.4482216152605, 0},
                                          {"lb", 4.4482216152605, 0},
                                          {"lbs", 4.4482216152605, 0}}};
constexpr std::array<Unit, 4> durationUnits{
    {{"h", 1, 0}, {"min", 1.0 / 60.0, 0}, {"s", 1.0 / 3600.0, 0}, {"m", 1.0 / 60.0, 0}}};

template<std::size_t N>
const Unit* findUnit(const std::array<Unit, N>& units, std::string_view name) {
    for (const Unit& unit : units) {
        if (unit.name == name) return &unit;
    }
    return nullptr;
}

} // namespace

Result<double> parseNumber(std::string_view text) {
    const Result<Prefix> prefix = numberPrefix(text);
    if (!prefix) return prefix.error();
    if (!prefix->rest.empty()) {
        return Error{ErrorKind::argument, "", fmt::format("'{}' is not a number", trimmed(text))};
    }
    return prefix->value;
}

int decimalsOf(std::string_view text) {
    const std::size_t point = text.find_first_of(".,");
    if (point == std::string_view::npos) return 0;
    int decimals = 0;
    for (std::size_t i = point + 1; i < text.size() && std::isdigit(static_cast<unsigned char>(text[i])) != 0; ++i) {
        ++decimals;
    }
    return decimals;
}

namespace {

// "3/16in", "1 3/16 in": as a rule is read. None where the text is no fraction.
std::optional<Prefix> fractionPrefix(std::string_view text) {
    const std::string_view body = trimmed(text);
    std::array<int, 3> parts{};
    std::size_t at = 0;
    std::size_t count = 0;
    std::size_t slash = 0; // parts before it
    while (count < parts.size() && at < body.size() && std::isdigit(static_cast<unsigned char>(body[at])) != 0) {
        const auto [end, failure] = std::from_chars(body.data() + at, body.data() + body.size(), parts[count]);
        if (failure != std::errc()) return std::nullopt;
        at = static_cast<std::size_t>(end - body.data());
        ++count;
        if (at < body.size() && body[at] == '/') {
            slash = count;
            ++at;
        } else if (slash == 0) {
            while (at < body.size() && body[at] == ' ') ++at;
        } else {
            break;
        }
    }
    if (slash == 0 || count != slash + 1 || parts[count - 1] == 0) return std::nullopt;
    const double whole = slash == 2 ? parts[0] : 0;
    return Prefix{whole + double(parts[slash - 1]) / parts[slash], trimmed(body.substr(at))};
}

} // namespace

Result<double> parseQuantity(std::string_view text, Quantity quantity) {
    const auto fraction = quantity == Quantity::length ? fractionPrefix(text) : std::nullopt;
    const Result<Prefix> prefix = fraction ? Result<Prefix>(*fraction) : numberPrefix(text);
    if (!prefix) return prefix.error();
    const Unit bare{"", 1, 0};
    const std::string name = lowered(prefix->rest);
    const Unit* unit = &bare;
    if (!name.empty()) {
        switch (quantity) {
        case Quantity::temperature:
            unit = findUnit(temperatureUnits, name);
            break;
        case Quantity::length:
            unit = findUnit(lengthUnits, name);
            break;
        case Quantity::force:
            unit = findUnit(forceUnits, name);
            break;
        case Quantity::duration:
            unit = findUnit(durationUnits, name);
            break;
        }
    }
    if (unit == nullptr) {
        return Error{ErrorKind::argument, "",
                     fmt::format("the unit '{}' in '{}' is not understood", prefix->rest, trimmed(text))};
    }
    const double value = prefix->value * unit->factor + unit->offset;
    if (quantity == Quantity::temperature && value < -273.15) {
        return Error{ErrorKind::range, "", fmt::format("'{}' is below absolute zero", trimmed(text))};
    }
    if (quantity == Quantity::duration && value < 0) {
        return Error{ErrorKind::range, "", fmt::format("'{}' is a negative time", trimmed(text))};
    }
    return value;
}

Result<std::vector<double>> parseNumbers(std::string_view text) {
    const char separator = text.find(';') != std::string_view::npos            ? ';'
                           : trimmed(text).find(' ') == std::string_view::npos ? ','
                           : text.find(", ") != std::string_view::npos         ? ','
                                                                               : ' ';
    std::vector<double> numbers;
    for (const std::string& part : split(text, separator)) {
        if (part.empty() && separator == ' ') continue;
        const Result<double> number = parseNumber(part);
        if (!number) return number.error();
        numbers.push_back(*number);
    }
    if (numbers.empty()) return Error{ErrorKind::argument, "", "no numbers are given"};
    return numbers;
}

} // namespace rollcall
