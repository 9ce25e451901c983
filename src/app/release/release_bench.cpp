// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/release/release_bench.h"

#include "app/acts/shop_actions.h"
#include "app/shared/pointing.h"
#include "core/judge/heat_book.h"
#include "plot/glyphs.h"
#include "words/words.h"

#include <algorithm>

namespace rollcall {

namespace {

constexpr int headHeight = 48; // as the roll's, so that rows meet
constexpr int rowHeight = 56;
constexpr int footHeight = 112;
constexpr int glyph = 18;
constexpr int pitch = 26;
constexpr std::array<Gate, 6> shownGates{Gate::steel, Gate::heat, Gate::quench, Gate::temper, Gate::edge, Gate::proof};

} // namespace

ReleaseBench::ReleaseBench(Document& document, ShopActions& actions, Seams seams, const Look& look, QWidget* parent)
    : Bench(document, look, parent), m_actions(actions), m_seams(std::move(seams)),
      m_rows(new RowList(rowHeight, look, this)) {
    setObjectName(QStringLiteral("release-bench"));
    tellUnder(this, [this](const QPoint& at) { return saysAt(at); });
    setFocusPolicy(Qt::StrongFocus);
    m_rows->setObjectName(QStringLiteral("dispositions"));
    m_rows->setAccessibleName(tr("Dispositions by blade"));
    connect(m_rows, &RowList::chosen, this, [this](int blade) { m_document.selectBlade(blade); });
}

void ReleaseBench::resizeEvent(QResizeEvent*) {
    // The bar for scrolling stands beside the columns, which meet their heads.
    m_rows->setGeometry(px(24), px(headHeight), width() - px(36), height() - px(headHeight) - px(footHeight));
}

void ReleaseBench::refresh() {
    m_answers.clear();
    m_shown = m_document.state();
    m_sample = {};
    if (m_document.hasBatch()) {
        for (std::size_t i = 0; i < m_document.batch().blades.size(); ++i)
            m_answers.push_back(m_document.judged().release(i));
        m_sample = m_document.judged().sample(static_cast<std::size_t>(std::max(0, m_document.bladeIndex())));
    }
    m_rows->show({static_cast<int>(m_answers.size()), m_document.bladeIndex(),
                  [this](QPainter& painter, const QRect& row, int blade) { drawRow(painter, row, blade); },
                  [this](int blade) { return rowText(blade); }});
    setAccessibleName(content().sub);
    update();
}

QString ReleaseBench::rowText(int blade) const {
    const auto index = static_cast<std::size_t>(blade);
    const ReleaseAnswer& answer = m_answers[index];
    const Disposition shown =
        answer.signature != nullptr ? answer.signature->disposition : answer.suggestion.disposition;
    return tr("%1: %2. %3")
        .arg(QString::fromStdString(m_document.batch().blades[index].mark),
             answer.out ? tr("Out") : words::dispositionName(shown), reasonOf(answer));
}

std::vector<std::size_t> ReleaseBench::mayGo() const {
    std::vector<std::size_t> blades;
    for (std::size_t i = 0; i < m_answers.size(); ++i) {
        if (m_answers[i].maySign()) blades.push_back(i);
    }
    return blades;
}

std::optional<std::size_t> ReleaseBench::nextOpen() const {
    const std::size_t count = m_answers.size();
    const auto from = static_cast<std::size_t>(std::max(0, m_document.bladeIndex()));
    for (std::size_t i = 1; i <= count; ++i) {
        if (!m_answers[(from + i) % count].decided()) return (from + i) % count;
    }
    return std::nullopt;
}

bool ReleaseBench::inHandDecided() const {
    const auto index = static_cast<std::size_t>(m_document.bladeIndex());
    return index < m_answers.size() && m_answers[index].decided();
}

QString ReleaseBench::reasonOf(const ReleaseAnswer& answer) const {
    if (answer.out) return {};
    if (answer.signature != nullptr && !answer.changed.empty())
        return tr("signed by %1, but %2 has changed since")
            .arg(QString::fromStdString(answer.signature->by), QString::fromStdString(answer.changed.front().gate));
    if (answer.signature != nullptr)
        return answer.signature->reason.empty() ? tr("signed by %1").arg(QString::fromStdString(answer.signature->by))
                                                : tr("%1 (%2)").arg(QString::fromStdString(answer.signature->reason),
                                                                    QString::fromStdString(answer.signature->by));
    switch (answer.suggestion.disposition) {
    case Disposition::release:
        return tr("every gate is answered; to sign");
    case Disposition::reharden:
        return tr("suggested by %1; would be round %2")
            .arg(words::gateName(answer.suggestion.gate))
            .arg(answer.suggestion.next_round);
    case Disposition::otherPurpose:
        return tr("suggested: its hardness fits %1").arg(QString::fromStdString(answer.suggestion.purpose).toLower());
    default: {
        QStringList open;
        for (const OpenGate& one : answer.open)
            open << tr("%1 %2").arg(words::gateName(one.gate), words::stateName(one.state).toLower());
        return open.join(QStringLiteral(", "));
    }
    }
}

void ReleaseBench::drawRow(QPainter& painter, const QRect& at, int blade) const {
    const Palette& p = palette();
    painter.fillRect(at, p.panel);
    const int right = at.left() + width() - px(48);
    const auto index = static_cast<std::size_t>(blade);
    const ReleaseAnswer& answer = m_answers[index];
    const bool chosen = blade == m_document.bladeIndex();
    const int gates = static_cast<int>(shownGates.size()) * px(pitch);
    const bool decided = answer.signature != nullptr && answer.changed.empty();
    const Disposition shown =
        answer.signature != nullptr ? answer.signature->disposition : answer.suggestion.disposition;
    const QString word = answer.out ? tr("Out") : words::dispositionName(shown);
    const QString reason =
        answer.out ? QString::fromStdString(m_document.batch().blades[index].fate->reason) : reasonOf(answer);
    // What is only suggested is not bold: nobody has decided it.
    drawText(painter, at.left(), at.top() + px(25), word, m_look.font(18, decided || answer.out),
             chosen ? p.primary : p.ink);
    drawFitted(painter, at.left(), at.top() + px(46), reason, right - at.left() - gates - px(12), m_look, 16, false,
               !decided && answer.signature != nullptr ? p.borderline : p.muted);
    for (std::size_t g = 0; g < shownGates.size(); ++g) {
        const Verdict* verdict = m_document.verdict(blade, shownGates[g]);
        if (verdict == nullptr) continue;
        drawVerdictGlyph(painter, right - gates + static_cast<int>(g) * px(pitch) + px((pitch - glyph) / 2),
                         at.top() + px(10), px(glyph), verdict->state, m_look, p.panel);
    }
    fillLine(painter, at.left(), at.bottom(), right - at.left(), 1, p.hair);
}

void ReleaseBench::drawSample(QPainter& painter, const QRect& area) const {
    const Palette& p = palette();
    const Batch& batch = m_document.batch();
    const auto marks = [&](const std::vector<std::size_t>& blades) {
        QStringList names;
        for (const std::size_t i : blades) names << QString::fromStdString(batch.blades[i].mark);
        return names.join(QStringLiteral(", "));
    };
    const int y = area.top();
    if (!batch.planOf(Gate::temper).required || m_sample.unread.empty()) {
        drawFitted(painter, area.left(), y + px(30), whatIsLeft(), area.width(), m_look, 18, false, p.ink);
        drawText(painter, area.left(), y + px(58), tr("Signing writes what it rests on."), m_look.font(16), p.muted);
        return;
    }
    drawFitted(painter, area.left(), y + px(26), tr("Not read: %1").arg(marks(m_sample.unread)), area.width(), m_look,
               18, true, p.ink);
    if (m_sample.chance) {
        const QString chance = words::percent(m_sample.chance->all);
        drawText(painter, area.left(), y + px(72), chance, m_look.font(40, true), p.ink);
        const int beside = area.left() + m_look.width(chance, 40, true) + px(14);
        const QString all = m_sample.unread.size() == 1 ? tr("that it is inside") : tr("that all of them are inside");
        drawText(painter, beside, y + px(58), m_sample.chance->rough ? all + tr(", roughly") : all, m_look.font(18),
                 p.ink);
        drawText(painter, beside, y + px(80),
                 batch.sample_asked
                     ? tr("%1 asked; one accident cannot be excluded").arg(words::percent(*batch.sample_asked))
                     : tr("a sample has to be declared; else each is read"),
                 m_look.font(16), p.muted);
    } else {
        drawFitted(painter, area.left(), y + px(58), tr("A sample is fair with: %1").arg(marks(m_sample.next)),
                   area.width(), m_look, 18, false, p.ink);
        drawText(painter, area.left(), y + px(82), tr("first and last out, and between; three at least, five are fair"),
                 m_look.font(16), p.muted);
    }
}

// What the batch still asks, gate by gate in working order.
QString ReleaseBench::whatIsLeft() const {
    const Batch& batch = m_document.batch();
    QStringList left;
    for (const Gate gate : shownGates) {
        QStringList marks;
        for (std::size_t i = 0; i < m_answers.size(); ++i) {
            const bool decided = m_answers[i].signature != nullptr && m_answers[i].changed.empty();
            const bool open = !m_answers[i].out && !decided &&
                              std::any_of(m_answers[i].open.begin(), m_answers[i].open.end(),
                                          [gate](const OpenGate& one) { return one.gate == gate; });
            if (open) marks << QString::fromStdString(batch.blades[i].mark);
        }
        constexpr qsizetype named = 3; // more are counted
        if (marks.size() > named)
            left << tr("%1 %2 blades").arg(words::gateName(gate)).arg(marks.size());
        else if (!marks.isEmpty())
            left << tr("%1 %2").arg(words::gateName(gate), marks.join(QStringLiteral(", ")));
    }
    if (!left.isEmpty()) return tr("Left: %1").arg(left.join(QStringLiteral("; ")));
    return mayGo().empty() ? tr("Nothing is left to do.") : tr("Nothing is left but to sign.");
}

QString ReleaseBench::saysAt(const QPoint& at) const {
    if (!m_document.hasBatch()) return {};
    const int left = width() - px(24) - static_cast<int>(shownGates.size()) * px(pitch);
    const int gate = at.x() < left ? -1 : (at.x() - left) / px(pitch);
    if (at.y() < px(headHeight) && gate >= 0 && gate < static_cast<int>(shownGates.size()))
        return tr("%1: the verdict of each blade at this gate")
            .arg(words::gateName(shownGates[static_cast<std::size_t>(gate)]));
    if (at.y() < height() - px(footHeight)) return {};
    return m_sample.chance ? tr("How likely the blades that were not read are all inside, by those that were (M18). A "
                                "single accident is not in it.")
                           : tr("What is known of the blades that were not read.");
}

void ReleaseBench::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = palette();
    painter.fillRect(rect(), p.panel);
    if (!m_document.hasBatch()) return;
    drawText(painter, px(24), px(34), tr("Disposition"), m_look.font(24, true), p.ink);
    const int gates = static_cast<int>(shownGates.size()) * px(pitch);
    for (std::size_t g = 0; g < shownGates.size(); ++g)
        drawText(painter, width() - px(24) - gates + static_cast<int>(g) * px(pitch) + px(pitch) / 2, px(34),
                 words::gateName(shownGates[g]).left(1), m_look.font(16), p.muted, Qt::AlignHCenter);
    fillLine(painter, px(24), px(headHeight) - 1, width() - px(48), 1, p.line);
    const int foot = height() - px(footHeight);
    fillLine(painter, 0, foot, width(), 1, p.line);
    drawSample(painter, QRect(px(24), foot, width() - px(48), px(footHeight)));
}

ColumnContent ReleaseBench::content() const {
    const Blade* blade = m_document.blade();
    if (blade == nullptr || m_answers.empty()) return {};
    const Verdict& verdict = m_document.verdictAt(Gate::release);
    const QString mark = QString::fromStdString(blade->mark);
    ColumnContent content = columnOf(verdict, blade->mark);
    int in = 0;
    int released = 0;
    for (const ReleaseAnswer& answer : m_answers) {
        in += answer.out ? 0 : 1;
        released += answer.released() ? 1 : 0;
    }
    const auto going = mayGo();
    content.numbers.push_back({tr("May go"), QString::number(going.size()), tr("of %1").arg(in), false});
    content.numbers.push_back({tr("Released"), QString::number(released), tr("of %1").arg(in), false});
    if (!going.empty()) {
        content.act = going.size() == 1
                          ? tr("Sign for %1").arg(QString::fromStdString(m_document.batch().blades[going.front()].mark))
                          : tr("Sign for %1 blades").arg(going.size());
        content.detail = tr("all whose gates are answered");
    } else if (const Act act = verdict.next.act;
               act == Act::clearCrack || act == Act::repairDamage || act == Act::logTemper) {
        const words::NextWords words = words::nextStep(verdict);
        content.act = words.act;
        content.detail = words.detail;
    } else if (const auto next = nextOpen(); inHandDecided() && next) {
        content.act = tr("On to %1").arg(QString::fromStdString(m_document.batch().blades[*next].mark));
        content.detail = tr("the next that is not decided");
    } else if (inHandDecided()) {
        content.act = tr("To the batch");
        content.detail = tr("every blade is decided");
    } else {
        content.act = tr("Decide on %1").arg(mark);
        content.detail = tr("release over a gate, hold, scrap ...");
    }
    content.left = tr("Decide");
    content.left_key = QStringLiteral("*");
    content.right = tr("Certificate");

    if (!m_sample.unread.empty()) content.below.push_back({Tone::note, whatIsLeft(), {}, false});
    if (blade->round > 1)
        content.below.push_back({Tone::note,
                                 tr("Re-hardened %1; this shop stops at %2.")
                                     .arg(words::times(blade->round - 1))
                                     .arg(m_document.batch().rehardening_limit),
                                 {},
                                 false});
    content.below.push_back(
        {Tone::note, tr("Signing writes what it rests on. A later change makes it stale."), {}, false});
    return content;
}

void ReleaseBench::leftAct() {
    m_actions.decide();
}

void ReleaseBench::act() {
    if (!m_document.hasBatch() || m_document.blade() == nullptr) return;
    if (!mayGo().empty()) return signAll();
    switch (m_document.verdictAt(Gate::release).next.act) {
    case Act::clearCrack:
    case Act::repairDamage:
        return emit commandWanted(QStringLiteral("clear-crack"));
    case Act::logTemper:
        return emit commandWanted(QStringLiteral("temper"));
    default:
        break;
    }
    if (!inHandDecided()) return m_actions.decide();
    // Never back to what is signed: on to the next that somebody must decide, or to the batch.
    if (const auto next = nextOpen()) return m_document.selectBlade(static_cast<int>(*next));
    emit commandWanted(QStringLiteral("overview"));
}

Commands ReleaseBench::commands() {
    return {{QStringLiteral("release.decide"), tr("Decide"), tr("hold, re-harden, other purpose, scrap"), Verb::other,
             [this] { m_actions.decide(); }},
            {QStringLiteral("release.certificate"), tr("Certificate"), tr("of the blades that are released"),
             Verb::none, [this] { certificate(); }},
            {QStringLiteral("release.papers"), tr("Cards and table"), tr("on paper"), Verb::none,
             [this] { otherPapers(); }},
            {QStringLiteral("release.sample"), tr("Read a sample"), tr("and leave the rest, with its chance"),
             Verb::none, [this] { askSample(); }}};
}

std::vector<ReportTable> ReleaseBench::tables() const {
    return {}; // the batch's own tables are what is shown
}

HelpText ReleaseBench::help() const {
    return {tr("May this blade leave the shop, and who says so on what grounds?"),
            {{Pictogram::boxes,
              tr("Each line is a blade, each column a gate. What is open is said in the column at the right.")},
             {Pictogram::question,
              tr("Decide what is not passed: hold, re-harden, another purpose, scrap, or release with a reason.")},
             {Pictogram::pen, tr("Sign for all whose gates are answered. What the verdicts were then is kept.")},
             {Pictogram::page, tr("Print the certificate, the cards, the table. Each carries the code of its piece.")}},
            {QStringLiteral("M18")},
            tr("A signature does not change a verdict. What changes afterwards makes the signature stale, and it says "
               "so.")};
}

} // namespace rollcall
