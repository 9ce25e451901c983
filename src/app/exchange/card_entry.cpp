// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/exchange/exchange_actions.h"

#include "app/shared/choice_dialog.h"
#include "app/shared/form_dialog.h"
#include "app/shared/local_time.h"
#include "app/shared/typed_reading.h"
#include "core/base/csv.h"
#include "report/batch_card.h"
#include "words/words.h"

#include <QDateTime>
#include <QRegularExpression>

// Readings from a card filled by hand: written as a readings.csv, so that they come in, are kept and are taken back as
// any import.
namespace rollcall {

namespace {

std::string idOf(std::size_t blade) {
    return "blade-" + std::to_string(blade);
}

// The numbers of one line, blanks between them; "-" leaves a spot out. None when a word is no reading.
std::optional<std::vector<std::optional<double>>> numbersIn(const QString& line, const RockwellScale& scale) {
    std::vector<std::optional<double>> numbers;
    static const QRegularExpression blanks(QStringLiteral("[\\s/]+"));
    for (const QString& word : line.split(blanks, Qt::SkipEmptyParts)) {
        if (word == QLatin1String("-")) {
            numbers.push_back(std::nullopt);
            continue;
        }
        const Result<double> typed = typedReading(word.toStdString(), scale);
        if (!typed) return std::nullopt;
        numbers.push_back(*typed);
    }
    return numbers;
}

} // namespace

void ExchangeActions::enterCard() {
    if (!m_document.hasBatch()) return emit said(tr("Make a batch first."), true);
    if (m_document.tester() == nullptr) return emit said(tr("Set up a tester first (R)."), true);
    std::vector<Gate> gates;
    std::vector<Choice> choices;
    for (const Gate gate : {Gate::quench, Gate::temper}) {
        if (!m_document.batch().planOf(gate).required) continue;
        gates.push_back(gate);
        choices.push_back({QString::number(gates.size()), words::gateName(gate),
                           tr("%1 readings planned").arg(m_document.batch().planOf(gate).planned_readings)});
    }
    if (gates.empty()) return emit said(tr("This batch is not read on a tester."), true);
    if (gates.size() == 1) return enterCardAt(gates.front());
    (new ChoiceDialog(tr("Readings of which gate?"), {}, choices, m_look, m_window))->ask([this, gates](int i) {
        enterCardAt(gates[static_cast<std::size_t>(i)]);
    });
}

void ExchangeActions::enterCardAt(Gate gate) {
    const Batch& batch = m_document.batch();
    std::vector<FormField> fields{{"time",
                                   tr("Read at"),
                                   tr("such as %1; blank: not known")
                                       .arg(localTime(m_document.now()).toString(QStringLiteral("yyyy-MM-dd HH:mm"))),
                                   {},
                                   {},
                                   false,
                                   Picks::moment,
                                   localTime(m_document.now())}};
    const int planned = batch.planOf(gate).planned_readings;
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        if (batch.blades[i].fate) continue;
        fields.push_back({QString::fromStdString(idOf(i)),
                          QString::fromStdString(batch.blades[i].mark),
                          fields.size() == 1
                              ? tr("%1 numbers by their spots, blanks between; - leaves one out").arg(planned)
                              : QString(),
                          {},
                          {},
                          false});
    }
    const RockwellScale scale = m_document.tables().scale("HRC").value();
    auto* form =
        new FormDialog(tr("%1 from the card").arg(words::gateName(gate)), tr("Take them"), fields, m_look, m_window);
    form->ask(
        [this, scale](const FormValues& v) -> FormFault {
            const auto at =
                QDateTime::fromString(QString(v["time"]).replace(QLatin1Char(' '), QLatin1Char('T')), Qt::ISODate);
            if (!v["time"].isEmpty() && !at.isValid())
                return {QStringLiteral("time"), tr("Type day and time, such as 2026-11-25 14:30, or leave it blank.")};
            if (at.isValid() && at > localTime(m_document.now()))
                return {QStringLiteral("time"), tr("This lies ahead of now.")};
            bool any = false;
            for (std::size_t i = 0; m_document.hasBatch() && i < m_document.batch().blades.size(); ++i) {
                const QString id = QString::fromStdString(idOf(i));
                const auto numbers = numbersIn(v[id], scale);
                if (!numbers)
                    return {id, tr("%1: type numbers such as 62.1 or 621, with blanks between.")
                                    .arg(QString::fromStdString(m_document.batch().blades[i].mark))};
                any = any || !numbers->empty();
            }
            return any ? FormFault{} : FormFault{QStringLiteral("time"), tr("No number is typed yet.")};
        },
        [this, gate, scale](const FormValues& v) {
            if (!m_document.hasBatch()) return;
            const Batch& now = m_document.batch();
            QByteArray csv = "batch,blade,gate,value,time,tester,x_mm,y_mm,cycle\n";
            const QString time = QString(v["time"]).replace(QLatin1Char(' '), QLatin1Char('T'));
            for (std::size_t i = 0; i < now.blades.size(); ++i) {
                const Blade& blade = now.blades[i];
                const auto numbers = numbersIn(v[QString::fromStdString(idOf(i))], scale);
                if (!numbers) continue;
                const std::vector<Spot> spots = cardSpots(now, blade, m_document.tables());
                const std::size_t before =
                    gate == Gate::quench ? 0 : static_cast<std::size_t>(cardReadings(now, Gate::quench));
                int temper = 0;
                for (const Temper& one : blade.tempers) {
                    if (one.round == blade.round) temper = std::max(temper, one.number);
                }
                for (std::size_t k = 0; k < numbers->size(); ++k) {
                    if (!(*numbers)[k]) continue;
                    const auto field = [](const std::string& text) {
                        return QByteArray::fromStdString(csvField(text)) + ',';
                    };
                    csv += field(now.name) + field(blade.mark) + field(storedName(gate)) +
                           field(QString::number(*(*numbers)[k], 'g', 6).toStdString()) + field(time.toStdString()) +
                           field(m_document.tester()->name);
                    csv += before + k < spots.size() ? QByteArray::number(spots[before + k].x_mm, 'f', 1) + ',' +
                                                           QByteArray::number(spots[before + k].y_mm, 'f', 1) + ','
                                                     : QByteArray(",,");
                    csv += (gate == Gate::temper && temper > 0 ? QByteArray::number(temper) : QByteArray()) + '\n';
                }
            }
            take(tr("card of %1.csv").arg(QString::fromStdString(now.name)), csv);
        });
}

} // namespace rollcall
