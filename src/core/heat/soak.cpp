// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/soak.h"

#include "core/base/number.h"
#include "core/heat/kelvin.h"
#include "core/measure/statistics.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>
#include <map>
#include <tuple>

namespace rollcall {

namespace {

constexpr double activation = 400000.0 / 8.314462618; // Q/R, K
constexpr double density = 7850;                      // kg/m3
constexpr double heatCapacity = 700;                  // J/kgK
constexpr double stefanBoltzmann = 5.670374e-8;       // W/m2K4
constexpr double apartFactor = 1.5;                   // M22
constexpr double roomC = 20;

Result<Done> checkStretch(const Trace& trace, double from, double to) {
    if (trace.empty()) return Error{ErrorKind::range, "", "there is no trace"};
    if (!(to > from)) return Error{ErrorKind::range, "", "the end of the stretch lies before its beginning"};
    if (!(from >= trace.start() - limitTolerance && to <= trace.end() + limitTolerance))
        return Error{ErrorKind::range, "",
                     fmt::format("the trace runs from {:.0f} to {:.0f} s; {:.0f} to {:.0f} s lies outside",
                                 trace.start(), trace.end(), from, to)};
    return Done{};
}

struct Film {
    double h = 15;
    double emissivity = 0.8;
};

Film filmOf(HeatSurface surface) {
    return surface == HeatSurface::foil ? Film{10, 0.3} : Film{15, 0.8};
}

// Heat that a face takes up from surroundings, W/m2; both in K.
double fluxInto(double t, double around, const Film& film) {
    const double t2 = t * t;
    const double a2 = around * around;
    return film.h * (around - t) + film.emissivity * stefanBoltzmann * (a2 * a2 - t2 * t2);
}

// What a sheet is made of, as far as it warms up; ac1 in K.
struct Sheet {
    double thickness_mm = 3;
    double ac1 = 1000;

    // Rate of change in K/s at t in surroundings at around, both in K.
    double rate(double t, double around, const Film& film) const {
        constexpr double transformation = 36000; // J/kg beyond the mean heat capacity
        constexpr double over = 30;              // K
        const double capacity = heatCapacity + (t >= ac1 && t < ac1 + over ? transformation / over : 0.0);
        return fluxInto(t, around, film) / (density * capacity * thickness_mm / 2000.0);
    }
};

Result<Done> checkThickness(double thickness_mm) {
    if (!(thickness_mm >= 0.1 && thickness_mm <= 50))
        return Error{ErrorKind::range, "",
                     fmt::format("the thickness must lie between 0.1 and 50 mm; this is {:g} mm", thickness_mm)};
    return Done{};
}

// One step of Runge and Kutta; around(x) gives the surroundings at a share x of the step.
template<class Around>
double stepped(double t, double dt, const Around& around, const Film& film, const Sheet& sheet) {
    const double k1 = sheet.rate(t, around(0.0), film);
    const double k2 = sheet.rate(t + dt / 2 * k1, around(0.5), film);
    const double k3 = sheet.rate(t + dt / 2 * k2, around(0.5), film);
    const double k4 = sheet.rate(t + dt * k3, around(1.0), film);
    return t + dt / 6 * (k1 + 2 * k2 + 2 * k3 + k4);
}

// A twelfth of the sheet's own time constant near 800 °C: a step does not jump over the transformation.
double longestStep(double thickness_mm) {
    return std::clamp(density * heatCapacity * thickness_mm / 2000.0 / 240.0 / 12.0, 0.2, 10.0);
}

} // namespace

Result<SoakAnswer> soakAbove(const Trace& trace, double threshold_c, double from_s, double to_s) {
    if (const auto valid = checkStretch(trace, from_s, to_s); !valid) return valid.error();
    const std::vector<TraceSample> part = trace.between(from_s, to_s);
    SoakAnswer answer;
    answer.peak_c = part.front().c;
    double span = 0;
    for (std::size_t i = 1; i < part.size(); ++i) {
        const TraceSample& a = part[i - 1];
        const TraceSample& b = part[i];
        answer.peak_c = std::max(answer.peak_c, b.c);
        const double dt = b.s - a.s;
        const bool aAbove = a.c >= threshold_c;
        const bool bAbove = b.c >= threshold_c;
        double above = 0;
        if (aAbove && bAbove) {
            above = dt;
            span += dt;
        } else if (aAbove != bAbove) {
            const double crossing = dt * (threshold_c - a.c) / (b.c - a.c);
            above = aAbove ? crossing : dt - crossing;
            if (aAbove) span += above;
        }
        answer.minutes_above += above;
        answer.longest_span_minutes = std::max(answer.longest_span_minutes, span);
        if (!bAbove)
            span = 0;
        else if (!aAbove)
            span = above;
        answer.longest_span_minutes = std::max(answer.longest_span_minutes, span);
    }
    answer.minutes_above /= 60.0;
    answer.longest_span_minutes /= 60.0;
    return answer;
}

Result<double> equivalentMinutes(const Trace& trace, double reference_c, double ac1_c, double from_s, double to_s) {
    if (const auto valid = checkStretch(trace, from_s, to_s); !valid) return valid.error();
    if (!(reference_c > 0 && reference_c < 1500))
        return Error{ErrorKind::range, "", "the reference temperature must lie between 0 and 1500 °C"};
    const double inverse = 1.0 / (reference_c + kelvin);
    const auto weight = [&](double c) { return std::exp(-activation * (1.0 / (c + kelvin) - inverse)); };
    const std::vector<TraceSample> part = trace.between(from_s, to_s);
    double sum = 0;
    double before = weight(part.front().c);
    for (std::size_t i = 1; i < part.size(); ++i) {
        const TraceSample a = part[i - 1];
        const TraceSample b = part[i];
        const double after = weight(b.c);
        const double dt = b.s - a.s;
        if (dt > 0 && (a.c > ac1_c || b.c > ac1_c)) {
            if (a.c >= ac1_c && b.c >= ac1_c && std::abs(b.c - a.c) <= 2.0) {
                sum += dt * (before + after) / 2.0;
            } else {
                // Clipped at Ac1, then in pieces of at most two degrees by Simpson's rule.
                double lowShare = 0;
                double highShare = 1;
                if (a.c < ac1_c) lowShare = (ac1_c - a.c) / (b.c - a.c);
                if (b.c < ac1_c) highShare = (ac1_c - a.c) / (b.c - a.c);
                const int pieces =
                    std::max(1, static_cast<int>(std::ceil(std::abs(b.c - a.c) * (highShare - lowShare) / 2.0)));
                const double width = (highShare - lowShare) / pieces;
                const auto at = [&](double share) { return weight(a.c + (b.c - a.c) * share); };
                for (int k = 0; k < pieces; ++k) {
                    const double x = lowShare + k * width;
                    sum += dt * width * (at(x) + 4 * at(x + width / 2) + at(x + width)) / 6.0;
                }
            }
        }
        before = after;
    }
    return sum / 60.0;
}

Result<Trace> steelInOven(const Trace& oven, double thickness_mm, HeatSurface surface, double from_s, double to_s,
                          double ac1_c, double start_c) {
    if (const auto valid = checkStretch(oven, from_s, to_s); !valid) return valid.error();
    if (const auto valid = checkThickness(thickness_mm); !valid) return valid.error();
    const Film film = filmOf(surface);
    const Sheet sheet{thickness_mm, ac1_c + kelvin};
    const double longest = longestStep(thickness_mm);
    const std::vector<TraceSample> part = oven.between(from_s, to_s);
    std::vector<TraceSample> steel;
    steel.reserve(part.size());
    steel.push_back({from_s, start_c});
    double t = start_c + kelvin;
    for (std::size_t i = 1; i < part.size(); ++i) {
        const double dt = part[i].s - part[i - 1].s;
        if (dt <= 0) continue;
        const int steps = std::max(1, static_cast<int>(std::ceil(dt / longest)));
        const double a = part[i - 1].c + kelvin;
        const double slope = (part[i].c - part[i - 1].c) / steps;
        for (int k = 0; k < steps; ++k) {
            const auto around = [&](double x) { return a + slope * (k + x); };
            t = stepped(t, dt / steps, around, film, sheet);
            steel.push_back({part[i - 1].s + dt * (k + 1) / steps, t - kelvin});
        }
    }
    for (TraceSample& sample : steel) sample.s -= from_s;
    return Trace::of(std::move(steel));
}

Result<double> afterTransfer(double start_c, double edge_mm, double body_mm, double seconds) {
    for (const double thickness : {edge_mm, body_mm}) {
        if (const auto valid = checkThickness(thickness); !valid) return valid.error();
    }
    if (body_mm < edge_mm) return Error{ErrorKind::range, "", "the body is thinner than the edge"};
    if (!(seconds >= 0 && seconds <= 600)) return Error{ErrorKind::range, "", "a transfer takes 0 to 600 seconds"};
    if (!(start_c >= roomC && start_c <= 1400))
        return Error{ErrorKind::range, "", "the start must lie between 20 and 1400 °C"};
    constexpr double conductivity = 27; // W/mK
    constexpr double bevel = 0.015;     // m
    constexpr double cell = 0.00075;    // m
    constexpr int cells = 60;           // three bevels long: beyond, the body cools as a sheet
    constexpr double longest = 0.04;    // s, stable: half of cell² / (2 · diffusivity)
    const Film film = filmOf(HeatSurface::scaled);
    const auto half = [&](double x) { return (edge_mm + (body_mm - edge_mm) * std::min(1.0, x / bevel)) / 2000.0; };
    std::array<double, cells> thick{};
    std::array<double, cells + 1> face{};
    for (int i = 0; i < cells; ++i) thick[i] = half((i + 0.5) * cell);
    for (int i = 1; i < cells; ++i) face[i] = half(i * cell); // none at the edge, none behind the last cell
    std::array<double, cells> t{};
    t.fill(start_c + kelvin);
    const int steps = std::max(1, static_cast<int>(std::ceil(seconds / longest)));
    const double dt = seconds / steps;
    std::array<double, cells> next{};
    for (int k = 0; k < steps; ++k) {
        for (int i = 0; i < cells; ++i) {
            double heat = fluxInto(t[i], roomC + kelvin, film);
            if (i > 0) heat += conductivity * face[i] * (t[i - 1] - t[i]) / (cell * cell);
            if (i + 1 < cells) heat += conductivity * face[i + 1] * (t[i + 1] - t[i]) / (cell * cell);
            next[i] = t[i] + dt * heat / (density * heatCapacity * thick[i]);
        }
        t = next;
    }
    return t[0] - kelvin;
}

Result<std::vector<std::optional<BladeSoak>>> soaks(const Trace& trace, const SoakPlan& plan,
                                                    const std::vector<std::optional<SoakMarks>>& marks,
                                                    const std::vector<std::optional<double>>& thickness_mm) {
    const double threshold = plan.set_c - plan.near_c;
    // Blades that went in together and are equally thick run along one curve, as far as the last of them.
    std::map<std::pair<double, double>, double> lastOut;
    for (std::size_t i = 0; i < marks.size(); ++i) {
        if (!marks[i] || !thickness_mm[i]) continue;
        double& last = lastOut[{marks[i]->in_s, *thickness_mm[i]}];
        last = std::max(last, marks[i]->out_s);
    }
    std::map<std::pair<double, double>, Trace> steel;
    for (const auto& [key, last] : lastOut) {
        Result<Trace> curve = steelInOven(trace, key.second, plan.surface, key.first, last, plan.ac1_c);
        if (!curve) return curve.error();
        steel[key] = std::move(curve).value();
    }
    std::vector<std::optional<BladeSoak>> answers(marks.size());
    std::vector<double> equivalents;
    const std::vector<std::pair<double, double>> gaps = trace.gaps();
    for (std::size_t i = 0; i < marks.size(); ++i) {
        if (!marks[i]) continue;
        const SoakMarks& mark = *marks[i];
        BladeSoak soak;
        const auto oven = soakAbove(trace, threshold, mark.in_s, mark.out_s);
        if (!oven) return oven.error();
        soak.oven_minutes = oven->minutes_above;
        soak.peak_c = oven->peak_c;
        soak.minutes = soak.oven_minutes;
        soak.leaving_c = trace.at(mark.out_s);
        const auto minutes = [&](const Trace& through, double from, double to) {
            return equivalentMinutes(through, plan.set_c, plan.ac1_c, from, to);
        };
        Result<double> equivalent = 0.0;
        if (thickness_mm[i]) {
            const Trace& own = steel.at({mark.in_s, *thickness_mm[i]});
            const double stay = std::min(own.end(), mark.out_s - mark.in_s);
            const auto above = soakAbove(own, threshold, 0, stay);
            if (!above) return above.error();
            soak.steel_minutes = above->minutes_above;
            soak.minutes = soak.steel_minutes;
            soak.by_steel = true;
            soak.leaving_c = own.at(stay);
            equivalent = minutes(own, 0, stay);
        } else {
            equivalent = minutes(trace, mark.in_s, mark.out_s);
        }
        if (!equivalent) return equivalent.error();
        soak.equivalent_minutes = *equivalent;
        // E46. What nobody recorded is no soak, however straight the line across it.
        for (const auto& [gapFrom, gapTo] : gaps) {
            const double from = std::max(gapFrom, mark.in_s);
            const double to = std::min(gapTo, mark.out_s);
            if (to <= from) continue;
            if (soak.gap_minutes <= 0) soak.gap_from_s = from;
            soak.gap_minutes += (to - from) / 60;
            const bool bySteel = soak.by_steel;
            const Trace& through = bySteel ? steel.at({mark.in_s, *thickness_mm[i]}) : trace;
            const double shift = bySteel ? mark.in_s : 0;
            const double end = std::min(through.end(), to - shift);
            const auto above = end > from - shift ? soakAbove(through, threshold, from - shift, end)
                                                  : Result<SoakAnswer>(SoakAnswer{});
            if (above) soak.minutes = std::max(0.0, soak.minutes - above->minutes_above);
        }
        equivalents.push_back(soak.equivalent_minutes);
        soak.under = plan.min_minutes && !atLeast(soak.minutes, *plan.min_minutes);
        soak.over = plan.max_minutes && !atMost(soak.minutes, *plan.max_minutes);
        answers[i] = soak;
    }
    if (equivalents.size() < 2) return answers;
    const double median = medianOf(equivalents);
    for (std::optional<BladeSoak>& soak : answers) {
        if (!soak) continue;
        soak->apart = !atMost(soak->equivalent_minutes, apartFactor * median) ||
                      !atLeast(apartFactor * soak->equivalent_minutes, median);
    }
    return answers;
}

} // namespace rollcall
