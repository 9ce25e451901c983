// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ledger/temper_ledger.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace rollcall {

namespace {

constexpr std::size_t mostLearned = 3000;

std::vector<TemperObservation> observationsOf(const std::vector<const LedgerBatch*>& batches, const Grade& grade) {
    std::vector<TemperObservation> all;
    for (auto batch = batches.rbegin(); batch != batches.rend() && all.size() < mostLearned; ++batch) {
        if ((*batch)->grade != grade.name) continue;
        for (const LedgerBlade& blade : (*batch)->blades) {
            for (const LedgerReading& reading : blade.readings)
                all.push_back({(*batch)->id + "/" + std::to_string(blade.round), blade.id, reading.parameter,
                               reading.hrc, reading.u, 0});
        }
    }
    return all;
}

// The stretch of hardness that this shop asks of a grade, a little wider.
std::optional<Window> askedOf(const std::vector<const LedgerBatch*>& batches, const Grade& grade) {
    Window asked;
    for (const LedgerBatch* batch : batches) {
        for (const LedgerBlade& blade : batch->blades) {
            if (blade.grade != grade.name || !blade.tempered) continue;
            const Window& window = blade.tempered->window;
            if (window.low) asked.low = std::min(asked.low.value_or(*window.low), *window.low);
            if (window.high) asked.high = std::max(asked.high.value_or(*window.high), *window.high);
        }
    }
    if (!asked.low || !asked.high) return std::nullopt;
    constexpr double wider = 1;
    return Window{*asked.low - wider, *asked.high + wider};
}

// Half-width of the 95 % interval of a new heat's blade, in the middle over some parameters.
double widthOver(const TemperModel& model, const std::vector<double>& parameters) {
    double sum = 0;
    int n = 0;
    for (const double parameter : parameters) {
        const auto expected = model.expect(parameter);
        if (!expected) continue;
        sum += (expected->high - expected->low) / 2;
        ++n;
    }
    return n == 0 ? 0 : sum / n;
}

void finish(HeatMean& heat, double sum, double squares) {
    heat.hrc = sum / heat.blades;
    heat.u = std::sqrt(squares) / heat.blades;
}

} // namespace

std::vector<HeatMean> heatsTempered(const Ledger& ledger, const Grade& grade) {
    std::vector<HeatMean> heats;
    const Result<TemperCurve> curve = TemperCurve::of(grade);
    if (!curve) return heats;
    for (const LedgerBatch* batch : ledger.batches()) {
        if (batch->grade != grade.name) continue;
        struct Sum {
            HeatMean heat;
            double hrc = 0;
            double squares = 0;
        };
        std::map<std::tuple<int, int, long>, Sum> sums; // by round, temper and parameter
        for (const LedgerBlade& blade : batch->blades) {
            for (const LedgerReading& reading : blade.readings) {
                if (!curve->reaches(reading.parameter)) continue;
                Sum& sum = sums[{blade.round, reading.temper, std::lround(reading.parameter)}];
                HeatMean& heat = sum.heat;
                if (heat.blades++ == 0) {
                    heat.batch = batch;
                    heat.round = blade.round;
                    heat.temper = reading.temper;
                    heat.parameter = reading.parameter;
                    heat.low = heat.high = reading.hrc;
                    heat.blade = blade.id;
                    heat.last_c = reading.temper == blade.tempers ? blade.last_temper_c : 0;
                }
                heat.low = std::min(heat.low, reading.hrc);
                heat.high = std::max(heat.high, reading.hrc);
                sum.hrc += reading.hrc;
                sum.squares += reading.u * reading.u;
            }
        }
        for (auto& [key, sum] : sums) {
            finish(sum.heat, sum.hrc, sum.squares);
            sum.heat.from_library = sum.heat.hrc - curve->at(sum.heat.parameter);
            heats.push_back(std::move(sum.heat));
        }
    }
    return heats;
}

std::vector<HeatMean> heatsQuenched(const Ledger& ledger, const Grade& grade) {
    std::vector<HeatMean> heats;
    for (const LedgerBatch* batch : ledger.batches()) {
        if (batch->grade != grade.name) continue;
        std::map<int, HeatMean> rounds;
        for (const LedgerBlade& blade : batch->blades) {
            if (!blade.quenched_hrc || blade.grade != grade.name) continue;
            HeatMean& heat = rounds[blade.round];
            if (heat.blades++ == 0) {
                heat.batch = batch;
                heat.round = blade.round;
                heat.low = heat.high = *blade.quenched_hrc;
                heat.blade = blade.id;
            }
            heat.low = std::min(heat.low, *blade.quenched_hrc);
            heat.high = std::max(heat.high, *blade.quenched_hrc);
            heat.hrc += *blade.quenched_hrc;
        }
        for (auto& [round, heat] : rounds) {
            finish(heat, heat.hrc, 0);
            heat.from_library = heat.hrc - grade.as_quenched_typical;
            heats.push_back(std::move(heat));
        }
    }
    return heats;
}

Result<TemperLedger> temperLedger(const Ledger& ledger, const Grade& grade, const OvenSteps& oven) {
    const Result<TemperCurve> curve = TemperCurve::of(grade);
    if (!curve) return curve.error();
    const std::vector<const LedgerBatch*>& batches = ledger.batches();
    const std::vector<TemperObservation> observations = observationsOf(batches, grade);
    const Result<TemperModel> model = TemperModel::learn(grade, {}, observations);
    if (!model) return model.error();

    TemperLedger answer;
    answer.grade = grade.name;
    answer.heats = heatsTempered(ledger, grade);
    for (const HeatMean& heat : answer.heats) answer.blades += heat.blades;
    answer.scatter = model->scatter();
    answer.left_out = model->leftOut();
    constexpr int steps = 60;
    for (int i = 0; i <= steps; ++i) {
        const double parameter = curve->lowest() + (curve->highest() - curve->lowest()) * i / steps;
        const auto expected = model->expect(parameter);
        if (!expected) continue;
        answer.curve.push_back({parameter, temperatureFor(grade.hj_c, parameter, answer.hours), curve->at(parameter),
                                curve->spreadAt(parameter), expected->hrc, expected->low, expected->high});
    }
    if (answer.curve.empty()) return answer;
    const std::optional<Window> asked = askedOf(batches, grade);
    std::vector<double> matters;
    for (const TemperLedger::Step& step : answer.curve) {
        if (asked && (step.shop < *asked->low || step.shop > *asked->high)) continue;
        matters.push_back(step.parameter);
    }
    if (matters.empty()) {
        for (const TemperLedger::Step& step : answer.curve) matters.push_back(step.parameter);
    }
    answer.from_c = temperatureFor(grade.hj_c, matters.front(), answer.hours);
    answer.to_c = temperatureFor(grade.hj_c, matters.back(), answer.hours);
    if (observations.empty()) return answer;

    // What a heat would read does not change how well the curve is known after it: the expected value stands for it.
    const double before = widthOver(*model, matters);
    constexpr int candidates = 12;
    for (int i = 0; i <= candidates; ++i) {
        const double celsius = oven.nearest(answer.from_c + (answer.to_c - answer.from_c) * i / candidates);
        const auto parameter = temperParameter(grade.hj_c, {{celsius, answer.hours}});
        if (!parameter || !curve->reaches(*parameter)) continue;
        constexpr int blades = 3;
        constexpr double readingU = 0.25;
        const Result<TemperModel> then = model->afterHeat(*parameter, blades, readingU);
        if (!then) continue;
        const double after = widthOver(*then, matters);
        if (!answer.teaches || after < answer.teaches->after)
            answer.teaches = TemperLedger::Teaches{celsius, before, after};
    }
    return answer;
}

} // namespace rollcall
