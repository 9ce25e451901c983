// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/help_dialog.h"

#include "app/shared/buttons.h"
#include "app/shared/plain_text.h"
#include "plot/glyphs.h"
#include "words/method.h"

#include <algorithm>
#include <memory>
#include <QGridLayout>
#include <QKeyEvent>
#include <QScrollArea>
#include <QScrollBar>
#include <QVBoxLayout>

namespace rollcall {

namespace {

QLabel* drawn(const QSize& size, qreal ratio, const std::function<void(QPainter&)>& draw) {
    QPixmap picture(size * ratio);
    picture.setDevicePixelRatio(ratio);
    picture.fill(Qt::transparent);
    QPainter painter(&picture);
    draw(painter);
    auto* label = new PlainLabel;
    label->setPixmap(picture);
    label->setFixedSize(size);
    return label;
}

} // namespace

HelpDialog::HelpDialog(const QString& title, const HelpText* text, const std::vector<KeyLines>& keys, const Look& look,
                       QWidget* parent)
    : QDialog(parent), m_look(look) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName(QStringLiteral("help"));
    setWindowTitle(title);
    auto* outer = new QVBoxLayout(this);
    outer->setContentsMargins(look.px(24), look.px(20), look.px(24), look.px(20));
    outer->setSpacing(look.px(12));
    outer->addWidget(line(title, 24, true));
    auto* content = new QWidget;
    auto* down = new QVBoxLayout(content);
    down->setContentsMargins(0, 0, look.px(12), 0);
    constexpr int twoColumns = 1000;
    const int wide = parent->width() - look.px(40);
    auto* across = new QBoxLayout(wide >= look.px(twoColumns) ? QBoxLayout::LeftToRight : QBoxLayout::TopToBottom);
    across->setSpacing(look.px(32));
    down->addLayout(across);
    auto* left = new QVBoxLayout;
    auto* right = new QVBoxLayout;
    for (QVBoxLayout* column : {left, right}) column->setSpacing(look.px(4));
    across->addLayout(left, 1);
    across->addLayout(right, 1);
    if (text != nullptr) tell(*text, left);
    // What there is more of goes where there is more room.
    const std::size_t half = text != nullptr ? 0 : (keys.size() + 1) / 2;
    for (std::size_t i = 0; i < keys.size(); ++i) list(keys[i], i < half ? left : right);
    left->addStretch();
    right->addStretch();
    if (text != nullptr) rules(*text, down);
    down->addStretch(1); // on a large screen the rest stays below
    auto* scroll = new QScrollArea;
    scroll->setWidget(content);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    outer->addWidget(scroll, 1);
    auto* close = new SideButton(tr("Close"), QStringLiteral("Esc"), look);
    close->setObjectName(QStringLiteral("close"));
    connect(close, &QAbstractButton::clicked, this, &QDialog::accept);
    outer->addWidget(close, 0, Qt::AlignRight);
    resize(wide, parent->height() - look.px(40));
    scroll->setFocus();
}

QWidget* HelpDialog::line(const QString& text, int size, bool bold, bool muted) const {
    auto* label = new PlainLabel(text);
    label->setFont(m_look.font(size, bold));
    label->setWordWrap(true);
    if (muted) label->setObjectName(QStringLiteral("hint"));
    return label;
}

void HelpDialog::tell(const HelpText& text, QBoxLayout* column) {
    column->addWidget(line(text.answers, 20, true));
    constexpr int picture = 40;
    for (const HelpStep& step : text.steps) {
        auto* row = new QHBoxLayout;
        row->setSpacing(m_look.px(16));
        const int side = m_look.px(picture);
        row->addWidget(drawn({side, side}, devicePixelRatioF(),
                             [&](QPainter& painter) { drawPictogram(painter, 0, 0, side, step.picture, m_look); }));
        row->addWidget(line(step.text, 16), 1);
        column->addSpacing(m_look.px(8));
        column->addLayout(row);
    }
    column->addSpacing(m_look.px(16));
    column->addWidget(line(tr("What it does not see"), 18, true));
    column->addWidget(line(text.blind, 16));
}

void HelpDialog::list(const KeyLines& keys, QBoxLayout* column) {
    if (keys.lines.empty()) return;
    column->addWidget(line(keys.heading, 18, true));
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(m_look.px(12));
    grid->setVerticalSpacing(m_look.px(4));
    grid->setColumnStretch(1, 1);
    int row = 0;
    for (const KeyLine& key : keys.lines) {
        auto* cap = static_cast<QLabel*>(line(key.key, 16));
        cap->setFont(m_look.mono(16));
        cap->setWordWrap(false);
        cap->setAlignment(Qt::AlignRight | Qt::AlignTop);
        grid->addWidget(cap, row, 0);
        const QString between = key.text.endsWith(QLatin1Char('?')) ? QStringLiteral(" ") : QStringLiteral(": ");
        grid->addWidget(line(key.help.isEmpty() ? key.text : key.text + between + key.help, 16), row, 1);
        ++row;
    }
    column->addLayout(grid);
    column->addSpacing(m_look.px(16));
}

void HelpDialog::rules(const HelpText& text, QBoxLayout* column) {
    auto grid = std::make_unique<QGridLayout>(); // nobody's where there are no rules
    grid->setHorizontalSpacing(m_look.px(16));
    grid->setVerticalSpacing(m_look.px(8));
    grid->setColumnStretch(1, 3);
    grid->setColumnStretch(2, 2);
    int row = 0;
    for (const MethodRule& rule : methodRules()) {
        if (std::none_of(rule.names.begin(), rule.names.end(),
                         [&](const QString& name) { return text.rules.contains(name); }))
            continue;
        grid->addWidget(line(rule.names.join(QStringLiteral(", ")), 16, true), row, 0, Qt::AlignTop);
        grid->addWidget(line(rule.what, 16), row, 1, Qt::AlignTop);
        grid->addWidget(line(rule.limits, 16, false, true), row, 2, Qt::AlignTop);
        ++row;
    }
    if (row == 0) return;
    column->addSpacing(m_look.px(16));
    column->addWidget(line(tr("Its rules and their limits"), 18, true));
    column->addLayout(grid.release());
    column->addWidget(
        line(tr("Facts of ASTM E18, E140 and ISO 6508 from memory; your own copy of the standard governs. "
                "All rules, with their sources: docs/method.md."),
             14, false, true));
}

void HelpDialog::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter || event->key() == Qt::Key_Space)
        return accept();
    QDialog::keyPressEvent(event);
}

} // namespace rollcall
