// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "sim/simulated_xrf.h"

#include <algorithm>
#include <QDir>
#include <QFile>

namespace rollcall {

SimulatedXrf::SimulatedXrf(QString folder, CompositionShot steel, quint64 seed)
    : m_folder(std::move(folder)), m_steel(std::move(steel)), m_random(seed) {}

QByteArray SimulatedXrf::shot(bool coated) {
    QByteArray text("element,percent,error\n");
    if (coated) text += "Zn,4.10,0.05\n";
    for (const ElementReading& element : m_steel.elements) {
        constexpr double found = 0.03; // limit of detection
        const double truth = element.percent.value_or(0.0) * (coated ? 0.9 : 1.0);
        const double error = std::max(0.01, 0.008 * truth);
        std::normal_distribution<double> normal(truth, error);
        const double read = normal(m_random);
        text += QByteArray::fromStdString(element.element) + ',' +
                (read < found ? QByteArray("<LOD") : QByteArray::number(read, 'f', 3)) + ',' +
                QByteArray::number(error, 'f', 3) + '\n';
    }
    return text;
}

Result<Done> SimulatedXrf::write(const QByteArray& bytes, bool append) {
    if (!append) ++m_count;
    QFile file(QDir(m_folder).filePath(QStringLiteral("shot-%1.csv").arg(m_count, 3, 10, QLatin1Char('0'))));
    const bool written =
        file.open(append ? QIODevice::Append : QIODevice::WriteOnly) && file.write(bytes) == bytes.size();
    return written ? Result<Done>(Done{})
                   : Error{ErrorKind::disk, m_folder.toStdString(), "this folder cannot be written to"};
}

Result<Done> SimulatedXrf::command(const QString& words) {
    if (words == QLatin1String("shoot")) return write(shot(false), false);
    if (words == QLatin1String("coated")) return write(shot(true), false);
    if (words == QLatin1String("rubbish")) return write("\x01\xFF no table\n", false);
    if (words == QLatin1String("half")) {
        const QByteArray text = shot(false);
        m_rest = text.mid(text.size() / 2);
        return write(text.left(text.size() / 2), false);
    }
    if (words == QLatin1String("rest")) return write(std::exchange(m_rest, {}), true);
    return Error{ErrorKind::argument, "", "the commands are shoot, coated, rubbish, half, rest, quit"};
}

} // namespace rollcall
