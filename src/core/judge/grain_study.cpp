// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/grain_study.h"

#include "core/judge/gates.h"

#include <algorithm>

namespace rollcall {

namespace {

std::optional<double> placeOf(const HeatAnswer& heat, const PieceFacts& facts, GrainFactor factor) {
    switch (factor) {
    case GrainFactor::soak:
        return facts.equivalent_min;
    case GrainFactor::setPoint:
        return heat.run != nullptr ? std::optional(heat.run->set_c) : std::nullopt;
    case GrainFactor::changed:
        return facts.changed.empty() ? 0.0 : 1.0;
    }
    return std::nullopt;
}

// Every change that comes with a factor is part of it: another set point is another heat.
bool belongs(Trait trait, GrainFactor factor) {
    switch (factor) {
    case GrainFactor::soak:
        return trait == Trait::soak;
    case GrainFactor::setPoint:
        return trait == Trait::heat || trait == Trait::soak;
    case GrainFactor::changed:
        return trait == Trait::changed;
    }
    return false;
}

// What is done after the quench, and an edge, have no bearing on the grain.
bool mattersForGrain(Trait trait) {
    switch (trait) {
    case Trait::grade:
    case Trait::lot:
    case Trait::changed:
    case Trait::recipe:
    case Trait::heat:
    case Trait::soak:
    case Trait::thickness:
        return true;
    default:
        return false;
    }
}

} // namespace

GrainStudy grainStudy(const Batch& batch, const Tables& tables, GrainFactor factor) {
    GrainStudy study;
    const HeatBook heats(batch, tables);
    std::vector<const HeatAnswer*> answers;
    for (std::size_t i = 0; i < batch.blades.size(); ++i) answers.push_back(&heats.of(i));
    const ProofBook book(batch, answers, std::vector<std::optional<double>>(batch.blades.size()));
    std::vector<std::pair<std::size_t, double>> whole;
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const std::optional<double> x = placeOf(heats.of(i), book.factsOf(i), factor);
        const FractureReading reading = readFractures(fracturesOf(batch.blades[i]));
        if (standsTo(reading, grainLeastOf(batch)) == GrainStands::open) {
            if (x && !batch.blades[i].fate) whole.emplace_back(i, *x);
        } else if (x) {
            study.coupons.push_back({i, *x, reading});
        } else {
            study.left_out.push_back(i);
        }
    }
    std::stable_sort(study.coupons.begin(), study.coupons.end(),
                     [](const GrainCoupon& a, const GrainCoupon& b) { return a.x < b.x; });
    std::vector<PieceFacts> facts;
    std::vector<double> x;
    std::vector<double> g;
    for (const GrainCoupon& coupon : study.coupons) {
        facts.push_back(book.factsOf(coupon.blade));
        x.push_back(coupon.x);
        g.push_back(coupon.reading.g);
    }
    for (const Difference& difference : differencesBeside(facts, std::nullopt)) {
        if (mattersForGrain(difference.trait) && !belongs(difference.trait, factor)) study.beside.push_back(difference);
    }
    if (study.coupons.size() < fewestCoupons) return study;
    study.trend = trendOf(x, g);
    if (!study.trend) return study;
    study.middle_x = medianOf(x);
    study.middle_g = medianOf(g);
    study.says = study.trend->p >= 0.05   ? GrainStudy::Says::noTrend
                 : study.trend->slope < 0 ? GrainStudy::Says::coarser
                                          : GrainStudy::Says::finer;
    if (study.says == GrainStudy::Says::noTrend) return study;
    for (const auto& [blade, at] : whole) {
        if (at < x.front() || at > x.back()) continue;
        study.expected.push_back({blade, at, study.middle_g + study.trend->slope * (at - study.middle_x)});
    }
    return study;
}

} // namespace rollcall
