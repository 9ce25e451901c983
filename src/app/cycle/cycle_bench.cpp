// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/cycle/cycle_bench.h"

#include "app/cycle/colour_page.h"
#include "app/cycle/day_page.h"
#include "app/cycle/ladder_page.h"
#include "app/cycle/recipe_page.h"
#include "app/cycle/soak_page.h"
#include "app/cycle/warp_page.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QStackedWidget>
#include <QVBoxLayout>

namespace rollcall {

namespace {
constexpr int headHeight = 48;
}

CycleBench::CycleBench(Document& document, OvenLink& oven, DayClock& day, const Seams& seams, const Look& look,
                       QWidget* parent)
    : QWidget(parent), m_document(document), m_look(look), m_soak(new SoakPage(document, oven, seams, look)),
      m_stack(new QStackedWidget) {
    setObjectName(QStringLiteral("cycle-bench"));
    setFocusPolicy(Qt::StrongFocus);
    auto* ladder = new LadderPage(document, look);
    auto* dayPage = new DayPage(document, day, look);
    m_pages = {m_soak,
               ladder,
               new RecipePage(document, look),
               dayPage,
               new WarpPage(document, seams, look),
               new ColourPage(document, look)};
    connect(ladder, &LadderPage::temperWanted, this, &CycleBench::temperWanted);
    connect(dayPage, &DayPage::temperWanted, this, &CycleBench::temperWanted);
    connect(ladder, &LadderPage::planWanted, this, [this, dayPage](double temperature_c, double hours) {
        openPage(Page::day);
        dayPage->plan(temperature_c, hours);
    });
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(look.px(24), look.px(headHeight + 8), look.px(24), look.px(8));
    column->addWidget(m_stack);
    for (CyclePage* page : m_pages) {
        m_stack->addWidget(page);
        connect(page, &CyclePage::said, this, &CycleBench::said);
        connect(page, &CyclePage::changed, this, &CycleBench::changed);
    }
}

CyclePage* CycleBench::current() const {
    return m_pages[static_cast<std::size_t>(m_stack->currentIndex())];
}

CycleBench::Page CycleBench::page() const {
    return static_cast<Page>(m_stack->currentIndex());
}

void CycleBench::openPage(Page page) {
    m_stack->setCurrentIndex(static_cast<int>(page));
    emit changed();
}

void CycleBench::refresh() {
    current()->refresh();
    setAccessibleName(current()->title());
    update();
}

bool CycleBench::key(QKeyEvent* event) {
    const int pages = static_cast<int>(m_pages.size());
    const bool plain = !(event->modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier));
    if (event->key() == Qt::Key_Tab || event->key() == Qt::Key_Backtab) {
        const int by = event->key() == Qt::Key_Tab ? 1 : pages - 1;
        openPage(static_cast<Page>((m_stack->currentIndex() + by) % pages));
        return true;
    }
    if (plain && event->key() >= Qt::Key_1 && event->key() < Qt::Key_1 + pages) {
        openPage(static_cast<Page>(event->key() - Qt::Key_1));
        return true;
    }
    return current()->key(event);
}

void CycleBench::importTrace(const QString& path) {
    openPage(Page::soak);
    m_soak->importTrace(path);
}

QRect CycleBench::tab(int index) const {
    int x = m_look.px(24);
    for (int i = 0; i < index; ++i)
        x += m_look.width(m_pages[static_cast<std::size_t>(i)]->title(), 20, true) + m_look.px(28);
    return {x, 0, m_look.width(m_pages[static_cast<std::size_t>(index)]->title(), 20, true), m_look.px(headHeight)};
}

void CycleBench::mousePressEvent(QMouseEvent* event) {
    for (int i = 0; i < static_cast<int>(m_pages.size()); ++i) {
        if (tab(i).adjusted(-m_look.px(10), 0, m_look.px(10), 0).contains(event->pos())) openPage(static_cast<Page>(i));
    }
}

void CycleBench::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    painter.fillRect(rect(), p.panel);
    painter.fillRect(m_look.px(24), m_look.px(headHeight), width() - m_look.px(48), 1, p.hair);
    for (int i = 0; i < static_cast<int>(m_pages.size()); ++i) {
        const bool open = i == m_stack->currentIndex();
        const QRect at = tab(i);
        drawText(painter, at.left(), m_look.px(33), m_pages[static_cast<std::size_t>(i)]->title(),
                 m_look.font(20, open), open ? p.ink : p.muted);
        if (open)
            painter.fillRect(at.left(), m_look.px(headHeight) - m_look.px(4), at.width(), m_look.px(4), p.primary);
    }
    const QString hint = tr("Tab, 1 to %1").arg(m_pages.size());
    drawText(painter, width() - m_look.px(24), m_look.px(31), hint, m_look.font(14), p.muted, Qt::AlignRight);
}

} // namespace rollcall
