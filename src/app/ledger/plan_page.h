// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/ledger/ledger_page.h"

namespace rollcall {

/// Studies before and while they are done: how many pieces, in which order, and what came of it against the plan.
class PlanPage : public LedgerPage {
    Q_OBJECT

public:
    PlanPage(Document& document, const Seams& seams, const Look& look);
    QString title() const override { return tr("Plan"); }
    HelpText help() const override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override;
    Commands commands() override;
    QString unsaved() const override;
    bool escape() override;

protected:
    void offer(const LedgerNow& now) override;
    Question question() const override;

private:
    /// The plan in hand: one that is kept, or the one being made.
    const StudyPlan* plan() const;
    void makePlan();
    void keep();
    void printLabels();

    const Seams& m_seams;
    DropDown* m_which;
    std::optional<StudyPlan> m_draft;
    QString m_grade; ///< of the draft's pieces
};

} // namespace rollcall
