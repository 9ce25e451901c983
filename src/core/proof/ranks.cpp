// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/proof/ranks.h"

namespace rollcall {

std::vector<std::optional<Places>> placesOf(const std::vector<std::optional<Performed>>& pieces, bool more_is_better) {
    const auto surelyBetter = [&](const Performed& a, const Performed& b) {
        return more_is_better ? a.low > b.high : a.high < b.low;
    };
    int tried = 0;
    for (const auto& piece : pieces) tried += piece ? 1 : 0;
    std::vector<std::optional<Places>> places(pieces.size());
    for (std::size_t i = 0; i < pieces.size(); ++i) {
        if (!pieces[i]) continue;
        Places own{1, tried};
        for (std::size_t k = 0; k < pieces.size(); ++k) {
            if (k == i || !pieces[k]) continue;
            if (surelyBetter(*pieces[k], *pieces[i])) ++own.best;
            if (surelyBetter(*pieces[i], *pieces[k])) --own.worst;
        }
        places[i] = own;
    }
    return places;
}

} // namespace rollcall
