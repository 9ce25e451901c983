// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <optional>
#include <string>
#include <vector>

namespace rollcall {

/// How firmly a table value is known; travels with every answer that rests on it.
enum class Confidence { high, medium, low };

/// A stretch of temperatures in degrees Celsius, or of another named unit; both ends or none.
struct Range {
    std::optional<double> low;
    std::optional<double> high;

    bool known() const { return low && high; }
    bool holds(double x) const { return known() && x >= *low && x <= *high; }
};

/// What a grade's standard allows of one element, per cent of mass; one end may be open.
struct ElementLimits {
    std::string element; ///< chemical symbol
    std::optional<double> low;
    std::optional<double> high;
};

/// One point of a grade's temper curve (table temper_curves).
struct TemperPoint {
    double temperature_c = 0;
    double hours = 0; ///< of one temper
    int tempers = 1;
    double hrc = 0;
    double plus_minus = 0;            ///< honest spread of the row, HRC
    double austenitise_assumed_c = 0; ///< soak before it
    bool cold_assumed = false;        ///< with cold treatment
    Confidence confidence = Confidence::high;
    int line = 0;
};

/// A temper colour on bright steel (table temper_colors).
struct OxideColour {
    bool stainless = false;
    std::string name;                 ///< "straw"
    std::string described;            ///< "straw (golden yellow)"
    double minutes_c = 0;             ///< temperature that gives it in minutes, the long-printed chart
    std::optional<double> one_hour_c; ///< after one hour, an estimate; none for stainless
    unsigned srgb = 0;                ///< 0xRRGGBB, for viewing only
    Confidence confidence = Confidence::low;
};

/// What is known of a grade (tables grades, heat_treat, temper_curves). Temperatures in degrees Celsius.
struct Grade {
    std::string name; ///< AISI/SAE, EN or DIN designation
    std::string family;
    std::vector<std::string> aliases; ///< other designations, some of them only near
    bool own = false;                 ///< of the shop, not of the shipped library
    bool for_blades = true;           ///< false: known for what it is, and never offered (table other_steels)
    std::vector<ElementLimits> composition;
    std::optional<double> ac1_c;            ///< lower critical point on heating
    std::optional<double> upper_critical_c; ///< Ac3 or Accm
    std::string upper_critical_kind;
    std::optional<double> martensite_start_c;
    Range normalise_c;
    Range anneal_c;
    std::string anneal_kind; ///< full, subcritical, spheroidize
    Range austenitise_c;
    double austenitise_typical_c = 0;
    Range soak_minutes; ///< at temperature
    std::string quench_class;
    double as_quenched_min = 0; ///< HRC, without cold treatment
    double as_quenched_typical = 0;
    double as_quenched_max = 0;
    std::string cold_treatment;  ///< no, optional, usual
    Range embrittle_c;           ///< tempers to avoid; unknown when blank
    Range secondary_c;           ///< secondary hardening
    double hj_c = 20;            ///< constant C of the Hollomon-Jaffe parameter, hours
    double cobalt_max = 0;       ///< per cent
    double chromium_percent = 0; ///< middle of its range
    double alloy_percent = 0;    ///< middle of the ranges of Cr, Mo, W, V and Co added up
    bool may_normalise = false;
    std::vector<TemperPoint> temper_curve; ///< by rising temperature, at least four
    std::string note;
    std::string source; ///< standard or practice that the composition restates
    Confidence confidence = Confidence::high;

    bool isStainless() const { return family.find("stainless") != std::string::npos; }
    bool isHighSpeed() const { return family == "high speed"; }
    bool isAirHardening() const { return quench_class.find("air") != std::string::npos; }
    /// Hardens in air, gas, salt or between plates: it may take a minute on the way.
    bool hardensSlowly() const {
        return isAirHardening() || isStainless() || isHighSpeed() || quench_class.find("plates") != std::string::npos;
    }
    /// Full annealing is needed before hardening again: air-hardening, stainless, high speed, over 5 % alloy.
    bool needsFullAnneal() const { return isStainless() || isHighSpeed() || isAirHardening() || alloy_percent > 5.0; }
    /// E23. Least temperature on entering the quench, °C: undercooled austenite waits some seconds below Ac1, longer in
    /// the grades that medium oil hardens; Ac1 less 40, or less 80. None where Ac1 is not known, and for grades that
    /// harden slowly, which have a minute.
    std::optional<double> leastEntering_c() const;
    /// Smallest number of tempers after a quench; hottest is the hottest temper in degrees Celsius.
    /// Judgement, temper gate: 3 for cobalt high speed steels, 2 for air-hardening, stainless, high speed and
    /// any temper of 450 degrees or more, else 1.
    int minimumTempers(std::optional<double> hottest_c) const;
};

} // namespace rollcall
