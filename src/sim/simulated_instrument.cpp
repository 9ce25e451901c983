// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "sim/simulated_instrument.h"

#include <cstdlib>
#include <fcntl.h>
#include <QFile>
#include <QStringList>
#include <termios.h>
#include <unistd.h>

namespace rollcall {

SimulatedInstrument::~SimulatedInstrument() {
    unplug();
}

Result<Done> SimulatedInstrument::plug() {
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

void SimulatedInstrument::unplug() {
    if (m_line >= 0) ::close(m_line);
    m_line = -1;
    m_path.clear();
    if (!link.isEmpty()) QFile::remove(link);
}

void SimulatedInstrument::send(const QByteArray& bytes) {
    // Nobody may be listening: a full line loses what does not fit, as a wire does.
    if (m_line >= 0) {
        [[maybe_unused]] const ssize_t written =
            ::write(m_line, bytes.constData(), static_cast<std::size_t>(bytes.size()));
    }
}

QByteArray SimulatedInstrument::numbered(char kind, double value, const char* unit) {
    m_last = QByteArray(1, kind) + ' ' + QByteArray::number(++m_count) + ' ' + QByteArray::number(value, 'f', 1) + ' ' +
             unit + "\r\n";
    return m_last;
}

Result<Done> SimulatedInstrument::command(const QString& words) {
    const QStringList parts = words.split(QLatin1Char(' '), Qt::SkipEmptyParts);
    const QString what = parts.value(0);
    if (what == QLatin1String("again"))
        send(m_last);
    else if (what == QLatin1String("garbage"))
        send(QByteArray("\x01\xFF?? 6x.1\r\n"));
    else if (what == QLatin1String("unplug"))
        unplug();
    else if (what == QLatin1String("plug"))
        return plug();
    else
        return ownCommand(parts);
    return Done{};
}

} // namespace rollcall
