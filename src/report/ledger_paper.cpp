// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/ledger_paper.h"

#include "plot/glyphs.h"
#include "plot/translate.h"

#include <algorithm>
#include <cmath>

namespace rollcall {

namespace {

QString cellText(const QVariant& value) {
    if (!value.isValid()) return QStringLiteral("–");
    if (value.typeId() == QMetaType::Double)
        return QString::number(value.toDouble(), 'g', 6).replace(QLatin1Char('-'), QChar(0x2212));
    return value.toString();
}

void drawRows(Page& page, const ReportTable& table) {
    constexpr int size = 8;
    constexpr double line = 12;
    constexpr std::size_t most = 2000; // forty pages; the whole table goes out as a file
    const int columns = static_cast<int>(table.head.size());
    if (columns == 0 || table.rows.empty()) return;
    std::vector<double> wide(static_cast<std::size_t>(columns));
    double sum = 0;
    for (int c = 0; c < columns; ++c) {
        double& own = wide[static_cast<std::size_t>(c)];
        own = page.look().width(table.head[c], size, true);
        for (std::size_t r = 0; r < std::min<std::size_t>(table.rows.size(), 200); ++r)
            own = std::max<double>(own, page.look().width(cellText(table.rows[r][c]), size));
        own += 10;
        sum += own;
    }
    const double scale = std::min(1.0, page.width() / sum);
    const auto head = [&] {
        double x = 0;
        for (int c = 0; c < columns; ++c) {
            const double room = wide[static_cast<std::size_t>(c)] * scale;
            page.text(x, elided(table.head[c], page.look().font(size, true), static_cast<int>(room) - 4), size, true);
            x += room;
        }
        page.y += line;
        page.rule(0.4);
        page.y += 2;
    };
    page.need(4 * line);
    head();
    int pages = page.pages();
    for (std::size_t r = 0; r < table.rows.size() && r < most; ++r) {
        page.need(line);
        if (page.pages() != pages) head();
        pages = page.pages();
        double x = 0;
        for (int c = 0; c < columns; ++c) {
            const double room = wide[static_cast<std::size_t>(c)] * scale;
            page.text(x, elided(cellText(table.rows[r][c]), page.look().font(size), static_cast<int>(room) - 4), size);
            x += room;
        }
        page.y += line;
    }
    if (table.rows.size() > most)
        page.paragraph(tr("%1 more rows: write the table as a file.").arg(table.rows.size() - most), size, false, grey);
}

} // namespace

int drawLedgerPages(Paper& paper, const LedgerView& view, const QString& shop, const Instant& now) {
    Page page(paper, (shop.isEmpty() ? QString() : shop + QStringLiteral(", ")) + dayOf(now));
    page.y = 18;
    page.text(0, view.table.title, 20, true);
    page.y += 24;
    page.text(0, view.word, 15, true);
    page.y += 18;
    page.paragraph(view.sub, 11);
    page.y += 4;
    const bool only = view.table.head.size() == 1; // sentences: they stand for themselves
    if (only) {
        for (const QVariantList& row : view.table.rows) {
            page.paragraph(row.front().toString(), 12, false, Qt::black, 0);
            page.y += 8;
        }
    }
    for (const LedgerView::Line& line : view.lines)
        page.paragraph(line.rule.isEmpty() ? line.text : QStringLiteral("%1 [%2]").arg(line.text, line.rule), 9, false,
                       grey, 10);
    if (only) return page.pages();
    page.y += 8;
    const double high = 260;
    page.need(high + 20);
    if (!view.chart.points.empty() || !view.chart.lines.empty()) {
        drawLedgerChart(page.painter(), QRect(0, qRound(page.y), qRound(page.width()), qRound(high)), view.chart,
                        page.look());
        page.y += high + 20;
    }
    drawRows(page, view.table);
    return page.pages();
}

int drawStudyLabels(Paper& paper, const StudyPlan& plan) {
    Page page(paper, QString::fromStdString(plan.name));
    const std::vector<std::size_t> order = orderOf(plan);
    const std::vector<std::string> marks = marksOf(plan);
    page.y = 16;
    page.text(0, tr("Labels: %1").arg(QString::fromStdString(plan.name)), 16, true);
    page.y += 14;
    constexpr int across = 4;
    constexpr double high = 68;
    const double wide = page.width() / across;
    for (std::size_t i = 0; i < order.size(); ++i) {
        const auto column = static_cast<int>(i % across);
        if (column == 0) {
            if (i > 0) page.y += high;
            page.need(high);
        }
        const double x = column * wide;
        const double top = page.y;
        page.painter().setPen(QPen(grey, 0.5, Qt::DashLine));
        page.painter().setBrush(Qt::NoBrush);
        page.painter().drawRect(QRectF(x, top, wide, high));
        page.y = top + 30;
        page.text(x + 10, QString::fromStdString(marks[i]), 24, true);
        page.text(x + wide - 10, QString::number(i + 1), 12, false, grey, Qt::AlignRight);
        page.y = top + 46;
        page.text(
            x + 10,
            elided(QString::fromStdString(plan.levels[order[i]]), page.look().font(11), static_cast<int>(wide) - 20),
            11);
        page.y = top + 60;
        page.text(x + 10, elided(QString::fromStdString(plan.name), page.look().font(8), static_cast<int>(wide) - 20),
                  8, false, grey);
        page.y = top;
    }
    return page.pages();
}

} // namespace rollcall
