// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/acts/shop_actions.h"
#include "app/batch/batch_form.h"
#include "core/base/number.h"
#include "logbook/actions/blades.h"
#include "words/words.h"

// The part of ShopActions that says what single blades are: a forgotten one, a knife with its own claim.
namespace rollcall {

// Shaped like the batch's first unless it is said otherwise.
void ShopActions::addForgotten() {
    if (!m_document.hasBatch()) return;
    const Batch& batch = m_document.batch();
    const BladeShape like = batch.blades.empty() ? BladeShape{} : batch.blades.front().shape;
    auto* form = new FormDialog(tr("A blade more in %1").arg(QString::fromStdString(batch.name)), tr("Add it"),
                                {{"mark", tr("Mark"), tr("that no other blade has"), {}, {}, false},
                                 {"thickness",
                                  tr("Thickness"),
                                  tr("mm, or 0.095in"),
                                  like.thickness_mm > 0 ? QString::number(like.thickness_mm) : QString(),
                                  {},
                                  false}},
                                m_look, m_window);
    form->ask(
        [this](const FormValues& v) -> FormFault {
            if (v["mark"].isEmpty()) return {QStringLiteral("mark"), tr("Type its mark.")};
            if (m_document.indexOfMark(v["mark"].toStdString()) >= 0)
                return {QStringLiteral("mark"), tr("Another blade of this batch is marked %1.").arg(v["mark"])};
            if (v["thickness"].isEmpty()) return {};
            const auto thickness = parseQuantity(v["thickness"].toStdString(), Quantity::length);
            return thickness && *thickness >= 0.2 && *thickness <= 50
                       ? FormFault{}
                       : FormFault{QStringLiteral("thickness"), tr("Type 0.2 to 50 mm, or leave it blank.")};
        },
        [this, id = batch.id, like](const FormValues& v) {
            BladeDraft draft;
            draft.mark = v["mark"].toStdString();
            draft.shape = like;
            draft.shape.thickness_mm =
                v["thickness"].isEmpty() ? 0 : parseQuantity(v["thickness"].toStdString(), Quantity::length).value();
            draft.thickness_text = v["thickness"].toStdString();
            m_document.perform(
                [id, draft](Logbook& logbook) -> Result<Done> {
                    const auto added = rollcall::addBlade(logbook, id, draft);
                    return added ? Result<Done>(Done{}) : Result<Done>(added.error());
                },
                [this, mark = v["mark"]](const Result<Done>& done) { afterWork(tr("%1 added").arg(mark), done); });
        });
}

void ShopActions::changeClaim() {
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return;
    const BladeClaim own = blade->own.value_or(BladeClaim{});
    const Batch& batch = m_document.batch();
    const auto windowWords = [](const Window& window) {
        return !window.low && !window.high ? QString()
               : window.high               ? words::windowText(window)
                                           : words::hardness(*window.low);
    };
    const QString asBatch = tr("blank: as the batch, %1");
    const auto silent = [](const std::string& text) {
        return text.empty() ? tr("none") : QString::fromStdString(text);
    };
    auto* form = new FormDialog(
        tr("What %1 is and is asked for").arg(QString::fromStdString(blade->mark)), tr("Judge anew"),
        {{"sold_as",
          tr("Sold as"),
          asBatch.arg(silent(batch.claimed.empty() ? batch.grade : batch.claimed)),
          QString::fromStdString(own.claimed),
          {},
          false},
         {"taken_for",
          tr("Taken for"),
          tr("blank: what it was sold as"),
          own.grade == own.claimed ? QString() : QString::fromStdString(own.grade),
          {},
          false},
         {"purpose", tr("Use"), asBatch.arg(silent(batch.purpose)), QString::fromStdString(own.purpose), {}, false},
         {"window",
          tr("Window"),
          asBatch.arg(words::windowText(batch.window)),
          own.window ? windowWords(*own.window) : QString(),
          {},
          false},
         {"finished", tr("Finished"), tr("finished: no temper of ours is advised"),
          batch.isFinished(*blade) ? QStringLiteral("yes") : QStringLiteral("no"), yesOrNo(), false}},
        m_look, m_window);
    form->ask(
        [](const FormValues& v) -> FormFault {
            const WindowAnswer answer = windowFromText(v["window"]);
            return answer.fault.isEmpty() ? FormFault{} : FormFault{QStringLiteral("window"), answer.fault};
        },
        [this, id = blade->id, mark = QString::fromStdString(blade->mark), own,
         batchTempers = batch.minimum_tempers](const FormValues& v) {
            BladeClaim claim = own;
            claim.claimed = v["sold_as"].toStdString();
            claim.grade = v["taken_for"].isEmpty() ? claim.claimed : v["taken_for"].toStdString();
            for (std::string* grade : {&claim.claimed, &claim.grade}) {
                if (const Grade* known = m_document.tables().grade(*grade)) *grade = known->name;
            }
            claim.purpose = v["purpose"].toStdString();
            claim.window = v["window"].isEmpty() ? std::nullopt : std::optional(windowFromText(v["window"]).window);
            const bool finished = v["finished"] == QLatin1String("yes");
            if (finished)
                claim.minimum_tempers = batchTempers == 0 ? std::nullopt : std::optional(0);
            else if (claim.minimum_tempers == 0 || batchTempers == 0)
                claim.minimum_tempers = batchTempers == 0 ? std::optional(1) : std::nullopt;
            m_document.perform(
                [id, claim](Logbook& logbook) { return rollcall::changeClaim(logbook, id, claim); },
                [this, mark](const Result<Done>& done) { afterWork(tr("%1 judged anew").arg(mark), done); });
        });
}

} // namespace rollcall
