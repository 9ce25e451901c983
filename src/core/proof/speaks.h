// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/names.h"

#include <optional>
#include <string>
#include <vector>

namespace rollcall {

/// What a piece is and what was done to it, as far as it is known.
struct PieceFacts {
    std::string mark;
    std::string batch;
    std::string grade;
    std::string lot;
    std::string recipe;                   ///< name and version
    std::string heat;                     ///< id of the run
    std::string tempers;                  ///< "190 °C 2 h, 207 °C 2 h"
    std::string spine;                    ///< torch passes, or "none"
    std::string changed;                  ///< "carburised"; empty: the bar as it came
    std::optional<double> equivalent_min; ///< soak
    std::optional<double> hrc;
    std::optional<double> thickness_mm;
    std::optional<double> edge_mm;   ///< behind the edge
    std::optional<double> angle_deg; ///< per side
    std::string finish;
};

/// In what two pieces may differ.
enum class Trait { grade, lot, changed, recipe, heat, tempers, spine, soak, hardness, thickness, edge, angle, finish };
template<>
inline constexpr std::array namesOf<Trait>{"grade", "lot",      "changed",   "recipe", "heat",  "tempers", "spine",
                                           "soak",  "hardness", "thickness", "edge",   "angle", "finish"};

/// The trait of a word; tempers were once called cycles in stored studies.
std::optional<Trait> traitNamed(const std::string& name);

/// One difference, or something that is not known of one of the two.
struct Difference {
    Trait trait = Trait::lot;
    bool known = true; ///< false: not known of one of the two
    std::string a;     ///< of the first piece; empty where it is not known
    std::string b;
};

enum class Speaks { yes, withReservations, no };

struct Speech {
    Speaks speaks = Speaks::yes;
    std::vector<Difference> differences; ///< why not, or with what reservation
};

/// M32. Does a test piece speak for a blade? Same lot, recipe, heat, tempers and spine treatment; a piece that passed
/// speaks for blades it was no kinder to: its equivalent soak at least 0.9 of the blade's, hardness at least the
/// blade's - 0.5, thickness and edge thickness at most 10 % stouter and 20 % thinner, angle within 3°. A piece that
/// failed speaks against blades that were treated no more kindly than itself: the same with the two changed about. What
/// is not known is a reservation.
Speech speaksFor(const PieceFacts& piece, const PieceFacts& blade, bool passed);

/// M32 for the grain of a broken piece: what was done to it afterwards and its shape do not matter, so that an
/// untempered coupon speaks for tempered blades. Grade, lot, change, recipe and heat are the same; a fine piece soaked
/// at least 0.9 of what the blade did, a coarse one no longer than the blade.
Speech grainSpeaksFor(const PieceFacts& piece, const PieceFacts& blade, bool fine);

/// In what pieces differ beside the factor of a study: every trait that is not the same on all of them, or not known of
/// all. Numbers are the same within 10 % (soak, thickness, edge), 0.5 HRC, and 3°.
std::vector<Difference> differencesBeside(const std::vector<PieceFacts>& pieces, std::optional<Trait> factor);

} // namespace rollcall
