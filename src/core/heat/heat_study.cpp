// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/heat_study.h"

#include <algorithm>

namespace rollcall {

Result<HeatStudy> compareHeats(const std::vector<StudyHeat>& heats) {
    if (heats.size() < 2) return Error{ErrorKind::range, "", "two heats are needed to compare"};
    HeatStudy study;
    const auto lowest = std::min_element(heats.begin(), heats.end(),
                                         [](const StudyHeat& a, const StudyHeat& b) { return a.set_c < b.set_c; });
    study.reference_c = lowest->set_c;
    for (const StudyHeat& heat : heats) {
        Trace seen = *heat.trace;
        double from = heat.in_s;
        double to = heat.out_s;
        if (heat.thickness_mm > 0) {
            Result<Trace> steel = steelInOven(*heat.trace, heat.thickness_mm, HeatSurface::scaled, from, to);
            if (!steel) return steel.error();
            seen = std::move(steel).value();
            to = seen.end();
            from = 0;
        }
        HeatExposure exposure;
        const auto soak = soakAbove(seen, heat.set_c - heat.near_c, from, to);
        const auto above = soakAbove(seen, lowest->set_c - lowest->near_c, from, to);
        const auto equivalent = equivalentMinutes(seen, study.reference_c, 727, from, to);
        for (const Error* error : {soak ? nullptr : &soak.error(), above ? nullptr : &above.error(),
                                   equivalent ? nullptr : &equivalent.error()}) {
            if (error != nullptr) return *error;
        }
        exposure.soak_minutes = soak->minutes_above;
        exposure.above_lowest_minutes = above->minutes_above;
        exposure.equivalent_minutes = *equivalent;
        // The ramp ends when the soak's limits are reached for the first time.
        const std::vector<TraceSample> part = seen.between(from, to);
        const auto reached = std::find_if(
            part.begin(), part.end(), [&](const TraceSample& sample) { return sample.c >= heat.set_c - heat.near_c; });
        exposure.ramp_minutes = ((reached == part.end() ? to : reached->s) - from) / 60.0;
        study.heats.push_back(exposure);
    }
    const auto compare = [&](StudyDifference::What what, double HeatExposure::*member) {
        const auto [low, high] =
            std::minmax_element(study.heats.begin(), study.heats.end(),
                                [&](const HeatExposure& a, const HeatExposure& b) { return a.*member < b.*member; });
        constexpr double alike = 1.2;
        if ((*high).*member > alike * (*low).*member && (*high).*member - (*low).*member > 0.5)
            study.differences.push_back({what, (*low).*member, (*high).*member});
    };
    compare(StudyDifference::What::ramp, &HeatExposure::ramp_minutes);
    compare(StudyDifference::What::soak, &HeatExposure::soak_minutes);
    compare(StudyDifference::What::aboveLowest, &HeatExposure::above_lowest_minutes);
    return study;
}

} // namespace rollcall
