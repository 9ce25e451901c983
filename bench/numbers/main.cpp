// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/numbers/figure.h"

#include <cstdlib>
#include <fmt/format.h>
#include <string>

// rollcall_numbers [what ...] [--draws N]: what the core's numbers are worth, as the table of docs/method.md.
int main(int argc, char** argv) {
    using namespace rollcall::numbers;
    struct Part {
        const char* name;
        Figures (*run)(int);
    };
    int draws = 20000;
    std::string wanted;
    for (int i = 1; i < argc; ++i) {
        const std::string word = argv[i];
        if (word == "--draws" && i + 1 < argc)
            draws = std::max(100, std::atoi(argv[++i]));
        else
            wanted += " " + word + " ";
    }
    Figures all;
    for (const Part& part : {
             Part{"measurement", measurementFigures},
             Part{"sampling", samplingFigures},
             Part{"drift", driftFigures},
             Part{"verification", verificationFigures},
             Part{"temper", temperFigures},
             Part{"steel", steelFigures},
             Part{"maker", makerFigures},
             Part{"grain", grainFigures},
         }) {
        if (!wanted.empty() && wanted.find(std::string(" ") + part.name + " ") == std::string::npos) continue;
        const Figures some = part.run(draws);
        all.insert(all.end(), some.begin(), some.end());
    }
    fmt::print("{}", asTable(all));
}
