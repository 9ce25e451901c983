// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/translate.h"
#include "report/ledger_view.h"
#include "words/words.h"

#include <cmath>
#include <QDate>

/// What the views of the ledger have in common: how they tell numbers, days, shares and places.
namespace rollcall::ledger {

inline QString q(const std::string& text) {
    return QString::fromStdString(text);
}

inline QString dayText(std::int64_t day) {
    return QDate(1970, 1, 1).addDays(day).toString(Qt::ISODate);
}

inline QString capital(const QString& text) {
    return text.left(1).toUpper() + text.mid(1);
}

inline QString hrc2(double value) {
    return QString::number(value, 'f', 2).replace(QLatin1Char('-'), QChar(0x2212));
}

inline QString signedHrc(double value) {
    return (value > 0.005 ? QStringLiteral("+") : QString()) + hrc2(value);
}

inline double toPlaces(double value, int decimals) {
    const double power = std::pow(10, decimals);
    return std::round(value * power) / power;
}

inline QString apart(double value) {
    return value >= 0 ? tr("%1 harder").arg(words::tenths(std::abs(value)))
                      : tr("%1 softer").arg(words::tenths(std::abs(value)));
}

// Chances that are told to be compared with 0.05, never as nought.
inline QString chanceText(double p) {
    return p < 0.001 ? tr("p below 0.001") : tr("p %1").arg(QString::number(p, 'f', 3));
}

inline QString shareText(const Share& share) {
    if (share.of == 0) return tr("none");
    return tr("%1 of %2").arg(share.passed).arg(share.of);
}

inline QString knownText(const std::optional<Performed>& known) {
    return known ? tr("%1 to %2 %").arg(std::lround(100 * known->low)).arg(std::lround(100 * known->high)) : QString();
}

inline QVariant optional(const std::optional<double>& value, int decimals) {
    return value ? QVariant(toPlaces(*value, decimals)) : QVariant();
}

inline LedgerPlace placeOf(const LedgerBatch* batch, const std::string& blade = {}) {
    return batch == nullptr ? LedgerPlace{} : LedgerPlace{batch->id, blade};
}

inline std::vector<LedgerPlace> placesOf(const std::vector<const LedgerBatch*>& batches) {
    std::vector<LedgerPlace> places;
    for (const LedgerBatch* batch : batches) places.push_back(placeOf(batch));
    return places;
}

inline QString notChance() {
    return tr("Heats were not assigned by lot: what else differed between them may be the cause");
}

} // namespace rollcall::ledger
