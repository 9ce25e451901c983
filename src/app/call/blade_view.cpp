// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/call/blade_view.h"

#include "app/shared/accessible.h"
#include "app/shared/pointing.h"
#include "core/measure/verification.h"
#include "words/words.h"

#include <QMouseEvent>

namespace rollcall {

BladeView::BladeView(const Document& document, ReadingStation& station, const Look& look, QWidget* parent)
    : QWidget(parent), m_document(document), m_station(station), m_look(look) {
    setRole(this, QAccessible::Graphic);
    setObjectName(QStringLiteral("blade-view"));
    setMinimumHeight(look.px(48));
    tellUnder(this, [this](const QPoint& at) { return saysAt(at); });
}

void BladeView::refresh() {
    m_picture = {};
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return update();
    m_picture.shape = blade->shape;
    m_picture.shape_known = blade->shape.outline.size() >= 3;
    if (!m_picture.shape_known) m_picture.shape.outline = BladeShape::knife(100, 26, 1).outline;
    const SpacingRule rule = m_station.spacing();
    m_picture.keep_out_mm = rule.min_spacing_mm / 2;
    m_picture.edge_distance_mm = rule.min_edge_mm;
    const Verdict* verdict = m_document.verdict();
    int number = 0;
    for (const Reading& r : blade->readings) {
        if (!r.spot || r.surface != blade->surface) continue;
        IndentMark mark{*r.spot, IndentMark::Kind::older, {}};
        if (verdict != nullptr) {
            const auto in = [&](const std::vector<std::string>& ids) {
                return std::find(ids.begin(), ids.end(), r.id) != ids.end();
            };
            if (in(verdict->standing))
                mark = {*r.spot, IndentMark::Kind::current, QString::number(++number)};
            else if (in(verdict->left_out))
                mark = {*r.spot, IndentMark::Kind::leftOut, {}};
        }
        m_picture.indents.push_back(mark);
    }
    if (m_station.expectsReading() && m_picture.shape_known) {
        m_picture.next = m_station.nextSpot();
        m_picture.next_label = QString::number(number + 1);
        if (m_picture.next) {
            const SpotCheck check = m_station.checkNext();
            m_picture.next_allowed = check.allowed;
            m_picture.title = tr("Next spot %1 from the heel").arg(words::length(m_picture.next->x_mm, 0));
            m_picture.subtitle =
                check.nearest ? tr("indent at %1, needs %2")
                                    .arg(words::length(check.nearest_mm), words::lengthNumber(rule.min_spacing_mm))
                              : tr("edge at %1, needs %2")
                                    .arg(words::length(check.edge_mm), words::lengthNumber(rule.min_edge_mm));
        } else {
            m_picture.title = tr("No next spot");
            m_picture.subtitle = m_station.noSpotReason();
        }
    }
    QStringList told{m_picture.title, m_picture.subtitle};
    told.removeAll(QString());
    if (told.isEmpty() && blade != nullptr) told << tr("The blade %1").arg(QString::fromStdString(blade->mark));
    setAccessibleName(told.join(QStringLiteral(". ")));
    update();
}

QPointF BladeView::pixelOf(const Spot& spot) const {
    return BladeScale::fitting(m_picture.shape, rect(), m_look).toPixel(spot);
}

bool BladeView::isNear(const Spot& spot, const QPoint& at) const {
    const QPointF away = pixelOf(spot) - at;
    return std::hypot(away.x(), away.y()) <= m_look.px(8);
}

std::string BladeView::readingAt(const QPoint& at) const {
    const Blade* blade = m_document.blade();
    if (blade == nullptr || !m_picture.shape_known || m_station.mode() == ReadingStation::Mode::block) return {};
    for (auto r = blade->readings.rbegin(); r != blade->readings.rend(); ++r) { // the latest lies on top
        if (r->spot && r->surface == blade->surface && isNear(*r->spot, at)) return r->id;
    }
    return {};
}

QString BladeView::saysAt(const QPoint& at) const {
    const std::string reading = readingAt(at);
    if (!reading.empty()) {
        for (const Reading& r : m_document.blade()->readings) {
            if (r.id == reading) return words::readingText(m_document.batch(), r);
        }
    }
    if (m_station.mode() == ReadingStation::Mode::block) return tr("How a block is read, and what is allowed on it");
    const bool next = m_picture.next && isNear(*m_picture.next, at);
    constexpr int scaleHeight = 30;
    if (!next && at.y() > height() - m_look.px(scaleHeight))
        return tr("Along the blade from the heel, %1").arg(words::unit(Quantity::length));
    if (!next) return {};
    return m_picture.title + QLatin1Char('\n') + m_picture.subtitle;
}

void BladeView::mousePressEvent(QMouseEvent* event) {
    if (m_station.mode() == ReadingStation::Mode::block || !m_picture.shape_known || !m_station.expectsReading())
        return;
    m_station.chooseSpot(BladeScale::fitting(m_picture.shape, rect(), m_look).toBlade(event->position()));
}

void BladeView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), m_look.palette.panel);
    if (m_station.mode() == ReadingStation::Mode::block) return paintBlockHelp(painter);
    if (m_document.blade() == nullptr) return;
    constexpr int leastPicture = 104; // below it only the words are read
    if (height() >= m_look.px(leastPicture)) return drawBlade(painter, rect(), m_picture, m_look);
    const Palette& p = m_look.palette;
    const int title = fittingSize(m_look, m_picture.title, 18, 12, width(), true);
    drawText(painter, 0, m_look.px(18), m_picture.title, m_look.font(title, true), p.primary);
    const int subtitle = fittingSize(m_look, m_picture.subtitle, 16, 12, width());
    drawText(painter, 0, m_look.px(40), m_picture.subtitle, m_look.font(subtitle), p.muted);
}

void BladeView::paintBlockHelp(QPainter& painter) const {
    const Palette& p = m_look.palette;
    const auto px = [&](int v) { return m_look.px(v); };
    const Block& block = m_station.block();
    const auto band = toleranceFor(m_document.tables(), block.scale, block.certified);
    QStringList lines{tr("Clean block, anvil and indenter. Two readings, five are better."),
                      tr("Indents at least %1 apart on the calibrated side.").arg(words::length(3, 0)),
                      tr("After a change of indenter or anvil discard two first.")};
    if (band) {
        lines << tr("Allowed at %1: error ± %2, spread %3")
                     .arg(words::hardness(block.certified))
                     .arg(band->max_error, 0, 'f', 1)
                     .arg(band->max_repeatability, 0, 'f', 1)
              << tr("(E18 table, line %1; your own copy of the standard governs)").arg(band->line);
    }
    const int step = std::min(px(30), (height() - px(6)) / static_cast<int>(lines.size()));
    int y = std::min(px(34), step);
    for (const QString& line : lines) {
        drawFitted(painter, 0, y, line, width(), m_look, step < px(22) ? 14 : 18, false, p.ink);
        y += step;
    }
}

} // namespace rollcall
