// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/acts/reading_station.h"

#include "app/shared/typed_reading.h"
#include "core/base/number.h"
#include "core/judge/agenda.h"
#include "core/measure/rockwell.h"
#include "core/measure/statistics.h"
#include "logbook/actions/blades.h"
#include "logbook/actions/instruments.h"
#include "words/words.h"

#include <algorithm>
#include <cmath>
#include <QApplication>

namespace rollcall {

namespace {
constexpr double farOff = 5.0; // HRC from what is expected: asked for once
}

ReadingStation::ReadingStation(Document& document, QObject* parent) : QObject(parent), m_document(document) {
    connect(&m_document, &Document::changed, this, [this] {
        const Blade* blade = m_document.blade();
        const std::string id = blade != nullptr ? blade->id : std::string();
        if (id != m_blade || m_document.gate() != m_gate) forget(); // what was typed was meant for another blade
        m_blade = id;
        m_gate = m_document.gate();
    });
}

void ReadingStation::setSurface(const std::string& scale, std::optional<double> radius_mm) {
    m_scale = scale;
    m_radius = radius_mm;
    m_typed.clear();
    emit changed();
}

void ReadingStation::setZone(Zone zone) {
    m_zone = zone;
    emit changed();
}

// A hardness in HRC on the scale in use; none where the conversion table has a gap.
std::optional<double> ReadingStation::inScale(std::optional<double> hrc) const {
    if (!hrc || m_scale == "HRC") return hrc;
    const Result<Converted> converted = convertHardness(m_document.tables(), "HRC", *hrc, m_scale);
    return converted ? std::optional<double>(converted->value) : std::nullopt;
}

void ReadingStation::forget() {
    if (!m_typed.isEmpty()) emit logged(tr("%1 was typed for another blade and is not logged.").arg(m_typed));
    m_typed.clear();
    m_message.clear();
    m_refused = m_askedOnce = m_oneMore = false;
    m_chosen.reset();
    m_zone = Zone::edge;
}

void ReadingStation::refuse(const QString& message) {
    m_message = message;
    m_refused = true;
    emit changed();
}

bool ReadingStation::type(QChar key) {
    const bool mark = key == QLatin1Char('.') || key == QLatin1Char(',');
    if (!key.isDigit() && !mark) return false;
    if (m_refused) { // nothing is cleared until the next key
        m_typed.clear();
        m_refused = false;
        m_message.clear();
        m_askedOnce = false;
    }
    m_message.clear();
    m_askedOnce = false;
    if (m_typed.size() < 5 && !(mark && (m_typed.contains(QLatin1Char('.')) || m_typed.isEmpty())))
        m_typed += mark ? QLatin1Char('.') : key;
    if (m_mode == Mode::blade && !expectsReading()) m_message = whyNotExpected();
    emit changed();
    return true;
}

// Why the blade in hand takes no number, and what to do with one that is typed: it stays in sight until it is decided.
QString ReadingStation::whyNotExpected() const {
    const Verdict* verdict = m_document.verdict();
    if (verdict == nullptr) return tr("This gate is not asked. Esc leaves it.");
    return verdict->state == State::excused ? tr("This blade is excused at this gate. Esc clears the number.")
                                            : tr("It has its readings. *: log it as one more. Esc: clear it.");
}

void ReadingStation::backspace() {
    m_refused = m_askedOnce = false;
    m_message.clear();
    m_typed.chop(1);
    emit changed();
}

void ReadingStation::clear() {
    if (m_typed.isEmpty() && !m_incoming.empty()) {
        emit logged(
            m_incoming.size() == 1
                ? tr("One reading that came is left unlogged; the line's log has it")
                : tr("%1 readings that came are left unlogged; the line's log has them").arg(m_incoming.size()));
        m_incoming.clear();
    }
    m_typed.clear();
    m_refused = m_askedOnce = false;
    m_message.clear();
    emit changed();
}

bool ReadingStation::enter() {
    if (m_logging) { // the reading before is not on disk yet: this Enter is done right after it
        m_enterAgain = !m_typed.isEmpty();
        return true;
    }
    if (m_typed.isEmpty() && !m_incoming.empty()) { // one that came and waits: here, or on the next blade
        if (stillExpected() == 0) {
            const auto next = nextBladeToRead();
            if (!next) return false;
            m_document.selectBlade(*next);
        }
        takeIncoming();
        return true;
    }
    if (m_typed.isEmpty()) return false;
    if (m_mode == Mode::blade && !expectsReading()) {
        m_message = tr("%1 is not logged. %2").arg(m_typed, whyNotExpected());
        emit changed();
        return true;
    }
    const Tester* tester = m_document.tester();
    if (tester == nullptr) {
        emit testerNeeded();
        return true;
    }
    const Result<RockwellScale> scale = m_document.tables().scale(scaleInUse());
    const Result<double> value = scale ? typedReading(m_typed.toStdString(), *scale) : Result<double>(scale.error());
    if (!value) {
        refuse(QString::fromStdString(value.error().text));
        return true;
    }
    const std::optional<double> expectation =
        m_mode == Mode::block ? std::optional<double>(m_block.certified) : inScale(expected());
    const double limit = m_mode == Mode::block ? 3.0 : farOff;
    if (expectation && std::abs(*value - *expectation) > limit && !m_askedOnce) {
        m_askedOnce = true;
        m_message = tr("Far from %1. Enter again logs %2.").arg(words::hardness(*expectation), words::hardness(*value));
        emit changed();
        return true;
    }
    const Number number{*value, m_typed};
    if (m_mode == Mode::block)
        logBlock(number);
    else
        logBlade({number});
    return true;
}

void ReadingStation::receive(double value, const QString& text, const QString& scaleSaid) {
    const std::string expectedScale = scaleInUse();
    const Result<RockwellScale> scale = m_document.tables().scale(expectedScale);
    const Result<RockwellScale> said = scaleSaid.isEmpty() ? scale : m_document.tables().scale(scaleSaid.toStdString());
    if (!scale || !said || said->symbol != scale->symbol)
        return refuse(
            tr("%1 %2 came, %3 is read here: not logged.").arg(text, scaleSaid, QString::fromStdString(expectedScale)));
    if (!inRange(*scale, value))
        return refuse(tr("%1 came: outside %2, not logged.").arg(text, QString::fromStdString(expectedScale)));
    m_incoming.push_back({value, text});
    takeIncoming();
}

// How many more readings may go on the blade in hand without asking.
int ReadingStation::stillExpected() const {
    const Verdict* verdict = m_document.verdict();
    if (verdict == nullptr || !expectsReading()) return 0;
    if (m_oneMore) return 1;
    return std::max(1, verdict->planned - verdict->taken);
}

std::optional<int> ReadingStation::nextBladeToRead() const {
    for (const Task& task : m_document.tasks()) {
        if (task.gate == m_document.gate() && task.next.act == Act::takeReadings &&
            static_cast<int>(task.blade) != m_document.bladeIndex())
            return static_cast<int>(task.blade);
    }
    return std::nullopt;
}

void ReadingStation::takeIncoming() {
    if (m_logging || m_incoming.empty()) return;
    if (m_document.tester() == nullptr || !m_document.hasBatch()) return;
    if (m_mode == Mode::block) {
        const Number number = m_incoming.front();
        m_incoming.pop_front();
        return logBlock(number);
    }
    int expected = stillExpected();
    // After a Pass the maker goes on to the next blade, and so do the readings; not away under a form that is open.
    if (const Verdict* verdict = m_document.verdict(); expected == 0 && verdict != nullptr &&
                                                       verdict->state == State::pass &&
                                                       QApplication::activeModalWidget() == nullptr) {
        if (const auto next = nextBladeToRead()) {
            m_document.selectBlade(*next);
            expected = stillExpected();
        }
    }
    if (expected == 0) {
        m_message = tr("%1 came, not logged. Enter: next blade. *: this one.").arg(m_incoming.front().text);
        emit changed();
        return;
    }
    std::vector<Number> group;
    while (!m_incoming.empty() && static_cast<int>(group.size()) < expected) {
        group.push_back(m_incoming.front());
        m_incoming.pop_front();
    }
    logBlade(group);
}

// All of them in one transaction: a flood of readings waits for the disk once.
void ReadingStation::logBlade(const std::vector<Number>& numbers) {
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return;
    std::vector<ReadingDraft> drafts;
    QStringList texts;
    for (const Number& number : numbers) {
        ReadingDraft draft = draftFor(*blade, number);
        if (draft.spot) m_placed.push_back(*draft.spot);
        m_chosen.reset();
        texts << words::hardness(number.value);
        drafts.push_back(std::move(draft));
    }
    const QString what =
        tr("%1 logged on %2").arg(texts.join(QStringLiteral(", ")), QString::fromStdString(blade->mark));
    m_logging = true; // what was typed stays in sight until the answer takes its place: one repaint for an act
    m_typed.clear();
    m_message.clear();
    m_askedOnce = m_oneMore = false;
    m_document.perform(
        [drafts](Logbook& logbook) -> Result<Done> {
            return logbook.inOneTransaction([&]() -> Result<Done> {
                for (const ReadingDraft& draft : drafts) {
                    if (const auto id = logReading(logbook, draft); !id) return id.error();
                }
                return Done{};
            });
        },
        [this, what, numbers](const Result<Done>& done) {
            m_logging = false;
            m_placed.clear();
            if (done)
                emit logged(what);
            else
                notStored(numbers);
            goOn(done.ok());
        });
}

void ReadingStation::logSeries(const std::vector<double>& strikes, const std::vector<std::size_t>& sameSpot,
                               std::optional<double> instrumentMean, const std::string& support) {
    const Blade* blade = m_document.blade();
    if (blade == nullptr || m_document.tester() == nullptr || strikes.empty()) return;
    SeriesDraft series;
    series.instrument_mean = instrumentMean;
    series.support = support;
    for (std::size_t i = 0; i < strikes.size(); ++i) {
        ReadingDraft draft = draftFor(*blade, {strikes[i], words::hardness(strikes[i])});
        const bool again = std::find(sameSpot.begin(), sameSpot.end(), i) != sameSpot.end();
        if (again && !series.strikes.empty()) draft.spot = series.strikes.back().spot;
        if (draft.spot) m_placed.push_back(*draft.spot);
        series.strikes.push_back(std::move(draft));
    }
    const QString what = tr("%1 strikes logged on %2").arg(strikes.size()).arg(QString::fromStdString(blade->mark));
    m_logging = true;
    m_document.perform([series](Logbook& logbook) { return rollcall::logSeries(logbook, series); },
                       [this, what](const Result<Done>& done) {
                           m_logging = false;
                           m_placed.clear();
                           if (done) emit logged(what);
                           emit changed();
                       });
}

ReadingDraft ReadingStation::draftFor(const Blade& blade, const Number& number) const {
    ReadingDraft draft;
    draft.blade = blade.id;
    draft.gate = m_document.gate();
    draft.round = blade.round;
    draft.after_temper = m_document.gate() == Gate::quench ? 0 : lastTemper(blade);
    draft.scale = m_scale;
    draft.convex_radius_mm = m_radius;
    draft.value = number.value;
    draft.as_entered = number.text.toStdString();
    draft.resolution = m_document.tester()->resolution;
    draft.spot = nextSpot();
    draft.zone = m_zone;
    draft.tester = m_document.tester()->id;
    return draft;
}

// What was typed stays typed, what came from a wire waits: nothing is lost because a disk was full.
void ReadingStation::notStored(const std::vector<Number>& numbers) {
    if (numbers.size() == 1 && m_typed.isEmpty())
        m_typed = numbers.front().text;
    else
        m_incoming.insert(m_incoming.begin(), numbers.begin(), numbers.end());
}

void ReadingStation::goOn(bool stored) {
    if (std::exchange(m_enterAgain, false) && stored) enter();
    if (stored) takeIncoming();
    emit changed();
}

void ReadingStation::logBlock(const Number& number) {
    m_logging = true;
    m_typed.clear();
    m_message.clear();
    m_askedOnce = false;
    auto run = std::make_shared<std::string>(m_run);
    m_document.perform(
        [run, number, tester = m_document.tester()->id, block = m_block.id](Logbook& logbook) -> Result<Done> {
            return logbook.inOneTransaction([&]() -> Result<Done> {
                if (run->empty()) {
                    const auto begun = startVerification(logbook, tester, block);
                    if (!begun) return begun.error();
                    *run = *begun;
                }
                const auto id = logBlockReading(logbook, *run, number.value, number.text.toStdString());
                if (!id) return id.error();
                return Done{};
            });
        },
        [this, run, number](const Result<Done>& done) {
            m_logging = false;
            if (done) {
                m_run = *run;
                emit logged(tr("%1 logged on the block").arg(words::hardness(number.value)));
            } else {
                notStored({number});
            }
            goOn(done.ok());
        });
}

bool ReadingStation::expectsReading() const {
    if (m_mode == Mode::block) return true;
    const Verdict* verdict = m_document.verdict();
    if (verdict == nullptr || verdict->state == State::excused) return false;
    if (m_oneMore || m_zone != Zone::edge || verdict->taken < std::max(1, verdict->planned)) return true;
    switch (verdict->next.act) {
    case Act::takeReadings: // again, of a blade that has enough of another day or state
    case Act::readAgain:
    case Act::mapReadings:
        return true;
    default:
        return false;
    }
}

void ReadingStation::askOneMore() {
    const Verdict* verdict = m_document.verdict();
    if (m_mode == Mode::block || verdict == nullptr || verdict->state == State::excused) return;
    m_oneMore = true; // a number that was typed too early is taken with the next Enter
    m_message.clear();
    takeIncoming();
    emit changed();
}

QString ReadingStation::lastReading() const {
    if (m_mode == Mode::block)
        return run() != nullptr && !run()->readings.empty() ? words::hardness(run()->readings.back()) : QString();
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return {};
    for (auto r = blade->readings.rbegin(); r != blade->readings.rend(); ++r) {
        if (!r->struck && r->gate == m_document.gate() && r->round == blade->round) return words::hardness(r->value);
    }
    return {};
}

void ReadingStation::strikeLast(StrikeReason reason) {
    std::string id;
    if (m_mode == Mode::block) {
        if (run() != nullptr && !run()->reading_ids.empty()) id = run()->reading_ids.back();
    } else if (const Blade* blade = m_document.blade()) {
        for (const Reading& r : blade->readings) {
            if (!r.struck && r.gate == m_document.gate() && r.round == blade->round) id = r.id;
        }
    }
    if (id.empty()) return;
    m_document.perform([id, reason](Logbook& logbook) { return strikeReading(logbook, id, reason, {}); },
                       [this, reason](const Result<Done>& done) {
                           if (done) emit logged(tr("struck out: %1").arg(words::strikeName(reason)));
                       });
}

std::optional<double> ReadingStation::expected() const {
    const Verdict* verdict = m_document.verdict();
    if (verdict != nullptr && verdict->measurement) return verdict->measurement->mean;
    std::vector<double> siblings;
    for (std::size_t i = 0; i < m_document.batch().blades.size(); ++i) {
        const Verdict* other = m_document.verdict(static_cast<int>(i), m_document.gate());
        if (other != nullptr && other->measurement) siblings.push_back(other->measurement->mean);
    }
    if (!siblings.empty()) return medianOf(siblings);
    const Window window = windowOf(m_document.batch(), *m_document.blade(), m_document.gate(), m_document.tables());
    if (window.low && window.high) return (*window.low + *window.high) / 2;
    return window.low ? window.low : window.high;
}

StandingRun ReadingStation::verification() const {
    const Tester* tester = m_document.tester();
    if (tester == nullptr || !m_document.hasBatch()) return {};
    Reading probe;
    probe.tester = tester->id;
    probe.indenter = tester->indenter;
    probe.anvil = tester->anvil;
    probe.scale = m_scale;
    probe.value = inScale(std::clamp(expected().value_or(60.0), 20.0, 68.0)).value_or(60.0);
    probe.time = m_document.now();
    return m_document.judged().verification(probe);
}

void ReadingStation::beginVerification(const Block& block) {
    forget();
    m_mode = Mode::block;
    m_block = block;
    m_run.clear();
    emit changed();
}

void ReadingStation::leaveVerification() {
    forget();
    m_mode = Mode::blade;
    m_run.clear();
    emit changed();
}

const Verification* ReadingStation::run() const {
    if (m_run.empty() || !m_document.hasBatch()) return nullptr;
    for (const Verification& run : m_document.batch().verifications) {
        if (run.id == m_run) return &run;
    }
    return nullptr;
}

int ReadingStation::failedRunsToday() const {
    const Tester* tester = m_document.tester();
    if (tester == nullptr || !m_document.hasBatch()) return 0;
    const std::int64_t today = m_document.now().localDay();
    int failed = 0;
    const auto& runs = m_document.batch().verifications;
    for (auto run = runs.rbegin(); run != runs.rend(); ++run) {
        if (run->tester != tester->id || !run->time || run->time->localDay() != today) continue;
        const auto answer = verifyTester(m_document.tables(), run->scale, run->certified, run->readings);
        if (!answer || answer->ok) break;
        ++failed;
    }
    return failed;
}

StationAct ReadingStation::act() const {
    if (m_mode == Mode::block) {
        const Verification* run = this->run();
        if (run == nullptr || run->readings.size() < 2) return StationAct::typeReading;
        const auto answer = verifyTester(m_document.tables(), run->scale, run->certified, run->readings);
        if (answer && answer->ok) return StationAct::finishVerification;
        return failedRunsToday() >= 2 ? StationAct::finishVerification : StationAct::repeatVerification;
    }
    const Verdict* verdict = m_document.verdict();
    if (verdict == nullptr) return StationAct::overview;
    if (m_oneMore || m_zone != Zone::edge) return StationAct::typeReading;
    if (!m_typed.isEmpty()) return StationAct::typeReading;
    const bool reads = verdict->next.act == Act::takeReadings || verdict->next.act == Act::readAgain ||
                       verdict->next.act == Act::mapReadings;
    if (reads && verification().standing != RunStanding::good) return StationAct::verify;
    switch (verdict->next.act) {
    case Act::takeReadings:
    case Act::readAgain:
    case Act::mapReadings:
        return StationAct::typeReading;
    case Act::verifyTester:
    case Act::verifyOnHarderBlock: { // what was read stays as it is: read again, once the tester in hand is verified
        const StandingRun run = verification();
        const double most = verdict->next.act == Act::verifyTester  ? std::numeric_limits<double>::infinity()
                            : verdict->has(Fact::aboveGradeMaximum) ? nearBlock
                                                                    : farBlock;
        const bool near = run.awayFrom(expected().value_or(0)) <= most;
        return run.standing == RunStanding::good && near ? StationAct::oneMore : StationAct::verify;
    }
    case Act::logTemper:
        return StationAct::logTemper;
    case Act::temperAgain:
        return StationAct::temperAgain;
    case Act::falseSoftness:
        return StationAct::grindClean;
    case Act::clearConflict:
    case Act::readThicker:
        return StationAct::oneMore;
    case Act::reharden:
        return StationAct::reharden;
    case Act::coldTreat:
        return StationAct::coldTreat;
    case Act::backToSteel:
        return StationAct::toSteel;
    case Act::setWindow:
        return StationAct::setLimits;
    case Act::clearCrack:
        return StationAct::clearCrack;
    case Act::lookIntoSurprise:
    case Act::lookAtHeat:
        return StationAct::lookInto;
    case Act::chooseSet:
        return StationAct::chooseSet;
    case Act::tryFiles:
        return StationAct::tryFiles;
    case Act::makerDecides:
    case Act::otherUse:
    case Act::scrap:
    case Act::acceptOrReturn: // asked here, unless it was answered
        return m_document.judged().release(static_cast<std::size_t>(m_document.bladeIndex())).decided()
                   ? StationAct::callNext
                   : StationAct::decide;
    default:
        return StationAct::callNext;
    }
}

} // namespace rollcall
