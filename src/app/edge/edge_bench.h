// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/links/force_link.h"
#include "app/shared/bench.h"
#include "app/shared/seams.h"
#include "core/judge/edge_judge.h"
#include "plot/edge_picture.h"

namespace rollcall {

/// The Edge gate: the rod test as a ladder of force and angle, the edge drawn to scale from its numbers, and whether
/// geometry or heat treatment accounts for what it did.
class EdgeBench : public Bench {
    Q_OBJECT

public:
    EdgeBench(Document& document, ForceLink& force, Seams seams, const Look& look, QWidget* parent = nullptr);

    QString title() const override { return tr("Edge"); }
    HelpText help() const override;
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override { otherRung(); }
    void rightAct() override { strikeLast(); }
    std::optional<Gate> gate() const override { return Gate::edge; }
    Commands commands() override;
    QStringList movements() const override;
    bool key(QKeyEvent* event) override;
    /// The rung of the ladder that lies at a place of it, in words.
    QString saysAt(const QPoint& at) const;

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    std::optional<double> hrc() const;
    EdgeLoadStep chosen() const;
    QRect ladderArea() const;
    int ladderTall() const;
    bool showsRule() const;
    bool showsStrip() const;
    void paintRule(QPainter& painter, const RungAnswer* failure, const std::optional<EdgeGeometry>& edge);
    void paintStrip(QPainter& painter, const Blade& blade);
    QRect bladeArea() const;
    LadderPicture picture() const;
    const RungAnswer* worst() const;
    Act asked() const;
    const EdgeRung* unmeasured() const; ///< the last that did damage whose depth nobody has told; null: none
    void askOutcome(const EdgeRung& rung);
    void askDamage(EdgeRung rung);
    void keep(const EdgeRung& rung); ///< one that stands already is struck out, and stands again as it is now
    void otherRung();
    void flexByHand();
    void strikeLast();
    void measure();
    void history();
    void noteGrinding();
    void choosePurpose();
    void takeOwnAsk();
    void markDamage();
    void lookAtHeat();
    void wire();
    void exportPicture();

    ForceLink& m_force;
    Seams m_seams;
    LadderAnswer m_ladder;
    LadderGrid m_grid;
    std::vector<EdgeRung> m_rungs;
    std::string m_shown; ///< blade and number of rungs the cursor was last put for
    int m_forceIndex = 0;
    int m_raiseIndex = 0;
    double m_place_mm = 0; ///< where on the edge the next rung goes
};

} // namespace rollcall
