// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/tables.h"

#include "core/base/table_file.h"

#include <algorithm>
#include <fmt/format.h>

namespace rollcall {

namespace {

std::vector<RockwellScale> readScales(const std::string& folder) {
    const TableFile file(folder, "rockwell_scales.csv");
    std::vector<RockwellScale> scales;
    for (const CsvRow& row : file.rows()) {
        RockwellScale scale;
        scale.symbol = file.requiredText(row, "symbol");
        if (scale.symbol.size() < 3 || scale.symbol.substr(0, 2) != "HR")
            damage(file.place(row, "symbol"), "a symbol begins with HR");
        scale.n = file.requiredNumber(row, "N", 100, 130);
        scale.s_mm = file.requiredNumber(row, "S_mm", 0.001, 0.002);
        scale.total_force_kgf = file.requiredNumber(row, "total_kgf", 15, 150);
        scale.ball_diameter_mm = file.number(row, "ball_dia_mm");
        scale.low = file.number(row, "iso_range_min");
        scale.high = file.number(row, "iso_range_max");
        if (scale.low.has_value() != scale.high.has_value() || (scale.low && *scale.low >= *scale.high)) {
            damage(file.place(row, "iso_range_min"), "the range has one end only, or its ends are swapped");
        }
        scale.confidence = file.confidence(row);
        scales.push_back(scale);
    }
    return scales;
}

std::vector<ConversionRow> readConversions(const std::string& folder) {
    const TableFile file(folder, "e140_hrc.csv");
    std::vector<ConversionRow> rows;
    for (const CsvRow& row : file.rows()) {
        ConversionRow conversion;
        conversion.hrc = file.requiredNumber(row, "hrc", 20, 70);
        for (const std::string& scale : Tables::conversionScales()) {
            conversion.others.push_back(file.number(row, scale));
            const std::size_t i = conversion.others.size() - 1;
            if (!rows.empty() && rows.back().others[i] && conversion.others[i] &&
                *conversion.others[i] >= *rows.back().others[i]) {
                damage(file.place(row, scale), "the column does not fall from line to line");
            }
        }
        if (!rows.empty() && conversion.hrc >= rows.back().hrc) {
            damage(file.place(row, "hrc"), "the rows are not in falling order");
        }
        conversion.confidence = file.confidence(row);
        rows.push_back(conversion);
    }
    std::reverse(rows.begin(), rows.end());
    return rows;
}

std::vector<ToleranceBand> readTolerances(const std::string& folder) {
    const TableFile file(folder, "e18_machine_tolerance.csv");
    std::vector<ToleranceBand> bands;
    for (const CsvRow& row : file.rows()) {
        ToleranceBand band;
        band.scale = file.requiredText(row, "scale");
        band.low = file.number(row, "block_min_incl");
        band.high = file.number(row, "block_max_excl");
        band.max_repeatability = file.requiredNumber(row, "max_repeatability_range", 0.1, 10);
        band.max_error = file.requiredNumber(row, "max_error_plus_minus", 0.1, 10);
        band.confidence = file.confidence(row);
        band.line = row.line;
        if (band.low && band.high && *band.low >= *band.high) {
            damage(file.place(row, "block_min_incl"), "the ends of the band are swapped");
        }
        if (!bands.empty() && bands.back().scale == band.scale && bands.back().high != band.low) {
            damage(file.place(row, "block_min_incl"), "the band does not begin where the one before ends");
        }
        bands.push_back(band);
    }
    return bands;
}

std::vector<ThicknessRow> readThicknesses(const std::string& folder) {
    const TableFile file(folder, "e18_min_thickness.csv");
    std::vector<ThicknessRow> rows;
    for (const CsvRow& row : file.rows()) {
        ThicknessRow entry;
        entry.scale = file.requiredText(row, "scale");
        entry.thickness_mm = file.requiredNumber(row, "thickness_in", 0.001, 1) * 25.4;
        entry.min_hardness = file.requiredNumber(row, "min_hardness", 10, 100);
        entry.confidence = file.confidence(row);
        entry.line = row.line;
        if (!rows.empty() && rows.back().scale == entry.scale &&
            (entry.thickness_mm <= rows.back().thickness_mm || entry.min_hardness >= rows.back().min_hardness)) {
            damage(file.place(row, "thickness_in"), "thickness must rise and hardness fall from line to line");
        }
        rows.push_back(entry);
    }
    return rows;
}

ConvexTable readConvex(const std::string& folder, const std::string& name) {
    const TableFile file(folder, name);
    ConvexTable table;
    table.scales = split(file.requiredText(file.rows().front(), "scales"), ';');
    for (const CsvRow& row : file.rows()) {
        const double reading = file.requiredNumber(row, "reading", 0, 100);
        const double radius = file.requiredNumber(row, "radius_mm", 0.5, 100);
        if (table.readings.empty() || table.readings.back() != reading) {
            if (!table.readings.empty() && reading < table.readings.back())
                damage(file.place(row, "reading"), "the readings are not in rising order");
            table.readings.push_back(reading);
        }
        if (table.readings.size() == 1) {
            if (!table.radii_mm.empty() && radius <= table.radii_mm.back())
                damage(file.place(row, "radius_mm"), "the radii are not in rising order");
            table.radii_mm.push_back(radius);
        }
        const std::size_t place = table.corrections.size();
        const bool fits = place / table.radii_mm.size() + 1 == table.readings.size() &&
                          table.radii_mm[place % table.radii_mm.size()] == radius;
        if (!fits) damage(file.place(row, "radius_mm"), "every reading needs the same radii");
        table.corrections.push_back(file.requiredNumber(row, "correction_add", 0, 20));
        (void)file.confidence(row);
    }
    if (table.corrections.size() != table.readings.size() * table.radii_mm.size() || table.readings.size() < 2 ||
        table.radii_mm.size() < 2)
        damage(name, "the table has holes");
    return table;
}

TestCycle readTestCycle(const std::string& folder) {
    const TableFile file(folder, "e18_test_cycle.csv");
    for (const CsvRow& row : file.rows()) {
        if (file.text(row, "standard") != "ASTM E18" || file.text(row, "item") != "total force dwell t_TF") continue;
        TestCycle cycle;
        cycle.dwell_min_s = file.requiredNumber(row, "min", 0.1, 60);
        cycle.dwell_max_s = file.requiredNumber(row, "max", cycle.dwell_min_s, 60);
        cycle.confidence = file.confidence(row);
        return cycle;
    }
    damage("e18_test_cycle.csv", "the total force dwell t_TF of ASTM E18 is missing");
}

// Rows such as "V (high)" hold from their lower content on; rows of several elements are taken apart.
std::vector<DetectionLimit> readDetection(const std::string& folder) {
    const TableFile file(folder, "pmi_limits.csv");
    std::vector<DetectionLimit> limits;
    for (const CsvRow& row : file.rows()) {
        const std::string method = file.requiredText(row, "method");
        DetectionLimit limit;
        if (method.rfind("handheld XRF", 0) == 0)
            limit.method = AnalysisMethod::xrf;
        else if (method.rfind("spark-OES", 0) == 0)
            limit.method = AnalysisMethod::oes;
        else
            continue; // combustion and the like: named, not compared with
        limit.visible = file.requiredText(row, "ability") != "no";
        const std::optional<double> sigma = file.numberWithin(row, "sigma_abs_pct_max", 0, 5);
        if (limit.visible && !sigma) continue; // advice, not an element
        limit.sigma = sigma.value_or(0);
        limit.lod = file.numberWithin(row, "lod_pct_max", 0, 5);
        limit.confidence = file.confidence(row);
        const std::string content = file.text(row, "typical_content_pct");
        const Result<double> low = parseNumber(content.substr(0, content.find('-')));
        if (low && content.find('-') != std::string::npos) limit.content_low = *low;
        std::string names = file.requiredText(row, "element");
        names = names.substr(0, names.find(' '));
        for (const std::string& element : split(names, ';')) {
            limit.element = element;
            limits.push_back(limit);
        }
    }
    return limits;
}

std::vector<PurposeProfile> readPurposes(const std::string& folder) {
    const TableFile file(folder, "purposes.csv");
    std::vector<PurposeProfile> purposes;
    for (const CsvRow& row : file.rows()) {
        PurposeProfile purpose;
        purpose.purpose = file.requiredText(row, "purpose");
        purpose.school = file.requiredText(row, "school");
        const auto within = [&](const char* column, double low, double high) {
            const auto value = file.numberWithin(row, column, low, high);
            if (!value) damage(file.place(row, column), "the field is empty");
            return *value;
        };
        purpose.window_low = within("window_low", 20, 70);
        purpose.window_high = within("window_high", purpose.window_low, 70);
        purpose.behind_edge_mm = within("behind_edge_mm", 0.01, 10);
        purpose.angle_per_side_deg = within("angle_per_side_deg", 1, 45);
        purpose.rod_force_n = within("rod_force_n", 1, 1000);
        purpose.rod_raise_deg = within("rod_raise_deg", 1, 89);
        for (const std::string& test : split(file.text(row, "tests"), ';')) purpose.tests.emplace_back(trimmed(test));
        purpose.why = file.text(row, "why");
        purpose.confidence = file.confidence(row);
        purposes.push_back(std::move(purpose));
    }
    return purposes;
}

std::vector<Protocol> readShippedProtocols(const std::string& folder) {
    std::ifstream file(folder + "/protocols.csv", std::ios::binary);
    if (!file) damage("protocols.csv", "this reference table is missing or cannot be read");
    std::ostringstream bytes;
    bytes << file.rdbuf();
    Result<std::vector<Protocol>> protocols = readProtocols(bytes.str());
    if (!protocols) damage("protocols.csv " + protocols.error().place, protocols.error().text);
    return std::move(protocols).value();
}

} // namespace

const DetectionLimit* Tables::detection(AnalysisMethod method, std::string_view element, double percent) const {
    const DetectionLimit* found = nullptr;
    for (const DetectionLimit& limit : m_detection) {
        if (limit.method != method || limit.element != element) continue;
        // Of several rows the one with the highest lower end that is not above the content.
        const bool reaches = !limit.content_low || *limit.content_low <= percent;
        if (found == nullptr || (reaches && limit.content_low.value_or(0) >= found->content_low.value_or(0)))
            found = &limit;
    }
    return found;
}

bool Tables::canSee(AnalysisMethod method, std::string_view element) const {
    const DetectionLimit* limit = detection(method, element, 0);
    return limit == nullptr || limit->visible;
}

Result<Tables> Tables::load(const std::string& folder) {
    try {
        Tables tables;
        tables.m_scales = readScales(folder);
        tables.m_conversions = readConversions(folder);
        tables.m_tolerances = readTolerances(folder);
        tables.m_thicknesses = readThicknesses(folder);
        tables.m_grades = readGrades(folder);
        tables.m_otherSteels = readOtherSteels(folder);
        tables.m_oxideColours = readOxideColours(folder);
        tables.m_detection = readDetection(folder);
        for (const char* name : {"convex_correction_hrc.csv", "convex_correction_15n_30n_45n.csv"})
            tables.m_convex.push_back(readConvex(folder, name));
        tables.m_testCycle = readTestCycle(folder);
        tables.m_purposes = readPurposes(folder);
        tables.m_protocols = readShippedProtocols(folder);
        if (!tables.scale("HRC")) damage("rockwell_scales.csv", "the scale HRC is missing");
        return tables;
    } catch (const TableDamage& found) {
        return found.error;
    }
}

Result<RockwellScale> Tables::scale(std::string_view symbol) const {
    for (const RockwellScale& scale : m_scales) {
        if (scale.symbol == symbol) return scale; // as the logbook writes it: no need to compare letter by letter
    }
    const std::string_view wanted = trimmed(symbol);
    for (const RockwellScale& scale : m_scales) {
        const std::string_view name = scale.symbol;
        if (sameName(name, wanted) || sameName(name.substr(2), wanted)) return scale;
    }
    return Error{ErrorKind::argument, "", fmt::format("there is no Rockwell scale '{}'", wanted)};
}

const PurposeProfile* Tables::purpose(std::string_view purpose, std::string_view school) const {
    for (const PurposeProfile& profile : m_purposes) {
        if (sameName(profile.purpose, purpose) && sameName(profile.school, school)) return &profile;
    }
    return nullptr;
}

Tables Tables::withOwnGrades(std::vector<Grade> own) const {
    Tables tables = *this;
    tables.m_grades = std::move(own);
    for (const Grade& grade : m_grades) {
        if (!grade.own) tables.m_grades.push_back(grade);
    }
    return tables;
}

const Grade* Tables::grade(std::string_view name) const {
    for (const Grade& grade : m_grades) {
        if (grade.name == name) return &grade; // as the logbook writes it: no need to compare letter by letter
    }
    const auto found =
        std::find_if(m_grades.begin(), m_grades.end(), [&](const Grade& g) { return sameName(g.name, name); });
    return found == m_grades.end() ? nullptr : &*found;
}

const std::vector<std::string>& Tables::conversionScales() {
    static const std::vector<std::string> names{"hv", "hbw", "hk500", "hra", "hrd", "hr15n", "hr30n", "hr45n"};
    return names;
}

} // namespace rollcall
