// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/command_bar.h"

#include "app/shared/accessible.h"
#include "app/shared/buttons.h"
#include "app/shared/plain_text.h"

namespace rollcall {

namespace {
constexpr int barHeight = 48;
constexpr int gap = 8;
} // namespace

CommandBar::CommandBar(const Look& look, QWidget* parent)
    : QWidget(parent), m_look(look), m_more(new SideButton(tr("More"), QStringLiteral("F10"), look, this)) {
    setRole(this, QAccessible::ToolBar);
    setAccessibleName(tr("What can be done here"));
    setObjectName(QStringLiteral("command-bar"));
    setFixedHeight(look.px(barHeight));
    m_more->setObjectName(QStringLiteral("do-menu"));
    connect(m_more, &QAbstractButton::clicked, this, [this] { emit chosen(QStringLiteral("menu")); });
}

bool CommandBar::show(Commands commands) {
    bool same = commands.size() == m_commands.size();
    for (std::size_t i = 0; same && i < commands.size(); ++i)
        same = commands[i].id == m_commands[i].id && commands[i].text == m_commands[i].text;
    m_commands = std::move(commands);
    if (!same) {
        for (SideButton* button : m_buttons) {
            button->hide();
            button->deleteLater(); // it may be the one that was just clicked
        }
        m_buttons.clear();
        for (const Command& command : m_commands) {
            auto* button = new SideButton(command.text, command.keyText(), m_look, this);
            button->setObjectName(QStringLiteral("do-") + command.id);
            connect(button, &QAbstractButton::clicked, this, [this, id = command.id] { emit chosen(id); });
            m_buttons.push_back(button);
        }
        for (SideButton* button : m_buttons) setTabOrder(button, m_more); // which is the last
        arrange();
    }
    for (std::size_t i = 0; i < m_commands.size(); ++i) {
        const QString why = m_commands[i].whyNot();
        m_buttons[i]->setReady(why.isEmpty());
        m_buttons[i]->setToolTip(plainTip(why.isEmpty() ? m_commands[i].help : why));
        m_buttons[i]->setAccessibleDescription(m_buttons[i]->toolTip());
    }
    return !same;
}

void CommandBar::arrange() {
    const int high = m_look.px(38);
    const int y = (height() - high) / 2;
    const int end = width() - m_look.px(16) - m_more->sizeHint().width();
    int x = m_look.px(16);
    bool full = false;
    for (SideButton* button : m_buttons) {
        const int wide = button->sizeHint().width();
        full = full || x + wide + m_look.px(gap) > end;
        button->setGeometry(x, y, wide, high);
        button->setVisible(!full);
        if (!full) x += wide + m_look.px(gap);
    }
    m_more->setGeometry(end, y, m_more->sizeHint().width(), high);
}

void CommandBar::resizeEvent(QResizeEvent*) {
    arrange();
}

void CommandBar::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), m_look.palette.paper);
    painter.fillRect(0, 0, width(), 1, m_look.palette.hair);
}

} // namespace rollcall
