// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "sim/simulated_scale.h"

#include <QStringList>

namespace rollcall {

Result<Done> SimulatedScale::ownCommand(const QStringList& words) {
    const QString what = words.value(0);
    const auto show = [this](double newtons) {
        const double one = unit == QLatin1String("lbf") ? 4.4482216 : unit == QLatin1String("kgf") ? 9.80665 : 1.0;
        send(numbered('F', newtons / one, unit.toLatin1().constData()));
    };
    if (what == QLatin1String("tick")) {
        std::normal_distribution<double> noise(0, noise_n);
        show(pressed_n + noise(m_random));
    } else if (what == QLatin1String("press")) {
        bool ok = false;
        const double force = words.value(1).toDouble(&ok);
        if (!ok || force < 0 || force > 1000) return Error{ErrorKind::argument, "", "press needs a force, 0 to 1000 N"};
        pressed_n = force;
        show(pressed_n);
    } else if (what == QLatin1String("let")) { // let go
        pressed_n = 0;
        show(0);
    } else if (what == QLatin1String("overload")) {
        show(99999);
    } else {
        return Error{ErrorKind::argument, "",
                     "the commands are tick, press N, let go, overload, again, garbage, unplug, plug, quit"};
    }
    return Done{};
}

} // namespace rollcall
