// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/steel/grade_sheet.h"

#include "core/base/number.h"

#include <algorithm>
#include <cctype>
#include <cmath>
#include <fmt/format.h>

namespace rollcall {

namespace {

// Thrown inside this file only: the field that is wrong and why.
struct Wrong {
    Error error;
};

[[noreturn]] void wrong(const std::string& field, const std::string& text) {
    throw Wrong{{ErrorKind::argument, field, text}};
}

std::string fieldOf(const GradeSheet& sheet, const std::string& name) {
    const auto field = sheet.find(name);
    return field == sheet.end() ? std::string() : std::string(trimmed(field->second));
}

// Where the dash between two ends stands; that of an exponent, as in "5e-05-0.3", is none.
std::size_t dashOf(std::string_view text) {
    std::size_t dash = text.find('-');
    while (dash != std::string_view::npos && dash >= 2 && (text[dash - 1] == 'e' || text[dash - 1] == 'E') &&
           std::isdigit(static_cast<unsigned char>(text[dash - 2])) != 0)
        dash = text.find('-', dash + 1);
    return dash;
}

// "790-820", "0.15-", "-0.30": a dash between two ends, one of which may be open.
struct Ends {
    std::optional<double> low;
    std::optional<double> high;
};

Ends endsOf(const std::string& field, const std::string& text, Quantity* quantity) {
    const std::size_t dash = dashOf(text);
    const auto number = [&](std::string_view part) -> std::optional<double> {
        if (trimmed(part).empty()) return std::nullopt;
        const Result<double> value = quantity != nullptr ? parseQuantity(part, *quantity) : parseNumber(part);
        if (!value) wrong(field, fmt::format("'{}' is not a range like 790-820", text));
        return *value == 0 ? 0.0 : *value; // a minus before nothing would be another dash when it is written
    };
    if (dash == std::string::npos) wrong(field, fmt::format("'{}' is not a range like 790-820", text));
    const Ends ends{number(std::string_view(text).substr(0, dash)), number(std::string_view(text).substr(dash + 1))};
    if (ends.low && ends.high && *ends.low > *ends.high) wrong(field, fmt::format("the ends of {} are swapped", text));
    return ends;
}

Range rangeIn(const std::string& field, const std::string& text, double low, double high, bool celsius) {
    Quantity temperature = Quantity::temperature;
    const Ends ends = endsOf(field, text, celsius ? &temperature : nullptr);
    if (!ends.low || !ends.high) wrong(field, "both ends are needed");
    if (*ends.low < low || *ends.high > high)
        wrong(field, fmt::format("it must lie between {:g} and {:g}{}", low, high, celsius ? " °C" : ""));
    return {ends.low, ends.high};
}

void composition(const std::string& text, Grade& grade) {
    grade.composition.clear();
    for (const std::string& part : split(text, ';')) {
        if (part.empty()) continue;
        const std::size_t blank = part.find(' ');
        if (blank == std::string::npos)
            wrong("composition", fmt::format("'{}' is not an element with its range, like C 0.95-1.05", part));
        ElementLimits limits;
        limits.element = part.substr(0, blank);
        const Ends ends = endsOf("composition", std::string(trimmed(part.substr(blank))), nullptr);
        limits.low = ends.low;
        limits.high = ends.high;
        if ((!ends.low && !ends.high) || ends.low.value_or(0) < 0 || ends.high.value_or(0) > 100)
            wrong("composition", fmt::format("the range of {} is not within 0 to 100 per cent", limits.element));
        grade.composition.push_back(limits);
    }
    if (grade.composition.empty()) wrong("composition", "at least one element is needed");
    // What follows from it, as for the shipped grades.
    grade.alloy_percent = grade.chromium_percent = grade.cobalt_max = 0;
    for (const ElementLimits& limits : grade.composition) {
        const double middle = limits.low && limits.high ? (*limits.low + *limits.high) / 2
                              : limits.high             ? *limits.high / 2
                                                        : *limits.low;
        for (const char* alloying : {"Cr", "Mo", "W", "V", "Co"}) {
            if (limits.element == alloying) grade.alloy_percent += middle;
        }
        if (limits.element == "Cr") grade.chromium_percent = middle;
        if (limits.element == "Co") grade.cobalt_max = limits.high.value_or(middle);
    }
}

void curve(const std::string& text, Grade& grade) {
    std::vector<TemperPoint> points;
    for (const std::string& part : split(text, ' ')) {
        if (part.empty()) continue;
        const std::size_t colon = part.find(':');
        const std::size_t equals = part.find('=');
        if (colon == std::string::npos || equals == std::string::npos || equals < colon)
            wrong("curve", fmt::format("'{}' is not a point like 150:2=64", part));
        const auto c = parseQuantity(part.substr(0, colon), Quantity::temperature);
        const auto hours = parseQuantity(part.substr(colon + 1, equals - colon - 1), Quantity::duration);
        const auto hrc = parseNumber(part.substr(equals + 1));
        if (!c || !hours || !hrc || !(*c >= 80 && *c <= 750) || !(*hours > 0 && *hours <= 48) ||
            !(*hrc >= 15 && *hrc <= 72))
            wrong("curve", fmt::format("'{}' is not a point like 150:2=64", part));
        if (!points.empty() && *c <= points.back().temperature_c) wrong("curve", "the temperatures must rise");
        TemperPoint point;
        point.temperature_c = *c;
        point.hours = *hours;
        point.hrc = *hrc;
        point.plus_minus = 1.5;
        point.austenitise_assumed_c = grade.austenitise_typical_c;
        point.confidence = grade.confidence;
        points.push_back(point);
    }
    if (points.size() < 4) wrong("curve", "at least four points are needed");
    grade.temper_curve = std::move(points);
}

} // namespace

const std::vector<std::string>& gradeSheetFields() {
    static const std::vector<std::string> fields{"name",        "based_on", "aliases",     "composition",
                                                 "austenitise", "soak",     "as_quenched", "quench",
                                                 "embrittle",   "curve",    "confidence",  "note"};
    return fields;
}

Result<Grade> gradeFromSheet(const GradeSheet& sheet, const Tables& tables) {
    try {
        const std::string name = fieldOf(sheet, "name");
        if (name.empty()) wrong("name", "a grade needs a name");
        const std::string base = fieldOf(sheet, "based_on");
        const Grade* known = base.empty() ? nullptr : tables.grade(base);
        if (!base.empty() && known == nullptr)
            wrong("based_on", fmt::format("there is no grade '{}' in the library", base));
        Grade grade = known != nullptr ? *known : Grade();
        grade.name = name;
        grade.own = true;
        if (known == nullptr) grade.family = "own";
        const auto given = [&](const char* field) {
            const std::string text = fieldOf(sheet, field);
            if (text.empty() && known == nullptr) wrong(field, "it is needed where the grade is based on no other");
            return text;
        };
        grade.confidence = Confidence::medium;
        if (const std::string word = fieldOf(sheet, "confidence"); !word.empty()) {
            if (word != "high" && word != "medium" && word != "low") wrong("confidence", "it is high, medium or low");
            grade.confidence = word == "high" ? Confidence::high : word == "low" ? Confidence::low : Confidence::medium;
        }
        if (known != nullptr) grade.aliases.clear();
        for (const std::string& alias : split(fieldOf(sheet, "aliases"), ',')) {
            if (!alias.empty()) grade.aliases.push_back(alias);
        }
        if (const std::string text = given("composition"); !text.empty()) composition(text, grade);
        if (const std::string text = given("austenitise"); !text.empty()) {
            grade.austenitise_c = rangeIn("austenitise", text, 700, 1350, true);
            grade.austenitise_typical_c = (*grade.austenitise_c.low + *grade.austenitise_c.high) / 2;
        }
        if (const std::string text = given("soak"); !text.empty())
            grade.soak_minutes = rangeIn("soak", text, 0, 240, false);
        if (const std::string text = given("as_quenched"); !text.empty()) {
            const auto hrc = parseNumbers(text);
            if (!hrc || hrc->size() != 3 || !((*hrc)[0] <= (*hrc)[1] && (*hrc)[1] <= (*hrc)[2]) || (*hrc)[0] < 20 ||
                (*hrc)[2] > 70)
                wrong("as_quenched", "three rising hardnesses are needed, like 62 64 66");
            grade.as_quenched_min = (*hrc)[0];
            grade.as_quenched_typical = (*hrc)[1];
            grade.as_quenched_max = (*hrc)[2];
        }
        if (const std::string text = given("quench"); !text.empty()) grade.quench_class = text;
        if (const std::string text = fieldOf(sheet, "embrittle"); !text.empty())
            grade.embrittle_c = rangeIn("embrittle", text, 150, 700, true);
        if (known == nullptr) {
            grade.cold_treatment = "no";
            for (const ElementLimits& limits : grade.composition) {
                // M19: by carbon where there is little alloy, else 20.
                if (limits.element == "C" && limits.low && limits.high && grade.alloy_percent <= 5)
                    grade.hj_c = 21.3 - 5.8 * (*limits.low + *limits.high) / 2;
            }
        }
        if (const std::string text = given("curve"); !text.empty()) curve(text, grade);
        if (const std::string text = fieldOf(sheet, "note"); !text.empty()) grade.note = text;
        return grade;
    } catch (const Wrong& found) {
        return found.error;
    }
}

Tables withSheets(const Tables& shipped, const std::vector<GradeSheet>& sheets) {
    std::vector<Grade> own;
    Tables tables = shipped;
    for (const GradeSheet& sheet : sheets) {
        Result<Grade> grade = gradeFromSheet(sheet, tables);
        if (!grade) continue;
        own.push_back(std::move(grade).value());
        tables = shipped.withOwnGrades(own);
    }
    return tables;
}

GradeSheet sheetOf(const Grade& grade) {
    GradeSheet sheet;
    const auto range = [](const std::optional<double>& low, const std::optional<double>& high) {
        return (low ? fmt::format("{:g}", *low) : std::string()) + "-" +
               (high ? fmt::format("{:g}", *high) : std::string());
    };
    const auto joined = [](const std::vector<std::string>& parts, const char* between) {
        std::string text;
        for (const std::string& part : parts) text += (text.empty() ? "" : between) + part;
        return text;
    };
    sheet["name"] = grade.name;
    sheet["aliases"] = joined(grade.aliases, ", ");
    std::vector<std::string> elements;
    for (const ElementLimits& limits : grade.composition)
        elements.push_back(limits.element + " " + range(limits.low, limits.high));
    sheet["composition"] = joined(elements, "; ");
    sheet["austenitise"] = range(grade.austenitise_c.low, grade.austenitise_c.high);
    sheet["soak"] = range(grade.soak_minutes.low, grade.soak_minutes.high);
    sheet["as_quenched"] =
        fmt::format("{:g} {:g} {:g}", grade.as_quenched_min, grade.as_quenched_typical, grade.as_quenched_max);
    sheet["quench"] = grade.quench_class;
    if (grade.embrittle_c.known()) sheet["embrittle"] = range(grade.embrittle_c.low, grade.embrittle_c.high);
    std::vector<std::string> points;
    for (const TemperPoint& point : grade.temper_curve)
        points.push_back(fmt::format("{:g}:{:g}={:g}", point.temperature_c, point.hours * point.tempers, point.hrc));
    sheet["curve"] = joined(points, " ");
    sheet["confidence"] = grade.confidence == Confidence::high  ? "high"
                          : grade.confidence == Confidence::low ? "low"
                                                                : "medium";
    sheet["note"] = grade.note;
    return sheet;
}

GradeSheet sheetOfShot(const std::vector<ElementReading>& measured, const Grade* nearest, const std::string& name) {
    GradeSheet sheet;
    sheet["name"] = name;
    sheet["confidence"] = "low";
    sheet["note"] = "composition as shot";
    if (nearest != nullptr) {
        sheet["based_on"] = nearest->name;
        sheet["note"] += ", heat and curve of " + nearest->name + " by guess";
    }
    std::string elements;
    for (const ElementReading& one : measured) {
        constexpr double tenth = 0.1;
        constexpr double least = 0.01; // % by weight
        std::string range;
        if (one.percent) {
            const double around = std::max({tenth * *one.percent, 3 * one.sigma.value_or(0), least});
            range = fmt::format("{:.3g}-{:.3g}", std::max(0.0, *one.percent - around), *one.percent + around);
        } else if (one.lod) {
            range = fmt::format("-{:.3g}", *one.lod);
        } else {
            continue;
        }
        elements += (elements.empty() ? "" : "; ") + one.element + " " + range;
    }
    sheet["composition"] = elements;
    return sheet;
}

std::vector<const Grade*> searchGrades(const std::vector<Grade>& grades, std::string_view text) {
    const std::string wanted = lowered(trimmed(text));
    std::vector<const Grade*> byName;
    std::vector<const Grade*> byAlias;
    for (const Grade& grade : grades) {
        if (lowered(grade.name).find(wanted) != std::string::npos)
            byName.push_back(&grade);
        else if (std::any_of(grade.aliases.begin(), grade.aliases.end(), [&](const std::string& alias) {
                     return lowered(alias).find(wanted) != std::string::npos;
                 }))
            byAlias.push_back(&grade);
    }
    byName.insert(byName.end(), byAlias.begin(), byAlias.end());
    return byName;
}

} // namespace rollcall
