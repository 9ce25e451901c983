// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/measure/rockwell.h"

#include "core/base/number.h"

#include <algorithm>
#include <cmath>
#include <fmt/format.h>

namespace rollcall {

bool inRange(const RockwellScale& scale, double value) {
    return std::isfinite(value) && (!scale.low || (atLeast(value, *scale.low) && atMost(value, *scale.high)));
}

double permanentDepth(const RockwellScale& scale, double value) {
    return (scale.n - value) * scale.s_mm;
}

Result<double> rockwellNumber(const RockwellScale& scale, double depth_mm) {
    if (!(std::isfinite(depth_mm) && depth_mm >= 0)) {
        return Error{ErrorKind::range, "depth", "the depth must be zero or more millimetres"};
    }
    const double value = scale.n - depth_mm / scale.s_mm;
    if (!inRange(scale, value)) {
        return Error{ErrorKind::range, "depth",
                     fmt::format("a depth of {} mm gives {:.1f}, outside the range {} to {} of {}", depth_mm, value,
                                 *scale.low, *scale.high, scale.symbol)};
    }
    return value;
}

namespace {

// A column of the conversion table: HRC itself, or one of the others.
class Column {
public:
    static Result<Column> find(const std::string& name) {
        if (name == "HRC" || sameName(name, "hrc") || sameName(name, "c")) return Column(-1);
        const std::vector<std::string>& names = Tables::conversionScales();
        for (std::size_t i = 0; i < names.size(); ++i) {
            const std::string_view column = names[i];
            const bool shortName = column.substr(0, 2) == "hr" && sameName(column.substr(2), name);
            if (sameName(column, name) || shortName || (column == "hk500" && sameName(name, "hk"))) {
                return Column(static_cast<int>(i));
            }
        }
        return Error{ErrorKind::argument, "", fmt::format("the conversion table has no scale '{}'", trimmed(name))};
    }
    bool isHrc() const { return m_index < 0; }
    std::optional<double> in(const ConversionRow& row) const {
        return m_index < 0 ? std::optional<double>(row.hrc) : row.others[static_cast<std::size_t>(m_index)];
    }

private:
    explicit Column(int index) : m_index(index) {}
    int m_index;
};

} // namespace

Result<Converted> convertHardness(const Tables& tables, const std::string& from, double value, const std::string& to) {
    const Result<Column> source = Column::find(from);
    if (!source) return source.error();
    const Result<Column> target = Column::find(to);
    if (!target) return target.error();
    const std::vector<ConversionRow>& rows = tables.conversions();
    // The rows are in order of HRC; other columns have gaps and are walked through.
    std::size_t first = 0;
    if (source->isHrc()) {
        const auto above = std::upper_bound(rows.begin(), rows.end(), value - limitTolerance,
                                            [](double v, const ConversionRow& row) { return v < row.hrc; });
        first = static_cast<std::size_t>(std::max<std::ptrdiff_t>(0, above - rows.begin() - 1));
    }
    for (std::size_t i = first; i + 1 < rows.size() && std::isfinite(value); ++i) {
        const std::optional<double> low = source->in(rows[i]);
        const std::optional<double> high = source->in(rows[i + 1]);
        if (!low || !high || !atLeast(value, *low) || !atMost(value, *high)) continue;
        const std::optional<double> lowTo = target->in(rows[i]);
        const std::optional<double> highTo = target->in(rows[i + 1]);
        if (!lowTo || !highTo) continue;
        const double share = (value - *low) / (*high - *low);
        return Converted{*lowTo + share * (*highTo - *lowTo), std::max(rows[i].confidence, rows[i + 1].confidence)};
    }
    return Error{ErrorKind::range, "",
                 fmt::format("{} {} is outside the conversion table to {}", value, trimmed(from), trimmed(to))};
}

Result<double> pointsPerHrc(const Tables& tables, const std::string& scale, double hrc) {
    const double lowest = tables.conversions().front().hrc;
    const double highest = tables.conversions().back().hrc;
    const double below = std::clamp(hrc - 2.0, lowest, highest);
    const double above = std::clamp(hrc + 2.0, lowest, highest);
    const Result<Converted> low = convertHardness(tables, "HRC", below, scale);
    if (!low) return low.error();
    const Result<Converted> high = convertHardness(tables, "HRC", above, scale);
    if (!high) return high.error();
    return (high->value - low->value) / (above - below);
}

double conversionUncertainty(double alloy_percent) {
    return alloy_percent > 5.0 ? 0.8 : 0.5;
}

} // namespace rollcall
