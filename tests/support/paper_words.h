// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "report/page.h"

#include <QBuffer>
#include <QRegularExpression>
#include <QSvgGenerator>

namespace rollcall::fixtures {

/// The words that are drawn, page after page, one line each.
inline QString wordsOf(const DrawPages& draw) {
    QBuffer out;
    out.open(QIODevice::WriteOnly);
    {
        QSvgGenerator svg;
        svg.setOutputDevice(&out);
        svg.setSize(QSize(595, 842));
        QPainter painter(&svg);
        Paper paper{painter, QSizeF(595, 842), 1, [] {}};
        draw(paper);
    }
    QStringList words;
    static const QRegularExpression text(QStringLiteral("<text[^>]*>([^<]*)</text>"));
    for (auto found = text.globalMatch(QString::fromUtf8(out.data())); found.hasNext();)
        words << found.next().captured(1).trimmed();
    return words.join(QLatin1Char('\n'));
}

} // namespace rollcall::fixtures
