// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/bench.h"
#include "app/shared/seams.h"
#include "core/judge/release_judge.h"
#include "core/judge/sampling_plan.h"

namespace rollcall {

/// The Release gate: for each blade what is suggested and decided with its gates, what is missing, signatures, the
/// chance of blades that were not read; and what leaves the shop.
class ReleaseBench : public Bench {
    Q_OBJECT

public:
    ReleaseBench(Document& document, Seams seams, const Look& look, QWidget* parent = nullptr);

    QString title() const override { return tr("Release"); }
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override { decide(); }
    void rightAct() override { certificate(); }
    bool key(QKeyEvent* event) override;

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    QRect row(int blade) const;
    QString reasonOf(const ReleaseAnswer& answer) const;
    std::vector<std::size_t> mayGo() const;
    void drawRow(QPainter& painter, int blade) const;
    void drawSample(QPainter& painter, const QRect& area) const;

    void signAll();
    void decide();
    void sign(std::vector<std::size_t> blades, Disposition disposition, const QString& reason);
    void askReason(std::size_t blade, Disposition disposition);
    void askSample();
    void certificate();
    void blankCard();
    void exportTables();
    void exportAll();

    Seams m_seams;
    std::vector<ReleaseAnswer> m_answers;
    SampleState m_sample;
};

} // namespace rollcall
