// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/links/device_link.h"
#include "app/shared/seams.h"
#include "core/judge/tester_health.h"
#include "plot/control_chart.h"
#include "plot/look.h"

#include <optional>
#include <QWidget>

namespace rollcall {

/// What the maker can do on the Testers bench that needs asking.
class TesterActions : public QObject {
    Q_OBJECT

public:
    TesterActions(Document& document, DeviceLink& link, const Look& look, Seams seams, QWidget* bench);

    /// A new tester, or new settings of this one.
    void edit(const Tester* tester);
    /// A new block, or the data of this one.
    void editBlock(const Block* block);
    void chooseBlockToEdit();
    void exportChart(const std::optional<ControlChart>& chart);
    /// The readings that hang on this tester since its last good run: suspect when it was found out of tolerance.
    void listSuspect(const Tester& tester);
    /// The tester's wire: set up, seen line by line, or taken away.
    void line(const Tester& tester);
    /// Judges the batch in hand as if this tester's error today were another, and says what would change.
    void whatIf(const Tester& tester, const TesterHealth& health);

signals:
    void said(const QString& message, bool trouble);

private:
    void setUpLine(const Tester& tester);
    void showLines();

    Document& m_document;
    DeviceLink& m_link;
    const Look& m_look;
    Seams m_seams;
    QWidget* window() const { return m_bench->window(); }

    QWidget* m_bench;
};

} // namespace rollcall
