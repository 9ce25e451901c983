// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/acts/shop_actions.h"
#include "app/shared/choice_dialog.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/release.h"
#include "words/words.h"

#include <algorithm>

// The part of ShopActions that asks what becomes of a blade, and signs.
namespace rollcall {

void ShopActions::decide() {
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return;
    const auto index = static_cast<std::size_t>(m_document.bladeIndex());
    const ReleaseAnswer& answer = m_document.judged().release(index);
    if (answer.out) return emit said(tr("%1 is out of the batch.").arg(QString::fromStdString(blade->mark)), true);
    std::vector<Choice> choices;
    const bool finished = m_document.batch().isFinished(*blade);
    std::vector<Disposition> offered;
    for (std::size_t i = 0; i < dispositions; ++i) {
        const auto one = static_cast<Disposition>(i);
        const bool ours = one == Disposition::temperAgain || one == Disposition::reharden || one == Disposition::scrap;
        if (finished ? ours : one == Disposition::sendBack) continue; // nothing is done to a finished knife's steel
        QString detail = one == answer.suggestion.disposition ? tr("suggested; ") : QString();
        switch (one) {
        case Disposition::release:
            detail += answer.untempered         ? tr("glass-hard, never tempered: say why")
                      : answer.cracked          ? tr("over a crack, with the reason")
                      : answer.damaged          ? tr("over damage, with the reason")
                      : answer.open.size() > 1  ? tr("over %1 open gates, with the reason").arg(answer.open.size())
                      : answer.open.size() == 1 ? tr("over one open gate, with the reason")
                      : answer.struck           ? tr("over readings struck out, with the reason")
                                                : tr("every gate is answered");
            break;
        case Disposition::temperAgain:
            detail += tr("T logs the temper; it is read again then");
            break;
        case Disposition::reharden:
            detail += tr("H begins round %1 of %2: all gates open anew, more skin is lost")
                          .arg(blade->round + 1)
                          .arg(m_document.batch().rehardening_limit + 1);
            break;
        case Disposition::otherPurpose:
            detail += tr("for its own window, in a batch of its own");
            break;
        case Disposition::hold:
            detail += finished ? tr("until the seller has answered") : tr("nothing is done until it is decided");
            break;
        case Disposition::scrap:
            detail += tr("it leaves the batch");
            break;
        case Disposition::sendBack:
            detail += tr("it is not what it was sold as");
            break;
        }
        offered.push_back(one);
        choices.push_back({QString::number(offered.size()), words::dispositionName(one), detail});
    }
    auto* dialog = new ChoiceDialog(tr("What becomes of %1?").arg(QString::fromStdString(blade->mark)),
                                    {tr("You decide and sign; the record only suggests.")}, choices, m_look, m_window);
    // Enter takes what the record suggests, or holds the blade; it never lets one go that is not passed.
    const auto at = [&](Disposition one) { return std::find(offered.begin(), offered.end(), one); };
    auto first = at(answer.suggestion.disposition);
    if (first == offered.end()) first = at(Disposition::hold);
    if (first != offered.end()) dialog->choose(static_cast<std::size_t>(first - offered.begin()));
    dialog->ask([this, index, offered](int i) { askWhy(index, offered[static_cast<std::size_t>(i)]); });
}

void ShopActions::askWhy(std::size_t blade, Disposition disposition) {
    if (!m_document.hasBatch() || blade >= m_document.batch().blades.size()) return;
    const bool free =
        disposition == Disposition::release && !m_document.judged().release(blade).needsReason(disposition);
    auto* form = new FormDialog(
        tr("%1: %2").arg(QString::fromStdString(m_document.batch().blades[blade].mark),
                         words::dispositionName(disposition)),
        tr("Sign"),
        {{"reason", tr("Why"), free ? tr("blank: none") : tr("a year from now it is asked"), {}, {}, false}}, m_look,
        m_window);
    form->ask(
        [free](const FormValues& v) {
            return free || !v["reason"].isEmpty() ? FormFault{} : FormFault{QStringLiteral("reason"), tr("Say why.")};
        },
        [this, blade, disposition](const FormValues& v) { signFor({blade}, disposition, v["reason"]); });
}

void ShopActions::signFor(std::vector<std::size_t> blades, Disposition disposition, const QString& reason) {
    if (!m_document.hasBatch()) return;
    std::vector<Decision> decisions;
    std::vector<std::string> scrapped;
    for (const std::size_t i : blades) {
        if (i >= m_document.batch().blades.size()) continue;
        const Blade& blade = m_document.batch().blades[i];
        // What it rests on is what is on screen now; if that changed meanwhile, the signature is stale at once.
        decisions.push_back(
            {blade.id,
             {disposition, blade.round, releaseBasis(m_document.verdicts().blades[i]), reason.toStdString(), {}, {}}});
        if (disposition == Disposition::scrap) scrapped.push_back(blade.id);
    }
    m_document.perform(
        [decisions, scrapped, why = reason.toStdString()](Logbook& logbook) -> Result<Done> {
            return logbook.inOneTransaction([&]() -> Result<Done> {
                auto done = rollcall::sign(logbook, decisions);
                for (const std::string& blade : scrapped) {
                    if (done) done = rollcall::takeOut(logbook, blade, Fate::scrapped, Gate::release, why);
                }
                return done;
            });
        },
        [this, disposition, count = decisions.size()](const Result<Done>& done) {
            if (done)
                emit said(count == 1 ? tr("%1, signed.").arg(words::dispositionName(disposition))
                                     : tr("%1, signed for %2.").arg(words::dispositionName(disposition)).arg(count),
                          false);
        });
}

} // namespace rollcall
