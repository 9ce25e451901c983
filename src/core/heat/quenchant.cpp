// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/quenchant.h"

#include "core/base/number.h"

#include <algorithm>
#include <initializer_list>

namespace rollcall {

namespace {

bool says(const std::string& words, std::initializer_list<const char*> any) {
    return std::any_of(any.begin(), any.end(), [&](const char* word) { return words.find(word) != std::string::npos; });
}

} // namespace

bool isOil(const std::string& medium) {
    return says(lowered(medium), {"oil", "canola", "rapeseed"});
}

std::optional<double> flashPointOf(const std::string& medium) {
    const std::string words = lowered(medium);
    const std::size_t flash = words.find("flash");
    if (flash == std::string::npos) return std::nullopt;
    const std::size_t from = words.find_first_of("0123456789", flash);
    if (from == std::string::npos) return std::nullopt;
    const std::size_t after = words.find_first_not_of("0123456789.", from);
    const Result<double> number = parseNumber(words.substr(from, after - from));
    if (!number) return std::nullopt;
    // Only right behind the number: 'flash 180, for plain steels' is in Celsius.
    const std::size_t unit = words.find_first_not_of(" \xC2\xB0", after); // blanks and the sign for degrees
    const std::string behind =
        unit == std::string::npos ? std::string() : words.substr(unit, words.find_first_of(" ,;)", unit) - unit);
    const bool fahrenheit = behind == "f" || behind == "fahrenheit";
    const double celsius = fahrenheit ? (*number - 32) / 1.8 : *number;
    constexpr double least = 60;
    constexpr double most = 400;
    return celsius >= least && celsius <= most ? std::optional(celsius) : std::nullopt;
}

MediumFit fitOf(const std::string& medium, const Grade& grade, double thickness_mm) {
    const std::string words = lowered(medium);
    const std::string& asked = grade.quench_class;
    const bool airs = says(words, {"air", "plate", "gas", "vacuum"});
    const bool waters = says(words, {"water", "brine"});
    const bool oils = isOil(medium);
    const bool salts = says(words, {"salt", "martemper", "marquench"});
    if (!airs && !waters && !oils && !salts) return MediumFit::unknown;
    if (quenchesTooSlowly(medium, grade)) {
        constexpr double thin = 2; // mm: there medium oil is as fast as fast oil is at 4
        return oils && thickness_mm > 0 && thickness_mm <= thin ? MediumFit::fits : MediumFit::slow;
    }
    if (waters && !says(asked, {"water", "brine"})) return MediumFit::harsh;
    const bool onlyAir = says(asked, {"air"}) && !says(asked, {"oil"});
    if (oils && onlyAir && !grade.isHighSpeed() && !grade.isStainless()) return MediumFit::harsh;
    return MediumFit::fits;
}

bool quenchesTooSlowly(const std::string& medium, const Grade& grade) {
    const std::string words = lowered(medium);
    const auto has = [&](const char* word) { return words.find(word) != std::string::npos; };
    const auto asks = [&](const char* word) { return grade.quench_class.find(word) != std::string::npos; };
    if (has("plate") || has("air")) return !grade.isAirHardening() && !asks("plate");
    const bool mediumOilAlone = has("medium oil") && !has("fast") && !has("water") && !has("brine");
    return mediumOilAlone && (asks("fast") || asks("water"));
}

} // namespace rollcall
