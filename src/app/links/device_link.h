// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/store/document.h"
#include "devices/instrument_line.h"

#include <memory>
#include <QObject>

namespace rollcall {

/// How a tester is wired to this computer. A fact of the computer, not of the record: kept in its settings.
struct LineSetup {
    QString port; ///< device path; empty: not on a wire
    int baud = 9600;
    QString pattern;
};

/// The line of the tester in use: opened when that tester is chosen, closed when another is.
class DeviceLink : public QObject {
    Q_OBJECT

public:
    explicit DeviceLink(Document& document, QObject* parent = nullptr);

    static LineSetup setupOf(const std::string& tester);
    /// Keeps the set-up and, for the tester in use, connects anew. Errors (argument): a pattern that is none.
    Result<Done> setUp(const std::string& tester, const LineSetup& setup);

    /// Null when the tester in use is not on a wire.
    const InstrumentLine* line() const { return m_line.get(); }
    /// "line open", "line lost: ..."; empty when there is none.
    QString stateText() const;

signals:
    void reading(const rollcall::DeviceLine& line);
    void changed();

private:
    void connectTester();

    Document& m_document;
    std::unique_ptr<InstrumentLine> m_line;
    std::string m_tester;
};

} // namespace rollcall
