// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/doubts.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

double fahrenheitToCelsius(double fahrenheit) {
    return (fahrenheit - 32) / 1.8;
}

namespace {

// How far outside the window the library expects a grade after 2 h, HRC; none where it says nothing.
std::optional<double> expectedOutside(double celsius, const Grade& grade, const Window& window) {
    constexpr double hours = 2;
    const Result<TemperCurve> curve = TemperCurve::of(grade);
    const Result<double> parameter = temperParameter(grade.hj_c, {{celsius, hours}});
    if (!curve || !parameter) return std::nullopt;
    const double hrc = curve->at(std::clamp(*parameter, curve->lowest(), curve->highest()));
    return std::max({0.0, window.low ? *window.low - hrc : 0.0, window.high ? hrc - *window.high : 0.0});
}

} // namespace

bool farFromAdvised(double temperature_c, double advised_c, const Grade* grade, const Window& window) {
    constexpr double far = 35;
    constexpr double plainly = 0.5; // HRC
    if (std::abs(temperature_c - advised_c) < far) return false;
    return grade == nullptr || expectedOutside(temperature_c, *grade, window).value_or(plainly) >= plainly;
}

bool perhapsFahrenheit(double temperature_c, const Grade* grade, const Window& window) {
    constexpr double least = 250;
    constexpr double coolest = 100;
    const double other_c = fahrenheitToCelsius(temperature_c);
    if (grade == nullptr || temperature_c < least || other_c < coolest) return false;
    const Result<TemperCurve> curve = TemperCurve::of(*grade);
    if (!curve) return false;
    if (!window.low && !window.high) {
        constexpr double unusual = 300;
        return !curve->hump() && temperature_c > unusual;
    }
    constexpr double nearer = 3; // HRC
    const auto typed = expectedOutside(temperature_c, *grade, window);
    const auto other = expectedOutside(other_c, *grade, window);
    return other && typed.value_or(100) >= *other + nearer;
}

bool isDoubted(const Temper& temper, const Grade* grade, const Window& window) {
    return temper.temperature_c && !temper.meant && perhapsFahrenheit(*temper.temperature_c, grade, window);
}

std::optional<double> perhapsInches(double thickness_mm) {
    constexpr double thinnest = 0.5; // mm, of stock that is hardened
    constexpr double inch = 25.4;
    if (!(thickness_mm > 0 && thickness_mm < thinnest) || thickness_mm * inch < thinnest) return std::nullopt;
    return thickness_mm * inch;
}

} // namespace rollcall
