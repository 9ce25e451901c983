// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/second_opinion.h"

#include "core/judge/gates.h"
#include "core/measure/statistics.h"

#include <algorithm>

namespace rollcall {

namespace {

std::vector<const Reading*> readBy(const Blade& blade, Gate gate, const std::string& tester) {
    std::vector<const Reading*> readings;
    for (const Reading& r : blade.readings) {
        const bool now = r.gate == gate && r.round == blade.round && !r.struck && r.scale == "HRC" &&
                         (gate == Gate::quench || r.after_temper.value_or(0) == lastTemper(blade));
        if (now && r.tester == tester) readings.push_back(&r);
    }
    return readings;
}

double meanOfReadings(const std::vector<const Reading*>& readings) {
    std::vector<double> values;
    values.reserve(readings.size());
    for (const Reading* r : readings) values.push_back(r->value);
    return meanOf(values);
}

} // namespace

Result<SecondOpinion> secondOpinion(const Batch& batch, Gate gate, const std::string& testerA,
                                    const std::string& testerB) {
    SecondOpinion opinion;
    std::vector<double> a;
    std::vector<double> b;
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const std::vector<const Reading*> first = readBy(batch.blades[i], gate, testerA);
        const std::vector<const Reading*> second = readBy(batch.blades[i], gate, testerB);
        if (first.empty() || second.empty()) continue;
        opinion.blades.push_back(i);
        a.push_back(meanOfReadings(first));
        b.push_back(meanOfReadings(second));
        for (const Reading* r : first) opinion.readings_a.push_back(r->id);
        for (const Reading* r : second) opinion.readings_b.push_back(r->id);
    }
    Result<Comparison> comparison = compareTesters(a, b);
    if (!comparison) return Error{ErrorKind::range, "blades", "at least three blades read by both testers are needed"};
    opinion.comparison = std::move(comparison).value();
    return opinion;
}

std::vector<const Tester*> testersRead(const Batch& batch, Gate gate) {
    std::vector<const Tester*> testers;
    for (const Tester& tester : batch.testers) {
        const auto blades = std::count_if(batch.blades.begin(), batch.blades.end(),
                                          [&](const Blade& blade) { return !readBy(blade, gate, tester.id).empty(); });
        if (blades >= 3) testers.push_back(&tester);
    }
    return testers;
}

} // namespace rollcall
