// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/numbers/figure.h"
#include "core/base/tables.h"
#include "core/heat/next_temper.h"

#include <cmath>
#include <fmt/format.h>
#include <random>

namespace rollcall::numbers {

namespace {

constexpr double readAs = 0.2; // HRC, standard uncertainty of a mean of three

// A shop's true curve: the library's, moved as M20 says that shops differ, and one heat of its blades.
struct Shop {
    const Grade& grade;
    TemperCurve curve;
    std::mt19937_64& random;
    std::normal_distribution<double> normal;
    double offset = 0;
    double slope = 0;
    double heat = 0;

    explicit Shop(const Grade& of, std::mt19937_64& from)
        : grade(of), curve(TemperCurve::of(of).value()), random(from) {
        offset = normal(random);
        slope = 1.5e-3 * normal(random);
        heat = 0.8 * normal(random);
    }
    double truth(double parameter, double blade, double pivot) const {
        return curve.at(parameter) + offset * curve.spreadAt(parameter) + slope * (parameter - pivot) + heat + blade;
    }
};

double parameterAt(const Grade& grade, double celsius) {
    return temperParameter(grade.hj_c, {{celsius, 2}}).value();
}

// Four siblings read after 175 degrees, one of them off; where a fifth, and one of the good ones, will be after 205.
double covered(const Grade& grade, double off, bool own, int draws, std::mt19937_64& random) {
    const double first = parameterAt(grade, 175);
    const double second = parameterAt(grade, 205);
    int inside = 0;
    for (int i = 0; i < draws; ++i) {
        Shop shop(grade, random);
        std::vector<TemperObservation> seen;
        double good = 0;
        for (int k = 0; k < 4; ++k) {
            const double blade = 0.35 * shop.normal(random);
            const double wrong = k > 0 ? 0 : random() % 2 == 0 ? off : -off;
            if (k == 1) good = blade;
            seen.push_back({"h", std::to_string(k), first,
                            shop.truth(first, blade, first) + wrong + readAs * shop.normal(random), readAs});
        }
        const TemperModel model = TemperModel::learn(grade, {}, seen).value();
        const double truth = shop.truth(second, own ? good : 0.35 * shop.normal(random), first);
        const TemperExpectation expect = model.expect(second, "h", own ? "1" : "new").value();
        inside += truth >= expect.low && truth <= expect.high ? 1 : 0;
    }
    return double(inside) / draws;
}

// Five siblings read after 150 degrees, each wrong one time in ten; the advised temper of a good one.
double tooSoft(const Grade& grade, const Window& window, int draws, std::mt19937_64& random) {
    const double first = parameterAt(grade, 150);
    int advised = 0;
    int soft = 0;
    for (int i = 0; i < 4 * draws && advised < draws; ++i) {
        Shop shop(grade, random);
        std::vector<TemperObservation> seen;
        double good = 0;
        for (int k = 0; k < 5; ++k) {
            const double blade = 0.35 * shop.normal(random);
            const double wrong = k == 0 || random() % 10 != 0 ? 0 : random() % 2 == 0 ? 3 : -3;
            if (k == 0) good = blade;
            seen.push_back({"h", std::to_string(k), first,
                            shop.truth(first, blade, first) + wrong + readAs * shop.normal(random), readAs});
        }
        if (shop.truth(first, good, first) < *window.low) continue; // no temper can end well
        const TemperModel model = TemperModel::learn(grade, {}, seen).value();
        TemperAim aim;
        aim.window = window;
        const auto advice = adviseTemper(model, grade, {"h", "0", {{150, 2}}}, aim);
        if (!advice || !advice->best) continue;
        ++advised;
        soft += shop.truth(advice->best->expect.parameter, good, first) < *window.low ? 1 : 0;
    }
    return double(soft) / std::max(1, advised);
}

} // namespace

Figures temperFigures(int draws) {
    std::mt19937_64 random(20261131);
    const Tables tables = Tables::load(ROLLCALL_DATA_DIR "/tables").value();
    const Grade& grade = *tables.grade("115CrV3");
    draws = std::max(400, draws / 4);
    Figures figures;
    for (const bool own : {false, true}) {
        const char* which = own ? "good sibling that was read" : "sibling that was not read";
        figures.push_back({fmt::format("temper: 95 % interval of a {}, four agree", which),
                           covered(grade, 0, own, draws, random), 0.9, 1, draws});
        figures.push_back({fmt::format("temper: 95 % interval of a {}, one of four off by 3", which),
                           covered(grade, 3, own, draws, random), 0.90, 1, draws});
        figures.push_back({fmt::format("temper: 95 % interval of a {}, one of four off by 6", which),
                           covered(grade, 6, own, draws, random), 0.88, 1, draws});
    }
    figures.push_back({"temper: advised ending too soft, one sibling in ten off by 3",
                       tooSoft(grade, {60, 62}, draws, random), 0, 0.12, draws});
    return figures;
}

} // namespace rollcall::numbers
