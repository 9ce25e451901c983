// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/ledger/shop_series.h"

#include "core/measure/indent.h"
#include "core/measure/statistics.h"

#include <algorithm>
#include <boost/math/distributions/binomial.hpp>
#include <cmath>

namespace rollcall {

namespace {

constexpr std::size_t fewestValues = 4;
constexpr int weekDays = 7;
constexpr int weeksBefore = 12;

void append(ShopSeries& series, const HeatMean& heat, double value) {
    series.days.push_back(static_cast<double>(heat.batch->day()));
    series.values.push_back(value);
    series.batches.push_back(heat.batch);
    series.blades.push_back(heat.blade);
}

// The last temper of each heat that was read.
std::vector<HeatMean> lastOnly(const std::vector<HeatMean>& heats) {
    std::map<std::pair<const LedgerBatch*, int>, int> last;
    for (const HeatMean& heat : heats) {
        int& temper = last[{heat.batch, heat.round}];
        temper = std::max(temper, heat.temper);
    }
    std::vector<HeatMean> kept;
    std::copy_if(heats.begin(), heats.end(), std::back_inserter(kept), [&](const HeatMean& heat) {
        return last.at({heat.batch, heat.round}) == heat.temper;
    });
    return kept;
}

// HRC for ten degrees at the last temper of a heat.
std::optional<double> perTenDegrees(const TemperCurve& curve, const HeatMean& heat) {
    if (heat.last_c <= 0) return std::nullopt;
    constexpr double by = 10;
    const double kelvin = heat.last_c + 273.15;
    const double then = heat.parameter * (kelvin + by) / kelvin;
    if (!curve.reaches(then)) return std::nullopt;
    return curve.at(then) - curve.at(heat.parameter);
}

std::vector<WeekBlock> toOrder(const std::vector<BlockUse>& blocks, const Tables& tables,
                               const std::vector<Verification>& runs, const Instant& now) {
    std::vector<WeekBlock> wanted;
    for (const BlockUse& block : blocks) {
        const auto indent = indentDiameter(tables, block.scale, block.certified);
        if (!indent) continue;
        std::vector<Verification> own;
        std::copy_if(runs.begin(), runs.end(), std::back_inserter(own),
                     [&](const Verification& run) { return run.block == block.name; });
        const auto life = blockLife({block.diameter_mm, block.spacing_mm, *indent}, block.used, own, now);
        if (life && life->toOrder()) wanted.push_back({block.name, life->months_left});
    }
    return wanted;
}

} // namespace

std::vector<ShopSeries> shopSeries(const Ledger& ledger, const Tables& tables, const std::vector<Tester>& testers,
                                   const std::vector<Verification>& runs, const Instant& now) {
    using Kind = ShopSeries::Kind;
    std::map<std::string, ShopSeries> ovens;
    std::map<std::string, std::vector<double>> slopes;
    std::vector<ShopSeries> grades;
    for (const std::string& name : ledger.grades()) {
        const Grade* grade = tables.grade(name);
        if (grade == nullptr) continue;
        const auto curve = TemperCurve::of(*grade);
        const std::vector<HeatMean> heats = lastOnly(heatsTempered(ledger, *grade));
        double usual = 0;
        for (const HeatMean& heat : heats) usual += heat.from_library / static_cast<double>(heats.size());
        ShopSeries tempered{Kind::tempered, name, {}, {}, {}, {}, {}, {}};
        for (const HeatMean& heat : heats) {
            append(tempered, heat, heat.from_library);
            if (heat.batch->oven.empty()) continue;
            ShopSeries& oven = ovens[heat.batch->oven];
            oven.kind = Kind::oven;
            oven.name = heat.batch->oven;
            append(oven, heat, heat.from_library - usual);
            if (!curve) continue;
            if (const auto slope = perTenDegrees(*curve, heat)) slopes[oven.name].push_back(*slope);
        }
        grades.push_back(std::move(tempered));
        ShopSeries quenched{Kind::quenched, name, {}, {}, {}, {}, {}, {}};
        for (const HeatMean& heat : heatsQuenched(ledger, *grade)) append(quenched, heat, heat.from_library);
        grades.push_back(std::move(quenched));
    }
    std::vector<ShopSeries> all;
    for (auto& [name, oven] : ovens) {
        // Grades one after the other: put in order of time.
        std::vector<std::size_t> order(oven.days.size());
        for (std::size_t i = 0; i < order.size(); ++i) order[i] = i;
        std::stable_sort(order.begin(), order.end(),
                         [&o = oven](std::size_t a, std::size_t b) { return o.days[a] < o.days[b]; });
        ShopSeries sorted{Kind::oven, name, {}, {}, {}, {}, {}, {}};
        for (const std::size_t i : order) {
            sorted.days.push_back(oven.days[i]);
            sorted.values.push_back(oven.values[i]);
            sorted.batches.push_back(oven.batches[i]);
            sorted.blades.push_back(oven.blades[i]);
        }
        if (!slopes[name].empty()) sorted.per_ten_degrees = medianOf(slopes[name]);
        all.push_back(std::move(sorted));
    }
    for (ShopSeries& series : grades) all.push_back(std::move(series));
    for (const Tester& tester : testers) {
        if (tester.kind != TesterKind::bench && tester.kind != TesterKind::rebound) continue;
        const TesterHealth health = testerHealth(tester, runs, tables, now);
        ShopSeries series{Kind::tester, tester.name, health.block, {}, {}, {}, {}, {}};
        for (const ControlPoint& point : health.errors) {
            series.days.push_back(point.day);
            series.values.push_back(point.value);
        }
        all.push_back(std::move(series));
    }
    std::erase_if(all, [](const ShopSeries& series) { return series.values.size() < fewestValues; });
    return all;
}

SeriesSays saysOf(const ShopSeries& series) {
    SeriesSays says;
    if (series.values.empty()) return says;
    says.mean = meanOf(series.values);
    if (const auto sd = sampleSd(series.values)) {
        const double n = static_cast<double>(series.values.size());
        const double half = tQuantile(0.975, n - 1) * *sd / std::sqrt(n);
        says.known = Interval{says.mean - half, says.mean + half};
    }
    says.chart = individualsOf(series.values);
    if (says.chart) says.cumulative = cumulativeOf(series.values, *says.chart);
    std::vector<ControlPoint> points;
    constexpr double year = 7.0 * driftWeeks;
    for (std::size_t i = 0; i < series.values.size(); ++i) {
        if (series.days[i] >= series.days.back() - year) points.push_back({series.days[i], series.values[i]});
    }
    says.drift = driftOf(points);
    constexpr double leastSlope = 0.05; // flatter than that a hardness tells nothing of a temperature
    if (series.per_ten_degrees && std::abs(*series.per_ten_degrees) >= leastSlope && says.known) {
        const double perDegree = *series.per_ten_degrees / 10;
        says.hotter_c = says.mean / perDegree;
        says.hotter_known = Interval{std::min(says.known->low / perDegree, says.known->high / perDegree),
                                     std::max(says.known->low / perDegree, says.known->high / perDegree)};
    }
    return says;
}

Week weekOf(const Ledger& ledger, const Tables& tables, const std::vector<Tester>& testers,
            const std::vector<Verification>& runs, const std::vector<BlockUse>& blocks, const Instant& now) {
    Week week;
    week.last_day = now.localDay();
    week.blocks = toOrder(blocks, tables, runs, now);
    const std::int64_t from = week.last_day - weekDays + 1;
    Ledger ours;
    int passed = 0;
    int of = 0;
    int passedBefore = 0;
    int ofBefore = 0;
    std::map<std::string, bool> used; // testers by name
    for (const LedgerBatch* batch : ledger.batches()) {
        if (batch->day() > week.last_day) continue;
        const bool now_ = batch->day() >= from;
        if (!now_ && batch->day() < from - weeksBefore * weekDays) continue;
        if (now_) {
            week.worked.push_back(batch);
            week.blades += static_cast<int>(batch->blades.size());
            week.readings += batch->readings;
            used[batch->tester] = true;
            ours.put(*batch);
        }
        for (const LedgerBlade& blade : batch->blades) {
            const auto once = passedAtOnce(blade);
            if (!once) continue;
            (now_ ? passed : passedBefore) += *once ? 1 : 0;
            ++(now_ ? of : ofBefore);
        }
    }
    week.passed = Share::from(passed, of);
    week.before = Share::from(passedBefore, ofBefore);
    if (of > 0 && ofBefore > 0) {
        // What was usual is not known better than its own count: one blade more on either side (Laplace).
        const double usual = (passedBefore + 1.0) / (ofBefore + 2.0);
        const boost::math::binomial chance(of, usual);
        const double few = cdf(chance, passed);
        const double many = passed == 0 ? 1.0 : cdf(complement(chance, passed - 1));
        week.chance = std::min(1.0, 2 * std::min(few, many));
    }
    week.causes = yieldLedger(ours, {}).causes;
    for (YieldLedger::Cause& cause : week.causes) {
        for (const LedgerBatch*& batch : cause.batches) batch = ledger.batch(batch->id);
    }
    week.series = shopSeries(ledger, tables, testers, runs, now);
    for (const ShopSeries& series : week.series) {
        const SeriesSays says = saysOf(series);
        if (!says.chart || series.days.back() < static_cast<double>(from)) continue;
        const auto signal =
            std::find_if(says.chart->alarms.rbegin(), says.chart->alarms.rend(),
                         [&](const RunSignal& one) { return series.days[one.at] >= static_cast<double>(from); });
        if (signal != says.chart->alarms.rend())
            week.shifted.push_back({&series, *signal, false});
        else if (says.cumulative && says.cumulative->signal &&
                 series.days[*says.cumulative->signal] >= static_cast<double>(from))
            week.shifted.push_back({&series, {*says.cumulative->signal, RunRule::beyond, says.cumulative->side}, true});
    }
    for (const Tester& tester : testers) {
        if (tester.kind != TesterKind::bench && tester.kind != TesterKind::rebound) continue;
        const TesterHealth health = testerHealth(tester, runs, tables, now);
        WeekTester one{tester.name, std::nullopt, false, 0, health.weeks_left};
        if (health.last != nullptr && health.last->time)
            one.days_since = static_cast<int>(week.last_day - health.last->time->localDay());
        if (health.drift && health.drift->likely) {
            one.drifting = true;
            one.per_week = health.drift->per_week;
            week.drifting.push_back(one);
        }
        if (used.contains(tester.name) && (!one.days_since || *one.days_since >= weekDays)) week.overdue.push_back(one);
    }
    return week;
}

} // namespace rollcall
