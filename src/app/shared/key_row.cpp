// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/key_row.h"

#include "app/shared/buttons.h"
#include "plot/glyphs.h"

#include <array>
#include <QApplication>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPainter>
#include <QSettings>

namespace rollcall {

namespace {

constexpr int keyHeight = 56;
const QString wishKey = QStringLiteral("touch");

class KeyButton : public QAbstractButton {
public:
    KeyButton(const QString& text, const QString& spoken, bool loud, const Look& look) : m_look(look), m_loud(loud) {
        setText(text);
        setAccessibleName(spoken);
        setObjectName(QStringLiteral("key-") + spoken);
        setFocusPolicy(Qt::NoFocus); // what is typed goes on going where it went
        setAttribute(Qt::WA_Hover);
        setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    }
    QSize sizeHint() const override { return {m_look.px(m_loud ? 96 : 40), m_look.px(keyHeight)}; }

protected:
    void paintEvent(QPaintEvent*) override {
        QPainter painter(this);
        const Palette& p = m_look.palette;
        painter.fillRect(rect(), m_loud ? p.primary : isDown() ? p.steel : p.paper);
        painter.setPen(QPen(underMouse() ? p.ink : p.line, underMouse() ? 2 : 1));
        painter.drawRect(rect().adjusted(0, 0, -1, -1));
        drawText(painter, width() / 2.0, height() / 2.0 + m_look.px(8), text(), m_look.font(m_loud ? 20 : 24, true),
                 m_loud ? p.on_primary : p.ink, Qt::AlignHCenter);
    }

private:
    const Look& m_look;
    bool m_loud;
};

} // namespace

KeyRow::KeyRow(const Look& look, QWidget* parent) : QWidget(parent), m_look(look) {
    setObjectName(QStringLiteral("key-row"));
    setFixedHeight(look.px(keyHeight));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(look.px(4));
    struct Key {
        Qt::Key key;
        QString text; ///< as typed and as shown, where they are the same
        QString shown;
        QString spoken;
    };
    std::vector<Key> keys;
    for (int digit = 1; digit <= 10; ++digit) {
        const QString text = QString::number(digit % 10);
        keys.push_back({static_cast<Qt::Key>(Qt::Key_0 + digit % 10), text, text, text});
    }
    keys.push_back({Qt::Key_Period, QStringLiteral("."), QStringLiteral("."), tr("point")});
    keys.push_back({Qt::Key_Minus, QStringLiteral("-"), QStringLiteral("\u2212"), tr("minus")});
    keys.push_back({Qt::Key_Backspace, QString(), QStringLiteral("\u2190"), tr("back")});
    keys.push_back({Qt::Key_Return, QStringLiteral("\r"), tr("Enter"), tr("enter")});
    for (const Key& key : keys) {
        auto* button = new KeyButton(key.shown, key.spoken, key.key == Qt::Key_Return, look);
        connect(button, &QAbstractButton::clicked, this, [this, key] { send(key.key, key.text); });
        row->addWidget(button, key.key == Qt::Key_Return ? 2 : 1);
    }
}

QSize KeyRow::sizeHint() const {
    return {m_look.px(14 * 44 + 96), m_look.px(keyHeight)};
}

void KeyRow::send(Qt::Key key, const QString& text) {
    QWidget* target = window()->focusWidget() != nullptr ? window()->focusWidget() : window();
    QKeyEvent press(QEvent::KeyPress, key, Qt::NoModifier, text);
    QApplication::sendEvent(target, &press);
}

bool KeyRow::wished() {
    return QSettings().value(wishKey, false).toBool();
}

void KeyRow::wish(bool on) {
    QSettings().setValue(wishKey, on);
}

} // namespace rollcall
