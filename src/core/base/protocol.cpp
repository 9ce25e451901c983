// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/base/protocol.h"

#include "core/base/csv.h"
#include "core/base/number.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <fmt/format.h>

namespace rollcall {

namespace {

constexpr double largestLimit = 1e9; // of anything that a step measures, in its own unit

std::string numberText(const std::optional<double>& value) {
    return value ? fmt::format("{}", *value) : std::string(); // as many digits as it takes to be the same again
}

} // namespace

std::optional<StepKind> stepKindNamed(const std::string& name) {
    for (std::size_t i = 0; i < namesOf<StepKind>.size(); ++i) {
        if (sameName(name, namesOf<StepKind>[i])) return static_cast<StepKind>(i);
    }
    return std::nullopt;
}

const std::vector<std::string>& cautionWords() {
    static const std::vector<std::string> words{"rope", "chop", "bend", "impact", "edge", "nail"};
    return words;
}

const std::vector<std::string>& protocolColumns() {
    static const std::vector<std::string> columns{"protocol", "step",     "kind",  "on",      "unit",
                                                  "least",    "most",     "every", "hold_s",  "touch_up",
                                                  "on_fail",  "destroys", "photo", "caution", "note"};
    return columns;
}

std::string stepFault(const ProtocolStep& step) {
    if (trimmed(step.name).empty()) return "a step needs a name";
    for (const auto& limit : {step.least, step.most}) {
        if (limit && !(std::abs(*limit) <= largestLimit)) return "a limit lies between -1000000000 and 1000000000";
    }
    if (step.least && step.most && *step.least > *step.most) return "the limits are swapped";
    if (step.kind == StepKind::number && !step.least && !step.most) return "a number needs a limit to be held against";
    if (step.kind == StepKind::bend && !(step.least && *step.least > 0 && *step.least <= 180))
        return "a bend needs an angle to reach, between 0 and 180 degrees";
    if (!(step.every >= 1 && step.every <= 10000)) return "cuts are looked at after 1 to 10000 more";
    if (step.hold_s && !(*step.hold_s > 0 && *step.hold_s <= 86400)) return "a timer runs for up to a day";
    const auto& words = cautionWords();
    if (!step.caution.empty() && std::find(words.begin(), words.end(), step.caution) == words.end())
        return fmt::format("there is no caution '{}'", step.caution);
    return {};
}

Result<std::vector<Protocol>> readProtocols(const std::string& csv) {
    const Result<CsvText> text = readCsv(csv);
    if (!text) return text.error();
    std::vector<Protocol> protocols;
    for (const char* needed : {"protocol", "step", "kind"}) {
        if (!text->column(needed))
            return Error{ErrorKind::input, "line 1", fmt::format("the column {} is missing", needed)};
    }
    for (const CsvRow& row : text->rows) {
        const std::string place = fmt::format("line {}", row.line);
        const auto field = [&](const char* name) -> std::string {
            const auto column = text->column(name);
            return column && *column < row.fields.size() ? std::string(trimmed(row.fields[*column])) : std::string();
        };
        const auto number = [&](const char* name) -> Result<std::optional<double>> {
            const std::string typed = field(name);
            if (typed.empty()) return std::optional<double>();
            const auto value = parseNumber(typed);
            if (!value) return Error{ErrorKind::input, place, fmt::format("{}: '{}' is no number", name, typed)};
            return std::optional<double>(*value);
        };
        ProtocolStep step;
        step.name = field("step");
        const auto kind = stepKindNamed(field("kind"));
        if (!kind) return Error{ErrorKind::input, place, fmt::format("'{}' is no kind of step", field("kind"))};
        step.kind = *kind;
        step.on = field("on");
        step.unit = field("unit");
        const auto least = number("least");
        const auto most = number("most");
        const auto every = number("every");
        const auto hold = number("hold_s");
        for (const auto* read : {&least, &most, &every, &hold}) {
            if (!*read) return read->error();
        }
        step.least = *least;
        step.most = *most;
        step.every = static_cast<int>(std::lround(std::clamp(every->value_or(10), 0.0, 1e6)));
        step.hold_s = *hold;
        step.no_touch_up = field("touch_up") == "no";
        step.fail_ends = field("on_fail") != "go on";
        step.destroys = field("destroys") == "yes";
        step.photo = field("photo") == "yes";
        step.caution = field("caution");
        step.note = field("note");
        if (const std::string fault = stepFault(step); !fault.empty()) return Error{ErrorKind::input, place, fault};
        const std::string name = field("protocol");
        if (name.empty()) return Error{ErrorKind::input, place, "the protocol has no name"};
        if (protocols.empty() || protocols.back().name != name) protocols.push_back({name, {}});
        protocols.back().steps.push_back(std::move(step));
    }
    if (protocols.empty()) return Error{ErrorKind::input, "", "there is no step in it"};
    return protocols;
}

std::string protocolText(const Protocol& protocol) {
    std::string text;
    for (const std::string& column : protocolColumns()) text += (text.empty() ? "" : ",") + column;
    text += '\n';
    for (const ProtocolStep& step : protocol.steps) {
        const std::array<std::string, 15> fields{protocol.name,
                                                 step.name,
                                                 nameOf(step.kind),
                                                 step.on,
                                                 step.unit,
                                                 numberText(step.least),
                                                 numberText(step.most),
                                                 fmt::format("{}", step.every),
                                                 numberText(step.hold_s),
                                                 step.no_touch_up ? "no" : "",
                                                 step.fail_ends ? "" : "go on",
                                                 step.destroys ? "yes" : "",
                                                 step.photo ? "yes" : "",
                                                 step.caution,
                                                 step.note};
        std::string line;
        for (std::size_t i = 0; i < fields.size(); ++i) line += (i == 0 ? "" : ",") + csvField(fields[i]);
        text += line + '\n';
    }
    return text;
}

} // namespace rollcall
