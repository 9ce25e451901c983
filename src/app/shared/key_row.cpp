// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/key_row.h"

#include "app/shared/buttons.h"
#include "plot/glyphs.h"

#include <QApplication>
#include <QGridLayout>
#include <QKeyEvent>
#include <QPainter>
#include <QSettings>
#include <QVBoxLayout>

namespace rollcall {

namespace {

constexpr int keyHeight = 48;
const QString wishKey = QStringLiteral("touch");

class KeyButton : public QAbstractButton {
public:
    KeyButton(const QString& text, const QString& spoken, bool loud, const Look& look) : m_look(look), m_loud(loud) {
        setText(text);
        setAccessibleName(spoken);
        setObjectName(QStringLiteral("key-") + spoken);
        setFocusPolicy(Qt::NoFocus); // what is typed goes on going where it went
        setAttribute(Qt::WA_Hover);
        setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
        setFixedHeight(look.px(keyHeight));
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

KeyRow::KeyRow(const Look& look, Keys which, QWidget* parent) : QWidget(parent), m_look(look) {
    setObjectName(QStringLiteral("key-row"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(look.px(4));
    auto* numbers = new QGridLayout;
    numbers->setSpacing(look.px(4));
    if (which == Keys::letters) {
        QWidget* unfolded = letters();
        unfolded->hide();
        column->addWidget(unfolded);
        auto* unfold = new KeyButton(tr("abc"), tr("letters"), false, look);
        connect(unfold, &QAbstractButton::clicked, unfolded,
                [unfolded] { unfolded->setVisible(unfolded->isHidden()); });
        unfold->setFixedHeight(look.px(2 * keyHeight + 4));
        numbers->addWidget(unfold, 0, 7, 2, 1);
    }
    column->addLayout(numbers);
    struct Key {
        Qt::Key key;
        QString text; ///< as typed
        QString shown;
        QString spoken;
    };
    const auto digit = [](int n) {
        const QString text = QString::number(n);
        return Key{static_cast<Qt::Key>(Qt::Key_0 + n), text, text, text};
    };
    const std::vector<Key> keys{digit(1),
                                digit(2),
                                digit(3),
                                digit(4),
                                digit(5),
                                {Qt::Key_Period, QStringLiteral("."), QStringLiteral("."), tr("point")},
                                {Qt::Key_Backspace, QString(), QStringLiteral("\u2190"), tr("back")},
                                digit(6),
                                digit(7),
                                digit(8),
                                digit(9),
                                digit(0),
                                {Qt::Key_Minus, QStringLiteral("-"), QStringLiteral("\u2212"), tr("minus")},
                                {Qt::Key_Return, QStringLiteral("\r"), tr("Enter"), tr("enter")}};
    constexpr int aRow = 7;
    for (int i = 0; i < static_cast<int>(keys.size()); ++i) {
        const Key& key = keys[static_cast<std::size_t>(i)];
        auto* button = new KeyButton(key.shown, key.spoken, key.key == Qt::Key_Return, look);
        connect(button, &QAbstractButton::clicked, this, [this, key] { send(key.key, key.text); });
        numbers->addWidget(button, i / aRow, i % aRow);
    }
}

QWidget* KeyRow::letters() {
    auto* all = new QWidget;
    auto* grid = new QGridLayout(all);
    grid->setContentsMargins(0, 0, 0, 0);
    grid->setSpacing(m_look.px(4));
    constexpr int aRow = 10;
    const QString signs = QStringLiteral("ABCDEFGHIJKLMNOPQRSTUVWXYZ#/,;");
    for (int i = 0; i < static_cast<int>(signs.size()); ++i) {
        auto* button = new KeyButton(signs.at(i), signs.at(i), false, m_look);
        connect(button, &QAbstractButton::clicked, this, [this, button] {
            const QString text = button->text();
            send(static_cast<Qt::Key>(text.toUpper().at(0).unicode()), text);
        });
        grid->addWidget(button, i / aRow, i % aRow);
        m_letters.push_back(button);
    }
    auto* capitals = new KeyButton(tr("small"), tr("capitals"), false, m_look);
    connect(capitals, &QAbstractButton::clicked, this, [this, capitals] {
        turnCapitals();
        capitals->setText(m_capitals ? tr("small") : tr("CAPITALS"));
    });
    auto* blank = new KeyButton(tr("blank"), tr("blank"), false, m_look);
    connect(blank, &QAbstractButton::clicked, this, [this] { send(Qt::Key_Space, QStringLiteral(" ")); });
    grid->addWidget(capitals, 3, 0, 1, 3);
    grid->addWidget(blank, 3, 3, 1, 7);
    return all;
}

void KeyRow::turnCapitals() {
    m_capitals = !m_capitals;
    for (QAbstractButton* button : m_letters)
        button->setText(m_capitals ? button->text().toUpper() : button->text().toLower());
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
