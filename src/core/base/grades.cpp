// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/grade.h"

#include "core/base/table_file.h"

#include <algorithm>

namespace rollcall {

namespace {

Range rangeOf(const TableFile& file, const CsvRow& row, const std::string& stem, double low, double high) {
    const Range range{file.numberWithin(row, stem + "_min_C", low, high),
                      file.numberWithin(row, stem + "_max_C", low, high)};
    if (range.low.has_value() != range.high.has_value() || (range.low && *range.low > *range.high))
        damage(file.place(row, stem + "_min_C"), "the range has one end only, or its ends are swapped");
    return range;
}

// Middle of a composition range; with one end only, the half of it or the end itself.
double middleOf(const ElementLimits& limits) {
    if (limits.low && limits.high) return (*limits.low + *limits.high) / 2.0;
    return limits.high ? *limits.high / 2.0 : limits.low.value_or(0.0);
}

void readComposition(const TableFile& file, const CsvRow& row, Grade& grade) {
    for (const char* element : {"C", "Si", "Mn", "P", "S", "Cr", "Mo", "W", "V", "Co", "Ni", "N", "Nb", "Cu"}) {
        const std::string name = element;
        const ElementLimits limits{name, file.numberWithin(row, name + "_min", 0, 100),
                                   file.numberWithin(row, name + "_max", 0, 100)};
        if (limits.low && limits.high && *limits.low > *limits.high)
            damage(file.place(row, name + "_min"), "the ends of the range are swapped");
        if (limits.low || limits.high) grade.composition.push_back(limits);
        if (name == "Co") grade.cobalt_max = limits.high.value_or(0.0);
        for (const char* alloying : {"Cr", "Mo", "W", "V", "Co"}) {
            if (name == alloying) grade.alloy_percent += middleOf(limits);
        }
        if (name == "Cr") grade.chromium_percent = middleOf(limits);
    }
}

void readTreatment(const TableFile& file, const CsvRow& row, Grade& grade) {
    grade.ac1_c = file.numberWithin(row, "ac1_C", 600, 1000);
    grade.upper_critical_c = file.numberWithin(row, "ac3_or_accm_C", 600, 1200);
    grade.upper_critical_kind = file.text(row, "upper_critical_kind");
    grade.martensite_start_c = file.numberWithin(row, "ms_C", 0, 500);
    grade.normalise_c = rangeOf(file, row, "normalize", 600, 1100);
    grade.anneal_c = rangeOf(file, row, "anneal", 500, 1000);
    grade.anneal_kind = file.text(row, "anneal_kind");
    grade.austenitise_c = rangeOf(file, row, "austenitize", 700, 1350);
    grade.austenitise_typical_c =
        file.requiredNumber(row, "austenitize_typical_C", *grade.austenitise_c.low, *grade.austenitise_c.high);
    grade.soak_minutes = {file.requiredNumber(row, "soak_min_minutes", 0, 120),
                          file.requiredNumber(row, "soak_max_minutes", 0, 240)};
    grade.quench_class = file.requiredText(row, "quench_class");
    grade.as_quenched_min = file.requiredNumber(row, "as_quenched_hrc_min", 20, 70);
    grade.as_quenched_typical = file.requiredNumber(row, "as_quenched_hrc_typ", grade.as_quenched_min, 70);
    grade.as_quenched_max = file.requiredNumber(row, "as_quenched_hrc_max", grade.as_quenched_typical, 70);
    grade.cold_treatment = file.requiredText(row, "cold_treatment");
    grade.embrittle_c = rangeOf(file, row, "embrittle", 150, 700);
    grade.secondary_c = rangeOf(file, row, "secondary", 350, 700);
    grade.hj_c = file.requiredNumber(row, "hj_c", 10, 25);
    grade.may_normalise = grade.normalise_c.low.has_value() && !grade.needsFullAnneal();
    grade.note = file.text(row, "note");
    // A verdict rests on the heat-treatment row; the composition row only names the family.
    grade.confidence = file.confidence(row);
}

} // namespace

std::optional<double> Grade::leastEntering_c() const {
    if (!ac1_c || hardensSlowly()) return std::nullopt;
    constexpr double fast = 40;
    constexpr double medium = 80;
    return *ac1_c - (quench_class.rfind("medium", 0) == 0 ? medium : fast);
}

int Grade::minimumTempers(std::optional<double> hottest_c) const {
    if (isHighSpeed() && cobalt_max >= 3.0) return 3;
    const bool hot = hottest_c && atLeast(*hottest_c, 450.0);
    return isHighSpeed() || isStainless() || isAirHardening() || hot ? 2 : 1;
}

std::vector<Grade> readGrades(const std::string& folder) {
    const TableFile chemistry(folder, "grades.csv");
    const TableFile treatment(folder, "heat_treat.csv");
    const TableFile curves(folder, "temper_curves.csv");
    const TableFile aliases(folder, "grade_aliases.csv");
    std::vector<Grade> grades;
    for (const CsvRow& row : chemistry.rows()) {
        Grade grade;
        grade.name = chemistry.requiredText(row, "grade");
        grade.family = chemistry.requiredText(row, "family");
        readComposition(chemistry, row, grade);
        grade.source = chemistry.text(row, "composition_source");
        for (const char* column : {"en_name", "en_number", "nearest_equivalent"}) {
            const std::string other = chemistry.text(row, column);
            if (!other.empty() && other.rfind("none", 0) != 0 && other != grade.name) grade.aliases.push_back(other);
        }
        for (const CsvRow& alias : aliases.rows()) {
            if (aliases.requiredText(alias, "grade") == grade.name)
                grade.aliases.push_back(aliases.requiredText(alias, "alias"));
        }
        const auto match = std::find_if(treatment.rows().begin(), treatment.rows().end(), [&](const CsvRow& other) {
            return treatment.text(other, "grade") == grade.name;
        });
        if (match == treatment.rows().end())
            damage(chemistry.place(row, "grade"), fmt::format("{} has no row in heat_treat.csv", grade.name));
        readTreatment(treatment, *match, grade);
        grades.push_back(std::move(grade));
    }
    for (const CsvRow& row : curves.rows()) {
        const std::string name = curves.requiredText(row, "grade");
        const auto grade = std::find_if(grades.begin(), grades.end(), [&](const Grade& g) { return g.name == name; });
        if (grade == grades.end()) damage(curves.place(row, "grade"), fmt::format("{} is not in grades.csv", name));
        TemperPoint point;
        point.temperature_c = curves.requiredNumber(row, "temper_C", 80, 750);
        point.hours = curves.requiredNumber(row, "hours", 0.1, 48);
        point.tempers = static_cast<int>(curves.requiredNumber(row, "cycles", 1, 5));
        point.hrc = curves.requiredNumber(row, "hrc_typical", 15, 72);
        point.plus_minus = curves.requiredNumber(row, "plus_minus_hrc", 0.3, 6);
        point.austenitise_assumed_c = curves.requiredNumber(row, "austenitize_assumed_C", 700, 1350);
        point.cold_assumed = curves.requiredText(row, "cold_treatment_assumed") == "yes";
        point.confidence = curves.confidence(row);
        point.line = row.line;
        if (!grade->temper_curve.empty() && point.temperature_c <= grade->temper_curve.back().temperature_c)
            damage(curves.place(row, "temper_C"), "the temperatures of a grade must rise from line to line");
        grade->temper_curve.push_back(point);
    }
    for (const Grade& grade : grades) {
        if (grade.temper_curve.size() < 4)
            damage("temper_curves.csv", fmt::format("{} has fewer than four points", grade.name));
    }
    return grades;
}

std::vector<Grade> readOtherSteels(const std::string& folder) {
    const TableFile file(folder, "other_steels.csv");
    std::vector<Grade> steels;
    for (const CsvRow& row : file.rows()) {
        Grade steel;
        steel.name = file.requiredText(row, "steel");
        steel.family = file.requiredText(row, "family");
        steel.for_blades = false;
        for (const std::string& part : split(file.requiredText(row, "composition"), ';')) {
            const std::string limit(trimmed(part)); // "Mn 0.60-0.90"
            const std::size_t blank = limit.find(' ');
            const std::size_t dash = limit.find('-', blank == std::string::npos ? 0 : blank);
            const auto low = dash == std::string::npos ? Result<double>(Error{})
                                                       : parseNumber(limit.substr(blank + 1, dash - blank - 1));
            const auto high = dash == std::string::npos ? Result<double>(Error{}) : parseNumber(limit.substr(dash + 1));
            if (!low || !high || *low > *high)
                damage(file.place(row, "composition"), "an element is written like Mn 0.60-0.90");
            const ElementLimits limits{limit.substr(0, blank), *low > 0 ? std::optional(*low) : std::nullopt, *high};
            for (const char* alloying : {"Cr", "Mo", "W", "V", "Co"}) {
                if (limits.element == alloying) steel.alloy_percent += middleOf(limits);
            }
            if (limits.element == "Cr") steel.chromium_percent = middleOf(limits);
            steel.composition.push_back(limits);
        }
        steel.as_quenched_min = file.requiredNumber(row, "as_quenched_hrc_min", 0, 70);
        steel.as_quenched_max = file.requiredNumber(row, "as_quenched_hrc_max", steel.as_quenched_min, 70);
        steel.as_quenched_typical = (steel.as_quenched_min + steel.as_quenched_max) / 2;
        steel.note = file.text(row, "note");
        steel.confidence = file.confidence(row);
        steels.push_back(std::move(steel));
    }
    return steels;
}

std::vector<OxideColour> readOxideColours(const std::string& folder) {
    const TableFile file(folder, "temper_colors.csv");
    std::vector<OxideColour> colours;
    for (const CsvRow& row : file.rows()) {
        OxideColour colour;
        colour.stainless = file.requiredText(row, "steel_class").rfind("stainless", 0) == 0;
        const std::string full = file.requiredText(row, "color_name");
        colour.name = std::string(trimmed(full.substr(0, full.find('('))));
        colour.described = full;
        colour.minutes_c = file.requiredNumber(row, "minutes_heating_C", 100, 800);
        colour.one_hour_c = file.numberWithin(row, "one_hour_C", 100, 800);
        if (!colour.stainless && !colour.one_hour_c) damage(file.place(row, "one_hour_C"), "the number is missing");
        const std::string hex = file.requiredText(row, "srgb_hex");
        if (hex.size() != 7 || hex[0] != '#' || hex.find_first_not_of("0123456789abcdefABCDEF", 1) != std::string::npos)
            damage(file.place(row, "srgb_hex"), "a colour is written #RRGGBB");
        colour.srgb = static_cast<unsigned>(std::stoul(hex.substr(1), nullptr, 16));
        colour.confidence = file.confidence(row);
        if (!colours.empty() && colours.back().stainless == colour.stainless &&
            colour.minutes_c <= colours.back().minutes_c)
            damage(file.place(row, "minutes_heating_C"), "the temperatures must rise from line to line");
        colours.push_back(std::move(colour));
    }
    return colours;
}

} // namespace rollcall
