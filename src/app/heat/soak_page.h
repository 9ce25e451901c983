// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/links/oven_link.h"
#include "app/shared/bench.h"
#include "app/shared/form_dialog.h"
#include "app/shared/seams.h"
#include "app/shared/stretch.h"
#include "core/judge/heat_book.h"
#include "logbook/actions/heat.h"
#include "plot/heat_chart.h"

#include <memory>

namespace rollcall {

/// The soak clock: the oven's trace, the steel estimated, and each blade's way through the heat, by one key each time.
class SoakPage : public Bench {
    Q_OBJECT

public:
    SoakPage(Document& document, OvenLink& oven, Seams seams, const Look& look);

    QString title() const override { return tr("Soak"); }
    HelpText help() const override;
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override;
    void rightAct() override;
    Commands commands() override;
    QStringList movements() const override;
    bool key(QKeyEvent* event) override;
    void importTrace(const QString& path);

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;

private:
    const HeatRun* run() const;
    /// Whether marks are taken at the computer's clock; else at the cursor on the trace.
    bool live() const;
    double moment() const;
    std::optional<HeatMoment> next() const;
    std::optional<HeatMoment> nextOf(int blade) const;
    void mark(HeatMoment moment, const std::vector<int>& blades);
    void advance();
    void startHeat();
    void beginHeat(HeatDraft heat, const std::string& oven, std::optional<TraceDraft> trace, const QString& what,
                   std::vector<HeatNoteDraft> notes = {});
    void askTrace();
    void note();
    void noteLoad();
    void stopwatch();
    void typeMoment();
    std::vector<const Blade*> bladesNamed(const QString& text, QString* unknown) const;
    FormFault bladesFault(const QString& text) const;
    void why();
    void compareRuns();
    void strikeHeat();
    void wireOven();
    void moveCursor(double seconds);
    SoakChart chart() const;
    QString saysAt(const QPoint& at) const;
    QRect chartArea() const;

    OvenLink& m_oven;
    Seams m_seams;
    QTimer m_tick;
    std::string m_shownRun;
    double m_cursor = 0;
    std::optional<Instant> m_stopwatch; ///< when it was started; none while it stands
    std::string m_timed;                ///< id of the blade it was started for
    Stretch* m_stretch;
    Trace m_liveTrace; ///< stored samples with those that came since
};

} // namespace rollcall
