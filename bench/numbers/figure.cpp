// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/numbers/figure.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace rollcall::numbers {

double Figure::chance() const {
    if (!share || draws < 1) return 0;
    const double p = std::clamp(value, 0.02, 0.98);
    return 3 * std::sqrt(p * (1 - p) / draws);
}

std::string asTable(const Figures& figures) {
    std::string text = "| what | asked | found | draws |\n|---|---|---|---|\n";
    for (const Figure& one : figures) {
        const auto number = [&](double x) {
            return one.share ? fmt::format("{:.1f} %", 100 * x) : fmt::format("{:.2f}", x);
        };
        const bool below = one.share ? one.least <= 0 : one.least <= -1e6;
        const bool above = one.share ? one.most >= 1 : one.most >= 1e6;
        const std::string asked = below && above ? "–"
                                  : below        ? "at most " + number(one.most)
                                  : above        ? "at least " + number(one.least)
                                                 : number(one.least) + " to " + number(one.most);
        text += fmt::format("| {} | {} | {}{} | {} |\n", one.what, asked, number(one.value),
                            one.kept(0) ? "" : ", **not kept**", one.draws);
    }
    return text;
}

} // namespace rollcall::numbers
