// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "words/method.h"

#include <QFile>

namespace rollcall {

namespace {

std::vector<MethodRule> read() {
    std::vector<MethodRule> rules;
    QFile file(QStringLiteral(":/docs/method.md"));
    if (!file.open(QIODevice::ReadOnly)) return rules;
    bool inTable = false;
    for (const QString& line : QString::fromUtf8(file.readAll()).split(QLatin1Char('\n'))) {
        if (!line.startsWith(QLatin1Char('|'))) {
            if (inTable) break; // the tables after it are of other things
            continue;
        }
        QStringList cells = line.split(QLatin1String(" | ")); // |E_n| is one of a sentence
        inTable = true;
        if (cells.size() != 4 || cells[0] == QLatin1String("| rule")) continue;
        cells[0].remove(0, 2);
        cells[3].chop(2);
        rules.push_back({cells[0].split(QLatin1String(", ")), cells[1], cells[3]});
    }
    return rules;
}

} // namespace

const std::vector<MethodRule>& methodRules() {
    static const std::vector<MethodRule> rules = read();
    return rules;
}

} // namespace rollcall
