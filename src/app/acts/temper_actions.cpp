// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/acts/shop_actions.h"
#include "app/shared/form_dialog.h"
#include "core/base/number.h"
#include "core/heat/next_temper.h"
#include "core/judge/doubts.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/heat.h"
#include "words/typed_time.h"
#include "words/words.h"

#include <algorithm>
#include <memory>

// A temper's way into the record, and out of it.
namespace rollcall {

void ShopActions::logTemper(const std::optional<TemperHeat>& start) {
    if (!m_document.hasBatch()) return;
    const Batch& batch = m_document.batch();
    // Offered: all blades that have had as many tempers as the one in hand, and are still in the batch.
    const Blade* current = m_document.blade();
    if (current != nullptr && batch.isFinished(*current))
        return emit said(tr("%1 came finished: it gets no temper of ours.").arg(QString::fromStdString(current->mark)),
                         true);
    QStringList marks;
    for (const Blade& blade : batch.blades) {
        if (current != nullptr && !isOutBefore(blade, Gate::temper) && lastTemper(blade) == lastTemper(*current))
            marks << QString::fromStdString(blade.mark);
    }
    const Verdict* verdict = m_document.verdict(m_document.bladeIndex(), Gate::temper);
    const bool onlyThis = verdict != nullptr && verdict->next.act == Act::temperAgain && current != nullptr;
    QString temperature;
    QString hours = QStringLiteral("2");
    if (current != nullptr && !current->tempers.empty()) {
        if (current->tempers.back().temperature_c)
            temperature = words::field(current->tempers.back().temperature_c, Quantity::temperature);
        if (current->tempers.back().hours) hours = QString::number(*current->tempers.back().hours);
    }
    // The form begins with what is advised.
    const auto* step = verdict != nullptr && !start ? verdict->next.as<TemperStep>() : nullptr;
    if (step != nullptr && step->advised) {
        temperature = words::field(step->advised->temperature_c, Quantity::temperature);
        hours = QString::number(step->advised->hours);
    }
    QStringList together; // what the button says goes in together
    if (step != nullptr) {
        for (const std::string& mark : step->load) together << QString::fromStdString(mark);
    }
    if (start) {
        temperature = words::field(start->temperature_c, Quantity::temperature);
        hours = QString::number(start->hours);
    }
    const Grade* grade = m_document.tables().grade(m_document.claim().grade);
    QStringList colours{QString()};
    for (const OxideColour& one : m_document.tables().oxideColours()) colours << QString::fromStdString(one.name);
    auto* form =
        new FormDialog(tr("Log a temper"), tr("Log it"),
                       {{"temperature", tr("Temperature"), words::degreesHint(207), temperature, {}, false},
                        {"hours", tr("Time"), tr("hours, or 90min"), hours, {}, false},
                        {"blades",
                         tr("Blades"),
                         tr("marks, separated by commas"),
                         !together.isEmpty() ? together.join(QStringLiteral(", "))
                         : onlyThis          ? QString::fromStdString(current->mark)
                                             : marks.join(QStringLiteral(", ")),
                         {},
                         false},
                        whenField(),
                        {"reason", tr("Reason"), tr("only for a temper that makes the grade brittle"), {}, {}, false},
                        {"colour", tr("Colour"),
                         tr("of the edge, where no thermometer stood: then leave the "
                            "temperature blank"),
                         QString(), namedChoices(colours), false}},
                       m_look, m_window);
    // What is unlikely is asked about once: the same number typed on stands as it is.
    const auto asked = std::make_shared<QString>();
    const std::optional<double> advised =
        step != nullptr && step->advised ? std::optional(step->advised->temperature_c) : std::nullopt;
    const auto chosen = [this](const QString& text, QString* unknown) { return bladesTyped(text, unknown); };
    form->ask(
        [chosen, grade, asked, advised, window = *m_document.claim().window,
         now = m_document.now()](const FormValues& v) -> FormFault {
            const bool byColour = v["temperature"].isEmpty() && !v["colour"].isEmpty();
            const auto t = words::typed(v["temperature"], Quantity::temperature);
            if (!t && !byColour)
                return {QStringLiteral("temperature"), tr("Type the temperature: %1.").arg(words::degreesHint(205))};
            if (!byColour && (*t < 80 || *t > 750))
                return {QStringLiteral("temperature"),
                        tr("A temper lies between %1 and %2; this is %3.")
                            .arg(words::degreesNumber(80), words::degrees(750), words::degrees(*t))};
            const auto h = parseQuantity(v["hours"].toStdString(), Quantity::duration);
            if (!h || *h <= 0 || *h > 48)
                return {QStringLiteral("hours"), tr("Type the time in hours, up to 48, or like 90min.")};
            QString unknown;
            if (chosen(v["blades"], &unknown).empty() && unknown.isEmpty())
                return {QStringLiteral("blades"), tr("Type at least one mark.")};
            if (!unknown.isEmpty()) return {QStringLiteral("blades"), tr("No blade is marked %1.").arg(unknown)};
            if (const FormFault fault = timeFault(v, now); !fault.sentence.isEmpty()) return fault;
            if (byColour) return {};
            if (grade != nullptr && embrittles(*grade, *t).value_or(false) && v["reason"].isEmpty())
                return {QStringLiteral("reason"),
                        tr("%1 to %2 makes %3 brittle: give the reason.")
                            .arg(words::degrees(*grade->embrittle_c.low), words::degrees(*grade->embrittle_c.high),
                                 QString::fromStdString(grade->name))};
            if (*asked != v["temperature"] && v["reason"].isEmpty()) {
                *asked = v["temperature"];
                if (perhapsFahrenheit(*t, grade, window))
                    return {
                        QStringLiteral("temperature"),
                        tr("%1 °C? As Fahrenheit it would be %2 °C. Correct it, or go on: then it is kept as typed.")
                            .arg(*t, 0, 'f', 0)
                            .arg(fahrenheitToCelsius(*t), 0, 'f', 0)};
                if (advised && farFromAdvised(*t, *advised, grade, window))
                    return {QStringLiteral("temperature"),
                            tr("%1 was advised, this is %2. Correct it, or go on: then it is kept as typed.")
                                .arg(words::degrees(*advised), words::degrees(*t))};
            }
            return {};
        },
        [this, chosen, grade](const FormValues& v) {
            QString unknown;
            TemperDraft temper;
            temper.batch = m_document.batch().id;
            temper.blades = chosen(v["blades"], &unknown);
            if (const auto t = words::typed(v["temperature"], Quantity::temperature)) temper.temperature_c = *t;
            const bool meant =
                temper.temperature_c && perhapsFahrenheit(*temper.temperature_c, grade, *m_document.claim().window);
            std::vector<std::pair<std::string, ColourNote>> notes;
            for (const Blade& blade : m_document.batch().blades) {
                const bool tempered =
                    std::find(temper.blades.begin(), temper.blades.end(), blade.id) != temper.blades.end();
                if (!tempered || v["colour"].isEmpty()) continue;
                ColourNote note;
                note.round = blade.round;
                note.after_temper = lastTemper(blade) + 1;
                note.zone = "edge";
                note.colour = v["colour"].toStdString();
                notes.emplace_back(blade.id, note);
            }
            temper.hours = parseQuantity(v["hours"].toStdString(), Quantity::duration).value();
            temper.as_entered =
                (QString::fromStdString(words::asEntered(v["temperature"], Quantity::temperature)) + QLatin1Char(' ') +
                 v["hours"] + (v["reason"].isEmpty() ? QString() : QStringLiteral("; ") + v["reason"]))
                    .toStdString();
            temper.time = typedTime(v["when"], m_document.now()).value();
            m_document.perform(
                [temper, meant, notes](Logbook& logbook) -> Result<Done> {
                    return logbook.inOneTransaction([&]() -> Result<Done> {
                        const auto id = rollcall::logTemper(logbook, temper);
                        if (!id) return id.error();
                        for (const auto& [blade, note] : notes) {
                            if (auto noted = logColour(logbook, blade, note); !noted) return noted;
                        }
                        return meant ? meanTemper(logbook, *id) : Result<Done>(Done{});
                    });
                },
                [this](const Result<Done>& done) {
                    afterWork(tr("temper logged: read the blades again"), done);
                    if (done) emit temperLogged();
                });
        });
}

void ShopActions::strikeTemper() {
    const Blade* blade = nullptr;
    if (!needsBlade(blade)) return;
    if (blade->tempers.empty() || blade->tempers.back().round != blade->round)
        return emit said(tr("No temper is logged for this blade."), true);
    askReason(tr("Strike out temper %1, for all its blades").arg(blade->tempers.back().number), tr("Strike it out"),
              {QString(),
               {"logged by mistake", tr("logged by mistake")},
               {"wrong temperature typed", tr("wrong temperature typed")},
               {"wrong blades", tr("wrong blades")}},
              [this, id = blade->tempers.back().id](const std::string& reason) {
                  m_document.perform(
                      [id, reason](Logbook& logbook) { return rollcall::strikeTemper(logbook, id, reason); },
                      [this](const Result<Done>& done) { afterWork(tr("temper struck out"), done); });
              });
}

} // namespace rollcall
