// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/call/reading_station.h"
#include "app/frame/verdict_column.h"
#include "app/shared/device_link.h"
#include "plot/rule.h"

#include <QWidget>

namespace rollcall {

class BladeView;
class ReadingRow;
class RuleView;

/// The Call bench of the Quench and Temper gates: the reading station with blade, readings, rule and tester.
class CallBench : public QWidget {
    Q_OBJECT

public:
    CallBench(Document& document, ReadingStation& station, const DeviceLink& link, const Look& look,
              QWidget* parent = nullptr);
    void refresh();
    /// What the verdict column says while this bench is open.
    ColumnContent content() const;
    /// M7: times how long the total force is held; again stops it.
    void startDwell();
    /// Window and readings of the blade in hand, as on the rule.
    RuleData rule() const;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    void paintHead(QPainter& painter) const;
    void paintTester(QPainter& painter) const;
    ColumnContent bladeContent() const;
    ColumnContent blockContent() const;
    void nameAct(ColumnContent& content) const;

    Document& m_document;
    ReadingStation& m_station;
    const DeviceLink& m_link;
    const Look& m_look;
    BladeView* m_blade;
    ReadingRow* m_row;
    RuleView* m_rule;
};

} // namespace rollcall
