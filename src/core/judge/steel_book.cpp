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

} // namespace rollcall
