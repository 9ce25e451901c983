// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/menu_dialog.h"

#include "app/shared/buttons.h"
#include "app/shared/plain_text.h"
#include "app/shared/whole_rows.h"

#include <algorithm>
#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QPainter>
#include <QScrollArea>
#include <QVBoxLayout>

namespace rollcall {

namespace {

// A placeholder of Qt's own is half as dark as the ink under a style sheet: too faint to be read.
class WordsField : public QLineEdit {
public:
    explicit WordsField(const Look& look) : m_look(look) {}

protected:
    void paintEvent(QPaintEvent* event) override {
        QLineEdit::paintEvent(event);
        if (!text().isEmpty()) return;
        QPainter painter(this);
        drawText(painter, m_look.px(14), height() / 2.0 + m_look.px(8), accessibleName(), font(), m_look.palette.muted);
    }

private:
    const Look& m_look;
};

} // namespace

MenuDialog::MenuDialog(std::vector<MenuEntry> all, const Look& look, QWidget* parent)
    : QDialog(parent), m_all(std::move(all)), m_look(look), m_words(new WordsField(look)), m_groups(new QScrollArea),
      m_list(new WholeRows) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName(QStringLiteral("menu"));
    setWindowTitle(tr("Menu"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(look.px(24), look.px(20), look.px(24), look.px(20));
    column->setSpacing(look.px(12));
    m_words->setObjectName(QStringLiteral("words"));
    m_words->setAccessibleName(tr("What do you want to do?"));
    m_words->setFont(look.font(22));
    m_words->setMinimumHeight(look.px(48));
    m_words->installEventFilter(this);
    column->addWidget(m_words);
    constexpr int columnWidth = 372;
    const int wide = parent->width() - look.px(40);
    const int columns = std::clamp((wide - look.px(48)) / look.px(columnWidth), 1, 4);
    m_groups->setWidget(groups(columns));
    m_groups->setWidgetResizable(true);
    m_groups->setFrameShape(QFrame::NoFrame);
    m_groups->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    m_groups->setFocusPolicy(Qt::NoFocus);
    column->addWidget(m_groups);
    m_list->setObjectName(QStringLiteral("found"));
    m_list->setAccessibleName(tr("What can be done"));
    m_list->setFont(look.font(18));
    m_list->setWordWrap(true);
    m_list->setSpacing(look.px(4));
    m_list->setFrameShape(QFrame::NoFrame);
    column->addWidget(m_list);
    connect(m_words, &QLineEdit::textChanged, this, &MenuDialog::filter);
    connect(m_list, &QListWidget::itemClicked, this,
            [this] { choose(m_shown[static_cast<std::size_t>(m_list->currentRow())]); });
    resize(std::min(wide, columns * look.px(columnWidth) + look.px(64)), parent->height() - look.px(40));
    filter();
}

void MenuDialog::ask(std::function<void(const MenuEntry&)> run) {
    m_run = std::move(run);
    open();
    m_words->setFocus();
}

// The groups under their names, in as many columns of about the same height.
QWidget* MenuDialog::groups(int columns) {
    auto* content = new QWidget;
    auto* across = new QHBoxLayout(content);
    across->setContentsMargins(0, 0, 0, 0);
    across->setSpacing(m_look.px(24));
    std::vector<QVBoxLayout*> down;
    for (int i = 0; i < columns; ++i) {
        down.push_back(new QVBoxLayout);
        down.back()->setSpacing(0);
        across->addLayout(down.back(), 1);
    }
    const auto own = [](const MenuEntry& entry) { return entry.place.isEmpty(); };
    const auto total = static_cast<std::size_t>(std::count_if(m_all.begin(), m_all.end(), own)) + std::size(allGroups);
    std::size_t lines = 0; // so far, headings among them
    for (const Group group : allGroups) {
        const auto inGroup = [&](const MenuEntry& entry) { return own(entry) && entry.command.group == group; };
        const auto first = std::find_if(m_all.begin(), m_all.end(), inGroup);
        if (first == m_all.end()) continue;
        const auto count = static_cast<std::size_t>(std::count_if(m_all.begin(), m_all.end(), inGroup)) + 1;
        // A group stands where its middle falls, so that columns end at about the same height.
        const std::size_t at = std::min(down.size() - 1, (lines + count / 2) * down.size() / total);
        lines += count;
        auto* heading = new PlainLabel(group == Group::here ? first->where : groupName(group));
        heading->setFont(m_look.font(18, true));
        heading->setContentsMargins(0, m_look.px(12), 0, m_look.px(4));
        down[at]->addWidget(heading);
        for (std::size_t i = 0; i < m_all.size(); ++i) {
            const MenuEntry& entry = m_all[i];
            if (!inGroup(entry)) continue;
            const QString why = entry.command.whyNot();
            auto* row = new RowButton(entry.key, entry.command.text, {}, m_look);
            row->setObjectName(QStringLiteral("menu-") + entry.command.id);
            row->setToolTip(plainTip(why.isEmpty() ? entry.command.help : why));
            row->setAccessibleDescription(row->toolTip());
            row->setReady(why.isEmpty());
            row->setKeyLast();
            connect(row, &QAbstractButton::clicked, this, [this, i] { choose(i); });
            down[at]->addWidget(row);
        }
    }
    for (QVBoxLayout* one : down) one->addStretch();
    return content;
}

// Every word counts, in any case, wherever it stands; what is called so comes before what is only described so.
void MenuDialog::filter() {
    const QStringList words = m_words->text().simplified().split(QLatin1Char(' '), Qt::SkipEmptyParts);
    m_groups->setVisible(words.isEmpty());
    m_list->setVisible(!words.isEmpty());
    const auto holds = [&](const QString& text) {
        return std::all_of(words.begin(), words.end(),
                           [&](const QString& word) { return text.contains(word, Qt::CaseInsensitive); });
    };
    m_shown.clear();
    m_list->clear();
    if (words.isEmpty()) return;
    std::vector<std::size_t> described;
    for (std::size_t i = 0; i < m_all.size(); ++i) {
        const Command& command = m_all[i].command;
        if (holds(command.text))
            m_shown.push_back(i);
        else if (holds(command.text + QLatin1Char(' ') + command.help + QLatin1Char(' ') + m_all[i].where))
            described.push_back(i);
    }
    m_shown.insert(m_shown.end(), described.begin(), described.end());
    for (const std::size_t i : m_shown) {
        const MenuEntry& one = m_all[i];
        QString line = one.command.text;
        if (!one.key.isEmpty()) line += QStringLiteral("   [%1]").arg(one.key);
        if (!one.place.isEmpty()) line += QStringLiteral("   ") + tr("at %1").arg(one.where);
        const QString why = one.command.whyNot();
        const QString& more = why.isEmpty() ? one.command.help : why;
        if (!more.isEmpty()) line += QLatin1Char('\n') + more;
        m_list->addItem(line);
    }
    m_list->fit();
    m_list->setCurrentRow(m_shown.empty() ? -1 : 0);
}

void MenuDialog::choose(std::size_t index) {
    const MenuEntry chosen = m_all[index];
    const auto run = m_run;
    accept();
    if (run) run(chosen);
}

bool MenuDialog::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::KeyPress) return QDialog::eventFilter(watched, event);
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Return || key == Qt::Key_Enter) {
        if (m_list->currentRow() >= 0) choose(m_shown[static_cast<std::size_t>(m_list->currentRow())]);
        return true;
    }
    if (key != Qt::Key_Down && key != Qt::Key_Up) return QDialog::eventFilter(watched, event);
    const int step = key == Qt::Key_Down ? 1 : -1;
    if (m_list->isVisible())
        m_list->setCurrentRow(std::clamp(m_list->currentRow() + step, 0, std::max(0, m_list->count() - 1)));
    else
        focusNextPrevChild(step > 0);
    return true;
}

} // namespace rollcall
