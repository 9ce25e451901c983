// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/testers/testers_bench.h"

#include "app/acts/shop_actions.h"
#include "app/shared/local_time.h"
#include "app/shared/pointing.h"
#include "app/testers/tester_actions.h"
#include "core/base/number.h"
#include "core/judge/agenda.h"
#include "core/measure/indent.h"
#include "core/measure/verification.h"
#include "plot/glyphs.h"
#include "report/gate_table.h"
#include "words/words.h"

#include <cmath>
#include <QDate>
#include <QDateTime>
#include <QKeyEvent>
#include <QLocale>
#include <QPainter>

namespace rollcall {

namespace {

constexpr int chartHeadHeight = 48;
constexpr int runHeight = 176;
constexpr int blockHeight = 184;
constexpr int leastChart = 150;

QString perWeek(const Drift& drift) {
    return QString::number(std::abs(drift.per_week), 'f', 2);
}

} // namespace

TestersBench::TestersBench(Document& document, DeviceLink& link, ShopActions& actions, const Seams& seams,
                           const Look& look, QWidget* parent)
    : Bench(document, look, parent), m_list(*new TesterList(document, look)), m_actions(actions),
      m_own(new TesterActions(document, link, look, seams, this)),
      m_stretch(new Stretch(this, [this] { return chartArea(); })) {
    setObjectName(QStringLiteral("testers-bench"));
    connect(m_stretch, &Stretch::changed, this, qOverload<>(&QWidget::update));
    tellUnder(this, [this](const QPoint& at) {
        const std::optional<ControlChart> shown = chart();
        return shown ? controlChartSays(chartArea(), *shown, at, m_look) : QString();
    });
    connect(m_own, &TesterActions::said, this, &Bench::said);
    connect(&m_list, &TesterList::currentChanged, this, [this] {
        if (verifiable())
            m_document.chooseTester(tester()->id); // the one looked at is the one in use
        else
            emit changed();
    });
}

const Tester* TestersBench::tester() const {
    return m_list.model().rowCount() > 0 ? &m_list.model().tester(m_list.current()) : nullptr;
}

const TesterHealth* TestersBench::health() const {
    return m_list.model().rowCount() > 0 ? &m_list.model().health(m_list.current()) : nullptr;
}

bool TestersBench::verifiable() const {
    const Tester* t = tester();
    return t != nullptr && (t->kind == TesterKind::bench || t->kind == TesterKind::rebound);
}

// The block most often read with it; before any run the shop's first.
const Block* TestersBench::block() const {
    const std::vector<Block>& blocks = m_document.state().shop().blocks;
    if (const TesterHealth* h = health(); h != nullptr && h->last != nullptr) {
        for (const Block& block : blocks) {
            if (block.name == h->block) return &block;
        }
    }
    return blocks.empty() ? nullptr : &blocks.front();
}

std::optional<double> TestersBench::work() const {
    if (!m_document.hasBatch()) return std::nullopt;
    const Window window = windowOf(m_document.batch(), *m_document.blade(), m_document.gate(), m_document.tables());
    if (window.low && window.high) return (*window.low + *window.high) / 2;
    return window.low ? window.low : window.high;
}

void TestersBench::refresh() {
    m_list.refresh();
    m_life.reset();
    if (const Block* b = block()) {
        const auto d = indentDiameter(m_document.tables(), b->scale, b->certified);
        std::vector<Verification> runs;
        for (const Verification& run : m_document.state().runs()) {
            if (run.block == b->name) runs.push_back(run);
        }
        if (d) {
            auto life =
                blockLife({b->diameter_mm, b->spacing_mm, *d}, b->used_before + b->used, runs, m_document.now());
            if (life) m_life = std::move(life).value();
        }
    }
    setAccessibleName(content().caption);
    update();
}

std::optional<ControlChart> TestersBench::chart() const {
    const TesterHealth* h = health();
    if (h == nullptr || !h->answer || h->errors.empty()) return std::nullopt;
    ControlChart chart;
    chart.errors = h->errors;
    chart.spreads = h->spreads;
    chart.allowed_error = h->allowed_error;
    chart.allowed_spread = h->allowed_spread;
    chart.limits = h->limits;
    chart.drift = h->drift;
    chart.weeks_left = h->weeks_left;
    chart.part = m_stretch->of(0, 1);
    if (h->drift && h->drift->likely) {
        chart.drift_text = h->drift->per_week > 0 ? tr("%1 harder a week").arg(perWeek(*h->drift))
                                                  : tr("%1 softer a week").arg(perWeek(*h->drift));
        if (h->weeks_left) {
            const QDate meets = QDate(1970, 1, 1).addDays(qRound64(h->errors.back().day + *h->weeks_left * 7));
            const double limit = h->drift->per_week > 0 ? h->allowed_error : -h->allowed_error;
            chart.limit_text = tr("%1 in %2").arg(words::hardness(limit), QLocale().standaloneMonthName(meets.month()));
        }
    }
    return chart;
}

ColumnContent TestersBench::content() const {
    ColumnContent content;
    content.key = tr("Enter");
    content.left = tr("New tester");
    content.left_key = QStringLiteral("N");
    const Tester* t = tester();
    const TesterHealth* h = health();
    if (t == nullptr || h == nullptr) {
        content.caption = tr("No tester yet");
        content.act = tr("New tester");
        content.detail = tr("bench, rebound or a set of files");
        return content;
    }
    const QString name = QString::fromStdString(t->name);
    content.caption = tr("%1 today").arg(name);
    content.state = h->state;
    content.word = words::stateName(h->state);
    content.right = tr("Change");
    content.right_key = QStringLiteral("M");
    if (h->state == State::excused) {
        content.word = tr("Usable");
        content.sub =
            t->kind == TesterKind::files ? tr("Files give a bracket, not a number.") : tr("It is not read on a block.");
        content.act = tr("Back");
        content.detail = tr("to where you came from");
        if (t->kind == TesterKind::files)
            content.lines.push_back({Tone::note,
                                     tr("Known to 1.5 either way. Never a good new file: an old one, on bare metal."),
                                     QStringLiteral("M12"), false});
        return content;
    }
    content.sub = h->state == State::pass
                      ? tr("Good until midnight, %1 only.").arg(QString::fromStdString(h->last->scale))
                  : h->state == State::fail ? tr("The tester may not be used like this.")
                  : h->other_setting        ? tr("Indenter or anvil changed since.")
                                            : tr("Not verified today.");
    if (h->answer) {
        content.numbers.push_back({tr("Error, to ± %1").arg(words::hardness(h->answer->max_error)),
                                   words::hardness(h->answer->error),
                                   {},
                                   true});
        content.numbers.push_back({tr("Spread, to %1").arg(words::hardness(h->answer->max_repeatability)),
                                   words::hardness(h->answer->repeatability),
                                   {},
                                   true});
        const bool errorOk = atMost(std::abs(h->answer->error), h->answer->max_error);
        const bool spreadOk = atMost(h->answer->repeatability, h->answer->max_repeatability);
        const QString table =
            tr("Allowed by line %1 of the E18 table; your own copy governs").arg(h->answer->table_line);
        if (!errorOk)
            content.lines.push_back(
                {Tone::bad,
                 tr("Error %1 is outside ± %2").arg(words::hardness(h->answer->error)).arg(h->answer->max_error),
                 QStringLiteral("M6"), false});
        if (!spreadOk)
            content.lines.push_back({Tone::bad,
                                     tr("Spread %1 is over %2")
                                         .arg(words::hardness(h->answer->repeatability))
                                         .arg(h->answer->max_repeatability),
                                     QStringLiteral("M6"), false});
        if (h->failed_in_row >= 2)
            content.lines.push_back(
                {Tone::bad,
                 tr("Failed %1 times: stop. All readings since the last good run are suspect").arg(h->failed_in_row),
                 QStringLiteral("M6"), false});
        else if (h->failed_in_row == 1)
            content.lines.push_back(
                {Tone::caution, tr("Clean, re-seat, discard two, then repeat once"), QStringLiteral("E18"), false});
        // A run may refuse a good tester by chance alone; how often says whether one repeat is fair.
        if (h->failed_in_row == 1 && t->learned) {
            const int readings = static_cast<int>(h->last->readings.size());
            const double chance = chancePerfectRefused(t->learned->sd, readings, *h->answer);
            if (chance >= 0.01)
                content.lines.push_back(
                    {Tone::note,
                     tr("It may be chance: %1 readings refuse a tester without any error that scatters like this "
                        "one in %2 of 100 runs. Not so twice in a row")
                         .arg(readings)
                         .arg(std::lround(100 * chance)),
                     QStringLiteral("M9"), false});
        }
        if (h->drift && h->drift->likely) {
            QString text = h->drift->per_week > 0
                               ? tr("Slow drift is likely: %1 harder a week (%2 standard errors off what it was).")
                               : tr("Slow drift is likely: %1 softer a week (%2 standard errors off what it was).");
            text = text.arg(perWeek(*h->drift), QString::number(std::abs(h->drift->standard_errors), 'f', 1));
            if (h->weeks_left)
                text += (h->weeks_left < 1.5 ? tr(" Out of tolerance in about a week. Look at the indenter")
                                             : tr(" Out of tolerance in about %1 weeks. Look at the indenter")
                                                   .arg(std::lround(*h->weeks_left)));
            content.lines.push_back({Tone::caution, text, QStringLiteral("drift"), false});
        }
        if (h->limits && (h->answer->error > h->limits->high || h->answer->error < h->limits->low))
            content.lines.push_back({Tone::caution,
                                     tr("Outside its own usual %1 to %2: something changed")
                                         .arg(words::hardness(h->limits->low), words::hardness(h->limits->high)),
                                     QStringLiteral("E62"), false});
        if (errorOk && spreadOk) content.lines.push_back({Tone::good, table, QStringLiteral("M6"), false});
    }
    std::vector<double> certified;
    for (const Block& b : m_document.state().shop().blocks) certified.push_back(b.certified);
    if (const auto at = work()) {
        const BlockAdvice advice = adviseBlocks(certified, *at);
        const auto blockName = [&](std::size_t i) {
            return QString::fromStdString(m_document.state().shop().blocks[advice.blocks[i]].name);
        };
        const QString target = words::hardness(*at);
        if (advice.kind == BlockAdvice::Kind::near)
            content.lines.push_back(
                {Tone::good, tr("Block %1 suits work at %2").arg(blockName(0), target), QStringLiteral("M6"), false});
        if (advice.kind == BlockAdvice::Kind::bracket)
            content.lines.push_back(
                {Tone::note,
                 tr("Read blocks %1 and %2: they bracket work at %3").arg(blockName(0), blockName(1), target),
                 QStringLiteral("M6"), false});
        if (advice.kind == BlockAdvice::Kind::far)
            content.lines.push_back(
                {Tone::caution, tr("No block within 5 of work at %1: block %2 says little").arg(target, blockName(0)),
                 QStringLiteral("M6"), false});
    }
    content.lines.push_back(
        {Tone::note,
         t->learned
             ? tr("Own scatter of single readings %1, from %2 degrees of freedom")
                   .arg(t->learned->sd, 0, 'f', 2)
                   .arg(qRound(t->learned->dof))
             : tr("Own scatter not known yet: the usual %1 is assumed").arg(t->kind == TesterKind::rebound ? 0.8 : 0.3),
         QStringLiteral("M9"), false});
    if (const Block* b = block()) {
        const QDate until = QDate::fromString(QString::fromStdString(b->certificate.until), Qt::ISODate);
        const qint64 left = until.isValid() ? localTime(m_document.now()).date().daysTo(until) : 0;
        constexpr int soon_days = 60;
        if (until.isValid() && left < 0)
            content.lines.push_back({Tone::caution,
                                     tr("The certificate of block %1 ran out on %2: have it certified anew")
                                         .arg(QString::fromStdString(b->name), until.toString(Qt::ISODate)),
                                     QStringLiteral("M6"), false});
        else if (until.isValid() && left <= soon_days)
            content.lines.push_back({Tone::note,
                                     tr("The certificate of block %1 ends on %2")
                                         .arg(QString::fromStdString(b->name), until.toString(Qt::ISODate)),
                                     QStringLiteral("M6"), false});
        const bool twoFaced = std::any_of(
            m_document.state().shop().blocks.begin(), m_document.state().shop().blocks.end(), [&](const Block& other) {
                return (other.id == b->certificate.other_face || other.certificate.other_face == b->id) &&
                       other.used + other.used_before > 0;
            });
        if (twoFaced)
            content.lines.push_back({Tone::caution,
                                     tr("Its other face is indented too: rims under it make it rock and read low"),
                                     QStringLiteral("M13"), false});
    }
    if (m_life && m_life->nearly_full)
        content.lines.push_back(
            {Tone::caution, tr("The block's face is nearly full: order the next"), QStringLiteral("M13"), false});
    if (h->state == State::pass) {
        content.act = tr("Back");
        content.detail = tr("to where you came from");
        content.left = tr("Verify again");
        content.left_key = QStringLiteral("V");
    } else {
        content.act = h->state == State::fail ? tr("Repeat the run") : tr("Verify %1").arg(name);
        content.detail = tr("five readings are better than two");
    }
    return content;
}

void TestersBench::act() {
    if (tester() == nullptr) return m_own->edit(nullptr);
    const State state = health()->state;
    if (state != State::pass && state != State::excused) return m_actions.verify();
    emit backWanted();
}

void TestersBench::leftAct() {
    if (verifiable() && health()->state == State::pass) return m_actions.verify();
    m_own->edit(nullptr);
}

void TestersBench::rightAct() {
    if (tester() != nullptr) m_own->edit(tester());
}

Commands TestersBench::commands() {
    const auto chosen = [this] { return tester() == nullptr ? tr("No tester yet: N.") : QString(); };
    const auto read = [this] { return verifiable() ? QString() : tr("It is not read on a block."); };
    Commands all{{QStringLiteral("testers.verify"), tr("Verify"), tr("readings on a block"), Verb::verify,
                  [this] { m_actions.verify(); }, read},
                 {QStringLiteral("testers.new"), tr("New tester"), tr("bench, rebound or a set of files"),
                  Verb::makeNew, [this] { m_own->edit(nullptr); }},
                 {QStringLiteral("testers.change"), tr("Change it"), tr("its name, cone, anvil, files"), Verb::amend,
                  [this] { m_own->edit(tester()); }, chosen},
                 {QStringLiteral("testers.blocks"), tr("Blocks"), tr("a new one, or the data of one"), Verb::kit,
                  [this] { m_own->chooseBlockToEdit(); }},
                 {QStringLiteral("testers.next-block"), tr("Next block"), tr("the charts of another of its blocks"),
                  Verb::other, [this] { m_list.nextBlock(); }, chosen},
                 {QStringLiteral("testers.suspect"), tr("Suspect readings"), tr("since its last good run"), Verb::none,
                  [this] { m_own->listSuspect(*tester()); }, chosen},
                 {QStringLiteral("testers.what-if"), tr("What if"), tr("its error were another"), Verb::none,
                  [this] { m_own->whatIf(*tester(), *health()); }, chosen},
                 {QStringLiteral("testers.line"), tr("Line"), tr("its wire: port and pattern"), Verb::none,
                  [this] { m_own->line(*tester()); }, read},
                 {QStringLiteral("testers.export"), tr("Export chart"), tr("PNG, SVG or CSV"), Verb::inAndOut,
                  [this] { m_own->exportChart(chart()); }, chosen}};
    const Commands stretch = m_stretch->commands(QStringLiteral("testers"));
    all.insert(all.end(), stretch.begin(), stretch.end());
    return all;
}

Commands TestersBench::doors() {
    return {{QStringLiteral("testers"),
             tr("Testers"),
             tr("verification, drift, blocks, the one in use"),
             Verb::testers,
             [this] { emit placeWanted(objectName(), 0); },
             {},
             Qt::Key_unknown,
             Qt::NoModifier,
             Group::shop}};
}

QStringList TestersBench::movements() const {
    return {tr("Up and down, 8 and 2   the tester in the list")};
}

bool TestersBench::key(QKeyEvent* event) {
    switch (event->key()) {
    case Qt::Key_Up:
    case Qt::Key_8:
        m_list.step(-1);
        return true;
    case Qt::Key_Down:
    case Qt::Key_2:
        m_list.step(1);
        return true;
    default:
        return false;
    }
}

std::vector<ReportTable> TestersBench::tables() const {
    return {runTable(m_document.state().runs(), m_document.state().shop().testers)};
}

bool TestersBench::hasRoomForBlock() const {
    return height() >= px(chartHeadHeight + runHeight + leastChart + blockHeight);
}

QRect TestersBench::chartArea() const {
    const int top = px(chartHeadHeight + runHeight);
    const int bottom = hasRoomForBlock() ? height() - px(blockHeight) : height() - px(4);
    if (bottom < top + px(leastChart)) return {};
    return {px(24), top + px(34), width() - px(48), bottom - top - px(38)};
}

void TestersBench::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    painter.fillRect(rect(), p.panel);
    const Tester* t = tester();
    const TesterHealth* h = health();
    painter.fillRect(px(24), px(chartHeadHeight), width() - px(48), 1, p.hair);
    if (t == nullptr || h == nullptr) return;
    const QString name = QString::fromStdString(t->name);
    const int nameSize = fittingSize(m_look, name, 36, 18, width() / 2, true);
    drawText(painter, px(24), px(36), elided(name, m_look.font(nameSize, true), width() / 2),
             m_look.font(nameSize, true), p.ink);
    QStringList parts;
    if (t->kind == TesterKind::rebound) parts << tr("rebound");
    if (!t->indenter.empty()) parts << QString::fromStdString(t->indenter);
    if (!t->anvil.empty()) parts << QString::fromStdString(t->anvil);
    if (t->kind == TesterKind::bench) parts << tr("reads to %1").arg(t->resolution);
    const QString right = m_list.model().word(m_list.current());
    const int left = px(48) + m_look.width(name, nameSize, true);
    const int end = width() - px(40) - m_look.width(right, 18, true);
    constexpr int smallest = 12;
    while (!parts.isEmpty() && m_look.width(parts.join(QStringLiteral(", ")), smallest) > end - left)
        parts.removeLast(); // the list and its form tell them
    drawFitted(painter, left, px(36), parts.join(QStringLiteral(", ")), end - left, m_look, 18, false, p.muted);
    drawText(painter, width() - px(24), px(36), right, m_look.font(18, true), p.ink, Qt::AlignRight);
    if (t->kind == TesterKind::files) {
        QStringList files;
        for (const double file : t->files) files << QString::number(file);
        drawText(painter, px(24), px(110), files.join(QStringLiteral("   ")), m_look.font(40), p.ink);
        drawText(painter, px(24), px(146), tr("hardness of each file, HRC; tried on a blade with F in Call"),
                 m_look.font(16), p.muted);
        return;
    }
    paintRun(painter, px(chartHeadHeight));
    const int chartTop = px(chartHeadHeight + runHeight);
    const bool withBlock = hasRoomForBlock();
    const int blockTop = withBlock ? height() - px(blockHeight) : height() - px(4);
    if (chartArea().isEmpty()) return; // the column says what the chart would
    painter.fillRect(px(24), chartTop, width() - px(48), 1, p.hair);
    painter.fillRect(px(24), blockTop, width() - px(48), 1, p.hair);
    const std::optional<ControlChart> through = chart();
    drawText(painter, px(24), chartTop + px(26), tr("Error through time"), m_look.font(16, true), p.ink);
    if (through) {
        drawText(
            painter, width() - px(24), chartTop + px(26),
            tr("block %1, allowed ± %2").arg(QString::fromStdString(h->block), words::hardness(through->allowed_error)),
            m_look.font(16), p.muted, Qt::AlignRight);
        drawControlChart(painter, chartArea(), *through, m_look);
    } else {
        drawText(painter, px(24), chartTop + px(60), tr("Nothing yet: verify it on a block first."), m_look.font(18),
                 p.muted);
    }
    if (withBlock) paintBlock(painter, blockTop);
}

void TestersBench::paintRun(QPainter& painter, int top) const {
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    const TesterHealth& h = *health();
    const int ruleWidth = px(258);
    if (h.last == nullptr) {
        drawText(painter, px(24), top + px(60), tr("Never read on a block"), m_look.font(24, true), p.ink);
        return;
    }
    // Readings of the last run, as large as they fit.
    const std::vector<double>& readings = h.last->readings;
    const bool narrow = width() < px(520); // the column says error and spread, the readings are here alone
    const int room = narrow ? width() - px(48) : std::min(px(420), width() - px(24) - px(24) - ruleWidth - px(28));
    const int columns = readings.size() <= 2 ? 2 : 3;
    const int size = columns == 2 ? 52 : 36;
    const QColor color = h.today ? p.ink : p.muted;
    for (std::size_t i = 0; i < readings.size() && i < 6; ++i) {
        const int x = px(24) + static_cast<int>(i) % columns * room / columns;
        const int y = top + px(columns == 2 ? 86 : 56) + static_cast<int>(i) / columns * px(48);
        const QString value = words::hardness(readings[i]);
        drawText(painter, x, y, value, m_look.font(fittingSize(m_look, value, size, 16, room / columns - px(8))),
                 color);
    }
    const QDateTime when = localTime(*h.last->time);
    drawText(painter, px(24), top + px(144),
             tr("on block %1, %2")
                 .arg(QString::fromStdString(h.last->block), QLocale().toString(when, QStringLiteral("d MMM HH:mm"))),
             m_look.font(16), p.muted);
    if (!h.answer || narrow) return;
    const int left = width() - px(24) - ruleWidth;
    const double reach = h.answer->max_error * 2;
    NumberRule error{tr("Error"),
                     tr("allowed ± %1").arg(words::hardness(h.answer->max_error)),
                     -reach,
                     reach,
                     h.answer->max_error,
                     -h.answer->max_error,
                     h.answer->max_error,
                     h.answer->error,
                     atMost(std::abs(h.answer->error), h.answer->max_error)};
    drawNumberRule(painter, QRect(left, top + px(12), ruleWidth, px(70)), error, m_look);
    const double most = h.answer->max_repeatability * 1.5;
    NumberRule spread{tr("Spread"),
                      tr("allowed %1").arg(words::hardness(h.answer->max_repeatability)),
                      0,
                      most,
                      h.answer->max_repeatability,
                      0,
                      h.answer->max_repeatability,
                      h.answer->repeatability,
                      atMost(h.answer->repeatability, h.answer->max_repeatability)};
    drawNumberRule(painter, QRect(left, top + px(92), ruleWidth, px(70)), spread, m_look);
}

QString TestersBench::certificateText(const Block& block) const {
    const BlockCertificate& c = block.certificate;
    QStringList parts;
    if (!c.by.empty()) parts << tr("certified by %1").arg(QString::fromStdString(c.by));
    if (!c.until.empty())
        parts << tr("until %1").arg(QString::fromStdString(c.until));
    else if (!c.on.empty())
        parts << tr("on %1").arg(QString::fromStdString(c.on));
    for (const Block& other : m_document.state().shop().blocks) {
        if (other.id == c.other_face || other.certificate.other_face == block.id)
            parts << tr("back: block %1").arg(QString::fromStdString(other.name));
    }
    return parts.join(QStringLiteral(", "));
}

void TestersBench::paintBlock(QPainter& painter, int top) const {
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    const Block* b = block();
    if (b == nullptr) {
        drawText(painter, px(24), top + px(40), tr("No test block yet: K adds one"), m_look.font(18), p.ink);
        return;
    }
    const int size = px(blockHeight - 20);
    const int left = px(24) + size + px(28);
    drawEnds(painter, left, width() - px(24), top + px(32),
             {tr("Block %1 ± %2").arg(words::hardness(b->certified)).arg(b->uncertainty), 18, true, p.ink},
             {tr("face %1, %2 apart").arg(words::length(b->diameter_mm, 0), words::length(b->spacing_mm)), 16, false,
              p.muted},
             m_look);
    const QString certificate = certificateText(*b);
    drawFitted(painter, width() - px(24), top + px(84), certificate, (width() - left) * 2 / 3, m_look, 16, false,
               p.muted, Qt::AlignRight);
    if (!m_life) {
        drawText(painter, left, top + px(64), tr("No places: look at its face and spacing (K)"), m_look.font(16),
                 p.muted);
        return;
    }
    drawBlockFace(painter, QRect(px(24), top + px(10), size, size), b->diameter_mm, m_life->places, m_life->used,
                  m_look);
    const QString free = QString::number(m_life->free);
    drawText(painter, left, top + px(84), free, m_look.font(40, true), m_life->nearly_full ? p.borderline : p.ink);
    drawText(painter, left + m_look.width(free, 40, true) + px(10), top + px(84), tr("places free"), m_look.font(18),
             p.ink);
    const int barTop = top + px(104);
    const int barWidth = width() - px(24) - left;
    const double share =
        static_cast<double>(m_life->used) / std::max<double>(1.0, static_cast<double>(m_life->places.size()));
    painter.fillRect(left, barTop, barWidth, px(16), p.steel);
    painter.fillRect(left, barTop, qRound(barWidth * share), px(16), p.ink);
    painter.fillRect(left + qRound(barWidth * blockNearlyFull), barTop - px(4), 2, px(24), p.primary);
    const QString rate = tr("%1 used, %2 a month").arg(m_life->used).arg(qRound(m_life->per_month));
    const QString end =
        tr("order the next at %1").arg(qRound(blockNearlyFull * static_cast<double>(m_life->places.size())));
    drawEnds(painter, left, width() - px(24), barTop + px(40), {rate, 16, false, p.muted}, {end, 16, false, p.muted},
             m_look);
    if (!m_life->months_left) return;
    const double months = *m_life->months_left;
    const QString lasts = months < 1.5 ? tr("about %1 weeks left").arg(qRound(months * 4.3))
                          : months > 24
                              ? tr("over two years left")
                              : tr("about %1 months left, until %2")
                                    .arg(qRound(months))
                                    .arg(QLocale().standaloneMonthName(
                                        localTime(m_document.now()).date().addDays(qRound(months * 30.4)).month()));
    drawText(painter, left, barTop + px(66), lasts, m_look.font(18, true), p.ink);
}

HelpText TestersBench::help() const {
    return {
        tr("Can this tester be trusted today, and is it drifting?"),
        {{Pictogram::block, tr("Verify it on a block near the work: five readings on fresh places of one face.")},
         {Pictogram::window, tr("Its error and spread are compared with what the standard allows.")},
         {Pictogram::trace, tr("The chart shows every run; what lies outside its own usual is marked.")},
         {Pictogram::question, tr("After two failed runs clean, re-seat, look at the indenter: all readings since the "
                                  "last good run are suspect.")},
         {Pictogram::boxes, tr("Blocks run out of places, and certificates out of date: both are said before.")}},
        {QStringLiteral("M6"), QStringLiteral("M13"), QStringLiteral("M14"), QStringLiteral("E41")},
        tr("A block tells the tester at the block's hardness. A slow drift below the scatter takes weeks to show.")};
}

} // namespace rollcall
