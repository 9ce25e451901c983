// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/call/typed_reading.h"

#include "core/base/number.h"
#include "core/measure/rockwell.h"

#include <fmt/format.h>

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

} // namespace rollcall
