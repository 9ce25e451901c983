// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/day_page.h"

#include "app/shared/choice_dialog.h"
#include "app/shared/form_dialog.h"
#include "app/shared/local_time.h"
#include "app/shared/pointing.h"
#include "core/base/number.h"
#include "logbook/actions/heat.h"
#include "words/units.h"
#include "words/words.h"

#include <algorithm>
#include <QDateTime>
#include <QKeyEvent>

namespace rollcall {

namespace {

// "14:20" of today, or of tomorrow when that has gone by more than an hour; none when it is no time of day.
std::optional<std::int64_t> momentOf(const QString& text, std::int64_t now_ms) {
    const QTime time = QTime::fromString(text.trimmed(), text.count(QLatin1Char(':')) == 1 ? QStringLiteral("H:mm")
                                                                                           : QStringLiteral("H:mm:ss"));
    if (!time.isValid()) return std::nullopt;
    QDateTime at(QDateTime::fromMSecsSinceEpoch(now_ms).date(), time);
    if (at.toMSecsSinceEpoch() < now_ms - 3600000) at = at.addDays(1);
    return at.toMSecsSinceEpoch();
}

} // namespace

DayPage::DayPage(Document& document, DayClock& clock, const Look& look) : Bench(document, look), m_clock(clock) {
    setObjectName(QStringLiteral("day-page"));
    tellUnder(this, [this](const QPoint& at) { return saysAt(at); });
    connect(&clock, &DayClock::changed, this, [this] {
        if (isVisible()) emit changed();
    });
}

const PlannedRun* DayPage::chosen() const {
    if (m_chosen >= 0 && m_chosen < static_cast<int>(runs().size())) return &runs()[static_cast<std::size_t>(m_chosen)];
    const std::vector<DayEvent> events = m_clock.events();
    return events.empty() ? nullptr : &runs()[events.front().run];
}

void DayPage::refresh() {
    if (m_chosen >= static_cast<int>(runs().size())) m_chosen = -1;
    setAccessibleName(content().sub);
    update();
}

DayChart DayPage::chart() const {
    DayChart chart;
    chart.runs = runs();
    for (const Oven& oven : m_document.state().shop().ovens) {
        chart.ovens.push_back(QString::fromStdString(oven.name));
        chart.oven_ids.push_back(oven.id);
    }
    chart.now_ms = m_document.now().utc_ms;
    constexpr std::int64_t hour = 3600000;
    const auto floorHour = [&](std::int64_t ms) { return ms - ((ms % hour) + hour) % hour; };
    chart.from_ms = floorHour(chart.now_ms - hour);
    chart.to_ms = chart.from_ms + 8 * hour;
    for (const PlannedRun& run : chart.runs) {
        if (!run.open()) continue;
        chart.from_ms = std::min(chart.from_ms, floorHour(run.start_ms));
        chart.to_ms = std::max(chart.to_ms, floorHour(run.freeAt()) + hour);
    }
    chart.clock = [](std::int64_t ms) { return DayClock::clockText(ms); };
    if (const PlannedRun* run = chosen()) chart.current = static_cast<int>(run - runs().data());
    return chart;
}

QRect DayPage::chartArea() const {
    const int rows = static_cast<int>(m_document.state().shop().ovens.size());
    return {0, px(8), width(), std::min(height() * 6 / 10, px(40) + rows * px(84))};
}

QString DayPage::saysAt(const QPoint& at) const {
    const int place = dayChartRun(chartArea(), chart(), at, m_look);
    if (place < 0) return {};
    const PlannedRun& run = runs()[static_cast<std::size_t>(place)];
    return tr("%1, %2: %3 for %4, in at %5, out at %6")
        .arg(QString::fromStdString(run.batch_name), QString::fromStdString(run.what),
             words::degrees(run.temperature_c), words::hours(run.hours), DayClock::clockText(run.start_ms),
             DayClock::clockText(run.outAt()));
}

void DayPage::mousePressEvent(QMouseEvent* event) {
    const int place = dayChartRun(chartArea(), chart(), event->pos(), m_look);
    if (place < 0 || !runs()[static_cast<std::size_t>(place)].open()) return;
    m_chosen = place;
    emit changed();
}

void DayPage::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = palette();
    painter.fillRect(rect(), p.panel);
    if (m_document.state().shop().ovens.empty()) {
        drawText(painter, 0, px(60), tr("No oven yet"), m_look.font(28, true), p.ink);
        drawText(painter, 0, px(104), tr("K   the shop's ovens: name, and the steps they are set in"), m_look.font(18),
                 p.ink);
        return;
    }
    const DayChart chart = this->chart();
    const QRect area = chartArea();
    drawDayChart(painter, area, chart, m_look);
    int y = area.bottom() + 1 + px(34);
    drawText(painter, 0, y, tr("Still to come"), m_look.font(18, true), p.ink);
    const std::vector<DayEvent> events = m_clock.events();
    if (events.empty())
        drawText(painter, 0, y + px(30), tr("Nothing is planned. N plans an oven run."), m_look.font(18), p.ink);
    for (const DayEvent& event : events) {
        y += px(30);
        if (y > this->height() - px(6)) break;
        drawText(painter, 0, y, event.due ? tr("now") : DayClock::clockText(event.at_ms), m_look.font(18, true),
                 event.due ? p.borderline : p.ink);
        drawFitted(painter, px(84), y, m_clock.textOf(event), width() - px(88), m_look, 18, false, p.ink);
    }
    y += px(events.empty() ? 30 : 0);
    y = paintList(painter, y + px(48), tr("Waits for an oven"), waiting());
    paintList(painter, y, tr("Over"), over());
}

int DayPage::paintList(QPainter& painter, int y, const QString& heading, const QStringList& lines) const {
    constexpr int step = 30;
    if (lines.isEmpty() || y + px(step) > height()) return y;
    drawText(painter, 0, y, heading, m_look.font(18, true), palette().ink);
    for (qsizetype i = 0; i < lines.size(); ++i) {
        y += px(step);
        const bool last = i + 1 < lines.size() && y + px(step + 6) > height();
        drawFitted(painter, 0, y, last ? tr("and %1 more").arg(lines.size() - i) : lines[i], width(), m_look, 18, false,
                   last ? palette().muted : palette().ink);
        if (last) break;
    }
    return y + px(48);
}

QStringList DayPage::over() const {
    QStringList lines;
    for (const PlannedRun& run : runs()) {
        if (!run.out) continue;
        lines << tr("%1, %2: %3 for %4, planned from %5")
                     .arg(QString::fromStdString(run.batch_name), QString::fromStdString(run.what),
                          words::degrees(run.temperature_c), words::hours(run.hours),
                          DayClock::clockText(run.start_ms));
    }
    return lines;
}

QStringList DayPage::waiting() const {
    QStringList lines;
    const auto add = [&](const NextStep& next, const std::string& mark, const std::string& batch) {
        const auto* temper = next.as<TemperStep>();
        if (temper == nullptr || !temper->advised) return;
        const bool planned = std::any_of(runs().begin(), runs().end(),
                                         [&](const PlannedRun& run) { return run.open() && run.batch_name == batch; });
        if (planned) return; // it stands above
        QStringList marks;
        for (const std::string& one : temper->load) marks << QString::fromStdString(one);
        if (marks.isEmpty()) marks << QString::fromStdString(mark);
        const QString line =
            tr("%1 for %2: %3 of %4")
                .arg(words::degrees(temper->advised->temperature_c), words::hours(temper->advised->hours),
                     marks.join(QStringLiteral(", ")), QString::fromStdString(batch));
        if (!lines.contains(line)) lines << line;
    };
    if (m_document.hasBatch()) {
        const Batch& batch = m_document.batch();
        for (const Task& task : m_document.tasks()) add(task.next, batch.blades[task.blade].mark, batch.name);
    }
    for (const Elsewhere& other : m_document.state().elsewhere()) add(other.task.next, other.mark, other.batch);
    return lines;
}

ColumnContent DayPage::content() const {
    ColumnContent content;
    content.key = tr("Enter");
    content.caption = tr("The ovens today");
    content.left = tr("Plan a run");
    content.left_key = QStringLiteral("N");
    content.right = tr("Ovens");
    content.right_key = QStringLiteral("K");
    const std::vector<DayEvent> events = m_clock.events();
    const PlannedRun* run = chosen();
    if (run == nullptr) {
        content.word = tr("Free");
        content.sub = tr("Nothing is planned.");
        content.act = tr("Plan a run");
        content.detail = tr("oven, temperature, hours, start");
    } else {
        const bool due = !events.empty() && events.front().due;
        content.state = due ? State::borderline : State::notYet;
        content.word = due ? tr("Now") : tr("Planned");
        content.sub = events.empty() ? QString() : m_clock.textOf(events.front());
        content.act = run->started ? tr("It is out") : tr("It is in the oven");
        content.detail = tr("%1: %2").arg(QString::fromStdString(run->batch_name), QString::fromStdString(run->what));
        content.act_enabled = run->open();
        content.numbers.push_back(
            {tr("Set"), words::degreesNumber(run->temperature_c), words::unit(Quantity::temperature), false});
        content.numbers.push_back({run->started ? tr("Out at") : tr("In at"),
                                   DayClock::clockText(run->started ? run->outAt() : run->start_ms),
                                   {},
                                   false});
        content.lines.push_back({Tone::note,
                                 tr("%1 for %2, %3 min to warm, %4 min to cool")
                                     .arg(QString::fromStdString(run->oven_name), words::hours(run->hours))
                                     .arg(run->warm_minutes)
                                     .arg(run->cool_minutes),
                                 {},
                                 false});
    }
    for (const Oven& oven : m_document.state().shop().ovens) {
        content.lines.push_back({oven.checked ? Tone::good : Tone::caution,
                                 oven.checked ? tr("%1 checked %2")
                                                    .arg(QString::fromStdString(oven.name),
                                                         localTime(*oven.checked).date().toString(Qt::ISODate))
                                              : tr("%1 was never checked: %2 off is half a point")
                                                    .arg(QString::fromStdString(oven.name), words::degreesApart(10)),
                                 {},
                                 false});
    }
    content.below.push_back({Tone::note, words::cautionText(Caution::hotWork), {}, true});
    return content;
}

void DayPage::mark(const PlannedRun& run, const char* kind) {
    const bool out = std::string_view(kind) == "out";
    const bool ours =
        m_document.hasBatch() && run.batch == m_document.batch().id && run.what.find("temper") != std::string::npos;
    m_document.perform([id = run.id, kind](Logbook& logbook) { return markPlanned(logbook, id, kind); },
                       [this, out, ours, c = run.temperature_c, h = run.hours](const Result<Done>& done) {
                           if (done && out && ours) emit temperWanted(c, h);
                       });
}

void DayPage::act() {
    const PlannedRun* run = chosen();
    if (run == nullptr) return plan(200, 2);
    if (!run->open()) return;
    mark(*run, run->started ? "out" : "started");
}

void DayPage::leftAct() {
    plan(200, 2);
}

void DayPage::rightAct() {
    ovens();
}

void DayPage::plan(double temperature_c, double hours) {
    if (!m_document.hasBatch()) return emit said(tr("Make a batch first: an oven run belongs to one."), true);
    const std::vector<Oven>& shop = m_document.state().shop().ovens;
    if (shop.empty()) return ovens();
    const Batch& batch = m_document.batch();
    const std::int64_t now = m_document.now().utc_ms;
    const Blade* blade = m_document.blade();
    PlannedRun run;
    run.batch = batch.id;
    run.oven = shop.front().id;
    run.temperature_c = temperature_c;
    run.hours = hours;
    run.cool_minutes = 30;
    QStringList names;
    for (const Oven& oven : shop) names << QString::fromStdString(oven.name);
    // Rounded up to the next five minutes.
    constexpr std::int64_t five = 300000;
    const std::int64_t start = (earliestStart(runs(), run, now) + five - 1) / five * five;
    auto* form = new FormDialog(
        tr("Plan an oven run of %1").arg(QString::fromStdString(batch.name)), tr("Plan it"),
        {{"what",
          tr("What"),
          tr("as it shows in the day"),
          tr("temper %1").arg(blade != nullptr ? lastTemper(*blade) + 1 : 1),
          {},
          false},
         {"oven", tr("Oven"), {}, names.first(), namedChoices(names), false},
         {"temperature",
          tr("Temperature"),
          words::degreesHint(207),
          words::field(temperature_c, Quantity::temperature),
          {},
          false},
         {"hours", tr("Time"), tr("hours, or 90min"), QString::number(hours), {}, false},
         {"warm", tr("To warm up"), tr("minutes before the time counts"), QStringLiteral("0"), {}, false},
         {"cool", tr("To cool"), tr("minutes until the oven is free"), QStringLiteral("30"), {}, false},
         {"start",
          tr("In at"),
          tr("time of day; the first free one is shown"),
          DayClock::clockText(start),
          {},
          false,
          Picks::time,
          localTime(m_document.now())}},
        m_look, window());
    const auto read = [this, run, now](const FormValues& v, FormFault* fault) -> std::optional<PlannedRun> {
        PlannedRun typed = run;
        const auto c = words::typed(v["temperature"], Quantity::temperature);
        const auto h = parseQuantity(v["hours"].toStdString(), Quantity::duration);
        const auto warm = parseNumber(v["warm"].toStdString());
        const auto cool = parseNumber(v["cool"].toStdString());
        const auto at = momentOf(v["start"], now);
        if (v["what"].isEmpty())
            return *fault = {QStringLiteral("what"), tr("Say what it is, such as temper 2.")}, std::nullopt;
        if (!c || *c < 20 || *c > 1400)
            return *fault = {QStringLiteral("temperature"), tr("Type the temperature, such as 205 or 401F.")},
                   std::nullopt;
        if (!h || *h <= 0 || *h > 48)
            return *fault = {QStringLiteral("hours"), tr("Type the time in hours, up to 48, or like 90min.")},
                   std::nullopt;
        if (!warm || *warm < 0 || *warm > 600)
            return *fault = {QStringLiteral("warm"), tr("Type minutes.")}, std::nullopt;
        if (!cool || *cool < 0 || *cool > 1440)
            return *fault = {QStringLiteral("cool"), tr("Type minutes.")}, std::nullopt;
        if (!at) return *fault = {QStringLiteral("start"), tr("Type a time of day, such as 14:20.")}, std::nullopt;
        for (const Oven& oven : m_document.state().shop().ovens) {
            if (QString::fromStdString(oven.name) == v["oven"]) typed.oven = oven.id;
        }
        typed.what = v["what"].toStdString();
        typed.temperature_c = *c;
        typed.hours = *h;
        typed.warm_minutes = *warm;
        typed.cool_minutes = *cool;
        typed.start_ms = *at;
        if (const auto other = clash(runs(), typed)) {
            const PlannedRun& taken = runs()[*other];
            return *fault = {QStringLiteral("start"),
                             tr("%1 has the oven until %2. First free: %3.")
                                 .arg(QString::fromStdString(taken.batch_name), DayClock::clockText(taken.freeAt()),
                                      DayClock::clockText(earliestStart(runs(), typed, typed.start_ms)))},
                   std::nullopt;
        }
        return typed;
    };
    form->ask(
        [read](const FormValues& v) {
            FormFault fault;
            (void)read(v, &fault);
            return fault;
        },
        [this, read](const FormValues& v) {
            FormFault fault;
            const auto planned = read(v, &fault);
            if (!planned) return;
            m_document.perform(
                [planned = *planned, text = (v["temperature"] + QLatin1Char(' ') + v["hours"]).toStdString()](
                    Logbook& logbook) -> Result<Done> {
                    const auto id = planRun(logbook, planned, text);
                    if (!id) return id.error();
                    return Done{};
                });
        });
}

// The shop's ovens: one to change, or a new one.
void DayPage::ovens() {
    const std::vector<Oven>& shop = m_document.state().shop().ovens;
    std::vector<Choice> choices;
    for (std::size_t i = 0; i < shop.size(); ++i)
        choices.push_back({QString::number(i + 1), QString::fromStdString(shop[i].name),
                           tr("steps of %1").arg(words::degreesApart(shop[i].step_c))});
    choices.push_back({QStringLiteral("N"), tr("New oven"), {}});
    const auto edit = [this](const Oven& oven) {
        auto* form = new FormDialog(
            oven.id.empty() ? tr("New oven") : tr("Change %1").arg(QString::fromStdString(oven.name)), tr("Keep it"),
            {{"name", tr("Name"), tr("as it is called in the shop"), QString::fromStdString(oven.name), {}, false},
             {"step",
              tr("Steps"),
              tr("%1 it is set in").arg(words::unit(Quantity::temperature)),
              words::fieldApart(oven.step_c),
              {},
              false},
             {"checked",
              tr("Checked"),
              tr("against a known thermocouple"),
              QStringLiteral("no change"),
              {{"no change", tr("no change")}, {"today", tr("today")}},
              false}},
            m_look, window());
        form->ask(
            [](const FormValues& v) -> FormFault {
                if (v["name"].isEmpty()) return {QStringLiteral("name"), tr("Give the oven a name.")};
                const auto step = words::typedApart(v["step"]);
                return step && *step > 0 && *step <= 50
                           ? FormFault{}
                           : FormFault{QStringLiteral("step"),
                                       tr("Type the step, up to %1.").arg(words::degreesApart(50))};
            },
            [this, oven](const FormValues& v) {
                Oven kept = oven;
                kept.name = v["name"].toStdString();
                kept.step_c = words::typedApart(v["step"]).value();
                const bool today = v["checked"] == QLatin1String("today");
                m_document.perform([kept, today](Logbook& logbook) mutable -> Result<Done> {
                    if (today) kept.checked = logbook.now();
                    if (!kept.id.empty()) return changeOven(logbook, kept);
                    const auto id = addOven(logbook, kept);
                    if (!id) return id.error();
                    return Done{};
                });
            });
    };
    if (shop.empty()) return edit({});
    (new ChoiceDialog(tr("The shop's ovens"), {}, choices, m_look, window()))->ask([shop, edit](int i) {
        edit(i < static_cast<int>(shop.size()) ? shop[static_cast<std::size_t>(i)] : Oven());
    });
}

Commands DayPage::commands() {
    return {{QStringLiteral("day.new"), tr("Plan a run"), tr("an oven, a temperature, a start"), Verb::makeNew,
             [this] { plan(200, 2); }},
            {QStringLiteral("day.ovens"), tr("Ovens"), tr("of the shop"), Verb::kit, [this] { ovens(); }},
            {QStringLiteral("day.cancel"), tr("Cancel the run"), tr("it stays in the record"), Verb::out,
             [this] { mark(*chosen(), "cancelled"); },
             [this] { return chosen() != nullptr && chosen()->open() ? QString() : tr("No open run is chosen."); }},
            {QStringLiteral("day.hush"), tr("Hush"), tr("the alarm of what is due"), Verb::sound,
             [this] { m_clock.hush(); }, [this] { return m_clock.ringing() ? QString() : tr("Nothing rings."); }}};
}

QStringList DayPage::movements() const {
    return {tr("Up and down   the run")};
}

bool DayPage::key(QKeyEvent* event) {
    if (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down) {
        const int count = static_cast<int>(runs().size());
        if (count > 0) {
            const int now = chosen() != nullptr ? static_cast<int>(chosen() - runs().data()) : 0;
            m_chosen = (now + (event->key() == Qt::Key_Down ? 1 : count - 1)) % count;
            emit changed();
        }
        return true;
    }
    return false;
}

HelpText DayPage::help() const {
    return {tr("What is in which oven, and what is due next?"),
            {{Pictogram::oven, tr("Plan a run: oven, temperature, hours, start.")},
             {Pictogram::clock, tr("Its bar shows the time to warm, the hold and the time to cool.")},
             {Pictogram::arrows, tr("Up and down choose a run; the button says that it is in, or out.")},
             {Pictogram::trace, tr("What is due rings, until it is hushed.")}},
            {},
            tr("A clock only: it does not measure an oven. An oven that was never checked may be off by half a point "
               "of hardness.")};
}

std::vector<ReportTable> DayPage::tables() const {
    ReportTable table{tr("Oven runs"),
                      {tr("Oven"), tr("Batch"), tr("What"),
                       tr("Temperature, %1").arg(words::unit(Quantity::temperature)), tr("Time, h"), tr("Start"),
                       tr("Out at"), tr("State")},
                      {}};
    for (const PlannedRun& run : runs()) {
        const auto moment = [](std::int64_t ms) { return QDateTime::fromMSecsSinceEpoch(ms).toString(Qt::ISODate); };
        table.rows.push_back({QString::fromStdString(run.oven_name), QString::fromStdString(run.batch_name),
                              QString::fromStdString(run.what), words::degreesNumber(run.temperature_c), run.hours,
                              moment(run.start_ms), moment(run.outAt()),
                              run.cancelled ? tr("cancelled")
                              : run.out     ? tr("out")
                              : run.started ? tr("in")
                                            : tr("planned")});
    }
    ReportTable wait{tr("Waits for an oven"), {tr("Temper")}, {}};
    for (const QString& line : waiting()) wait.rows.push_back({line});
    return {table, wait};
}

} // namespace rollcall
