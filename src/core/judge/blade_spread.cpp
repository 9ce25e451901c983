// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/blade_spread.h"

#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace rollcall {

namespace {

// The prior moved by a scatter seen, of this many degrees of freedom, of which reading explains a part.
SpreadPrior movedBy(const SpreadPrior& prior, double variance, double reading_variance, double dof) {
    const double between = std::max(0.0, variance - reading_variance);
    const double all = prior.dof + dof;
    return {std::sqrt((prior.dof * prior.sd * prior.sd + dof * between) / all), all};
}

} // namespace

SpreadPrior shopSpread(const std::vector<TemperObservation>& history) {
    struct Run {
        std::map<std::string, double> means; // by blade, its last
        double variance = 0;                 // of reading, all added up
    };
    std::map<std::string, Run> runs;
    for (const TemperObservation& one : history) {
        Run& run = runs[one.heat + one.run];
        if (run.means.emplace(one.blade, one.hrc).second) run.variance += one.u * one.u;
    }
    // Added up before what reading adds is taken off: taken off each run by itself, what is left would be too much.
    double variance = 0;
    double reading = 0;
    double dof = 0;
    for (const auto& [name, run] : runs) {
        if (run.means.size() < 3) continue;
        std::vector<double> means;
        for (const auto& [blade, mean] : run.means) means.push_back(mean);
        const double sd = sampleSd(means).value_or(0.0);
        const double n = static_cast<double>(means.size());
        variance += (n - 1) * sd * sd;
        reading += (n - 1) * run.variance / n;
        dof += n - 1;
    }
    SpreadPrior prior;
    if (dof > 0) prior = movedBy(prior, variance / dof, reading / dof, dof);
    constexpr double most = 20;
    prior.dof = std::min(prior.dof, most);
    return prior;
}

void addPriors(const Batch& batch, std::vector<Case>& cases) {
    if (batch.rule != DecisionRule::chance) return;
    const SpreadPrior shop = shopSpread(batch.temper_history);
    const auto counts = [&](const Case& c) {
        return c.measurement && c.input && !c.blade->fate && c.set.verified && !c.measurement->agreement.uneven &&
               batch.changedBy(*c.blade).empty();
    };
    std::map<std::pair<int, int>, std::vector<std::size_t>> families; // by round and temper
    for (std::size_t i = 0; i < cases.size(); ++i) {
        if (counts(cases[i])) families[{cases[i].blade->round, lastTemper(*cases[i].blade)}].push_back(i);
    }
    std::vector<std::pair<std::size_t, MeanPrior>> priors;
    for (const auto& [key, members] : families) {
        if (members.size() < 2) continue;
        for (const std::size_t i : members) {
            std::vector<double> means;
            double reading = 0;
            for (const std::size_t k : members) {
                if (k == i) continue;
                means.push_back(cases[k].measurement->corrected_mean);
                reading += std::pow(ownUncertainty(cases[k].measurement->budget), 2);
            }
            const double m = static_cast<double>(means.size());
            reading /= m;
            const double sd = sampleSd(means).value_or(0.0);
            const SpreadPrior spread = means.size() < 2 ? shop : movedBy(shop, sd * sd, reading, m - 1);
            const double u = std::sqrt(spread.sd * spread.sd * (1 + 1 / m) + reading / m);
            // A middle that one odd sibling does not move.
            priors.emplace_back(i, MeanPrior{means.size() > 2 ? medianOf(means) : meanOf(means), u});
        }
    }
    for (const auto& [i, prior] : priors) {
        cases[i].input->prior = prior;
        if (Result<Measurement> again = measure(*cases[i].input)) cases[i].measurement = std::move(again).value();
    }
}

} // namespace rollcall
