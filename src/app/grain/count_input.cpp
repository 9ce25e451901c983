// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/grain/count_page.h"

#include <algorithm>
#include <cmath>
#include <QGestureEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QNativeGestureEvent>
#include <QWheelEvent>

// Keys and mouse of the counting of a fracture.
namespace rollcall {

bool CountPage::draftKey(QKeyEvent* event) {
    switch (event->key()) {
    case Qt::Key_Escape:
        m_draft.reset();
        break;
    case Qt::Key_Left:
    case Qt::Key_Right:
        stepCrossing(event->key() == Qt::Key_Right ? 1 : -1);
        break;
    case Qt::Key_Up:
    case Qt::Key_Down: {
        TestLine line = m_draft->line;
        const double by = (event->key() == Qt::Key_Down ? 0.02 : -0.02) * photo()->height;
        line.a.y += by;
        line.b.y += by;
        lay(line);
        break;
    }
    case Qt::Key_Space:
        if (m_draft->chosen >= 0) {
            double& weight = m_draft->crossings[static_cast<std::size_t>(m_draft->chosen)].weight;
            weight = weight == 1 ? 1.5 : weight == 1.5 ? 0.5 : 1;
        }
        break;
    case Qt::Key_Delete:
    case Qt::Key_Backspace:
    case Qt::Key_Slash:
        if (m_draft->chosen >= 0) {
            m_draft->crossings.erase(m_draft->crossings.begin() + m_draft->chosen);
            m_draft->chosen = std::min(m_draft->chosen, static_cast<int>(m_draft->crossings.size()) - 1);
        }
        break;
    default:
        return false;
    }
    update();
    emit changed();
    return true;
}

bool CountPage::escape() {
    if (!m_scaling && !m_whole) return false;
    if (m_scaling)
        m_scaling = false;
    else
        m_whole = false;
    m_clicks.clear();
    m_scale = m_scale > 0 && !m_whole ? m_scale : 0;
    emit changed();
    return true;
}

bool CountPage::key(QKeyEvent* event) {
    if (m_draft && draftKey(event)) return true;
    const double step = px(60);
    switch (event->key()) {
    case Qt::Key_PageUp:
        zoom(1.25);
        return true;
    case Qt::Key_PageDown:
        zoom(0.8);
        return true;
    case Qt::Key_Home:
        fit();
        update();
        return true;
    case Qt::Key_Left:
        pan({step, 0});
        return true;
    case Qt::Key_Right:
        pan({-step, 0});
        return true;
    case Qt::Key_Up:
        pan({0, step});
        return true;
    case Qt::Key_Down:
        pan({0, -step});
        return true;
    default:
        break;
    }
    // Without a letter of their own: the reference beside it, a finer or a coarser one.
    if (event->text() == QLatin1String(",") || event->text() == QLatin1String(".")) {
        m_reference = std::clamp(m_reference + (event->text() == QLatin1String(".") ? 1 : -1), 0, 10);
        emit changed();
        return true;
    }
    return false;
}

Commands CountPage::commands() {
    const auto photoThere = [this] { return photo() == nullptr ? tr("No photo of this piece yet: N.") : QString(); };
    const auto told = [this](auto change) {
        return [this, change] {
            change();
            emit changed();
        };
    };
    return {{QStringLiteral("grain.photo"), tr("Add a photo"), tr("of the fracture"), Verb::makeNew,
             told([this] { addPhoto(); })},
            {QStringLiteral("grain.by-eye"), tr("Rated by eye"), tr("a broken piece, without a photo"), Verb::none,
             told([this] { rateByEye(); })},
            {QStringLiteral("grain.scale"), tr("Set the scale"), tr("by two clicks, or pixels a millimetre"),
             Verb::none, told([this] { setScale(); }), photoThere},
            {QStringLiteral("grain.strike"), tr("Strike out"), tr("the last line"), Verb::strike,
             told([this] { strike(); }), photoThere},
            {QStringLiteral("grain.beside"), tr("Compare"), tr("with photos of other pieces"), Verb::compare,
             told([this] { besideOthers((m_beside + 1) % 3); }), photoThere},
            {QStringLiteral("grain.reference"), tr("Reference"), tr("a computed grain beside it; , and . change it"),
             Verb::other, told([this] {
                 m_reference = m_reference >= 10 ? 0 : m_reference == 0 ? 8 : m_reference + 1;
             }),
             photoThere},
            {QStringLiteral("grain.zone"), tr("Zone"), tr("edge, middle, spine of the fracture"), Verb::zone,
             told([this] { m_zone = static_cast<FractureZone>((static_cast<int>(m_zone) + 1) % fractureZones); })},
            {QStringLiteral("grain.circle"), m_circle ? tr("Straight lines") : tr("Circles"), tr("what is laid"),
             Verb::none, told([this] {
                 m_circle = !m_circle;
                 emit said(m_circle ? tr("Lines are circles now.") : tr("Lines are straight now."), false);
             })},
            {QStringLiteral("grain.next-photo"), tr("Next photo"), tr("of this piece"), Verb::none,
             told([this] { nextPhoto(); }), photoThere},
            {QStringLiteral("grain.whole"), m_whole ? tr("Back") : tr("Whole window"), tr("for the photo"), Verb::none,
             told([this] {
                 m_whole = !m_whole;
                 m_scale = 0;
             }),
             photoThere},
            {QStringLiteral("grain.least"), tr("Least asked"), tr("the coarsest grain that passes"), Verb::plan,
             told([this] { askLeast(); })},
            {QStringLiteral("grain.watch"), tr("Watched folder"), tr("where the camera's program writes"), Verb::none,
             told([this] { watch(); })},
            {QStringLiteral("grain.picture"), tr("Picture"), tr("as a file"), Verb::inAndOut,
             told([this] { savePicture(); }), photoThere}};
}

QStringList CountPage::movements() const {
    return {tr("Arrows   move the photo; Page up and down   nearer, farther; Home   all of it"),
            tr(", and .   a coarser or finer reference")};
}

void CountPage::stepCrossing(int by) {
    const int count = static_cast<int>(m_draft->crossings.size());
    if (count == 0) return;
    m_draft->chosen = m_draft->chosen < 0 ? (by > 0 ? 0 : count - 1) : (m_draft->chosen + by + count) % count;
}

// Near a crossing it goes away, elsewhere on the line one comes.
void CountPage::toggleAt(const QPoint& at) {
    const auto all = panes();
    const PhotoView view = viewOf(all.front());
    const QRect& area = all.front().area;
    double best = 1e9;
    double part = 0;
    constexpr int looks = 4000;
    for (int i = 0; i <= looks; ++i) {
        const QPointF on = onScreen(area, view, m_draft->line.at(static_cast<double>(i) / looks));
        const double away = std::hypot(on.x() - at.x(), on.y() - at.y());
        if (away < best) {
            best = away;
            part = static_cast<double>(i) / looks;
        }
    }
    if (best > px(14)) return;
    const double near = px(5) / (m_draft->line.length() * m_scale);
    auto& crossings = m_draft->crossings;
    const auto hit = std::find_if(crossings.begin(), crossings.end(),
                                  [&](const Crossing& c) { return std::abs(c.part - part) <= near; });
    m_draft->chosen = -1;
    if (hit != crossings.end()) {
        crossings.erase(hit);
    } else {
        const auto place =
            std::find_if(crossings.begin(), crossings.end(), [&](const Crossing& c) { return c.part > part; });
        m_draft->chosen = static_cast<int>(crossings.insert(place, {part, 1}) - crossings.begin());
    }
    emit changed();
}

void CountPage::mousePressEvent(QMouseEvent* event) {
    const QPoint at = event->position().toPoint();
    if (event->button() == Qt::LeftButton && !m_whole && photo() != nullptr && stripArea().contains(at)) {
        m_reference = std::clamp(at.x() * 10 / std::max(1, width()) + 1, 1, 10);
        return emit changed();
    }
    const Blade* blade = m_document.blade();
    for (int i = 0; blade != nullptr && i < static_cast<int>(blade->fractures.size()); ++i) {
        if (blade->fractures.size() < 2 || !thumbnail(i).contains(at)) continue;
        m_photo = i;
        return emit changed();
    }
    if (!chosenArea().contains(at)) return;
    m_pressed = at;
    m_dragged.reset();
    m_panning = event->button() != Qt::LeftButton;
}

void CountPage::mouseMoveEvent(QMouseEvent* event) {
    if (!m_pressed) return;
    const QPoint at = event->position().toPoint();
    if (m_panning) {
        pan(at - m_dragged.value_or(*m_pressed));
        m_dragged = at;
        return;
    }
    if (m_dragged || (at - *m_pressed).manhattanLength() > px(12)) m_dragged = at;
    update();
}

void CountPage::mouseReleaseEvent(QMouseEvent*) {
    if (!m_pressed) return;
    const QPoint from = *m_pressed;
    const std::optional<QPoint> to = m_dragged;
    const bool panned = m_panning;
    m_pressed.reset();
    m_dragged.reset();
    m_panning = false;
    if (panned || photo() == nullptr) return update();
    const auto all = panes();
    const PhotoView view = viewOf(all.front());
    if (m_scaling) {
        m_clicks.push_back(onPhoto(all.front().area, view, from));
        if (m_clicks.size() == 2) scaleByClicks();
        return emit changed();
    }
    if (to) {
        if (!photo()->px_per_mm) return emit said(tr("Set the scale first."), true);
        return lay({m_circle, onPhoto(all.front().area, view, from), onPhoto(all.front().area, view, *to)});
    }
    if (m_draft) toggleAt(from);
    update();
}

// Two fingers, on the screen or on a touchpad.
bool CountPage::event(QEvent* event) {
    if (event->type() == QEvent::Gesture) {
        const QGesture* gesture = static_cast<QGestureEvent*>(event)->gesture(Qt::PinchGesture);
        if (gesture == nullptr) return Bench::event(event);
        m_pressed.reset(); // the first finger was no line
        m_dragged.reset();
        zoom(static_cast<const QPinchGesture*>(gesture)->scaleFactor());
        return true;
    }
    if (event->type() == QEvent::NativeGesture) {
        const auto* pad = static_cast<QNativeGestureEvent*>(event);
        if (pad->gestureType() == Qt::ZoomNativeGesture) zoom(1 + pad->value());
        return true;
    }
    return Bench::event(event);
}

void CountPage::wheelEvent(QWheelEvent* event) {
    zoom(event->angleDelta().y() > 0 ? 1.25 : 0.8);
}

} // namespace rollcall
