// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/tables.h"

#include <optional>

namespace rollcall {

/// How an edge is pressed on a rod, and what it is.
struct EdgeLoad {
    double hrc = 60;
    double angle_per_side_deg = 15; ///< half the wedge
    double behind_edge_mm = 0.25;   ///< thickness where the edge bevel ends
    double force_n = 0;             ///< on the scale
    double raise_deg = 0;           ///< of the blade from flat on the rod
    double contact_mm = 3;          ///< length of the contact; 3 when it is not known
};

/// M27. What the load is expected to do to a symmetric wedge: an estimate to a factor of three.
struct EdgeYield {
    double line_load_n_per_mm = 0;        ///< across the edge
    double yield_thickness_mm = 0;        ///< metal thinner than this is expected to yield
    std::optional<double> yield_depth_mm; ///< down from the apex; none where the load exceeds the edge bevel
};

/// M27. q = F cos(raise) / contact; sigma = 9.807 HV / 3 MPa; t = 3 q / (sigma tan(angle)); depth = t / (2 tan(angle)).
/// 133 N, 25°, HRC 60, 15°, 3 mm: q 40.2, t 0.197, depth 0.368. Errors (range): raised no more than the edge's own
/// angle (the apex is not loaded), angles outside 1 to 45 and 90°, force or contact not positive, hardness outside the
/// conversion table.
Result<EdgeYield> edgeYield(const Tables& tables, const EdgeLoad& load);

} // namespace rollcall
