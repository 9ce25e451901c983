// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/proof/edge_ladder.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <numbers>

namespace rollcall {

namespace {
constexpr double sameThickness_mm = 0.03;
constexpr double sameAngle_deg = 1;
} // namespace

bool EdgeGeometry::same(const EdgeGeometry& other) const {
    return grind == other.grind && std::abs(behind_edge_mm - other.behind_edge_mm) <= sameThickness_mm &&
           std::abs(angle_per_side_deg - other.angle_per_side_deg) <= sameAngle_deg;
}

bool EdgeGeometry::asStoutAs(const EdgeGeometry& other) const {
    return behind_edge_mm >= other.behind_edge_mm - sameThickness_mm &&
           angle_per_side_deg >= other.angle_per_side_deg - sameAngle_deg;
}

namespace {

constexpr double factor = 3;          // of the estimate, M27
constexpr double grossForce_n = 44.5; // 10 lbf: M28
constexpr double hair = 1e-9;

double thicknessAt(const EdgeGeometry& geometry, double depth_mm) {
    return depth_mm * 2 * std::tan(geometry.angle_per_side_deg * std::numbers::pi / 180);
}

// Within what a hand holds and a scale shows: 3 % of force, a degree.
bool noHarder(double force, double raise, const EdgeLoadStep& than) {
    return force * 0.97 <= than.force_n + hair && raise - 1 <= than.raise_deg + hair;
}

bool noHarder(const EdgeRung& rung, const EdgeRung& than) {
    return rung.force_n && rung.raise_deg && than.force_n && than.raise_deg &&
           noHarder(*rung.force_n, *rung.raise_deg, {*than.force_n, *than.raise_deg});
}

void put(std::vector<double>& values, double value) {
    const auto at = std::lower_bound(values.begin(), values.end(), value - hair);
    if (at == values.end() || std::abs(*at - value) > hair) values.insert(at, value);
}

RungAnswer answerOf(const Tables& tables, const std::optional<EdgeGeometry>& geometry, std::optional<double> hrc,
                    const EdgeRung& rung) {
    RungAnswer answer;
    if (rung.force_n && rung.raise_deg)
        answer.expected = expectedYield(tables, geometry, hrc, *rung.force_n, *rung.raise_deg, rung.contact_mm);
    if (!rung.failed()) return answer;
    if (rung.size_mm && geometry) answer.damage_thickness_mm = thicknessAt(*geometry, *rung.size_mm);
    if (!answer.expected || !answer.damage_thickness_mm) {
        answer.cause = DamageCause::unknown;
        return answer;
    }
    const double ratio = *answer.damage_thickness_mm / answer.expected->yield_thickness_mm;
    answer.cause = ratio <= 1 + hair        ? DamageCause::yields
                   : ratio <= factor + hair ? DamageCause::geometry
                                            : DamageCause::heat;
    answer.gross = answer.cause == DamageCause::heat && *rung.force_n < grossForce_n;
    return answer;
}

} // namespace

std::optional<EdgeYield> expectedYield(const Tables& tables, const std::optional<EdgeGeometry>& geometry,
                                       std::optional<double> hrc, double force_n, double raise_deg,
                                       std::optional<double> contact_mm) {
    if (!geometry || !hrc) return std::nullopt;
    EdgeLoad load{*hrc, geometry->angle_per_side_deg, geometry->behind_edge_mm, force_n, raise_deg};
    if (contact_mm) load.contact_mm = *contact_mm;
    const Result<EdgeYield> yield = edgeYield(tables, load);
    if (!yield) return std::nullopt;
    return *yield;
}

LadderGrid ladderGrid(const std::optional<EdgeGeometry>& geometry, const EdgeLoadStep& asked) {
    LadderGrid grid{{45, 90, 135, 200}, {}};
    put(grid.forces_n, asked.force_n);
    for (const double raise : {15.0, 25.0, 35.0, 45.0, asked.raise_deg}) {
        if (!geometry || raise > geometry->angle_per_side_deg + hair) put(grid.raises_deg, raise);
    }
    return grid;
}

LadderAnswer readLadder(const Tables& tables, const std::optional<EdgeGeometry>& geometry, std::optional<double> hrc,
                        const std::vector<EdgeRung>& rungs, const EdgeLoadStep& asked) {
    LadderAnswer ladder;
    const auto held = [&](double force, double raise) {
        return std::any_of(rungs.begin(), rungs.end(), [&](const EdgeRung& r) {
            return !r.struck && !r.failed() && r.force_n && r.raise_deg &&
                   noHarder(force, raise, {*r.force_n, *r.raise_deg});
        });
    };
    const auto beyondFailure = [&](double force, double raise) {
        return std::any_of(rungs.begin(), rungs.end(), [&](const EdgeRung& r) {
            return !r.struck && r.failed() && r.force_n && r.raise_deg &&
                   noHarder(*r.force_n, *r.raise_deg, {force, raise});
        });
    };
    bool meantSomething = false;
    for (std::size_t i = 0; i < rungs.size(); ++i) {
        const EdgeRung& rung = rungs[i];
        if (rung.struck) continue;
        RungAnswer answer = answerOf(tables, geometry, hrc, rung);
        answer.rung = i;
        if (rung.failed()) {
            // Two other places that took as much make a damage local: a blister, an overheated patch.
            const auto elsewhere = std::count_if(rungs.begin(), rungs.end(), [&](const EdgeRung& other) {
                return !other.struck && !other.failed() && other.place_mm && rung.place_mm &&
                       std::abs(*other.place_mm - *rung.place_mm) > 2 && noHarder(rung, other);
            });
            answer.local = elsewhere >= 2;
            if (rung.force_n && rung.raise_deg && noHarder(*rung.force_n, *rung.raise_deg, asked))
                ladder.asked_failed = true;
        } else if (answer.expected) {
            // Deeper than the bevel counts as far as it goes.
            const double depth = answer.expected->yield_thickness_mm /
                                 (2 * std::tan(geometry->angle_per_side_deg * std::numbers::pi / 180));
            ladder.highest_held_depth_mm = std::max(ladder.highest_held_depth_mm.value_or(0), depth);
            meantSomething = meantSomething || depth >= EdgeRung::tiny_mm;
        }
        ladder.rungs.push_back(std::move(answer));
    }
    ladder.asked_held = held(asked.force_n, asked.raise_deg);
    ladder.strong = ladder.highest_held_depth_mm && *ladder.highest_held_depth_mm >= factor * EdgeRung::tiny_mm - hair;
    const bool anyFailed = std::any_of(ladder.rungs.begin(), ladder.rungs.end(),
                                       [&](const RungAnswer& a) { return rungs[a.rung].failed(); });
    ladder.weak = !ladder.rungs.empty() && !anyFailed && !meantSomething;
    const LadderGrid grid = ladderGrid(geometry, asked);
    if (ladder.weak) {
        for (const double force : grid.forces_n) {
            const auto yield = expectedYield(tables, geometry, hrc, force, asked.raise_deg);
            if (!yield || thicknessAt(*geometry, EdgeRung::tiny_mm) > yield->yield_thickness_mm) continue;
            ladder.meaningful = EdgeLoadStep{force, asked.raise_deg};
            break;
        }
    }
    if (ladder.asked_held) return ladder;
    std::size_t easiest = std::numeric_limits<std::size_t>::max();
    for (std::size_t r = 0; r < grid.raises_deg.size(); ++r) {
        for (std::size_t f = 0; f < grid.forces_n.size(); ++f) {
            const double force = grid.forces_n[f];
            const double raise = grid.raises_deg[r];
            if (!noHarder(force, raise, asked) || held(force, raise) || beyondFailure(force, raise)) continue;
            if (f + r >= easiest) continue;
            easiest = f + r;
            ladder.next = EdgeLoadStep{force, raise};
        }
    }
    return ladder;
}

} // namespace rollcall
