// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/edge/edge_bench.h"
#include "app/shared/choice_dialog.h"
#include "app/shared/form_dialog.h"
#include "app/shared/line_form.h"
#include "core/base/number.h"
#include "logbook/actions/proof.h"
#include "report/export_picture.h"
#include "words/words.h"

#include <cmath>
#include <QFile>
#include <QFileInfo>

// What the Edge bench asks for and puts into the record.
namespace rollcall {

namespace {

constexpr std::array outcomes{EdgeOutcome::held, EdgeOutcome::set, EdgeOutcome::roll, EdgeOutcome::chip,
                              EdgeOutcome::crack};

std::optional<double> lengthIn(const QString& text) {
    const auto value = words::typed(text, Quantity::length);
    return value ? std::optional(*value) : std::nullopt;
}

// An optional length: blank is none; what cannot be read is a fault.
bool goodLength(const QString& text, double low, double high) {
    if (text.isEmpty()) return true;
    const auto value = lengthIn(text);
    return value && *value >= low && *value <= high;
}

QString fourDigits(double value) {
    return QString::number(value, 'g', 4);
}

} // namespace

void EdgeBench::askOutcome(const EdgeRung& rung) {
    std::vector<Choice> choices{{QStringLiteral("1"), tr("True"), tr("it flexed and came back")},
                                {QStringLiteral("2"), tr("Set"), tr("it stays a little bent")},
                                {QStringLiteral("3"), tr("Roll"), tr("folded over")},
                                {QStringLiteral("4"), tr("Chip"), tr("a piece is gone")},
                                {QStringLiteral("5"), tr("Crack"), tr("it can be seen or heard")}};
    const QString title =
        rung.force_n && rung.raise_deg ? words::rung({*rung.force_n, *rung.raise_deg}) : tr("Flexed by hand");
    (new ChoiceDialog(title, {tr("What did the edge do? Look along it against the light.")}, choices, m_look, window()))
        ->ask([this, taken = rung](int i) mutable {
            taken.outcome = outcomes[static_cast<std::size_t>(i)];
            if (taken.outcome == EdgeOutcome::held)
                keep(taken);
            else
                askDamage(taken);
        });
}

void EdgeBench::askDamage(EdgeRung rung) {
    auto* form = new FormDialog(tr("The %1").arg(words::outcomeName(rung.outcome)), tr("Log it"),
                                {{"size",
                                  tr("Depth"),
                                  tr("from the apex, %1; blank: not measured").arg(words::lengthHint(0.05)),
                                  {},
                                  {},
                                  false},
                                 {"place",
                                  tr("Where"),
                                  tr("%1 from the heel").arg(words::unit(Quantity::length)),
                                  words::field(rung.place_mm, Quantity::length),
                                  {},
                                  false},
                                 {"sound", tr("Heard"), tr("a tick or crack"),
                                  rung.sound ? QStringLiteral("yes") : QStringLiteral("no"), yesOrNo(), false}},
                                m_look, window());
    form->ask(
        [](const FormValues& v) -> FormFault {
            if (!goodLength(v["size"], 0, 20))
                return {QStringLiteral("size"),
                        tr("Type a depth such as %1, up to %2.").arg(words::length(0.05, 2), words::length(20, 0))};
            if (!goodLength(v["place"], 0, 2000))
                return {QStringLiteral("place"),
                        tr("Type the place in %1 from the heel.").arg(words::unit(Quantity::length))};
            return {};
        },
        [this, rung](const FormValues& v) mutable {
            rung.size_mm = lengthIn(v["size"]);
            rung.place_mm = lengthIn(v["place"]);
            rung.sound = v["sound"] == QLatin1String("yes");
            keep(rung);
        });
}

void EdgeBench::keep(const EdgeRung& rung) {
    QString what = words::outcomeName(rung.outcome);
    if (rung.force_n && rung.raise_deg)
        what = words::rung({*rung.force_n, *rung.raise_deg}) + QStringLiteral(": ") + what;
    m_force.reset();
    m_document.perform(
        [id = m_document.blade()->id, rung, what = what.toStdString()](Logbook& logbook) {
            return logbook.inOneTransaction([&]() -> Result<Done> {
                if (!rung.id.empty()) {
                    if (auto struck = strikeRung(logbook, rung.id, "its damage was measured"); !struck) return struck;
                }
                if (auto logged = logRung(logbook, id, rung, what); !logged) return logged.error();
                return Done{};
            });
        },
        [this, what](const Result<Done>& done) {
            if (done) emit said(what, false);
        });
}

void EdgeBench::otherRung() {
    const EdgeLoadStep step = m_grid.forces_n.empty() ? EdgeLoadStep{} : chosen();
    auto* form = new FormDialog(
        tr("Another rung"), tr("Take it"),
        {{"force",
          tr("Force"),
          tr("on the scale: 90, 20 lbf, 9 kgf"),
          fourDigits(m_force.peak_n().value_or(step.force_n)),
          {},
          false},
         {"raise", tr("Raised"), tr("degrees from flat on the rod"), fourDigits(step.raise_deg), {}, false},
         {"contact",
          tr("Contact"),
          tr("of edge on the rod; blank: not known, %1 is taken").arg(words::length(3, 0)),
          {},
          {},
          false},
         {"place",
          tr("Where"),
          tr("%1 from the heel").arg(words::unit(Quantity::length)),
          words::field(std::round(m_place_mm), Quantity::length),
          {},
          false}},
        m_look, window());
    form->ask(
        [](const FormValues& v) -> FormFault {
            const auto force = parseQuantity(v["force"].toStdString(), Quantity::force);
            if (!force || !(*force > 0 && *force <= 5000))
                return {QStringLiteral("force"), tr("Type a force, such as 90 N or 20 lbf.")};
            const auto raise = parseNumber(v["raise"].toStdString());
            if (!raise || !(*raise > 0 && *raise < 90))
                return {QStringLiteral("raise"), tr("Type an angle between 0 and 90 degrees.")};
            if (!goodLength(v["contact"], 0.1, 100))
                return {QStringLiteral("contact"), tr("Type the length of the contact, %1 to %2.")
                                                       .arg(words::lengthNumber(0.1), words::length(100, 0))};
            if (!goodLength(v["place"], 0, 2000))
                return {QStringLiteral("place"),
                        tr("Type the place in %1 from the heel.").arg(words::unit(Quantity::length))};
            return {};
        },
        [this](const FormValues& v) {
            EdgeRung rung;
            rung.round = m_document.blade()->round;
            rung.after_temper = lastTemper(*m_document.blade());
            rung.force_n = *parseQuantity(v["force"].toStdString(), Quantity::force);
            rung.raise_deg = *parseNumber(v["raise"].toStdString());
            rung.contact_mm = lengthIn(v["contact"]);
            rung.place_mm = lengthIn(v["place"]);
            askOutcome(rung);
        });
}

void EdgeBench::flexByHand() {
    EdgeRung rung;
    rung.round = m_document.blade()->round;
    rung.after_temper = lastTemper(*m_document.blade());
    rung.place_mm = m_place_mm;
    askOutcome(rung);
}

void EdgeBench::strikeLast() {
    const EdgeRung* last = nullptr;
    for (const EdgeRung& rung : m_rungs) {
        if (!rung.struck) last = &rung;
    }
    if (last == nullptr) return emit said(tr("There is no rung to strike out."), true);
    const QString what =
        last->force_n && last->raise_deg ? words::rung({*last->force_n, *last->raise_deg}) : tr("The flex by hand");
    const std::vector<Choice> reasons{{QStringLiteral("1"), tr("Slipped on the rod"), {}},
                                      {QStringLiteral("2"), tr("Wrong force or angle"), {}},
                                      {QStringLiteral("3"), tr("Typed wrong"), {}},
                                      {QStringLiteral("4"), tr("Other"), {}}};
    (new ChoiceDialog(tr("Strike out: %1").arg(what), {tr("It stays in the record, struck out.")}, reasons, m_look,
                      window()))
        ->ask([this, id = last->id, reasons](int i) {
            m_document.perform([id, reason = reasons[static_cast<std::size_t>(i)].text.toStdString()](
                                   Logbook& logbook) { return strikeRung(logbook, id, reason); });
        });
}

void EdgeBench::measure() {
    const auto now = edgeOf(*m_document.blade());
    const PurposeProfile* profile = nullptr;
    if (m_document.batch().edge_ask)
        profile =
            m_document.tables().purpose(m_document.batch().edge_ask->purpose, m_document.batch().edge_ask->school);
    const std::vector<FormChoice> grinds{{"flat", tr("flat")}, {"convex", tr("convex")}, {"hollow", tr("hollow")}};
    const QString usual =
        profile != nullptr ? tr("; usual %1").arg(words::length(profile->behind_edge_mm, 2)) : QString();
    auto* form =
        new FormDialog(tr("The edge of %1").arg(QString::fromStdString(m_document.blade()->mark)), tr("Note it"),
                       {{"behind",
                         tr("Behind the edge"),
                         tr("thickness where the bevel ends: %1%2").arg(words::lengthHint(0.3), usual),
                         now ? words::field(now->behind_edge_mm, Quantity::length) : QString(),
                         {},
                         false},
                        {"angle",
                         tr("Angle per side"),
                         tr("degrees; half the wedge"),
                         now ? fourDigits(now->angle_per_side_deg) : QString(),
                         {},
                         false},
                        {"grind", tr("Grind"), tr("of the blade above it"),
                         QString::fromLatin1(nameOf(now ? now->grind : EdgeGrind::flat)), grinds, false},
                        {"finish",
                         tr("Finish"),
                         tr("stone or belt it was left from"),
                         now ? QString::fromStdString(now->finish) : QString(),
                         {},
                         false},
                        {"before",
                         tr("Before hardening"),
                         tr("thickness left at the edge for the heat; blank: not known"),
                         now ? words::field(now->before_hardening_mm, Quantity::length) : QString(),
                         {},
                         false}},
                       m_look, window());
    form->ask(
        [](const FormValues& v) -> FormFault {
            const auto behind = lengthIn(v["behind"]);
            if (!behind || !(*behind > 0 && *behind <= 10))
                return {QStringLiteral("behind"),
                        tr("Type the thickness behind the edge, such as %1.").arg(words::length(0.3, 2))};
            const auto angle = parseNumber(v["angle"].toStdString());
            if (!angle || !(*angle >= 1 && *angle <= 45))
                return {QStringLiteral("angle"), tr("Type the angle per side, 1 to 45 degrees.")};
            return goodLength(v["before"], 0.01, 20)
                       ? FormFault{}
                       : FormFault{QStringLiteral("before"),
                                   tr("Type a thickness such as %1.").arg(words::length(0.75, 2))};
        },
        [this](const FormValues& v) {
            EdgeGeometry edge;
            edge.behind_edge_mm = *lengthIn(v["behind"]);
            edge.angle_per_side_deg = *parseNumber(v["angle"].toStdString());
            edge.grind = named<EdgeGrind>(v["grind"].toStdString()).value_or(EdgeGrind::flat);
            edge.finish = v["finish"].toStdString();
            edge.before_hardening_mm = lengthIn(v["before"]);
            m_document.perform([id = m_document.blade()->id, edge,
                                text = (v["behind"] + ' ' + v["angle"]).toStdString()](Logbook& logbook) {
                return measureEdge(logbook, id, edge, text);
            });
        });
}

void EdgeBench::history() {
    const std::vector<EdgeGeometry>& edges = m_document.blade()->edges;
    if (edges.empty()) return emit said(tr("The edge was never measured."), true);
    QStringList lines;
    for (const EdgeGeometry& edge : edges) {
        QString line = tr("%1 behind the edge, %2° per side")
                           .arg(words::length(edge.behind_edge_mm, 2))
                           .arg(edge.angle_per_side_deg);
        if (!edge.finish.empty()) line += QStringLiteral(", ") + QString::fromStdString(edge.finish);
        if (edge.before_hardening_mm)
            line += tr(", %1 before hardening").arg(words::length(*edge.before_hardening_mm, 2));
        lines << line;
    }
    (new ChoiceDialog(tr("The edge of %1, first to last").arg(QString::fromStdString(m_document.blade()->mark)), lines,
                      {}, m_look, window()))
        ->ask({});
}

void EdgeBench::noteGrinding() {
    const std::vector<Choice> choices{
        {QStringLiteral("1"), tr("No colour, no burning"), tr("nothing seen while grinding")},
        {QStringLiteral("2"), tr("Colour or burning"), tr("the edge may be soft there")},
        {QStringLiteral("3"), tr("Cleared"), tr("ground back, filed along or read since")}};
    (new ChoiceDialog(tr("Any colour or burning while grinding?"), {}, choices, m_look, window()))->ask([this](int i) {
        GrindingNote note;
        note.colour = i > 0;
        note.cleared = i == 2;
        m_document.perform([id = m_document.blade()->id, note](Logbook& logbook) {
            return rollcall::noteGrinding(logbook, id, note);
        });
    });
}

void EdgeBench::choosePurpose() {
    std::vector<Choice> choices;
    const std::vector<PurposeProfile>& purposes = m_document.tables().purposes();
    for (std::size_t i = 0; i < purposes.size() && i < 9; ++i) {
        const PurposeProfile& one = purposes[i];
        QStringList tests;
        for (const std::string& test : one.tests) tests << QString::fromStdString(test);
        choices.push_back({QString::number(i + 1),
                           tr("%1, %2").arg(QString::fromStdString(one.purpose), QString::fromStdString(one.school)),
                           tr("%1 to %2 HRC, %3 behind the edge, %4° per side, rod %5; tests: %6. %7")
                               .arg(words::hardness(one.window_low), words::hardness(one.window_high))
                               .arg(words::length(one.behind_edge_mm, 2))
                               .arg(one.angle_per_side_deg)
                               .arg(words::rung({one.rod_force_n, one.rod_raise_deg}), tests.join(QStringLiteral(", ")),
                                    QString::fromStdString(one.why))});
    }
    (new ChoiceDialog(
         tr("What are these blades for?"),
         {tr("Two schools, both right for someone: hard and thin cuts longer and easier, softer and thicker "
             "forgives. Where to begin, not a rule; A asks for a rung of your own.")},
         choices, m_look, window()))
        ->ask([this, purposes](int i) {
            const PurposeProfile& one = purposes[static_cast<std::size_t>(i)];
            EdgeAsk ask{one.purpose, one.school, false, {one.rod_force_n, one.rod_raise_deg}};
            m_document.perform(
                [id = m_document.batch().id, ask](Logbook& logbook) { return askEdge(logbook, id, ask); });
        });
}

void EdgeBench::takeOwnAsk() {
    const EdgeAsk now = edgeAskOf(m_document.batch());
    const std::vector<FormChoice> schools{{"force", tr("by force, to a rung")},
                                          {"hand", tr("by hand, flexed over the rod")}};
    auto* form =
        new FormDialog(tr("What the edges are asked for"), tr("Ask it"),
                       {{"school", tr("Test"), tr("which school"),
                         now.by_hand ? QStringLiteral("hand") : QStringLiteral("force"), schools, false},
                        {"force", tr("Force"), tr("on the scale: 90, 20 lbf"), fourDigits(now.rung.force_n), {}, false},
                        {"raise", tr("Raised"), tr("degrees from flat"), fourDigits(now.rung.raise_deg), {}, false}},
                       m_look, window());
    form->ask(
        [](const FormValues& v) -> FormFault {
            const auto force = parseQuantity(v["force"].toStdString(), Quantity::force);
            if (!force || !(*force > 0 && *force <= 1000))
                return {QStringLiteral("force"), tr("Type a force up to 1000 N.")};
            const auto raise = parseNumber(v["raise"].toStdString());
            return raise && *raise > 0 && *raise < 90
                       ? FormFault{}
                       : FormFault{QStringLiteral("raise"), tr("Type an angle between 0 and 90 degrees.")};
        },
        [this, now](const FormValues& v) {
            EdgeAsk ask = now;
            ask.by_hand = v["school"] == QLatin1String("hand");
            ask.rung = {*parseQuantity(v["force"].toStdString(), Quantity::force),
                        *parseNumber(v["raise"].toStdString())};
            m_document.perform(
                [id = m_document.batch().id, ask](Logbook& logbook) { return askEdge(logbook, id, ask); });
        });
}

void EdgeBench::markDamage() {
    auto* form = new FormDialog(
        tr("Damage on %1").arg(QString::fromStdString(m_document.blade()->mark)), tr("Mark it"),
        {{"kind",
          tr("What"),
          {},
          QStringLiteral("chip"),
          {{"chip", tr("chip")},
           {"roll", tr("roll")},
           {"dent", tr("dent")},
           {"bend", tr("bend")},
           {"crack", tr("crack")},
           {"tip broken", tr("tip broken")},
           {"break", tr("break")}},
          true},
         {"place",
          tr("Where"),
          tr("%1 from the heel").arg(words::unit(Quantity::length)),
          words::field(std::round(m_place_mm), Quantity::length),
          {},
          false},
         {"size", tr("Size"), tr("%1; blank: not measured").arg(words::unit(Quantity::length)), {}, {}, false},
         {"note", tr("Note"), {}, {}, {}, false},
         {"photo", tr("Photo"), tr("a file; blank: none"), {}, {}, false}},
        m_look, window());
    form->ask(
        [](const FormValues& v) -> FormFault {
            if (v["kind"].isEmpty()) return {QStringLiteral("kind"), tr("Say what the damage is.")};
            if (!goodLength(v["place"], 0, 2000))
                return {QStringLiteral("place"),
                        tr("Type the place in %1 from the heel.").arg(words::unit(Quantity::length))};
            if (!goodLength(v["size"], 0, 500))
                return {QStringLiteral("size"), tr("Type a size such as %1.").arg(words::length(0.4))};
            return v["photo"].isEmpty() || QFileInfo(v["photo"]).isReadable()
                       ? FormFault{}
                       : FormFault{QStringLiteral("photo"), tr("There is no such file.")};
        },
        [this](const FormValues& v) {
            DamageMark mark;
            mark.kind = v["kind"].toStdString();
            mark.place_mm = lengthIn(v["place"]);
            mark.size_mm = lengthIn(v["size"]);
            mark.note = v["note"].toStdString();
            AttachedFile photo;
            QFile file(v["photo"]);
            if (!v["photo"].isEmpty() && file.open(QIODevice::ReadOnly))
                photo = {QFileInfo(file).fileName(), file.readAll()};
            m_document.perform([id = m_document.blade()->id, mark, photo](Logbook& logbook) {
                return rollcall::markDamage(logbook, id, mark, photo);
            });
        });
}

// Thick metal gave: what the record says of the heat, and what would tell the causes apart.
void EdgeBench::lookAtHeat() {
    const auto index = static_cast<std::size_t>(m_document.bladeIndex());
    QStringList lines;
    const auto mean = hrc();
    lines << (mean ? tr("Hardness: %1 HRC, window %2")
                         .arg(words::hardness(*mean), words::windowText(*m_document.claim().window))
                   : tr("Hardness: not read. Read it on the flat first (F5)."));
    for (const Gate gate : {Gate::heat, Gate::quench, Gate::temper}) {
        const Verdict* verdict = m_document.verdict(static_cast<int>(index), gate);
        if (verdict != nullptr)
            lines << QStringLiteral("%1: %2. %3")
                         .arg(words::gateName(gate), words::stateName(verdict->state), words::headline(*verdict));
    }
    lines << tr("Chipped and hard: temper again. Chipped in its window: coarse grain or a crack; break a coupon that "
                "soaked as long.")
          << tr("Rolled and soft: decarburised or short of soak; grind back, read again, else re-harden (H).")
          << tr("One place only: a blister or an overheated patch; take rungs on either side.");
    (new ChoiceDialog(tr("Look at the heat of %1").arg(QString::fromStdString(m_document.blade()->mark)), lines, {},
                      m_look, window()))
        ->ask({});
}

void EdgeBench::wire() {
    const auto asked =
        askLine(tr("The scale's line"), QStringLiteral("scale_lines.csv"), m_force.wire().setup(), m_look, window(),
                [this](const LineSetup& setup) {
                    const auto done = m_force.wire().setUp(setup);
                    if (!done) return emit said(words::errorText(done.error()), true);
                    emit said(m_force.connected() ? m_force.wire().stateText() : tr("The scale is on no wire."), false);
                });
    if (!asked) emit said(words::errorText(asked.error()), true);
}

void EdgeBench::exportPicture() {
    const auto edge = edgeOf(*m_document.blade());
    if (!edge) return emit said(tr("Measure the edge first: there is nothing to draw."), true);
    const QString path = m_seams.chooseFile(window(), tr("Picture of the ladder"), tr("Pictures (*.png *.svg)"), true);
    if (path.isEmpty()) return;
    Look paper = m_look;
    paper.palette = Palette::light();
    paper.factor = 1;
    const auto saved = savePicture(path, QSize(480, 380), tr("Rod test"), paper.palette.panel,
                                   [&](QPainter& painter, const QRect& area) {
                                       drawText(painter, 20, 30,
                                                tr("%1, %2: %3, %4°")
                                                    .arg(QString::fromStdString(m_document.batch().name),
                                                         QString::fromStdString(m_document.blade()->mark))
                                                    .arg(words::length(edge->behind_edge_mm, 2))
                                                    .arg(edge->angle_per_side_deg),
                                                paper.font(18, true), paper.palette.ink);
                                       drawEdgeLadder(painter, area.adjusted(20, 44, -20, -10), picture(), paper);
                                   });
    emit said(saved ? tr("%1 written").arg(path) : words::errorText(saved.error()), !saved.ok());
}

} // namespace rollcall
