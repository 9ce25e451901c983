// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/names.h"
#include "core/heat/trace.h"

#include <optional>
#include <vector>

namespace rollcall {

/// The surface through which a blade takes up heat (M23).
enum class HeatSurface {
    scaled,
    foil,  ///< wrapped, or bright in vacuum or gas
    coated ///< anti-scale coating: it radiates like scale, and a fifth of a millimetre of it holds back nothing
};
template<>
inline constexpr std::array namesOf<HeatSurface>{"scaled", "foil", "coated"};

/// M22. What a stretch of a trace says about a threshold.
struct SoakAnswer {
    double minutes_above = 0;
    double longest_span_minutes = 0;
    double peak_c = 0;
};

/// M22. Time above a threshold, by straight lines between the samples, from one moment of the trace to another.
/// Errors (range): an empty trace, an empty stretch, a stretch outside the trace.
Result<SoakAnswer> soakAbove(const Trace& trace, double threshold_c, double from_s, double to_s);

/// M22. Minutes at the reference temperature that are worth the stretch: the integral of exp(-Q/R (1/T - 1/Tref)),
/// counted from Ac1 up, Q 400 kJ/mol (850 °C counts 7.36 times 800 °C). Grain growth as a rule of thumb: an estimate.
/// Errors: as soakAbove.
Result<double> equivalentMinutes(const Trace& trace, double reference_c, double ac1_c, double from_s, double to_s);

/// M23. The steel's own temperature in an oven that runs as the trace says, in seconds from the moment it goes in; an
/// estimate:
/// rho c (s/2) dT/dt = h (To - T) + eps sigma (To^4 - T^4) with rho 7850 kg/m3, c 700 J/kgK, both faces; h 15 W/m2K and
/// eps 0.8, in foil or bright h 10 and eps 0.3. E24: over the 30 °C from Ac1 up it takes 36 kJ/kg more, the heat of
/// transformation beyond what the mean c holds, so that 2, 3 and 5 mm come within 5 °C of an oven at 800 °C in 2.8, 4.2
/// and 7.0 min. Errors (range): thickness outside 0.1 to 50 mm, as soakAbove.
Result<Trace> steelInOven(const Trace& oven, double thickness_mm, HeatSurface surface, double from_s, double to_s,
                          double ac1_c = 727, double start_c = 20);

/// M23, E23. Temperature of the edge after so many seconds in air of 20 °C: a wedge that grows from the edge's
/// thickness to the body's over 15 mm, with conduction from the body (27 W/mK, austenite); 0.7 to 3 mm from 815 °C
/// after 4 s: 733 °C. No heat of transformation: the austenite is undercooled. An estimate. Errors (range): a thickness
/// outside 0.1 to 50 mm, a body thinner than the edge, seconds outside 0 to 600, a start outside 20 to 1400 °C.
Result<double> afterTransfer(double start_c, double edge_mm, double body_mm, double seconds);

/// When a blade went in and came out, in seconds of the trace.
struct SoakMarks {
    double in_s = 0;
    double out_s = 0;
};

/// M22. The limits a soak is judged by.
struct SoakPlan {
    double set_c = 800; ///< the recipe's set point, and reference of the equivalent soak
    double near_c = 10; ///< soaking counts from this much below the set point
    double ac1_c = 727; ///< the equivalent soak counts from here
    std::optional<double> min_minutes;
    std::optional<double> max_minutes;
    HeatSurface surface = HeatSurface::scaled;
};

/// M22. One blade's soak.
struct BladeSoak {
    double oven_minutes = 0;  ///< oven above the threshold while it was in
    double steel_minutes = 0; ///< steel above it, by the estimate
    double minutes = 0;       ///< what is judged: the steel's, or the oven's when the thickness is not known
    double peak_c = 0;        ///< of the oven
    double equivalent_minutes = 0;
    double leaving_c = 0;   ///< estimated steel as it comes out; the oven when the thickness is not known
    double gap_minutes = 0; ///< while it was in, that the trace does not cover; not in minutes (E46)
    double gap_from_s = 0;  ///< of the first of them, on the trace's clock
    bool by_steel = false;
    bool under = false;
    bool over = false;
    bool apart = false; ///< more than a factor 1.5 from the batch's median equivalent soak
};

/// M22. The soak of each blade of one heat; none for a blade without both marks. Thickness in mm, none when not known.
/// Blades that went in together and are alike share one estimate. Errors (range): marks outside the trace or swapped.
Result<std::vector<std::optional<BladeSoak>>> soaks(const Trace& trace, const SoakPlan& plan,
                                                    const std::vector<std::optional<SoakMarks>>& marks,
                                                    const std::vector<std::optional<double>>& thickness_mm);

} // namespace rollcall
