// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/bench.h"
#include "app/shared/day_clock.h"
#include "plot/heat_chart.h"

namespace rollcall {

/// The day's ovens: what runs, what is next, and planning a temper so that batches do not clash.
class DayPage : public Bench {
    Q_OBJECT

public:
    DayPage(Document& document, DayClock& clock, const Look& look);

    QString title() const override { return tr("Day"); }
    HelpText help() const override;
    std::vector<ReportTable> tables() const override;
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override;
    void rightAct() override;
    Commands commands() override;
    QStringList movements() const override;
    bool key(QKeyEvent* event) override;
    /// The run whose bar lies at a place of it, in words.
    QString saysAt(const QPoint& at) const;
    /// Asks for oven and start of this temper of the batch in hand.
    void plan(double temperature_c, double hours);

signals:
    /// A temper was taken out: it is to be logged on its blades.
    void temperWanted(double temperature_c, double hours);

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    const std::vector<PlannedRun>& runs() const { return m_document.state().shop().day; }
    const PlannedRun* chosen() const;
    DayChart chart() const;
    QRect chartArea() const;
    /// What is to be tempered next, in this batch and the others, as lines; none of it has an oven yet.
    QStringList waiting() const;
    /// What was taken out since yesterday.
    QStringList over() const;
    /// A heading and its lines, as far as there is room; where the next may begin.
    int paintList(QPainter& painter, int y, const QString& heading, const QStringList& lines) const;
    void ovens();
    void mark(const PlannedRun& run, const char* kind);

    DayClock& m_clock;
    int m_chosen = -1;
};

} // namespace rollcall
