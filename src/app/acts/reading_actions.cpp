// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/acts/shop_actions.h"
#include "app/shared/choice_dialog.h"
#include "app/shared/picture.h"
#include "app/shared/typed_reading.h"
#include "core/base/number.h"
#include "core/judge/second_opinion.h"
#include "logbook/actions/blades.h"
#include "plot/differences.h"
#include "words/words.h"

// Whole sets of readings: a series of strikes, and which of two testers' sets stands.
namespace rollcall {

void ShopActions::logSeries() {
    const Blade* blade = nullptr;
    if (!needsBlade(blade)) return;
    const Tester* tester = m_document.tester();
    if (tester == nullptr || tester->kind != TesterKind::rebound)
        return emit said(tr("A series is of rebound strikes: choose a rebound tester under R."), true);
    auto* form =
        new FormDialog(tr("Strikes on %1").arg(QString::fromStdString(blade->mark)), tr("Log the series"),
                       {{"strikes", tr("Strikes"), tr("HRC in order; =66.4 on the same spot"), {}, {}, false},
                        {"mean", tr("Its average"), tr("as the instrument shows; may be blank"), {}, {}, false},
                        {"support",
                         tr("Support"),
                         tr("block, coupling"),
                         {},
                         {QString(),
                          {"coupled to a heavy block", tr("coupled to a heavy block")},
                          {"on a heavy block, dry", tr("on a heavy block, dry")},
                          {"held in the hand", tr("held in the hand")}},
                         true}},
                       m_look, m_window);
    form->ask(
        [this](const FormValues& v) -> FormFault {
            const StrikesText strikes = strikesFromText(v["strikes"], m_document.tables());
            if (!strikes.fault.isEmpty()) return {QStringLiteral("strikes"), strikes.fault};
            const auto mean = parseNumber(v["mean"].toStdString());
            if (!v["mean"].isEmpty() && (!mean || *mean < 20 || *mean > 70))
                return {QStringLiteral("mean"), tr("Type HRC 20 to 70, or leave it blank.")};
            return {};
        },
        [this](const FormValues& v) {
            const StrikesText strikes = strikesFromText(v["strikes"], m_document.tables());
            const auto mean = parseNumber(v["mean"].toStdString());
            m_station.logSeries(strikes.values, strikes.same_spot, mean ? std::optional<double>(*mean) : std::nullopt,
                                v["support"].toStdString());
        });
}

void ShopActions::secondOpinions() {
    if (!m_document.hasBatch()) return emit said(tr("Open a batch first."), true);
    const Gate gate = m_document.gate();
    const Batch& batch = m_document.batch();
    const std::vector<const Tester*> testers = testersRead(batch, gate);
    if (testers.size() < 2)
        return emit said(tr("No three blades are read by two testers at %1.").arg(words::gateName(gate)), true);
    // The two that were read first; a third is compared once one of them is superseded.
    const auto opinion = secondOpinion(batch, gate, testers[0]->id, testers[1]->id);
    if (!opinion) return emit said(words::errorText(opinion.error()), true);
    const Comparison& c = opinion->comparison;
    const QString a = QString::fromStdString(testers[0]->name);
    const QString b = QString::fromStdString(testers[1]->name);
    QStringList lines{tr("%1 minus %2: bias %3, 95 % between %4 and %5")
                          .arg(a, b, words::hardness(c.bias), words::hardness(c.low), words::hardness(c.high)),
                      c.differ() ? tr("They differ: which one is right, a block near the work can say.")
                                 : tr("No difference can be shown with %1 blades.").arg(c.n),
                      tr("One more blade may differ by %1 to %2.")
                          .arg(words::hardness(c.agreement_low), words::hardness(c.agreement_high))};
    if (c.rough) lines << tr("Rough: fewer than five blades.");
    lines << tr("The set that does not stand is superseded, with the reason; it stays visible.");
    const std::vector<Choice> choices{{QStringLiteral("1"), tr("%1 stands").arg(a), tr("%1's are superseded").arg(b)},
                                      {QStringLiteral("2"), tr("%1 stands").arg(b), tr("%1's are superseded").arg(a)},
                                      {QStringLiteral("3"), tr("Leave both"), tr("blades stay Borderline at best")}};
    auto* dialog = new ChoiceDialog(tr("Second opinion at %1, %2 blades").arg(words::gateName(gate)).arg(c.n), lines,
                                    choices, m_look, m_window);
    dialog->showPicture(new Picture(m_look.px(230), tr("Difference of each blade against its mean"),
                                    [this, c](QPainter& p, const QRect& r) { drawDifferences(p, r, c, m_look); }));
    dialog->ask([this, a, b, first = opinion->readings_a, second = opinion->readings_b](int i) {
        if (i > 1) return;
        const QString stands = i == 0 ? a : b;
        askReason(tr("%1 stands. Why?").arg(stands), tr("Supersede the other"),
                  {QString(),
                   {"verified nearer to the work", tr("verified nearer to the work")},
                   {"the more careful set", tr("the more careful set")},
                   {"the more conservative set", tr("the more conservative set")}},
                  [this, stands, out = i == 0 ? second : first](const std::string& reason) {
                      const std::string why =
                          (tr("%1 stands").arg(stands) + QStringLiteral(": ")).toStdString() + reason;
                      m_document.perform(
                          [out, why](Logbook& logbook) { return supersedeReadings(logbook, out, why); },
                          [this, stands](const Result<Done>& done) { afterWork(tr("%1 stands").arg(stands), done); });
                  });
    });
}

} // namespace rollcall
