// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/read/history.h"

#include "core/base/number.h"
#include "core/judge/expectation.h"

#include <algorithm>

namespace rollcall {

std::vector<const BatchSummary*> teachersOf(const Batch& batch, const std::vector<BatchSummary>& all) {
    constexpr std::size_t most = 60;
    std::vector<const BatchSummary*> teachers;
    if (batch.grade.empty()) return teachers;
    for (auto summary = all.rbegin(); summary != all.rend() && teachers.size() < most; ++summary) {
        if (summary->id != batch.id && sameName(summary->grade, batch.grade)) teachers.push_back(&*summary);
    }
    std::reverse(teachers.begin(), teachers.end());
    return teachers;
}

Result<std::vector<TemperObservation>> temperHistory(Logbook& logbook, const Tables& tables, const Batch& inHand,
                                                     std::map<std::string, std::vector<TemperObservation>>& known) {
    std::vector<TemperObservation> history;
    const Result<std::vector<BatchSummary>> batches = logbook.batches();
    if (!batches) return batches.error();
    for (const BatchSummary* summary : teachersOf(inHand, *batches)) {
        auto seen = known.find(summary->id);
        if (seen == known.end()) {
            const Result<Batch> batch = logbook.batch(summary->id);
            if (!batch) return batch.error();
            seen = known.emplace(summary->id, temperObservations(*batch, tables)).first;
        }
        history.insert(history.end(), seen->second.begin(), seen->second.end());
    }
    return history;
}

} // namespace rollcall
