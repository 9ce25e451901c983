// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/page.h"

#include "files/disk.h"

#include <QBuffer>
#include <QCoreApplication>
#include <QDateTime>
#include <QFontMetricsF>
#include <QPdfWriter>

namespace rollcall {

namespace {

constexpr double margin = 48;

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

Paper Paper::of(QPainter& painter, QPagedPaintDevice& device) {
    return {painter, device.pageLayout().pageSize().size(QPageSize::Point), device.logicalDpiX() / 72.0,
            [&device] { device.newPage(); }};
}

Page::Page(Paper& paper, const QString& foot) : m_paper(paper), m_foot(foot) {
    m_width = paper.size_pt.width() - 2 * margin;
    m_bottom = paper.size_pt.height() - 2 * margin;
    paper.painter.save();
    // The painter counts in dots from the sheet's own corner.
    paper.painter.scale(paper.dots_per_pt, paper.dots_per_pt);
    paper.painter.translate(margin, margin);
    drawFoot();
}

Page::~Page() {
    m_paper.painter.restore();
}

void Page::need(double room) {
    if (y + room > m_bottom - 24) breakPage();
}

void Page::breakPage() {
    m_paper.next();
    ++m_pages;
    y = 0;
    drawFoot();
}

void Page::text(double x, const QString& line, int size, bool bold, const QColor& color, Qt::Alignment alignment) {
    drawText(m_paper.painter, x, y, line, m_look.font(size, bold), color, alignment);
}

void Page::paragraph(const QString& text, int size, bool bold, const QColor& color, double indent) {
    const QFont font = m_look.font(size, bold);
    QString line;
    const auto put = [&] {
        need(size * 1.4);
        y += size * 1.35;
        drawText(m_paper.painter, indent, y, line, font, color);
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
    m_paper.painter.fillRect(QRectF(0, y, m_width, weight), Qt::black);
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
    drawText(m_paper.painter, 0, m_bottom, m_foot, m_look.font(8), grey);
    drawText(m_paper.painter, m_width, m_bottom, QCoreApplication::translate("report", "page %1").arg(m_pages),
             m_look.font(8), grey, Qt::AlignRight);
}

Result<int> writePdf(const QString& path, bool letter, const QString& title, const DrawPages& draw) {
    QBuffer written;
    written.open(QIODevice::WriteOnly);
    QPdfWriter pdf(&written);
    pdf.setPageSize(QPageSize(letter ? QPageSize::Letter : QPageSize::A4));
    pdf.setPageMargins(QMarginsF(0, 0, 0, 0));
    pdf.setResolution(300);
    pdf.setTitle(title);
    pdf.setCreator(QStringLiteral("Rollcall"));
    QPainter painter;
    if (!painter.begin(&pdf)) return Error{ErrorKind::disk, path.toStdString(), "this file cannot be written"};
    Paper paper = Paper::of(painter, pdf);
    const Result<int> pages = draw(paper);
    painter.end(); // the last of it is written only now
    if (!pages) return pages;
    if (auto done = writeFile(path, written.data()); !done) return done.error();
    return pages;
}

} // namespace rollcall
