// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/release/page_preview.h"

#include "app/shared/buttons.h"
#include "app/shared/plain_text.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QScrollArea>
#include <QScrollBar>
#include <QVBoxLayout>

namespace rollcall {

PagePreview::PagePreview(const QString& title, std::vector<QImage> pages, const Look& look, QWidget* parent)
    : QDialog(parent), m_title(title), m_pages(std::move(pages)), m_heading(new PlainLabel), m_picture(new PlainLabel) {
    setAttribute(Qt::WA_DeleteOnClose);
    setWindowTitle(title);
    setObjectName(QStringLiteral("preview"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(look.px(24), look.px(16), look.px(24), look.px(16));
    column->setSpacing(look.px(10));
    m_heading->setFont(look.font(20, true));
    column->addWidget(m_heading);
    auto* scroll = new QScrollArea;
    scroll->setObjectName(QStringLiteral("scroll"));
    scroll->setWidget(m_picture);
    scroll->setAlignment(Qt::AlignHCenter);
    scroll->setFocusPolicy(Qt::StrongFocus);
    column->addWidget(scroll, 1);
    auto* buttons = new QHBoxLayout;
    auto* file = new PrimaryButton(look);
    file->show(tr("Write the PDF"), tr("+ and - turn pages; Esc leaves it"), tr("Enter"));
    connect(file, &QAbstractButton::clicked, this, [this] { finish(false); });
    auto* printer = new SideButton(tr("Print"), QStringLiteral("P"), look);
    connect(printer, &QAbstractButton::clicked, this, [this] { finish(true); });
    buttons->addWidget(file, 1);
    buttons->addWidget(printer);
    column->addLayout(buttons);
    const QSize room = parent != nullptr ? parent->size() : QSize(1280, 800);
    resize(std::min(room.width() - look.px(80), m_pages.front().width() + look.px(80)), room.height() - look.px(40));
    turn(0);
}

void PagePreview::turn(int by) {
    m_page = std::clamp(m_page + by, 0, static_cast<int>(m_pages.size()) - 1);
    const QImage& page = m_pages[static_cast<std::size_t>(m_page)];
    m_picture->setPixmap(QPixmap::fromImage(page));
    m_picture->resize(page.size());
    m_heading->setText(tr("%1, page %2 of %3").arg(m_title).arg(m_page + 1).arg(m_pages.size()));
    findChild<QScrollArea*>(QStringLiteral("scroll"))->verticalScrollBar()->setValue(0);
}

void PagePreview::ask(std::function<void(bool)> write) {
    m_write = std::move(write);
    open();
}

void PagePreview::finish(bool printer) {
    const auto write = m_write;
    accept();
    if (write) write(printer);
}

void PagePreview::keyPressEvent(QKeyEvent* event) {
    auto* bar = findChild<QScrollArea*>(QStringLiteral("scroll"))->verticalScrollBar();
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Enter)
        finish(false);
    else if (event->text().compare(QLatin1String("p"), Qt::CaseInsensitive) == 0)
        finish(true);
    else if (event->text() == QLatin1String("+") || event->text() == QLatin1String("-"))
        turn(event->text() == QLatin1String("+") ? 1 : -1);
    else if (event->key() == Qt::Key_PageDown || event->key() == Qt::Key_PageUp)
        bar->setValue(bar->value() + (event->key() == Qt::Key_PageDown ? bar->pageStep() : -bar->pageStep()));
    else
        QDialog::keyPressEvent(event);
}

} // namespace rollcall
