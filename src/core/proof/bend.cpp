// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/proof/bend.h"

#include <numbers>

namespace rollcall {

Result<BendStrain> bendStrain(double thickness_mm, double free_length_mm, double angle_deg,
                              std::optional<double> lever_mm) {
    const auto out = [](const char* text) { return Error{ErrorKind::range, "", text}; };
    if (!(thickness_mm > 0 && free_length_mm > 0)) return out("thickness and free length must be positive");
    if (!(thickness_mm <= free_length_mm))
        return out("the free length is shorter than the blade is thick: that is no bend");
    if (!(angle_deg > 0 && angle_deg <= 180)) return out("a bend lies between 0 and 180 degrees");
    if (lever_mm && !(*lever_mm >= 0)) return out("the lever cannot be negative");
    BendStrain strain;
    strain.mean = 100 * angle_deg * std::numbers::pi / 180 * thickness_mm / (2 * free_length_mm);
    if (lever_mm) strain.at_least = strain.mean * 2 * (*lever_mm + free_length_mm) / (2 * *lever_mm + free_length_mm);
    return strain;
}

std::optional<double> bendWork_j(const std::vector<BendPoint>& points, std::optional<double> lever_mm) {
    if (!lever_mm || !(*lever_mm > 0)) return std::nullopt;
    double work = 0;
    bool read = false;
    BendPoint before;
    for (const BendPoint& point : points) {
        if (!(point.force_n > 0)) continue; // an angle without a force says nothing about the work
        read = true;
        work += (point.force_n + before.force_n) / 2 * (*lever_mm / 1000) * (point.angle_deg - before.angle_deg) *
                std::numbers::pi / 180;
        before = point;
    }
    return read ? std::optional(work) : std::nullopt;
}

} // namespace rollcall
