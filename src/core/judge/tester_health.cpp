// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/tester_health.h"

#include "core/base/number.h"
#include "core/measure/statistics.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace rollcall {

TesterHealth testerHealth(const Tester& tester, const std::vector<Verification>& runs, const Tables& tables,
                          const Instant& now, const std::string& block) {
    TesterHealth health;
    if (tester.kind == TesterKind::files || tester.kind == TesterKind::other) {
        health.state = State::excused;
        return health;
    }
    struct Run {
        const Verification* run;
        VerificationAnswer answer;
    };
    std::vector<Run> own;
    for (const Verification& run : runs) {
        if (run.tester != tester.id || !run.time) continue;
        const Result<VerificationAnswer> answer = verifyTester(tables, run.scale, run.certified, run.readings);
        if (answer) own.push_back({&run, *answer});
    }
    if (own.empty()) return health;
    std::stable_sort(own.begin(), own.end(),
                     [](const Run& a, const Run& b) { return a.run->time->utc_ms < b.run->time->utc_ms; });
    const Run& last = own.back();
    health.last = last.run;
    health.answer = last.answer;
    health.other_setting = last.run->indenter != tester.indenter || last.run->anvil != tester.anvil;
    health.today = last.run->time->localDay() == now.localDay() && !health.other_setting;
    health.state = !health.today ? State::notYet : last.answer.ok ? State::pass : State::fail;
    for (auto run = own.rbegin(); run != own.rend() && !run->answer.ok; ++run) ++health.failed_in_row;

    std::map<std::string, int> runsOn;
    for (const Run& run : own) {
        const int count = ++runsOn[run.run->block];
        if (!block.empty() ? run.run->block != block : count < runsOn[health.block]) continue;
        health.block = run.run->block;
        health.allowed_error = run.answer.max_error;
        health.allowed_spread = run.answer.max_repeatability;
    }
    std::vector<ControlPoint> recent;
    for (const Run& run : own) {
        if (run.run->block != health.block) continue;
        const ControlPoint error{static_cast<double>(run.run->time->localDay()), run.answer.error};
        health.errors.push_back(error);
        health.spreads.push_back({error.day, run.answer.repeatability});
        if (static_cast<double>(now.localDay()) - error.day <= driftWeeks * 7.0) recent.push_back(error);
    }
    health.limits = controlLimits(health.errors);
    health.drift = driftOf(recent);
    if (health.drift)
        health.weeks_left =
            weeksUntil(*health.drift, health.drift->per_week > 0 ? health.allowed_error : -health.allowed_error);
    return health;
}

Result<BlockLife> blockLife(const BlockFace& face, int used, const std::vector<Verification>& runs,
                            const Instant& now) {
    Result<std::vector<Spot>> places = blockPlaces(face);
    if (!places) return places.error();
    constexpr int lookBackDays = 91;
    constexpr double daysInMonth = 30.4;
    BlockLife life;
    life.places = std::move(places).value();
    const int all = static_cast<int>(life.places.size());
    life.used = std::min(used, all);
    life.free = all - life.used;
    int recent = 0;
    for (const Verification& run : runs) {
        if (run.time && now.localDay() - run.time->localDay() <= lookBackDays)
            recent += static_cast<int>(run.readings.size());
    }
    life.per_month = recent * daysInMonth / lookBackDays;
    if (recent > 0) life.months_left = life.free / life.per_month;
    life.nearly_full = atLeast(life.used, blockNearlyFull * all);
    return life;
}

BlockAdvice adviseBlocks(const std::vector<double>& certified, double work) {
    constexpr double near = 5.0; // HRC
    BlockAdvice advice;
    if (certified.empty()) return advice;
    std::optional<std::size_t> nearest, below, above;
    const auto away = [&](std::size_t i) { return std::abs(certified[i] - work); };
    for (std::size_t i = 0; i < certified.size(); ++i) {
        if (!nearest || away(i) < away(*nearest)) nearest = i;
        std::optional<std::size_t>& side = certified[i] < work ? below : above;
        if (!side || away(i) < away(*side)) side = i;
    }
    if (atMost(away(*nearest), near)) {
        advice.kind = BlockAdvice::Kind::near;
        advice.blocks = {*nearest};
    } else if (below && above) {
        advice.kind = BlockAdvice::Kind::bracket;
        advice.blocks = {*below, *above};
    } else {
        advice.kind = BlockAdvice::Kind::far;
        advice.blocks = {*nearest};
    }
    return advice;
}

Batch withError(const Batch& batch, const std::string& tester, std::int64_t localDay, double error) {
    Batch changed = batch;
    // The error is the one that was asked about: earlier runs do not draw it elsewhere (E3).
    std::erase_if(changed.verifications, [&](const Verification& run) {
        return run.tester == tester && run.time && run.time->localDay() < localDay;
    });
    for (Verification& run : changed.verifications) {
        if (run.tester != tester || !run.time || run.time->localDay() != localDay || run.readings.empty()) continue;
        run.certified = meanOf(run.readings) - error;
    }
    return changed;
}

} // namespace rollcall
