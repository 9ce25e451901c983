// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "core/steel/composition.h"

#include <QString>
#include <random>

namespace rollcall {

/// An analyser that drops a CSV file of element, percent, error into a folder for every shot.
class SimulatedXrf {
public:
    SimulatedXrf(QString folder, CompositionShot steel, quint64 seed);

    /// shoot a shot; coated one through a zinc coating; rubbish a file that is none; half the first half of a shot and
    /// rest its other half into the same file. Errors: argument (another word), disk.
    Result<Done> command(const QString& words);

private:
    QByteArray shot(bool coated);
    Result<Done> write(const QByteArray& bytes, bool append);

    QString m_folder;
    CompositionShot m_steel;
    std::mt19937_64 m_random;
    QByteArray m_rest;
    int m_count = 0;
};

} // namespace rollcall
