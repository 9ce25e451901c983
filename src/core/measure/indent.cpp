// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/indent.h"

#include "core/base/number.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>
#include <numbers>

namespace rollcall {

namespace {
constexpr double contactPressureShare = 0.927; // HV is force over the sloping area, pressure over the projected
constexpr double inchRounding_mm = 0.005;
} // namespace

Result<double> indentDiameter(const Tables& tables, const std::string& scaleName, double value) {
    const Result<RockwellScale> scale = tables.scale(scaleName);
    if (!scale) return scale.error();
    if (!inRange(*scale, value)) {
        return Error{ErrorKind::range, "value", fmt::format("{} is outside the range of {}", value, scale->symbol)};
    }
    if (scale->ball_diameter_mm) {
        const double depth = permanentDepth(*scale, value);
        return 2.0 * std::sqrt(*scale->ball_diameter_mm * depth - depth * depth);
    }
    double hrc = value;
    if (scale->symbol != "HRC") {
        const Result<Converted> converted = convertHardness(tables, scale->symbol, value, "HRC");
        if (!converted) return converted.error();
        hrc = converted->value;
    }
    const Result<Converted> hv = convertHardness(tables, "HRC", std::min(hrc, tables.conversions().back().hrc), "HV");
    if (!hv) return hv.error();
    const double pressure = hv->value / contactPressureShare;
    return 2.0 * std::sqrt(scale->total_force_kgf / (std::numbers::pi * pressure));
}

Result<ThicknessAnswer> minThickness(const Tables& tables, const std::string& scaleName, double value) {
    const Result<RockwellScale> scale = tables.scale(scaleName);
    if (!scale) return scale.error();
    bool known = false;
    for (const ThicknessRow& row : tables.thicknesses()) { // thinnest first within a scale
        if (row.scale != scale->symbol) continue;
        known = true;
        if (!atLeast(value, row.min_hardness)) continue;
        const double depth = permanentDepth(*scale, value);
        return ThicknessAnswer{row.thickness_mm, row.line, (scale->ball_diameter_mm ? 15.0 : 10.0) * depth,
                               row.confidence};
    }
    if (!known) {
        return Error{ErrorKind::argument, "", fmt::format("the thickness table has no scale {}", scale->symbol)};
    }
    return Error{ErrorKind::range, "value",
                 fmt::format("{} {} is softer than the thickness table reaches", value, scale->symbol)};
}

bool thickEnough(const ThicknessAnswer& answer, double thickness_mm) {
    return atLeast(thickness_mm, answer.min_thickness_mm - inchRounding_mm);
}

std::vector<std::string> lighterScales(const Tables& tables, const std::string& scale, double value,
                                       double thickness_mm) {
    std::vector<std::string> fitting;
    for (const char* candidate : {"HR45N", "HR30N", "HRA", "HR15N"}) {
        const Result<Converted> there = convertHardness(tables, scale, value, candidate);
        if (!there) continue;
        const Result<ThicknessAnswer> answer = minThickness(tables, candidate, there->value);
        if (answer && thickEnough(*answer, thickness_mm)) fitting.emplace_back(candidate);
    }
    return fitting;
}

} // namespace rollcall
