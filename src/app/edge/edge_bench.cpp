// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/edge/edge_bench.h"

#include "app/shared/pointing.h"
#include "words/words.h"

#include <algorithm>
#include <cmath>
#include <QKeyEvent>
#include <QMouseEvent>

namespace rollcall {

namespace {

constexpr int headHeight = 48;
constexpr int ladderHeight = 284;
constexpr int ruleHeight = 132;
constexpr int footHeight = 44;

} // namespace

EdgeBench::EdgeBench(Document& document, ForceLink& force, Seams seams, const Look& look, QWidget* parent)
    : Bench(document, look, parent), m_force(force), m_seams(std::move(seams)) {
    setObjectName(QStringLiteral("edge-bench"));
    setFocusPolicy(Qt::StrongFocus);
    connect(&m_force, &ForceLink::changed, this, qOverload<>(&QWidget::update));
    tellUnder(this, [this](const QPoint& at) { return saysAt(at); });
}

std::optional<double> EdgeBench::hrc() const {
    return readMeans(m_document.batch(), m_document.verdicts())[static_cast<std::size_t>(m_document.bladeIndex())];
}

void EdgeBench::refresh() {
    m_rungs.clear();
    m_grid = {};
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return update();
    const EdgeAsk ask = edgeAskOf(m_document.batch());
    m_rungs = rungsOf(*blade);
    m_ladder =
        readLadder(m_document.tables(), edgeOf(*blade), edgeHardness(m_document.batch(), hrc()), m_rungs, ask.rung);
    m_grid = ladderGrid(edgeOf(*blade), ask.rung);
    if (m_grid.raises_deg.empty()) m_grid.raises_deg = {ask.rung.raise_deg};
    // A rung taken, or another blade: the cursor goes to what is next.
    const std::string shown =
        blade->id + '/' + std::to_string(m_ladder.rungs.size()) + '/' + std::to_string(blade->edges.size());
    if (shown != m_shown) {
        m_shown = shown;
        const EdgeLoadStep next = m_ladder.next.value_or(ask.rung);
        const auto nearest = [](const std::vector<double>& values, double wanted) {
            const auto at = std::min_element(values.begin(), values.end(), [&](double a, double b) {
                return std::abs(a - wanted) < std::abs(b - wanted);
            });
            return static_cast<int>(at - values.begin());
        };
        m_forceIndex = nearest(m_grid.forces_n, next.force_n);
        m_raiseIndex = nearest(m_grid.raises_deg, next.raise_deg);
        // Each rung on a fresh piece of edge, from a fifth of the length on.
        const double length = std::max(20.0, blade->shape.length());
        m_place_mm = 0.2 * length;
        for (const EdgeRung& rung : m_rungs) {
            if (rung.place_mm) m_place_mm = std::max(m_place_mm, *rung.place_mm + 12);
        }
        if (m_place_mm > 0.9 * length) m_place_mm = 0.2 * length + 6;
    }
    m_forceIndex = std::clamp(m_forceIndex, 0, static_cast<int>(m_grid.forces_n.size()) - 1);
    m_raiseIndex = std::clamp(m_raiseIndex, 0, static_cast<int>(m_grid.raises_deg.size()) - 1);
    setAccessibleName(content().sub);
    update();
}

EdgeLoadStep EdgeBench::chosen() const {
    return {m_grid.forces_n[static_cast<std::size_t>(m_forceIndex)],
            m_grid.raises_deg[static_cast<std::size_t>(m_raiseIndex)]};
}

QRect EdgeBench::ladderArea() const {
    return {px(24), px(headHeight + 14), std::min(px(330), width() / 2 + px(20)), ladderTall() - px(20)};
}

QRect EdgeBench::bladeArea() const {
    const int top = px(headHeight + ladderHeight + ruleHeight + 34);
    return {px(24), top, width() - px(48), std::max(px(60), height() - top - px(footHeight + 8))};
}

// The failure that says most: that which the heat has to answer for, else the thickest one.
const RungAnswer* EdgeBench::worst() const {
    const RungAnswer* worst = nullptr;
    for (const RungAnswer& answer : m_ladder.rungs) {
        if (!m_rungs[answer.rung].failed()) continue;
        const auto ratio = [](const RungAnswer& a) {
            return a.damage_thickness_mm && a.expected ? *a.damage_thickness_mm / a.expected->yield_thickness_mm : 0.0;
        };
        if (worst == nullptr || ratio(answer) >= ratio(*worst)) worst = &answer;
    }
    return worst;
}

LadderPicture EdgeBench::picture() const {
    LadderPicture picture;
    picture.grid = m_grid;
    const Blade& blade = *m_document.blade();
    const EdgeAsk ask = edgeAskOf(m_document.batch());
    picture.next = m_ladder.next;
    if (!ask.by_hand) picture.asked = ask.rung;
    picture.chosen_force = m_forceIndex;
    picture.chosen_raise = m_raiseIndex;
    const auto edge = edgeOf(blade);
    for (const double raise : m_grid.raises_deg) {
        for (const double force : m_grid.forces_n) {
            LadderPicture::Cell cell;
            const auto yield =
                expectedYield(m_document.tables(), edge, edgeHardness(m_document.batch(), hrc()), force, raise);
            if (yield && edge) {
                const double depth =
                    yield->yield_thickness_mm / (2 * std::tan(edge->angle_per_side_deg * std::acos(-1.0) / 180));
                cell.marks = depth >= EdgeRung::tiny_mm;
                cell.expected = yield->yield_depth_mm ? words::lengthNumber(depth, 2) : tr("past it");
            }
            // The last rung taken here speaks for the cell.
            for (const RungAnswer& answer : m_ladder.rungs) {
                const EdgeRung& rung = m_rungs[answer.rung];
                if (!rung.force_n || !rung.raise_deg || std::abs(*rung.force_n - force) > 0.12 * force ||
                    std::abs(*rung.raise_deg - raise) > 2.5)
                    continue;
                cell.outcome = rung.outcome;
                cell.size_mm = rung.outcome == EdgeOutcome::held ? std::nullopt : rung.size_mm;
            }
            picture.cells.push_back(std::move(cell));
        }
    }
    return picture;
}

QString EdgeBench::saysAt(const QPoint& at) const {
    if (m_document.blade() == nullptr || m_grid.forces_n.empty()) return {};
    const LadderPicture shown = picture();
    const auto place = ladderCellAt(ladderArea(), shown, at, m_look);
    if (!place) return m_told.at(at);
    const auto [force, raise] = *place;
    const LadderPicture::Cell& cell =
        shown.cells[static_cast<std::size_t>(raise) * m_grid.forces_n.size() + static_cast<std::size_t>(force)];
    EdgeLoadStep step;
    step.force_n = m_grid.forces_n[static_cast<std::size_t>(force)];
    step.raise_deg = m_grid.raises_deg[static_cast<std::size_t>(raise)];
    QStringList says{words::rung(step)};
    if (cell.outcome) says << words::outcomeName(*cell.outcome);
    if (cell.size_mm) says << words::length(*cell.size_mm, 2);
    if (!cell.outcome)
        says << (cell.expected.isEmpty()
                     ? tr("not taken yet")
                     : tr("not taken yet; depth of the mark that is expected: %1").arg(cell.expected));
    return says.join(QStringLiteral(", "));
}

// On a small screen the ladder comes first, then what explains a mark, then where on the edge it is.
int EdgeBench::ladderTall() const {
    return std::min(px(ladderHeight), height() - px(headHeight + footHeight));
}

bool EdgeBench::showsRule() const {
    return height() >= px(headHeight + ladderHeight + ruleHeight + footHeight);
}

bool EdgeBench::showsStrip() const {
    constexpr int leastStrip = 104;
    return height() >= px(headHeight + ladderHeight + ruleHeight + leastStrip + footHeight);
}

void EdgeBench::paintRule(QPainter& painter, const RungAnswer* failure, const std::optional<EdgeGeometry>& edge) {
    const Palette& p = palette();
    const int ruleTop = px(headHeight + ladderHeight);
    painter.fillRect(0, ruleTop, width(), 1, p.hair);
    if (failure != nullptr && failure->expected && edge) {
        const EdgeRung& rung = m_rungs[failure->rung];
        const QString kind = words::outcomeName(rung.outcome);
        const QString asks = rung.size_mm ? tr("What explains a %1 of %2").arg(kind, words::length(*rung.size_mm, 2))
                                          : tr("What explains a %1 not measured").arg(kind);
        drawText(painter, px(24), ruleTop + px(28), asks, m_look.font(18, true), p.ink);
        const int left = width() - px(64) - m_look.width(asks, 18, true);
        const QString whole = tr("metal, %1; an estimate to a factor of 3").arg(words::unit(Quantity::length));
        drawText(painter, width() - px(24), ruleTop + px(28),
                 m_look.width(whole, 14) <= left ? whole : tr("an estimate, factor 3"), m_look.font(14), p.muted,
                 Qt::AlignRight);
        DamageRule rule;
        rule.yield_mm = failure->expected->yield_thickness_mm;
        rule.damage_mm = failure->damage_thickness_mm;
        drawDamageRule(painter, QRect(px(24), ruleTop + px(38), width() - px(48), px(ruleHeight - 44)), rule, m_look,
                       &m_told);
    } else {
        drawEnds(painter, px(24), width() - px(24), ruleTop + px(28), {tr("What each outcome is"), 18, true, p.ink},
                 {tr("numbers in the ladder: depth expected to yield, %1").arg(words::unit(Quantity::length)), 14,
                  false, p.muted},
                 m_look);
        int x = px(24);
        for (const EdgeOutcome outcome :
             {EdgeOutcome::held, EdgeOutcome::set, EdgeOutcome::roll, EdgeOutcome::chip, EdgeOutcome::crack}) {
            drawEdgeOutcome(painter, x, ruleTop + px(52), px(32), outcome, p.ink);
            drawText(painter, x + px(40), ruleTop + px(76), words::outcomeName(outcome), m_look.font(16), p.ink);
            x += (width() - px(48)) / 5;
        }
        drawText(painter, px(24), ruleTop + px(118),
                 tr("Beyond the stepped line a mark of %1 is expected.").arg(words::length(0.05, 2)), m_look.font(16),
                 p.older);
        m_told.add({0, double(ruleTop + px(98)), double(width()), double(px(30))},
                   tr("An estimate; a set of up to %1 is tiny and counts as held").arg(words::length(0.05, 2)));
    }
}

void EdgeBench::paintStrip(QPainter& painter, const Blade& blade) {
    const Palette& p = palette();
    const int ruleTop = px(headHeight + ladderHeight);
    painter.fillRect(0, ruleTop + px(ruleHeight), width(), 1, p.hair);
    drawText(painter, px(24), ruleTop + px(ruleHeight + 26), tr("Where on the edge"), m_look.font(18, true), p.ink);
    drawText(painter, width() - px(24), ruleTop + px(ruleHeight + 26),
             tr("next at %1: click, or Shift and arrows").arg(words::length(m_place_mm, 0)), m_look.font(14), p.muted,
             Qt::AlignRight);
    std::vector<EdgeMark> marks;
    for (const RungAnswer& answer : m_ladder.rungs) {
        const EdgeRung& rung = m_rungs[answer.rung];
        if (rung.place_mm)
            marks.push_back({*rung.place_mm, rung.failed() ? words::outcomeName(rung.outcome) : QString(), false,
                             tr("%1 at %2 from the heel: %3")
                                 .arg(rung.force_n ? tr("%1 N").arg(std::lround(*rung.force_n)) : tr("Pressed by hand"),
                                      words::length(*rung.place_mm, 0), words::outcomeName(rung.outcome))});
    }
    for (const DamageMark& damage : blade.damage) {
        if (damage.place_mm)
            marks.push_back(
                {*damage.place_mm, QString::fromStdString(damage.kind), false,
                 tr("%1 at %2, noted").arg(QString::fromStdString(damage.kind), words::length(*damage.place_mm, 0))});
    }
    marks.push_back({m_place_mm, tr("next"), true,
                     tr("The next rung goes on at %1 from the heel").arg(words::length(m_place_mm, 0))});
    std::stable_sort(marks.begin(), marks.end(), [](const EdgeMark& x, const EdgeMark& y) { return x.x_mm < y.x_mm; });
    drawEdgeStrip(painter, bladeArea(), blade.shape, marks, m_look, &m_told);
}

void EdgeBench::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    m_told.clear();
    const Palette& p = palette();
    painter.fillRect(rect(), p.panel);
    painter.fillRect(px(24), px(headHeight), width() - px(48), 1, p.hair);
    const Blade* blade = m_document.blade();
    if (blade == nullptr || m_grid.forces_n.empty()) return;
    const EdgeAsk ask = edgeAskOf(m_document.batch());
    const QString mark = QString::fromStdString(blade->mark);
    const QString right = ask.by_hand ? tr("asked: flexed by hand") : tr("asked: %1").arg(words::rung(ask.rung));
    drawText(painter, px(24), px(35), mark, m_look.font(28, true), p.ink);
    const int after = px(24) + m_look.width(mark, 28, true) + px(16);
    const QString purpose = ask.purpose.empty() ? tr("on the smooth %1 rod").arg(words::length(6, 0))
                                                : tr("%1, %2").arg(QString::fromStdString(ask.purpose).toLower(),
                                                                   QString::fromStdString(ask.school));
    drawFitted(painter, after, px(34), purpose, width() - px(48) - after - m_look.width(right, 16, true), m_look, 16,
               false, p.muted);
    drawText(painter, width() - px(24), px(34), right, m_look.font(16, true), p.ink, Qt::AlignRight);

    m_told.add({0, 0, double(width()), double(px(headHeight))},
               tr("The blade in hand, what the rod test is for, and what is asked of it"));
    const auto edge = edgeOf(*blade);
    drawEdgeLadder(painter, ladderArea(), picture(), m_look);
    const QRect wedgeArea(ladderArea().right() + px(14), px(headHeight + 10), width() - ladderArea().right() - px(30),
                          ladderTall() - px(6));
    const RungAnswer* failure = worst();
    if (edge) {
        WedgePicture wedge;
        wedge.geometry = *edge;
        const auto hardness = edgeHardness(m_document.batch(), hrc());
        wedge.caption =
            hardness
                ? tr("%1° per side, %2 HRC").arg(std::lround(edge->angle_per_side_deg)).arg(words::hardness(*hardness))
                : tr("%1° per side").arg(std::lround(edge->angle_per_side_deg));
        const auto yield =
            failure != nullptr && failure->expected
                ? failure->expected
                : expectedYield(m_document.tables(), edge, hardness, chosen().force_n, chosen().raise_deg);
        if (yield) wedge.yield_mm = yield->yield_thickness_mm;
        if (failure != nullptr) {
            wedge.outcome = m_rungs[failure->rung].outcome;
            wedge.damage_mm = m_rungs[failure->rung].size_mm.value_or(0);
        }
        drawWedge(painter, wedgeArea, wedge, m_look, &m_told);
    } else {
        drawText(painter, wedgeArea.left(), wedgeArea.top() + px(60), tr("Edge not measured"), m_look.font(22, true),
                 p.ink);
        drawText(painter, wedgeArea.left(), wedgeArea.top() + px(92), tr("G  thickness behind it,"), m_look.font(16),
                 p.ink);
        drawText(painter, wedgeArea.left(), wedgeArea.top() + px(116), tr("angle per side, grind"), m_look.font(16),
                 p.ink);
    }

    if (showsRule()) paintRule(painter, failure, edge);
    if (showsStrip()) paintStrip(painter, *blade);

    const int foot = height() - px(footHeight);
    painter.fillRect(0, foot, width(), 1, p.hair);
    m_told.add({0, double(foot), double(width()), double(px(footHeight))},
               tr("What the scale under the rod tells now, and its peak since the last rung"));
    const QString state = m_force.wire().stateText();
    QString live = tr("Scale: read by eye");
    if (m_force.connected()) {
        live = m_force.now_n()
                   ? tr("Scale %1 N, peak %2 N")
                         .arg(std::lround(*m_force.now_n()))
                         .arg(m_force.peak_n() ? QString::number(std::lround(*m_force.peak_n())) : tr("none"))
                   : tr("Scale: nothing came yet");
    }
    drawText(painter, px(24), foot + px(28), live, m_look.font(18, true), p.ink);
    drawText(painter, width() - px(24), foot + px(28), state, m_look.font(14), p.muted, Qt::AlignRight);
}

void EdgeBench::mousePressEvent(QMouseEvent* event) {
    if (m_document.blade() == nullptr || m_grid.forces_n.empty()) return;
    if (const auto cell = ladderCellAt(ladderArea(), picture(), event->pos(), m_look)) {
        std::tie(m_forceIndex, m_raiseIndex) = *cell;
        emit changed();
    } else if (showsStrip() && bladeArea().contains(event->pos())) {
        m_place_mm = edgePlaceAt(bladeArea(), m_document.blade()->shape, event->pos().x(), m_look);
        emit changed();
    }
}

ColumnContent EdgeBench::content() const {
    ColumnContent content;
    const Blade* blade = m_document.blade();
    if (blade == nullptr || m_grid.forces_n.empty()) return content;
    const Batch& batch = m_document.batch();
    const EdgeAsk ask = edgeAskOf(batch);
    const Verdict& verdict = m_document.verdictAt(Gate::edge);
    content.key = tr("Enter");
    content.caption = tr("%1 at Edge").arg(QString::fromStdString(blade->mark));
    content.state = verdict.state;
    content.word = words::stateName(verdict.state);
    content.sub = words::headline(verdict);
    const RungAnswer* failure = worst();
    if (failure != nullptr && failure->damage_thickness_mm && failure->expected) {
        content.numbers.push_back({tr("Metal that gave"), words::lengthNumber(*failure->damage_thickness_mm, 2),
                                   words::unit(Quantity::length), true});
        content.numbers.push_back({tr("Explained to"),
                                   words::lengthNumber(3 * failure->expected->yield_thickness_mm, 2),
                                   words::unit(Quantity::length), false});
    }
    content.lines = reasonLines(verdict);
    if (!blade->grinding.empty() || verdict.state == State::excused) {
        // answered
    } else if (!m_rungs.empty()) {
        content.lines.push_back({Tone::unseen, tr("Colour while grinding? C says"), QStringLiteral("edge"), false});
    }
    if (const auto* profile = m_document.tables().purpose(ask.purpose, ask.school)) {
        const Window window = *m_document.claim().window;
        if (window.low && window.high && (*window.low > profile->window_high || *window.high < profile->window_low))
            content.lines.push_back({Tone::note,
                                     tr("For it %1 to %2 HRC is usual; this batch aims at %3")
                                         .arg(words::hardness(profile->window_low),
                                              words::hardness(profile->window_high), words::windowText(window)),
                                     QStringLiteral("purpose"), false});
    }
    const words::NextWords next = words::nextStep(verdict);
    switch (asked()) {
    case Act::clearCrack:
    case Act::noteEdge:
    case Act::measureDamage:
    case Act::lookAtHeat:
    case Act::fileEdge:
    case Act::logTemper:
    case Act::makerDecides:
        content.act = next.act;
        content.detail = next.detail;
        break;
    default:
        content.act = ask.by_hand && verdict.next.act == Act::takeRung && verdict.next.as<EdgeLoadStep>() == nullptr
                          ? tr("Flex it on the rod")
                          : tr("Take %1").arg(words::rung(chosen()));
        content.detail = m_force.peak_n() ? tr("the scale's peak: %1 N").arg(std::lround(*m_force.peak_n()))
                                          : tr("at %1 from the heel").arg(words::length(m_place_mm, 0));
    }
    content.left = tr("Other rung");
    content.left_key = QStringLiteral("*");
    content.right = tr("Strike out");
    content.right_key = QStringLiteral("/");
    if (failure == nullptr) {
        content.below.push_back({Tone::good, tr("True or a tiny set: it held."), {}, false});
        content.below.push_back({Tone::bad, tr("Thick metal chips or rolls: look at the heat."), {}, false});
    }
    content.below.push_back({Tone::note, words::cautionText(Caution::sharpEdge), {}, true});
    return content;
}

// What comes next, as far as it can be done here: damage of which the depth is known, but no load, asks for a rung.
Act EdgeBench::asked() const {
    const Act act = m_document.verdictAt(Gate::edge).next.act;
    return act == Act::measureDamage && unmeasured() == nullptr ? Act::takeRung : act;
}

const EdgeRung* EdgeBench::unmeasured() const {
    const auto last = std::find_if(m_rungs.rbegin(), m_rungs.rend(),
                                   [](const EdgeRung& rung) { return !rung.struck && rung.failed() && !rung.size_mm; });
    return last == m_rungs.rend() ? nullptr : &*last;
}

void EdgeBench::act() {
    const Blade* blade = m_document.blade();
    if (blade == nullptr || m_grid.forces_n.empty()) return;
    const EdgeAsk ask = edgeAskOf(m_document.batch());
    const Verdict& verdict = m_document.verdictAt(Gate::edge);
    switch (asked()) {
    case Act::clearCrack: // nothing flexes a cracked edge
        return emit commandWanted(QStringLiteral("clear-crack"));
    case Act::logTemper: // nor a glass-hard one
        return emit commandWanted(QStringLiteral("temper"));
    case Act::noteEdge:
        return measure();
    case Act::fileEdge:
        return noteGrinding();
    case Act::lookAtHeat:
        return lookAtHeat();
    case Act::measureDamage:
        return askDamage(*unmeasured());
    case Act::makerDecides:
        return emit commandWanted(QStringLiteral("gate.release"));
    default:
        break;
    }
    if (verdict.next.act == Act::takeRung && verdict.next.as<EdgeLoadStep>() == nullptr && ask.by_hand)
        return flexByHand();
    EdgeRung rung;
    rung.round = blade->round;
    rung.after_temper = lastTemper(*blade);
    rung.force_n = m_force.peak_n() ? m_force.peak_n() : std::optional(chosen().force_n);
    rung.raise_deg = chosen().raise_deg;
    rung.place_mm = m_place_mm;
    askOutcome(rung);
}

Commands EdgeBench::commands() {
    const auto blade = [this] { return m_document.blade() == nullptr ? tr("No blade is chosen.") : QString(); };
    const auto tempered = [this] {
        const Blade* one = m_document.blade();
        if (one == nullptr) return tr("No blade is chosen.");
        return isUntempered(m_document.batch(), *one) ? tr("It is glass-hard: temper it first.") : QString();
    };
    return {
        {QStringLiteral("edge.other"), tr("Other rung"), tr("a load and an angle of your own"), Verb::other,
         [this] { otherRung(); }, tempered},
        {QStringLiteral("edge.strike"), tr("Strike out"), tr("the last rung"), Verb::strike, [this] { strikeLast(); },
         blade},
        {QStringLiteral("edge.geometry"), tr("Geometry"), tr("thickness behind the edge, angle, finish"),
         Verb::geometry, [this] { measure(); }, blade},
        {QStringLiteral("edge.flex"), tr("Flex by hand"), tr("over the rod, at about the sharpening angle"), Verb::none,
         [this] { flexByHand(); }, tempered},
        {QStringLiteral("edge.damage"), tr("Mark damage"), tr("chip, roll, bend, crack: what and where"), Verb::none,
         [this] { markDamage(); }, blade},
        {QStringLiteral("edge.grinding"), tr("Grinding"), tr("colours seen, and whether they are cleared"), Verb::none,
         [this] { noteGrinding(); }, blade},
        {QStringLiteral("edge.purpose"), tr("What is asked"), tr("the rung by purpose"), Verb::plan,
         [this] { choosePurpose(); }, blade},
        {QStringLiteral("edge.own-ask"), tr("Ask this rung"), tr("what the batch has to hold"), Verb::none,
         [this] { takeOwnAsk(); }, blade},
        {QStringLiteral("edge.history"), tr("History"), tr("of this edge"), Verb::none, [this] { history(); }, blade},
        {QStringLiteral("edge.wire"), tr("Scale on a wire"), tr("port and pattern"), Verb::none, [this] { wire(); },
         blade},
        {QStringLiteral("edge.picture"), tr("Picture"), tr("of the ladder, as a file"), Verb::inAndOut,
         [this] { exportPicture(); }, blade}};
}

QStringList EdgeBench::movements() const {
    return {tr("Arrows   another rung of the ladder; Shift with them: another place on the edge")};
}

bool EdgeBench::key(QKeyEvent* event) {
    if (m_document.blade() == nullptr || m_grid.forces_n.empty()) return false;
    const bool shift = event->modifiers() & Qt::ShiftModifier;
    const auto step = [&](int force, int raise) {
        m_forceIndex = std::clamp(m_forceIndex + force, 0, static_cast<int>(m_grid.forces_n.size()) - 1);
        m_raiseIndex = std::clamp(m_raiseIndex + raise, 0, static_cast<int>(m_grid.raises_deg.size()) - 1);
        emit changed();
        return true;
    };
    switch (event->key()) {
    case Qt::Key_Left:
    case Qt::Key_Right:
        if (shift) {
            m_place_mm = std::clamp(m_place_mm + (event->key() == Qt::Key_Left ? -1 : 1), 0.0,
                                    std::max(20.0, m_document.blade()->shape.length()));
            emit changed();
            return true;
        }
        return step(event->key() == Qt::Key_Left ? -1 : 1, 0);
    case Qt::Key_Up:
        return step(0, 1);
    case Qt::Key_Down:
        return step(0, -1);
    default:
        break;
    }
    return false;
}

HelpText EdgeBench::help() const {
    return {tr("Does this edge carry the load that its purpose asks, and if not: is it its geometry or its heat "
               "treatment?"),
            {{Pictogram::pen, tr("Measure the edge with G: thickness behind it, and angle.")},
             {Pictogram::rod,
              tr("Press it on a smooth rod at the load and the raise that the rung shows. The button takes the peak.")},
             {Pictogram::magnifier, tr("Look at it against light: held, rolled or chipped, and how large.")},
             {Pictogram::window, tr("What gave way is compared with what the load alone explains.")},
             {Pictogram::arrows, tr("Go on until the rung that is asked for has held.")}},
            {QStringLiteral("M27"), QStringLiteral("M28"), QStringLiteral("E31")},
            tr("It says nothing of a place that was not pressed, nor of wear. The load model holds to a factor of "
               "three. Keep the edge away from the hand that presses.")};
}

} // namespace rollcall
