// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/bench.h"
#include "app/shared/form_dialog.h"
#include "app/shared/row_list.h"
#include "app/shared/seams.h"
#include "core/judge/release_judge.h"
#include "core/judge/sampling_plan.h"
#include "report/page.h"

namespace rollcall {

class ShopActions;

/// The Release gate: for each blade what is suggested and decided with its gates, what is missing, signatures, the
/// chance of blades that were not read; and what leaves the shop.
class ReleaseBench : public Bench {
    Q_OBJECT

public:
    ReleaseBench(Document& document, ShopActions& actions, Seams seams, const Look& look, QWidget* parent = nullptr);

    QString title() const override { return tr("Release"); }
    HelpText help() const override;
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override;
    void rightAct() override { certificate(); }
    std::optional<Gate> gate() const override { return Gate::release; }
    Commands commands() override;
    std::vector<ReportTable> tables() const override;

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;

private:
    QString reasonOf(const ReleaseAnswer& answer) const;
    std::vector<std::size_t> mayGo() const;
    /// The next blade after the one in hand that nobody has decided on; none when all are decided.
    std::optional<std::size_t> nextOpen() const;
    bool inHandDecided() const;
    QString saysAt(const QPoint& at) const;
    void drawRow(QPainter& painter, const QRect& at, int blade) const;
    QString rowText(int blade) const;
    void drawSample(QPainter& painter, const QRect& area) const;

    void signAll();
    void askSample();
    void certificate();
    void certificate(const QString& head);
    /// Blank card, one-page table, small cards.
    void otherPapers();
    /// Asks for the shop's name, mark and paper, shows the pages, then writes or prints them.
    void onPaper(const QString& title, std::function<int(Paper&, const FormValues&)> draw);
    void print(const QString& title, bool letter, const DrawPages& pages);
    void write(const QString& title, bool letter, const DrawPages& pages);
    QString whatIsLeft() const;

    ShopActions& m_actions;
    Seams m_seams;
    RowList* m_rows;
    Snapshot m_shown; ///< keeps what the answers point to, also while another batch is in hand already
    std::vector<ReleaseAnswer> m_answers;
    SampleState m_sample;
};

} // namespace rollcall
