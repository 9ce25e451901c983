// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/instant.h"
#include "core/base/names.h"
#include "core/proof/edge.h"

#include <optional>
#include <string>
#include <vector>

namespace rollcall {

enum class EdgeGrind { flat, convex, hollow };
template<>
inline constexpr std::array namesOf<EdgeGrind>{"flat", "convex", "hollow"};

/// What an edge is like; two tests compare only as far as this does.
struct EdgeGeometry {
    double behind_edge_mm = 0.25;              ///< thickness where the edge bevel ends
    double angle_per_side_deg = 15;            ///< half the wedge
    EdgeGrind grind = EdgeGrind::flat;         ///< of the blade above it
    std::string finish;                        ///< the stone or belt it was left from
    std::optional<double> before_hardening_mm; ///< thickness left at the edge for the heat
    Instant at = {};                           ///< when it was measured

    /// Measured again without being re-ground: within 0.03 mm and 1 degree.
    bool same(const EdgeGeometry& other) const;
    /// At least as thick and as blunt as another, so that what the other held this one holds too.
    bool asStoutAs(const EdgeGeometry& other) const;
};

/// What an edge did on the rod.
enum class EdgeOutcome { held, set, roll, chip, crack };
template<>
inline constexpr std::array namesOf<EdgeOutcome>{"held", "set", "roll", "chip", "crack"};

/// One press of an edge on the rod.
struct EdgeRung {
    std::string id;
    int round = 1;                    ///< hardening round of the blade
    int after_temper = 0;             ///< number of the last temper before it
    std::optional<double> force_n;    ///< on the scale; none: by hand
    std::optional<double> raise_deg;  ///< from flat on the rod; none: about the sharpening angle
    std::optional<double> contact_mm; ///< none: not known, 3 is taken
    EdgeOutcome outcome = EdgeOutcome::held;
    std::optional<double> size_mm;  ///< depth of set, roll or chip, from the apex
    std::optional<double> place_mm; ///< along the blade from the heel
    bool sound = false;             ///< a tick or crack was heard
    bool struck = false;
    Instant at = {};

    /// Sets up to this deep are called tiny: the edge is as good as true (M28).
    static constexpr double tiny_mm = 0.05;
    /// Whether the edge failed: anything but true or a tiny set.
    bool failed() const {
        return outcome != EdgeOutcome::held && !(outcome == EdgeOutcome::set && size_mm.value_or(1) <= tiny_mm + 1e-9);
    }
};

/// What accounts for what an edge did (M27, M28).
enum class DamageCause {
    none,     ///< it held
    yields,   ///< metal this thin is expected to yield at this load
    geometry, ///< within the factor three of the estimate: load and thinness explain it
    heat,     ///< thicker metal failed: look at the heat treatment
    unknown   ///< nothing can be said: no size, no force, no geometry
};

/// One rung, worked out.
struct RungAnswer {
    std::size_t rung = 0; ///< index into the ladder
    std::optional<EdgeYield> expected;
    std::optional<double> damage_thickness_mm; ///< of the metal at the root of the damage
    DamageCause cause = DamageCause::none;
    bool gross = false; ///< under 45 N (10 lbf): grossly hard, brittle or soft
    bool local = false; ///< the same load or more was held elsewhere on this edge
};

/// A rung to take: force on the scale and angle.
struct EdgeLoadStep {
    double force_n = 90;
    double raise_deg = 45;
    friend bool operator==(const EdgeLoadStep&, const EdgeLoadStep&) = default;
};

/// A ladder of one edge, read as a whole.
struct LadderAnswer {
    std::vector<RungAnswer> rungs;    ///< those that stand, in the order taken
    std::optional<EdgeLoadStep> next; ///< the easiest rung towards the asked one that is neither answered nor beyond
                                      ///< a failure; none when the asked one is answered
    bool asked_held = false;          ///< the asked rung or a harder one was held
    bool asked_failed = false;        ///< a rung no harder than the asked one failed
    std::optional<double> highest_held_depth_mm; ///< the deepest yield expected of a load that was held
    bool strong = false;                         ///< true at three times the load that should mark it by 0.05 mm (M28)
    bool weak = false;                           ///< all that was held was too light to mark this geometry: says little
    std::optional<EdgeLoadStep> meaningful;      ///< where a held edge would begin to mean something; with weak
};

/// Forces and angles of the ladder's grid, with the asked rung's own put in.
struct LadderGrid {
    std::vector<double> forces_n;
    std::vector<double> raises_deg; ///< only those over the edge's own angle load its apex
};
LadderGrid ladderGrid(const std::optional<EdgeGeometry>& geometry, const EdgeLoadStep& asked);

/// M27, M28. Reads a ladder: damage is compared as thickness of the metal at its root, depth * 2 tan(angle), with the
/// thickness expected to yield. Without geometry or hardness nothing is explained and the causes are unknown. A rung is
/// no harder than another when neither force nor angle is larger (within 3 % and 1°): as makers climb the ladder; the
/// sideways load of the estimate falls with the cosine of the raise, which its factor of three covers.
LadderAnswer readLadder(const Tables& tables, const std::optional<EdgeGeometry>& geometry, std::optional<double> hrc,
                        const std::vector<EdgeRung>& rungs, const EdgeLoadStep& asked);

/// The yield expected of a rung; none where it cannot be reckoned.
std::optional<EdgeYield> expectedYield(const Tables& tables, const std::optional<EdgeGeometry>& geometry,
                                       std::optional<double> hrc, double force_n, double raise_deg,
                                       std::optional<double> contact_mm = std::nullopt);

} // namespace rollcall
