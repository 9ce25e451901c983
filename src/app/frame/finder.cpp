// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/finder.h"

#include <algorithm>
#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QVBoxLayout>

namespace rollcall {

Finder::Finder(std::vector<Findable> all, const Look& look, QWidget* parent)
    : QDialog(parent), m_all(std::move(all)), m_words(new QLineEdit), m_list(new QListWidget) {
    setAttribute(Qt::WA_DeleteOnClose);
    setObjectName(QStringLiteral("finder"));
    setWindowTitle(tr("What do you want to do?"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(look.px(24), look.px(20), look.px(24), look.px(20));
    column->setSpacing(look.px(12));
    m_words->setObjectName(QStringLiteral("words"));
    m_words->setAccessibleName(windowTitle());
    m_words->setPlaceholderText(windowTitle());
    m_words->setFont(look.font(22));
    m_words->setMinimumHeight(look.px(48));
    m_words->installEventFilter(this);
    column->addWidget(m_words);
    m_list->setObjectName(QStringLiteral("found"));
    m_list->setAccessibleName(tr("What can be done"));
    m_list->setFont(look.font(18));
    m_list->setWordWrap(true);
    m_list->setSpacing(look.px(4));
    m_list->setFrameShape(QFrame::NoFrame);
    column->addWidget(m_list);
    connect(m_words, &QLineEdit::textChanged, this, &Finder::filter);
    connect(m_list, &QListWidget::itemClicked, this, &Finder::choose);
    resize(look.px(640), std::min(look.px(560), parent->height() - look.px(40)));
    filter();
}

void Finder::ask(std::function<void(const Findable&)> run) {
    m_run = std::move(run);
    open();
    m_words->setFocus();
}

// Every word counts, in any case, wherever it stands; what is called so comes before what is only described so.
void Finder::filter() {
    const QStringList words = m_words->text().simplified().split(QLatin1Char(' '), Qt::SkipEmptyParts);
    const auto holds = [&](const QString& text) {
        return std::all_of(words.begin(), words.end(),
                           [&](const QString& word) { return text.contains(word, Qt::CaseInsensitive); });
    };
    std::vector<std::size_t> named;
    std::vector<std::size_t> described;
    for (std::size_t i = 0; i < m_all.size(); ++i) {
        const Findable& one = m_all[i];
        if (holds(one.text))
            named.push_back(i);
        else if (holds(one.text + QLatin1Char(' ') + one.help + QLatin1Char(' ') + one.where))
            described.push_back(i);
    }
    m_shown = std::move(named);
    m_shown.insert(m_shown.end(), described.begin(), described.end());
    m_list->clear();
    for (const std::size_t i : m_shown) {
        const Findable& one = m_all[i];
        QString line = one.text;
        if (!one.key.isEmpty()) line += QStringLiteral("   [%1]").arg(one.key);
        if (!one.where.isEmpty()) line += QStringLiteral("   ") + tr("at %1").arg(one.where);
        if (!one.help.isEmpty()) line += QLatin1Char('\n') + one.help;
        m_list->addItem(line);
    }
    m_list->setCurrentRow(m_shown.empty() ? -1 : 0);
}

void Finder::choose() {
    const int row = m_list->currentRow();
    if (row < 0) return;
    const Findable chosen = m_all[m_shown[static_cast<std::size_t>(row)]];
    const auto run = m_run;
    accept();
    if (run) run(chosen);
}

bool Finder::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::KeyPress) return QDialog::eventFilter(watched, event);
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Return || key == Qt::Key_Enter) {
        choose();
        return true;
    }
    if (key == Qt::Key_Down || key == Qt::Key_Up) {
        const int last = m_list->count() - 1;
        m_list->setCurrentRow(std::clamp(m_list->currentRow() + (key == Qt::Key_Down ? 1 : -1), 0, std::max(0, last)));
        return true;
    }
    return QDialog::eventFilter(watched, event);
}

} // namespace rollcall
