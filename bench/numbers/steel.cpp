// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "bench/numbers/analyser.h"
#include "bench/numbers/figure.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>

namespace rollcall::numbers {

namespace {

constexpr std::array analysed{"Cr", "Ni", "Mo", "W", "V", "Co", "Cu", "Mn", "Nb", "Si"};

} // namespace

std::string residualFamily(const Grade& grade) {
    return grade.isStainless()                  ? "stainless"
           : grade.isHighSpeed()                ? "high speed"
           : grade.family.rfind("tool", 0) == 0 ? "tool"
                                                : "carbon";
}

Steel Analyser::steelOf(const Grade& grade) {
    // What practice leaves in, per cent, where a grade gives no limit.
    static const std::map<std::string, Steel> left{
        {"stainless", {{"Mo", 0.30}, {"V", 0.15}, {"Ni", 0.60}, {"W", 0.10}, {"Co", 0.10}, {"Cu", 0.40}}},
        {"high speed", {{"Co", 1.0}, {"Ni", 0.37}, {"Cu", 0.37}}},
        {"tool", {{"Ni", 0.37}, {"Cu", 0.37}, {"W", 0.30}, {"Mo", 0.20}, {"V", 0.15}, {"Co", 0.10}}},
        {"carbon", {{"Cr", 0.30}, {"Ni", 0.30}, {"Mo", 0.10}, {"V", 0.05}, {"Cu", 0.40}}}};
    const Steel& residuals = left.at(residualFamily(grade));
    Steel steel;
    for (const std::string element : analysed) {
        const auto limits = std::find_if(grade.composition.begin(), grade.composition.end(),
                                         [&](const ElementLimits& one) { return one.element == element; });
        if (limits != grade.composition.end()) {
            const double low = limits->low.value_or(0);
            const double high = limits->high.value_or(low * 1.6 + 0.05);
            steel[element] = low + (high - low) * m_even(m_random);
        } else if (const auto most = residuals.find(element); most != residuals.end()) {
            steel[element] = std::min(most->second, most->second / 3 * std::exp(0.8 * m_normal(m_random)));
        } else {
            steel[element] = (element == "Nb" ? 0.015 : 0.05) * m_even(m_random);
        }
    }
    return steel;
}

Steel Analyser::anySteel() {
    Steel steel;
    for (const std::string element : analysed) {
        double most = 0.1;
        for (const Grade& grade : m_tables.grades()) {
            for (const ElementLimits& one : grade.composition) {
                if (one.element == element) most = std::max(most, one.high.value_or(2 * one.low.value_or(0)));
            }
        }
        steel[element] = 1.5 * most * m_even(m_random);
    }
    return steel;
}

std::vector<ElementReading> Analyser::measure(const Steel& steel, AnalysisMethod method) {
    std::vector<ElementReading> readings;
    for (const auto& [element, truth] : steel) {
        const DetectionLimit* limit = m_tables.detection(method, element, truth);
        const double x = truth + limit->sigma * m_normal(m_random);
        ElementReading reading;
        reading.element = element;
        if (limit->lod && x < *limit->lod)
            reading.lod = *limit->lod;
        else
            reading.percent = std::max(0.0, x);
        readings.push_back(reading);
    }
    return readings;
}

namespace {

// A claim that this steel lies outside of by three uncertainties, and a little more, on an element that XRF sees well.
bool mustBeSeen(const Steel& steel, const Grade& claimed, const Tables& tables) {
    for (const ElementLimits& limits : claimed.composition) {
        const auto has = steel.find(limits.element);
        if (has == steel.end()) continue;
        if (limits.element == "Si" || limits.element == "P" || limits.element == "S" || limits.element == "Al" ||
            (limits.element == "Co" && has->second < 1))
            continue; // E15: it rejects nothing alone
        const DetectionLimit* detection = tables.detection(AnalysisMethod::xrf, limits.element, has->second);
        const double e = detection->sigma;
        const auto far = [&](double distance, double from) {
            return distance >= 3 * std::hypot(e, 0.03 * from) + 2.33 * e;
        };
        // Below the limit of detection only the distance from that limit is seen.
        const double seen = detection->lod ? std::max(has->second, *detection->lod) : has->second;
        if (limits.low && far(*limits.low - seen, *limits.low)) return true;
        if (limits.high && far(has->second - *limits.high, *limits.high)) return true;
    }
    return false;
}

// Of all shares that were said, how far those of a fifth lie from how often they were true; the worst of five. The bars
// are those that E49 expects: any steel of the library, those for blades and the others; one in twenty is anything, and
// of the low-alloyed one in five is a steel outside of the library that looks like one inside but for its carbon.
double sharesOff(const Tables& tables, int draws) {
    Analyser analyser(tables, 20261132);
    std::mt19937 random(20261133);
    std::array<double, 5> said{};
    std::array<double, 5> came{};
    std::array<int, 5> count{};
    const std::vector<Grade>& blades = tables.grades();
    const std::vector<Grade>& others = tables.otherSteels();
    for (int i = 0; i < draws; ++i) {
        const std::size_t at = random() % (blades.size() + others.size());
        const Grade& truth = at < blades.size() ? blades[at] : others[at - blades.size()];
        const bool lowAlloyed = truth.alloy_percent < 5;
        const bool outside = random() % (lowAlloyed ? 5 : 20) == 0;
        const Steel steel = outside && !lowAlloyed ? analyser.anySteel() : analyser.steelOf(truth);
        const auto ranked =
            rankGrades(analyser.measure(steel, AnalysisMethod::xrf), blades, tables, AnalysisMethod::xrf);
        for (const GradeCandidate& one : *ranked) {
            if (one.share < 0.02) continue;
            const auto fifth = static_cast<std::size_t>(std::min(4.0, std::floor(5 * one.share)));
            said[fifth] += one.share;
            came[fifth] += !outside && one.grade == &truth ? 1 : 0;
            ++count[fifth];
        }
    }
    double worst = 0;
    for (std::size_t k = 0; k < said.size(); ++k) {
        if (count[k] < 50) continue;
        worst = std::max(worst, std::abs(said[k] - came[k]) / count[k]);
    }
    return worst;
}

} // namespace

Figures steelFigures(int draws) {
    const Tables tables = Tables::load(ROLLCALL_DATA_DIR "/tables").value();
    Analyser analyser(tables, 20261127);
    const int bars = std::max(10, draws / 100);
    struct Count {
        int bad = 0;
        int all = 0;
        double share() const { return all > 0 ? double(bad) / all : 0; }
    };
    std::map<std::string, Count> rejected;
    Count missed;
    for (const Grade& grade : tables.grades()) {
        for (int i = 0; i < bars; ++i) {
            const Steel steel = analyser.steelOf(grade);
            const auto measured = analyser.measure(steel, AnalysisMethod::xrf);
            const auto claim = [&](const Grade& as) {
                return matchGrade(measured, as, tables, AnalysisMethod::xrf)->claim;
            };
            Count& family = rejected[residualFamily(grade)];
            family.bad += claim(grade) == Claim::notConsistent ? 1 : 0;
            ++family.all;
            for (const Grade& other : tables.grades()) {
                if (!mustBeSeen(steel, other, tables)) continue;
                missed.bad += claim(other) != Claim::notConsistent ? 1 : 0;
                ++missed.all;
            }
        }
    }
    Figures figures;
    for (const auto& [family, count] : rejected)
        figures.push_back(
            {fmt::format("steel: true grade called not consistent, {}", family), count.share(), 0, 0.01, count.all});
    figures.push_back({"steel: wrong claim outside by 3 u on an element that is seen, caught", 1 - missed.share(), 0.99,
                       1, missed.all});
    const int ranked = std::max(400, draws / 5);
    figures.push_back({"steel: shares of candidates, worst fifth from how often they are true",
                       sharesOff(tables, ranked), 0, 0.05, ranked});
    return figures;
}

} // namespace rollcall::numbers
