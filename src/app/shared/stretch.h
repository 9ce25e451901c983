// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/command.h"

#include <QObject>
#include <QRect>
#include <utility>

class QWidget;

namespace rollcall {

/// The stretch of a chart's long axis that is in view: closer by the wheel or two fingers, along by Shift and the
/// wheel, whole again by a double click; and by three commands, for who has none of these.
class Stretch : public QObject {
    Q_OBJECT

public:
    /// area: where the chart lies on its widget.
    Stretch(QWidget* chart, std::function<QRect()> area);

    /// What is in view of an axis from low to high.
    std::pair<double, double> of(double low, double high) const {
        return {low + m_from * (high - low), low + m_to * (high - low)};
    }
    bool whole() const { return m_from <= 0 && m_to >= 1; }
    /// So many times as close, about a place from 0 at the left to 1 at the right; under 1: wider.
    void closer(double times, double about = 0.5);
    /// Along by so much of what is in view.
    void along(double by);
    void showAll();
    /// Closer, wider, whole; place is the beginning of their ids.
    Commands commands(const QString& place);

signals:
    void changed();

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    void show(double from, double to);

    std::function<QRect()> m_area;
    double m_from = 0;
    double m_to = 1;
};

} // namespace rollcall
