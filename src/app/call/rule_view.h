// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/acts/reading_station.h"
#include "plot/rule.h"

#include <QWidget>

namespace rollcall {

/// The large rule under the reading row: the blade's readings against its window, or the block's against its value.
class RuleView : public QWidget {
    Q_OBJECT

public:
    RuleView(const Document& document, const ReadingStation& station, const Look& look, QWidget* parent = nullptr);
    void refresh();
    /// Window, readings, earlier tempers and files of the blade in hand.
    RuleData bladeData() const;
    /// What lies at a place of it, in words.
    QString saysAt(const QPoint& at) const;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    static std::optional<Interval> bracketOf(const FileTest* test);
    RuleData blockData() const;

    const Document& m_document;
    const ReadingStation& m_station;
    const Look& m_look;
    RuleData m_data;
};

} // namespace rollcall
