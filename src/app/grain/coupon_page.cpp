// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/grain/coupon_page.h"

#include "app/shared/pointing.h"
#include "core/judge/proof_judge.h"
#include "plot/fracture_picture.h"
#include "words/units.h"
#include "words/words.h"

#include <algorithm>
#include <QClipboard>
#include <QGuiApplication>

namespace rollcall {

namespace {

State stateOf(GrainStands stands) {
    return stands == GrainStands::fine      ? State::pass
           : stands == GrainStands::between ? State::borderline
           : stands == GrainStands::coarse  ? State::fail
                                            : State::notYet;
}

} // namespace

CouponPage::CouponPage(Document& document, const Look& look) : Bench(document, look) {
    setObjectName(QStringLiteral("coupon-page"));
    tellUnder(this, m_told);
}

void CouponPage::refresh() {
    m_study = {};
    if (m_document.hasBatch()) m_study = grainStudy(m_document.batch(), m_document.tables(), m_factor);
    setAccessibleName(content().sub);
    update();
}

QString CouponPage::factorName() const {
    switch (m_factor) {
    case GrainFactor::soak:
        return tr("soak");
    case GrainFactor::setPoint:
        return tr("oven");
    case GrainFactor::changed:
        return tr("change");
    }
    return {};
}

QString CouponPage::xText(double x) const {
    return m_factor == GrainFactor::soak       ? words::tenths(x)
           : m_factor == GrainFactor::setPoint ? words::degreesNumber(x)
           : x > 0                             ? tr("changed")
                                               : tr("as it came");
}

double CouponPage::shown(double x) const {
    return m_factor == GrainFactor::setPoint ? inUnits(x, Quantity::temperature, words::units()) : x;
}

double CouponPage::slope() const {
    const double apart =
        m_factor == GrainFactor::setPoint ? differenceInUnits(1, Quantity::temperature, words::units()) : 1;
    return m_study.trend->slope / apart;
}

std::vector<QStringList> CouponPage::rows() const {
    std::vector<QStringList> rows;
    const Batch& batch = m_document.batch();
    for (const GrainCoupon& coupon : m_study.coupons)
        rows.push_back(
            {QString::fromStdString(batch.blades[coupon.blade].mark), xText(coupon.x), words::tenths(coupon.reading.g),
             tr("%1 to %2")
                 .arg(words::tenths(coupon.reading.low_high.first), words::tenths(coupon.reading.low_high.second))});
    for (const GrainExpected& expected : m_study.expected)
        rows.push_back({QString::fromStdString(batch.blades[expected.blade].mark), xText(expected.x),
                        words::tenths(expected.g), tr("expected")});
    return rows;
}

void CouponPage::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    m_told.clear();
    const Palette& p = palette();
    painter.fillRect(rect(), p.panel);
    if (!m_document.hasBatch()) return;
    if (m_study.coupons.empty()) {
        drawText(painter, 0, px(60), tr("No coupon was counted yet"), m_look.font(28, true), p.ink);
        drawParagraphs(painter, 0, px(110), width(),
                       {tr("Break coupons that soaked for different times, and count them on page 1."),
                        tr("Five of them, in order of their soak, can show whether the grain follows it.")},
                       px(12), m_look, 18, p.ink);
        return;
    }
    const Batch& batch = m_document.batch();
    const double least = grainLeastOf(batch);
    GrainPlot plot;
    plot.least = least;
    plot.unit = m_factor == GrainFactor::soak       ? tr("min")
                : m_factor == GrainFactor::setPoint ? words::unit(Quantity::temperature)
                                                    : QString();
    for (const GrainCoupon& coupon : m_study.coupons)
        plot.points.push_back(
            {QString::fromStdString(batch.blades[coupon.blade].mark), shown(coupon.x), coupon.reading.g,
             coupon.reading.low_high.first, coupon.reading.low_high.second, stateOf(standsTo(coupon.reading, least)),
             false,
             tr("%1: G %2, known to lie from %3 to %4")
                 .arg(QString::fromStdString(batch.blades[coupon.blade].mark), words::tenths(coupon.reading.g),
                      words::tenths(coupon.reading.low_high.first), words::tenths(coupon.reading.low_high.second))});
    for (const GrainExpected& expected : m_study.expected)
        plot.points.push_back(
            {QString::fromStdString(batch.blades[expected.blade].mark), shown(expected.x), expected.g, expected.g,
             expected.g, State::notYet, true,
             tr("%1 was not broken: G %2 is expected of it by the trend")
                 .arg(QString::fromStdString(batch.blades[expected.blade].mark), words::tenths(expected.g))});
    if (m_study.says == GrainStudy::Says::coarser || m_study.says == GrainStudy::Says::finer)
        plot.trend = GrainPlot::Line{shown(m_study.middle_x), m_study.middle_g, slope()};
    if (m_factor == GrainFactor::soak && !batch.heat_runs.empty()) plot.longest = batch.heat_runs.front().max_minutes;
    drawText(painter, 0, px(24), tr("Grain over %1").arg(factorName()), m_look.font(20, true), p.ink);
    drawText(painter, width(), px(24), plot.longest ? tr("dashed: longest soak planned") : QString(), m_look.font(14),
             p.muted, Qt::AlignRight);
    const int tableHeight = px(34) + px(26) * static_cast<int>(m_study.coupons.size() + m_study.expected.size());
    const int high = std::clamp(height() - px(70) - tableHeight, px(200), px(400));
    drawGrainPlot(painter, QRect(0, px(34), width(), high), plot, m_look, &m_told);
    int y = px(34) + high + px(24);
    const std::vector<int> columns{0, px(150), px(290), px(380)};
    const QStringList head{tr("Coupon"), factorName(), QStringLiteral("G"), tr("known to")};
    for (qsizetype i = 0; i < head.size(); ++i)
        drawText(painter, columns[static_cast<std::size_t>(i)], y, head[i], m_look.font(16), p.muted);
    fillLine(painter, 0, y + px(8), width(), 1, p.hair);
    const std::size_t counted = m_study.coupons.size();
    const auto all = rows();
    for (std::size_t i = 0; i < all.size(); ++i) {
        y += px(26);
        if (y > height()) break;
        m_told.add(
            {0, double(y - px(18)), double(width()), double(px(26))},
            i < counted
                ? tr("%1, read: its %2, its grain size number G and what it is known to").arg(all[i][0], factorName())
                : tr("%1, not broken: its %2, and the G that is expected by the trend").arg(all[i][0], factorName()));
        const QColor color = i < counted ? p.number(stateOf(standsTo(m_study.coupons[i].reading, least))) : p.primary;
        for (qsizetype c = 0; c < all[i].size(); ++c)
            drawText(painter, columns[static_cast<std::size_t>(c)], y, all[i][c], m_look.font(18, c != 1 && c != 3),
                     c == 1 || c == 3 ? p.ink : color);
        fillLine(painter, 0, y + px(8), width(), 1, p.hair);
    }
}

ColumnContent CouponPage::content() const {
    ColumnContent content;
    content.key = tr("Enter");
    content.act = tr("Copy the table");
    content.detail = tr("coupons with their grain");
    content.left = tr("Other factor");
    content.left_key = QStringLiteral("*");
    content.caption = tr("Grain over %1").arg(factorName());
    content.state = State::notYet;
    const GrainStudy& study = m_study;
    switch (study.says) {
    case GrainStudy::Says::tooFew:
        content.word = tr("Too few");
        content.sub = tr("%1 coupons of the %2 that can show a trend.").arg(study.coupons.size()).arg(fewestCoupons);
        break;
    case GrainStudy::Says::noTrend:
        content.word = tr("No trend");
        content.sub = tr("What is seen may be chance.");
        break;
    case GrainStudy::Says::coarser:
        content.word = tr("Coarser");
        content.sub =
            m_factor == GrainFactor::soak ? tr("Grain coarsens with the soak.") : tr("Grain coarsens along it.");
        content.state = State::borderline;
        break;
    case GrainStudy::Says::finer:
        content.word = tr("Finer");
        content.sub = tr("Grain is finer along it.");
        break;
    }
    if (study.trend) {
        content.numbers.push_back({m_factor == GrainFactor::soak ? tr("Each minute more")
                                   : m_factor == GrainFactor::setPoint
                                       ? tr("Each %1 more").arg(words::unit(Quantity::temperature))
                                       : tr("Changed"),
                                   QString::number(slope(), 'f', 2), QStringLiteral("G"), false});
        content.lines.push_back({study.says == GrainStudy::Says::noTrend ? Tone::note : Tone::good,
                                 tr("By chance alone in %1 of 100 (rank test)")
                                     .arg(std::max(0.1, 100 * study.trend->p), 0, 'f', study.trend->p < 0.1 ? 1 : 0),
                                 QStringLiteral("Kendall"), false});
    }
    for (const Difference& difference : study.beside)
        content.lines.push_back({difference.known ? Tone::caution : Tone::unseen,
                                 tr("Not alone: %1").arg(words::differenceText(difference)), QStringLiteral("M32"),
                                 false});
    if (study.beside.empty() && study.coupons.size() > 1)
        content.lines.push_back(
            {Tone::good, tr("Nothing else differs that is known of"), QStringLiteral("M32"), false});
    for (const std::size_t blade : study.left_out)
        content.lines.push_back({Tone::unseen,
                                 tr("%1: its %2 is not known")
                                     .arg(QString::fromStdString(m_document.batch().blades[blade].mark), factorName()),
                                 QStringLiteral("record"), false});
    QStringList coarse;
    for (const GrainExpected& expected : study.expected) {
        if (expected.g < grainLeastOf(m_document.batch()))
            coarse << QString::fromStdString(m_document.batch().blades[expected.blade].mark);
    }
    if (!coarse.isEmpty())
        content.below.push_back({Tone::caution,
                                 tr("To be expected coarser than %1, though not broken: %2")
                                     .arg(grainLeastOf(m_document.batch()))
                                     .arg(coarse.join(QStringLiteral(", "))),
                                 {},
                                 false});
    content.below.push_back(
        {Tone::note, tr("One coupon for each soak: repeat before it decides a recipe."), {}, false});
    return content;
}

void CouponPage::nextFactor() {
    m_factor = static_cast<GrainFactor>((static_cast<int>(m_factor) + 1) % 3);
    refresh();
    emit changed();
}

void CouponPage::copy() {
    if (m_study.coupons.empty()) return emit said(tr("There is no table to copy."), true);
    QStringList lines{
        QStringList{tr("Coupon"), factorName(), QStringLiteral("G"), tr("known to")}.join(QLatin1Char('\t'))};
    for (const QStringList& row : rows()) lines << row.join(QLatin1Char('\t'));
    QGuiApplication::clipboard()->setText(lines.join(QLatin1Char('\n')));
    emit said(tr("The table is on the clipboard."), false);
}

Commands CouponPage::commands() {
    return {{QStringLiteral("coupons.factor"), tr("Other factor"), tr("what they are put in order by"), Verb::other,
             [this] { nextFactor(); }}};
}

HelpText CouponPage::help() const {
    return {
        tr("Does the grain grow along a row of coupons, and with what?"),
        {{Pictogram::boxes, tr("Break a coupon of each soak, and count or rate its grain.")},
         {Pictogram::arrows, tr("Choose what they are put in order by.")},
         {Pictogram::window, tr("The line is the trend; beside it stands how often chance alone would show it.")},
         {Pictogram::question, tr("What else differs between them is listed first.")}},
        {QStringLiteral("M30")},
        tr("Five coupons at least can show a trend. One for each soak should be repeated before it decides a recipe.")};
}

} // namespace rollcall
