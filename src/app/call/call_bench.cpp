// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/call/call_bench.h"

#include "app/acts/shop_actions.h"
#include "app/call/blade_view.h"
#include "app/call/reading_row.h"
#include "app/call/rule_view.h"
#include "app/shared/choice_dialog.h"
#include "app/shared/key_row.h"
#include "app/shared/local_time.h"
#include "app/shared/pointing.h"
#include "app/shared/seams.h"
#include "core/base/number.h"
#include "core/judge/agenda.h"
#include "plot/glyphs.h"
#include "words/words.h"

#include <algorithm>
#include <QDateTime>
#include <QKeyEvent>
#include <QLocale>
#include <QSettings>
#include <QVBoxLayout>
#include <utility>

namespace rollcall {

namespace {

constexpr int headHeight = 48;
constexpr int testerHeight = 56;

} // namespace

CallBench::CallBench(Document& document, ReadingStation& station, DeviceLink& link, ShopActions& actions,
                     const Seams& seams, const Look& look, QWidget* parent)
    : Bench(document, look, parent), m_station(station), m_link(link), m_actions(actions),
      m_onBlock(station.mode() == ReadingStation::Mode::block), m_blade(new BladeView(document, station, look)),
      m_row(new ReadingRow(document, station, look)), m_rule(new RuleView(document, station, look)),
      m_keys(new KeyRow(look)) {
    setObjectName(QStringLiteral("call-bench"));
    tellUnder(this, m_told);
    setFocusPolicy(Qt::StrongFocus);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(look.px(24), look.px(headHeight + 4), look.px(24), look.px(testerHeight + 8));
    column->setSpacing(look.px(4));
    column->addWidget(m_blade, 1);
    column->addWidget(m_row);
    column->addWidget(m_keys);
    m_keys->setVisible(KeyRow::wished());
    makeRoom();
    connect(m_row, &ReadingRow::fieldClicked, this, &CallBench::turnKeys);
    connect(m_row, &ReadingRow::dwellOver, this, [&seams] {
        if (QSettings().value(QStringLiteral("dwell-sound"), false).toBool()) seams.sound(Sound::dwellOver);
    });
    column->addWidget(m_rule);
    connect(&m_station, &ReadingStation::changed, this, &CallBench::followStation);
    connect(&link, &DeviceLink::reading, this, [this](const DeviceLine& line) {
        if (!m_inFront && m_document.hasBatch()) emit gateWanted(m_gate);
        m_station.receive(line.value, line.text, line.scale);
    });
}

// A run on a block is read here, wherever it was begun; one begun elsewhere leads back there.
void CallBench::followStation() {
    const bool onBlock = m_station.mode() == ReadingStation::Mode::block;
    if (onBlock == m_onBlock) return;
    m_onBlock = onBlock;
    if (onBlock && !m_inFront) {
        m_cameForBlock = true;
        emit wanted();
    } else if (!onBlock && std::exchange(m_cameForBlock, false) && m_inFront) {
        emit backWanted();
    }
}

void CallBench::setInFront(bool inFront) {
    Bench::setInFront(inFront);
    if (inFront) return;
    m_cameForBlock = false;
    if (m_station.mode() == ReadingStation::Mode::block) m_station.leaveVerification();
}

std::optional<Gate> CallBench::gate() const {
    return serves(m_document.gate()) ? m_document.gate() : m_gate;
}

QString CallBench::whyNotAt(Gate gate) const {
    return m_document.batch().planOf(gate).required ? QString()
                                                    : tr("%1 is not asked in this batch.").arg(words::gateName(gate));
}

void CallBench::refresh() {
    if (serves(m_document.gate())) m_gate = m_document.gate();
    m_blade->refresh();
    m_row->refresh();
    m_rule->refresh();
    update();
}

void CallBench::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), m_look.palette.panel);
    m_told.clear();
    if (!m_document.hasBatch()) return;
    m_told.add({0, 0, double(width()), double(px(headHeight))},
               tr("What is read now, in which state it is, and how many of its planned readings are there"));
    m_told.add({0, double(height() - px(testerHeight)), double(width()), double(px(testerHeight))},
               tr("The tester in use and its last verification: error and spread on the block, HRC"));
    paintHead(painter);
    paintTester(painter);
}

void CallBench::paintHead(QPainter& painter) const {
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    painter.fillRect(px(24), px(headHeight), width() - px(48), 1, p.hair);
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return;
    const bool onBlock = m_station.mode() == ReadingStation::Mode::block;
    const QString title = onBlock ? tr("Block %1").arg(QString::fromStdString(m_station.block().name))
                                  : QString::fromStdString(blade->mark);
    const QString mark = elided(title, m_look.font(36, true), width() / 2);
    drawText(painter, px(24), px(36), mark, m_look.font(36, true), p.ink);
    QString context;
    if (onBlock) {
        const Tester* tester = m_document.tester();
        if (tester != nullptr)
            context = QString::fromStdString(tester->name + ", " + tester->indenter + ", " + tester->anvil);
    } else if (m_document.gate() == Gate::quench) {
        context = blade->round > 1 ? tr("as quenched, hardening %1").arg(blade->round) : tr("as quenched");
    } else {
        const int last = lastTemper(*blade);
        context = m_document.batch().isFinished(*blade) ? tr("a finished knife") : tr("no temper logged");
        for (const Temper& temper : blade->tempers) {
            if (temper.round != blade->round || temper.number != last) continue;
            QStringList parts;
            if (temper.temperature_c) parts << words::degrees(*temper.temperature_c);
            if (temper.hours) parts << words::hours(*temper.hours);
            context = tr("after temper %1").arg(last) +
                      (parts.isEmpty() ? QString() : QStringLiteral(", ") + parts.join(QStringLiteral(", ")));
        }
    }
    const Verdict* verdict = m_document.verdict();
    const QString right = onBlock || verdict == nullptr ? QString()
                          : verdict->planned == 0       ? tr("by files")
                                                        : tr("%1 of %2 read").arg(verdict->taken).arg(verdict->planned);
    const int left = px(24) + m_look.width(mark, 36, true) + px(24);
    const int end = width() - px(24) - m_look.width(right, 18, true) - px(16);
    drawFitted(painter, left, px(36), context, end - left, m_look, 18, false, p.muted);
    drawText(painter, width() - px(24), px(36), right, m_look.font(18, true), p.ink, Qt::AlignRight);
}

void CallBench::paintTester(QPainter& painter) const {
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    const int top = height() - px(testerHeight);
    painter.fillRect(0, top, width(), 1, p.hair);
    const Tester* tester = m_document.tester();
    const StandingRun found = m_station.verification();
    const bool good = found.standing == RunStanding::good;
    drawVerdictGlyph(painter, px(24), top + px(14), px(28),
                     good                   ? State::pass
                     : found.run != nullptr ? State::borderline
                                            : State::notYet,
                     m_look, p.panel);
    const QString name =
        tester != nullptr ? tr("%1, HRC").arg(QString::fromStdString(tester->name)) : tr("No tester yet");
    QString state = tr("not verified today: V");
    QString numbers = tr("Borderline at best until then");
    if (found.run != nullptr) {
        const QString when = QLocale().toString(localTime(*found.run->time), QStringLiteral("HH:mm"));
        state = good ? tr("verified today %1").arg(when) : tr("not good for this hardness: V");
        numbers = tr("error %1, spread %2")
                      .arg(words::hardness(found.answer.error), words::hardness(found.answer.repeatability));
    }
    drawText(painter, width() - px(24), top + px(24), state, m_look.font(16), p.ink, Qt::AlignRight);
    drawText(painter, width() - px(24), top + px(46), numbers, m_look.font(16), p.muted, Qt::AlignRight);
    // What stands at the left keeps clear of it; of two words for the same the one at the right stays.
    const int left = px(62);
    const auto room = [&](const QString& right) { return width() - px(40) - m_look.width(right, 16) - left; };
    drawFitted(painter, left, top + px(24), name, room(state), m_look, 18, true, p.ink);
    const bool lost = m_link.line() != nullptr && m_link.line()->state() != InstrumentLine::State::open;
    const int after = m_look.width(name, 18, true) + px(14);
    if (const QString line = m_link.stateText(); after + m_look.width(line, 16) <= room(state) || lost)
        drawText(painter, left + after, top + px(24), line, m_look.font(16), lost ? p.borderline : p.muted);
    if (found.run != nullptr)
        drawFitted(painter, left, top + px(46), tr("block %1").arg(QString::fromStdString(found.run->block)),
                   room(numbers), m_look, 16, false, p.muted);
    else if (const QString none = tr("no block read today"); m_look.width(none, 16) <= room(numbers))
        drawText(painter, left, top + px(46), none, m_look.font(16), p.muted);
}

// The primary act: what Enter does when nothing is typed.
void CallBench::act() {
    if (m_station.enter()) return;
    switch (m_station.act()) {
    case StationAct::typeReading:
        return emit said(tr("Read the tester, type the number, then Enter."), false);
    case StationAct::verify:
        return m_actions.verify();
    case StationAct::finishVerification:
        return m_station.leaveVerification();
    case StationAct::repeatVerification:
        return m_station.beginVerification(Block(m_station.block()));
    case StationAct::logTemper:
    case StationAct::temperAgain:
        return m_actions.logTemper({});
    case StationAct::oneMore:
        return m_station.askOneMore();
    case StationAct::setLimits:
        return m_actions.changeLimits();
    case StationAct::reharden:
        return m_actions.reharden();
    case StationAct::clearCrack:
        return m_actions.clearCrack();
    case StationAct::lookInto:
        return m_actions.lookInto();
    case StationAct::chooseSet:
        return m_actions.chooseSet();
    case StationAct::tryFiles:
        return m_actions.tryFiles(m_rule->bladeData());
    case StationAct::grindClean:
        return m_actions.grindOff();
    case StationAct::coldTreat:
        return m_actions.logCold();
    case StationAct::toSteel:
        return emit commandWanted(QStringLiteral("gate.steel"));
    case StationAct::decide:
        return m_actions.decide();
    case StationAct::callNext:
        return callNext();
    case StationAct::overview:
    case StationAct::nothing:
        return emit commandWanted(QStringLiteral("overview"));
    }
}

void CallBench::leftAct() {
    if (m_station.mode() == ReadingStation::Mode::block) return m_station.leaveVerification();
    if (onlyFilesAnswer()) return m_actions.tryFiles(m_rule->bladeData());
    m_station.askOneMore();
}

bool CallBench::onlyFilesAnswer() const {
    const Verdict* verdict = m_document.verdict();
    return verdict != nullptr && verdict->planned == 0 && verdict->taken == 0;
}

void CallBench::rightAct() {
    m_actions.strikeLast();
}

namespace {

// The id of the last temper of a blade's round; empty before any.
std::string lastTemperOf(const Blade& blade) {
    const auto last = std::find_if(blade.tempers.rbegin(), blade.tempers.rend(),
                                   [&](const Temper& temper) { return temper.round == blade.round; });
    return last == blade.tempers.rend() ? std::string() : last->id;
}

} // namespace

// At Temper those that were tempered with the blade in hand come first: they lie on the bench beside it.
std::optional<std::size_t> CallBench::nextToRead() const {
    std::optional<std::size_t> first;
    const std::string together =
        m_document.gate() == Gate::temper && m_document.blade() != nullptr ? lastTemperOf(*m_document.blade()) : "";
    for (const Task& task : m_document.tasks()) {
        const bool readable = task.next.act == Act::takeReadings || task.next.act == Act::readAgain ||
                              task.next.act == Act::verifyTester || task.next.act == Act::mapReadings ||
                              task.next.act == Act::tryFiles;
        if (task.gate != m_document.gate() || !readable || static_cast<int>(task.blade) == m_document.bladeIndex())
            continue;
        if (together.empty() || lastTemperOf(m_document.batch().blades[task.blade]) == together) return task.blade;
        if (!first) first = task.blade;
    }
    return first;
}

void CallBench::callNext() {
    if (const auto blade = nextToRead()) return m_document.selectBlade(static_cast<int>(*blade));
    emit commandWanted(QStringLiteral("overview"));
}

Commands CallBench::commands() {
    const auto onBlock = [this] {
        return m_station.mode() == ReadingStation::Mode::block ? tr("Leave the block first.") : QString();
    };
    return {{QStringLiteral("one-more"), tr("One more reading"), tr("on the blade in hand"), Verb::other,
             [this] { m_station.askOneMore(); }, onBlock},
            {QStringLiteral("strike"), tr("Strike out"), tr("the last reading, with its reason, by one key"),
             Verb::strike, [this] { m_actions.strikeLast(); }},
            {QStringLiteral("dwell"),
             tr("Dwell"),
             tr("how long the total force is held"),
             Verb::none,
             [this] { m_row->startDwell(); },
             {},
             Qt::Key_Space},
            {QStringLiteral("files"), tr("Files"), tr("which skate and which bite, on this blade"), Verb::files,
             [this] { m_actions.tryFiles(m_rule->bladeData()); }, onBlock},
            {QStringLiteral("zone"), tr("Zone"), tr("edge, spine, tang, core: where the next readings are"), Verb::zone,
             [this] { chooseZone(); }, onBlock},
            {QStringLiteral("series"), tr("Strikes"), tr("a series: rebound, with its own average"), Verb::series,
             [this] { m_actions.logSeries(); }, onBlock},
            {QStringLiteral("number-keys"),
             m_keys->isHidden() ? tr("Number keys") : tr("Number keys away"),
             tr("on the screen, for mouse and finger; a click on the field shows them too"),
             Verb::none,
             [this] { turnKeys(); },
             {},
             Qt::Key_unknown,
             Qt::NoModifier,
             Group::here,
             false},
            {QStringLiteral("dial-habits"), tr("Dial habits"), tr("beside the dwell timer: shown or not"), Verb::none,
             [this] { m_row->turnHabits(); },
             [this] { return m_row->onDial() ? QString() : tr("The tester in use has no dial."); }, Qt::Key_unknown,
             Qt::NoModifier, Group::here, false}};
}

void CallBench::turnKeys() {
    m_keys->setVisible(m_keys->isHidden());
    makeRoom();
    emit changed();
}

// On a small screen the keys take the rule's place: what it shows stands in roll and column too.
void CallBench::makeRoom() {
    constexpr int heightForRule = 560;
    constexpr int heightForBoth = 700;
    m_rule->setVisible(height() >= px(m_keys->isHidden() ? heightForRule : heightForBoth));
}

void CallBench::resizeEvent(QResizeEvent*) {
    makeRoom();
}

// E6. Z once more on another zone goes back to the edge.
void CallBench::chooseZone() {
    if (m_station.zone() != Zone::edge) return m_station.setZone(Zone::edge);
    std::vector<Choice> choices;
    for (const Zone zone : allZones)
        choices.push_back({QString::number(choices.size() + 1), words::zoneName(nameOf(zone)),
                           zone == Zone::edge ? tr("what the gate judges") : QString()});
    (new ChoiceDialog(tr("Which zone is read next?"), {tr("Zones are shown beside each other, never averaged.")},
                      choices, m_look, window()))
        ->ask([this](int i) { m_station.setZone(allZones[static_cast<std::size_t>(i)]); });
}

Commands CallBench::commandsAt(const QPoint& at) {
    const Blade* blade = m_document.blade();
    std::string id = m_row->readingAt(m_row->mapFrom(this, at));
    if (id.empty()) id = m_blade->readingAt(m_blade->mapFrom(this, at));
    if (blade == nullptr || id.empty()) return {};
    const auto reading = std::ranges::find(blade->readings, id, &Reading::id);
    if (reading == blade->readings.end() || reading->struck) return {};
    const QString value = words::hardness(reading->value);
    return {{QStringLiteral("strike-this"), tr("Strike out %1").arg(value), tr("it stays in the log, with the reason"),
             Verb::none, [this, id, value] { m_actions.askStrike(id, value); }}};
}

QStringList CallBench::offers() const {
    QStringList offered{QStringLiteral("why"),    QStringLiteral("verify"), QStringLiteral("temper"),
                        QStringLiteral("excuse"), QStringLiteral("second"), QStringLiteral("scale")};
    const Blade* blade = m_document.blade();
    if (blade != nullptr && m_document.batch().isFinished(*blade)) // nothing is done to its steel
        offered.removeAll(QStringLiteral("temper"));
    return offered;
}

QStringList CallBench::movements() const {
    return {tr("Digits and Enter   log a reading; 621 is 62.1, point and comma are both decimal marks"),
            tr("Arrows   move the next spot (Shift: finer); or click on the blade"),
            tr("Esc   clear what is typed, leave the block, back to the batch")};
}

bool CallBench::key(QKeyEvent* event) {
    const double step = event->modifiers() & Qt::ShiftModifier ? 0.1 : 0.5;
    switch (event->key()) {
    case Qt::Key_Backspace:
        m_station.backspace();
        return true;
    case Qt::Key_Left:
        m_station.moveSpot(-step, 0);
        return true;
    case Qt::Key_Right:
        m_station.moveSpot(step, 0);
        return true;
    case Qt::Key_Up:
        m_station.moveSpot(0, step);
        return true;
    case Qt::Key_Down:
        m_station.moveSpot(0, -step);
        return true;
    default:
        return event->text().size() == 1 && m_station.type(event->text().at(0));
    }
}

QString CallBench::unsaved() const {
    if (!m_station.typed().isEmpty()) return tr("%1 is typed and not entered.").arg(m_station.typed());
    if (m_station.waiting() > 0) return tr("A number from the tester is not taken.");
    return {};
}

bool CallBench::escape() {
    if (!m_station.typed().isEmpty() || !m_station.message().isEmpty() || m_station.waiting() > 0)
        m_station.clear();
    else if (m_station.mode() == ReadingStation::Mode::block)
        m_station.leaveVerification();
    else
        return false;
    return true;
}

ColumnContent CallBench::content() const {
    return m_station.mode() == ReadingStation::Mode::block ? blockContent() : bladeContent();
}

ColumnContent CallBench::bladeContent() const {
    ColumnContent content;
    const Blade* blade = m_document.blade();
    const Verdict* verdict = m_document.verdict();
    if (blade == nullptr || verdict == nullptr) return content;
    content.caption = tr("%1 at %2").arg(QString::fromStdString(blade->mark), words::gateName(m_document.gate()));
    content.state = verdict->state;
    content.word = words::stateName(verdict->state);
    content.sub = words::headline(*verdict);
    if (verdict->measurement) {
        const Measurement& m = *verdict->measurement;
        const bool corrected = std::abs(m.corrected_mean - m.mean) > 0.049;
        content.numbers.push_back({corrected ? tr("Mean, read %1").arg(words::hardness(m.mean)) : tr("Mean"),
                                   words::hardness(m.decided_mean),
                                   QStringLiteral("± ") + words::uncertainty(m.decided_uncertainty), true});
        content.numbers.push_back(
            {windowOf(m_document.batch(), *m_document.blade(), m_document.gate(), m_document.tables()).high
                 ? tr("In window")
                 : tr("Above minimum"),
             words::percent(m.probability_inside),
             {},
             false});
    }
    content.lines = reasonLines(*verdict);
    for (const StepCaution caution : verdict->next.cautions) {
        // Glass-hard is said by the gate itself.
        if (caution != StepCaution::glassHard)
            content.below.push_back({Tone::caution, words::stepCautionText(caution), {}, true});
    }
    for (const Caution caution : verdict->cautions)
        content.below.push_back({Tone::note, words::cautionText(caution), {}, true});
    content.left = onlyFilesAnswer() ? tr("Files") : tr("One more");
    content.left_key = onlyFilesAnswer() ? QStringLiteral("F") : QStringLiteral("*");
    content.right = tr("Strike out");
    content.right_key = QStringLiteral("/");
    nameAct(content);
    return content;
}

void CallBench::nameAct(ColumnContent& content) const {
    const Verdict& verdict = *m_document.verdict();
    const words::NextWords next = words::nextStep(verdict);
    content.key = tr("Enter");
    switch (m_station.act()) {
    case StationAct::typeReading: {
        if (!m_station.expectsReading()) { // one was typed: Enter does not log it, and does nothing else either
            content.act = tr("%1 is not logged").arg(m_station.typed());
            content.detail = verdict.state == State::excused ? tr("excused at this gate; Esc clears it")
                                                             : tr("One more takes it, Esc clears it");
            content.key.clear();
            break;
        }
        const std::optional<Spot> spot = m_station.nextSpot();
        const bool asked = verdict.next.act == Act::readAgain || verdict.next.act == Act::mapReadings;
        // What was read before the tester was verified stays Borderline, and is read anew, from the first on.
        const auto* wanted = verdict.next.act == Act::takeReadings ? verdict.next.as<ReadStep>() : nullptr;
        const bool held = wanted != nullptr && verdict.state == State::borderline;
        const bool anew = held && wanted->readings >= verdict.planned;
        const int number = held ? verdict.planned - wanted->readings + 1 : verdict.taken + 1;
        content.act = asked ? next.act : anew ? tr("Read it again") : tr("Take reading %1").arg(number);
        if (m_station.zone() != Zone::edge) {
            content.act = tr("Read the %1").arg(words::zoneName(nameOf(m_station.zone())));
            content.detail = tr("beside the edge; Z goes back");
            break;
        }
        content.detail = anew   ? tr("%1 is verified now").arg(QString::fromStdString(m_document.tester()->name))
                         : spot ? tr("at %1 from the heel").arg(words::length(spot->x_mm, 0))
                                : m_station.noSpotReason();
        break;
    }
    case StationAct::verify:
        content.act = tr("Verify the tester");
        content.detail = verdict.next.act == Act::verifyOnHarderBlock ? next.detail : tr("or type: Borderline at best");
        break;
    case StationAct::oneMore: {
        const bool verified = verdict.next.act == Act::verifyTester || verdict.next.act == Act::verifyOnHarderBlock;
        content.act = verified ? tr("Read it again") : next.act;
        content.detail =
            verified ? tr("%1 is verified now").arg(QString::fromStdString(m_document.tester()->name)) : next.detail;
        break;
    }
    case StationAct::callNext:
        if (const auto blade = nextToRead()) {
            content.act = tr("Call %1").arg(QString::fromStdString(m_document.batch().blades[*blade].mark));
            content.detail = verdict.state == State::borderline ? next.act + QStringLiteral(": ") + next.detail
                                                                : tr("next at this gate");
            break;
        }
        content.act = tr("To the batch");
        content.detail = tr("all called at this gate");
        break;
    case StationAct::overview:
        content.act = tr("To the batch");
        break;
    default:
        content.act = next.act;
        content.detail = next.detail;
        break;
    }
}

ColumnContent CallBench::blockContent() const {
    ColumnContent content;
    const Block& block = m_station.block();
    content.caption = tr("Tester on block %1").arg(QString::fromStdString(block.name));
    content.word = tr("Not yet");
    content.sub = tr("Two readings at least.");
    content.key = tr("Enter");
    content.left = tr("Leave");
    content.left_key = tr("Esc");
    content.right = tr("Strike out");
    content.right_key = QStringLiteral("/");
    const Verification* run = m_station.run();
    const int taken = run != nullptr ? static_cast<int>(run->readings.size()) : 0;
    content.act = tr("Take block reading %1").arg(taken + 1);
    content.detail = tr("at least %1 from the others").arg(words::length(3, 0));
    if (taken < 2) return content;
    const auto answer = verifyTester(m_document.tables(), run->scale, run->certified, run->readings);
    if (!answer) return content;
    content.state = answer->ok ? State::pass : State::fail;
    content.word = answer->ok ? tr("Good") : tr("Not good");
    content.sub = answer->ok ? tr("Good until midnight.") : tr("The tester may not be used like this.");
    content.numbers.push_back(
        {tr("Error"), words::hardness(answer->error), tr("± %1 allowed").arg(answer->max_error), !answer->ok});
    content.numbers.push_back({tr("Spread"), words::hardness(answer->repeatability),
                               tr("%1 allowed").arg(answer->max_repeatability), !answer->ok});
    const bool errorOk = atMost(std::abs(answer->error), answer->max_error);
    const bool spreadOk = atMost(answer->repeatability, answer->max_repeatability);
    content.lines.push_back({errorOk ? Tone::good : Tone::bad,
                             tr("Error %1, allowed ± %2").arg(words::hardness(answer->error)).arg(answer->max_error),
                             QStringLiteral("M6"), false});
    content.lines.push_back(
        {spreadOk ? Tone::good : Tone::bad,
         tr("Spread %1, allowed %2").arg(words::hardness(answer->repeatability)).arg(answer->max_repeatability),
         QStringLiteral("M6"), false});
    if (taken < 5)
        content.lines.push_back(
            {Tone::note, tr("Five readings make the error surer; type on if you like"), QStringLiteral("M9"), false});
    const bool again = m_station.act() == StationAct::repeatVerification;
    if (!answer->ok) {
        content.lines.push_back({Tone::caution,
                                 again ? tr("Clean, re-seat, discard two, then repeat once")
                                       : tr("Failed twice: stop. Readings since the last good run are suspect"),
                                 QStringLiteral("E18"), false});
    }
    content.act = answer->ok ? tr("Back to the blades") : again ? tr("Repeat the run") : tr("Stop: tester not fit");
    content.detail = answer->ok ? tr("tester verified")
                     : again    ? tr("clean, re-seat, discard two")
                                : tr("back; blades Borderline at best");
    return content;
}

HelpText CallBench::help() const {
    return {
        tr("How hard is this blade, how sure is that, and is it inside the window?"),
        {{Pictogram::block,
          tr("Verify the tester first: V, then five readings on a block near the hardness you expect.")},
         {Pictogram::indent,
          tr("Put the blade on the anvil, its flat side down, and read it where the next spot is drawn.")},
         {Pictogram::dial, tr("Type the number: 621 is 62.1. Enter logs it and draws the next spot.")},
         {Pictogram::window,
          tr("The rule shows readings, mean and its uncertainty against the window; the column says what they mean.")},
         {Pictogram::arrows,
          tr("Do what the big button says. The key * asks for one reading more, + goes to the next blade.")}},
        {QStringLiteral("M3"), QStringLiteral("M4"), QStringLiteral("M6"), QStringLiteral("M9"), QStringLiteral("M10"),
         QStringLiteral("M12"), QStringLiteral("M15"), QStringLiteral("M16"), QStringLiteral("M17")},
        tr("Hardness on flat metal says nothing of an edge softened by grinding, of grain, or of a crack. An "
           "unverified tester may be off by more than the window.")};
}

} // namespace rollcall
