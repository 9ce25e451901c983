// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "sim/simulated_tester.h"

#include <cmath>
#include <QStringList>
#include <utility>

namespace rollcall {

SimulatedTester::SimulatedTester(double usualNoise, quint64 seed) : noise(usualNoise), m_random(seed) {}

double SimulatedTester::scattered() {
    std::normal_distribution<double> normal(truth + drift * m_count, noise);
    return std::round(normal(m_random) * 10) / 10;
}

QByteArray SimulatedTester::nextLine(double value) {
    return numbered('R', value, "HRC");
}

Result<Done> SimulatedTester::ownCommand(const QStringList& parts) {
    const QString what = parts.value(0);
    if (what == QLatin1String("read")) {
        send(nextLine(parts.size() > 1 ? parts[1].toDouble() : scattered()));
    } else if (what == QLatin1String("partial")) {
        const QByteArray line = nextLine(parts.size() > 1 ? parts[1].toDouble() : scattered());
        m_rest = line.mid(line.size() / 2);
        send(line.left(line.size() / 2));
    } else if (what == QLatin1String("rest")) {
        send(std::exchange(m_rest, {}));
    } else if (what == QLatin1String("overshoot")) {
        send(nextLine(scattered() + 3));
    } else if (what == QLatin1String("double")) {
        send(nextLine(scattered() + 4)); // metal worked by the strike before reads points too hard
    } else if (what == QLatin1String("flood")) {
        for (int i = 0; i < parts.value(1).toInt(); ++i) send(nextLine(scattered()));
    } else {
        return Error{
            ErrorKind::argument, "",
            "the commands are read, again, garbage, partial, rest, overshoot, double, flood, unplug, plug, quit"};
    }
    return Done{};
}

} // namespace rollcall
