// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ledger/what_if.h"

#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace rollcall {

namespace {

// What the Temper gate makes of an outcome where nothing else speaks: what is hard can still be tempered.
State stateOf(Outcome outcome, const Window& window, double mean, bool finished) {
    if (outcome == Outcome::pass) return State::pass;
    const bool hard = sideOf(window, mean) == Side::hard;
    return outcome == Outcome::fail && (finished || !hard) ? State::fail : State::borderline;
}

State worse(State a, State b) {
    const auto rank = [](State state) { return state == State::fail ? 2 : state == State::borderline ? 1 : 0; };
    return rank(a) >= rank(b) ? a : b;
}

// HRC that a blade changes where its last temper is so much hotter; none where the curve does not reach.
std::optional<double> shiftOf(const LedgerBlade& blade, const TemperCurve& curve, double by) {
    if (blade.readings.empty() || blade.last_temper_c <= 0) return std::nullopt;
    const double parameter = blade.readings.back().parameter;
    // Of one temper worth all of them: hotter by so much at the last setting.
    const double kelvin = blade.last_temper_c + 273.15;
    const double then = parameter * (kelvin + by) / kelvin;
    if (!curve.reaches(parameter) || !curve.reaches(then)) return std::nullopt;
    return curve.at(then) - curve.at(parameter);
}

} // namespace

WhatIfAnswer whatIf(const Ledger& ledger, const Tables& tables, const WhatIf& wish) {
    WhatIfAnswer answer;
    std::map<std::string, std::optional<TemperCurve>> curves; // by grade
    const auto curveOf = [&](const std::string& name) -> const std::optional<TemperCurve>& {
        const auto at = curves.find(name);
        if (at != curves.end()) return at->second;
        std::optional<TemperCurve> curve;
        if (const Grade* grade = tables.grade(name); grade != nullptr) {
            if (auto known = TemperCurve::of(*grade)) curve = std::move(known).value();
        }
        return curves.emplace(name, std::move(curve)).first->second;
    };
    const std::vector<const LedgerBatch*>& batches = ledger.batches();
    for (auto batch = batches.rbegin(); batch != batches.rend(); ++batch) {
        for (const LedgerBlade& blade : (*batch)->blades) {
            const auto state = blade.at(Gate::temper);
            if (!state || !blade.tempered || (!wish.grade.empty() && blade.grade != wish.grade)) continue;
            const LedgerMeasurement& m = *blade.tempered;
            ++answer.blades;
            ++answer.was[static_cast<std::size_t>(*state)];
            double shift = 0;
            if (wish.temper_by != 0) {
                const std::optional<TemperCurve>& curve = curveOf(blade.grade);
                const auto moved = curve ? shiftOf(blade, *curve, wish.temper_by) : std::optional<double>();
                if (!moved) {
                    ++answer.beyond;
                    ++answer.would_be[static_cast<std::size_t>(*state)];
                    continue;
                }
                shift = *moved;
            }
            Window window = m.window;
            if (window.low) *window.low += wish.low_by;
            if (window.high) *window.high += wish.high_by;
            const double error = m.error + wish.error_by;
            const double mean = m.mean + m.error + shift - (m.uncorrected ? 0 : error);
            const double u = m.u + (m.uncorrected ? std::abs(error) : 0.0);
            const bool inverted = window.low && window.high && *window.low > *window.high;
            const DecisionRule rule = wish.rule.value_or(m.rule);
            const int enough = enoughReadings(rule, m.planned);
            const Outcome then = inverted ? Outcome::fail : decide(window, rule, m.allowance, mean, u, m.n, enough);
            State would = *state;
            // What the rule alone makes of it: where readings that do not fit hold the verdict too, it is another.
            const double mean0 = m.uncorrected ? m.mean + m.error : m.mean;
            const double u0 = m.u + (m.uncorrected ? std::abs(m.error) : 0.0);
            const State alone =
                stateOf(decide(m.window, m.rule, m.allowance, mean0, u0, m.n, enoughReadings(m.rule, m.planned)),
                        m.window, mean0, m.finished);
            const State asked = stateOf(then, window, mean, m.finished);
            if (*state == alone) {
                would = asked;
            } else if (*state == State::notYet || *state == State::excused) {
                ++answer.held;
            } else {
                ++answer.held;
                if (asked != alone) would = worse(*state, asked);
            }
            ++answer.would_be[static_cast<std::size_t>(would)];
            if (would != *state) answer.changed.push_back({*batch, &blade, *state, would});
        }
    }
    return answer;
}

std::optional<Window> lastWindow(const Ledger& ledger, const std::string& grade) {
    const std::vector<const LedgerBatch*>& batches = ledger.batches();
    for (auto batch = batches.rbegin(); batch != batches.rend(); ++batch) {
        for (const LedgerBlade& blade : (*batch)->blades) {
            if (blade.grade == grade && blade.tempered && (blade.tempered->window.low || blade.tempered->window.high))
                return blade.tempered->window;
        }
    }
    return std::nullopt;
}

Result<std::optional<YieldForecast>> forecastYield(const Ledger& ledger, const Grade& grade, const Window& window,
                                                   DecisionRule rule, const OvenSteps& oven) {
    const auto known = temperLedger(ledger, grade, oven);
    if (!known) return known.error();
    if (known->heats.empty()) return std::optional<YieldForecast>();
    // What three readings with a tester like the usual one leave open.
    const double open = rule == DecisionRule::guarded ? expectedUncertainty(TesterModel::bench(), 3, BlockBias{}) : 0.0;
    const double low = window.low ? *window.low + open : -1e9;
    const double high = window.high ? *window.high - open : 1e9;
    constexpr double normal = 1.959964;
    const auto chance = [&](double mean, double u) {
        if (low >= high) return 0.0;
        const double endless = std::numeric_limits<double>::infinity();
        return tProbability((high - mean) / u, endless) - tProbability((low - mean) / u, endless);
    };
    std::optional<YieldForecast> best;
    for (const TemperLedger::Step& step : known->curve) {
        const double u = (step.high - step.low) / 2 / normal;
        const double share = chance(step.shop, u);
        if (!best || share > best->share) best = YieldForecast{window, oven.nearest(step.celsius), share, {}, u};
    }
    if (!best) return best;
    // Blades of a batch share the heat's luck: how many of ten pass depends first on where the heat falls.
    const auto at = std::min_element(known->curve.begin(), known->curve.end(), [&](const auto& a, const auto& b) {
        return std::abs(a.celsius - best->celsius) < std::abs(b.celsius - best->celsius);
    });
    constexpr double bladeSd = 0.35; // M20
    const double heatSd = std::sqrt(std::max(0.0, best->u * best->u - bladeSd * bladeSd));
    best->share = chance(at->shop, best->u);
    std::vector<double> shares;
    constexpr int draws = 400;
    for (int i = 0; i < draws; ++i) {
        const double z = tQuantile((i + 0.5) / draws, std::numeric_limits<double>::infinity());
        shares.push_back(10 * chance(at->shop + z * heatSd, bladeSd));
    }
    std::sort(shares.begin(), shares.end());
    best->of_ten = {shares[draws / 20], shares[draws - draws / 20 - 1]};
    return best;
}

std::optional<YieldForecast> forecastFor(const Ledger& ledger, const Tables& tables, const WhatIf& wish,
                                         const OvenSteps& oven) {
    const Grade* grade = wish.grade.empty() ? nullptr : tables.grade(wish.grade);
    std::optional<Window> window = lastWindow(ledger, wish.grade);
    if (grade == nullptr || !window) return std::nullopt;
    if (window->low) *window->low += wish.low_by;
    if (window->high) *window->high += wish.high_by;
    const auto told = forecastYield(ledger, *grade, *window, wish.rule.value_or(DecisionRule::guarded), oven);
    return told ? *told : std::nullopt;
}

} // namespace rollcall
