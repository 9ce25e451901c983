// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/call/call_bench.h"

#include "app/call/blade_view.h"
#include "app/call/reading_row.h"
#include "app/call/rule_view.h"
#include "app/shared/local_time.h"
#include "core/base/number.h"
#include "core/judge/agenda.h"
#include "plot/glyphs.h"
#include "words/words.h"

#include <QDateTime>
#include <QLocale>
#include <QVBoxLayout>

namespace rollcall {

namespace {

constexpr int headHeight = 48;
constexpr int testerHeight = 56;

} // namespace

CallBench::CallBench(Document& document, ReadingStation& station, const DeviceLink& link, const Look& look,
                     QWidget* parent)
    : QWidget(parent), m_document(document), m_station(station), m_link(link), m_look(look),
      m_blade(new BladeView(document, station, look)), m_row(new ReadingRow(document, station, look)),
      m_rule(new RuleView(document, station, look)) {
    setObjectName(QStringLiteral("call-bench"));
    setFocusPolicy(Qt::StrongFocus);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(look.px(24), look.px(headHeight + 4), look.px(24), look.px(testerHeight + 8));
    column->setSpacing(look.px(4));
    column->addWidget(m_blade, 1);
    column->addWidget(m_row);
    column->addWidget(m_rule);
}

void CallBench::refresh() {
    m_blade->refresh();
    m_row->refresh();
    m_rule->refresh();
    update();
}

void CallBench::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), m_look.palette.panel);
    if (!m_document.hasBatch()) return;
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
        context = tr("no temper logged");
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
    const QString right =
        onBlock || verdict == nullptr ? QString() : tr("%1 of %2 read").arg(verdict->taken).arg(verdict->planned);
    const int left = px(24) + m_look.width(mark, 36, true) + px(24);
    const int end = width() - px(24) - m_look.width(right, 18, true) - px(16);
    drawText(painter, left, px(36), elided(context, m_look.font(18), end - left), m_look.font(18), p.muted);
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
    drawText(painter, px(62), top + px(24), name, m_look.font(18, true), p.ink);
    const bool lost = m_link.line() != nullptr && m_link.line()->state() != InstrumentLine::State::open;
    drawText(painter, px(62) + m_look.width(name, 18, true) + px(14), top + px(24), m_link.stateText(), m_look.font(16),
             lost ? p.borderline : p.muted);
    QString state = tr("not verified today: V");
    QString numbers = tr("Borderline at best until then");
    if (found.run != nullptr) {
        const QString when = QLocale().toString(localTime(*found.run->time), QStringLiteral("HH:mm"));
        state = good ? tr("verified today %1").arg(when) : tr("not good for this hardness: V");
        numbers = tr("error %1, spread %2")
                      .arg(words::hardness(found.answer.error), words::hardness(found.answer.repeatability));
    }
    drawText(painter, px(62), top + px(46),
             found.run != nullptr ? tr("block %1").arg(QString::fromStdString(found.run->block))
                                  : tr("no block read today"),
             m_look.font(16), p.muted);
    drawText(painter, width() - px(24), top + px(24), state, m_look.font(16), p.ink, Qt::AlignRight);
    drawText(painter, width() - px(24), top + px(46), numbers, m_look.font(16), p.muted, Qt::AlignRight);
}

void CallBench::startDwell() {
    m_row->startDwell();
}

RuleData CallBench::rule() const {
    return m_rule->bladeData();
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
        content.numbers.push_back({windowOf(m_document.batch(), m_document.gate(), m_document.tables()).high
                                       ? tr("In window")
                                       : tr("Above minimum"),
                                   words::percent(m.probability_inside),
                                   {},
                                   false});
    }
    content.lines = reasonLines(*verdict);
    for (const Caution caution : verdict->cautions)
        content.below.push_back({Tone::note, words::cautionText(caution), {}, true});
    content.left = tr("One more");
    content.left_key = QStringLiteral("*");
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
        const std::optional<Spot> spot = m_station.nextSpot();
        content.act = verdict.next.act == Act::takeReadings || next.act.isEmpty() || verdict.next.act == Act::done
                          ? tr("Take reading %1").arg(verdict.taken + 1)
                          : next.act;
        content.detail = spot ? tr("at %1 mm from the heel").arg(qRound(spot->x_mm)) : m_station.noSpotReason();
        break;
    }
    case StationAct::verify:
        content.act = tr("Verify the tester");
        content.detail = tr("or type: Borderline at best");
        break;
    case StationAct::callNext: {
        for (const Task& task : m_document.tasks()) {
            const bool readable = task.next.act == Act::takeReadings || task.next.act == Act::readAgain ||
                                  task.next.act == Act::verifyTester || task.next.act == Act::mapReadings;
            if (task.gate != m_document.gate() || !readable || static_cast<int>(task.blade) == m_document.bladeIndex())
                continue;
            content.act = tr("Call %1").arg(QString::fromStdString(m_document.batch().blades[task.blade].mark));
            content.detail = verdict.state == State::borderline ? next.act + QStringLiteral(": ") + next.detail
                                                                : tr("next at this gate");
            return;
        }
        content.act = tr("To the batch");
        content.detail = verdict.next.act == Act::makerDecides ? tr("you decide: %1").arg(next.detail)
                                                               : tr("all called at this gate");
        break;
    }
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
    content.detail = tr("at least 3 mm from the others");
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

} // namespace rollcall
