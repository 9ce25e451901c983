// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/gate_case.h"
#include "core/judge/verdict.h"

#include <bitset>
#include <optional>
#include <string>
#include <utility>
#include <vector>

/// A gate is a list of rules and a decision table. A rule looks at one thing and says what it finds, whatever the
/// others say; the first row of the table that fits what was found gives the state and the next step. Both are data:
/// printed into docs/method.md, and tested row by row.
namespace rollcall {

/// What the rules of a gate have said of one blade.
class Findings {
public:
    Findings() { m_reasons.reserve(14); } // most verdicts have a dozen

    /// rule: where it comes from: "M15", "E18", "temper", "record".
    void say(Fact fact, Tone tone, const char* rule, std::vector<double> numbers = {},
             std::vector<std::string> texts = {}) {
        add({fact, tone, rule, std::move(numbers), std::move(texts)});
    }
    void add(Reason reason) {
        m_said.set(static_cast<std::size_t>(reason.fact));
        m_reasons.push_back(std::move(reason));
    }
    bool has(Fact fact) const { return m_said.test(static_cast<std::size_t>(fact)); }
    /// The first reason of this fact; null when it was not said.
    const Reason* find(Fact fact) const;
    std::vector<Reason>& reasons() { return m_reasons; }
    const std::vector<Reason>& reasons() const { return m_reasons; }

private:
    std::vector<Reason> m_reasons;
    std::bitset<namesOf<Fact>.size()> m_said;
};

/// A fact that counts, in any tone or in this one alone.
struct Sign {
    Sign(Fact f) : fact(f) {} // NOLINT: a fact is a sign
    Sign(Fact f, Tone t) : fact(f), tone(t) {}
    bool in(const Findings& findings) const;

    Fact fact;
    std::optional<Tone> tone;
};

/// One of these facts was found.
struct Condition {
    Condition(Fact fact) : any{fact} {} // NOLINT: a fact is a condition
    Condition(Fact fact, Tone tone) : any{{fact, tone}} {}
    Condition(const char* name, std::vector<Sign> signs) : words(name), any(std::move(signs)) {}
    bool in(const Findings& findings) const;
    /// "tester not verified", "soft".
    std::string text() const;

    const char* words = nullptr; ///< where several facts count alike
    std::vector<Sign> any;
};

/// A row of a decision table: where all of these were found, and none of those.
struct DecisionRow {
    std::vector<Condition> when; ///< empty: whatever was found
    State state;
    Act act;
    std::vector<Condition> unless = {};

    bool fits(const Findings& findings) const;
    /// "soft, and tester not verified; not burnt in grinding".
    std::string text() const;
};

/// What bites speaks first, and of it what decided, in the order of the rules; last what nobody saw.
void sortReasons(std::vector<Reason>& reasons, const DecisionRow& by);

/// What one rule looks at, in words.
struct RuleRow {
    const char* name;
    const char* needs; ///< without which it has nothing to say, or says that nobody looked
    std::vector<Fact> finds;
};

template<class Subject>
struct Rule : RuleRow {
    void (*look)(const Subject&, Findings&);
};

/// The rules of a gate without the code behind them, for printing and for holding verdicts against them.
struct GateTable {
    Gate gate;
    std::vector<RuleRow> rules;
    const std::vector<DecisionRow>* decisions;
};

/// The rules and the table of a gate; a Subject is what is known of one blade there, and gives a next step what it
/// needs with with(act, findings).
template<class Subject>
struct GateRules {
    Gate gate;
    std::vector<Rule<Subject>> rules;
    std::vector<DecisionRow> decisions;

    GateTable table() const { return {gate, {rules.begin(), rules.end()}, &decisions}; }

    /// The verdict of a blade that is neither excused nor out.
    Verdict judge(const Blade& blade, const Subject& subject) const {
        Verdict verdict = emptyVerdict(blade, gate);
        Findings findings;
        for (const Rule<Subject>& rule : rules) rule.look(subject, findings);
        const DecisionRow& row = firstThatFits(findings);
        verdict.state = row.state;
        verdict.next = {row.act, subject.with(row.act, findings)};
        verdict.row = &row;
        verdict.reasons = std::move(findings.reasons());
        sortReasons(verdict.reasons, row);
        return verdict;
    }

private:
    // The last row of a table holds for whatever was found.
    const DecisionRow& firstThatFits(const Findings& findings) const {
        for (const DecisionRow& row : decisions) {
            if (row.fits(findings)) return row;
        }
        return decisions.back();
    }
};

/// E12. A crack that nobody has cleared, on any gate from Temper on.
void sayCrack(const Blade& blade, Findings& findings);

/// The tables of the gates, each from the file of its gate.
GateTable steelTable();
GateTable heatTable();
GateTable quenchTable();
GateTable temperTable();
GateTable edgeTable();
GateTable proofTable();
GateTable releaseTable();
/// All of them, in working order.
std::vector<GateTable> gateTables();

/// The tables of all gates as they stand in docs/method.md.
std::string gateTablesText();

} // namespace rollcall
