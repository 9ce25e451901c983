// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/acts/reading_station.h"
#include "app/shared/seams.h"

#include <QObject>

namespace rollcall {

/// Calls the roll aloud, where that is wished: the blade that is next, the number that was logged, and what was refused
/// and why. For hands that hold a blade and eyes that are on the tester.
class Caller : public QObject {
    Q_OBJECT

public:
    Caller(const Document& document, const ReadingStation& station, const Seams& seams, QObject* parent = nullptr);

    static bool wished();
    /// From now on, on this computer. Empty, or why it cannot be: then nothing changes.
    QString wish(bool on);

private:
    void say(const QString& text);
    void followBlade();
    void followStation();

    const Document& m_document;
    const ReadingStation& m_station;
    const Seams& m_seams;
    std::string m_called; ///< the blade that was called last
    QString m_refused;    ///< what was refused last
};

} // namespace rollcall
