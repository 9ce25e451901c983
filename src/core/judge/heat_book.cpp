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
            const bool both = heat->in_s && heat->out_s && *heat->out_s > *heat->in_s;
            if (both) m_answers[i].clock_minutes = (*heat->out_s - *heat->in_s) / 60.0;
            // A mark beyond the trace's end says that the trace does not cover this blade.
            const bool covered =
                both && run.trace && *heat->in_s >= run.trace->start() && *heat->out_s <= run.trace->end();
            blades.push_back(i);
            marks.push_back(covered ? std::optional(SoakMarks{*heat->in_s, *heat->out_s}) : std::nullopt);
            const double mm = batch.blades[i].shape.thickness_mm;
            thickness.push_back(mm >= 0.1 && mm <= 50 ? std::optional(mm) : std::nullopt);
        }
        if (blades.empty() || !run.trace) continue;
        SoakPlan plan{run.set_c, run.near_c, 727, run.min_minutes, run.max_minutes, run.surface};
        if (grade != nullptr && grade->ac1_c) plan.ac1_c = *grade->ac1_c;
        const auto answers = soaks(*run.trace, plan, marks, thickness);
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
        if (answer.heat == nullptr || !answer.heat->transfer_s()) continue;
        const double from = answer.soak ? answer.soak->leaving_c : answer.run->set_c;
        const double edge = answer.run->edge_mm.value_or(batch.blades[i].shape.thickness_mm);
        if (const auto entering = afterTransfer(from, edge, *answer.heat->transfer_s())) answer.entering_c = *entering;
    }
}

std::optional<bool> HeatBook::soakInLimits(std::size_t blade) const {
    const HeatAnswer& answer = m_answers[blade];
    const auto minutes = answer.minutes();
    if (!minutes || (!answer.run->min_minutes && !answer.run->max_minutes)) return std::nullopt;
    return (!answer.run->min_minutes || atLeast(*minutes, *answer.run->min_minutes)) &&
           (!answer.run->max_minutes || atMost(*minutes, *answer.run->max_minutes));
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

namespace {

class HeatJudge {
public:
    HeatJudge(const Batch& batch, std::size_t blade, const HeatBook& book, const Tables& tables)
        : m_blade(batch.blades[blade]), m_answer(book.of(blade)), m_inLimits(book.soakInLimits(blade)),
          m_grade(tables.grade(batch.grade)) {
        m_verdict.gate = Gate::heat;
        m_verdict.blade = m_blade.id;
        m_verdict.tables_edition = Tables::edition;
    }

    Verdict judged() {
        if (sayExcused(m_blade, m_verdict)) return std::move(m_verdict);
        m_verdict.cautions = {Caution::hotWork, Caution::quenchOil};
        if (m_answer.run == nullptr) {
            say(Fact::noHeatLogged, Tone::open, "heat");
            m_verdict.next = {Act::startHeat};
            return std::move(m_verdict);
        }
        if (!m_answer.heat->in_s || !m_answer.clock_minutes) {
            say(m_answer.heat->in_s ? Fact::notOutYet : Fact::notInYet, Tone::open, "M22");
            m_verdict.next = {Act::markBlade};
            note();
            return std::move(m_verdict);
        }
        m_verdict.state = State::pass;
        m_verdict.next = {Act::done};
        soak();
        transfer();
        quenchant();
        note();
        if (!m_answer.run->oven_checked) say(Fact::ovenNeverChecked, Tone::note, "M22");
        std::stable_sort(m_verdict.reasons.begin(), m_verdict.reasons.end(),
                         [](const Reason& a, const Reason& b) { return rankOf(a.tone) < rankOf(b.tone); });
        return std::move(m_verdict);
    }

private:
    void say(Fact fact, Tone tone, const char* rule, std::vector<double> numbers = {},
             std::vector<std::string> texts = {}) {
        m_verdict.reasons.push_back({fact, tone, rule, std::move(numbers), std::move(texts)});
    }
    void caution(Fact fact, const char* rule, std::vector<double> numbers, std::vector<std::string> texts = {}) {
        say(fact, Tone::caution, rule, std::move(numbers), std::move(texts));
        m_verdict.state = State::borderline;
        if (m_verdict.next.act == Act::done) m_verdict.next = {Act::makerDecides};
    }

    void soak() {
        const HeatRun& run = *m_answer.run;
        const double minutes = *m_answer.minutes();
        const double equivalent = m_answer.soak ? m_answer.soak->equivalent_minutes : 0;
        if (!m_answer.soak)
            say(Fact::soakByClock, Tone::note, "M22", {minutes});
        else if (!m_answer.soak->by_steel)
            say(Fact::soakByOven, Tone::note, "M23");
        if (run.max_minutes && !atMost(minutes, *run.max_minutes)) {
            caution(Fact::soakOver, "M22", {minutes, *run.max_minutes, equivalent});
            // What the long soak did to the grain is seen on a coupon that soaked as long (M30).
            m_verdict.next = {Act::breakCoupon, CouponStep{minutes}};
        } else if (run.min_minutes && !atLeast(minutes, *run.min_minutes)) {
            caution(Fact::soakUnder, "M22", {minutes, *run.min_minutes});
        } else {
            say(Fact::soakGood, m_inLimits ? Tone::good : Tone::note, "M22",
                {minutes, run.min_minutes.value_or(0), run.max_minutes.value_or(0), equivalent});
        }
        if (!m_answer.soak) return;
        if (m_answer.soak->apart) caution(Fact::soakApart, "M22", {equivalent, m_answer.median_equivalent});
        // A factor of 1.5 in grain growth is what ten degrees make.
        if (m_answer.soak->peak_c > run.set_c + run.near_c + limitTolerance)
            caution(Fact::ovenOvershot, "M22", {m_answer.soak->peak_c, run.set_c});
    }

    void transfer() {
        const auto seconds = m_answer.heat->transfer_s();
        if (!seconds || !m_answer.entering_c) return say(Fact::transferNotNoted, Tone::unseen, "M23");
        if (m_grade != nullptr && m_grade->ac1_c && *m_answer.entering_c < *m_grade->ac1_c)
            return caution(Fact::transferLate, "M23", {*seconds, *m_answer.entering_c, *m_grade->ac1_c});
        say(Fact::transferGood, Tone::good, "M23", {*seconds, *m_answer.entering_c});
    }

    void quenchant() {
        const auto& at = m_answer.heat->quenchant_c;
        if (!at) return say(Fact::quenchantNotNoted, Tone::unseen, "heat");
        const HeatRun& run = *m_answer.run;
        if (run.medium_c && std::abs(*at - *run.medium_c) > run.medium_tolerance_c + limitTolerance)
            return caution(Fact::quenchantOff, "heat", {*at, *run.medium_c});
        say(Fact::quenchantGood, Tone::good, "heat", {*at});
    }

    // What was written down against what the trace says: both shown, neither chosen.
    void note() {
        const HeatRun& run = *m_answer.run;
        constexpr double degreesApart = 10;
        constexpr double minutesApart = 2;
        const double said = run.set_c;
        if (m_answer.heat->noted_c && std::abs(*m_answer.heat->noted_c - said) > degreesApart + limitTolerance)
            caution(Fact::noteAgainstTrace, "heat", {*m_answer.heat->noted_c, said}, {"temperature"});
        const auto minutes = m_answer.soak ? std::optional(m_answer.soak->minutes) : m_answer.clock_minutes;
        if (m_answer.heat->noted_minutes && minutes &&
            std::abs(*m_answer.heat->noted_minutes - *minutes) > minutesApart + limitTolerance)
            caution(Fact::noteAgainstTrace, "heat", {*m_answer.heat->noted_minutes, *minutes}, {"soak"});
    }

    const Blade& m_blade;
    const HeatAnswer& m_answer;
    std::optional<bool> m_inLimits;
    const Grade* m_grade;
    Verdict m_verdict;
};

} // namespace

Verdict judgeHeat(const Batch& batch, std::size_t blade, const HeatBook& book, const Tables& tables) {
    return HeatJudge(batch, blade, book, tables).judged();
}

} // namespace rollcall
