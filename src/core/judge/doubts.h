// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/record.h"

#include <optional>

/// E44. Numbers that would make sense in another unit: asked about once, and their row is doubted until then.
namespace rollcall {

double fahrenheitToCelsius(double fahrenheit);

/// Whether a temper that is logged in degrees Celsius makes more sense as Fahrenheit: 400 for a carbon steel. By the
/// grade's library curve after 2 h: as Fahrenheit it lies nearer to the window by 3 HRC or more; without a window over
/// 300 °C in a grade without secondary hardening. Never under 250 °C, nor where Fahrenheit would be under 100 °C.
bool perhapsFahrenheit(double temperature_c, const Grade* grade, const Window& window);

/// Whether a temper is doubted: it may be meant in Fahrenheit, and nobody has said that it is meant as it stands.
bool isDoubted(const Temper& temper, const Grade* grade, const Window& window);

/// Whether a temper is asked about once: it lies 35 °C or more from the one that was advised, and the grade's library
/// expects it to end half a point outside the window or more after 2 h. Advice on a grade that the shop has not read
/// yet is cooler than the library's own.
bool farFromAdvised(double temperature_c, double advised_c, const Grade* grade, const Window& window);

/// A thickness of stock that makes more sense in inches, in mm: 0.094 is 2.4 mm. None where it does not.
std::optional<double> perhapsInches(double thickness_mm);

} // namespace rollcall
