// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/soak_page.h"

#include "app/shared/form_dialog.h"
#include "app/shared/pointing.h"
#include "core/base/number.h"
#include "logbook/actions/heat.h"
#include "words/words.h"

#include <algorithm>
#include <cmath>
#include <QDateTime>
#include <QKeyEvent>
#include <QMouseEvent>
#include <tuple>

namespace rollcall {

namespace {

QString clockText(const HeatRun& run, double s) {
    const qint64 ms =
        run.zero.utc_ms + static_cast<qint64>(s * 1000) + static_cast<qint64>(run.zero.offset_minutes) * 60000;
    return QDateTime::fromMSecsSinceEpoch(ms, Qt::UTC)
        .toString(QStringLiteral("HH:mm:ss"))
        .left(std::fmod(std::abs(s), 60.0) < 0.5 ? 5 : 8);
}

} // namespace

SoakPage::SoakPage(Document& document, OvenLink& oven, Seams seams, const Look& look)
    : Bench(document, look), m_oven(oven), m_seams(std::move(seams)),
      m_stretch(new Stretch(this, [this] { return chartArea(); })) {
    setObjectName(QStringLiteral("soak-page"));
    connect(m_stretch, &Stretch::changed, this, qOverload<>(&QWidget::update));
    tellUnder(this, [this](const QPoint& at) { return saysAt(at); });
    m_tick.setInterval(1000);
    connect(&m_tick, &QTimer::timeout, this, [this] {
        if (isVisible() && live() && run() != nullptr) emit changed();
    });
    m_tick.start();
    connect(&m_oven, &OvenLink::changed, this, [this] {
        if (isVisible()) emit changed();
    });
}

const HeatRun* SoakPage::run() const {
    return m_document.hasBatch() && !m_document.batch().heat_runs.empty() ? &m_document.batch().heat_runs.back()
                                                                          : nullptr;
}

bool SoakPage::live() const {
    const HeatRun* r = run();
    if (r == nullptr) return false;
    if (m_oven.recording() == r->id) return true;
    constexpr double stale_s = 12 * 3600.0;
    return r->trace == nullptr && static_cast<double>(m_document.now().utc_ms - r->zero.utc_ms) / 1000.0 < stale_s;
}

double SoakPage::moment() const {
    const HeatRun* r = run();
    if (r == nullptr) return 0;
    return live() ? static_cast<double>(m_document.now().utc_ms - r->zero.utc_ms) / 1000.0 : m_cursor;
}

std::optional<HeatMoment> SoakPage::nextOf(int index) const {
    const HeatRun* r = run();
    if (r == nullptr || index < 0) return std::nullopt;
    const Blade& blade = m_document.batch().blades[static_cast<std::size_t>(index)];
    if (isOutBefore(blade, Gate::heat)) return std::nullopt;
    for (const BladeHeat& heat : blade.heats) {
        if (heat.run != r->id || heat.round != blade.round) continue;
        const bool noted = heat.noted_minutes && !heat.in_s; // of a load that nobody clocked
        if (heat.quenched_s || noted) return std::nullopt;
        if (heat.out_s) return HeatMoment::quenched;
        if (heat.in_s) return HeatMoment::out;
    }
    return HeatMoment::in;
}

std::optional<HeatMoment> SoakPage::next() const {
    return m_document.blade() != nullptr ? nextOf(m_document.bladeIndex()) : std::nullopt;
}

void SoakPage::refresh() {
    const HeatRun* r = run();
    if (r != nullptr && r->id != m_shownRun) {
        m_shownRun = r->id;
        m_cursor = r->trace ? r->trace->start() : 0;
        // Where the last mark stands, so that going on is going right.
        for (const Blade& blade : m_document.batch().blades) {
            for (const BladeHeat& heat : blade.heats) {
                if (heat.run != r->id) continue;
                for (const auto& at : {heat.in_s, heat.out_s}) m_cursor = std::max(m_cursor, at.value_or(m_cursor));
            }
        }
    }
    if (r != nullptr && m_oven.recording() == r->id) {
        std::vector<TraceSample> samples;
        if (r->trace) samples = r->trace->samples();
        for (const TraceSample& sample : m_oven.fresh()) {
            if (samples.empty() || sample.s > samples.back().s) samples.push_back(sample);
        }
        if (auto trace = Trace::of(std::move(samples))) m_liveTrace = std::move(trace).value();
    } else {
        m_liveTrace = {};
    }
    setAccessibleName(content().sub);
    update();
}

SoakChart SoakPage::chart() const {
    SoakChart chart;
    const HeatRun& r = *run();
    const Batch& batch = m_document.batch();
    chart.oven = !m_liveTrace.empty() ? &m_liveTrace : r.trace.get();
    chart.set_c = r.set_c;
    chart.threshold_c = r.set_c - r.near_c;
    chart.least = r.min_minutes;
    chart.most = r.max_minutes;
    chart.clock = [&r](double s) { return clockText(r, s); };
    std::optional<double> firstIn;
    std::optional<double> lastOut;
    double thickness = 0;
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const HeatAnswer& answer = m_document.judged().heat(i);
        SoakChart::Bar bar;
        bar.mark = QString::fromStdString(batch.blades[i].mark);
        bar.current = static_cast<int>(i) == m_document.bladeIndex();
        if (answer.run == &r || (answer.run != nullptr && answer.run->id == r.id)) {
            bar.in_s = answer.heat->in_s;
            bar.out_s = answer.heat->out_s;
            bar.minutes = answer.minutes();
            const auto within = m_document.judged().soakInLimits(i);
            bar.state = !bar.minutes ? State::notYet : within && !*within ? State::borderline : State::pass;
            if (bar.in_s && (!firstIn || *bar.in_s < *firstIn)) {
                firstIn = bar.in_s;
                thickness = batch.blades[i].shape.thickness_mm;
            }
            if (bar.out_s) lastOut = std::max(lastOut.value_or(*bar.out_s), *bar.out_s);
        }
        chart.bars.push_back(std::move(bar));
    }
    const double now = moment();
    double from = chart.oven != nullptr ? chart.oven->start() : 0;
    double to = chart.oven != nullptr ? chart.oven->end() : std::max(600.0, now + 60);
    // The heat itself, with what came just before and after it; the whole trace before anything is marked.
    if (firstIn && lastOut && *lastOut > *firstIn) {
        const double margin = std::max(120.0, (*lastOut - *firstIn) * 0.15);
        from = std::max(from, *firstIn - margin);
        to = std::min(std::max(to, *lastOut), *lastOut + margin);
        if (!live()) to = std::max(to, std::min(m_cursor + 30, chart.oven != nullptr ? chart.oven->end() : m_cursor));
    } else if (firstIn) {
        from = std::max(from, *firstIn - 300);
    }
    if (live()) {
        to = std::max(to, now + 30);
        if (firstIn) to = std::max(to, *firstIn + r.max_minutes.value_or(20) * 60);
    }
    std::tie(chart.from_s, chart.to_s) = m_stretch->of(from, to);
    chart.cursor_s = now;
    if (chart.oven != nullptr && firstIn && thickness >= 0.1 && *firstIn >= chart.oven->start()) {
        const double end = std::min(chart.oven->end(), std::max(lastOut.value_or(chart.oven->end()), *firstIn + 1));
        if (end > *firstIn + 1) {
            const Grade* grade = m_document.tables().grade(m_document.claim().grade);
            const double ac1 = grade != nullptr ? grade->ac1_c.value_or(727) : 727;
            std::vector<TraceSample> faults; // drawn, but no heat to the steel
            const Trace sound = chart.oven->withoutFaults(faults);
            if (auto steel = steelInOven(sound, thickness, r.surface, *firstIn, end, ac1))
                chart.steel = steel->shifted(*firstIn);
        }
    }
    return chart;
}

QRect SoakPage::chartArea() const {
    return rect().adjusted(0, px(34), 0, 0);
}

QString SoakPage::saysAt(const QPoint& at) const {
    return run() != nullptr ? soakChartSays(chartArea(), chart(), at, m_look) : QString();
}

void SoakPage::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = palette();
    painter.fillRect(rect(), p.panel);
    const HeatRun* r = run();
    if (r == nullptr) {
        drawText(painter, 0, px(60), tr("No heat yet"), m_look.font(28, true), p.ink);
        const QStringList lines{tr("Enter  start the heat: oven, set point, shortest and longest soak"),
                                tr("I  or drop: the oven's trace, a CSV of time and temperature"),
                                tr("The load as one note: when nobody clocks each blade"),
                                tr("Then one key for each blade as it goes in, leaves, and is in the quench.")};
        drawParagraphs(painter, 0, px(104), width(), lines, px(12), m_look, 18, p.ink);
        return;
    }
    QString head = tr("%1, set %2").arg(QString::fromStdString(r->oven), words::degrees(r->set_c));
    if (!r->medium.empty()) head += QStringLiteral(", ") + QString::fromStdString(r->medium);
    drawFitted(painter, 0, px(18), head, width() * 6 / 10, m_look, 18, true, p.ink);
    QString right = r->trace ? QString::fromStdString(r->trace_name) : tr("no trace: I");
    if (m_oven.connected())
        right = m_oven.now() ? tr("oven now %1").arg(words::degrees(*m_oven.now())) : m_oven.stateText();
    drawFitted(painter, width(), px(18), right, width() * 4 / 10, m_look, 16, false, p.muted, Qt::AlignRight);
    drawSoakChart(painter, chartArea(), chart(), m_look);
}

ColumnContent SoakPage::content() const {
    ColumnContent content;
    content.key = tr("Enter");
    const HeatRun* r = run();
    const Blade* blade = m_document.blade();
    if (!m_document.hasBatch() || blade == nullptr) return content;
    content.left = tr("Note");
    content.right = tr("Import trace");
    content.right_key = QStringLiteral("I");
    if (r == nullptr) {
        content.caption = tr("%1 at Heat").arg(QString::fromStdString(m_document.batch().name));
        content.word = words::stateName(State::notYet);
        content.sub = tr("No heat is logged.");
        content.act = tr("Start the heat");
        content.detail = tr("oven, set point, soak");
        content.left.clear();
        content.lines = reasonLines(m_document.verdictAt(Gate::heat)); // what steels share is known before
        content.below.push_back({Tone::note, words::cautionText(Caution::hotWork), {}, true});
        content.below.push_back({Tone::note, words::cautionText(Caution::quenchOil), {}, true});
        return content;
    }
    const auto index = static_cast<std::size_t>(m_document.bladeIndex());
    const Verdict& verdict = m_document.verdictAt(Gate::heat);
    const HeatAnswer& answer = m_document.judged().heat(index);
    content.caption = tr("%1 at Heat").arg(QString::fromStdString(blade->mark));
    content.state = verdict.state;
    content.word = words::stateName(verdict.state);
    content.sub = words::headline(verdict);
    if (const auto minutes = answer.minutes()) {
        content.numbers.push_back(
            {answer.soak ? tr("Soak") : tr("In the oven"), QString::number(*minutes, 'f', 1), tr("min"), true});
        if (answer.soak)
            content.numbers.push_back({tr("Worth at %1").arg(words::degrees(r->set_c)),
                                       QString::number(answer.soak->equivalent_minutes, 'f', 1), tr("min"), false});
    } else if (answer.heat != nullptr && answer.heat->in_s) {
        const double since = (moment() - *answer.heat->in_s) / 60;
        content.numbers.push_back({tr("In the oven"), QString::number(std::max(0.0, since), 'f', 1), tr("min"), false});
        if (r->min_minutes || r->max_minutes)
            content.numbers.push_back(
                {tr("Plan, min"),
                 QStringLiteral("%1–%2").arg(fieldNumber(r->min_minutes.value_or(0)),
                                             r->max_minutes ? fieldNumber(*r->max_minutes) : QString()),
                 {},
                 false});
    }
    content.lines = reasonLines(verdict);
    const QString mark = QString::fromStdString(blade->mark);
    const QString at = live() ? tr("now") : tr("at %1 on the trace").arg(clockText(*r, m_cursor));
    if (const auto what = next()) {
        content.act = *what == HeatMoment::in    ? tr("%1 goes in").arg(mark)
                      : *what == HeatMoment::out ? tr("%1 leaves the oven").arg(mark)
                                                 : tr("%1 is in the quench").arg(mark);
        content.detail = at;
    } else {
        bool open = false;
        for (int i = 0; i < static_cast<int>(m_document.batch().blades.size()); ++i)
            open = open || nextOf(i).has_value();
        content.act = open ? tr("Next blade") : tr("On to Quench");
        content.detail = open ? tr("in the roll") : tr("read each blade as quenched");
    }
    for (const Caution caution : verdict.cautions)
        content.below.push_back({Tone::note, words::cautionText(caution), {}, true});
    return content;
}

void SoakPage::act() {
    if (!m_document.hasBatch()) return;
    if (run() == nullptr) return startHeat();
    if (const auto what = next()) return mark(*what, {m_document.bladeIndex()});
    advance();
}

// To the next blade that still has a moment to mark; when there is none, to the Quench gate.
void SoakPage::advance() {
    const int count = static_cast<int>(m_document.batch().blades.size());
    for (int i = 1; i <= count; ++i) {
        const int blade = (m_document.bladeIndex() + i) % count;
        if (nextOf(blade)) return m_document.selectBlade(blade);
    }
    emit said(tr("All blades are through this heat. F4: read them as quenched"), false);
}

void SoakPage::leftAct() {
    if (run() != nullptr) note();
}

void SoakPage::rightAct() {
    askTrace();
}

void SoakPage::mark(HeatMoment what, const std::vector<int>& blades) {
    const HeatRun& r = *run();
    const double at = moment();
    struct Marked {
        std::string blade;
        int round;
    };
    std::vector<Marked> marked;
    for (const int i : blades) {
        const Blade& blade = m_document.batch().blades[static_cast<std::size_t>(i)];
        for (const BladeHeat& heat : blade.heats) {
            if (heat.run != r.id || heat.round != blade.round) continue;
            const auto before = what == HeatMoment::quenched ? heat.out_s
                                : what == HeatMoment::out    ? heat.in_s
                                                             : std::nullopt;
            if (before && at < *before)
                return emit said(tr("That is before %1 was marked last: move the cursor on.")
                                     .arg(QString::fromStdString(blade.mark)),
                                 true);
        }
        marked.push_back({blade.id, blade.round});
    }
    const bool last = what == HeatMoment::quenched;
    const bool many = blades.size() > 1;
    m_document.perform(
        [marked, run = r.id, what, at](Logbook& logbook) {
            return logbook.inOneTransaction([&]() -> Result<Done> {
                for (const Marked& one : marked) {
                    if (auto done = markHeat(logbook, run, one.blade, one.round, what, at); !done) return done;
                }
                return Done{};
            });
        },
        [this, last, many, what](const Result<Done>& done) {
            if (!done) return;
            emit said(what == HeatMoment::in ? tr("in the oven")
                      : last                 ? tr("in the quench")
                                             : tr("left the oven: again when it is in the quench"),
                      false);
            if ((last || what == HeatMoment::in) && !many) advance();
        });
}

void SoakPage::moveCursor(double seconds) {
    const HeatRun* r = run();
    if (r == nullptr || !r->trace || live()) return;
    m_cursor = std::clamp(m_cursor + seconds, r->trace->start(), r->trace->end());
    emit changed();
}

Commands SoakPage::commands() {
    const auto batch = [this] { return m_document.hasBatch() ? QString() : tr("Make a batch first."); };
    const auto heat = [this] { return run() == nullptr ? tr("No heat is begun yet.") : QString(); };
    Commands all{
        {QStringLiteral("soak.start"), tr("Begin a heat"), tr("set point, soak, quenchant"), Verb::harden,
         [this] { startHeat(); }, batch},
        {QStringLiteral("soak.trace"), tr("Import trace"), tr("of the oven; or drop it here"), Verb::inAndOut,
         [this] { askTrace(); }, batch},
        {QStringLiteral("soak.all-in"), tr("All blades in"), tr("that are not in yet, at once"), Verb::add,
         [this] {
             std::vector<int> waiting;
             for (int i = 0; i < static_cast<int>(m_document.batch().blades.size()); ++i) {
                 if (nextOf(i) == HeatMoment::in) waiting.push_back(i);
             }
             if (waiting.empty()) return emit said(tr("All blades are in, or through."), true);
             mark(HeatMoment::in, waiting);
         },
         heat},
        {QStringLiteral("soak.load"), tr("The load as one note"), tr("for who clocks no blade"), Verb::none,
         [this] { noteLoad(); }, batch},
        {QStringLiteral("soak.stopwatch"), m_stopwatch ? tr("In the quench") : tr("Stopwatch"),
         tr("from oven to quench, of the blade in hand"), Verb::none, [this] { stopwatch(); }, heat, Qt::Key_Space},
        {QStringLiteral("soak.moment"), tr("Type the moment"), tr("of the cursor, between its steps"), Verb::none,
         [this] { typeMoment(); },
         [this] {
             return run() != nullptr && run()->trace && !live() ? QString() : tr("There is no trace to point at.");
         },
         Qt::Key_unknown, Qt::NoModifier, Group::here, false},
        {QStringLiteral("soak.note"), tr("Note"), tr("what was written down: degrees, minutes, quenchant"), Verb::none,
         [this] { note(); }, heat},
        {QStringLiteral("soak.why"), tr("Why"), tr("the soak with its rules"), Verb::why, [this] { why(); }, heat},
        {QStringLiteral("soak.compare"), tr("Compare"), tr("with other heats"), Verb::compare,
         [this] { compareRuns(); }, heat},
        {QStringLiteral("soak.wire"), tr("Oven on a wire"), tr("port and pattern"), Verb::none, [this] { wireOven(); },
         batch},
        {QStringLiteral("soak.strike"), tr("Heat out"), tr("logged by mistake"), Verb::out, [this] { strikeHeat(); },
         heat}};
    const Commands stretch = m_stretch->commands(QStringLiteral("soak"));
    all.insert(all.end(), stretch.begin(), stretch.end());
    return all;
}

QStringList SoakPage::movements() const {
    return {tr("Left and right   the cursor, 10 s; Shift: 1 s, Ctrl: a minute")};
}

bool SoakPage::key(QKeyEvent* event) {
    const bool shift = event->modifiers() & Qt::ShiftModifier;
    const bool control = event->modifiers() & Qt::ControlModifier;
    const double step = shift ? 1 : control ? 60 : 10;
    if (event->key() == Qt::Key_Left || event->key() == Qt::Key_Right) {
        moveCursor(event->key() == Qt::Key_Left ? -step : step);
        return true;
    }
    return false;
}

void SoakPage::mousePressEvent(QMouseEvent* event) {
    if (run() == nullptr || live() || !run()->trace || !chartArea().contains(event->pos())) return;
    m_cursor = std::clamp(std::round(soakChartMoment(chartArea(), chart(), event->pos().x(), m_look)),
                          run()->trace->start(), run()->trace->end());
    emit changed();
}

void SoakPage::mouseMoveEvent(QMouseEvent* event) {
    if (event->buttons() & Qt::LeftButton) mousePressEvent(event);
}

HelpText SoakPage::help() const {
    return {
        tr("Was this blade hot enough, long enough, and was it in the quench in time?"),
        {{Pictogram::oven, tr("Begin a heat: oven, set point, the shortest and the longest soak.")},
         {Pictogram::trace,
          tr("Import the trace of the oven, or drop its file here. Without one the clock is taken, or your note.")},
         {Pictogram::clock,
          tr("Say when each blade goes in and comes out: with the button, or with the cursor on the trace.")},
         {Pictogram::tank, tr("Say when it is in the quench. The stopwatch counts from oven to quench.")},
         {Pictogram::window, tr("The band shows how long the steel itself, not the oven, was above the threshold.")}},
        {QStringLiteral("M22"), QStringLiteral("M23")},
        tr("The steel in the oven is an estimate from its thickness. What the quenchant did inside the blade only a "
           "reading tells.")};
}

} // namespace rollcall
