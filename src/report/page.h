// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/base/instant.h"
#include "core/base/result.h"
#include "plot/look.h"

#include <functional>
#include <QPagedPaintDevice>
#include <QPainter>
#include <QString>

namespace rollcall {

/// Ink of what is said beside the numbers.
inline const QColor grey(0x55, 0x55, 0x55);

/// "2026-11-25" and "2026-11-25 15:20" by the clock that wrote the moment.
QString dayOf(const Instant& at);
QString timeOf(const Instant& at);

/// What pages are drawn on: a printer, a PDF, pictures.
struct Paper {
    QPainter& painter;
    QSizeF size_pt;             ///< of the whole sheet
    double dots_per_pt;         ///< of the painter
    std::function<void()> next; ///< begins a new sheet

    static Paper of(QPainter& painter, QPagedPaintDevice& device);
};

/// A printed page drawn in points from its margins; a look of factor 1 has its sizes in them. It goes on on the next
/// page when there is no room left.
class Page {
public:
    /// foot stands at the foot of every page.
    Page(Paper& paper, const QString& foot);
    ~Page();
    Page(const Page&) = delete;
    Page& operator=(const Page&) = delete;

    double y = 0; ///< where the next thing goes: the baseline of texts
    double width() const { return m_width; }
    int pages() const { return m_pages; }
    QPainter& painter() { return m_paper.painter; }
    const Look& look() const { return m_look; }

    /// A new page unless this much room is left.
    void need(double room);
    void breakPage();
    void text(double x, const QString& line, int size, bool bold = false, const QColor& color = Qt::black,
              Qt::Alignment alignment = Qt::AlignLeft);
    /// A paragraph, broken at blanks to the width of the page.
    void paragraph(const QString& text, int size, bool bold = false, const QColor& color = Qt::black,
                   double indent = 0);
    void rule(double weight = 0.6);
    void heading(const QString& title);

private:
    void drawFoot();

    Paper& m_paper;
    QString m_foot;
    Look m_look;
    double m_width = 0;
    double m_bottom = 0;
    int m_pages = 1;
};

/// Draws on a device whose page is set, and tells how many pages it took.
using DrawPages = std::function<int(Paper&)>;

/// Writes what is drawn as a PDF on A4 or US Letter with its typefaces in it; gives back what draw returns. Errors:
/// disk.
Result<int> writePdf(const QString& path, bool letter, const QString& title, const DrawPages& draw);

} // namespace rollcall
