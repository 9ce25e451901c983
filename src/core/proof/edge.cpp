// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/proof/edge.h"

#include "core/measure/rockwell.h"

#include <cmath>
#include <numbers>

namespace rollcall {

Result<EdgeYield> edgeYield(const Tables& tables, const EdgeLoad& load) {
    const auto out = [](const char* text) { return Error{ErrorKind::range, "", text}; };
    if (!(load.angle_per_side_deg >= 1 && load.angle_per_side_deg <= 45))
        return out("the angle per side lies between 1 and 45 degrees");
    if (!(load.raise_deg >= 0 && load.raise_deg < 90)) return out("the blade is raised by 0 to 90 degrees");
    if (!(load.force_n > 0 && load.force_n <= 5000)) return out("the force lies between 0 and 5000 N");
    if (!(load.contact_mm > 0 && load.contact_mm <= 100)) return out("the contact is longer than 0 and at most 100 mm");
    if (!(load.behind_edge_mm > 0 && load.behind_edge_mm <= 10))
        return out("the thickness behind the edge lies between 0 and 10 mm");
    if (load.raise_deg <= load.angle_per_side_deg)
        return out("raised no more than the edge's own angle the apex is not loaded: no estimate");
    const Result<Converted> vickers = convertHardness(tables, "HRC", load.hrc, "HV");
    if (!vickers) return vickers.error();
    constexpr double degree = std::numbers::pi / 180;
    const double slope = std::tan(load.angle_per_side_deg * degree);
    const double strength = 9.807 * vickers->value / 3; // MPa: a third of the hardness
    EdgeYield yield;
    yield.line_load_n_per_mm = load.force_n * std::cos(load.raise_deg * degree) / load.contact_mm;
    yield.yield_thickness_mm = 3 * yield.line_load_n_per_mm / (strength * slope);
    if (yield.yield_thickness_mm <= load.behind_edge_mm) yield.yield_depth_mm = yield.yield_thickness_mm / (2 * slope);
    return yield;
}

} // namespace rollcall
