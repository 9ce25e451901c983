// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/choice_dialog.h"

#include "app/shared/buttons.h"
#include "app/shared/plain_text.h"

#include <QKeyEvent>
#include <QScrollArea>
#include <QVBoxLayout>

namespace rollcall {

ChoiceDialog::ChoiceDialog(const QString& title, const QStringList& lines, std::vector<Choice> choices,
                           const Look& look, QWidget* parent)
    : QDialog(parent), m_choices(std::move(choices)) {
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(title);
    setObjectName(QStringLiteral("choice"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(look.px(24), look.px(20), look.px(24), look.px(20));
    column->setSpacing(look.px(8));
    auto* heading = new PlainLabel(title);
    heading->setFont(look.font(24, true));
    heading->setWordWrap(true);
    column->addWidget(heading);

    auto* content = new QWidget;
    auto* list = new QVBoxLayout(content);
    list->setContentsMargins(0, 0, 0, 0);
    list->setSpacing(look.px(4));
    const int wide = look.px(620);
    int wanted = look.px(110); // the heading, and what stands around
    for (const QString& line : lines) {
        auto* label = new PlainLabel(line);
        label->setFont(look.font(16));
        label->setWordWrap(true);
        label->setTextInteractionFlags(Qt::TextSelectableByMouse);
        list->addWidget(label);
        wanted += label->heightForWidth(wide - look.px(60)) + look.px(6);
    }
    for (std::size_t i = 0; i < m_choices.size(); ++i) {
        const Choice& choice = m_choices[i];
        auto* row = new RowButton(choice.key.toUpper(), choice.text, choice.detail, look);
        row->setObjectName(QStringLiteral("choice%1").arg(i));
        connect(row, &QAbstractButton::clicked, this, [this, i] { answer(static_cast<int>(i)); });
        list->addWidget(row);
        m_rows.push_back(row);
    }
    list->addStretch();
    auto* scroll = new QScrollArea;
    m_scroll = scroll;
    scroll->setWidget(content);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    column->addWidget(scroll);
    if (m_choices.empty()) {
        auto* close = new PrimaryButton(look);
        close->show(tr("Close"), {}, QStringLiteral("Enter"));
        connect(close, &QAbstractButton::clicked, this, &QDialog::accept);
        column->addWidget(close);
    }
    if (m_choices.empty()) wanted += look.px(80);
    for (const RowButton* row : m_rows) wanted += row->sizeHint().height() + look.px(4);
    resize(wide, std::min(wanted, parent != nullptr ? parent->height() - look.px(60) : look.px(640)));
}

void ChoiceDialog::showPicture(QWidget* picture) {
    static_cast<QVBoxLayout*>(layout())->insertWidget(1, picture);
    const int most = parentWidget() != nullptr ? parentWidget()->height() - 40 : height() + picture->height();
    resize(width(), std::min(most, height() + picture->height()));
}

void ChoiceDialog::ask(std::function<void(int)> answer) {
    m_answer = std::move(answer);
    open();
    if (!m_rows.empty()) m_rows[std::min(m_first, m_rows.size() - 1)]->setFocus();
}

void ChoiceDialog::choose(std::size_t first) {
    m_first = first;
}

void ChoiceDialog::answer(int index) {
    accept();
    if (m_answer) m_answer(index);
}

void ChoiceDialog::keyPressEvent(QKeyEvent* event) {
    const int step = event->key() == Qt::Key_Down ? 1 : event->key() == Qt::Key_Up ? -1 : 0;
    int focused = -1;
    for (std::size_t i = 0; i < m_rows.size(); ++i) {
        if (m_rows[i]->hasFocus()) focused = static_cast<int>(i);
    }
    if (step != 0 && !m_rows.empty()) {
        const int count = static_cast<int>(m_rows.size());
        auto* row = m_rows[static_cast<std::size_t>((focused + step + count) % count)];
        row->setFocus();
        m_scroll->ensureWidgetVisible(row, 0, row->height());
        return;
    }
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter) {
        if (m_rows.empty()) return accept();
        if (focused >= 0) return answer(focused);
    }
    for (std::size_t i = 0; i < m_choices.size(); ++i) {
        if (!m_choices[i].key.isEmpty() && event->text().compare(m_choices[i].key, Qt::CaseInsensitive) == 0)
            return answer(static_cast<int>(i));
    }
    QDialog::keyPressEvent(event);
}

} // namespace rollcall
