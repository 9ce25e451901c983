// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/heat/warp.h"

#include "core/base/number.h"

#include <algorithm>
#include <fmt/format.h>
#include <set>

namespace rollcall {

Result<std::vector<StackPlace>> stackPlan(const std::vector<Warp>& warps) {
    std::set<std::string> names;
    for (const Warp& warp : warps) {
        if (!(warp.mm >= 0 && warp.mm <= 50))
            return Error{ErrorKind::range, warp.blade, "a warp lies between 0 and 50 mm"};
        if (!names.insert(warp.blade).second) return Error{ErrorKind::range, warp.blade, "this blade is named twice"};
    }
    std::vector<Warp> sorted = warps;
    std::stable_sort(sorted.begin(), sorted.end(), [](const Warp& a, const Warp& b) { return a.mm > b.mm; });
    std::vector<StackPlace> places;
    for (std::size_t i = 0; i < sorted.size(); ++i) {
        // The first blade lies as it is; its high side faces the second, whose high side faces back.
        const bool facesOn = i % 2 == 0;
        const bool asFirst = sorted[i].high == sorted.front().high;
        const bool lastOfPair = i % 2 == 1;
        const double shim = lastOfPair && i + 1 < sorted.size() ? std::max(sorted[i].mm, sorted[i + 1].mm) : 0.0;
        places.push_back({sorted[i].blade, sorted[i].mm > 0 && asFirst != facesOn, shim});
    }
    return places;
}

Result<std::vector<Warp>> parseWarps(std::string_view text) {
    std::vector<Warp> warps;
    for (const std::string& part : split(text, ',')) {
        const Error malformed{ErrorKind::argument, part, "a warp is written MARK=1.2L, with L or R for the high side"};
        const std::size_t equals = part.find('=');
        if (equals == std::string::npos || equals == 0 || equals + 2 > part.size()) return malformed;
        const char side = part.back();
        const bool flat = side != 'L' && side != 'l' && side != 'R' && side != 'r';
        const std::string size = part.substr(equals + 1, part.size() - equals - (flat ? 1 : 2));
        const Result<double> mm = parseQuantity(size, Quantity::length);
        if (!mm || (flat && *mm != 0)) return malformed;
        warps.push_back({std::string(trimmed(part.substr(0, equals))), *mm,
                         side == 'R' || side == 'r' ? WarpSide::right : WarpSide::left});
    }
    if (warps.empty()) return Error{ErrorKind::argument, "", "no blade is given"};
    return warps;
}

} // namespace rollcall
