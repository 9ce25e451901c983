// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/verification.h"
#include "bench/numbers/figure.h"

#include <cmath>
#include <fmt/format.h>
#include <random>

namespace rollcall::numbers {

// A tester without any error that scatters by 0.3, on a block at 62.6 (0.5 error and a spread of 1.0 are allowed).
Figures verificationFigures(int draws) {
    std::mt19937_64 random(20261130);
    std::normal_distribution<double> normal;
    const Tables tables = Tables::load(ROLLCALL_DATA_DIR "/tables").value();
    Figures figures;
    for (const double sigma : {0.2, 0.3}) {
        for (const int n : {2, 3, 5, 7}) {
            int refused = 0;
            for (int i = 0; i < draws; ++i) {
                std::vector<double> readings;
                for (int k = 0; k < n; ++k) readings.push_back(std::round((62.6 + sigma * normal(random)) * 10) / 10);
                refused += verifyTester(tables, "HRC", 62.6, readings)->ok ? 0 : 1;
            }
            figures.push_back({fmt::format("perfect tester that scatters {:g}, {} block readings, refused", sigma, n),
                               double(refused) / draws, 0, 1, draws});
        }
    }
    return figures;
}

} // namespace rollcall::numbers
