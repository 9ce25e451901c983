// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/doubts.h"

#include <algorithm>

namespace rollcall {

double fahrenheitToCelsius(double fahrenheit) {
    return (fahrenheit - 32) / 1.8;
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
    constexpr double hours = 2;
    const auto outside = [&](double celsius) {
        const Result<double> parameter = temperParameter(grade->hj_c, {{celsius, hours}});
        if (!parameter) return 100.0;
        const double hrc = curve->at(std::clamp(*parameter, curve->lowest(), curve->highest()));
        return std::max({0.0, window.low ? *window.low - hrc : 0.0, window.high ? hrc - *window.high : 0.0});
    };
    constexpr double nearer = 3; // HRC
    return outside(temperature_c) >= outside(other_c) + nearer;
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
