// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/heat_form.h"
#include "app/heat/soak_page.h"
#include "app/shared/choice_dialog.h"
#include "app/shared/form_dialog.h"
#include "app/shared/line_form.h"
#include "app/shared/picture.h"
#include "core/base/number.h"
#include "core/heat/heat_study.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/heat.h"
#include "words/words.h"

#include <algorithm>
#include <cmath>
#include <QFile>
#include <QFileInfo>

// The part of the soak page that asks: the heat, its trace, notes, the oven's line.
namespace rollcall {

// Whoever logs a heat asks the Heat gate; an oven of a new name is added.
void SoakPage::beginHeat(HeatDraft heat, const std::string& oven, std::optional<TraceDraft> trace, const QString& what,
                         std::vector<HeatNoteDraft> notes) {
    const bool required = m_document.batch().planOf(Gate::heat).required;
    const bool listens = !trace && notes.empty() && m_oven.connected();
    m_shownRun.clear();
    m_document.perform(
        [heat = std::move(heat), trace = std::move(trace), notes = std::move(notes), required,
         oven](Logbook& logbook) mutable {
            return logbook.inOneTransaction([&]() -> Result<Done> {
                const auto shop = logbook.shop();
                if (!shop) return shop.error();
                for (const Oven& known : shop->ovens) {
                    if (known.name == oven) heat.oven = known.id;
                }
                if (heat.oven.empty()) {
                    const auto added = addOven(logbook, {"", oven, 5, {}});
                    if (!added) return added.error();
                    heat.oven = *added;
                }
                if (!required) {
                    if (auto done = changePlan(logbook, heat.batch, Gate::heat, {true, 1}); !done) return done;
                }
                const auto run = rollcall::startHeat(logbook, heat);
                if (!run) return run.error();
                for (HeatNoteDraft& note : notes) {
                    note.run = *run;
                    if (auto done = noteHeat(logbook, note); !done) return done;
                }
                if (!trace) return Done{};
                trace->run = *run;
                return addTrace(logbook, *trace);
            });
        },
        [this, what, listens](const Result<Done>& done) {
            if (!done) return;
            if (listens && run() != nullptr) m_oven.record(run()->id, run()->zero);
            emit said(what, false);
        });
}

void SoakPage::startHeat() {
    const Batch& batch = m_document.batch();
    const HeatDraft usual = usualHeat(batch, m_document.tables().grade(m_document.claim().grade));
    std::vector<FormField> fields = heatFields(usual, m_document.state().shop());
    fields.push_back(
        {"surface",
         tr("Surface"),
         tr("how it takes up heat"),
         QStringLiteral("scaled"),
         {{"scaled", tr("bare or scaled")}, {"foil", tr("in foil or bright")}, {"coated", tr("anti-scale coating")}},
         false});
    fields.push_back({"medium",
                      tr("Quench into"),
                      tr("as you call it; an oil as: fast oil, flash 180"),
                      QString::fromStdString(usual.medium),
                      {},
                      false});
    fields.push_back({"medium_c",
                      tr("Its temperature"),
                      tr("%1; blank: not checked").arg(words::unit(Quantity::temperature)),
                      words::field(usual.medium_c, Quantity::temperature),
                      {},
                      false});
    fields.push_back({"edge",
                      tr("Edge left at"),
                      tr("%1 before hardening; blank: full stock").arg(words::unit(Quantity::length)),
                      QString(),
                      {},
                      false});
    auto* form = new FormDialog(tr("Start a heat of %1").arg(QString::fromStdString(batch.name)), tr("Start its clock"),
                                fields, m_look, window());
    form->ask(
        [](const FormValues& v) -> FormFault {
            if (const FormFault fault = heatFault(v); !fault.field.isEmpty()) return fault;
            if (!v["medium_c"].isEmpty() && !typed(v, "medium_c", Quantity::temperature))
                return {QStringLiteral("medium_c"), tr("Type a temperature, or leave it blank.")};
            const auto edge = typed(v, "edge", Quantity::length);
            if (!v["edge"].isEmpty() && (!edge || *edge < 0.1 || *edge > 50))
                return {QStringLiteral("edge"),
                        tr("Type the thickness, %1 or more, or leave it blank.").arg(words::length(0.1))};
            return {};
        },
        [this, usual](const FormValues& v) {
            HeatDraft heat = heatTyped(usual, v);
            heat.surface = named<HeatSurface>(v["surface"].toStdString()).value_or(HeatSurface::scaled);
            heat.medium = v["medium"].toStdString();
            heat.medium_c = typed(v, "medium_c", Quantity::temperature);
            heat.edge_mm = typed(v, "edge", Quantity::length);
            beginHeat(heat, v["oven"].toStdString(), std::nullopt,
                      tr("The heat's clock runs. Enter marks a blade as it goes in, A all of them"));
        });
}

void SoakPage::askTrace() {
    const QString path = m_seams.chooseFile(window(), tr("The oven's trace"), tr("CSV files (*.csv *.txt)"), false);
    if (!path.isEmpty()) importTrace(path);
}

void SoakPage::importTrace(const QString& path) {
    if (!m_document.hasBatch()) return emit said(tr("Make a batch first: a trace belongs to one."), true);
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) return emit said(tr("%1 cannot be read.").arg(path), true);
    const QByteArray bytes = file.readAll();
    const QString name = QFileInfo(path).fileName();
    const auto read = readTrace(std::string_view(bytes.constData(), static_cast<std::size_t>(bytes.size())));
    if (!read) return emit said(tr("%1: %2").arg(name, words::errorText(read.error())), true);
    QString what = tr("%1: %2 samples").arg(name).arg(read->trace.samples().size());
    if (!read->faults.empty())
        what += tr(", %1 far off both neighbours (%2 at %3 min): a fault of the probe, left out of the soak")
                    .arg(read->faults.size())
                    .arg(words::degrees(read->faults.front().c))
                    .arg(read->faults.front().s / 60, 0, 'f', 1);
    if (!read->skipped.empty())
        what += tr(", %1 lines skipped (line %2: %3)")
                    .arg(read->skipped.size())
                    .arg(read->skipped.front().line)
                    .arg(QString::fromStdString(read->skipped.front().reason));
    if (!read->gaps.empty())
        what += tr(", a gap of %1 min before line %2")
                    .arg(read->gaps.front().minutes, 0, 'f', 0)
                    .arg(read->gaps.front().line);
    TraceDraft draft;
    draft.name = name;
    draft.file = bytes;
    draft.trace = read->trace;
    if (const HeatRun* r = run()) {
        draft.run = r->id;
        draft.shift_s = clockShift(*r, *read);
        constexpr double farOff_s = 12 * 3600.0;
        if (draft.shift_s > farOff_s || draft.shift_s + read->trace.end() < -farOff_s)
            what += tr("; its dates lie far from this heat's clock");
        m_shownRun.clear();
        return m_document.perform([draft](Logbook& logbook) { return addTrace(logbook, draft); },
                                  [this, what](const Result<Done>& done) {
                                      if (done) emit said(what, false);
                                  });
    }
    // A trace before any heat: the heat is asked for, its clock begins with the trace.
    const Batch& batch = m_document.batch();
    HeatDraft usual = usualHeat(batch, m_document.tables().grade(m_document.claim().grade));
    usual.zero = traceBegan(*read, m_document.now());
    auto* form = new FormDialog(tr("A heat from %1").arg(name), tr("Take it"),
                                heatFields(usual, m_document.state().shop()), m_look, window());
    form->ask(heatFault, [this, usual, draft, what](const FormValues& v) {
        beginHeat(heatTyped(usual, v), v["oven"].toStdString(), draft, what);
    });
}

// The soak's numbers with what went into them.
void SoakPage::why() {
    const Blade* blade = m_document.blade();
    const HeatRun* r = run();
    if (blade == nullptr || r == nullptr) return;
    const HeatAnswer& answer = m_document.judged().heat(static_cast<std::size_t>(m_document.bladeIndex()));
    if (answer.heat == nullptr) return emit said(tr("This blade has not been in the oven yet."), true);
    const auto shownMinutes = [](double value) { return QString::number(value, 'f', 2); };
    QStringList lines;
    if (answer.heat->in_s) lines << tr("In at %1 s of the heat's clock").arg(fieldNumber(*answer.heat->in_s));
    if (answer.clock_minutes)
        lines << tr("Out at %1 s: %2 min between its marks")
                     .arg(fieldNumber(*answer.heat->out_s), shownMinutes(*answer.clock_minutes));
    if (answer.soak) {
        const QString from = words::degrees(r->set_c - r->near_c);
        lines << tr("Oven above %1 while it was in: %2 min, peak %3  (M22)")
                     .arg(from, shownMinutes(answer.soak->oven_minutes), words::degrees(answer.soak->peak_c));
        if (answer.soak->by_steel)
            lines << tr("Steel of %1, %2: above %3 for %4 min, an estimate  (M23)")
                         .arg(words::length(blade->shape.thickness_mm),
                              r->surface == HeatSurface::foil     ? tr("in foil")
                              : r->surface == HeatSurface::coated ? tr("coated")
                                                                  : tr("bare or scaled"),
                              from, shownMinutes(answer.soak->steel_minutes));
        lines << tr("Worth %1 min at %2: integral of exp(−Q/R (1/T − 1/T set)) above Ac1, Q 400 kJ/mol  (M22)")
                     .arg(shownMinutes(answer.soak->equivalent_minutes), words::degrees(r->set_c));
        lines << tr("The batch's middle is %1 min; 1.5 times more or less is said")
                     .arg(shownMinutes(answer.median_equivalent));
    }
    if (answer.entering_c)
        lines << tr("%1 s in air of %5 at %2: about %3 on entering, from %4  (M23)")
                     .arg(fieldNumber(*answer.heat->transfer_s()),
                          words::length(r->edge_mm.value_or(blade->shape.thickness_mm), 2),
                          words::degrees(*answer.entering_c),
                          words::degrees(answer.soak ? answer.soak->leaving_c : r->set_c), words::degrees(20));
    const Verdict& verdict = m_document.verdictAt(Gate::heat);
    for (const Reason& reason : verdict.reasons)
        lines << QStringLiteral("%1  (%2)").arg(words::sentence(reason), QString::fromUtf8(reason.rule));
    (new ChoiceDialog(tr("Why: %1 at Heat").arg(QString::fromStdString(blade->mark)), lines, {}, m_look, window()))
        ->ask({});
}

// The heats of this batch over each other, and whether everything else was equal.
void SoakPage::compareRuns() {
    const Batch& batch = m_document.batch();
    HeatOverlay overlay;
    std::vector<StudyHeat> heats;
    for (const HeatRun& r : batch.heat_runs) {
        if (!r.trace) continue;
        StudyHeat heat;
        heat.name = r.oven + ", " + words::degrees(r.set_c).toStdString();
        heat.trace = r.trace.get();
        heat.set_c = r.set_c;
        heat.near_c = r.near_c;
        heat.in_s = r.trace->start();
        heat.out_s = r.trace->end();
        bool marked = false;
        for (const Blade& blade : batch.blades) {
            for (const BladeHeat& one : blade.heats) {
                if (one.run != r.id || !one.in_s || !one.out_s) continue;
                heat.in_s = marked ? std::min(heat.in_s, *one.in_s) : *one.in_s;
                heat.out_s = marked ? std::max(heat.out_s, *one.out_s) : *one.out_s;
                heat.thickness_mm = blade.shape.thickness_mm;
                marked = true;
            }
        }
        heats.push_back(heat);
        overlay.runs.push_back({QString::fromStdString(heat.name), r.trace.get(), heat.in_s, heat.out_s - heat.in_s});
    }
    if (heats.size() < 2) return emit said(tr("Two heats with their traces are needed to compare."), true);
    const auto study = compareHeats(heats);
    if (!study) return emit said(words::errorText(study.error()), true);
    QStringList lines;
    for (std::size_t i = 0; i < study->heats.size(); ++i) {
        const HeatExposure& e = study->heats[i];
        lines << tr("%1  %2: ramp %3 min, soak %4 min, worth %5 min at %6")
                     .arg(i + 1)
                     .arg(QString::fromStdString(heats[i].name))
                     .arg(e.ramp_minutes, 0, 'f', 1)
                     .arg(e.soak_minutes, 0, 'f', 1)
                     .arg(e.equivalent_minutes, 0, 'f', 1)
                     .arg(words::degrees(study->reference_c));
    }
    for (const StudyDifference& d : study->differences) {
        lines << (d.what == StudyDifference::What::ramp
                      ? tr("Not equal: ramp time, %1 against %2 min. What it does to the grain comes on top.")
                  : d.what == StudyDifference::What::soak
                      ? tr("Not equal: soak, %1 against %2 min.")
                      : tr("Not equal: time above the lowest set point, %1 against %2 min."))
                     .arg(d.low, 0, 'f', 1)
                     .arg(d.high, 0, 'f', 1);
    }
    if (study->differences.empty())
        lines << tr("Ramp and soak are alike within a fifth: the set point is what differs.");
    auto* dialog = new ChoiceDialog(tr("Heats compared"), lines, {}, m_look, window());
    dialog->showPicture(new Picture(px(300), tr("Traces over each other"),
                                    [overlay, look = m_look](QPainter& painter, const QRect& area) {
                                        painter.fillRect(area, look.palette.panel);
                                        drawHeatOverlay(painter, area, overlay, look);
                                    }));
    dialog->ask({});
}

void SoakPage::strikeHeat() {
    const HeatRun* r = run();
    if (r == nullptr) return;
    auto* form = new FormDialog(tr("Strike out this heat, with its marks"), tr("Strike it out"),
                                {{"reason",
                                  tr("Reason"),
                                  tr("choose or type"),
                                  {},
                                  {QString(), tr("begun by mistake"), tr("wrong oven or set point")},
                                  true}},
                                m_look, window());
    form->ask(
        [](const FormValues& v) {
            return v["reason"].isEmpty() ? FormFault{QStringLiteral("reason"), tr("A reason is needed.")} : FormFault{};
        },
        [this, id = r->id](const FormValues& v) {
            m_oven.record({}, {});
            m_document.perform([id, reason = v["reason"].toStdString()](Logbook& logbook) {
                return rollcall::strikeHeat(logbook, id, reason);
            });
        });
}

void SoakPage::wireOven() {
    const auto asked =
        askLine(tr("The oven's line"), QStringLiteral("oven_lines.csv"), m_oven.wire().setup(), m_look, window(),
                [this](const LineSetup& setup) {
                    const auto done = m_oven.wire().setUp(setup);
                    if (!done) return emit said(words::errorText(done.error()), true);
                    const HeatRun* r = run();
                    // A heat without a trace yet is the one the oven is heard for.
                    if (m_oven.connected() && r != nullptr && r->trace == nullptr) m_oven.record(r->id, r->zero);
                    emit said(m_oven.connected() ? m_oven.stateText() : tr("The oven is on no wire."), false);
                });
    if (!asked) emit said(words::errorText(asked.error()), true);
}

} // namespace rollcall
