// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "cli/commands.h"
#include "core/judge/rules/rules.h"

#include <QJsonArray>

namespace rollcall::cli {

// The rules and decision tables that verdicts come from, as data and as they are printed in docs/method.md.
Result<QJsonObject> rules(const Options&, const Tables&) {
    QJsonArray gates;
    for (const GateTable& table : gateTables()) {
        QJsonArray rows;
        for (const RuleRow& rule : table.rules) {
            QJsonArray finds;
            for (const Fact fact : rule.finds) finds.append(QLatin1String(nameOf(fact)));
            rows.append(QJsonObject{{"rule", rule.name}, {"needs", rule.needs}, {"finds", finds}});
        }
        QJsonArray decisions;
        for (const DecisionRow& row : *table.decisions)
            decisions.append(
                QJsonObject{{"when", q(row.text())}, {"state", nameOf(row.state)}, {"next", nameOf(row.act)}});
        gates.append(QJsonObject{{"gate", nameOf(table.gate)}, {"rules", rows}, {"decisions", decisions}});
    }
    return QJsonObject{{"gates", gates}, {"text", q(gateTablesText())}};
}

} // namespace rollcall::cli
