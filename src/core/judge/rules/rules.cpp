// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "core/judge/rules/rules.h"

#include "core/judge/agenda.h"

#include <algorithm>
#include <cctype>
#include <fmt/format.h>

namespace rollcall {

namespace {

std::string spaced(std::string name) {
    std::replace(name.begin(), name.end(), '_', ' ');
    return name;
}

std::string joined(const std::vector<Condition>& conditions, const char* between) {
    std::string text;
    for (const Condition& condition : conditions) {
        if (!text.empty()) text += between;
        text += condition.text();
    }
    return text;
}

const char* toneText(Tone tone) {
    switch (tone) {
    case Tone::good:
        return "good";
    case Tone::note:
        return "a note";
    case Tone::caution:
        return "a caution";
    case Tone::bad:
        return "a failure";
    case Tone::open:
        return "open";
    case Tone::unseen:
        return "not looked at";
    }
    return "";
}

std::string signText(const Sign& sign) {
    return spaced(nameOf(sign.fact)) + (sign.tone ? fmt::format(" ({})", toneText(*sign.tone)) : "");
}

} // namespace

const Reason* Findings::find(Fact fact) const {
    if (!has(fact)) return nullptr;
    return &*std::find_if(m_reasons.begin(), m_reasons.end(), [&](const Reason& r) { return r.fact == fact; });
}

bool Sign::in(const Findings& findings) const {
    if (!findings.has(fact)) return false;
    return !tone || std::any_of(findings.reasons().begin(), findings.reasons().end(),
                                [&](const Reason& r) { return r.fact == fact && r.tone == *tone; });
}

bool Condition::in(const Findings& findings) const {
    return std::any_of(any.begin(), any.end(), [&](const Sign& sign) { return sign.in(findings); });
}

std::string Condition::text() const {
    return words != nullptr ? std::string(words) : signText(any.front());
}

bool DecisionRow::fits(const Findings& findings) const {
    return std::all_of(when.begin(), when.end(), [&](const Condition& c) { return c.in(findings); }) &&
           std::none_of(unless.begin(), unless.end(), [&](const Condition& c) { return c.in(findings); });
}

std::string DecisionRow::text() const {
    std::string text = when.empty() ? "otherwise" : joined(when, ", and ");
    if (!unless.empty()) text += "; not: " + joined(unless, ", ");
    return text;
}

void sortReasons(std::vector<Reason>& reasons, const DecisionRow& by) {
    std::bitset<namesOf<Fact>.size()> mayDecide; // most reasons do not, and are not looked at further
    for (const Condition& condition : by.when) {
        for (const Sign& sign : condition.any) mayDecide.set(static_cast<std::size_t>(sign.fact));
    }
    const auto decides = [&](const Reason& reason) {
        return mayDecide.test(static_cast<std::size_t>(reason.fact)) &&
               std::any_of(by.when.begin(), by.when.end(), [&](const Condition& condition) {
                   return std::any_of(condition.any.begin(), condition.any.end(), [&](const Sign& sign) {
                       return sign.fact == reason.fact && (!sign.tone || *sign.tone == reason.tone);
                   });
               });
    };
    // By rank, of each what decided first; a few passes over a dozen reasons.
    std::vector<int> keys;
    keys.reserve(reasons.size());
    for (const Reason& reason : reasons) keys.push_back(2 * rankOf(reason.tone) + (decides(reason) ? 0 : 1));
    if (std::is_sorted(keys.begin(), keys.end())) return;
    std::vector<Reason> sorted;
    sorted.reserve(reasons.size());
    const int last = *std::max_element(keys.begin(), keys.end());
    for (int key = 0; key <= last; ++key) {
        for (std::size_t i = 0; i < reasons.size(); ++i) {
            if (keys[i] == key) sorted.push_back(std::move(reasons[i]));
        }
    }
    reasons = std::move(sorted);
}

void sayCrack(const Blade& blade, Findings& findings) {
    const std::optional<OpenCrack> crack = openCrack(blade);
    if (!crack) return;
    std::vector<double> place;
    if (crack->place_mm) place.push_back(*crack->place_mm);
    findings.say(Fact::crackSeen, Tone::bad, "E12", std::move(place), {crack->kind});
}

std::vector<GateTable> gateTables() {
    return {steelTable(), heatTable(), quenchTable(), temperTable(), edgeTable(), proofTable(), releaseTable()};
}

std::string gateTablesText() {
    std::string text;
    std::vector<std::pair<std::string, std::string>> groups; // what is meant by several facts together
    for (const GateTable& gate : gateTables()) {
        std::string title = nameOf(gate.gate);
        title.front() = static_cast<char>(std::toupper(static_cast<unsigned char>(title.front())));
        text += fmt::format("### {}\n\n| rule | needs | may find |\n|---|---|---|\n", title);
        for (const RuleRow& rule : gate.rules) {
            std::string finds;
            for (const Fact fact : rule.finds) finds += (finds.empty() ? "" : ", ") + spaced(nameOf(fact));
            text += fmt::format("| {} | {} | {} |\n", rule.name, rule.needs, finds);
        }
        text += "\n| | the first row that fits | state | next |\n|---|---|---|---|\n";
        int number = 0;
        for (const DecisionRow& row : *gate.decisions) {
            text += fmt::format("| {} | {} | {} | {} |\n", ++number, row.text(), nameOf(row.state), nameOf(row.act));
            for (const auto* conditions : {&row.when, &row.unless}) {
                for (const Condition& condition : *conditions) {
                    if (condition.words == nullptr) continue;
                    std::string meant;
                    for (const Sign& sign : condition.any) meant += (meant.empty() ? "" : ", ") + signText(sign);
                    const std::pair group(std::string(condition.words), std::move(meant));
                    if (std::find(groups.begin(), groups.end(), group) == groups.end()) groups.push_back(group);
                }
            }
        }
        text += "\n";
    }
    text += stepOrderText();
    text += "### Findings that count alike\n\n| in the tables | any of |\n|---|---|\n";
    for (const auto& [words, meant] : groups) text += fmt::format("| {} | {} |\n", words, meant);
    return text;
}

} // namespace rollcall
