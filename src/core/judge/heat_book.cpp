// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/heat_book.h"

#include "core/base/number.h"
#include "core/judge/gate_case.h"
#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

namespace {

const BladeHeat* presentHeat(const Blade& blade) {
    const auto found = std::find_if(blade.heats.rbegin(), blade.heats.rend(),
                                    [&](const BladeHeat& heat) { return heat.round == blade.round; });
    return found == blade.heats.rend() ? nullptr : &*found;
}

} // namespace

namespace {

// What a soak is held against. A grade's own limits are of steel at heat: what only the clock tells has the warming up
// in it, some 1.4 minutes a millimetre (M23), of which a note of the soak is free.
void setLimits(HeatAnswer& answer, const Grade* grade, double thickness_mm) {
    answer.thickness_mm = thickness_mm;
    answer.least_minutes = answer.run->min_minutes;
    answer.most_minutes = answer.run->max_minutes;
    if (answer.least_minutes || answer.most_minutes || grade == nullptr || !grade->soak_minutes.known()) return;
    constexpr double warming = 1.4;
    const bool clock = !answer.soak && !answer.by_note;
    const double lag = clock ? warming * thickness_mm : 0.0;
    answer.by_grade = true;
    answer.least_minutes = *grade->soak_minutes.low + lag;
    answer.most_minutes = *grade->soak_minutes.high + lag;
}

} // namespace

HeatBook::HeatBook(const Batch& batch, const Tables& tables) : m_answers(batch.blades.size()) {
    const Grade* grade = tables.grade(batch.grade);
    for (const HeatRun& run : batch.heat_runs) {
        std::vector<std::size_t> blades;
        std::vector<std::optional<SoakMarks>> marks;
        std::vector<std::optional<double>> thickness;
        for (std::size_t i = 0; i < batch.blades.size(); ++i) {
            const BladeHeat* heat = presentHeat(batch.blades[i]);
            if (heat == nullptr || heat->run != run.id) continue;
            m_answers[i].run = &run;
            m_answers[i].heat = heat;
            const bool both = heat->in_s && heat->out_s && *heat->out_s >= *heat->in_s;
            if (both) m_answers[i].clock_minutes = (*heat->out_s - *heat->in_s) / 60.0;
            // A load of which nobody clocked the blades is known by its note alone.
            m_answers[i].by_note = heat->noted_minutes && !heat->in_s && !heat->out_s;
            if (m_answers[i].by_note) m_answers[i].clock_minutes = heat->noted_minutes;
            // A mark beyond the trace's end says that the trace does not cover this blade.
            const bool covered = both && *heat->out_s > *heat->in_s && run.trace && *heat->in_s >= run.trace->start() &&
                                 *heat->out_s <= run.trace->end();
            blades.push_back(i);
            marks.push_back(covered ? std::optional(SoakMarks{*heat->in_s, *heat->out_s}) : std::nullopt);
            const double mm = batch.blades[i].shape.thickness_mm;
            thickness.push_back(mm >= 0.1 && mm <= 50 ? std::optional(mm) : std::nullopt);
        }
        if (blades.empty() || !run.trace) continue;
        std::vector<TraceSample> faults;
        const Trace sound = run.trace->withoutFaults(faults);
        for (std::size_t k = 0; k < blades.size(); ++k) {
            for (const TraceSample& fault : faults) {
                if (marks[k] && fault.s >= marks[k]->in_s && fault.s <= marks[k]->out_s)
                    m_answers[blades[k]].faults.push_back(fault);
            }
        }
        const auto limit = [&](const std::optional<double>& typed, const std::optional<double>& known) {
            return run.min_minutes || run.max_minutes ? typed : grade != nullptr ? known : std::nullopt;
        };
        SoakPlan plan{run.set_c,
                      run.near_c,
                      727,
                      limit(run.min_minutes, grade != nullptr ? grade->soak_minutes.low : std::nullopt),
                      limit(run.max_minutes, grade != nullptr ? grade->soak_minutes.high : std::nullopt),
                      run.surface};
        if (grade != nullptr && grade->ac1_c) plan.ac1_c = *grade->ac1_c;
        const auto answers = soaks(sound, plan, marks, thickness);
        if (!answers) continue;
        std::vector<double> equivalents;
        for (const auto& soak : *answers) {
            if (soak) equivalents.push_back(soak->equivalent_minutes);
        }
        for (std::size_t k = 0; k < blades.size(); ++k) {
            m_answers[blades[k]].soak = (*answers)[k];
            if (!equivalents.empty()) m_answers[blades[k]].median_equivalent = medianOf(equivalents);
        }
    }
    for (std::size_t i = 0; i < m_answers.size(); ++i) {
        HeatAnswer& answer = m_answers[i];
        if (answer.run != nullptr) setLimits(answer, grade, batch.blades[i].shape.thickness_mm);
        if (answer.heat == nullptr || !answer.heat->transfer_s()) continue;
        const double from = answer.soak ? answer.soak->leaving_c : answer.run->set_c;
        const double body = batch.blades[i].shape.thickness_mm;
        const double edge = answer.run->edge_mm.value_or(body);
        if (const auto entering = afterTransfer(from, edge, std::max(edge, body), *answer.heat->transfer_s()))
            answer.entering_c = *entering;
    }
}

std::optional<bool> HeatBook::soakInLimits(std::size_t blade) const {
    const HeatAnswer& answer = m_answers[blade];
    const auto minutes = answer.minutes();
    if (!minutes || (!answer.least_minutes && !answer.most_minutes)) return std::nullopt;
    return (!answer.least_minutes || atLeast(*minutes, *answer.least_minutes)) &&
           (!answer.most_minutes || atMost(*minutes, *answer.most_minutes));
}

namespace {

constexpr double secondsOfDay = 86400;

double localSeconds(const Instant& at) {
    return (static_cast<double>(at.utc_ms) + at.offset_minutes * 60000.0) / 1000.0;
}

} // namespace

double clockShift(const HeatRun& run, const TraceFile& file) {
    if (file.first_ms) {
        const double zero =
            file.first_is_local ? localSeconds(run.zero) : static_cast<double>(run.zero.utc_ms) / 1000.0;
        return *file.first_ms / 1000.0 - zero;
    }
    if (!file.first_clock_s) return 0;
    // The nearest of the same time of day.
    const double apart = *file.first_clock_s - std::fmod(localSeconds(run.zero), secondsOfDay);
    return apart - secondsOfDay * std::round(apart / secondsOfDay);
}

Instant traceBegan(const TraceFile& file, const Instant& now) {
    Instant began = now;
    if (file.first_ms) {
        began.utc_ms = static_cast<std::int64_t>(*file.first_ms);
        if (file.first_is_local) began.utc_ms -= static_cast<std::int64_t>(now.offset_minutes) * 60000;
        return began;
    }
    if (!file.first_clock_s) {
        began.utc_ms -= static_cast<std::int64_t>(file.trace.end() * 1000);
        return began;
    }
    const double today = localSeconds(now) - std::fmod(localSeconds(now), secondsOfDay);
    double local = today + std::fmod(*file.first_clock_s, secondsOfDay);
    if (local > localSeconds(now)) local -= secondsOfDay;
    began.utc_ms = static_cast<std::int64_t>(local * 1000) - static_cast<std::int64_t>(now.offset_minutes) * 60000;
    return began;
}

} // namespace rollcall
