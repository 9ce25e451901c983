// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"
#include "core/judge/release_judge.h"
#include "logbook/rows.h"

// Signed decisions about blades.
namespace rollcall {

Result<Done> Logbook::loadRelease(Batch& batch, const std::map<std::string, std::size_t>& index) {
    const auto rows =
        rowsOf("disposition", batch.id,
               "SELECT d.blade, d.round, d.decision, d.basis, d.reason, d.person, d.at_ms, d.at_offset FROM "
               "disposition d JOIN blade b ON b.id=d.blade WHERE b.batch=? AND d.id NOT IN taken_back ORDER BY "
               "d.at_ms, d.rowid");
    if (!rows) return rows.error();
    for (const Row& row : *rows) {
        if (Blade* blade = bladeOf(batch, index, row))
            blade->signatures.push_back({named<Disposition>(s(row[2])).value_or(Disposition::hold), row[1].toInt(),
                                         s(row[3]), s(row[4]), s(row[5]), instantOf(row[6], row[7])});
    }
    const auto chance = rowsOf("sample_ask", batch.id,
                               "SELECT chance FROM sample_ask WHERE batch=? AND id NOT IN taken_back ORDER BY at_ms "
                               "DESC, rowid DESC LIMIT 1");
    if (!chance) return chance.error();
    if (!chance->empty()) batch.sample_asked = numberOrNone(chance->front()[0]);
    return Done{};
}

} // namespace rollcall
