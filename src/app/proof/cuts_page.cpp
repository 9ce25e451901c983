// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/proof/cuts_page.h"

#include "app/shared/pointing.h"
#include "plot/glyphs.h"
#include "plot/proof_picture.h"
#include "words/words.h"

#include <algorithm>
#include <array>
#include <QKeyEvent>

namespace rollcall {

namespace {

QString ratioText(const CutRatio& ratio) {
    const QString low = QString::number(ratio.low, 'f', 2);
    return ratio.high ? CutsPage::tr("%1 to %2 times").arg(low, QString::number(*ratio.high, 'f', 2))
                      : CutsPage::tr("%1 times or more").arg(low);
}

QString saysText(const CutRatio& ratio, const QString& a, const QString& b) {
    switch (ratio.says) {
    case CutRatio::Says::oneTrial:
        return CutsPage::tr("One trial each: it may be chance.");
    case CutRatio::Says::tooFewRuns:
        return CutsPage::tr("Three runs of each would say more.");
    case CutRatio::Says::open:
        return CutsPage::tr("Which cuts longer is open.");
    case CutRatio::Says::aLonger:
        return CutsPage::tr("%1 cuts longer.").arg(a);
    case CutRatio::Says::bLonger:
        return CutsPage::tr("%1 cuts longer.").arg(b);
    }
    return {};
}

} // namespace

CutsPage::CutsPage(Document& document, const Look& look) : Bench(document, look) {
    setObjectName(QStringLiteral("cuts-page"));
    tellUnder(this, [this](const QPoint& at) { return saysAt(at); });
}

void CutsPage::refresh() {
    m_runs.clear();
    m_facts.clear();
    if (m_document.hasBatch()) {
        const Batch& batch = m_document.batch();
        for (std::size_t b = 0; b < batch.blades.size(); ++b) {
            m_facts.push_back(m_document.judged().facts(b));
            for (const Trial& trial : batch.blades[b].trials) {
                if (!isPresent(trial, batch.blades[b])) continue;
                const TrialProgress progress = progressOf(trial);
                for (std::size_t i = 0; i < progress.steps.size(); ++i) {
                    if (trial.protocol.steps[i].kind != StepKind::cuts) continue;
                    const auto dull = dullInterval(progress.steps[i].looks);
                    if (dull) m_runs.push_back({b, trial.protocol.steps[i].on, progress.steps[i].looks, *dull});
                }
            }
        }
    }
    const auto chosen = other();
    m_other = chosen ? static_cast<int>(*chosen) : -1;
    setAccessibleName(content().sub);
    update();
}

std::vector<DullInterval> CutsPage::runsOf(std::size_t blade) const {
    std::vector<DullInterval> runs;
    for (const Run& run : m_runs) {
        if (run.blade == blade) runs.push_back(run.dull);
    }
    return runs;
}

// The blade chosen to be compared with, else the first other one that was cut with.
std::optional<std::size_t> CutsPage::other() const {
    const auto own = static_cast<std::size_t>(m_document.bladeIndex());
    if (m_other >= 0 && static_cast<std::size_t>(m_other) != own && !runsOf(static_cast<std::size_t>(m_other)).empty())
        return static_cast<std::size_t>(m_other);
    for (const Run& run : m_runs) {
        if (run.blade != own) return run.blade;
    }
    return std::nullopt;
}

void CutsPage::stepOther(int by) {
    if (!m_document.hasBatch() || m_document.batch().blades.empty()) return;
    const int count = static_cast<int>(m_document.batch().blades.size());
    int at = m_other;
    for (int i = 0; i < count; ++i) {
        at = (at + by + count) % count;
        if (at != m_document.bladeIndex() && !runsOf(static_cast<std::size_t>(at)).empty()) break;
    }
    m_other = at;
    emit changed();
}

// Everything in which the two blades and their runs differ.
QStringList CutsPage::unfair(std::size_t other) const {
    const auto own = static_cast<std::size_t>(m_document.bladeIndex());
    QStringList all;
    const auto medium = [&](std::size_t blade) -> std::string {
        for (auto run = m_runs.rbegin(); run != m_runs.rend(); ++run) {
            if (run->blade == blade) return run->medium;
        }
        return {};
    };
    if (medium(own) != medium(other))
        all << tr("cut into %1 against %2")
                   .arg(QString::fromStdString(medium(own)), QString::fromStdString(medium(other)));
    for (const Difference& difference : differencesBeside({m_facts[own], m_facts[other]}, std::nullopt))
        all << words::differenceText(difference);
    return all;
}

CutChart CutsPage::chart() const {
    const Batch& batch = m_document.batch();
    const auto own = static_cast<std::size_t>(m_document.bladeIndex());
    CutChart chart;
    std::map<std::size_t, int> numbered;
    for (const Run& run : m_runs)
        chart.runs.push_back(
            {tr("%1 run %2").arg(QString::fromStdString(batch.blades[run.blade].mark)).arg(++numbered[run.blade]),
             run.looks, run.dull, run.blade == own});
    return chart;
}

QRect CutsPage::chartArea() const {
    return {0, px(40), width(), std::min(height() - px(280), px(54) * static_cast<int>(m_runs.size()) + px(40))};
}

QString CutsPage::saysAt(const QPoint& at) const {
    const QString look =
        m_document.hasBatch() && !m_runs.empty() ? cutsSay(chartArea(), chart(), at, m_look) : QString();
    return look.isEmpty() ? m_told.at(at) : look;
}

void CutsPage::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = palette();
    painter.fillRect(rect(), p.panel);
    m_told.clear();
    if (!m_document.hasBatch() || m_document.blade() == nullptr) return;
    if (m_runs.empty()) {
        drawText(painter, 0, px(60), tr("Nothing was cut yet"), m_look.font(28, true), p.ink);
        drawText(painter, 0, px(100), tr("Begin a trial with cuts, such as Cut to dull."), m_look.font(18), p.ink);
        return paintBlades(painter, px(150));
    }
    const Batch& batch = m_document.batch();
    const auto own = static_cast<std::size_t>(m_document.bladeIndex());
    const CutChart chart = this->chart();
    drawEnds(painter, 0, width(), px(24), {tr("When each went dull"), 20, true, p.ink},
             {tr("tick passes, diamond hesitates, cross fails"), 14, false, p.muted}, m_look);
    m_told.add(chartArea(), tr("Cuts done, run by run; the bar is where each edge went dull"));
    drawCuts(painter, chartArea(), chart, m_look);
    int y = chartArea().bottom() + 1 + px(40);
    const auto compared = other();
    const auto theirs = compared ? runsOf(*compared) : std::vector<DullInterval>();
    const auto ratio = cutRatio(runsOf(own), theirs);
    if (ratio) {
        const QString a = QString::fromStdString(batch.blades[own].mark);
        const QString b = QString::fromStdString(batch.blades[*compared].mark);
        drawText(painter, 0, y, tr("%1 against %2").arg(a, b), m_look.font(20, true), p.ink);
        m_told.add({0, double(y - px(24)), double(width()), double(px(34))},
                   tr("How many times as many cuts, from the least to the most that the looks allow"));
        drawText(painter, width(), y, ratioText(*ratio), m_look.font(24, true), p.ink, Qt::AlignRight);
        y += px(30);
        const auto differences = unfair(*compared);
        drawText(painter, 0, y, differences.isEmpty() ? tr("Nothing known makes it unfair.") : tr("Not a fair match:"),
                 m_look.font(18), p.ink);
        for (const QString& difference : differences) {
            y += px(26);
            if (y > height()) return;
            drawToneGlyph(painter, 0, y - px(14), px(16), Tone::caution, m_look, p.panel);
            drawFitted(painter, px(26), y, difference, width() - px(30), m_look, 16, false, p.ink);
        }
        y += px(44);
    }
    paintBlades(painter, y);
}

std::vector<ReportTable> CutsPage::tables() const {
    if (!m_document.hasBatch()) return {};
    const auto orNone = [](const std::optional<double>& value, const auto& text) {
        return value ? text(*value) : QStringLiteral("\u2013");
    };
    ReportTable table{tr("Cuts"), {tr("Blade"), tr("cuts"), tr("HRC"), tr("edge"), tr("a side")}, {}};
    const std::vector<Blade>& blades = m_document.batch().blades;
    for (std::size_t i = 0; i < blades.size(); ++i) {
        const auto runs = runsOf(i);
        QString cuts = tr("not cut yet");
        if (!runs.empty())
            cuts = runs.back().first_fail ? tr("%1 to %2").arg(runs.back().last_pass).arg(*runs.back().first_fail)
                                          : tr("%1 or more").arg(runs.back().last_pass);
        table.rows.push_back({QString::fromStdString(blades[i].mark), cuts, orNone(m_facts[i].hrc, words::hardness),
                              orNone(m_facts[i].edge_mm, [](double mm) { return words::length(mm, 2); }),
                              orNone(m_facts[i].angle_deg, [](double d) { return tr("%1°").arg(d, 0, 'f', 0); })});
    }
    return {table};
}

void CutsPage::paintBlades(QPainter& painter, int top) {
    const Palette& p = palette();
    const ReportTable table = tables().front();
    constexpr int step = 28;
    const std::size_t room = static_cast<std::size_t>(std::max(0, (height() - top - px(36)) / px(step)));
    if (room < 2 || table.rows.size() < 2) return;
    const auto own = static_cast<std::size_t>(m_document.bladeIndex());
    constexpr std::array ends{0.0, 0.44, 0.58, 0.80, 1.0}; // of the width; the mark at the left, all else ends there
    const auto cell = [&](std::size_t column, int y, const QString& text, const QFont& font, const QColor& colour) {
        drawText(painter, width() * ends[column], y, text, font, colour, column == 0 ? Qt::AlignLeft : Qt::AlignRight);
    };
    for (std::size_t c = 0; c < ends.size(); ++c)
        cell(c, top, table.head[static_cast<qsizetype>(c)], m_look.font(14), p.muted);
    int y = top;
    for (std::size_t i = 0; i < table.rows.size(); ++i) {
        y += px(step);
        if (i + 1 == room && i + 1 < table.rows.size())
            return drawText(painter, 0, y, tr("and %1 more").arg(table.rows.size() - i), m_look.font(16), p.muted);
        const QVariantList& row = table.rows[i];
        QStringList says;
        for (qsizetype c = 1; c < row.size(); ++c) says << tr("%1 %2").arg(table.head[c], row[c].toString());
        m_told.add({0, double(y - px(20)), double(width()), double(px(step))},
                   QStringLiteral("%1: %2").arg(row[0].toString(), says.join(QStringLiteral(", "))));
        for (std::size_t c = 0; c < ends.size(); ++c)
            cell(c, y, table.rows[i][static_cast<qsizetype>(c)].toString(), m_look.font(16, i == own),
                 runsOf(i).empty() ? p.muted : p.ink);
    }
}

ColumnContent CutsPage::content() const {
    ColumnContent content;
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return content;
    const auto own = static_cast<std::size_t>(m_document.bladeIndex());
    const auto runs = runsOf(own);
    content.key = tr("Enter");
    content.caption = tr("%1, cutting").arg(QString::fromStdString(blade->mark));
    content.word = runs.empty()             ? tr("Not cut")
                   : runs.back().first_fail ? tr("%1 cuts").arg(runs.back().last_pass)
                                            : tr("%1 so far").arg(runs.back().last_pass);
    content.state = State::notYet;
    content.act = tr("Another run");
    content.detail = tr("a trial with cuts, on this blade");
    content.left = tr("Other blade");
    content.left_key = QStringLiteral("→");
    if (!runs.empty()) {
        const DullInterval& last = runs.back();
        content.sub = last.first_fail ? tr("Dull between %1 and %2.").arg(last.last_pass).arg(*last.first_fail)
                                      : tr("Stopped while it still cut.");
        if (last.first_hesitation)
            content.lines.push_back(
                {Tone::note, tr("First hesitated at %1").arg(*last.first_hesitation), QStringLiteral("M31"), false});
    } else {
        content.sub = tr("This blade was not cut with.");
    }
    if (const auto compared = other(); compared && !runs.empty()) {
        const QString a = QString::fromStdString(blade->mark);
        const QString b = QString::fromStdString(m_document.batch().blades[*compared].mark);
        if (const auto ratio = cutRatio(runs, runsOf(*compared))) {
            content.lines.push_back({ratio->says == CutRatio::Says::aLonger || ratio->says == CutRatio::Says::bLonger
                                         ? Tone::good
                                         : Tone::note,
                                     saysText(*ratio, a, b), QStringLiteral("M31"), false});
            content.lines.push_back({Tone::note, tr("%1 lasted %2 as long as %3").arg(a, ratioText(*ratio), b),
                                     QStringLiteral("M31"), false});
        }
        if (!unfair(*compared).isEmpty())
            content.lines.push_back(
                {Tone::caution, tr("Not a fair match: see the list"), QStringLiteral("M31"), false});
    }
    content.below.push_back({Tone::note, words::cautionText(Caution::rope), {}, true});
    return content;
}

void CutsPage::act() {
    emit trialWanted();
}

QStringList CutsPage::movements() const {
    return {tr("Left and right   the other blade")};
}

bool CutsPage::key(QKeyEvent* event) {
    if (event->key() != Qt::Key_Right && event->key() != Qt::Key_Left) return false;
    stepOther(event->key() == Qt::Key_Right ? 1 : -1);
    return true;
}

HelpText CutsPage::help() const {
    return {
        tr("How long does this edge cut, and does it last longer than the other one?"),
        {{Pictogram::rope, tr("Begin a trial that counts cuts, with the same material for both blades.")},
         {Pictogram::clock, tr("One key a cut; say when it hesitates, and when it is dull.")},
         {Pictogram::arrows, tr("Choose the other blade with left and right.")},
         {Pictogram::window, tr("The ratio is shown with its interval, and what was not equal in a list beside it.")}},
        {QStringLiteral("M31")},
        tr("One run each is one trial. Media vary more than steels: three runs each begin to tell. Hardness alone "
           "ranks nothing.")};
}

} // namespace rollcall
