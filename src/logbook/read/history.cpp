// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/read/history.h"

#include "core/base/number.h"
#include "core/judge/expectation.h"

namespace rollcall {

Result<std::vector<TemperObservation>> temperHistory(Logbook& logbook, const Tables& tables, const Batch& inHand,
                                                     std::map<std::string, std::vector<TemperObservation>>& known) {
    std::vector<TemperObservation> history;
    if (inHand.grade.empty()) return history;
    const Result<std::vector<BatchSummary>> batches = logbook.batches();
    if (!batches) return batches.error();
    for (const BatchSummary& summary : *batches) {
        if (summary.id == inHand.id || !sameName(summary.grade, inHand.grade)) continue;
        auto seen = known.find(summary.id);
        if (seen == known.end()) {
            const Result<Batch> batch = logbook.batch(summary.id);
            if (!batch) return batch.error();
            seen = known.emplace(summary.id, temperObservations(*batch, tables)).first;
        }
        history.insert(history.end(), seen->second.begin(), seen->second.end());
    }
    return history;
}

} // namespace rollcall
