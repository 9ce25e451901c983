// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ledger/study_read.h"

#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

std::vector<std::vector<double>> valuesOf(const StudyPlan& plan, const LedgerBatch& batch) {
    std::vector<std::vector<double>> values(plan.levels.size());
    const std::vector<std::size_t> order = orderOf(plan);
    const std::vector<std::string> marks = marksOf(plan);
    for (const LedgerBlade& blade : batch.blades) {
        const auto at = std::find(marks.begin(), marks.end(), blade.mark);
        if (at == marks.end()) continue;
        std::optional<double> value;
        switch (plan.measured) {
        case Measured::tempered:
            if (blade.tempered) value = blade.tempered->mean;
            break;
        case Measured::quenched:
            value = blade.quenched_hrc;
            break;
        case Measured::grain:
            value = blade.grain;
            break;
        case Measured::strokes:
            if (blade.piece && !blade.piece->counts.empty() && blade.piece->counts.front().runs > 0)
                value = blade.piece->counts.front().count / blade.piece->counts.front().runs;
            break;
        }
        if (value) values[order[static_cast<std::size_t>(at - marks.begin())]].push_back(*value);
    }
    return values;
}

StudyRead readStudy(const StudyPlan& plan, const std::vector<std::vector<double>>& values) {
    StudyRead read;
    std::vector<Level> levels;
    std::size_t least = static_cast<std::size_t>(plan.pieces);
    double squares = 0;
    double dof = 0;
    for (std::size_t i = 0; i < plan.levels.size(); ++i) {
        const std::vector<double> own = i < values.size() ? values[i] : std::vector<double>();
        read.missing += std::max(0, plan.pieces - static_cast<int>(own.size()));
        least = std::min(least, own.size());
        if (own.empty()) continue;
        if (const auto sd = sampleSd(own)) {
            squares += *sd * *sd * static_cast<double>(own.size() - 1);
            dof += static_cast<double>(own.size() - 1);
        }
        Level level;
        level.name = plan.levels[i];
        level.values = own;
        level.pieces = static_cast<int>(own.size());
        levels.push_back(std::move(level));
    }
    const double sd = dof > 0 && squares > 0 ? std::sqrt(squares / dof) : plan.sd;
    read.power_had = powerOf(plan.difference, sd, static_cast<int>(plan.levels.size()), static_cast<int>(least));
    read.comparisons = compareLevels(std::move(levels));
    return read;
}

} // namespace rollcall
