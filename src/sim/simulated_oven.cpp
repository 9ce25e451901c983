// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "sim/simulated_oven.h"

#include <cmath>
#include <QStringList>

namespace rollcall {

Result<Done> SimulatedOven::ownCommand(const QStringList& words) {
    const QString what = words.value(0);
    if (what == QLatin1String("tick")) {
        constexpr double slow_s = 180; // time in which it makes up for most of what it lost
        constexpr double swing_c = 1.2;
        now_c += (set_c - now_c) * (1 - std::exp(-step_s / slow_s));
        m_phase += step_s / 40;
        std::normal_distribution<double> noise(0, 0.1);
        send(numbered('T', now_c + swing_c * std::sin(m_phase) + noise(m_random), "C"));
    } else if (what == QLatin1String("set")) {
        bool ok = false;
        const double c = words.value(1).toDouble(&ok);
        if (!ok || c < 20 || c > 1400) return Error{ErrorKind::argument, "", "set needs a temperature, 20 to 1400"};
        set_c = c;
    } else if (what == QLatin1String("open")) {
        now_c -= 0.07 * (now_c - 20); // cold metal and an open door
    } else if (what == QLatin1String("broken")) {
        send(numbered('T', 9999.0, "C"));
    } else {
        return Error{ErrorKind::argument, "",
                     "the commands are tick, set, open, broken, again, garbage, unplug, plug, quit"};
    }
    return Done{};
}

} // namespace rollcall
