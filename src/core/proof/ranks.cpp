// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/proof/ranks.h"

#include <boost/math/distributions/beta.hpp>
#include <boost/math/distributions/chi_squared.hpp>

namespace rollcall {

namespace {

constexpr double lowTail = 0.025;
constexpr double highTail = 0.975;

} // namespace

std::optional<Performed> knownCount(double strokes, int runs) {
    if (runs < 1 || !(strokes > 0)) return std::nullopt;
    const boost::math::chi_squared chi(2.0 * runs);
    return Performed{2 * strokes / quantile(chi, highTail), 2 * strokes / quantile(chi, lowTail)};
}

std::optional<Performed> knownShare(int passed, int runs) {
    if (runs < 1 || passed < 0 || passed > runs) return std::nullopt;
    const double failed = runs - passed;
    return Performed{passed == 0 ? 0 : quantile(boost::math::beta_distribution<>(passed, failed + 1), lowTail),
                     failed == 0 ? 1 : quantile(boost::math::beta_distribution<>(passed + 1, failed), highTail)};
}

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
