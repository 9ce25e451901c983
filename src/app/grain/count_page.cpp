// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/grain/count_page.h"

#include "app/shared/pointing.h"
#include "core/judge/gates.h"
#include "core/judge/proof_judge.h"
#include "words/words.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

namespace {

constexpr int headHeight = 40;
constexpr int stripHeight = 170;
constexpr int hintHeight = 36;

QString plusMinus(const FractureReading& reading) {
    return words::tenths((reading.low_high.second - reading.low_high.first) / 2);
}

} // namespace

CountPage::CountPage(Document& document, PhotoStore& photos, WatchedFolder& folder, Seams seams, const Look& look)
    : Bench(document, look), m_photos(photos), m_folder(folder), m_seams(std::move(seams)) {
    setObjectName(QStringLiteral("count-page"));
    tellUnder(this, m_told);
    setAttribute(Qt::WA_AcceptTouchEvents);
    grabGesture(Qt::PinchGesture);
    setContextMenuPolicy(Qt::PreventContextMenu); // the right button moves the photo, the left one draws
    connect(&m_photos, &PhotoStore::ready, this, [this] {
        update();
        emit changed();
    });
}

const FracturePhoto* CountPage::photo() const {
    const Blade* blade = m_document.blade();
    if (blade == nullptr || blade->fractures.empty()) return nullptr;
    return &blade->fractures[static_cast<std::size_t>(
        std::clamp(m_photo, 0, static_cast<int>(blade->fractures.size()) - 1))];
}

std::optional<FractureReading> CountPage::readingOf(std::size_t blade) const {
    const std::vector<FracturePhoto> photos = fracturesOf(m_document.batch().blades[blade]);
    if (photos.empty()) return std::nullopt;
    return readFractures(photos);
}

QRect CountPage::pictureArea() const {
    const int foot = m_whole ? px(hintHeight) : px(stripHeight);
    return {0, px(headHeight), width(), std::max(px(80), height() - px(headHeight) - foot)};
}

QRect CountPage::stripArea() const {
    return {0, height() - px(stripHeight) + px(8), width(), px(stripHeight) - px(12)};
}

std::vector<CountPage::Pane> CountPage::panes() const {
    std::vector<Pane> panes;
    const FracturePhoto* own = photo();
    if (own == nullptr) return panes;
    panes.push_back({{}, QString::fromStdString(m_document.blade()->mark), own, true});
    const Batch& batch = m_document.batch();
    for (std::size_t i = 0; i < batch.blades.size() && static_cast<int>(panes.size()) <= m_beside; ++i) {
        const Blade& other =
            batch.blades[(static_cast<std::size_t>(m_document.bladeIndex()) + i) % batch.blades.size()];
        if (i == 0 || other.fractures.empty()) continue;
        panes.push_back({{}, QString::fromStdString(other.mark), &other.fractures.front(), false});
    }
    if (m_reference > 0) panes.push_back({{}, tr("drawn: %1").arg(m_reference), nullptr, false});
    const QRect all = pictureArea();
    const int gap = px(10);
    const int count = static_cast<int>(panes.size());
    const int wide = (all.width() - gap * (count - 1)) / count;
    // A photo alone is seen whole, in a pane no higher than it asks for; side by side they fill theirs.
    const int whole = count > 1 ? all.height() : wide * own->height / std::max(1, own->width);
    const int high = std::min(all.height() - px(50), whole);
    for (int i = 0; i < count; ++i)
        panes[static_cast<std::size_t>(i)].area =
            QRect(all.left() + i * (wide + gap), all.top() + px(26), wide, std::max(px(80), high));
    return panes;
}

QRect CountPage::chosenArea() const {
    const auto all = panes();
    return all.empty() ? QRect() : all.front().area;
}

double CountPage::screenScale() const {
    const FracturePhoto* own = photo();
    return own != nullptr && own->px_per_mm ? m_scale * *own->px_per_mm : 0;
}

PhotoView CountPage::viewOf(const Pane& pane) const {
    const FracturePhoto* own = photo();
    if (pane.chosen || pane.photo == nullptr) return {m_middle, m_scale};
    // The others move with it: by the same way in millimetres from their own middle, at the same scale.
    const QPointF middle(pane.photo->width / 2.0, pane.photo->height / 2.0);
    const QPointF moved = m_middle - QPointF(own->width / 2.0, own->height / 2.0);
    if (!own->px_per_mm || !pane.photo->px_per_mm) return {middle + moved, m_scale};
    const double ratio = *pane.photo->px_per_mm / *own->px_per_mm;
    return {middle + moved * ratio, m_scale / ratio};
}

void CountPage::fit() {
    const FracturePhoto* own = photo();
    if (own == nullptr) return;
    const QRect area = chosenArea();
    m_middle = QPointF(own->width / 2.0, own->height / 2.0);
    const double wide = static_cast<double>(area.width()) / own->width;
    const double high = static_cast<double>(area.height()) / own->height;
    m_scale = panes().size() > 1 ? std::max(wide, high) : std::min(wide, high);
}

void CountPage::besideOthers(int count) {
    m_beside = count;
    m_scale = 0; // fitted anew to its pane
    emit changed();
}

void CountPage::zoom(double by) {
    const FracturePhoto* own = photo();
    if (own == nullptr) return;
    const double whole =
        std::min(static_cast<double>(width()) / own->width, static_cast<double>(height()) / own->height);
    m_scale = std::clamp(m_scale * by, std::min(0.5 * whole, 1.0), 16.0);
    pan({});
}

void CountPage::pan(const QPointF& screen) {
    const FracturePhoto* own = photo();
    if (own == nullptr) return;
    m_middle -= screen / m_scale;
    m_middle.setX(std::clamp<double>(m_middle.x(), 0, own->width));
    m_middle.setY(std::clamp<double>(m_middle.y(), 0, own->height));
    update();
}

void CountPage::refresh() {
    const FracturePhoto* own = photo();
    const std::string id = own != nullptr ? own->id : std::string();
    if (id != m_shown) {
        m_shown = id;
        m_draft.reset();
        m_clicks.clear();
        m_scaling = false;
        m_scale = 0;
    }
    setAccessibleName(content().sub);
    update();
}

void CountPage::drawPane(QPainter& painter, const Pane& pane) {
    const Palette& p = palette();
    painter.setFont(m_look.font(18, pane.chosen));
    drawText(painter, pane.area.left(), pane.area.top() - px(8), pane.name, m_look.font(18, pane.chosen), p.ink);
    if (pane.photo == nullptr) {
        painter.fillRect(pane.area, QColor(0x80, 0x80, 0x80));
        m_told.add(pane.area.adjusted(0, -px(26), 0, 0),
                   tr("A drawn fracture of rating %1 at the same scale, to compare with").arg(m_reference));
        const double scale = screenScale();
        const QImage drawn = scale > 0 ? m_photos.fracture(m_reference, scale, pane.area.size()) : QImage();
        if (!drawn.isNull())
            painter.drawImage(pane.area, drawn);
        else
            drawText(painter, pane.area.center().x(), pane.area.center().y(),
                     scale > 0 ? tr("not at this zoom") : tr("set the scale first"), m_look.font(16), Qt::white,
                     Qt::AlignHCenter);
        return;
    }
    const auto loaded = m_photos.photo(pane.photo->sha256);
    const PhotoView view = viewOf(pane);
    m_told.add(pane.area.adjusted(0, -px(26), 0, 0), pane.photo->px_per_mm
                                                         ? tr("Fracture of %1: %2 µm for each of the photo's pixels")
                                                               .arg(pane.name)
                                                               .arg(1000 / *pane.photo->px_per_mm, 0, 'g', 3)
                                                         : tr("Fracture of %1; its scale is not set").arg(pane.name));
    drawPhoto(painter, pane.area, view, loaded ? loaded->levels : PhotoLevels{});
    if (!loaded || !loaded->trouble.isEmpty()) {
        drawFitted(painter, pane.area.center().x(), pane.area.center().y(), loaded ? loaded->trouble : tr("opening"),
                   pane.area.width() - px(16), m_look, 16, false, Qt::white, Qt::AlignHCenter);
    }
    double crossings = 0;
    int lines = 0;
    for (const CountedLine& line : pane.photo->lines) {
        if (line.struck) continue;
        ++lines;
        crossings += line.count();
        drawLineMarks(painter, pane.area, view, {line.line, line.crossings, false, -1}, m_look);
    }
    if (pane.chosen && m_draft)
        drawLineMarks(painter, pane.area, view, {m_draft->line, m_draft->crossings, true, m_draft->chosen}, m_look);
    if (pane.chosen && m_pressed && m_dragged && !m_panning) {
        const PicturePoint a = onPhoto(pane.area, view, *m_pressed);
        const PicturePoint b = onPhoto(pane.area, view, *m_dragged);
        drawLineMarks(painter, pane.area, view, {{m_circle, a, b}, {}, true, -1}, m_look);
    }
    if (pane.chosen) {
        for (const PicturePoint& click : m_clicks)
            drawLineMarks(painter, pane.area, view, {{false, click, {click.x + 1, click.y}}, {{0, 1}}, true, 0},
                          m_look);
    }
    const QRect below(pane.area.left(), pane.area.bottom() + px(6), pane.area.width(), px(18));
    if (pane.photo->px_per_mm)
        drawScaleRule(painter, below, view.scale * *pane.photo->px_per_mm, m_look);
    else
        drawText(painter, below.left(), below.top() + px(13), tr("no scale set"), m_look.font(16), p.borderline);
    m_told.add(below, tr("Left the photo's scale; right what was counted: grain boundaries crossed by the lines laid"));
    const QString counted = lines == 0 ? QString() : tr("%1 crossings, %2 lines").arg(crossings).arg(lines);
    drawText(painter, pane.area.right(), below.top() + px(13),
             pane.area.width() < px(360) ? QString::number(crossings) : counted, m_look.font(16), p.ink,
             Qt::AlignRight);
}

void CountPage::drawStrip(QPainter& painter) {
    const Palette& p = palette();
    const QRect area = stripArea();
    RatingStrip strip;
    strip.least = grainLeastOf(m_document.batch());
    strip.reference = m_reference;
    const FracturePhoto* own = photo();
    if (own->px_per_mm) strip.finest_seen = finestSeen(*own->px_per_mm);
    const double scale = screenScale();
    const QSize tile = ratingTile(area, m_look);
    for (int rating = 1; rating <= 10; ++rating)
        strip.tiles.push_back(scale > 0 ? m_photos.fracture(rating, scale, tile) : QImage());
    const Batch& batch = m_document.batch();
    for (std::size_t i = 0; i < batch.blades.size(); ++i) {
        const auto reading = readingOf(i);
        if (!reading || standsTo(*reading, strip.least) == GrainStands::open) continue;
        strip.needles.push_back(
            {QString::fromStdString(batch.blades[i].mark), reading->g, reading->low_high.first,
             reading->low_high.second, static_cast<int>(i) == m_document.bladeIndex(),
             tr("%1: G %2, known to lie from %3 to %4")
                 .arg(QString::fromStdString(batch.blades[i].mark), words::tenths(reading->g),
                      words::tenths(reading->low_high.first), words::tenths(reading->low_high.second))});
    }
    std::stable_sort(strip.needles.begin(), strip.needles.end(),
                     [](const auto& a, const auto& b) { return a.chosen < b.chosen; });
    fillLine(painter, 0, area.top() - px(8), width(), 1, p.hair);
    drawText(painter, 0, area.top() + px(16), tr("Drawn fractures, same scale"), m_look.font(16, true), p.ink);
    drawRatingStrip(painter, area, strip, m_look, &m_told);
}

// Right of the name, where a piece has several photos.
QRect CountPage::thumbnail(int index) const {
    return {px(190) + index * px(46), px(2), px(42), px(30)};
}

void CountPage::drawThumbnails(QPainter& painter) {
    const Palette& p = palette();
    const auto& all = m_document.blade()->fractures;
    for (int i = 0; i < static_cast<int>(all.size()); ++i) {
        const QRect frame = thumbnail(i);
        if (frame.right() > width() - px(150)) break;
        painter.fillRect(frame, QColor(0x80, 0x80, 0x80));
        m_told.add(frame, QString::fromStdString(all[static_cast<std::size_t>(i)].name));
        const QImage small = m_photos.thumbnail(all[static_cast<std::size_t>(i)].sha256);
        if (!small.isNull()) {
            const QSize fitted = small.size().scaled(frame.size(), Qt::KeepAspectRatio);
            painter.drawImage(QRect(frame.center() - QPoint(fitted.width() / 2, fitted.height() / 2), fitted), small);
        }
        if (&all[static_cast<std::size_t>(i)] != photo()) continue;
        painter.setPen(QPen(p.primary, 3));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(frame.adjusted(1, 1, -2, -2));
    }
}

void CountPage::drawHints(QPainter& painter) {
    const QString hints =
        m_draft ? tr("Enter count   click adds or takes away   ← → crossing   Space weight   Del away   ↑ ↓ move   Esc "
                     "drop")
                : tr("Enter next line   drag own line   PgUp PgDn zoom   arrows pan   Esc back");
    drawFitted(painter, 0, height() - px(10), hints, width(), m_look, 16, false, palette().muted);
}

void CountPage::paintAll(QPainter& painter) {
    const Palette& p = palette();
    m_told.clear();
    painter.fillRect(rect(), p.panel);
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return;
    const FracturePhoto* own = photo();
    if (own == nullptr) {
        m_told.add(rect(), tr("Nothing is seen of its grain until it is broken and photographed"));
        drawText(painter, 0, px(60), tr("No photo of %1 broken").arg(QString::fromStdString(blade->mark)),
                 m_look.font(28, true), p.ink);
        drawParagraphs(painter, 0, px(110), width(),
                       {tr("Break a fully hardened, untempered coupon: grip and face shield, pieces fly."),
                        tr("Photograph the fracture straight on, a rule or known length in the picture,"),
                        tr("closer than 2 µm per pixel to see grain as fine as 8: through a microscope or macro lens."),
                        tr("Enter, N or a drop on the window takes the photo in; it is kept as it is.")},
                       px(12), m_look, 18, p.ink);
        return;
    }
    if (m_scale <= 0) fit();
    const int count = static_cast<int>(blade->fractures.size());
    const QString name = QString::fromStdString(own->name);
    const auto reading = readingOf(static_cast<std::size_t>(m_document.bladeIndex()));
    const QString measured = m_draft ? (m_draft->looking ? tr("looking for crossings")
                                                         : tr("%1 on this line").arg(m_draft->crossings.size()))
                             : reading && reading->says == FractureReading::Says::counted
                                 ? tr("G %1 ± %2").arg(words::tenths(reading->g), plusMinus(*reading))
                                 : tr("next line: %1").arg(words::zoneText(m_zone));
    const int nameRoom = count > 1 ? thumbnail(0).left() - px(12) : width() - m_look.width(measured, 20, true) - px(20);
    drawFitted(painter, 0, px(26), name, nameRoom, m_look, 18, false, p.muted);
    m_told.add({0, 0, double(width()), double(px(headHeight))},
               tr("The photo in hand; right what it says: G is the ASTM grain size number, finer upwards"));
    if (count > 1) drawThumbnails(painter);
    drawText(painter, width(), px(26), measured, m_look.font(20, true), p.ink, Qt::AlignRight);
    for (const Pane& pane : panes()) drawPane(painter, pane);
    if (m_whole)
        drawHints(painter);
    else
        drawStrip(painter);
}

void CountPage::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    paintAll(painter);
}

ColumnContent CountPage::content() const {
    ColumnContent content;
    content.key = tr("Enter");
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return content;
    const FracturePhoto* own = photo();
    content.caption = tr("%1, grain").arg(QString::fromStdString(blade->mark));
    content.left = tr("Add a photo");
    content.left_key = QStringLiteral("N");
    content.right = tr("Strike out");
    content.right_key = QStringLiteral("/");
    const double least = grainLeastOf(m_document.batch());
    const Verdict& verdict = m_document.verdictAt(Gate::proof);
    for (const Reason& reason : verdict.reasons) {
        const bool grain = reason.rule == "M30" || (reason.rule == "M32" && own == nullptr);
        if (!grain) continue;
        const QString sentence = words::sentence(reason);
        if (!sentence.isEmpty())
            content.lines.push_back({reason.tone, sentence, QString::fromUtf8(reason.rule), false});
    }
    const auto reading = readingOf(static_cast<std::size_t>(m_document.bladeIndex()));
    if (own == nullptr || !reading) {
        content.word = tr("Not broken");
        content.sub = tr("No fracture of it is seen.");
        content.act = tr("Add a photo");
        content.detail = tr("of the fracture; or drop it here");
        content.below.push_back({Tone::note, words::cautionText(Caution::glassHard), {}, true});
        return content;
    }
    const GrainStands stands = standsTo(*reading, least);
    content.state = stands == GrainStands::coarse ? State::fail
                    : stands == GrainStands::open ? State::notYet
                    : stands == GrainStands::between || reading->uneven || reading->count_and_rating_differ
                        ? State::borderline
                        : State::pass;
    content.word = content.state == State::fail         ? tr("Coarse")
                   : content.state == State::borderline ? tr("Borderline")
                   : content.state == State::pass       ? tr("Fine")
                                                        : tr("Not yet");
    for (const Reason& reason : verdict.reasons) {
        if (content.sub.isEmpty() && reason.rule == "M30") content.sub = words::grainHeadline(reason);
    }
    if (stands != GrainStands::open)
        content.numbers.push_back({tr("G of %1").arg(QString::fromStdString(blade->mark)), words::tenths(reading->g),
                                   QStringLiteral("± ") + plusMinus(*reading), true});
    content.numbers.push_back({tr("Asked"), QString::number(least), tr("or finer"), false});
    const LinesWanted wanted = linesWanted(reading->lines, reading->crossings);
    if (stands != GrainStands::open && reading->size && (wanted.lines > 0 || wanted.crossings > 0))
        content.lines.push_back({Tone::note,
                                 tr("%1 crossings of %2 for ± 0.3").arg(reading->crossings).arg(fairCrossings),
                                 QStringLiteral("M30"), false});
    for (const FractureReading::Zone& zone : reading->zones) {
        if (reading->zones.size() < 2) break;
        content.lines.push_back(
            {Tone::note,
             tr("%1: G %2, %n lines", nullptr, zone.lines).arg(words::zoneText(zone.zone), words::tenths(zone.size.g)),
             QStringLiteral("M30"), false});
    }
    if (reading->rating)
        content.lines.push_back({Tone::note, tr("Rated %1 by comparison").arg(words::tenths(*reading->rating)),
                                 QStringLiteral("M30"), false});
    if (m_draft) {
        content.act = m_draft->looking ? tr("Looking for crossings") : tr("Count this line");
        content.detail =
            m_draft->looking ? QString() : tr("%1 crossings as shown: look at each").arg(m_draft->crossings.size());
        content.act_enabled = !m_draft->looking;
    } else if (m_scaling) {
        content.act = tr("Click on both ends");
        content.detail = tr("of a known length; Esc drops it");
        content.act_enabled = false;
    } else if (!own->px_per_mm) {
        content.act = tr("Set the scale");
        content.detail = tr("by a known length in the photo");
    } else {
        content.act = tr("Lay line %1").arg(own->lines.size() + 1);
        content.detail = tr("%1; Z another zone").arg(words::zoneText(m_zone));
    }
    content.below.push_back({Tone::note,
                             tr("A fracture tells grain roughly. It tells nothing of carbides, hardness or cracks."),
                             QStringLiteral("M30"), false});
    return content;
}

void CountPage::act() {
    if (m_draft) return countDraft();
    const FracturePhoto* own = photo();
    if (own == nullptr) return addPhoto();
    if (!own->px_per_mm) return setScale();
    layNext();
}

void CountPage::leftAct() {
    addPhoto();
}

HelpText CountPage::help() const {
    return {
        tr("How fine is the grain of this fracture, and how well is that known?"),
        {{Pictogram::bend, tr("Break a hardened, untempered coupon. Cover it: it flies.")},
         {Pictogram::magnifier, tr("Take a photo square on, sharp and evenly lit. N adds it, or drop the file here.")},
         {Pictogram::window, tr("Set the scale by two clicks on a known length.")},
         {Pictogram::pen, tr("Lay a line; look at each crossing that is suggested, then count it.")},
         {Pictogram::boxes, tr("Five lines and 250 crossings tell ± 0.3 in G.")}},
        {QStringLiteral("M30"), QStringLiteral("E34")},
        tr("A fracture tells grain roughly, and nothing of carbides, hardness or cracks.")};
}

} // namespace rollcall
