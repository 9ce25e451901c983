// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/judge/gate_case.h"
#include "core/judge/rules/rules.h"
#include "core/judge/steel_book.h"

#include <optional>
#include <vector>

/// What Quench and Temper have in common: hardness readings against a window.
namespace rollcall {

/// A temper after which the hardness rose by more than the readings' own scatter explains.
struct Rise {
    int temper = 0;
    double before = 0;
    double after = 0;
};

/// What is known of one blade at Quench or Temper.
struct ReadBlade {
    ReadBlade(const Batch& batch, const Tables& tables, const Case& c, const Siblings& siblings, const Outlook& outlook,
              SteelStands steel, std::optional<bool> soak, const Verdict* heat, const VerificationBook& runs,
              const std::optional<Instant>& now);

    const Blade& blade() const { return *c.blade; }
    const Measurement* measured() const { return c.measurement ? &*c.measurement : nullptr; }
    bool at(Side side) const { return c.measurement && c.measurement->side == side; }
    bool enoughReadings() const { return c.measurement && taken >= std::max(1, planned); }
    /// Everything is there that the window is decided by.
    bool decidable() const { return enoughReadings() && logged >= needed; }
    /// Harder than the window by the readings, and no temper of this branch reaches it.
    bool outOfReach() const;
    /// Harder than the window, which another temper can mend.
    bool wantsTemper() const { return !finished && decidable() && at(Side::hard) && !passes() && !outOfReach(); }
    /// Inside by its mean and perhaps hard, where the next temper makes it surer to be inside.
    bool hotterHelps() const;
    bool passes() const { return c.measurement && c.measurement->outcome == Outcome::pass; }
    NextStep::With with(Act act, const Findings& findings) const;

    const Batch& batch;
    const Tables& tables;
    const Case& c;
    const Siblings& siblings;
    const Outlook& outlook;
    SteelStands steel; ///< against the grade
    /// Somebody has looked at the steel in any way: a shot, the mill's values, sparks or a coupon.
    bool steelLooked() const;
    /// Read again on clean metal: after its marks were ground off; by files tried twice.
    bool cleaned() const;
    std::optional<bool> soak; ///< whether it kept to its limits
    const Verdict* heat;      ///< at Heat; null where it is not known
    const VerificationBook& runs;
    const std::optional<Instant>& now;
    const Grade* grade;
    Window window;
    bool finished = false; ///< no temper or hardening of ours
    bool byFiles = false;  ///< E37: asked by files, and no tester has read it
    int planned = 0;
    int taken = 0;
    int logged = 0; ///< tempers; 0 at Quench
    int needed = 0; ///< tempers before a Pass, one more than after which it rose
    std::vector<Rise> rises;
    MetalState metal; ///< E51
};

using ReadRules = std::vector<Rule<ReadBlade>>;

/// The rules that both gates begin with, and those on the window itself.
ReadRules evidenceRules();
Rule<ReadBlade> windowRule();
/// E37. A gate that is asked by files alone.
Rule<ReadBlade> filesAloneRule();
std::vector<DecisionRow> filesAloneRows();
/// What stands before another hardening round.
void sayBeforeHardening(const ReadBlade& blade, Findings& findings);
/// A blade that is soft on clean metal too: hardened again, put to another use, or scrapped (E45: last of all).
void sayWhatIsLeft(const ReadBlade& blade, Findings& findings);
std::vector<DecisionRow> softRows();
/// Danger and a wrong steel go before everything that is read (E45, E50).
std::vector<DecisionRow> firstRows();
/// What stands before anything is decided by a number.
std::vector<DecisionRow> validityRows();
/// How a blade that is read and neither soft nor hard is settled.
std::vector<DecisionRow> settlingRows(Gate gate);

const GateRules<ReadBlade>& quenchGate();
const GateRules<ReadBlade>& temperGate();

/// Findings that count alike at both gates.
Condition notVerified();
Condition tooFewReadings();
Condition uneven();

} // namespace rollcall
