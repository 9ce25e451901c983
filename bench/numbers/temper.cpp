// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/numbers/figure.h"
#include "core/base/tables.h"
#include "core/heat/next_temper.h"

#include <array>
#include <cmath>
#include <fmt/format.h>
#include <optional>
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

// E60. In a shop of one of ten grades: how often the 95 % interval of a blade's next temper holds, and how often it is
// too soft after the temper that is advised.
struct NextTempers {
    int asked = 0;
    int held = 0;
    int advised = 0;
    int soft = 0;
};

// library_off: how far the grade's table lies off in this shop, HRC; none: as far as its own spread says. siblings:
// read after a first temper; without any the blade asked about is fresh from the quench. What the quench left a blade
// off by stays in it by three to nine tenths at the curve's cool end and fades towards the hot one: the model takes
// six.
NextTempers nextTempers(const Grade& grade, std::optional<double> library_off, int siblings, int draws,
                        std::mt19937_64& random) {
    std::uniform_real_distribution<double> keeps(0.3, 0.9);
    const TemperCurve curve = TemperCurve::of(grade).value();
    const TemperHeat first{curve.points().front().temperature_c + (curve.points().front().tempers > 1 ? 25 : 0), 2};
    const TemperHeat second{first.temperature_c + 45, 2};
    const double before = temperParameter(grade.hj_c, {first}).value();
    const double after = siblings > 0 ? temperParameter(grade.hj_c, {first, second}).value()
                                      : temperParameter(grade.hj_c, {second}).value();
    const double pivot = siblings > 0 ? before : after;
    NextTempers count;
    for (int i = 0; i < draws; ++i) {
        Shop shop(grade, random);
        const double kept = keeps(random);
        const double quenchOff = 0.7 * shop.normal(random); // of the whole heat
        const auto truth = [&](double parameter, double blade, double quench) {
            const double share = (parameter - shop.curve.lowest()) / (shop.curve.highest() - shop.curve.lowest());
            const double moved =
                library_off ? *library_off + shop.curve.at(parameter) + shop.heat + shop.slope * (parameter - pivot)
                            : shop.truth(parameter, 0, pivot);
            return std::min(moved + blade + kept * (1 - share) * quench, grade.as_quenched_max);
        };
        std::vector<TemperObservation> seen;
        HardeningState state;
        double own = 0;
        double quench = 0;
        for (int k = 0; k <= siblings; ++k) { // the last is the one that is asked about
            own = 0.35 * shop.normal(random);
            quench = quenchOff + 0.4 * shop.normal(random);
            state.quench_hrc = grade.as_quenched_typical + quench + readAs * shop.normal(random);
            if (k == siblings) break;
            seen.push_back(
                {"h", std::to_string(k), before, truth(before, own, quench) + readAs * shop.normal(random), readAs});
            seen.back().hardened = state;
        }
        const TemperModel model = TemperModel::learn(grade, {}, seen).value();
        const TemperExpectation expect = model.expect(after, "h", "asked", &state).value();
        const double is = truth(after, own, quench);
        ++count.asked;
        count.held += is >= expect.low && is <= expect.high ? 1 : 0;
        TemperAim aim;
        aim.window = {curve.at(after) - 1, curve.at(after) + 1};
        TemperCandidate blade{"h", "asked", {}, state};
        if (siblings > 0) blade.tempers = {first};
        const auto advice = adviseTemper(model, grade, blade, aim);
        const double least = siblings > 0 ? before : std::max(curve.lowest(), parameterAt(grade, 150));
        const double now = truth(least, own, quench);
        if (!advice || !advice->best || now < *aim.window.low) continue; // no temper can end well
        ++count.advised;
        count.soft += truth(advice->best->expect.parameter, own, quench) < *aim.window.low ? 1 : 0;
    }
    return count;
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
    constexpr std::array grades{"1084", "1095",     "52100", "80CrV2", "115CrV3",
                                "O1",   "90MnCrV8", "A2",    "D2",     "X50CrMoV15"};
    for (const std::optional<double> off : {std::optional<double>(), std::optional(2.0), std::optional(-2.0)}) {
        for (const int siblings : {0, 3}) {
            double least = 1;
            double most = 0;
            double soft = 0;
            for (const char* name : grades) {
                const NextTempers one = nextTempers(*tables.grade(name), off, siblings, draws, random);
                const double held = double(one.held) / one.asked;
                least = std::min(least, held);
                most = std::max(most, held);
                soft = std::max(soft, double(one.soft) / std::max(1, one.advised));
            }
            const std::string where = fmt::format("ten grades, {}, library {}",
                                                  siblings > 0 ? "three siblings read" : "fresh from the quench",
                                                  !off       ? "off as it says"
                                                  : *off > 0 ? "2 too low"
                                                             : "2 too high");
            figures.push_back({fmt::format("temper: {}: 95 % interval, grade held least", where), least,
                               off ? 0.90 : 0.93, 1, draws});
            figures.push_back(
                {fmt::format("temper: {}: 95 % interval, grade held most", where), most, 0.9, off ? 1 : 0.97, draws});
            figures.push_back({fmt::format("temper: {}: advised ends too soft, worst grade", where), soft, 0,
                               off ? 0.15 : 0.10, draws});
        }
    }
    return figures;
}

} // namespace rollcall::numbers
