// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/steel_book.h"

#include "core/base/number.h"
#include "core/judge/gate_case.h"
#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

namespace {

// E14. What hardness and sparks say of the steel beside its composition.
GradeEvidence besideOf(const Batch& batch, const Tables& tables, const HeatBook& heats, const VerificationBook& runs) {
    GradeEvidence beside;
    for (const SteelNote& note : batch.steel_notes) {
        if (note.kind == SteelNoteKind::coupon && note.hrc) beside.hardened.push_back(*note.hrc);
        if (note.kind == SteelNoteKind::spark && note.agrees)
            beside.spark = SparkSeen{batch.claimed.empty() ? batch.grade : batch.claimed, *note.agrees};
    }
    // One value for all blades: they are of one bar, and what holds one back holds many.
    std::optional<double> hardest;
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const Blade& blade = batch.blades[i];
        const auto candidates = candidatesAt(blade, Gate::quench, 0);
        if (candidates.size() < 2 || !heats.soakInLimits(i).value_or(false) || !batch.changedBy(blade).empty())
            continue;
        const ReadingSet set = standingReadings(batch, blade, candidates, runs, tables, 0);
        if (set.hrc.size() < 2 || !set.verified || !set.bias || set.rebound) continue;
        const double mean = meanOf(set.hrc) - set.bias->error;
        hardest = std::max(hardest.value_or(mean), mean);
    }
    if (hardest) beside.hardened.push_back(*hardest);
    return beside;
}

// E14. Shots never take the certificate's place: it alone may know carbon and nitrogen.
SteelAnswer answerOf(const Batch& batch, const std::vector<CompositionShot>& shots, AnalysisMethod method,
                     const Tables& tables, const GradeEvidence& beside, const SteelBook* before) {
    SteelAnswer answer;
    answer.method = method;
    answer.shots = static_cast<int>(shots.size());
    answer.ranked_by = beside;
    std::vector<Analysis>& known = answer.ranked_by.known;
    if (!shots.empty()) {
        std::vector<CompositionShot> agreeing = shots;
        answer.apart = shotsApart(shots, tables, method);
        if (const auto odd = answer.apart.empty() ? std::nullopt : oddShot(shots, tables, method)) {
            agreeing.erase(agreeing.begin() + static_cast<std::ptrdiff_t>(*odd));
            answer.odd_left_out = true;
        }
        for (const CompositionShot& shot : agreeing) {
            for (const std::string& element : foreignElements(shot.elements)) {
                if (std::find(answer.foreign.begin(), answer.foreign.end(), element) == answer.foreign.end())
                    answer.foreign.push_back(element);
            }
        }
        auto means = averageShots(agreeing, tables, method);
        if (!means) return answer;
        answer.measured = std::move(means).value();
        answer.warnings = shotWarnings(answer.measured);
        known.push_back({answer.measured, method});
    }
    if (!batch.certificate.empty()) {
        known.push_back({batch.certificate, AnalysisMethod::oes});
        if (shots.empty()) {
            answer.measured = batch.certificate;
            answer.method = AnalysisMethod::oes;
            answer.by_certificate = true;
        }
    }
    if (known.empty()) return answer;
    answer.carbon_known = std::any_of(known.begin(), known.end(), [&](const Analysis& analysis) {
        return tables.canSee(analysis.method, "C") &&
               std::any_of(analysis.elements.begin(), analysis.elements.end(),
                           [](const ElementReading& one) { return one.element == "C" && one.percent; });
    });
    const SteelAnswer* same = before != nullptr ? before->rankedBy(answer.ranked_by) : nullptr;
    answer.matched = tables.grade(batch.grade);
    if (const Grade* grade = answer.matched) {
        if (same != nullptr && same->match && same->matched == grade)
            answer.match = same->match;
        else if (auto match = matchGrade(known, *grade, tables))
            answer.match = std::move(match).value();
    }
    if (same != nullptr)
        answer.candidates = same->candidates;
    else if (auto ranked = rankGrades(known, beside.hardened, tables.grades(), tables, beside.spark))
        answer.candidates = std::move(ranked).value();
    for (const ElementReading& mill : batch.certificate) {
        for (const ElementReading& shot : answer.by_certificate ? std::vector<ElementReading>() : answer.measured) {
            if (shot.element != mill.element || !shot.percent || !mill.percent || !tables.canSee(method, shot.element))
                continue;
            const DetectionLimit* own = tables.detection(method, shot.element, *shot.percent);
            const DetectionLimit* theirs = tables.detection(AnalysisMethod::oes, mill.element, *mill.percent);
            const double u = std::hypot(shot.sigma.value_or(own != nullptr ? own->sigma : 0.1 * *shot.percent),
                                        theirs != nullptr ? theirs->sigma : 0.03 * *mill.percent);
            if (std::abs(*shot.percent - *mill.percent) > 3 * u)
                answer.differs.push_back({shot.element, *shot.percent, *mill.percent});
        }
    }
    return answer;
}

// Of shots by two methods the one that sees more, spark emission, is compared.
std::optional<SteelAnswer> measuredAnswer(const Batch& batch, const std::string& blade, const Tables& tables,
                                          const GradeEvidence& beside, const SteelBook* before) {
    for (const AnalysisMethod method : {AnalysisMethod::oes, AnalysisMethod::xrf}) {
        std::vector<CompositionShot> shots;
        for (const SteelShot& shot : batch.shots) {
            if (!shot.struck && shot.blade == blade && shot.method == method) shots.push_back(shot.composition);
        }
        if (!shots.empty()) return answerOf(batch, shots, method, tables, beside, before);
    }
    return std::nullopt;
}

} // namespace

double SteelAnswer::otherShare() const {
    if (candidates.empty()) return 0;
    double known = 0;
    for (const GradeCandidate& candidate : candidates) known += candidate.share;
    return std::max(0.0, 1 - known);
}

const GradeCandidate* SteelAnswer::bestBeside(const std::string& grade) const {
    const auto found = std::find_if(candidates.begin(), candidates.end(), [&](const GradeCandidate& candidate) {
        return candidate.grade->for_blades && candidate.claim != Claim::notConsistent &&
               !sameName(candidate.grade->name, grade);
    });
    return found == candidates.end() ? nullptr : &*found;
}

const GradeCandidate* SteelAnswer::notForBlades() const {
    if (candidates.empty() || candidates.front().grade->for_blades) return nullptr;
    return candidates.front().claim != Claim::notConsistent ? &candidates.front() : nullptr;
}

bool SteelAnswer::perhapsPlated() const {
    if (!match || match->claim != Claim::notConsistent || by_certificate) return false;
    for (const ElementMatch& element : match->elements) {
        constexpr double rejects = 3;
        if (element.z < rejects || element.doubtful) continue;
        const bool onSurfaces = element.element == "Cr" || element.element == "Ni" || element.element == "Cu";
        const bool tooMuch = element.high && element.reading.percent.value_or(0) > *element.high;
        if (!onSurfaces || !tooMuch) return false;
    }
    constexpr double thick = 5; // per cent: what a plating adds, and no residual
    const bool much = std::any_of(measured.begin(), measured.end(), [](const ElementReading& one) {
        return (one.element == "Cr" || one.element == "Ni") && one.percent.value_or(0) > thick;
    });
    const GradeCandidate* best = bestBeside(matched != nullptr ? matched->name : std::string());
    return much && (best == nullptr || best->claim != Claim::consistent || !best->told);
}

const SteelAnswer* SteelBook::rankedBy(const GradeEvidence& evidence) const {
    if (m_bar.ranked_by == evidence) return &m_bar;
    const auto own = std::find_if(m_blades.begin(), m_blades.end(),
                                  [&](const auto& answer) { return answer && answer->ranked_by == evidence; });
    return own == m_blades.end() ? nullptr : &**own;
}

SteelBook::SteelBook(const Batch& batch, const Tables& tables, const HeatBook& heats, const VerificationBook& runs,
                     const SteelBook* before)
    : m_blades(batch.blades.size()) {
    if (batch.shots.empty() && batch.certificate.empty()) return; // nothing to rank by
    const GradeEvidence beside = besideOf(batch, tables, heats, runs);
    if (auto bar = measuredAnswer(batch, {}, tables, beside, before)) {
        m_bar = std::move(*bar);
    } else if (!batch.certificate.empty()) {
        m_bar = answerOf(batch, {}, AnalysisMethod::oes, tables, beside, before);
    }
    for (std::size_t i = 0; i < batch.blades.size(); ++i)
        m_blades[i] = measuredAnswer(batch, batch.blades[i].id, tables, beside, before);
}

const SteelAnswer& SteelBook::of(std::size_t blade) const {
    return m_blades[blade] ? *m_blades[blade] : m_bar;
}

SteelStands SteelBook::standsTo(std::size_t blade) const {
    const SteelAnswer& answer = of(blade);
    // Shots that cannot be one steel, or are of its surface, say nothing of the steel.
    if ((!answer.apart.empty() && !answer.odd_left_out) || !answer.foreign.empty() || answer.perhapsPlated())
        return SteelStands::unclear;
    if (!answer.match || answer.match->claim == Claim::undecidable) return SteelStands::unknown;
    return answer.match->claim == Claim::consistent ? SteelStands::asClaimed : SteelStands::other;
}

} // namespace rollcall
