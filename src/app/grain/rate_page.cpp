// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/grain/rate_page.h"

#include "app/shared/pointing.h"
#include "core/judge/proof_judge.h"
#include "logbook/actions/grain.h"
#include "words/words.h"

#include <algorithm>
#include <QKeyEvent>
#include <QRandomGenerator>

namespace rollcall {

RatePage::RatePage(Document& document, PhotoStore& photos, const CountPage& count, const Look& look)
    : Bench(document, look), m_photos(photos), m_count(count) {
    setObjectName(QStringLiteral("rate-page"));
    tellUnder(this, m_told);
    connect(&m_photos, &PhotoStore::ready, this, qOverload<>(&QWidget::update));
}

void RatePage::refresh() {
    const FracturePhoto* own = m_count.photo();
    if (own == nullptr || own->id != m_photo) {
        m_look1.reset();
        m_look2.reset();
    }
    setAccessibleName(content().sub);
    update();
}

std::pair<int, int> RatePage::shown() const {
    return m_finerLeft ? std::pair(hand().finer(), hand().coarser()) : std::pair(hand().coarser(), hand().finer());
}

// Which side is the finer must not be guessed, nor a fracture recognised.
void RatePage::shuffle() {
    m_finerLeft = QRandomGenerator::global()->bounded(2) == 1;
    m_seed = 2 + QRandomGenerator::global()->bounded(1000);
}

void RatePage::act() {
    const FracturePhoto* own = m_count.photo();
    if (own == nullptr) return emit said(tr("Add a photo first, on page 1."), true);
    if (!own->px_per_mm) return emit said(tr("Set the photo's scale first, on page 1."), true);
    if (running()) return answer(BlindRating::Nearer::between);
    m_photo = own->id;
    m_look1 = BlindRating{};
    shuffle();
    emit changed();
}

void RatePage::answer(BlindRating::Nearer nearer) {
    if (!running()) return;
    hand().answer(nearer);
    shuffle();
    if (m_look1->rating() && !m_look2) {
        m_look2 = BlindRating{};
        emit said(tr("Once more, with others: does it repeat?"), false);
    } else if (m_look2 && m_look2->rating()) {
        const FractureRating rating{*m_look1->rating(), *m_look2->rating(), {}};
        m_look1.reset();
        m_look2.reset();
        m_document.perform([id = m_photo, rating](Logbook& logbook) { return rateFracture(logbook, id, rating); },
                           [this, rating](const Result<Done>& done) {
                               if (done)
                                   emit said(tr("Rated %1, then %2.").arg(rating.first).arg(rating.second), false);
                           });
    }
    emit changed();
}

void RatePage::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    m_told.clear();
    const Palette& p = palette();
    painter.fillRect(rect(), p.panel);
    const FracturePhoto* own = m_count.photo();
    if (own == nullptr || !own->px_per_mm) {
        drawText(painter, 0, px(60), own == nullptr ? tr("No photo to rate") : tr("The photo has no scale yet"),
                 m_look.font(28, true), p.ink);
        drawText(painter, 0, px(100), tr("Page 1 takes it in and sets its scale."), m_look.font(18), p.ink);
        return;
    }
    const int gap = px(12);
    const int half = (height() - px(96)) / 2;
    const QRect top(0, px(30), width(), half);
    // Seen as large as it fills the pane: 30 facets across at the scale where ten pixels are a facet is fine enough.
    const double scale =
        std::max(static_cast<double>(top.width()) / own->width, static_cast<double>(top.height()) / own->height);
    const PhotoView view{{own->width / 2.0, own->height / 2.0}, scale};
    const auto loaded = m_photos.photo(own->sha256);
    drawFitted(painter, 0, px(20),
               running() ? tr("%1: which below is nearer?").arg(QString::fromStdString(own->name))
                         : QString::fromStdString(own->name),
               width(), m_look, 18, true, p.ink);
    m_told.add(top, tr("The fracture that is rated"));
    drawPhoto(painter, top, view, loaded ? loaded->levels : PhotoLevels{});
    const QRect left(0, top.bottom() + px(20), (width() - gap) / 2, half);
    const QRect right = left.translated(left.width() + gap, 0);
    const double mm = scale * *own->px_per_mm;
    if (running()) {
        const auto [a, b] = shown();
        for (const auto& [area, rating] : {std::pair(left, a), std::pair(right, b)}) {
            painter.fillRect(area, QColor(0x80, 0x80, 0x80));
            m_told.add(area, tr("A drawn fracture at the photo's scale; its rating is not told until the end"));
            const QImage drawn = m_photos.fracture(rating, mm, area.size(), m_seed);
            if (!drawn.isNull()) painter.drawImage(area, drawn);
        }
        drawText(painter, left.center().x(), left.bottom() + px(26), tr("← this one"), m_look.font(18, true), p.ink,
                 Qt::AlignHCenter);
        drawText(painter, right.center().x(), left.bottom() + px(26), tr("this one →"), m_look.font(18, true), p.ink,
                 Qt::AlignHCenter);
        return;
    }
    int y = left.top() + px(30);
    for (const QString& line :
         {tr("Two drawn fractures, unnumbered, at the photo's scale:"), tr("which is nearer, or does it lie between?"),
          tr("Three or four answers find the rating; then once more"),
          tr("with others. What does not repeat does not count.")}) {
        drawFitted(painter, 0, y, line, width(), m_look, 18, false, p.ink);
        y += px(32);
    }
    for (const FractureRating& rating : own->ratings) {
        drawText(painter, 0, y + px(8), tr("Rated %1, then %2").arg(rating.first).arg(rating.second),
                 m_look.font(20, true), p.ink);
        m_told.add({0, double(y - px(14)), double(width()), double(px(30))},
                   tr("Two blind looks at this photo; they count where they agree within one number"));
        y += px(30);
    }
}

ColumnContent RatePage::content() const {
    ColumnContent content;
    content.key = tr("Enter");
    const Blade* blade = m_document.blade();
    if (blade == nullptr) return content;
    content.caption = tr("%1, rating").arg(QString::fromStdString(blade->mark));
    content.left = tr("Left one");
    content.left_key = QStringLiteral("←");
    content.right = tr("Right one");
    content.right_key = QStringLiteral("→");
    const FractureReading reading = readFractures(fracturesOf(*blade));
    content.word = running()        ? (m_look2 ? tr("Look 2 of 2") : tr("Look 1 of 2"))
                   : reading.rating ? tr("Rated %1").arg(*reading.rating, 0, 'f', 1)
                                    : tr("Not rated");
    content.sub =
        running() ? tr("Answer %1: which is nearer?").arg(hand().answered() + 1) : tr("Blind, by comparison.");
    content.act = running() ? tr("Between the two") : tr("Begin a rating");
    content.detail = running() ? tr("as near to the one as to the other") : tr("3 or 4 answers, twice");
    if (reading.rating_repeats_badly)
        content.lines.push_back({Tone::caution, words::sentence({Fact::grainRatedBadly, Tone::caution, "M30", {}, {}}),
                                 QStringLiteral("M30"), false});
    if (reading.tempered)
        content.lines.push_back({Tone::caution, words::sentence({Fact::grainTempered, Tone::caution, "M30", {}, {}}),
                                 QStringLiteral("M30"), false});
    content.below.push_back({Tone::note,
                             tr("A rating is about the same number as G, closest from 4 to 8. The fractures are drawn, "
                                "not photographed."),
                             QStringLiteral("M30"), false});
    return content;
}

Commands RatePage::commands() {
    const auto looking = [this] { return running() ? QString() : tr("No rating has begun."); };
    return {{QStringLiteral("rate.between"), tr("Between the two"), tr("neither is nearer"), Verb::none,
             [this] { answer(BlindRating::Nearer::between); }, looking, Qt::Key_Space}};
}

QStringList RatePage::movements() const {
    return {tr("Left and right   which of the two is nearer")};
}

QString RatePage::unsaved() const {
    return running() ? tr("The rating is not finished.") : QString();
}

bool RatePage::escape() {
    if (!running()) return false;
    m_look1.reset();
    m_look2.reset();
    emit changed();
    return true;
}

bool RatePage::key(QKeyEvent* event) {
    if (!running()) return false;
    switch (event->key()) {
    case Qt::Key_Left:
        leftAct();
        return true;
    case Qt::Key_Right:
        rightAct();
        return true;
    default:
        return false;
    }
}

HelpText RatePage::help() const {
    return {tr("Which drawn fracture is this one nearest to, when nobody knows which is which?"),
            {{Pictogram::magnifier, tr("Add a photo and its scale on the first page.")},
             {Pictogram::arrows, tr("Left or right: which of the two is nearer? Between the two is an answer.")},
             {Pictogram::clock, tr("Three or four answers find it; then it is done once more with others.")},
             {Pictogram::window, tr("Two looks that agree within one number count.")}},
            {QStringLiteral("M30")},
            tr("The fractures are drawn, without carbides, tears or depth. A rating is worth about one number.")};
}

} // namespace rollcall
