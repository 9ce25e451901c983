// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/proof/trial_page.h"

#include "app/shared/pointing.h"
#include "core/base/number.h"
#include "core/judge/proof_judge.h"
#include "plot/glyphs.h"
#include "plot/proof_picture.h"
#include "words/words.h"

#include <algorithm>
#include <cmath>
#include <memory>
#include <QMouseEvent>

namespace rollcall {

namespace {

constexpr int trialStepHeight = 36;

State glyphOf(const StepProgress& step) {
    return step.state == StepState::passed   ? State::pass
           : step.state == StepState::failed ? State::fail
                                             : State::notYet;
}

QString whole(double value) {
    return QString::number(value, 'g', 4);
}

// What a step asks, for the list: "at most 381 mm", "1 strokes at most", "90° or more".
QString limitText(const ProtocolStep& step) {
    if (step.unit == "mm") { // kept so, told as the shop reads it
        if (step.least && step.most)
            return TrialPage::tr("%1 to %2").arg(words::lengthNumber(*step.least), words::length(*step.most));
        if (step.most) return TrialPage::tr("%1 at most").arg(words::length(*step.most));
        if (step.least) return TrialPage::tr("%1 or more").arg(words::length(*step.least));
    }
    const QString unit = QString::fromStdString(step.unit);
    const QString gap = unit == QStringLiteral("°") ? QString() : QStringLiteral(" ");
    if (step.kind == StepKind::cuts)
        return step.least ? TrialPage::tr("%1 cuts or more").arg(whole(*step.least))
                          : TrialPage::tr("looked at every %1").arg(step.every);
    if (step.least && step.most)
        return TrialPage::tr("%1 to %2%3%4").arg(whole(*step.least), whole(*step.most), gap, unit);
    if (step.most) return TrialPage::tr("%1%2%3 at most").arg(whole(*step.most), gap, unit);
    if (step.least) return TrialPage::tr("%1%2%3 or more").arg(whole(*step.least), gap, unit);
    return {};
}

// What came of a step, for the list.
QString resultText(const ProtocolStep& step, const StepProgress& progress) {
    const QString unit = QString::fromStdString(step.unit);
    if (!progress.how.empty()) return QString::fromStdString(progress.how);
    if (step.kind == StepKind::number && progress.value) {
        const double spare = step.most ? *step.most - *progress.value : *progress.value - step.least.value_or(0);
        if (step.unit == "mm")
            return progress.state == StepState::passed
                       ? TrialPage::tr("%1, %2 to spare").arg(words::length(*progress.value), words::length(spare))
                       : words::length(*progress.value);
        return progress.state == StepState::passed
                   ? TrialPage::tr("%1 %2, %3 to spare").arg(whole(*progress.value), unit, whole(spare))
                   : TrialPage::tr("%1 %2").arg(whole(*progress.value), unit);
    }
    if (step.kind == StepKind::bend && progress.value)
        return progress.set_deg ? TrialPage::tr("%1°, set %2°").arg(whole(*progress.value), whole(*progress.set_deg))
                                : TrialPage::tr("%1°").arg(whole(*progress.value));
    if (step.kind == StepKind::cuts && !progress.looks.empty()) {
        const auto dull = dullInterval(progress.looks);
        if (dull && dull->first_fail)
            return TrialPage::tr("dull between %1 and %2").arg(whole(dull->last_pass), whole(*dull->first_fail));
        return TrialPage::tr("%1 and still cuts").arg(whole(progress.count));
    }
    if (step.kind == StepKind::count && progress.count == 1 && unit == QStringLiteral("strokes"))
        return TrialPage::tr("1 stroke");
    if (step.kind == StepKind::count && progress.count > 0)
        return TrialPage::tr("%1 %2").arg(whole(progress.count), unit);
    return {};
}

QString outcomeText(TrialOutcome outcome) {
    switch (outcome) {
    case TrialOutcome::running:
        return TrialPage::tr("runs");
    case TrialOutcome::passed:
        return TrialPage::tr("passed");
    case TrialOutcome::failed:
        return TrialPage::tr("failed");
    case TrialOutcome::voided:
        return TrialPage::tr("void");
    case TrialOutcome::givenUp:
        return TrialPage::tr("given up");
    }
    return {};
}

} // namespace

TrialPage::TrialPage(Document& document, Seams seams, const Look& look)
    : Bench(document, look), m_seams(std::move(seams)), m_steps(new RowList(trialStepHeight, look, this)) {
    setObjectName(QStringLiteral("trial-page"));
    tellUnder(this, m_told);
    m_steps->setObjectName(QStringLiteral("trial-steps"));
    m_steps->setAccessibleName(tr("Steps of the trial"));
    m_tick.setInterval(250);
    connect(&m_tick, &QTimer::timeout, this, qOverload<>(&QWidget::update));
}

const Trial* TrialPage::latest() const {
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return nullptr;
    for (auto trial = blade->trials.rbegin(); trial != blade->trials.rend(); ++trial) {
        if (isPresent(*trial, *blade)) return &*trial;
    }
    return nullptr;
}

const Trial* TrialPage::trial() const {
    const Trial* last = latest();
    return last != nullptr && progressOf(*last).outcome == TrialOutcome::running ? last : nullptr;
}

QString TrialPage::elsewhere() const {
    if (m_document.blade() == nullptr) return {};
    switch (m_document.verdictAt(Gate::proof).next.act) {
    case Act::clearCrack:
        return QStringLiteral("clear-crack");
    case Act::countGrain:
        return QStringLiteral("grain");
    case Act::hardenFiner:
        return QStringLiteral("reharden");
    case Act::logTemper: // glass-hard, or still harder than it is to be
    case Act::temperAgain:
        return QStringLiteral("temper");
    default: // after a failed one, or where the maker decides, another trial may be the answer
        return {};
    }
}

bool TrialPage::resume() {
    m_running = trial() != nullptr;
    emit changed();
    return m_running;
}

void TrialPage::leave() {
    m_running = false;
    emit said(tr("The trial waits; nothing is lost."), false);
    emit changed();
}

void TrialPage::refresh() {
    const Trial* running = trial();
    if (running == nullptr) m_running = false;
    const TrialProgress progress = running != nullptr ? progressOf(*running) : TrialProgress{};
    const bool timed =
        m_running && progress.current < progress.steps.size() && progress.steps[progress.current].timer.has_value();
    timed ? m_tick.start() : m_tick.stop();
    if (m_running)
        setAccessibleName(tr("%1, %2").arg(QString::fromStdString(running->protocol.steps[progress.current].name),
                                           primaryText(*running, progress)));
    else
        setAccessibleName(content().sub);
    showSteps();
    update();
}

ColumnContent TrialPage::content() const {
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return {};
    const Verdict& verdict = m_document.verdictAt(Gate::proof);
    ColumnContent content = columnOf(verdict, blade->mark);
    const Trial* running = trial();
    if (running != nullptr) {
        const TrialProgress progress = progressOf(*running);
        content.numbers.push_back(
            {tr("Done"), QString::number(progress.done), tr("of %1").arg(progress.steps.size()), false});
        content.act = tr("Go on with the trial");
        content.detail = QString::fromStdString(running->protocol.steps[progress.current].name);
    } else if (!elsewhere().isEmpty()) {
        const words::NextWords next = words::nextStep(verdict);
        content.act = next.act;
        content.detail = next.detail;
    } else {
        content.act = tr("Begin a trial");
        content.detail = tr("choose the protocol");
    }
    std::optional<double> own;
    if (const Trial* last = latest()) {
        for (const StepProgress& step : progressOf(*last).steps) {
            if (!step.thickness_mm || !step.free_mm) continue;
            const auto strain = bendStrain(*step.thickness_mm, *step.free_mm, step.value.value_or(90), step.lever_mm);
            if (!strain) continue;
            own = strain->mean;
            content.numbers.push_back(
                {tr("Bend strain"), QString::number(strain->mean, 'f', 1), QStringLiteral("%"), false});
            if (const auto work = bendWork_j(step.bends, step.lever_mm))
                content.lines.push_back(
                    {Tone::note, tr("The bend took about %1 J").arg(std::lround(*work)), QStringLiteral("M29"), false});
        }
    }
    if (own) compareBends(content, *own);
    content.left = tr("Stands for");
    content.left_key = QStringLiteral("2");
    content.right = tr("Plan bend");
    content.right_key = QStringLiteral("P");
    content.below.push_back({Tone::note, words::cautionText(Caution::bend), {}, true});
    return content;
}

// How severe this bend is beside the others of the batch: a rehearsal shorter at the jaw strains more than the trial.
void TrialPage::compareBends(ColumnContent& content, double strain) const {
    for (const Blade& blade : m_document.batch().blades) {
        for (const Trial& trial : blade.trials) {
            if (&trial == latest()) continue;
            const TrialProgress progress = progressOf(trial);
            for (std::size_t i = 0; i < progress.steps.size(); ++i) {
                const StepProgress& step = progress.steps[i];
                if (!step.thickness_mm || !step.free_mm) continue;
                const double angle = step.value.value_or(trial.protocol.steps[i].least.value_or(90));
                const auto other = bendStrain(*step.thickness_mm, *step.free_mm, angle, step.lever_mm);
                if (!other) continue;
                content.lines.push_back(
                    {Tone::note,
                     tr("%1, %2: %3 %, %4 times this")
                         .arg(QString::fromStdString(blade.mark), QString::fromStdString(trial.protocol.name),
                              QString::number(other->mean, 'f', 1), QString::number(other->mean / strain, 'f', 1)),
                     QStringLiteral("M29"), false});
            }
        }
    }
}

void TrialPage::act() {
    if (m_running && trial() != nullptr) return primary();
    if (resume()) return;
    const QString other = elsewhere();
    other.isEmpty() ? begin() : emit commandWanted(other);
}

// While a trial runs only these happen, and F1, so that nothing else does by a slip.
Commands TrialPage::commands() {
    const auto blade = [this] { return m_document.blade() == nullptr ? tr("No blade is chosen.") : QString(); };
    if (!wantsAll())
        return {{QStringLiteral("trial.begin"), tr("Begin a trial"), tr("by one of the protocols"), Verb::none,
                 [this] { begin(); }, blade},
                {QStringLiteral("trial.plan-bend"), tr("Plan a bend"), tr("strain by thickness and length"), Verb::plan,
                 [this] { planBend(); }, blade}};
    const Trial& now = *trial();
    const TrialProgress progress = progressOf(now);
    const bool hazard = !progress.caution(now.protocol).empty();
    const ProtocolStep* step =
        progress.current < now.protocol.steps.size() ? &now.protocol.steps[progress.current] : nullptr;
    const QString read = hazard ? tr("Read the caution first.") : QString();
    const bool cuts = step != nullptr && step->kind == StepKind::cuts;
    const QString other = cuts ? tr("%1 more, it hesitates").arg(step->every) : tr("It is through, done");
    const QString failed = cuts ? tr("%1 more, dull").arg(step->every) : tr("It failed");
    const bool counts = cuts || (step != nullptr && step->kind == StepKind::count && !step->least);
    const QString noOther = read.isEmpty() && !counts ? tr("This step has one outcome or the other.") : read;
    const int photos = step != nullptr ? progress.steps[progress.current].photos : 0;
    Commands commands{{QStringLiteral("trial.other"),
                       other,
                       {},
                       Verb::other,
                       [this] { this->other(); },
                       [noOther] { return noOther; }},
                      {QStringLiteral("trial.fail"),
                       failed,
                       {},
                       Verb::none,
                       [this] { fail(); },
                       [read] { return read; },
                       Qt::Key_Delete},
                      {QStringLiteral("trial.take-back"), tr("Take back"), tr("the last entry"), Verb::strike,
                       [this] { log(TrialAct::takeBack); }}};
    if (step != nullptr && step->hold_s)
        commands.push_back({QStringLiteral("trial.timer"),
                            tr("Start the timer"),
                            {},
                            Verb::none,
                            [this] { log(TrialAct::timer); },
                            [read] { return read; },
                            Qt::Key_Space});
    commands.push_back({QStringLiteral("trial.photo"),
                        step != nullptr && step->photo ? tr("Photo, wanted: %1").arg(photos) : tr("Photo"),
                        {},
                        Verb::none,
                        [this] { takePhoto(); }});
    commands.push_back(
        {QStringLiteral("trial.touch-up"), tr("Edge touched up"), {}, Verb::none, [this] { log(TrialAct::touchUp); }});
    commands.push_back({QStringLiteral("trial.note"), tr("Note"), {}, Verb::makeNew, [this] { note(); }});
    commands.push_back({QStringLiteral("trial.plan-bend"), tr("Plan a bend"), {}, Verb::plan, [this] { planBend(); }});
    commands.push_back({QStringLiteral("trial.give-up"), tr("Give up"), {}, Verb::out, [this] { giveUp(); }});
    commands.push_back({QStringLiteral("trial.leave"),
                        tr("Leave, nothing is lost"),
                        {},
                        Verb::none,
                        [this] { leave(); },
                        {},
                        Qt::Key_Escape});
    return commands;
}

QRect TrialPage::loudKey() const {
    return {0, px(372), px(520), px(84)};
}

void TrialPage::mousePressEvent(QMouseEvent* event) {
    if (wantsAll() && loudKey().contains(event->pos())) act();
}

bool TrialPage::escape() {
    if (!wantsAll()) return false;
    leave();
    return true;
}

QString TrialPage::primaryText(const Trial& trial, const TrialProgress& progress) const {
    if (progress.current >= trial.protocol.steps.size()) return {};
    if (!progress.caution(trial.protocol).empty()) return tr("I have read this");
    const ProtocolStep& step = trial.protocol.steps[progress.current];
    const StepProgress& now = progress.steps[progress.current];
    switch (step.kind) {
    case StepKind::number:
        return tr("type it");
    case StepKind::count:
        return tr("count %1").arg(whole(now.count + 1));
    case StepKind::yesNo:
        return tr("yes");
    case StepKind::cuts:
        return tr("%1 more, still cuts").arg(step.every);
    case StepKind::bend:
        return now.free_mm ? tr("type the angle") : tr("plan the bend");
    }
    return {};
}

void TrialPage::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    m_told.clear();
    painter.fillRect(rect(), palette().panel);
    if (m_document.blade() == nullptr) return;
    const Trial* running = trial();
    if (m_running && running != nullptr)
        paintRunning(painter, *running);
    else
        paintList(painter);
}

void TrialPage::paintRunning(QPainter& painter, const Trial& trial) {
    const Palette& p = palette();
    const TrialProgress progress = progressOf(trial);
    const ProtocolStep& step = trial.protocol.steps[progress.current];
    const StepProgress& now = progress.steps[progress.current];
    const std::string hazard = progress.caution(trial.protocol);
    int y = px(34);
    drawText(
        painter, 0, y,
        tr("%1, %2").arg(QString::fromStdString(m_document.blade()->mark), QString::fromStdString(trial.protocol.name)),
        m_look.font(22, true), p.ink);
    drawText(painter, width(), y, tr("step %1 of %2").arg(progress.current + 1).arg(progress.steps.size()),
             m_look.font(22, true), p.primary, Qt::AlignRight);
    painter.fillRect(0, px(50), width(), 3, p.primary);
    m_told.add({0, 0, double(width()), double(px(50))}, tr("The piece, its protocol, and the step that is now"));

    if (!hazard.empty()) {
        const Caution caution = words::cautionNamed(hazard);
        drawCautionGlyph(painter, 0, px(84), px(72), p.ink);
        drawText(painter, px(96), px(140), QString::fromStdString(step.name), m_look.font(64, true), p.ink);
        const QRect area(0, px(184), width(), px(200));
        painter.setPen(p.ink);
        painter.setFont(m_look.font(32));
        painter.drawText(area, Qt::TextWordWrap | Qt::AlignLeft, words::cautionText(caution));
        drawText(painter, 0, px(340), tr("Local rules and the maker's manual come first."), m_look.font(18), p.muted);
    } else {
        const int countRoom = step.kind == StepKind::count || step.kind == StepKind::cuts || now.timer ? px(380) : 0;
        drawFitted(painter, 0, px(140), QString::fromStdString(step.name), width() - countRoom, m_look, 72, true,
                   p.ink);
        drawFitted(painter, 0, px(200), QString::fromStdString(step.on), width() - countRoom, m_look, 36, false, p.ink);
        drawFitted(painter, 0, px(244), QString::fromStdString(step.note), width() - countRoom, m_look, 20, false,
                   p.muted);
        const QString limit = limitText(step);
        drawText(painter, 0, px(288), limit, m_look.font(28, true), p.ink);
        m_told.add({0, double(px(258)), double(width() / 2), double(px(44))},
                   tr("What the protocol asks of this step"));
        if (countRoom > 0)
            m_told.add({double(width() - countRoom), double(px(66)), double(countRoom), double(px(222))},
                       now.timer ? tr("Seconds still to hold") : tr("Counted in this step so far"));
        if (now.timer && step.hold_s) {
            const double left = *step.hold_s - static_cast<double>(m_document.now().utc_ms - now.timer->utc_ms) / 1000;
            drawText(painter, width(), px(230), left > 0 ? QString::number(std::ceil(left), 'f', 0) : tr("done"),
                     m_look.font(180), left > 0 ? p.primary : p.ink, Qt::AlignRight);
            drawText(painter, width(), px(276), left > 0 ? tr("seconds") : tr("held long enough"), m_look.font(20),
                     p.muted, Qt::AlignRight);
        } else if (countRoom > 0) {
            drawText(painter, width(), px(230), whole(now.count), m_look.font(180), p.ink, Qt::AlignRight);
            drawText(painter, width(), px(276), QString::fromStdString(step.unit), m_look.font(20), p.muted,
                     Qt::AlignRight);
        }
        if (step.kind == StepKind::bend && now.free_mm && now.thickness_mm) {
            BendPicture bend{*now.thickness_mm, *now.free_mm, step.least.value_or(90), {}, {}};
            if (const auto strain = bendStrain(bend.thickness_mm, bend.free_mm, bend.angle_deg, now.lever_mm)) {
                bend.strain = tr("%1 %").arg(strain->mean, 0, 'f', 1);
                if (strain->at_least) bend.at_least = tr("at least %1 % at the jaw").arg(*strain->at_least, 0, 'f', 1);
            }
            drawBend(painter, QRect(width() / 2, px(66), width() / 2, px(250)), bend, m_look, &m_told);
        }
        if (progress.touchUpForbidden(trial.protocol)) {
            drawNoStone(painter, 0, px(312), px(32), p.ink, p.panel);
            drawText(painter, px(48), px(336), tr("No touch-up: one pass on a stone voids the trial."),
                     m_look.font(22, true), p.ink);
        }
    }

    // The one loud key; the quiet ones are in the row below.
    const QRect loud = loudKey();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(Qt::NoPen);
    painter.setBrush(p.primary);
    painter.drawRoundedRect(loud, 2, 2);
    drawText(painter, loud.left() + px(24), loud.top() + px(54), primaryText(trial, progress), m_look.font(32, true),
             p.on_primary);
    drawKeyCap(painter, loud.right() - px(24) - keyCapWidth(tr("Enter"), m_look), loud.center().y(), tr("Enter"),
               m_look, p.on_primary, px(24));
}

QRect TrialPage::stepsArea() const {
    if (m_running) return {0, px(484), width(), height() - px(488)};
    const int rows = listed() != nullptr ? static_cast<int>(listed()->protocol.steps.size()) : 0;
    return {0, px(48), width(), std::min(px(trialStepHeight) * rows, height() - px(230))};
}

void TrialPage::showSteps() {
    const Trial* trial = listed();
    m_steps->setGeometry(stepsArea());
    m_steps->setVisible(trial != nullptr);
    if (trial == nullptr) return m_steps->show({});
    const auto progress = std::make_shared<TrialProgress>(progressOf(*trial));
    const auto count = static_cast<int>(progress->steps.size());
    m_steps->show({count, std::min(static_cast<int>(progress->current), count - 1),
                   [this, progress](QPainter& painter, const QRect& row, int i) {
                       if (listed() != nullptr) paintStep(painter, row, *listed(), *progress, i);
                   },
                   [this, progress](int i) {
                       if (listed() == nullptr) return QString();
                       const ProtocolStep& step = listed()->protocol.steps[static_cast<std::size_t>(i)];
                       const QString result = resultText(step, progress->steps[static_cast<std::size_t>(i)]);
                       return tr("%1. %2: %3")
                           .arg(i + 1)
                           .arg(QString::fromStdString(step.name), result.isEmpty() ? limitText(step) : result);
                   }});
}

void TrialPage::resizeEvent(QResizeEvent*) {
    m_steps->setGeometry(stepsArea());
}

void TrialPage::paintStep(QPainter& painter, const QRect& row, const Trial& trial, const TrialProgress& progress,
                          int i) const {
    const Palette& p = palette();
    const ProtocolStep& step = trial.protocol.steps[static_cast<std::size_t>(i)];
    const StepProgress& done = progress.steps[static_cast<std::size_t>(i)];
    const bool current = i == static_cast<int>(progress.current) && progress.outcome == TrialOutcome::running;
    painter.fillRect(row, current ? p.paper : p.panel);
    if (current) painter.fillRect(row.left(), row.top(), px(4), row.height(), p.primary);
    painter.fillRect(row.left(), row.bottom(), row.width(), 1, p.hair);
    const int base = row.center().y() + px(6);
    drawText(painter, row.left() + px(28), base, QString::number(i + 1), m_look.font(16), p.muted, Qt::AlignRight);
    drawVerdictGlyph(painter, row.left() + px(40), row.center().y() - px(9), px(18), glyphOf(done), m_look,
                     current ? p.paper : p.panel, current);
    const int nameWidth = std::min(px(200), row.width() / 3);
    drawFitted(painter, row.left() + px(72), base, QString::fromStdString(step.name), nameWidth - px(10), m_look, 18,
               true, current ? p.primary : p.ink);
    const QString result = resultText(step, done);
    const QString right = result.isEmpty() ? limitText(step) : result;
    drawText(painter, row.right() - px(4), base, right, m_look.font(16, !result.isEmpty()),
             result.isEmpty() ? p.muted : p.ink, Qt::AlignRight);
    const int from = row.left() + px(72) + nameWidth;
    // What it is done on is told whole while the step is done.
    const int between = row.right() - px(20) - m_look.width(right, 16, true) - from;
    drawText(painter, from, base, shortened(QString::fromStdString(step.on), m_look.font(16), between), m_look.font(16),
             p.muted);
}

void TrialPage::paintList(QPainter& painter) {
    const Palette& p = palette();
    const Trial* last = latest();
    if (last == nullptr) {
        m_told.add(rect(), tr("What can be done here, with its key"));
        drawText(painter, 0, px(60), tr("No trial yet"), m_look.font(28, true), p.ink);
        int y = px(104);
        const QString mark = QString::fromStdString(m_document.blade()->mark);
        for (const QString& line :
             {elsewhere().isEmpty() ? tr("Enter  begin one on %1: it may not survive").arg(mark)
                                    : tr("Enter  %1").arg(words::nextStep(m_document.verdictAt(Gate::proof)).act),
              tr("2  for whom a piece speaks        3  cuts compared"),
              tr("4  studies of one factor          5  the protocols, and your own"),
              tr("F12  the grain of what was broken")}) {
            drawText(painter, 0, y, line, m_look.font(18), p.ink);
            y += px(34);
        }
        return;
    }
    const TrialProgress progress = progressOf(*last);
    drawFitted(painter, 0, px(30), QString::fromStdString(last->protocol.name), width() - px(120), m_look, 24, true,
               p.ink);
    const bool measured = last->protocol.onlyMeasures() && progress.outcome == TrialOutcome::passed;
    drawText(painter, width(), px(30), measured ? tr("measured") : outcomeText(progress.outcome), m_look.font(20, true),
             progress.outcome == TrialOutcome::failed   ? p.fail
             : progress.outcome == TrialOutcome::passed ? p.pass
                                                        : p.ink,
             Qt::AlignRight);
    m_told.add({0, 0, double(width()), double(px(48))},
               tr("The last trial of this piece and how it ended; below its steps, and what each told"));
    int y = px(48) + stepsArea().height() + px(30);
    for (std::size_t i = 0; i < progress.steps.size(); ++i) {
        const StepProgress& step = progress.steps[i];
        if (!step.thickness_mm || !step.free_mm) continue;
        BendPicture bend{
            *step.thickness_mm, *step.free_mm, step.value.value_or(last->protocol.steps[i].least.value_or(90)), {}, {}};
        if (const auto strain = bendStrain(bend.thickness_mm, bend.free_mm, bend.angle_deg, step.lever_mm)) {
            bend.strain = tr("%1 %").arg(strain->mean, 0, 'f', 1);
            if (strain->at_least) bend.at_least = tr("at least %1 % at the jaw").arg(*strain->at_least, 0, 'f', 1);
        }
        drawText(painter, 0, y, step.value ? tr("The bend") : tr("The bend as planned"), m_look.font(18, true), p.ink);
        drawBend(painter, QRect(0, y + px(8), width(), px(160)), bend, m_look, &m_told);
        y += px(190);
        break;
    }
    const Blade& blade = *m_document.blade();
    for (auto trial = blade.trials.rbegin(); trial != blade.trials.rend() && y < height() - px(10); ++trial) {
        if (&*trial == last) continue;
        m_told.add({0, double(y - px(18)), double(width()), double(px(26))}, tr("An earlier trial of the same piece"));
        drawText(painter, 0, y,
                 tr("before: %1, %2%3")
                     .arg(QString::fromStdString(trial->protocol.name), outcomeText(progressOf(*trial).outcome),
                          isPresent(*trial, blade) ? QString() : tr(", before its last temper")),
                 m_look.font(16), p.muted);
        y += px(26);
    }
}

HelpText TrialPage::help() const {
    return {
        tr("Does this piece do what its purpose asks of it?"),
        {{Pictogram::page, tr("Choose a protocol: each says what it needs, and what can hurt.")},
         {Pictogram::hammer, tr("Do one step at a time. The screen shows the step that is now, and counts with you.")},
         {Pictogram::clock, tr("One key for each outcome: one more, passed, failed. A wrong one is taken back.")},
         {Pictogram::blade, tr("Say what failed: steel, handle, jaws. Only the steel fails the trial.")},
         {Pictogram::boxes, tr("Stands for says which blades this piece speaks for.")}},
        {QStringLiteral("M29"), QStringLiteral("M32"), QStringLiteral("E32")},
        tr("One piece is one trial. Wear eye protection, stand aside of the line of break, keep others away. A "
           "destroyed piece is no longer for sale.")};
}

} // namespace rollcall
