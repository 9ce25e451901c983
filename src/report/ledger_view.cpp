// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "report/ledger_view.h"

#include "report/ledger_text.h"

#include <algorithm>
#include <map>

namespace rollcall {

using namespace ledger;

QString factorName(Factor factor) {
    switch (factor) {
    case Factor::recipe:
        return tr("recipe");
    case Factor::oven:
        return tr("oven");
    case Factor::medium:
        return tr("quench medium");
    case Factor::person:
        return tr("person");
    case Factor::tester:
        return tr("tester");
    case Factor::lot:
        return tr("bar or lot");
    }
    return {};
}

QString responseName(Response response) {
    return response == Response::tempered ? tr("after temper") : tr("as quenched");
}

QString measuredName(Measured measured) {
    switch (measured) {
    case Measured::tempered:
        return tr("hardness after temper, HRC");
    case Measured::quenched:
        return tr("hardness as quenched, HRC");
    case Measured::grain:
        return tr("grain, ASTM number");
    case Measured::strokes:
        return tr("strokes counted");
    }
    return {};
}

QString proofByName(ProofBy by) {
    switch (by) {
    case ProofBy::grade:
        return tr("by grade");
    case ProofBy::purpose:
        return tr("by purpose");
    case ProofBy::hardness:
        return tr("by hardness");
    case ProofBy::angle:
        return tr("by edge angle");
    }
    return {};
}

QString seriesName(const ShopSeries& series) {
    switch (series.kind) {
    case ShopSeries::Kind::oven:
        return tr("Oven %1").arg(q(series.name));
    case ShopSeries::Kind::tempered:
        return tr("%1 after temper").arg(q(series.name));
    case ShopSeries::Kind::quenched:
        return tr("%1 as quenched").arg(q(series.name));
    case ShopSeries::Kind::tester:
        return tr("%1 on block %2").arg(q(series.name), q(series.block));
    }
    return {};
}

QString propertyName(const ProofProperty& property) {
    switch (property.kind) {
    case ProofProperty::Kind::rod:
        return tr("Edge on the rod, held");
    case ProofProperty::Kind::trial:
        return tr("%1, passed").arg(q(property.protocol));
    case ProofProperty::Kind::count:
        return tr("%1: %2").arg(q(property.protocol), q(property.step));
    case ProofProperty::Kind::grain:
        return tr("Grain, ASTM number");
    }
    return {};
}

QString runRuleText(RunRule rule) {
    switch (rule) {
    case RunRule::beyond:
        return tr("beyond the limits");
    case RunRule::longOnSide:
        return tr("fourteen in a row on one side");
    }
    return {};
}

LedgerView groupedBy(const LedgerView& view, int column) {
    if (column < 0 || column >= view.table.head.size()) return view;
    LedgerView grouped = view;
    grouped.table.head = QStringList{view.table.head[column], tr("Rows")};
    std::vector<int> numbers;
    for (int c = 0; c < view.table.head.size(); ++c) {
        const bool number =
            c != column && std::any_of(view.table.rows.begin(), view.table.rows.end(), [&](const auto& row) {
                const int type = row[c].typeId();
                return type == QMetaType::Double || type == QMetaType::Int;
            });
        if (!number) continue;
        numbers.push_back(c);
        grouped.table.head << tr("%1, mean").arg(view.table.head[c]);
    }
    struct Group {
        int rows = 0;
        std::vector<std::pair<double, int>> sums;
        std::vector<LedgerPlace> places;
    };
    QStringList order;
    std::map<QString, Group> groups;
    std::map<int, int> rowOf; // of each former row, the group's
    for (std::size_t i = 0; i < view.table.rows.size(); ++i) {
        const QString key = view.table.rows[i][column].toString();
        if (!groups.contains(key)) order << key;
        Group& group = groups[key];
        group.sums.resize(numbers.size());
        ++group.rows;
        rowOf[static_cast<int>(i)] = static_cast<int>(order.indexOf(key));
        for (std::size_t n = 0; n < numbers.size(); ++n) {
            const QVariant& value = view.table.rows[i][numbers[n]];
            if (!value.isValid()) continue;
            group.sums[n].first += value.toDouble();
            ++group.sums[n].second;
        }
        group.places.insert(group.places.end(), view.places[i].begin(), view.places[i].end());
    }
    grouped.table.rows.clear();
    grouped.places.clear();
    for (const QString& key : order) {
        const Group& group = groups[key];
        QVariantList row{key.isEmpty() ? QStringLiteral("–") : key, group.rows};
        for (const auto& [sum, n] : group.sums) row << (n > 0 ? QVariant(toPlaces(sum / n, 2)) : QVariant());
        grouped.table.rows.push_back(std::move(row));
        grouped.places.push_back(group.places);
    }
    for (LedgerChart::Point& point : grouped.chart.points) {
        if (point.row >= 0) point.row = rowOf[point.row];
    }
    grouped.strip = grouped.strip_u = -1;
    return grouped;
}

} // namespace rollcall
