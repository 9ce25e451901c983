// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/page_picture.h"

#include <QPageSize>

namespace rollcall {

std::vector<QImage> picturesOf(bool letter, int dpi, const DrawPages& draw) {
    const QPageSize size(letter ? QPageSize::Letter : QPageSize::A4);
    QImage sheet(size.sizePixels(dpi), QImage::Format_RGB32);
    sheet.fill(Qt::white);
    std::vector<QImage> pages;
    {
        QPainter painter(&sheet);
        painter.setRenderHint(QPainter::Antialiasing);
        Paper paper{painter, size.size(QPageSize::Point), dpi / 72.0, [&] {
                        pages.push_back(sheet.copy());
                        painter.save();
                        painter.resetTransform();
                        painter.fillRect(sheet.rect(), Qt::white);
                        painter.restore();
                    }};
        draw(paper);
    }
    pages.push_back(sheet);
    return pages;
}

} // namespace rollcall
