// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/steel/shot_table.h"

#include "core/base/csv.h"
#include "core/base/number.h"

#include <algorithm>
#include <array>
#include <map>

namespace rollcall {

namespace {

// Elements that steels are asked for or spoiled by.
constexpr std::array elements{"C", "Si", "Mn", "P",  "S",  "Cr", "Mo", "V", "W",  "Co", "Ni", "Cu", "Al",
                              "N", "Nb", "Ti", "Zn", "Sn", "Ca", "Fe", "B", "Pb", "As", "Sb", "Zr", "Ta"};

enum class ColumnIs { other, piece, element, percent, error, ofElement, errorOfElement };

struct Column {
    ColumnIs is = ColumnIs::other;
    std::string element; ///< of the last two
};

bool among(const std::string& word, std::initializer_list<const char*> words) {
    return std::any_of(words.begin(), words.end(), [&](const char* one) { return word == one; });
}

// A header without units, brackets and signs, in single words: "Cr [wt%] +/-" is "cr", and an error.
Column columnOf(const std::string& header) {
    std::string plain;
    for (const char c : header) {
        const bool letter = (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z');
        plain += letter ? c : ' ';
    }
    std::vector<std::string> words;
    for (const std::string& word : split(plain, ' ')) {
        if (!word.empty() && !among(lowered(word), {"wt", "mass", "percent", "ppm", "w"})) words.push_back(word);
        if (among(word, {"W"})) words.push_back(word); // tungsten, not a weight
    }
    const std::string low = lowered(header);
    const bool error = low.find("+/-") != std::string::npos || low.find("\xC2\xB1") != std::string::npos ||
                       std::any_of(words.begin(), words.end(), [](const std::string& word) {
                           return among(lowered(word), {"err", "error", "sigma", "uncertainty", "sd", "dev"});
                       });
    for (const std::string& word : words) {
        for (const char* element : elements) {
            if (word == element) return {error ? ColumnIs::errorOfElement : ColumnIs::ofElement, element};
        }
    }
    const std::string first = words.empty() ? std::string() : lowered(words.front());
    if (among(first, {"piece", "blade", "mark", "knife", "sample", "specimen", "name", "id", "probe", "messer"}))
        return {ColumnIs::piece, {}};
    if (among(first, {"element", "el", "symbol"})) return {ColumnIs::element, {}};
    if (error) return {ColumnIs::error, {}};
    if (among(first, {"concentration", "conc", "value", "content", "gehalt"}) ||
        among(lowered(std::string(trimmed(header))), {"%", "percent", "wt%", "wt.%", "mass %", "wt %"}))
        return {ColumnIs::percent, {}};
    return {};
}

// As readShot() understands it.
std::string valueIn(const std::string& field) {
    const std::string low = lowered(std::string(trimmed(field)));
    if (low.empty() || among(low, {"-", "--", "nd", "n.d.", "n/d", "lod", "<lod", "< lod", "bdl", "<loq", "n.a."}))
        return "<LOD";
    return std::string(trimmed(field));
}

} // namespace

Result<ShotTable> readShotTable(std::string_view text, const PrintedError& printed) {
    const Result<CsvText> csv = readCsv(text);
    if (!csv) return csv.error();
    std::vector<Column> columns;
    for (const std::string& header : csv->header) columns.push_back(columnOf(header));
    const auto find = [&](ColumnIs is) {
        return static_cast<std::size_t>(
            std::find_if(columns.begin(), columns.end(), [&](const Column& one) { return one.is == is; }) -
            columns.begin());
    };
    const std::size_t none = columns.size();
    const std::size_t piece = find(ColumnIs::piece);
    const std::size_t element = find(ColumnIs::element);
    const std::size_t percent = find(ColumnIs::percent);
    const std::size_t error = find(ColumnIs::error);
    const bool perElement = element != none && percent != none;
    const auto elementColumns =
        std::count_if(columns.begin(), columns.end(), [](const Column& one) { return one.is == ColumnIs::ofElement; });
    if (!perElement && elementColumns < 2)
        return Error{ErrorKind::input, "line 1", "there is neither a column an element nor element and percent"};
    ShotTable table;
    table.names_pieces = piece != none;
    table.has_errors = perElement ? error != none : find(ColumnIs::errorOfElement) != none;
    // Each shot as the lines of a steel.csv, which one reader understands.
    const auto noteLod = [&](const std::string& value, const std::string& stated) {
        table.numbers_lod = table.numbers_lod || (value == "<LOD" && parseNumber(stated));
    };
    struct Lines {
        std::string piece;
        std::string text = "element;percent;error\n";
        int line = 0;
        std::vector<int> at = {}; ///< line of the table that each of its own came from
    };
    std::vector<Lines> shots;
    for (const CsvRow& row : csv->rows) {
        const auto field = [&](std::size_t i) {
            return i < row.fields.size() ? std::string(trimmed(row.fields[i])) : std::string();
        };
        const std::string who = piece != none ? field(piece) : std::string();
        if (perElement) {
            if (shots.empty() || shots.back().piece != who) shots.push_back({who, "element;percent;error\n", row.line});
            shots.back().text +=
                field(element) + ';' + valueIn(field(percent)) + ';' + (error != none ? field(error) : "") + '\n';
            shots.back().at.push_back(row.line);
            if (error != none) noteLod(valueIn(field(percent)), field(error));
            continue;
        }
        Lines shot{who, "element;percent;error\n", row.line};
        for (std::size_t i = 0; i < columns.size(); ++i) {
            if (columns[i].is != ColumnIs::ofElement) continue;
            std::string stated;
            for (std::size_t k = 0; k < columns.size(); ++k) {
                if (columns[k].is == ColumnIs::errorOfElement && columns[k].element == columns[i].element)
                    stated = field(k);
            }
            noteLod(valueIn(field(i)), stated);
            shot.text += columns[i].element + ';' + valueIn(field(i)) + ';' + stated + '\n';
            shot.at.push_back(row.line);
        }
        shots.push_back(std::move(shot));
    }
    for (const Lines& lines : shots) {
        Result<CompositionShot> shot = readShot(lines.text, printed);
        if (!shot) {
            if (shot.error().kind == ErrorKind::range) return shot.error();
            table.skipped.push_back({lines.line, shot.error().text});
            continue;
        }
        // A row of which nothing was found is an empty one.
        const bool any = std::any_of(shot->elements.begin(), shot->elements.end(),
                                     [](const ElementReading& one) { return one.percent.has_value(); });
        if (!any) {
            table.skipped.push_back({lines.line, "no element was found in this row"});
            continue;
        }
        for (const CompositionShot::Skipped& one : shot->skipped) // behind the header of its own lines
            table.skipped.push_back({lines.at[static_cast<std::size_t>(one.line - 2)], one.reason});
        table.rows.push_back({lines.piece, std::move(shot).value(), lines.line});
    }
    if (table.rows.empty()) return Error{ErrorKind::input, "", "no row holds a composition"};
    return table;
}

} // namespace rollcall
