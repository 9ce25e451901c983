// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/result.h"
#include "core/heat/recipe.h"
#include "core/judge/gates.h"
#include "core/proof/speaks.h"
#include "words/units.h"

#include <QString>
#include <QStringList>

/// Sentences for the codes and numbers of the core, in the user's language. The one place where a verdict is
/// put into words, shared by window, reports and rollcallctl.
namespace rollcall::words {

QString gateName(Gate gate);
QString stateName(State state);
/// "Temper again"
QString dispositionName(Disposition disposition);
QString strikeName(StrikeReason reason);
/// What a file did: "skates".
QString touchName(FileTouch touch);
/// What an entry of the change log is called by who undoes it: "the excuse".
QString entryName(const std::string& action);
QString ruleName(DecisionRule rule);
QString stageName(StageKind kind);
/// Carbides and wear of a grade in words, from its composition: hardness is not the whole story.
QString wearText(const Grade& grade);
/// What is odd about a stage of a recipe.
QString recipeWarning(const RecipeFinding& finding);

/// A hardness at one decimal with the true minus sign.
QString hardness(double value);
/// A number to one decimal: a grain size, a length.
QString tenths(double value);
/// An uncertainty at one decimal, rounded up.
QString uncertainty(double value);
/// A chance as whole per cent, clipped to 1..99.
QString percent(double chance);
/// A time as "2 h" or "45 min".
QString hours(double value);
/// "one day", "3 days"; "once", "twice", "3 times".
QString days(int count);
QString times(int count);
/// Mass per cent with two or three figures: 0.05, 0.46, 13.6.
QString percentText(double value);
/// "61.0 to 62.5", "64.5 or harder", "no window".
QString windowText(const Window& window);

/// A reading with where it comes from: "62.1 HRC, Bench 1, 25 Nov 10:42; struck out: miscounted".
QString readingText(const Batch& batch, const Reading& reading);

/// A bracket of hardness: "60.0 to 61.5", "60.0 or harder"; infinite limits are open.
QString bracketText(double lower, double upper);

/// A text of the record in the interface language: one of the program's own words ("miscounted") translated, a maker's
/// words as they are. What is stored is always the word, never its translation.
QString recorded(const std::string& text);
/// E35. Which rules beside the one of passing are not the usual ones; said on every paper. Empty where they are.
QString rulesText(const Batch& batch);
/// When a piece of a batch passes, as a sentence; the window itself is not in it.
QString passText(const Batch& batch);
/// "spine", for a stored zone's word.
QString zoneName(const std::string& zone);

/// One reason as a sentence, without its rule.
QString sentence(const Reason& reason);

/// The line under the verdict word: what speaks first.
QString headline(const Verdict& verdict);

/// What to do next, as a verb and an amount; and the line below it that says with what or why.
struct NextWords {
    QString act;
    QString detail;
};
NextWords nextStep(const Verdict& verdict);

/// The same in a list of what is left to do, with the blade it concerns: "read GK-5 again".
QString taskText(const QString& mark, const NextStep& next);

/// A caution for the work at this gate, with the safety of hand and eye.
QString cautionText(Caution caution);

/// E64. What the next step may cost or hurt.
QString stepCautionText(StepCaution caution);

/// The caution that a step of a protocol names.
Caution cautionNamed(const std::string& word);

/// "90 N at 45°".
QString rung(const EdgeLoadStep& step);
QString outcomeName(EdgeOutcome outcome);
/// The line under the verdict word when this reason about grain speaks first; empty for any other.
QString grainHeadline(const Reason& reason);
/// "edge"
QString zoneText(FractureZone zone);
QString traitName(Trait trait);
/// "soak 8.0 min against 14.0 min", "lot not known of both".
QString differenceText(const Difference& difference);

/// One part of the uncertainty budget in words a maker understands.
QString budgetPartName(BudgetPart::Source source);
/// What would narrow the interval most, in a maker's words.
QString budgetHint(const Budget& budget);

/// The derivation of a verdict's numbers with the inputs put in, line by line: what 'why' shows.
QStringList derivation(const Verdict& verdict, const Window& window);

/// An error for a person: the fact, with its place in front where that helps.
QString errorText(const Error& error);

} // namespace rollcall::words
