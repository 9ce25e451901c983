// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "logbook/actions/release.h"

#include "core/base/number.h"
#include "core/judge/release_judge.h"
#include "logbook/actions/rows.h"
#include "logbook/rows.h"

// Signed decisions about blades.
namespace rollcall {

Result<Done> sign(Logbook& logbook, const std::vector<Decision>& decisions) {
    if (decisions.empty()) return refused("blades", "there is nothing to sign for");
    if (logbook.person().empty()) return refused("person", "nobody is at work: say who signs");
    for (const Decision& one : decisions) {
        if (one.signature.disposition != Disposition::release && trimmed(one.signature.reason).empty())
            return refused("reason", "say why");
    }
    return logbook.transact("signed", [&]() -> Result<Done> {
        for (const Decision& one : decisions) {
            auto done =
                logbook.database().insert("disposition", stamped({{"id", q(logbook.newId())},
                                                                  {"blade", q(one.blade)},
                                                                  {"round", one.signature.round},
                                                                  {"decision", nameOf(one.signature.disposition)},
                                                                  {"basis", q(one.signature.basis)},
                                                                  {"reason", q(one.signature.reason)}},
                                                                 logbook.now(), logbook.person()));
            if (!done) return done;
        }
        return Done{};
    });
}

Result<Done> askSample(Logbook& logbook, const std::string& batch, std::optional<double> chance) {
    if (chance && !(*chance > 0 && *chance < 1))
        return refused("chance", "the chance asked lies between 0 and 1, such as 0.95");
    return logbook.transact("sample asked for", [&] {
        return logbook.database().insert(
            "sample_ask", stamped({{"id", q(logbook.newId())}, {"batch", q(batch)}, {"chance", orNull(chance)}},
                                  logbook.now(), logbook.person()));
    });
}

} // namespace rollcall
