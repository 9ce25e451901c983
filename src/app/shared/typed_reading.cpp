// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/typed_reading.h"

#include "core/base/number.h"
#include "core/measure/rockwell.h"

#include <fmt/format.h>
#include <QObject>
#include <QStringList>

namespace rollcall {

Result<double> typedReading(const std::string& text, const RockwellScale& scale) {
    const bool pointLeftOut = text.size() == 3 && text.find_first_of(".,") == std::string::npos;
    const Result<double> number = parseNumber(pointLeftOut ? text.substr(0, 2) + "." + text.substr(2) : text);
    if (!number) return number.error();
    if (!inRange(scale, *number)) {
        return Error{ErrorKind::range, "",
                     scale.low
                         ? fmt::format("{} reads {:g} to {:g}. Type it again.", scale.symbol, *scale.low, *scale.high)
                         : "Type it again."};
    }
    return *number;
}

StrikesText strikesFromText(const QString& text, const Tables& tables) {
    StrikesText strikes;
    const RockwellScale scale = tables.scale("HRC").value();
    for (QString word : text.split(QLatin1Char(' '), Qt::SkipEmptyParts)) {
        if (word.startsWith(QLatin1Char('='))) {
            if (strikes.values.empty()) {
                strikes.fault = QObject::tr("The first strike has no spot before it.");
                return strikes;
            }
            strikes.same_spot.push_back(strikes.values.size());
            word.remove(0, 1);
        }
        const Result<double> value = typedReading(word.toStdString(), scale);
        if (!value) {
            strikes.fault = QObject::tr("%1: type HRC 20 to 70, with blanks between the strikes.").arg(word);
            return strikes;
        }
        strikes.values.push_back(*value);
    }
    if (strikes.values.size() < 2) strikes.fault = QObject::tr("Type at least two strikes; five are needed to judge.");
    return strikes;
}

} // namespace rollcall
