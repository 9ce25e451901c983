// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/number.h"
#include "core/judge/release_judge.h"
#include "logbook/chain_rows.h"

// Signed decisions about blades.
namespace rollcall {

Result<Done> Logbook::sign(const std::vector<Decision>& decisions) {
    if (decisions.empty()) return refused("blades", "there is nothing to sign for");
    if (m_person.empty()) return refused("person", "nobody is at work: say who signs");
    for (const Decision& one : decisions) {
        if (one.signature.disposition != Disposition::release && trimmed(one.signature.reason).empty())
            return refused("reason", "say why");
    }
    return transact("signed", [&]() -> Result<Done> {
        for (const Decision& one : decisions) {
            auto done = m_database->insert("disposition", stamped({{"id", q(m_seams.newId())},
                                                                   {"blade", q(one.blade)},
                                                                   {"round", one.signature.round},
                                                                   {"decision", nameOf(one.signature.disposition)},
                                                                   {"basis", q(one.signature.basis)},
                                                                   {"reason", q(one.signature.reason)}},
                                                                  m_seams.now(), m_person));
            if (!done) return done;
        }
        return Done{};
    });
}

Result<Done> Logbook::askSample(const std::string& batch, std::optional<double> chance) {
    if (chance && !(*chance > 0 && *chance < 1))
        return refused("chance", "the chance asked lies between 0 and 1, such as 0.95");
    return transact("sample asked for", [&] {
        return m_database->insert("sample_ask",
                                  stamped({{"id", q(m_seams.newId())}, {"batch", q(batch)}, {"chance", orNull(chance)}},
                                          m_seams.now(), m_person));
    });
}

Result<Done> Logbook::loadRelease(Batch& batch, const std::map<std::string, std::size_t>& index) {
    const auto rows = m_database->select(
        QStringLiteral("SELECT d.blade, d.round, d.decision, d.basis, d.reason, d.person, d.at_ms, d.at_offset FROM "
                       "disposition d JOIN blade b ON b.id=d.blade WHERE b.batch=? ORDER BY d.at_ms, d.rowid"),
        {q(batch.id)});
    if (!rows) return rows.error();
    for (const Row& row : *rows)
        batch.blades[index.at(s(row[0]))].signatures.push_back(
            {named<Disposition>(s(row[2])).value_or(Disposition::hold), row[1].toInt(), s(row[3]), s(row[4]), s(row[5]),
             instantOf(row[6], row[7])});
    const Result<QVariant> chance = m_database->single(
        QStringLiteral("SELECT chance FROM sample_ask WHERE batch=? ORDER BY at_ms DESC, rowid DESC LIMIT 1"),
        {q(batch.id)});
    if (!chance) return chance.error();
    batch.sample_asked = numberOrNone(*chance);
    return Done{};
}

} // namespace rollcall
