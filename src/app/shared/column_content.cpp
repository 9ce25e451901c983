// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/column_content.h"

#include "words/words.h"

#include <QObject>
#include <QStringList>

namespace rollcall {

std::vector<ColumnContent::Line> reasonLines(const Verdict& verdict) {
    std::vector<ColumnContent::Line> lines;
    QStringList unseen;
    for (const Reason& reason : verdict.reasons) {
        const QString rule = QString::fromUtf8(reason.rule);
        if (reason.fact == Fact::notLookedAt) {
            const QString sentence = words::sentence(reason);
            unseen << sentence.left(sentence.indexOf(QLatin1Char(':')));
            continue;
        }
        lines.push_back({reason.tone, words::sentence(reason), rule, false});
    }
    if (!unseen.isEmpty())
        lines.push_back({Tone::unseen, QObject::tr("Not looked at: %1").arg(unseen.join(QStringLiteral(", "))),
                         QStringLiteral("record"), false});
    return lines;
}

ColumnContent columnOf(const Verdict& verdict, const std::string& mark) {
    ColumnContent content;
    content.caption = QObject::tr("%1 at %2").arg(QString::fromStdString(mark), words::gateName(verdict.gate));
    content.state = verdict.state;
    content.word = words::stateName(verdict.state);
    content.sub = words::headline(verdict);
    content.lines = reasonLines(verdict);
    content.key = QObject::tr("Enter");
    return content;
}

} // namespace rollcall
