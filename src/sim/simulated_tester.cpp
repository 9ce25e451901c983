// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "sim/simulated_tester.h"

#include <cmath>
#include <cstdlib>
#include <fcntl.h>
#include <QFile>
#include <QStringList>
#include <termios.h>
#include <unistd.h>

namespace rollcall {

SimulatedTester::SimulatedTester(double usualNoise, quint64 seed) : noise(usualNoise), m_random(seed) {}

SimulatedTester::~SimulatedTester() {
    unplug();
    if (!link.isEmpty()) QFile::remove(link);
}

Result<Done> SimulatedTester::plug() {
    if (m_line >= 0) return Done{};
    const Error failed{ErrorKind::disk, "", "no pseudo terminal could be opened"};
    m_line = ::posix_openpt(O_RDWR | O_NOCTTY);
    if (m_line < 0 || ::grantpt(m_line) != 0 || ::unlockpt(m_line) != 0) return failed;
    termios settings{};
    if (::tcgetattr(m_line, &settings) == 0) { // bytes as they are: no echo, no new lines made of returns
        ::cfmakeraw(&settings);
        ::tcsetattr(m_line, TCSANOW, &settings);
    }
    m_path = QString::fromLocal8Bit(::ptsname(m_line));
    if (link.isEmpty()) return Done{};
    QFile::remove(link);
    return QFile::link(m_path, link) ? Result<Done>(Done{})
                                     : Error{ErrorKind::disk, link.toStdString(), "the link could not be made"};
}

void SimulatedTester::unplug() {
    if (m_line >= 0) ::close(m_line);
    m_line = -1;
    m_path.clear();
    if (!link.isEmpty()) QFile::remove(link);
}

void SimulatedTester::send(const QByteArray& bytes) {
    // Nobody may be listening: a full line loses what does not fit, as a wire does.
    if (m_line >= 0) {
        [[maybe_unused]] const ssize_t written =
            ::write(m_line, bytes.constData(), static_cast<std::size_t>(bytes.size()));
    }
}

double SimulatedTester::scattered() {
    std::normal_distribution<double> normal(truth + drift * m_count, noise);
    return std::round(normal(m_random) * 10) / 10;
}

QByteArray SimulatedTester::nextLine(double value) {
    m_last = QByteArray("R ") + QByteArray::number(++m_count) + ' ' + QByteArray::number(value, 'f', 1) + " HRC\r\n";
    return m_last;
}

Result<Done> SimulatedTester::command(const QString& words) {
    const QStringList parts = words.split(QLatin1Char(' '), Qt::SkipEmptyParts);
    const QString what = parts.value(0);
    if (what == QLatin1String("read")) {
        send(nextLine(parts.size() > 1 ? parts[1].toDouble() : scattered()));
    } else if (what == QLatin1String("again")) {
        send(m_last);
    } else if (what == QLatin1String("garbage")) {
        send(QByteArray("\x01\xFF?? 6x.1\r\n"));
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
    } else if (what == QLatin1String("unplug")) {
        unplug();
    } else if (what == QLatin1String("plug")) {
        return plug();
    } else {
        return Error{
            ErrorKind::argument, "",
            "the commands are read, again, garbage, partial, rest, overshoot, double, flood, unplug, plug, quit"};
    }
    return Done{};
}

} // namespace rollcall
