// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/bench.h"
#include "app/shared/row_list.h"
#include "app/shared/seams.h"
#include "core/proof/trial.h"
#include "logbook/actions/proof.h"

#include <QTimer>

namespace rollcall {

/// The blade's trials, and the one that runs: over the whole window, in big type, one key for each thing that happens.
class TrialPage : public Bench {
    Q_OBJECT

public:
    TrialPage(Document& document, Seams seams, const Look& look);

    QString title() const override { return tr("Trial"); }
    HelpText help() const override;
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override { emit speaksWanted(); }
    void rightAct() override { planBend(); }
    Commands commands() override;
    bool escape() override;
    bool key(QKeyEvent* event) override;
    bool wantsAll() const override { return m_running && trial() != nullptr; }
    /// Goes on with the blade's running trial; false when it has none.
    bool resume();
    QString elsewhere() const; ///< the command for what comes next, where that is no trial: a crack, its grain
    /// Gives the window back; the trial waits.
    void leave();
    /// Asks for a protocol and begins.
    void begin();

signals:
    void speaksWanted();

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    /// The big button of a running trial.
    QRect loudKey() const;
    void compareBends(ColumnContent& content, double strain) const;
    const Trial* trial() const;  ///< the running one of the blade in hand
    const Trial* latest() const; ///< the last of this hardening round
    void beginWith(const Protocol& protocol);
    void log(TrialAct act, double value = 0, const std::string& text = {}, double second = 0, double third = 0,
             const AttachedFile& photo = {});
    void primary();
    void other();
    void fail();
    void askNumber(const QString& begun = {});
    void askCount(const QString& begun);
    void askBend();
    void planBend();
    void takePhoto();
    void note();
    void giveUp();
    void paintRunning(QPainter& painter, const Trial& trial);
    void paintList(QPainter& painter);
    /// The trial whose steps are listed: the one that runs over the window, else the latest; null for none.
    const Trial* listed() const { return m_running ? trial() : latest(); }
    void showSteps();
    void paintStep(QPainter& painter, const QRect& row, const Trial& trial, const TrialProgress& progress, int i) const;
    QRect stepsArea() const;
    QString primaryText(const Trial& trial, const TrialProgress& progress) const;

    Seams m_seams;
    RowList* m_steps;
    bool m_running = false;
    QTimer m_tick; ///< paints a running timer
};

} // namespace rollcall
