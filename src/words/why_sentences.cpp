// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/phrases.h"
#include "words/words.h"

#include <algorithm>
#include <cmath>

// Why: where the uncertainty of a verdict comes from, what would help most, and every number with its rule.
namespace rollcall::words {

QString budgetPartName(BudgetPart::Source source) {
    switch (source) {
    case BudgetPart::Source::certificate:
        return tr("block certificate");
    case BudgetPart::Source::blockMean:
        return tr("few block readings");
    case BudgetPart::Source::resolution:
        return tr("steps of the display");
    case BudgetPart::Source::repeatability:
        return tr("scatter of the readings");
    case BudgetPart::Source::rebound:
        return tr("coupling and steel group");
    case BudgetPart::Source::conversion:
        return tr("conversion to HRC");
    case BudgetPart::Source::convex:
        return tr("correction for the convex surface");
    case BudgetPart::Source::unknownError:
        return tr("error of the tester, not verified");
    case BudgetPart::Source::aged:
        return tr("drift since the run");
    case BudgetPart::Source::blockDistance:
        return tr("distance of the block");
    }
    return {};
}

QString budgetHint(const Budget& budget) {
    const auto largest = std::max_element(budget.parts.begin(), budget.parts.end(), [](const auto& a, const auto& b) {
        return a.standard_uncertainty < b.standard_uncertainty;
    });
    if (largest == budget.parts.end()) return {};
    switch (largest->source) {
    case BudgetPart::Source::certificate:
        return tr("The block's certificate limits it most: only a better block would help.");
    case BudgetPart::Source::blockMean:
        return tr("More readings on the block would help most.");
    case BudgetPart::Source::resolution:
        return tr("The display's steps limit it most: a finer display would help.");
    case BudgetPart::Source::repeatability:
        return tr("More readings on the blade would help most.");
    case BudgetPart::Source::rebound:
        return tr("Coupling of the rebound probe limits it: a bench tester would help.");
    case BudgetPart::Source::conversion:
        return tr("The conversion limits it: reading in HRC would help.");
    case BudgetPart::Source::convex:
        return tr("The convex surface limits it: a flat would help.");
    case BudgetPart::Source::unknownError:
        return tr("The tester is not verified: a run on a block would help most.");
    case BudgetPart::Source::aged:
        return tr("The run is old: verifying the tester again would help most.");
    case BudgetPart::Source::blockDistance:
        return tr("The block is far from the work: one nearer would help.");
    }
    return {};
}

QStringList derivation(const Verdict& v, const Window& window) {
    QStringList lines;
    const auto f = [](double x, int places = 3) { return QString::number(x, 'f', places); };
    if (v.measurement) {
        const Measurement& m = *v.measurement;
        lines << tr("Mean of %1 readings as read: %2").arg(m.n).arg(f(m.mean));
        if (m.sd) lines << tr("Their standard deviation s: %1").arg(f(*m.sd));
        lines << tr("Minus the tester's error %1: c = %2").arg(f(m.mean - m.corrected_mean), f(m.corrected_mean));
        for (const BudgetPart& part : m.budget.parts) {
            lines << tr("  u, %1: %2  (degrees of freedom %3)")
                         .arg(budgetPartName(part.source), f(part.standard_uncertainty, 4),
                              std::isinf(part.dof) ? tr("endless") : f(part.dof, 0));
        }
        lines << tr("Together u = %1, degrees of freedom %2, k = %3")
                     .arg(f(m.budget.standard_uncertainty, 4), f(m.budget.dof, 1), f(m.budget.coverage_factor));
        lines << tr("U = k · u = %1  (M9)").arg(f(m.budget.expanded_uncertainty));
        lines << tr("Window %1; c − U = %2, c + U = %3  (M15)")
                     .arg(windowText(window), f(m.decided_mean - m.decided_uncertainty, 2),
                          f(m.decided_mean + m.decided_uncertainty, 2));
        lines << tr("Chance inside: %1  (M16)").arg(percent(m.probability_inside));
    }
    for (const Reason& reason : v.reasons)
        lines << tr("%1  (%2)").arg(sentence(reason), QString::fromUtf8(reason.rule));
    lines << tr("Reference tables of %1; the shop's own copy of the standard governs.")
                 .arg(QString::fromStdString(v.tables_edition));
    return lines;
}

} // namespace rollcall::words
