// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/heat/colour_page.h"

#include "app/shared/pointing.h"
#include "core/base/number.h"
#include "logbook/actions/heat.h"
#include "words/words.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainterPath>

namespace rollcall {

namespace {

const std::array<const char*, 3> zones{"spine", "flat", "edge"};

QString zoneName(const std::string& zone) {
    return zone == "spine" ? ColourPage::tr("spine") : zone == "edge" ? ColourPage::tr("edge") : ColourPage::tr("flat");
}

QString surfaceName(OxideSurface surface) {
    switch (surface) {
    case OxideSurface::bare:
        return ColourPage::tr("bare bright steel");
    case OxideSurface::coated:
        return ColourPage::tr("coated");
    case OxideSurface::scaled:
        return ColourPage::tr("scaled or decarburised");
    case OxideSurface::foil:
        return ColourPage::tr("wrapped in foil");
    }
    return {};
}

} // namespace

ColourPage::ColourPage(Document& document, const Look& look) : Bench(document, look) {
    setObjectName(QStringLiteral("colour-page"));
    tellUnder(this, m_told);
}

std::vector<const OxideColour*> ColourPage::colours() const {
    const Grade* grade = m_document.hasBatch() ? m_document.tables().grade(m_document.claim().grade) : nullptr;
    const bool stainless = grade != nullptr && grade->isStainless();
    std::vector<const OxideColour*> row;
    for (const OxideColour& colour : m_document.tables().oxideColours()) {
        if (colour.stainless == stainless) row.push_back(&colour);
    }
    return row;
}

// The temper that the colour belongs to: the last one of this hardening.
const Temper* ColourPage::temper() const {
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return nullptr;
    const Temper* last = nullptr;
    for (const Temper& one : blade->tempers) {
        if (one.round == blade->round && (last == nullptr || one.number > last->number)) last = &one;
    }
    return last;
}

Result<ColourRange> ColourPage::range(const std::string& colour) const {
    const Grade* grade = m_document.tables().grade(m_document.claim().grade);
    const Temper* of = temper();
    // A torch takes minutes.
    const double hours = m_torch ? 0.1 : of != nullptr && of->hours ? *of->hours : 1.0;
    return colourRange(m_document.tables(), colour, hours, m_surface, grade != nullptr ? grade->chromium_percent : 0,
                       grade != nullptr && grade->isStainless());
}

void ColourPage::refresh() {
    m_colour = std::clamp(m_colour, 0, static_cast<int>(colours().size()) - 1);
    setAccessibleName(content().sub);
    update();
}

QRect ColourPage::stripArea() const {
    return {0, px(40), width(), px(170)};
}

void ColourPage::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    m_told.clear();
    const Palette& p = palette();
    painter.fillRect(rect(), p.panel);
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return;
    const auto row = colours();
    OxideStrip strip;
    for (const OxideColour* colour : row) {
        const auto means = range(colour->name);
        strip.bands.push_back({QString::fromStdString(colour->described), QColor::fromRgb(colour->srgb),
                               means ? tr("%1 to %2").arg(words::degrees(means->low_c), words::degrees(means->high_c))
                                     : words::errorText(means.error())});
    }
    strip.chosen = m_colour;
    drawText(painter, 0, px(22), tr("The colour you see, in daylight"), m_look.font(20, true), p.ink);
    drawOxideStrip(painter, stripArea(), strip, m_look, &m_told);

    // The blade with what was seen on it, zone by zone from spine to edge.
    const int top = stripArea().bottom() + px(30);
    drawText(painter, 0, top + px(6), tr("%1, by zone").arg(QString::fromStdString(blade->mark)), m_look.font(18, true),
             p.ink);
    const QRectF body(0, top + px(24), width() - px(236), std::min(px(200), height() - top - px(60)));
    const double zoneHeight = body.height() / static_cast<double>(zones.size());
    QPainterPath outline;
    outline.moveTo(body.left(), body.top());
    outline.lineTo(body.right() - body.width() * 0.25, body.top());
    outline.quadTo(body.right(), body.top() + body.height() * 0.2, body.right(), body.bottom());
    outline.lineTo(body.left(), body.bottom());
    outline.closeSubpath();
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing, true);
    painter.fillPath(outline, p.steel);
    painter.setClipPath(outline);
    for (std::size_t z = 0; z < zones.size(); ++z) {
        const ColourNote* seen = nullptr;
        for (const ColourNote& note : blade->colours) {
            if (note.round == blade->round && note.zone == zones[z]) seen = &note;
        }
        const QRectF band(body.left(), body.top() + zoneHeight * static_cast<double>(z), body.width(), zoneHeight);
        if (seen == nullptr) continue;
        for (const OxideColour* colour : row) {
            if (sameName(colour->name, seen->colour)) painter.fillRect(band, QColor::fromRgb(colour->srgb));
        }
    }
    painter.restore();
    painter.setRenderHint(QPainter::Antialiasing, true);
    painter.setPen(QPen(p.ink, 1.5 * m_look.factor));
    painter.setBrush(Qt::NoBrush);
    painter.drawPath(outline);
    for (std::size_t z = 0; z < zones.size(); ++z) {
        const bool chosen = static_cast<int>(z) == m_zone;
        const double y = body.top() + zoneHeight * (static_cast<double>(z) + 0.5);
        QString text = zoneName(zones[z]);
        QString says = tr("%1: no colour logged in this hardening").arg(text);
        for (const ColourNote& note : blade->colours) {
            if (note.round != blade->round || note.zone != zones[z]) continue;
            text = tr("%1: %2%3")
                       .arg(zoneName(zones[z]), QString::fromStdString(note.colour),
                            note.torch ? tr(" (torch)") : QString());
            const QString when =
                note.after_temper > 0 ? tr("after temper %1").arg(note.after_temper) : tr("before any temper");
            says = tr("%1, seen %2; surface: %3").arg(text, when, surfaceName(note.surface));
        }
        m_told.add(QRectF(0, y - zoneHeight / 2, width(), zoneHeight), says);
        if (chosen) fillLine(painter, qRound(body.right()) + px(10), qRound(y) - px(14), px(4), px(28), p.primary);
        drawFitted(painter, body.right() + px(20), y + px(6), text, px(212), m_look, 16, chosen,
                   chosen ? p.primary : p.ink);
    }
}

ColumnContent ColourPage::content() const {
    ColumnContent content;
    const Blade* blade = m_document.blade();
    const auto row = colours();
    if (blade == nullptr || row.empty()) return content;
    content.key = tr("Enter");
    const OxideColour& colour =
        *row[static_cast<std::size_t>(std::clamp(m_colour, 0, static_cast<int>(row.size()) - 1))];
    const Temper* of = temper();
    content.caption = of != nullptr ? tr("%1 after temper %2").arg(QString::fromStdString(blade->mark)).arg(of->number)
                                    : tr("%1, no temper logged").arg(QString::fromStdString(blade->mark));
    content.left = tr("Zone: %1").arg(zoneName(zones[static_cast<std::size_t>(m_zone)]));
    content.left_key = QStringLiteral("Z");
    content.right = m_torch ? tr("By torch") : tr("By oven");

    content.act = tr("Log %1").arg(QString::fromStdString(colour.name));
    content.detail = tr("on the %1").arg(zoneName(zones[static_cast<std::size_t>(m_zone)]));
    const auto means = range(colour.name);
    if (!means) {
        content.state = State::notYet;
        content.word = tr("Says nothing");
        content.sub = tr("Surface: %1").arg(surfaceName(m_surface));
        content.lines.push_back({Tone::note, words::errorText(means.error()), QStringLiteral("M25"), false});
    } else {
        content.numbers.push_back(
            {tr("From"), words::degreesNumber(means->low_c), words::unit(Quantity::temperature), false});
        content.numbers.push_back(
            {tr("To"), words::degreesNumber(means->high_c), words::unit(Quantity::temperature), false});
        const bool against = of != nullptr && of->temperature_c && !m_torch && !means->chart_of_minutes;
        const double off = against ? offColour(*means, *of->temperature_c) : 0;
        content.state = !against ? State::notYet : std::abs(off) > colourOff_c ? State::borderline : State::pass;
        content.word = !against ? tr("Estimate") : std::abs(off) > colourOff_c ? tr("Check the oven") : tr("Agrees");
        content.sub = against ? tr("The oven said %1.").arg(words::degrees(*of->temperature_c))
                              : tr("Surface: %1").arg(surfaceName(m_surface));
        if (against && std::abs(off) > colourOff_c)
            content.lines.push_back(
                {Tone::caution,
                 tr("%1 %2 than the colour allows")
                     .arg(words::degreesApart(std::abs(off)), off > 0 ? tr("hotter") : tr("cooler")),
                 QStringLiteral("M25"), false});
        content.lines.push_back(
            {Tone::note,
             means->chart_of_minutes
                 ? tr("Stainless: the printed chart of short heats only, %1 either way").arg(words::degreesApart(30))
                 : tr("Longer times need less heat for the same colour; chromium needs more"),
             QStringLiteral("M25"), false});
        content.lines.push_back(
            {Tone::note, tr("Of low confidence: order, not degrees"), QStringLiteral("tables"), false});
    }
    int passes = 0;
    for (const ColourNote& note : blade->colours) passes += note.round == blade->round && note.torch ? 1 : 0;
    if (passes > 0)
        content.lines.push_back({Tone::note,
                                 passes == 1 ? tr("One torch pass logged on this blade")
                                             : tr("%1 torch passes logged on this blade").arg(passes),
                                 QStringLiteral("record"), false});
    content.below.push_back({Tone::note, tr("Surface: %1").arg(surfaceName(m_surface)), {}, false});
    content.below.push_back({Tone::note, words::cautionText(m_torch ? Caution::torch : Caution::hotWork), {}, true});
    return content;
}

void ColourPage::act() {
    const Blade* blade = m_document.blade();
    const auto row = colours();
    if (blade == nullptr || row.empty()) return;
    ColourNote note;
    note.round = blade->round;
    note.after_temper = lastTemper(*blade);
    note.zone = zones[static_cast<std::size_t>(m_zone)];
    note.colour = row[static_cast<std::size_t>(m_colour)]->name;
    note.surface = m_surface;
    note.torch = m_torch;
    const QString what =
        tr("%1: %2 on the %3")
            .arg(QString::fromStdString(blade->mark), QString::fromStdString(note.colour), zoneName(note.zone));
    m_document.perform([note, id = blade->id](Logbook& logbook) { return logColour(logbook, id, note); },
                       [this, what](const Result<Done>& done) {
                           if (done) emit said(what, false);
                       });
}

void ColourPage::leftAct() {
    m_zone = (m_zone + 1) % static_cast<int>(zones.size());
    emit changed();
}

void ColourPage::rightAct() {
    m_torch = !m_torch;
    emit changed();
}

Commands ColourPage::commands() {
    return {
        {QStringLiteral("colour.zone"), tr("Zone"), tr("which part of the blade"), Verb::zone, [this] { leftAct(); }},
        {QStringLiteral("colour.torch"), tr("Torch or oven"), tr("how the colour came"), Verb::none,
         [this] { rightAct(); }},
        {QStringLiteral("colour.surface"), tr("Surface"), tr("bare, coated, scaled"), Verb::kit, [this] {
             m_surface = static_cast<OxideSurface>((static_cast<int>(m_surface) + 1) % 4);
             emit changed();
         }}};
}

QStringList ColourPage::movements() const {
    return {tr("Left and right   the colour")};
}

bool ColourPage::key(QKeyEvent* event) {
    const int count = static_cast<int>(colours().size());
    if (event->key() == Qt::Key_Left || event->key() == Qt::Key_Right) {
        m_colour = std::clamp(m_colour + (event->key() == Qt::Key_Right ? 1 : -1), 0, count - 1);
        emit changed();
        return true;
    }
    return false;
}

void ColourPage::mousePressEvent(QMouseEvent* event) {
    const int count = static_cast<int>(colours().size());
    if (count == 0 || !stripArea().contains(event->pos())) return;
    m_colour = std::clamp(event->pos().x() * count / std::max(1, stripArea().width()), 0, count - 1);
    emit changed();
}

HelpText ColourPage::help() const {
    return {tr("What temperature does the colour of this steel speak of, and does it agree with the oven?"),
            {{Pictogram::blade, tr("Look at clean, bare steel by daylight.")},
             {Pictogram::arrows, tr("Choose the colour with left and right, and the part of the blade.")},
             {Pictogram::clock,
              tr("Say whether it came in the oven or by torch: a short heat needs more for the same colour.")},
             {Pictogram::window, tr("The band is what the colour allows; it is compared with the logged temper.")}},
            {QStringLiteral("M25")},
            tr("A colour tells 15 °C at best, and nothing on coated or stainless steel. It tells the surface, not the "
               "hardness.")};
}

} // namespace rollcall
