// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/acts/shop_actions.h"
#include "app/batch/batch_form.h"
#include "app/shared/choice_dialog.h"
#include "core/base/number.h"
#include "logbook/actions/blades.h"
#include "words/typed_time.h"
#include "words/words.h"

// The part of ShopActions that mends what a blade or batch was entered as: a forgotten one, other measures, a knife
// with its own claim, a reading typed for another blade.
namespace rollcall {

std::vector<std::string> ShopActions::bladesTyped(const QString& marks, QString* unknown) const {
    std::vector<std::string> ids;
    for (const QString& mark : marks.split(QLatin1Char(','), Qt::SkipEmptyParts)) {
        const int index = m_document.indexOfMark(mark.trimmed().toStdString());
        if (index < 0)
            *unknown = mark.trimmed();
        else
            ids.push_back(m_document.batch().blades[static_cast<std::size_t>(index)].id);
    }
    return ids;
}

void ShopActions::renameBlade() {
    const Blade* blade = nullptr;
    if (!needsBlade(blade)) return;
    const BladeShape shape = blade->shape;
    const QString thickness = shape.thickness_mm > 0 ? words::field(shape.thickness_mm, Quantity::length) : QString();
    auto* form =
        new FormDialog(tr("%1, as it is").arg(QString::fromStdString(blade->mark)), tr("Keep it"),
                       {{"mark", tr("Mark"), {}, QString::fromStdString(blade->mark), {}, false},
                        {"thickness",
                         tr("Thickness"),
                         tr("%1, or 3/32in; what it was stays in the record").arg(words::unit(Quantity::length)),
                         thickness,
                         {},
                         false}},
                       m_look, m_window);
    form->ask(
        [this](const FormValues& v) -> FormFault {
            if (v["mark"].isEmpty()) return {QStringLiteral("mark"), tr("A blade needs a mark.")};
            const int other = m_document.indexOfMark(v["mark"].toStdString());
            if (other >= 0 && other != m_document.bladeIndex())
                return {QStringLiteral("mark"), tr("Another blade has that mark.")};
            if (v["thickness"].isEmpty()) return {};
            const auto typed = words::typed(v["thickness"], Quantity::length);
            return typed && *typed >= 0.2 && *typed <= 50
                       ? FormFault{}
                       : FormFault{QStringLiteral("thickness"),
                                   tr("Type %1 to %2, or leave it blank.")
                                       .arg(words::lengthNumber(0.2), words::length(50, 0))};
        },
        [this, id = blade->id, mark = blade->mark, shape, thickness](const FormValues& v) {
            const bool otherMark = v["mark"].toStdString() != mark;
            const bool otherShape = v["thickness"] != thickness;
            BladeShape measured = shape;
            measured.thickness_mm =
                v["thickness"].isEmpty() ? 0 : words::typed(v["thickness"], Quantity::length).value();
            m_document.perform([=](Logbook& logbook) {
                return logbook.inOneTransaction([&]() -> Result<Done> {
                    Result<Done> done = Done{};
                    if (otherMark) done = rollcall::renameBlade(logbook, id, v["mark"].toStdString());
                    if (done && otherShape)
                        done = changeShape(logbook, id, measured, words::asEntered(v["thickness"], Quantity::length));
                    return done;
                });
            });
        });
}

void ShopActions::renameBatch() {
    if (!m_document.hasBatch()) return;
    const Batch& batch = m_document.batch();
    auto* form =
        new FormDialog(tr("Another name for %1").arg(QString::fromStdString(batch.name)), tr("Rename"),
                       {{"name", tr("Name"), {}, QString::fromStdString(batch.name), {}, false}}, m_look, m_window);
    form->ask(
        [this, id = batch.id](const FormValues& v) -> FormFault {
            if (v["name"].isEmpty()) return {QStringLiteral("name"), tr("Give the batch a name.")};
            for (const BatchSummary& other : m_document.state().batches()) {
                if (other.id != id && QString::fromStdString(other.name) == v["name"])
                    return {QStringLiteral("name"), tr("There is a batch of that name. Choose another.")};
            }
            return {};
        },
        [this, id = batch.id](const FormValues& v) {
            m_document.perform([id, name = v["name"].toStdString()](Logbook& logbook) {
                return rollcall::renameBatch(logbook, id, name);
            });
        });
}

// The last reading of the blade in hand was made on another: it moves there with its time and tester.
void ShopActions::moveReading() {
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return;
    const Reading* last = nullptr;
    for (const Reading& reading : blade->readings) {
        if (!reading.struck && reading.gate == m_document.gate() && reading.round == blade->round) last = &reading;
    }
    if (last == nullptr) return emit said(tr("There is no reading to move."), true);
    std::vector<Choice> choices;
    std::vector<std::string> ids;
    for (const Blade& other : m_document.batch().blades) {
        if (other.id == blade->id || other.fate) continue;
        ids.push_back(other.id);
        choices.push_back({choices.size() < 9 ? QString::number(choices.size() + 1) : QString(),
                           QString::fromStdString(other.mark),
                           {}});
    }
    (new ChoiceDialog(
         tr("Which blade was %1 made on?").arg(words::hardness(last->value)),
         {tr("It is struck out on %1 as a typing slip and stands there, at its own time. Where on the blade "
             "is not known.")
              .arg(QString::fromStdString(blade->mark))},
         choices, m_look, m_window))
        ->ask([this, ids, batch = m_document.batch(), id = last->id](int i) {
            m_document.perform([batch, id, to = ids[static_cast<std::size_t>(i)]](
                                   Logbook& logbook) { return rollcall::moveReading(logbook, batch, id, to); },
                               [this](const Result<Done>& done) { afterWork(tr("reading moved"), done); });
        });
}

void ShopActions::logCold() {
    if (!m_document.hasBatch()) return;
    QStringList marks;
    for (const Blade& blade : m_document.batch().blades) {
        if (!blade.fate && lastTemper(blade) == 0) marks << QString::fromStdString(blade.mark);
    }
    auto* form =
        new FormDialog(tr("Cold treatment"), tr("Log it"),
                       {{"temperature",
                         tr("Temperature"),
                         tr("%1; dry ice %2, nitrogen %3")
                             .arg(words::unit(Quantity::temperature), words::degrees(-75), words::degrees(-196)),
                         words::field(-75.0, Quantity::temperature),
                         {},
                         false},
                        {"hours", tr("Time"), tr("hours, or 90min"), QStringLiteral("1"), {}, false},
                        {"blades",
                         tr("Blades"),
                         tr("marks; best within the hour after the quench"),
                         marks.join(QStringLiteral(", ")),
                         {},
                         false},
                        whenField()},
                       m_look, m_window);
    form->note([](const FormValues&) {
        return tr("Untempered steel can crack in the cold. Dry ice and nitrogen burn skin and take the air of a room: "
                  "gloves, face shield, open doors, local rules.");
    });
    form->ask(
        [this, now = m_document.now()](const FormValues& v) -> FormFault {
            const auto t = words::typed(v["temperature"], Quantity::temperature);
            if (!t || *t < -200 || *t >= 0)
                return {QStringLiteral("temperature"),
                        tr("Type %1 to %2.").arg(words::degreesNumber(-200), words::degrees(0))};
            const auto h = parseQuantity(v["hours"].toStdString(), Quantity::duration);
            if (!h || *h <= 0 || *h > 72) return {QStringLiteral("hours"), tr("Type the time in hours, up to 72.")};
            QString unknown;
            if (bladesTyped(v["blades"], &unknown).empty() || !unknown.isEmpty())
                return {QStringLiteral("blades"),
                        unknown.isEmpty() ? tr("Type at least one mark.") : tr("No blade is marked %1.").arg(unknown)};
            return timeFault(v, now);
        },
        [this](const FormValues& v) {
            QString unknown;
            m_document.perform([batch = m_document.batch(), blades = bladesTyped(v["blades"], &unknown),
                                t = words::typed(v["temperature"], Quantity::temperature).value(),
                                h = parseQuantity(v["hours"].toStdString(), Quantity::duration).value(),
                                at = typedTime(v["when"], m_document.now()).value()](
                                   Logbook& logbook) { return rollcall::logCold(logbook, batch, blades, t, h, at); },
                               [this](const Result<Done>& done) { afterWork(tr("cold treatment logged"), done); });
        });
}

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
                                  like.thickness_mm > 0 ? words::field(like.thickness_mm, Quantity::length) : QString(),
                                  {},
                                  false}},
                                m_look, m_window);
    form->ask(
        [this](const FormValues& v) -> FormFault {
            if (v["mark"].isEmpty()) return {QStringLiteral("mark"), tr("Type its mark.")};
            if (m_document.indexOfMark(v["mark"].toStdString()) >= 0)
                return {QStringLiteral("mark"), tr("Another blade of this batch is marked %1.").arg(v["mark"])};
            if (v["thickness"].isEmpty()) return {};
            const auto thickness = words::typed(v["thickness"], Quantity::length);
            return thickness && *thickness >= 0.2 && *thickness <= 50
                       ? FormFault{}
                       : FormFault{QStringLiteral("thickness"),
                                   tr("Type %1 to %2, or leave it blank.")
                                       .arg(words::lengthNumber(0.2), words::length(50, 0))};
        },
        [this, id = batch.id, like](const FormValues& v) {
            BladeDraft draft;
            draft.mark = v["mark"].toStdString();
            draft.shape = like;
            draft.shape.thickness_mm =
                v["thickness"].isEmpty() ? 0 : words::typed(v["thickness"], Quantity::length).value();
            draft.thickness_text = words::asEntered(v["thickness"], Quantity::length);
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
