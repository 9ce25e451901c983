// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/links/wire.h"
#include "app/store/document.h"

#include <QObject>
#include <QTimer>
#include <vector>

namespace rollcall {

/// Takes the temperature of an oven from a wire while a heat runs, shows it at once and puts it into the logbook every
/// half minute, so that a power cut costs no more than that.
class OvenLink : public QObject {
    Q_OBJECT

public:
    explicit OvenLink(Document& document, QObject* parent = nullptr);
    ~OvenLink() override;

    Wire& wire() { return m_wire; }
    bool connected() const { return m_wire.connected(); }
    /// "oven line open", "oven line lost: ..."; empty when there is none.
    QString stateText() const;
    /// The last temperature that came, and when.
    const std::optional<double>& now() const { return m_now; }
    /// Records for this heat from now on; an empty id stops. The clock is the run's.
    void record(const std::string& run, const Instant& zero);
    const std::string& recording() const { return m_run; }
    /// What came since the last part went into the logbook.
    const std::vector<TraceSample>& fresh() const { return m_fresh; }
    /// Puts what came into the logbook.
    void flush();

signals:
    void changed();

private:
    void take(const DeviceLine& line);

    Document& m_document;
    Wire m_wire;
    std::optional<double> m_now;
    std::string m_run;
    Instant m_zero;
    std::vector<TraceSample> m_fresh;
    QTimer m_flush;
    bool m_begun = false;   ///< this run has a part already
    bool m_storing = false; ///< a part is on its way into the logbook
};

} // namespace rollcall
