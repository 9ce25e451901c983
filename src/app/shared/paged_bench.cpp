// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/paged_bench.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace rollcall {

namespace {
constexpr int tabsHeight = 48;
}

PagedBench::PagedBench(Document& document, const Look& look, QWidget* parent)
    : Bench(document, look, parent), m_stack(new QStackedWidget) {
    setFocusPolicy(Qt::StrongFocus);
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(look.px(24), look.px(tabsHeight + 8), look.px(24), look.px(8));
    column->addWidget(m_stack);
}

void PagedBench::addPage(Bench* page) {
    m_pages.push_back(page);
    m_stack->addWidget(page);
    connect(page, &Bench::said, this, &Bench::said);
    connect(page, &Bench::changed, this, &Bench::changed);
}

Bench* PagedBench::current() const {
    return m_pages[static_cast<std::size_t>(m_stack->currentIndex())];
}

int PagedBench::pageIndex() const {
    return m_stack->currentIndex();
}

void PagedBench::openPageAt(int index) {
    m_stack->setCurrentIndex(index);
    emit changed();
}

void PagedBench::refresh() {
    const int top = wantsAll() ? 8 : tabsHeight + 8;
    layout()->setContentsMargins(m_look.px(24), m_look.px(top), m_look.px(24), m_look.px(8));
    current()->refresh();
    setAccessibleName(current()->title());
    update();
}

bool PagedBench::key(QKeyEvent* event) {
    const int pages = static_cast<int>(m_pages.size());
    if (wantsAll()) return current()->key(event); // a page that has the window turns no other
    const bool plain = !(event->modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier));
    if (event->key() == Qt::Key_Tab || event->key() == Qt::Key_Backtab) {
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

QRect PagedBench::tab(int index) const {
    int x = m_look.px(24);
    for (int i = 0; i < index; ++i)
        x += m_look.width(m_pages[static_cast<std::size_t>(i)]->title(), 20, true) + m_look.px(28);
    return {x, 0, m_look.width(m_pages[static_cast<std::size_t>(index)]->title(), 20, true), m_look.px(tabsHeight)};
}

void PagedBench::mousePressEvent(QMouseEvent* event) {
    for (int i = 0; i < static_cast<int>(m_pages.size()); ++i) {
        if (tab(i).adjusted(-m_look.px(10), 0, m_look.px(10), 0).contains(event->pos())) openPageAt(i);
    }
}

void PagedBench::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    painter.fillRect(rect(), p.panel);
    if (wantsAll()) return;
    painter.fillRect(m_look.px(24), m_look.px(tabsHeight), width() - m_look.px(48), 1, p.hair);
    for (int i = 0; i < static_cast<int>(m_pages.size()); ++i) {
        const bool open = i == m_stack->currentIndex();
        const QRect at = tab(i);
        drawText(painter, at.left(), m_look.px(33), m_pages[static_cast<std::size_t>(i)]->title(),
                 m_look.font(20, open), open ? p.ink : p.muted);
        if (open)
            painter.fillRect(at.left(), m_look.px(tabsHeight) - m_look.px(4), at.width(), m_look.px(4), p.primary);
    }
    const QString hint = tr("Tab, 1 to %1").arg(m_pages.size());
    drawText(painter, width() - m_look.px(24), m_look.px(31), hint, m_look.font(14), p.muted, Qt::AlignRight);
}

} // namespace rollcall
