// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/ladder_page.h"

#include "app/shared/choice_dialog.h"
#include "app/shared/pointing.h"
#include "core/base/number.h"
#include "words/units.h"
#include "words/words.h"

#include <algorithm>
#include <cmath>
#include <QKeyEvent>
#include <QMouseEvent>
#include <utility>

namespace rollcall {

LadderPage::LadderPage(Document& document, const Look& look)
    : Bench(document, look), m_stretch(new Stretch(this, [this] { return chartArea(); })) {
    setObjectName(QStringLiteral("ladder-page"));
    connect(m_stretch, &Stretch::changed, this, qOverload<>(&QWidget::update));
    tellUnder(this, [this](const QPoint& at) { return saysAt(at); });
}

double LadderPage::step() const {
    return m_document.batch().oven.apart_c;
}

void LadderPage::refresh() {
    m_advice.reset();
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return update();
    const Batch& batch = m_document.batch();
    m_grade = m_document.tables().grade(m_document.claim().grade);
    const std::string meant = blade->id + "/" + std::to_string(blade->round) + "/" + std::to_string(lastTemper(*blade));
    const bool fresh = meant != m_for;
    if (fresh) {
        m_for = meant;
        m_hours = temperAim(batch, *blade).hours;
        m_tempers = 1;
        m_cautious = false;
        m_branch.reset();
    }
    if (const TemperModel* model = curves().now();
        model != nullptr && m_document.claim().window->low && whyBlind().isEmpty()) {
        TemperAim aim = temperAim(batch, *blade);
        aim.hours = m_hours;
        aim.branch = m_branch;
        const auto advice = adviseTemper(*model, *m_grade, curves().candidate(*blade, lastTemper(*blade)), aim);
        if (advice) m_advice = *advice;
        // What the button says goes before: there the blade goes in with others.
        const Verdict* verdict = m_document.verdict(m_document.bladeIndex(), Gate::temper);
        const auto* step = verdict != nullptr ? verdict->next.as<TemperStep>() : nullptr;
        if (m_advice && !m_branch && step != nullptr && step->advised && step->advised->hours == m_hours)
            m_advice->best = step->advised;
    }
    if (fresh) {
        if (m_advice && m_advice->best) {
            m_temperature = m_advice->best->temperature_c;
        } else {
            m_temperature = 200;
            for (const Temper& temper : blade->tempers) {
                if (temper.round == blade->round && temper.temperature_c) m_temperature = *temper.temperature_c;
            }
        }
    }
    setAccessibleName(content().sub);
    update();
}

QString LadderPage::whyBlind() const {
    const Blade* blade = m_document.blade();
    if (m_grade == nullptr)
        return m_document.claim().grade.empty()
                   ? tr("no grade is named")
                   : tr("%1 is not in the library").arg(QString::fromStdString(m_document.claim().grade));
    if (curves().quenchedTooSoft(*blade)) return tr("it came soft from the quench, the curve is for hardened blades");
    if (!tempersUpTo(*blade, lastTemper(*blade)) && !curves().asRead(*blade))
        return tr("a temper has no temperature or time");
    return {};
}

std::optional<NextTemper> LadderPage::tried(double temperature_c, int tempers) const {
    const Blade* blade = m_document.blade();
    const TemperModel* model = m_document.hasBatch() ? curves().now() : nullptr;
    if (blade == nullptr || model == nullptr || !whyBlind().isEmpty()) return std::nullopt;
    TemperCandidate candidate = curves().candidate(*blade, lastTemper(*blade));
    for (int i = 1; i < tempers; ++i) candidate.tempers.push_back({temperature_c, m_hours});
    const auto answer = predictTemper(*model, candidate, {temperature_c, m_hours}, *m_document.claim().window);
    return answer ? std::optional(*answer) : std::nullopt;
}

std::optional<NextTemper> LadderPage::trial() const {
    return tried(m_temperature, m_tempers);
}

void LadderPage::setTrial(double temperature_c) {
    m_temperature = std::clamp(m_document.batch().oven.nearest(temperature_c), 80.0, 750.0);
    emit changed();
}

std::vector<LadderRung> LadderPage::rungs() const {
    std::vector<LadderRung> rungs;
    const Blade& blade = *m_document.blade();
    const Verdict* quench = m_document.verdict(m_document.bladeIndex(), Gate::quench);
    rungs.push_back({tr("As quenched"), QString(),
                     quench != nullptr && quench->measurement
                         ? tr("read %1").arg(words::hardness(quench->measurement->decided_mean))
                         : tr("not read"),
                     LadderRung::Kind::quench, false});
    for (const Temper& temper : blade.tempers) {
        if (temper.round != blade.round) continue;
        LadderRung rung;
        rung.title = tr("%1, %2").arg(temper.temperature_c ? words::degrees(*temper.temperature_c) : tr("not noted"),
                                      temper.hours ? words::hours(*temper.hours) : tr("?"));
        std::optional<TemperExpectation> expect;
        const auto tempers = tempersUpTo(blade, temper.number);
        if (tempers && whyBlind().isEmpty()) {
            const auto parameter = temperParameter(m_grade->hj_c, *tempers);
            const TemperModel* model = curves().before(temper.number);
            const TemperCandidate who = curves().candidate(blade, temper.number);
            if (parameter && model != nullptr) {
                if (const auto e = model->expect(*parameter, who.heat, who.blade)) expect = *e;
            }
        }
        const auto withSpread = [](const TemperExpectation& e) {
            return QStringLiteral("%1 ± %2").arg(words::hardness(e.hrc), words::uncertainty(e.high - e.hrc));
        };
        if (expect) rung.expected = tr("expected %1").arg(withSpread(*expect));
        std::vector<double> read;
        for (const Reading& reading : blade.readings) {
            if (reading.gate == Gate::temper && reading.round == blade.round && !reading.struck &&
                reading.after_temper == temper.number && reading.scale == "HRC")
                read.push_back(reading.value);
        }
        if (read.empty()) {
            rung.read = tr("not read");
        } else {
            double sum = 0;
            for (const double value : read) sum += value;
            const double mean = sum / static_cast<double>(read.size());
            rung.read = tr("read %1").arg(words::hardness(mean));
            if (expect) {
                const auto interval = expect->intervalOfReading(0.4);
                rung.surprise = mean < interval.first || mean > interval.second;
            }
        }
        rungs.push_back(std::move(rung));
    }
    LadderRung next;
    next.kind = LadderRung::Kind::next;
    next.title = (m_tempers > 1 ? tr("%1 × ").arg(m_tempers) : QString()) +
                 tr("%1, %2").arg(words::degrees(m_temperature), words::hours(m_hours));
    const auto answer = trial();
    next.expected = answer ? tr("expect %1 ± %2")
                                 .arg(words::hardness(answer->expect.hrc),
                                      words::uncertainty(answer->expect.high - answer->expect.hrc))
                           : tr("no prediction");
    rungs.push_back(std::move(next));
    rungs.push_back({tr("another, if needed"), QString(), QString(), LadderRung::Kind::later, false});
    return rungs;
}

TemperChart LadderPage::chart() const {
    TemperChart chart;
    const Blade& blade = *m_document.blade();
    const Batch& batch = m_document.batch();
    const TemperModel* model = curves().now();
    if (model == nullptr || !whyBlind().isEmpty()) return chart;
    const double hours = m_hours * m_tempers;
    const auto at = [&](double parameter) { return temperatureFor(model->constant(), parameter, hours); };
    const TemperCandidate who = curves().candidate(blade, lastTemper(blade));
    for (const TemperObservation& seen : batch.temper_history) chart.shop.push_back({at(seen.parameter), seen.hrc});
    for (const TemperObservation& seen : temperObservations(batch, m_document.tables()))
        (seen.blade == blade.id ? chart.blade : chart.batch).push_back({at(seen.parameter), seen.hrc});
    // From a little below the coolest that was read or is tried: further down there is nothing to choose.
    double coolest = m_temperature;
    for (const auto* points : {&chart.shop, &chart.batch, &chart.blade}) {
        for (const TemperChart::Point& point : *points) coolest = std::min(coolest, point.temperature_c);
    }
    constexpr double margin_c = 40;
    const double low = std::max(at(model->curve().lowest()), coolest - margin_c);
    const double high = at(model->curve().highest());
    constexpr double below = 5; // HRC under the window: further down nobody aims
    for (double c = std::ceil(low); c <= high; c += std::max(1.0, (high - low) / 160)) {
        const auto parameter = temperParameter(model->constant(), {{c, hours}});
        if (!parameter) continue;
        const auto e = model->expect(*parameter, who.heat, who.blade);
        if (!e) continue;
        if (!model->curve().hump() && m_document.claim().window->low &&
            e->library_hrc < *m_document.claim().window->low - below)
            break;
        chart.curve.push_back({c, e->hrc, e->low, e->high, e->library_hrc, true});
    }
    if (!m_stretch->whole() && chart.curve.size() > 2) {
        const auto [from, to] = m_stretch->of(chart.curve.front().temperature_c, chart.curve.back().temperature_c);
        const std::vector<TemperChart::At> all = std::exchange(chart.curve, {});
        for (std::size_t i = 0; i < all.size(); ++i) { // with the ends just beyond
            const bool before = i + 1 < all.size() && all[i + 1].temperature_c < from;
            const bool after = i > 0 && all[i - 1].temperature_c > to;
            if (!before && !after) chart.curve.push_back(all[i]);
        }
    }
    chart.window = *m_document.claim().window;
    if (const auto answer = trial())
        chart.trial =
            TemperChart::At{m_temperature, answer->expect.hrc, answer->expect.low, answer->expect.high, 0, false};
    if (m_grade->embrittle_c.known()) {
        chart.avoid_low = *m_grade->embrittle_c.low;
        chart.avoid_high = *m_grade->embrittle_c.high;
    }
    for (const OxideColour& colour : m_document.tables().oxideColours()) {
        if (!colour.stainless && !m_grade->isStainless())
            chart.oxide.emplace_back(*colour.one_hour_c, QColor::fromRgb(colour.srgb));
    }
    chart.hours = m_tempers > 1 ? tr("%1 × %2").arg(m_tempers).arg(words::hours(m_hours)) : words::hours(m_hours);
    return chart;
}

QRect LadderPage::chartArea() const {
    const int ladder = std::min(px(250), width() * 45 / 100);
    return rect().adjusted(ladder, px(34), 0, 0);
}

QString LadderPage::saysAt(const QPoint& at) const {
    if (m_document.blade() == nullptr || !m_document.hasBatch() || !whyBlind().isEmpty()) return {};
    return temperChartSays(chartArea(), chart(), at, m_look);
}

void LadderPage::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = palette();
    painter.fillRect(rect(), p.panel);
    const Blade* blade = m_document.blade();
    if (blade == nullptr || !m_document.hasBatch()) return;
    drawText(painter, 0, px(20), QString::fromStdString(blade->mark), m_look.font(20, true), p.ink);
    const int ladder = chartArea().left();
    drawLadder(painter, QRect(0, px(40), ladder - px(12), height() - px(44)), rungs(), m_look);
    const QString blind = whyBlind();
    if (!blind.isEmpty()) {
        drawText(painter, ladder + px(16), px(90), tr("Nothing can be foretold:"), m_look.font(18, true), p.ink);
        drawParagraphs(painter, ladder + px(16), px(118), width() - ladder - px(16), {blind}, 0, m_look, 16, p.ink);
        return;
    }
    const QString head = tr("%1: %2 readings of the shop, %3 of this batch")
                             .arg(QString::fromStdString(m_grade->name))
                             .arg(m_document.batch().temper_history.size())
                             .arg(temperObservations(m_document.batch(), m_document.tables()).size());
    drawFitted(painter, width(), px(20), head, width() - px(140), m_look, 14, false, p.muted, Qt::AlignRight);
    drawTemperChart(painter, chartArea(), chart(), m_look);
}

ColumnContent LadderPage::content() const {
    ColumnContent content;
    const Blade* blade = m_document.blade();
    if (blade == nullptr || !m_document.hasBatch()) return content;
    content.key = tr("Enter");
    content.left = tr("Cautious");
    content.left_key = QStringLiteral("*");
    content.right = tr("Plan it");
    content.right_key = QStringLiteral("P");
    const int last = lastTemper(*blade);
    content.caption = tr("%1, temper %2").arg(QString::fromStdString(blade->mark)).arg(last + 1);
    content.act = tr("Log temper at %1").arg(words::degrees(m_temperature));
    content.detail = m_tempers > 1 ? tr("first of %1, %2 each").arg(m_tempers).arg(words::hours(m_hours))
                                   : tr("for %1, once it is out").arg(words::hours(m_hours));
    const auto answer = trial();
    if (!answer) {
        content.word = tr("No prediction");
        content.sub = whyBlind().isEmpty() ? tr("Beyond the ends of the curve.") : whyBlind();
    } else {
        const Window window = *m_document.claim().window;
        const bool soft = window.low && answer->chance_soft > 0.10 + 1e-9;
        const bool hard = window.high && answer->expect.hrc > *window.high;
        content.state = soft || hard ? State::borderline : State::pass;
        content.word = soft ? tr("Risky") : hard ? tr("Stays hard") : tr("Fits");
        content.sub = tr("%1 that it ends too soft.").arg(words::percent(answer->chance_soft));
        content.numbers.push_back({tr("Expect"), words::hardness(answer->expect.hrc),
                                   QStringLiteral("± ") + words::uncertainty(answer->expect.high - answer->expect.hrc),
                                   false});
        content.numbers.push_back({tr("In window"), words::percent(answer->chance_inside), {}, false});
        content.lines.push_back(
            {Tone::note,
             tr("Library %1, this shop %2 beside it")
                 .arg(words::hardness(answer->expect.library_hrc),
                      (answer->expect.hrc >= answer->expect.library_hrc ? QStringLiteral("+") : QString()) +
                          words::hardness(answer->expect.hrc - answer->expect.library_hrc)),
             QStringLiteral("M20"), false});
        for (const int tempers : {1, 3}) {
            if (tempers == m_tempers) continue;
            if (const auto other = tried(m_temperature, tempers))
                content.lines.push_back({Tone::note,
                                         tempers == 1
                                             ? tr("Once only: expect %1").arg(words::hardness(other->expect.hrc))
                                             : tr("Three times: expect %1").arg(words::hardness(other->expect.hrc)),
                                         QStringLiteral("M19"), false});
        }
        if (embrittles(*m_grade, m_temperature).value_or(false))
            content.lines.push_back(
                {Tone::caution,
                 tr("%1 to %2 turns this grade brittle: needs a reason")
                     .arg(words::degrees(*m_grade->embrittle_c.low), words::degrees(*m_grade->embrittle_c.high)),
                 QStringLiteral("M21"), false});
        else if (!m_grade->embrittle_c.known())
            content.lines.push_back(
                {Tone::note, tr("Not known where this grade turns brittle"), QStringLiteral("M21"), false});
        if (answer->expect.confidence == Confidence::low)
            content.lines.push_back(
                {Tone::note, tr("The curve is of low confidence here"), QStringLiteral("tables"), false});
        for (const Temper& temper : blade->tempers) {
            if (temper.round == blade->round && temper.temperature_c && *temper.temperature_c > m_temperature) {
                content.lines.push_back(
                    {Tone::note, tr("Cooler than a temper before: it changes little"), QStringLiteral("M19"), false});
                break;
            }
        }
    }
    if (m_advice) {
        if (m_advice->best)
            content.lines.push_back(
                {Tone::good,
                 tr("Advised: %1, expect %2, %3 too soft")
                     .arg(words::degrees(m_advice->best->temperature_c), words::hardness(m_advice->best->expect.hrc),
                          words::percent(m_advice->best->chance_soft)),
                 QStringLiteral("M21"), false});
        if (m_advice->cautious)
            content.lines.push_back({Tone::note,
                                     tr("With more care: %1, expect %2")
                                         .arg(words::degrees(m_advice->cautious->temperature_c),
                                              words::hardness(m_advice->cautious->expect.hrc)),
                                     QStringLiteral("M21"), false});
        for (const TemperWarning warning : m_advice->warnings) {
            if (warning == TemperWarning::alreadySoft)
                content.lines.push_back({Tone::caution, tr("Soft already by expectation: tempering cannot raise it"),
                                         QStringLiteral("M21"), false});
            if (warning == TemperWarning::onlyStepsTooSoft)
                content.lines.push_back(
                    {Tone::caution, tr("Every step from here risks too soft"), QStringLiteral("M21"), false});
            if (warning == TemperWarning::readAfter)
                content.lines.push_back({Tone::note, tr("Too little is known to aim at once: this, then read"),
                                         QStringLiteral("E21"), false});
            if (warning == TemperWarning::staysHard)
                content.lines.push_back({Tone::caution, tr("Even the hottest of this branch leaves it hard"),
                                         QStringLiteral("M21"), false});
        }
    }
    if (const Verdict* verdict = m_document.verdict(m_document.bladeIndex(), Gate::temper)) {
        for (const Reason& reason : verdict->reasons) {
            if (reason.fact == Fact::surprise || reason.fact == Fact::surpriseAlone ||
                reason.fact == Fact::surpriseShared || reason.fact == Fact::surpriseFar ||
                reason.fact == Fact::surpriseLooked || reason.fact == Fact::temperLoad ||
                reason.fact == Fact::curveScatters || reason.fact == Fact::siblingsDoubted ||
                reason.fact == Fact::colourAgainstOven)
                content.lines.push_back({reason.tone, words::sentence(reason), QString::fromUtf8(reason.rule), false});
        }
    }
    content.below.push_back({Tone::note, words::cautionText(Caution::hotWork), {}, true});
    return content;
}

// The prediction with what went into it.
void LadderPage::why() {
    const Blade* blade = m_document.blade();
    const auto answer = trial();
    if (blade == nullptr || !answer) return emit said(tr("There is no prediction to explain."), true);
    const auto f = [](double x, int places) { return QString::number(x, 'f', places); };
    const TemperExpectation& e = answer->expect;
    QStringList lines;
    const auto before = tempersUpTo(*blade, lastTemper(*blade)).value_or(std::vector<TemperHeat>());
    if (!before.empty())
        lines << tr("Tempers before are worth %1 h at %2  (M19)")
                     .arg(f(equivalentHours(m_grade->hj_c, before, m_temperature), 3), words::degrees(m_temperature));
    lines << tr("P = T (C + log10 t) = %1, with C %2 of %3, T in kelvin, t in hours  (M19)")
                 .arg(f(e.parameter, 1), f(m_grade->hj_c, 3), QString::fromStdString(m_grade->name));
    lines << tr("The library's curve there: %1 HRC  (table temper_curves, confidence %2)")
                 .arg(f(e.library_hrc, 2), e.confidence == Confidence::high     ? tr("high")
                                           : e.confidence == Confidence::medium ? tr("medium")
                                                                                : tr("low"));
    lines << tr("Moved by %1 readings of the shop and %2 of this batch to %3  (M20)")
                 .arg(m_document.batch().temper_history.size())
                 .arg(temperObservations(m_document.batch(), m_document.tables()).size())
                 .arg(f(e.hrc, 2));
    lines
        << tr("Standard uncertainty of the blade's mean: %1; 95 %: %2 to %3").arg(f(e.u, 3), f(e.low, 2), f(e.high, 2));
    lines << tr("Too soft %1, inside %2; the aim allows one in ten too soft  (M21)")
                 .arg(words::percent(answer->chance_soft), words::percent(answer->chance_inside));
    lines << tr("An estimate. The readings after it decide.");
    (new ChoiceDialog(
         tr("Why: %1 at %2 for %3")
             .arg(QString::fromStdString(blade->mark), words::degrees(m_temperature), words::hours(m_hours)),
         lines, {}, m_look, window()))
        ->ask({});
}

void LadderPage::act() {
    if (m_document.blade() != nullptr) emit temperWanted(m_temperature, m_hours);
}

void LadderPage::leftAct() {
    if (!m_advice || !m_advice->best) return emit said(tr("There is no advice to choose from."), true);
    m_cautious = !m_cautious && m_advice->cautious.has_value();
    setTrial(m_cautious ? m_advice->cautious->temperature_c : m_advice->best->temperature_c);
}

void LadderPage::rightAct() {
    if (m_document.blade() != nullptr) emit planWanted(m_temperature, m_hours);
}

Commands LadderPage::commands() {
    const auto hump = [this] {
        const bool two = m_document.hasBatch() && curves().now() != nullptr && curves().now()->curve().hump();
        return two ? QString() : tr("This grade has one branch only.");
    };
    Commands all{
        {QStringLiteral("ladder.cautious"), m_cautious ? tr("Best") : tr("Cautious"),
         tr("the advice with a quarter of the risk"), Verb::other, [this] { leftAct(); }},
        {QStringLiteral("ladder.plan"), tr("Plan it"), tr("as an oven run"), Verb::plan, [this] { rightAct(); }},
        {QStringLiteral("ladder.why"), tr("Why"), tr("what the curve rests on"), Verb::why, [this] { why(); }},
        {QStringLiteral("ladder.tempers"),
         m_tempers == 1   ? tr("Once")
         : m_tempers == 2 ? tr("Twice")
                          : tr("Three times"),
         tr("how often this temper is done"), Verb::none,
         [this] {
             m_tempers = m_tempers % 3 + 1;
             emit changed();
         }},
        {QStringLiteral("ladder.branch"), tr("Other branch"), tr("of secondary hardening"), Verb::none,
         [this] {
             const TemperBranch now = m_advice ? m_advice->branch : TemperBranch::low;
             m_branch = now == TemperBranch::low ? TemperBranch::high : TemperBranch::low;
             refresh();
             if (m_advice && m_advice->best) m_temperature = m_advice->best->temperature_c;
             emit changed();
         },
         hump}};
    const Commands stretch = m_stretch->commands(QStringLiteral("ladder"));
    all.insert(all.end(), stretch.begin(), stretch.end());
    return all;
}

QStringList LadderPage::movements() const {
    return {tr("Left and right   the temperature, a step of the oven"),
            tr("Up and down   the time, a quarter of an hour")};
}

bool LadderPage::key(QKeyEvent* event) {
    switch (event->key()) {
    case Qt::Key_Left:
        return setTrial(m_temperature - step()), true;
    case Qt::Key_Right:
        return setTrial(m_temperature + step()), true;
    case Qt::Key_Up:
    case Qt::Key_Down:
        m_hours = std::clamp(m_hours + (event->key() == Qt::Key_Up ? 0.25 : -0.25), 0.25, 12.0);
        emit changed();
        return true;
    default:
        break;
    }
    return false;
}

void LadderPage::mousePressEvent(QMouseEvent* event) {
    if (m_document.blade() == nullptr || !m_document.hasBatch() || !chartArea().contains(event->pos())) return;
    const TemperChart drawn = chart();
    if (!drawn.curve.empty()) setTrial(temperChartTemperature(chartArea(), drawn, event->pos().x(), m_look));
}

void LadderPage::mouseMoveEvent(QMouseEvent* event) {
    if (event->buttons() & Qt::LeftButton) mousePressEvent(event);
}

HelpText LadderPage::help() const {
    return {tr("What will the next temper do to this blade, and which one is advised?"),
            {{Pictogram::indent, tr("Read the blade first: what it is now moves the whole curve.")},
             {Pictogram::trace,
              tr("The curve is what this grade gives at each temperature; the dots are what this shop has read.")},
             {Pictogram::arrows, tr("Left and right change the temperature, up and down the time.")},
             {Pictogram::window,
              tr("The column says what to expect, and the chance that it ends too soft, which no temper mends.")},
             {Pictogram::pen, tr("Log the temper once it is out of the oven, and read again.")}},
            {QStringLiteral("M19"), QStringLiteral("M20"), QStringLiteral("M21")},
            tr("The curves are recalled, not measured on your steel; your own readings teach them. Toughness is not "
               "foretold, only where a grade is known to turn brittle.")};
}

// What the curve says around the trial, a row for each ten degrees.
std::vector<ReportTable> LadderPage::tables() const {
    ReportTable table{tr("Next temper"),
                      {tr("Temperature, %1").arg(words::unit(Quantity::temperature)), tr("Time, h"),
                       tr("Expected, HRC"), tr("From"), tr("To"), tr("Chance inside"), tr("Chance too soft")},
                      {}};
    constexpr int beside = 50;
    constexpr int apart = 10;
    const auto percent = [](double chance) { return QString::number(qRound(chance * 100)) + QStringLiteral(" %"); };
    for (int offset = -beside; offset <= beside; offset += apart) {
        const auto one = tried(m_temperature + offset, m_tempers);
        if (!one) continue;
        table.rows.push_back({words::degreesNumber(one->temperature_c), one->hours, words::hardness(one->expect.hrc),
                              words::hardness(one->expect.low), words::hardness(one->expect.high),
                              percent(one->chance_inside), percent(one->chance_soft)});
    }
    return {table};
}

} // namespace rollcall
