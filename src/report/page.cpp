// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/page.h"

#include <QCoreApplication>
#include <QDateTime>
#include <QFontMetricsF>
#include <QPdfWriter>

namespace rollcall {

namespace {

constexpr double margin = 48;
const QColor grey(0x55, 0x55, 0x55);

QString written(const Instant& at, const char* format) {
    return QDateTime::fromMSecsSinceEpoch(at.utc_ms, Qt::OffsetFromUTC, at.offset_minutes * 60)
        .toString(QString::fromLatin1(format));
}

} // namespace

QString dayOf(const Instant& at) {
    return written(at, "yyyy-MM-dd");
}

QString timeOf(const Instant& at) {
    return written(at, "yyyy-MM-dd hh:mm");
}

Page::Page(QPainter& painter, QPagedPaintDevice& device, const QString& foot)
    : m_painter(painter), m_device(device), m_foot(foot) {
    const QSizeF paper = device.pageLayout().pageSize().size(QPageSize::Point);
    m_width = paper.width() - 2 * margin;
    m_bottom = paper.height() - 2 * margin;
    m_painter.save();
    // The painter counts in dots of the device from the page's own corner.
    const double dots = device.logicalDpiX() / 72.0;
    m_painter.scale(dots, dots);
    m_painter.translate(margin, margin);
    drawFoot();
}

Page::~Page() {
    m_painter.restore();
}

void Page::need(double room) {
    if (y + room <= m_bottom - 24) return;
    m_device.newPage();
    ++m_pages;
    y = 0;
    drawFoot();
}

void Page::text(double x, const QString& line, int size, bool bold, const QColor& color, Qt::Alignment alignment) {
    drawText(m_painter, x, y, line, m_look.font(size, bold), color, alignment);
}

void Page::paragraph(const QString& text, int size, bool bold, const QColor& color, double indent) {
    const QFont font = m_look.font(size, bold);
    QString line;
    const auto put = [&] {
        need(size * 1.4);
        y += size * 1.35;
        drawText(m_painter, indent, y, line, font, color);
        line.clear();
    };
    for (const QString& word : text.split(QLatin1Char(' '), Qt::SkipEmptyParts)) {
        const QString longer = line.isEmpty() ? word : line + QLatin1Char(' ') + word;
        if (QFontMetricsF(font).horizontalAdvance(longer) > m_width - indent && !line.isEmpty()) {
            put();
            line = word;
        } else {
            line = longer;
        }
    }
    if (!line.isEmpty()) put();
}

void Page::rule(double weight) {
    m_painter.fillRect(QRectF(0, y, m_width, weight), Qt::black);
}

void Page::heading(const QString& title) {
    need(54);
    y += 26;
    text(0, title, 12, true);
    y += 4;
    rule();
    y += 4;
}

void Page::drawFoot() {
    drawText(m_painter, 0, m_bottom, m_foot, m_look.font(8), grey);
    drawText(m_painter, m_width, m_bottom, QCoreApplication::translate("report", "page %1").arg(m_pages),
             m_look.font(8), grey, Qt::AlignRight);
}

Result<int> writePdf(const QString& path, bool letter, const QString& title,
                     const std::function<int(QPainter&, QPagedPaintDevice&)>& draw) {
    QPdfWriter pdf(path);
    pdf.setPageSize(QPageSize(letter ? QPageSize::Letter : QPageSize::A4));
    pdf.setPageMargins(QMarginsF(0, 0, 0, 0));
    pdf.setResolution(300);
    pdf.setTitle(title);
    pdf.setCreator(QStringLiteral("Rollcall"));
    QPainter painter;
    if (!painter.begin(&pdf)) return Error{ErrorKind::disk, path.toStdString(), "this file cannot be written"};
    return draw(painter, pdf);
}

} // namespace rollcall
