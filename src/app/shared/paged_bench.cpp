// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/paged_bench.h"

#include "app/shared/buttons.h"
#include "app/shared/plain_text.h"

#include <QKeyEvent>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace rollcall {

namespace {
constexpr int tabsHeight = 48;
}

PageTabs::PageTabs(const Look& look, QWidget* parent) : QTabBar(parent), m_look(look) {
    setObjectName(QStringLiteral("pages"));
    setDrawBase(false);
    setExpanding(false);
    setElideMode(Qt::ElideNone);
    setUsesScrollButtons(true);
    setFocusPolicy(Qt::TabFocus);
    setAttribute(Qt::WA_Hover);
}

QSize PageTabs::tabSizeHint(int index) const {
    return {m_look.px(16) + m_look.width(tabText(index), 20, true) + m_look.px(18), m_look.px(tabsHeight)};
}

void PageTabs::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    painter.fillRect(rect(), p.panel);
    painter.fillRect(0, height() - 1, width(), 1, p.hair);
    for (int i = 0; i < count(); ++i) {
        const bool open = i == currentIndex();
        const QRect at = tabRect(i);
        drawText(painter, at.left(), m_look.px(33), QString::number(i + 1), m_look.font(14), p.muted);
        drawText(painter, at.left() + m_look.px(16), m_look.px(33), tabText(i), m_look.font(20, open),
                 open ? p.ink : p.muted);
        if (open)
            painter.fillRect(at.left(), height() - m_look.px(4), at.width() - m_look.px(14), m_look.px(4), p.primary);
    }
    paintFocus(painter, *this, m_look);
}

PagedBench::PagedBench(Document& document, const Look& look, QWidget* parent)
    : Bench(document, look, parent), m_tabs(new PageTabs(look)), m_stack(new QStackedWidget) {
    setFocusPolicy(Qt::StrongFocus);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(look.px(24), 0, look.px(24), look.px(8));
    column->setSpacing(look.px(8));
    column->addWidget(m_tabs);
    column->addWidget(m_stack, 1);
    connect(m_tabs, &QTabBar::currentChanged, this, &PagedBench::openPageAt);
}

void PagedBench::addPage(Bench* page) {
    m_pages.push_back(page);
    m_stack->addWidget(page);
    {
        const QSignalBlocker quiet(m_tabs); // the first tab is current at once
        m_tabs->addTab(page->title());
    }
    connect(page, &Bench::said, this, &Bench::said);
    connect(page, &Bench::changed, this, &Bench::changed);
    connect(page, &Bench::placeWanted, this, &Bench::placeWanted);
    connect(page, &Bench::gateWanted, this, &Bench::gateWanted);
    connect(page, &Bench::commandWanted, this, &Bench::commandWanted);
}

Bench* PagedBench::current() const {
    return m_pages[static_cast<std::size_t>(m_stack->currentIndex())];
}

void PagedBench::setInFront(bool inFront) {
    Bench::setInFront(inFront);
    current()->setInFront(inFront);
}

int PagedBench::pageIndex() const {
    return m_stack->currentIndex();
}

void PagedBench::openPageAt(int index) {
    const QSignalBlocker quiet(m_tabs);
    current()->setInFront(false);
    m_tabs->setCurrentIndex(index);
    m_stack->setCurrentIndex(index);
    current()->setInFront(m_inFront);
    emit changed();
}

void PagedBench::refresh() {
    m_tabs->setVisible(!wantsAll());
    layout()->setContentsMargins(m_look.px(24), m_look.px(wantsAll() ? 8 : 0), m_look.px(24), m_look.px(8));
    for (int i = 0; i < static_cast<int>(m_pages.size()); ++i) {
        const QString title = m_pages[static_cast<std::size_t>(i)]->title();
        m_tabs->setTabText(i, title);
        m_tabs->setTabToolTip(i, plainTip(tr("%1: key %2").arg(title).arg(i + 1)));
    }
    current()->refresh();
    setAccessibleName(current()->title());
    update();
}

Commands PagedBench::everyCommand() {
    Commands all;
    for (Bench* page : m_pages) {
        for (Command& command : page->commands()) all.push_back(std::move(command));
    }
    return all;
}

QStringList PagedBench::movements() const {
    return QStringList{tr("1 to %1   the pages; Ctrl+Tab the next").arg(m_pages.size())} + current()->movements();
}

bool PagedBench::key(QKeyEvent* event) {
    const int pages = static_cast<int>(m_pages.size());
    if (wantsAll()) return current()->key(event); // a page that has the window turns no other
    const bool control = event->modifiers() & Qt::ControlModifier;
    const bool plain = !(event->modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier));
    if (control && (event->key() == Qt::Key_Tab || event->key() == Qt::Key_Backtab)) {
        const int by = event->key() == Qt::Key_Tab ? 1 : pages - 1;
        openPageAt((m_stack->currentIndex() + by) % pages);
        return true;
    }
    if (plain && event->key() >= Qt::Key_1 && event->key() < Qt::Key_1 + pages) {
        openPageAt(event->key() - Qt::Key_1);
        return true;
    }
    return current()->key(event);
}

void PagedBench::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), m_look.palette.panel);
    if (!wantsAll())
        painter.fillRect(m_look.px(24), m_look.px(tabsHeight), width() - m_look.px(48), 1, m_look.palette.hair);
}

std::vector<ReportTable> PagedBench::tables() const {
    std::vector<ReportTable> tables = current()->tables();
    if (!tables.empty()) return tables;
    return Bench::tables();
}

} // namespace rollcall
