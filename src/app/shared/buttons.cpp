// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/buttons.h"

#include "plot/glyphs.h"

#include <algorithm>
#include <utility>

namespace rollcall {

namespace {

QColor towards(const QColor& from, const QColor& to, double share) {
    return QColor::fromRgbF(static_cast<float>(from.redF() + (to.redF() - from.redF()) * share),
                            static_cast<float>(from.greenF() + (to.greenF() - from.greenF()) * share),
                            static_cast<float>(from.blueF() + (to.blueF() - from.blueF()) * share));
}

} // namespace

void paintFocus(QPainter& painter, const QWidget& widget, const Look& look) {
    if (!widget.hasFocus()) return;
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(look.palette.ink, 3));
    painter.drawRoundedRect(QRectF(widget.rect()).adjusted(1.5, 1.5, -1.5, -1.5), 4, 4);
}

PrimaryButton::PrimaryButton(const Look& look, QWidget* parent) : QAbstractButton(parent), m_look(look) {
    setObjectName(QStringLiteral("primary"));
    setFocusPolicy(Qt::TabFocus);
    setAttribute(Qt::WA_Hover);
}

void PrimaryButton::show(const QString& act, const QString& detail, const QString& key) {
    setText(act);
    m_detail = detail;
    m_key = key;
    setAccessibleDescription(detail);
    setVisible(!act.isEmpty());
    update();
}

QSize PrimaryButton::sizeHint() const {
    return {m_look.px(296), m_look.px(72)};
}

QRect PrimaryButton::textArea(const QString& text, int size, bool bold, int width) const {
    constexpr int anyHeight = 10000;
    return QFontMetrics(m_look.font(size, bold)).boundingRect(QRect(0, 0, width, anyHeight), Qt::TextWordWrap, text);
}

int PrimaryButton::heightForWidth(int width) const {
    const int pad = m_look.px(16);
    const int keyWidth = m_key.isEmpty() ? 0 : keyCapWidth(m_key, m_look) + m_look.px(10);
    const int act = textArea(text(), 20, true, width - 2 * pad - keyWidth).height();
    const int detail = m_detail.isEmpty() ? 0 : textArea(m_detail, 16, false, width - 2 * pad).height();
    return std::max(m_look.px(72), act + detail + m_look.px(24));
}

void PrimaryButton::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    const double shade = isDown() ? 0.16 : underMouse() ? 0.08 : 0.0;
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(Qt::NoPen);
    painter.setBrush(isEnabled() ? towards(p.primary, p.ink, shade) : p.steel);
    painter.drawRoundedRect(rect(), 2, 2);
    const QColor first = isEnabled() ? p.on_primary : p.muted;
    const QColor second = isEnabled() ? p.on_primary_second : p.muted;
    const int pad = m_look.px(16);
    const int keyWidth = m_key.isEmpty() ? 0 : keyCapWidth(m_key, m_look);
    if (!m_key.isEmpty())
        drawKeyCap(painter, width() - m_look.px(10) - keyWidth, m_look.px(24), m_key, m_look, first, 24);
    // Nothing of it is cut: it wraps, and stands in the middle of the height.
    const int actWidth = width() - 2 * pad - (keyWidth > 0 ? keyWidth + m_look.px(10) : 0);
    const int act = textArea(text(), 20, true, actWidth).height();
    const int detail = m_detail.isEmpty() ? 0 : textArea(m_detail, 16, false, width() - 2 * pad).height();
    const int top = std::max(m_look.px(4), (height() - act - detail) / 2);
    painter.setFont(m_look.font(20, true));
    painter.setPen(first);
    painter.drawText(QRect(pad, top, actWidth, act), Qt::TextWordWrap, text());
    painter.setFont(m_look.font(16));
    painter.setPen(second);
    painter.drawText(QRect(pad, top + act, width() - 2 * pad, detail), Qt::TextWordWrap, m_detail);
    if (hasFocus()) {
        painter.setRenderHint(QPainter::Antialiasing);
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(first, 2));
        painter.drawRoundedRect(QRectF(rect()).adjusted(4, 4, -4, -4), 2, 2);
    }
}

SideButton::SideButton(const QString& text, const QString& key, const Look& look, QWidget* parent)
    : QAbstractButton(parent), m_look(look), m_key(key) {
    setText(text);
    setFocusPolicy(Qt::TabFocus);
    setAttribute(Qt::WA_Hover);
}

void SideButton::setKey(const QString& key) {
    m_key = key;
    update();
}

void SideButton::setReady(bool ready) {
    if (std::exchange(m_ready, ready) != ready) update();
}

QSize SideButton::sizeHint() const {
    const int key = m_key.isEmpty() ? 0 : m_look.px(14) + keyCapWidth(m_key, m_look);
    return {m_look.width(text(), 16) + m_look.px(26) + key, m_look.px(40)};
}

int SideButton::leastWidth() const {
    return m_look.width(text(), 16) + m_look.px(26);
}

void SideButton::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    if (isDown()) painter.fillRect(rect(), p.steel);
    painter.setPen(QPen(underMouse() && isEnabled() ? p.ink : p.line, underMouse() && isEnabled() ? 2 : 1));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(rect().adjusted(0, 0, -1, -1));
    const QColor color = isEnabled() && m_ready ? p.ink : p.muted;
    // The text comes first.
    const int needed = m_look.width(text(), 16) + m_look.px(12 + 8 + 9) + keyCapWidth(m_key, m_look);
    const bool withKey = !m_key.isEmpty() && width() >= needed;
    const int keyWidth = withKey ? keyCapWidth(m_key, m_look) : 0;
    if (withKey) drawKeyCap(painter, width() - m_look.px(9) - keyWidth, height() / 2, m_key, m_look, p.muted);
    const int pad = m_look.px(12);
    drawFitted(painter, pad, height() / 2.0 + m_look.px(6), text(), width() - keyWidth - 2 * pad, m_look, 16, false,
               color);
    paintFocus(painter, *this, m_look);
}

RowButton::RowButton(const QString& key, const QString& text, const QString& detail, const Look& look, QWidget* parent)
    : QAbstractButton(parent), m_look(look), m_key(key), m_detail(detail) {
    setText(text);
    setAccessibleDescription(detail);
    setFocusPolicy(Qt::StrongFocus);
    setAttribute(Qt::WA_Hover);
}

QSize RowButton::sizeHint() const {
    return {m_look.px(300), m_look.px(m_detail.isEmpty() ? 40 : 56)};
}

void RowButton::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    if (hasFocus() || underMouse()) painter.fillRect(rect(), p.paper);
    if (hasFocus()) painter.fillRect(0, 0, m_look.px(4), height(), p.primary);
    painter.fillRect(0, height() - 1, width(), 1, p.hair);
    const int first = m_look.px(m_detail.isEmpty() ? 26 : 25);
    const int cap = m_key.isEmpty() ? 0 : keyCapWidth(m_key, m_look);
    const int capLeft = m_keyLast ? width() - cap - m_look.px(8) : m_look.px(14);
    if (cap > 0) drawKeyCap(painter, capLeft, first - m_look.px(6), m_key, m_look, p.muted);
    const int left = m_look.px(m_keyLast ? 12 : 64);
    const int room = (m_keyLast && cap > 0 ? capLeft : width()) - left - m_look.px(12);
    const bool ready = isEnabled() && m_ready;
    drawFitted(painter, left, first, text(), room, m_look, m_keyLast ? 16 : 18, hasFocus(), ready ? p.ink : p.muted);
    drawFitted(painter, left, m_look.px(46), m_detail, room, m_look, 16, false, p.muted);
}

} // namespace rollcall
