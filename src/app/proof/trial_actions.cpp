// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/proof/trial_page.h"
#include "app/shared/choice_dialog.h"
#include "app/shared/form_dialog.h"
#include "core/base/number.h"
#include "core/judge/gate_case.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/proof.h"
#include "words/words.h"

#include <QFile>
#include <QFileInfo>

// What a trial asks for, and its way into the record: one entry for each key.
namespace rollcall {

void TrialPage::begin() {
    if (trial() != nullptr) return emit said(tr("A trial runs on this blade: go on with it, or give it up."), true);
    if (m_document.blade() != nullptr && isUntempered(m_document.batch(), *m_document.blade()))
        return emit said(tr("It is glass-hard: temper it first."), true);
    std::vector<Protocol> protocols = m_document.state().shop().own_protocols;
    for (const Protocol& shipped : m_document.tables().protocols()) {
        const bool own = std::any_of(protocols.begin(), protocols.end(),
                                     [&](const Protocol& one) { return one.name == shipped.name; });
        if (!own) protocols.push_back(shipped);
    }
    std::vector<Choice> choices;
    static const QString keys = QStringLiteral("123456789abcdefghijklm");
    for (std::size_t i = 0; i < protocols.size() && static_cast<qsizetype>(i) < keys.size(); ++i) {
        QStringList names;
        for (const ProtocolStep& step : protocols[i].steps) names << QString::fromStdString(step.name).toLower();
        choices.push_back(
            {QString(keys[static_cast<qsizetype>(i)]).toUpper(), QString::fromStdString(protocols[i].name),
             (protocols[i].destroys() ? tr("destroys the piece; ") : QString()) + names.join(QStringLiteral(", "))});
    }
    (new ChoiceDialog(tr("A trial of %1").arg(QString::fromStdString(m_document.blade()->mark)),
                      {tr("The protocol is kept with the trial as it is now. The blade may not survive it.")}, choices,
                      m_look, window()))
        ->ask([this, protocols](int i) { beginWith(protocols[static_cast<std::size_t>(i)]); });
}

void TrialPage::beginWith(const Protocol& protocol) {
    if (m_document.blade() == nullptr) return;
    const Blade& blade = *m_document.blade();
    m_document.perform(
        [id = blade.id, round = blade.round, after = lastTemper(blade), protocol](Logbook& logbook) -> Result<Done> {
            if (auto begun = beginTrial(logbook, id, round, after, protocol); !begun) return begun.error();
            return Done{};
        },
        [this](const Result<Done>& done) {
            if (done) resume();
        });
}

void TrialPage::log(TrialAct act, double value, const std::string& text, double second, double third,
                    const AttachedFile& photo) {
    const Trial* running = trial();
    if (running == nullptr) return;
    TrialEvent event{act, value, second, third, text, m_document.now()};
    Trial after = *running;
    after.events.push_back(event);
    const TrialProgress progress = progressOf(after);
    const Blade& blade = *m_document.blade();
    // A piece that a destructive step was begun on is no blade any more, whatever came of it.
    const bool gone = progress.outcome != TrialOutcome::running && progress.destroyed && !blade.fate;
    const std::string why =
        tr("%1: %2")
            .arg(QString::fromStdString(running->protocol.name),
                 progress.outcome == TrialOutcome::passed ? tr("passed, and used up") : tr("used up"))
            .toStdString();
    m_document.perform(
        [id = running->id, event, photo, gone, bladeId = blade.id, why](Logbook& logbook) -> Result<Done> {
            return logbook.inOneTransaction([&]() -> Result<Done> {
                auto done = trialEvent(logbook, id, event, photo);
                if (done && gone) done = rollcall::takeOut(logbook, bladeId, Fate::coupon, Gate::proof, why);
                return done;
            });
        },
        [this, outcome = progress.outcome, before = progressOf(*running).outcome](const Result<Done>& done) {
            if (!done || outcome == before) return;
            emit said(outcome == TrialOutcome::passed    ? tr("Every step passed.")
                      : outcome == TrialOutcome::failed  ? tr("A step failed: the trial has ended.")
                      : outcome == TrialOutcome::voided  ? tr("The edge was touched up: the trial is void.")
                      : outcome == TrialOutcome::givenUp ? tr("The trial was given up.")
                                                         : QString(),
                      outcome == TrialOutcome::failed || outcome == TrialOutcome::voided);
        });
}

void TrialPage::primary() {
    const Trial& running = *trial();
    const TrialProgress progress = progressOf(running);
    if (const std::string hazard = progress.caution(running.protocol); !hazard.empty())
        return log(TrialAct::acknowledged, 0, hazard);
    const ProtocolStep& step = running.protocol.steps[progress.current];
    const StepProgress& now = progress.steps[progress.current];
    if (step.hold_s) {
        if (!now.timer) return log(TrialAct::timer);
        const double held = static_cast<double>(m_document.now().utc_ms - now.timer->utc_ms) / 1000;
        if (held < *step.hold_s) return emit said(tr("Hold on: %1 s to go.").arg(std::ceil(*step.hold_s - held)), true);
    }
    switch (step.kind) {
    case StepKind::number:
        return askNumber();
    case StepKind::count:
        return log(TrialAct::count); // the last one that is asked answers the step
    case StepKind::yesNo:
        return log(TrialAct::answer);
    case StepKind::cuts:
        return log(TrialAct::cuts, step.every);
    case StepKind::bend:
        return now.free_mm ? askBend() : planBend();
    }
}

void TrialPage::other() {
    const Trial& running = *trial();
    const TrialProgress progress = progressOf(running);
    if (!progress.caution(running.protocol).empty()) return;
    const ProtocolStep& step = running.protocol.steps[progress.current];
    const StepProgress& now = progress.steps[progress.current];
    switch (step.kind) {
    case StepKind::count:
        if (now.count < 1) return emit said(tr("Count a stroke first."), true);
        if (step.least)
            return emit said(tr("%1 are asked: count on, or Delete when it failed.").arg(*step.least), true);
        return log(TrialAct::answer, now.count);
    case StepKind::cuts:
        return log(TrialAct::hesitates, step.every);
    default:
        return;
    }
}

void TrialPage::fail() {
    const Trial& running = *trial();
    const TrialProgress progress = progressOf(running);
    if (!progress.caution(running.protocol).empty()) return;
    const ProtocolStep& step = running.protocol.steps[progress.current];
    if (step.kind == StepKind::cuts) return log(TrialAct::fail, step.every, "dull");
    static const char keys[] = "12345678H90";
    std::vector<Choice> choices;
    for (std::size_t i = 0; i < failures.size(); ++i)
        choices.push_back({QString(QLatin1Char(keys[i])), words::recorded(failures[i]),
                           i < steelFailures ? QString() : tr("not the steel: the step is done again")});
    (new ChoiceDialog(tr("%1 failed: how?").arg(QString::fromStdString(step.name)),
                      {step.fail_ends ? tr("This ends the trial.") : tr("The trial goes on with the next step.")},
                      choices, m_look, window()))
        ->ask([this, ends = step.fail_ends, name = QString::fromStdString(step.name)](int i) {
            const std::string how = failures[static_cast<std::size_t>(i)];
            if (!ends || !failsSteel(how)) return log(TrialAct::fail, 0, how);
            (new ChoiceDialog(tr("%1: %2. End the trial as failed?").arg(name, words::recorded(how)), {},
                              {{QStringLiteral("1"), tr("End it as failed"), {}}}, m_look, window()))
                ->ask([this, how](int) { log(TrialAct::fail, 0, how); });
        });
}

// A digit begins a number, in every step that asks for one (E32).
bool TrialPage::key(QKeyEvent* event) {
    const bool digit = event->key() >= Qt::Key_0 && event->key() <= Qt::Key_9;
    if (!wantsAll() || !digit || (event->modifiers() & ~Qt::KeypadModifier) != 0) return false;
    const Trial& running = *trial();
    const TrialProgress progress = progressOf(running);
    if (!progress.caution(running.protocol).empty()) return false;
    const StepKind kind = running.protocol.steps[progress.current].kind;
    const QString begun = QString(QChar('0' + (event->key() - Qt::Key_0)));
    if (kind == StepKind::number) askNumber(begun);
    if (kind == StepKind::count || kind == StepKind::cuts) askCount(begun);
    return kind != StepKind::yesNo && kind != StepKind::bend;
}

void TrialPage::askCount(const QString& begun) {
    const ProtocolStep step = trial()->protocol.steps[progressOf(*trial()).current];
    auto* form = new FormDialog(QString::fromStdString(step.name), tr("Log it"),
                                {{"value",
                                  step.kind == StepKind::cuts ? tr("Cuts more, it still cuts") : tr("Strokes more"),
                                  tr("a whole number"),
                                  begun,
                                  {},
                                  false}},
                                m_look, window());
    form->ask(
        [](const FormValues& v) {
            bool whole = false;
            const int n = v["value"].toInt(&whole);
            return whole && n >= 1 && n <= 10000 ? FormFault{}
                                                 : FormFault{QStringLiteral("value"), tr("Type how many, 1 to 10000.")};
        },
        [this, kind = step.kind](const FormValues& v) {
            log(kind == StepKind::cuts ? TrialAct::cuts : TrialAct::count, v["value"].toInt());
        });
}

void TrialPage::askNumber(const QString& begun) {
    const Trial& running = *trial();
    const ProtocolStep step = running.protocol.steps[progressOf(running).current];
    const bool length = step.unit == "mm";
    auto* form = new FormDialog(QString::fromStdString(step.name), tr("Log it"),
                                {{"value",
                                  tr("Read"),
                                  length ? words::lengthHint(355.6) : QString::fromStdString(step.unit),
                                  begun,
                                  {},
                                  false}},
                                m_look, window());
    const auto read = [length](const QString& text) {
        return length ? words::typed(text, Quantity::length) : parseNumber(text.toStdString());
    };
    form->ask(
        [read](const FormValues& v) -> FormFault {
            const auto value = read(v["value"]);
            return value && *value >= 0 ? FormFault{}
                                        : FormFault{QStringLiteral("value"), tr("Type a number, 0 or more.")};
        },
        [this, read](const FormValues& v) { log(TrialAct::answer, *read(v["value"]), v["value"].toStdString()); });
}

void TrialPage::planBend() {
    const Trial* running = trial();
    const ProtocolStep* step = nullptr;
    if (running != nullptr) {
        const TrialProgress progress = progressOf(*running);
        step = &running->protocol.steps[progress.current];
    }
    const double asked = step != nullptr && step->kind == StepKind::bend ? step->least.value_or(90) : 90;
    const bool log_it = step != nullptr && step->kind == StepKind::bend;
    const double thickness = m_document.blade()->shape.thickness_mm;
    auto* form =
        new FormDialog(tr("The bend before it is done"), log_it ? tr("Plan it") : tr("Reckon it"),
                       {{"thickness",
                         tr("Thickness"),
                         tr("at the jaw: %1, 3/16in").arg(words::length(4.8)),
                         thickness > 0 ? words::field(thickness, Quantity::length) : QString(),
                         {},
                         false},
                        {"free",
                         tr("Free length"),
                         tr("from the jaw to the wrench or pipe: %1").arg(words::length(100, 0)),
                         {},
                         {},
                         false},
                        {"lever", tr("Lever beyond it"), tr("to the hand; blank: pulled at its end"), {}, {}, false},
                        {"angle", tr("Angle"), tr("degrees"), QString::number(asked), {}, false}},
                       m_look, window());
    const auto length = [](const QString& text) { return words::typed(text, Quantity::length); };
    const auto strainOf = [length](const FormValues& v) -> Result<BendStrain> {
        const auto thick = length(v["thickness"]);
        if (!thick)
            return Error{ErrorKind::argument, "thickness",
                         tr("Type the thickness, such as %1.").arg(words::length(4.8)).toStdString()};
        const auto free = length(v["free"]);
        if (!free)
            return Error{ErrorKind::argument, "free",
                         tr("Type the free length, such as %1.").arg(words::length(100, 0)).toStdString()};
        std::optional<double> lever;
        if (!v["lever"].isEmpty()) {
            const auto typed = length(v["lever"]);
            if (!typed)
                return Error{
                    ErrorKind::argument, "lever",
                    tr("Type the lever, such as %1, or leave it blank.").arg(words::length(300, 0)).toStdString()};
            lever = *typed;
        }
        const auto angle = parseNumber(v["angle"].toStdString());
        if (!angle) return Error{ErrorKind::argument, "angle", tr("Type the angle in degrees.").toStdString()};
        return bendStrain(*thick, *free, *angle, lever);
    };
    form->ask(
        [strainOf](const FormValues& v) -> FormFault {
            const auto strain = strainOf(v);
            if (strain) return {};
            const QString field = QString::fromStdString(strain.error().place);
            return {field.isEmpty() ? QStringLiteral("free") : field, QString::fromStdString(strain.error().text)};
        },
        [this, strainOf, length, log_it](const FormValues& v) {
            const auto strain = strainOf(v);
            QString what = tr("mean strain %1 %").arg(strain->mean, 0, 'f', 1);
            if (strain->at_least) what += tr(", at least %1 % at the jaw").arg(*strain->at_least, 0, 'f', 1);
            if (log_it)
                log(TrialAct::plan, *length(v["thickness"]), {}, *length(v["free"]),
                    v["lever"].isEmpty() ? 0 : *length(v["lever"]));
            emit said(tr("%1; half the free length doubles it").arg(what), false);
        });
}

void TrialPage::askBend() {
    const std::vector<FormChoice> ways{{"on the way", tr("on the way")},
                                       {"as far as it goes, whole", tr("as far as it goes, whole")},
                                       {"as far as it goes, small crack", tr("as far as it goes, small crack")},
                                       {"it broke", tr("it broke")}};
    auto* form =
        new FormDialog(tr("The bend"), tr("Log it"),
                       {{"angle", tr("Angle"), tr("degrees reached"), {}, {}, false},
                        {"force", tr("Force"), tr("at the lever: 200 N, 45 lbf; blank: not read"), {}, {}, false},
                        {"how", tr("It is"), {}, ways[1].key, ways, false},
                        {"set", tr("Set"), tr("degrees that stayed after letting go; blank: not read"), {}, {}, false}},
                       m_look, window());
    form->ask(
        [](const FormValues& v) -> FormFault {
            const auto angle = parseNumber(v["angle"].toStdString());
            if (!angle || !(*angle > 0 && *angle <= 180))
                return {QStringLiteral("angle"), tr("Type the angle, 1 to 180 degrees.")};
            if (!v["force"].isEmpty() && !parseQuantity(v["force"].toStdString(), Quantity::force))
                return {QStringLiteral("force"), tr("Type a force such as 200 N, or leave it blank.")};
            const auto set = v["set"].isEmpty() ? Result<double>(0.0) : parseNumber(v["set"].toStdString());
            return set && *set >= 0 && *set <= 180
                       ? FormFault{}
                       : FormFault{QStringLiteral("set"), tr("Type degrees, 0 to 180, or leave it blank.")};
        },
        [this, ways](const FormValues& v) {
            const double angle = *parseNumber(v["angle"].toStdString());
            const double force = v["force"].isEmpty() ? 0 : *parseQuantity(v["force"].toStdString(), Quantity::force);
            const auto how =
                std::find_if(ways.begin(), ways.end(), [&](const FormChoice& way) { return way.key == v["how"]; }) -
                ways.begin();
            const std::string text = v["how"].toStdString();
            if (!v["set"].isEmpty()) log(TrialAct::set, *parseNumber(v["set"].toStdString()));
            if (how == 0)
                log(TrialAct::bend, angle, {}, force);
            else if (how == 3)
                log(TrialAct::fail, angle, text, force);
            else
                log(TrialAct::answer, angle, text, force);
        });
}

void TrialPage::takePhoto() {
    const QString path =
        m_seams.chooseFile(window(), tr("A photo of it"), tr("Pictures (*.png *.jpg *.jpeg *.tif *.tiff)"), false);
    if (path.isEmpty()) return;
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) return emit said(tr("%1 cannot be read.").arg(path), true);
    const AttachedFile photo{QFileInfo(path).fileName(), file.readAll()};
    log(TrialAct::photo, 0, photo.name.toStdString(), 0, 0, photo);
}

void TrialPage::note() {
    auto* form =
        new FormDialog(tr("A note"), tr("Note it"), {{"text", tr("Note"), {}, {}, {}, false}}, m_look, window());
    form->ask(
        [](const FormValues& v) {
            return v["text"].isEmpty() ? FormFault{QStringLiteral("text"), tr("Type something.")} : FormFault{};
        },
        [this](const FormValues& v) { log(TrialAct::note, 0, v["text"].toStdString()); });
}

void TrialPage::giveUp() {
    auto* form = new FormDialog(tr("Give the trial up"), tr("Give up"),
                                {{"why", tr("Why"), tr("it says nothing then"), {}, {}, false}}, m_look, window());
    form->ask(
        [](const FormValues& v) {
            return v["why"].isEmpty() ? FormFault{QStringLiteral("why"), tr("Say why.")} : FormFault{};
        },
        [this](const FormValues& v) { log(TrialAct::giveUp, 0, v["why"].toStdString()); });
}

} // namespace rollcall
