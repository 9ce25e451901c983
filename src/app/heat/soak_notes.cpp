// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/heat_form.h"
#include "app/heat/soak_page.h"
#include "logbook/actions/heat.h"

#include <cmath>

// The part of the soak page for what a hand wrote down or timed: notes, the load as one note, the stopwatch.
namespace rollcall {

// Blades by their marks, "*" for all; what names none is given back.
std::vector<const Blade*> SoakPage::bladesNamed(const QString& text, QString* unknown) const {
    std::vector<const Blade*> blades;
    for (const Blade& one : m_document.batch().blades) {
        if (text.trimmed() == QLatin1String("*")) blades.push_back(&one);
    }
    if (!blades.empty()) return blades;
    for (const QString& mark : text.split(QLatin1Char(','), Qt::SkipEmptyParts)) {
        const int i = m_document.indexOfMark(mark.trimmed().toStdString());
        if (i < 0)
            *unknown = mark.trimmed();
        else
            blades.push_back(&m_document.batch().blades[static_cast<std::size_t>(i)]);
    }
    return blades;
}

FormFault SoakPage::bladesFault(const QString& text) const {
    QString unknown;
    if (bladesNamed(text, &unknown).empty() && unknown.isEmpty())
        return {QStringLiteral("blades"), tr("Type at least one mark.")};
    return unknown.isEmpty() ? FormFault{}
                             : FormFault{QStringLiteral("blades"), tr("No blade is marked %1.").arg(unknown)};
}

// Transfer, quenchant and the written note, for the blade in hand or more.
void SoakPage::note() {
    const HeatRun* r = run();
    const Blade* blade = m_document.blade();
    if (r == nullptr || blade == nullptr) return;
    const HeatAnswer& answer = m_document.judged().heat(static_cast<std::size_t>(m_document.bladeIndex()));
    const BladeHeat known = answer.heat != nullptr ? *answer.heat : BladeHeat();
    auto* form = new FormDialog(
        tr("What was noted of the heat"), tr("Note it"),
        {{"blades",
          tr("Blades"),
          tr("marks, separated by commas; * for all"),
          QString::fromStdString(blade->mark),
          {},
          false},
         {"transfer",
          tr("Transfer"),
          tr("seconds from oven into the quench"),
          shown(known.noted_transfer_s),
          {},
          false},
         {"quenchant",
          tr("Quenchant"),
          tr("%1 as it went in").arg(words::unit(Quantity::temperature)),
          words::field(known.quenchant_c, Quantity::temperature),
          {},
          false},
         {"temperature",
          tr("Written: at"),
          tr("%1 in the written note").arg(words::unit(Quantity::temperature)),
          words::field(known.noted_c, Quantity::temperature),
          {},
          false},
         {"minutes", tr("Written: soak"), tr("minutes in the written note"), shown(known.noted_minutes), {}, false},
         {"note", tr("Note"), tr("anything else"), QString::fromStdString(known.note), {}, false}},
        m_look, window());
    form->ask(
        [this](const FormValues& v) -> FormFault {
            if (const FormFault fault = bladesFault(v["blades"]); !fault.field.isEmpty()) return fault;
            if (const auto fault = faultIn(v, "transfer", 0, 600, tr("Type seconds, up to 600."));
                !fault.field.isEmpty())
                return fault;
            if (const auto fault = faultIn(v, "minutes", 0, 600, tr("Type minutes.")); !fault.field.isEmpty())
                return fault;
            for (const char* field : {"quenchant", "temperature"}) {
                if (!v[QLatin1String(field)].isEmpty() && !typed(v, field, Quantity::temperature))
                    return {QLatin1String(field), tr("Type a temperature, such as 58 or 136F.")};
            }
            return {};
        },
        [this, run = r->id](const FormValues& v) {
            QString unknown;
            std::vector<HeatNoteDraft> notes;
            for (const Blade* one : bladesNamed(v["blades"], &unknown)) {
                HeatNoteDraft draft;
                draft.run = run;
                draft.blade = one->id;
                draft.round = one->round;
                if (!v["transfer"].isEmpty()) draft.transfer_s = parseNumber(v["transfer"].toStdString()).value();
                if (!v["minutes"].isEmpty()) draft.noted_minutes = parseNumber(v["minutes"].toStdString()).value();
                if (!v["quenchant"].isEmpty()) draft.quenchant_c = typed(v, "quenchant", Quantity::temperature);
                if (!v["temperature"].isEmpty()) draft.noted_c = typed(v, "temperature", Quantity::temperature);
                draft.note = v["note"].toStdString();
                draft.as_entered = QStringList{v["transfer"], v["quenchant"], v["temperature"], v["minutes"]}
                                       .join(QLatin1Char('|'))
                                       .toStdString();
                notes.push_back(std::move(draft));
            }
            m_document.perform([notes](Logbook& logbook) {
                return logbook.inOneTransaction([&]() -> Result<Done> {
                    for (const HeatNoteDraft& one : notes) {
                        if (auto done = noteHeat(logbook, one); !done) return done;
                    }
                    return Done{};
                });
            });
        });
}

// For who clocks no blade: oven, set point, minutes, transfer and quenchant of the load, in one form, for all that are
// in it.
void SoakPage::noteLoad() {
    const Batch& batch = m_document.batch();
    const HeatDraft usual = usualHeat(batch, m_document.tables().grade(m_document.claim().grade));
    QStringList marks;
    for (const Blade& blade : batch.blades) {
        if (!isOutBefore(blade, Gate::heat)) marks << QString::fromStdString(blade.mark);
    }
    std::vector<FormField> fields{
        {"blades", tr("Blades"), tr("in this load, separated by commas"), marks.join(QStringLiteral(", ")), {}, false}};
    for (FormField& field : heatFields(usual, m_document.state().shop())) fields.push_back(std::move(field));
    fields.push_back({"minutes", tr("Soaked"), tr("minutes, as you kept them"), {}, {}, false});
    fields.push_back(
        {"medium", tr("Quench into"), tr("as you call it"), QString::fromStdString(usual.medium), {}, false});
    fields.push_back({"quenchant",
                      tr("It was at"),
                      tr("%1; blank: not looked at").arg(words::unit(Quantity::temperature)),
                      {},
                      {},
                      false});
    fields.push_back({"transfer", tr("Transfer"), tr("seconds into the quench; blank: not timed"), {}, {}, false});
    fields.push_back({"note", tr("Note"), tr("anything else"), {}, {}, false});
    auto* form = new FormDialog(tr("The load as one note"), tr("Note it"), fields, m_look, window());
    form->ask(
        [this](const FormValues& v) -> FormFault {
            if (const FormFault fault = bladesFault(v["blades"]); !fault.field.isEmpty()) return fault;
            if (const FormFault fault = heatFault(v); !fault.field.isEmpty()) return fault;
            if (v["minutes"].isEmpty()) return {QStringLiteral("minutes"), tr("Type how long they soaked.")};
            if (const auto fault = faultIn(v, "minutes", 0.1, 600, tr("Type minutes.")); !fault.field.isEmpty())
                return fault;
            if (!v["quenchant"].isEmpty() && !typed(v, "quenchant", Quantity::temperature))
                return {QStringLiteral("quenchant"), tr("Type a temperature, such as 58 or 136F.")};
            return faultIn(v, "transfer", 0, 600, tr("Type seconds, up to 600."));
        },
        [this, usual](const FormValues& v) {
            HeatDraft heat = heatTyped(usual, v);
            heat.medium = v["medium"].toStdString();
            HeatNoteDraft note;
            note.noted_minutes = parseNumber(v["minutes"].toStdString()).value();
            note.quenchant_c = typed(v, "quenchant", Quantity::temperature);
            if (!v["transfer"].isEmpty()) note.transfer_s = parseNumber(v["transfer"].toStdString()).value();
            note.note = v["note"].toStdString();
            note.as_entered =
                QStringList{v["minutes"], v["quenchant"], v["transfer"]}.join(QLatin1Char('|')).toStdString();
            QString unknown;
            std::vector<HeatNoteDraft> notes;
            for (const Blade* blade : bladesNamed(v["blades"], &unknown)) {
                note.blade = blade->id;
                note.round = blade->round;
                notes.push_back(note);
            }
            beginHeat(heat, v["oven"].toStdString(), std::nullopt, tr("%1 blades are noted.").arg(notes.size()),
                      std::move(notes));
        });
}

// The first press begins as the blade leaves the oven, the second ends as it is in the quench.
void SoakPage::stopwatch() {
    const HeatRun* r = run();
    const Blade* blade = m_document.blade();
    if (r == nullptr || blade == nullptr) return;
    if (!m_stopwatch) {
        m_stopwatch = m_document.now();
        m_timed = blade->id;
        return emit said(tr("It runs: once more as %1 is in the quench").arg(QString::fromStdString(blade->mark)),
                         false);
    }
    const double seconds = static_cast<double>(m_document.now().utc_ms - m_stopwatch->utc_ms) / 1000.0;
    m_stopwatch.reset();
    constexpr double longest_s = 600;
    if (m_timed != blade->id || seconds > longest_s)
        return emit said(tr("It was begun for another blade or long ago: nothing is noted."), true);
    HeatNoteDraft note;
    note.run = r->id;
    note.blade = blade->id;
    note.round = blade->round;
    note.transfer_s = std::round(seconds * 10) / 10;
    note.as_entered = "stopwatch";
    m_document.perform(
        [note](Logbook& logbook) { return noteHeat(logbook, note); },
        [this, s = *note.transfer_s, mark = QString::fromStdString(blade->mark)](const Result<Done>& done) {
            if (done) emit said(tr("%1: %2 s from oven to quench").arg(mark).arg(s, 0, 'f', 1), false);
        });
}

// A mark may lie between two steps of the cursor: its moment is typed.
void SoakPage::typeMoment() {
    const HeatRun* r = run();
    if (r == nullptr || !r->trace || live()) return;
    auto* form = new FormDialog(
        tr("The cursor's moment"), tr("Go there"),
        {{"at", tr("Seconds"), tr("of the heat's clock, such as 612.5"), QString::number(m_cursor, 'f', 1), {}, false}},
        m_look, window());
    form->ask(
        [this](const FormValues& v) -> FormFault {
            const auto at = parseNumber(v["at"].toStdString());
            const Trace& trace = *run()->trace;
            return at && *at >= trace.start() && *at <= trace.end()
                       ? FormFault{}
                       : FormFault{QStringLiteral("at"), tr("The trace reaches from %1 to %2 s.")
                                                             .arg(trace.start(), 0, 'f', 0)
                                                             .arg(trace.end(), 0, 'f', 0)};
        },
        [this](const FormValues& v) {
            m_cursor = *parseNumber(v["at"].toStdString());
            emit changed();
        });
}

} // namespace rollcall
