// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/bench.h"
#include "core/judge/proof_judge.h"
#include "core/proof/cutting.h"
#include "plot/proof_picture.h"

namespace rollcall {

/// Runs of cutting compared (M31): when each edge went dull, how much longer one blade cuts than another, and what
/// makes the comparison unfair.
class CutsPage : public Bench {
    Q_OBJECT

public:
    CutsPage(Document& document, const Look& look);

    QString title() const override { return tr("Cuts"); }
    HelpText help() const override;
    std::vector<ReportTable> tables() const override;
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override { stepOther(1); }
    QStringList movements() const override;
    bool key(QKeyEvent* event) override;
    /// The look at an edge that is drawn at a place of it, in words.
    QString saysAt(const QPoint& at) const;

signals:
    void trialWanted();

protected:
    void paintEvent(QPaintEvent*) override;

private:
    struct Run {
        std::size_t blade = 0;
        std::string medium;
        std::vector<CutLook> looks;
        DullInterval dull;
    };
    std::vector<DullInterval> runsOf(std::size_t blade) const;
    CutChart chart() const;
    QRect chartArea() const;
    void stepOther(int by);
    /// That table, from a height down; the blade in hand in bold.
    void paintBlades(QPainter& painter, int top);
    std::optional<std::size_t> other() const;
    QStringList unfair(std::size_t other) const;

    std::vector<Run> m_runs;
    std::vector<PieceFacts> m_facts;
    int m_other = -1; ///< blade compared with the one in hand
};

} // namespace rollcall
