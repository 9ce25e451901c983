// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/steel_book.h"

#include "core/base/number.h"
#include "core/judge/gate_case.h"

#include <algorithm>
#include <limits>

namespace rollcall {

namespace {

SteelAnswer answerOf(const Batch& batch, const std::vector<CompositionShot>& shots, AnalysisMethod method,
                     const Tables& tables) {
    SteelAnswer answer;
    answer.method = method;
    answer.shots = static_cast<int>(shots.size());
    const auto means = averageShots(shots, tables, method);
    if (!means) return answer;
    answer.measured = *means;
    answer.warnings = shotWarnings(answer.measured);
    if (const Grade* grade = tables.grade(batch.grade)) {
        if (auto match = matchGrade(answer.measured, *grade, tables, method)) answer.match = std::move(match).value();
    }
    if (auto ranked = rankGrades(answer.measured, tables.grades(), tables, method))
        answer.candidates = std::move(ranked).value();
    return answer;
}

// Of shots by two methods the one that sees more, spark emission, is compared.
std::optional<SteelAnswer> measuredAnswer(const Batch& batch, const std::string& blade, const Tables& tables) {
    for (const AnalysisMethod method : {AnalysisMethod::oes, AnalysisMethod::xrf}) {
        std::vector<CompositionShot> shots;
        for (const SteelShot& shot : batch.shots) {
            if (!shot.struck && shot.blade == blade && shot.method == method) shots.push_back(shot.composition);
        }
        if (!shots.empty()) return answerOf(batch, shots, method, tables);
    }
    return std::nullopt;
}

} // namespace

SteelBook::SteelBook(const Batch& batch, const Tables& tables) : m_blades(batch.blades.size()) {
    if (auto bar = measuredAnswer(batch, {}, tables)) {
        m_bar = std::move(*bar);
    } else if (!batch.certificate.empty()) {
        m_bar = answerOf(batch, {CompositionShot{batch.certificate, {}}}, AnalysisMethod::oes, tables);
        m_bar.by_certificate = true;
        m_bar.shots = 0;
    }
    for (std::size_t i = 0; i < batch.blades.size(); ++i)
        m_blades[i] = measuredAnswer(batch, batch.blades[i].id, tables);
}

const SteelAnswer& SteelBook::of(std::size_t blade) const {
    return m_blades[blade] ? *m_blades[blade] : m_bar;
}

std::optional<bool> SteelBook::consistent(std::size_t blade) const {
    const SteelAnswer& answer = of(blade);
    if (!answer.match || answer.match->claim == Claim::undecidable) return std::nullopt;
    return answer.match->claim == Claim::consistent;
}

Verdict judgeSteel(const Batch& batch, std::size_t blade, const SteelBook& book, const Tables& tables) {
    Verdict verdict;
    verdict.gate = Gate::steel;
    verdict.blade = batch.blades[blade].id;
    verdict.tables_edition = Tables::edition;
    if (sayExcused(batch.blades[blade], verdict)) return verdict;
    const auto say = [&](Fact fact, Tone tone, const char* rule, std::vector<double> numbers = {},
                         std::vector<std::string> texts = {}) {
        verdict.reasons.push_back({fact, tone, rule, std::move(numbers), std::move(texts)});
    };
    const SteelAnswer& answer = book.of(blade);
    const Grade* grade = tables.grade(batch.grade);
    bool contradicted = false;
    for (const SteelNote& note : batch.steel_notes) {
        if (note.kind == SteelNoteKind::coupon && note.hrc && grade != nullptr) {
            constexpr double coupon_u = 1.0; // HRC: a coupon's own scatter and the tester
            const bool fits = couponFits(*grade, *note.hrc, coupon_u);
            contradicted = contradicted || !fits;
            say(fits ? Fact::couponAgrees : Fact::couponContradicts, fits ? Tone::good : Tone::caution, "quench",
                {*note.hrc, grade->as_quenched_min, grade->as_quenched_max}, {grade->name});
        }
        if (note.kind == SteelNoteKind::spark && note.agrees) {
            contradicted = contradicted || !*note.agrees;
            say(*note.agrees ? Fact::sparkAgrees : Fact::sparkContradicts, *note.agrees ? Tone::good : Tone::caution,
                "steel", {}, {note.text});
        }
    }
    if (grade == nullptr) say(Fact::gradeUnknown, Tone::note, "tables", {}, {batch.grade});
    for (const ShotWarning warning : answer.warnings)
        say(warning == ShotWarning::coating ? Fact::shotCoated
            : warning == ShotWarning::scale ? Fact::shotScaled
                                            : Fact::shotSmall,
            Tone::caution, "M26");
    if (!answer.match) {
        // The poor man's check: a spark or a coupon stands where there is no analyser.
        const bool checked = std::any_of(verdict.reasons.begin(), verdict.reasons.end(), [](const Reason& r) {
            return r.fact == Fact::couponAgrees || r.fact == Fact::sparkAgrees;
        });
        if (contradicted)
            verdict.state = State::borderline;
        else if (checked)
            verdict.state = State::pass;
        else
            say(Fact::noShotTaken, Tone::open, "M26");
        verdict.next = {contradicted ? Act::reassign : checked ? Act::done : Act::takeShot};
    } else {
        const CompositionMatch& match = *answer.match;
        const ElementMatch& worst = match.elements.front();
        const double high = worst.high.value_or(std::numeric_limits<double>::infinity());
        const std::vector<double> numbers{worst.reading.percent.value_or(worst.reading.lod.value_or(0.0)), worst.low,
                                          high, worst.z};
        const std::vector<std::string> texts{worst.element, worst.reading.percent ? "" : "under"};
        switch (match.claim) {
        case Claim::consistent:
            verdict.state = contradicted || !answer.warnings.empty() ? State::borderline : State::pass;
            verdict.next = {contradicted ? Act::reassign : answer.warnings.empty() ? Act::done : Act::takeShot};
            say(answer.by_certificate ? Fact::certificateConsistent : Fact::steelConsistent, Tone::good, "M26",
                {double(match.elements.size()), double(answer.shots)}, {batch.grade});
            break;
        case Claim::undecidable:
            verdict.state = State::borderline;
            verdict.next = {Act::takeShot};
            say(Fact::steelUndecided, Tone::caution, "M26", numbers, texts);
            break;
        case Claim::notConsistent:
            verdict.state = State::fail;
            verdict.next = {Act::reassign};
            for (const ElementMatch& element : match.elements) {
                if (element.z < 2) continue;
                say(Fact::steelNotConsistent, element.z >= 3 ? Tone::bad : Tone::caution, "M26",
                    {element.reading.percent.value_or(element.reading.lod.value_or(0.0)), element.low,
                     element.high.value_or(std::numeric_limits<double>::infinity()), element.z},
                    {element.element, element.reading.percent ? "" : "under"});
            }
            break;
        }
        std::vector<std::string> others;
        for (const GradeCandidate& candidate : answer.candidates) {
            if (candidate.cannot_be_told_apart && !sameName(candidate.grade->name, batch.grade))
                others.push_back(candidate.grade->name);
        }
        if (match.claim == Claim::notConsistent && !answer.candidates.empty() &&
            answer.candidates.front().claim == Claim::notConsistent)
            say(Fact::noGradeFits, Tone::note, "M26");
        else if (!others.empty())
            say(match.claim == Claim::notConsistent ? Fact::looksMoreLike : Fact::alsoConsistent, Tone::note, "M26", {},
                others);
        if (!match.unseen.empty()) say(Fact::methodCannotSee, Tone::note, "M26", {}, match.unseen);
    }
    if (!batch.claimed.empty() && !sameName(batch.claimed, batch.grade))
        say(Fact::gradeReassigned, Tone::note, "record", {}, {batch.claimed, batch.grade});
    // What the composition contradicts speaks before a coupon or a spark.
    std::stable_sort(verdict.reasons.begin(), verdict.reasons.end(), [](const Reason& a, const Reason& b) {
        if ((a.tone == Tone::bad) != (b.tone == Tone::bad)) return a.tone == Tone::bad;
        return rankOf(a.tone) < rankOf(b.tone);
    });
    if (answer.method == AnalysisMethod::xrf && answer.shots > 0) verdict.cautions.push_back(Caution::xrays);
    return verdict;
}

} // namespace rollcall
