// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/log_acts.h"

#include <cmath>
#include <fmt/format.h>
#include <QJsonArray>
#include <QJsonDocument>

// What a line of `rollcallctl log` says, field by field.
namespace rollcall::cli {

namespace {

std::string listOf(const std::vector<std::string>& names) {
    std::string text;
    for (const std::string& name : names) text += (text.empty() ? "" : ", ") + name;
    return text.empty() ? "none yet" : text;
}

double inRange(const char* field, double value, double least, double most) {
    if (!(value >= least && value <= most))
        throw BadField{field, fmt::format("{:g} is outside {:g} to {:g}", value, least, most)};
    return value;
}

double numberOf(const char* field, const QJsonValue& value, Quantity quantity) {
    if (value.isDouble()) return value.toDouble();
    if (!value.isString()) throw BadField{field, "a number is needed, or one with its unit as text"};
    const auto read = parseQuantity(value.toString().toStdString(), quantity);
    if (!read) throw BadField{field, read.error().text};
    return *read;
}

double plainOf(const char* field, const QJsonValue& value) {
    if (value.isDouble()) return value.toDouble();
    const auto read = value.isString() ? parseNumber(value.toString().toStdString())
                                       : Result<double>(Error{ErrorKind::argument, "", "a number is needed"});
    if (!read) throw BadField{field, read.error().text};
    return *read;
}

} // namespace

bool LogLine::has(const char* field) const {
    const QJsonValue value = this->value(field);
    return !value.isUndefined() && !value.isNull();
}

std::string LogLine::text(const char* field, const char* otherwise) const {
    if (!has(field)) {
        if (otherwise != nullptr) return otherwise;
        throw BadField{field, "it is needed here"};
    }
    if (!value(field).isString()) throw BadField{field, "a text is needed"};
    return value(field).toString().trimmed().toStdString();
}

double LogLine::number(const char* field, Quantity quantity, double least, double most) const {
    if (!has(field)) throw BadField{field, "it is needed here"};
    return inRange(field, numberOf(field, value(field), quantity), least, most);
}

std::optional<double> LogLine::optional(const char* field, Quantity quantity, double least, double most) const {
    return has(field) ? std::optional<double>(number(field, quantity, least, most)) : std::nullopt;
}

double LogLine::plain(const char* field, double least, double most) const {
    if (!has(field)) throw BadField{field, "it is needed here"};
    return inRange(field, plainOf(field, value(field)), least, most);
}

std::optional<double> LogLine::optionalPlain(const char* field, double least, double most) const {
    return has(field) ? std::optional<double>(plain(field, least, most)) : std::nullopt;
}

int LogLine::whole(const char* field, int least, int most) const {
    const double number = plain(field, least, most);
    if (number != std::floor(number)) throw BadField{field, "a whole number is needed"};
    return static_cast<int>(number);
}

bool LogLine::yes(const char* field, bool otherwise) const {
    if (!has(field)) return otherwise;
    if (!value(field).isBool()) throw BadField{field, "true or false is needed"};
    return value(field).toBool();
}

std::vector<double> LogLine::numbers(const char* field, double least, double most) const {
    if (!has(field)) throw BadField{field, "it is needed here"};
    std::vector<double> numbers;
    const QJsonArray all = value(field).isArray() ? value(field).toArray() : QJsonArray{value(field)};
    for (const QJsonValue one : all) numbers.push_back(inRange(field, plainOf(field, one), least, most));
    return numbers;
}

Gate LogLine::gate(const char* field) const {
    if (const auto known = gateNamed(text(field))) return *known;
    throw BadField{field, "known are steel, heat, quench, temper, edge, proof, release"};
}

Batch LogLine::batch() const {
    const std::string name = text("batch");
    const auto batches = logbook().batches();
    if (!batches) throw BadField{"batch", batches.error().text};
    std::vector<std::string> names;
    for (const BatchSummary& summary : *batches) {
        names.push_back(summary.name);
        if (summary.name != name) continue;
        Result<Batch> batch = logbook().batch(summary.id);
        if (!batch) throw BadField{"batch", batch.error().text};
        return std::move(batch).value();
    }
    throw BadField{"batch", fmt::format("there is no batch {}; there are {}", name, listOf(names))};
}

const Blade& LogLine::blade(const Batch& batch) const {
    const std::string mark = text("blade");
    std::vector<std::string> marks;
    for (const Blade& blade : batch.blades) {
        if (blade.mark == mark) return blade;
        marks.push_back(blade.mark);
    }
    throw BadField{"blade", fmt::format("{} has no blade {}; it has {}", batch.name, mark, listOf(marks))};
}

std::vector<const Blade*> LogLine::blades(const Batch& batch) const {
    if (has("blade")) return {&blade(batch)};
    const QJsonValue named = value("blades");
    std::vector<const Blade*> blades;
    if (named.toString() == QLatin1String("all")) {
        for (const Blade& blade : batch.blades) {
            if (!blade.fate) blades.push_back(&blade);
        }
        return blades;
    }
    if (!named.isArray()) throw BadField{"blades", "an array of marks is needed, or \"all\""};
    for (const QJsonValue one : named.toArray()) {
        const QJsonObject line{{"blade", one}};
        blades.push_back(&LogLine(line, m_context).blade(batch));
    }
    if (blades.empty()) throw BadField{"blades", "at least one blade is needed"};
    return blades;
}

Tester LogLine::tester() const {
    const std::string name = text("tester");
    const auto shop = logbook().shop();
    if (!shop) throw BadField{"tester", shop.error().text};
    std::vector<std::string> names;
    for (const Tester& tester : shop->testers) {
        if (tester.name == name) return tester;
        names.push_back(tester.name);
    }
    throw BadField{"tester", fmt::format("there is no tester {}; there are {}", name, listOf(names))};
}

std::string LogLine::entered() const {
    return QJsonDocument(m_values).toJson(QJsonDocument::Compact).toStdString();
}

} // namespace rollcall::cli
