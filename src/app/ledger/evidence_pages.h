// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/ledger/ledger_page.h"

/// Questions to the ledger that are asked by choosing what they are about.
namespace rollcall {

/// What changed in the last seven days.
class WeekPage : public LedgerPage {
    Q_OBJECT

public:
    WeekPage(Document& document, const Seams& seams, const Look& look);
    QString title() const override { return tr("Week"); }
    HelpText help() const override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override { print(false); }
    void rightAct() override { print(true); }

protected:
    Question question() const override;

private:
    /// Whether the sentence in hand is about testers or blocks.
    bool aboutTesters() const;
};

/// Hardness over temper of one grade.
class HardnessPage : public LedgerPage {
    Q_OBJECT

public:
    HardnessPage(Document& document, const Seams& seams, const Look& look);
    QString title() const override { return tr("Tempers"); }
    HelpText help() const override;

protected:
    void offer(const LedgerNow& now) override;
    Question question() const override;

private:
    DropDown* m_grade;
};

/// Recipes, ovens, people, testers and bars against each other.
class ComparePage : public LedgerPage {
    Q_OBJECT

public:
    ComparePage(Document& document, const Seams& seams, const Look& look);
    QString title() const override { return tr("Against"); }
    HelpText help() const override;

protected:
    void offer(const LedgerNow& now) override;
    Question question() const override;

private:
    DropDown* m_factor;
    DropDown* m_grade;
    DropDown* m_response;
};

/// Ovens, grades and testers through time.
class SeriesPage : public LedgerPage {
    Q_OBJECT

public:
    SeriesPage(Document& document, const Seams& seams, const Look& look);
    QString title() const override { return tr("Drift"); }
    HelpText help() const override;

protected:
    Question question() const override;
    void answered() override;

private:
    /// What can be followed, found out beside the window: there may be tens of thousands of heats.
    struct Followed {
        QStringList names;
        QString shown;
    };
    DropDown* m_series;
    DropDown* m_kind;
    std::shared_ptr<Followed> m_followed = std::make_shared<Followed>(); ///< while a question is answered not ours
};

/// What passed at the first go, and why the rest did not.
class YieldPage : public LedgerPage {
    Q_OBJECT

public:
    YieldPage(Document& document, const Seams& seams, const Look& look);
    QString title() const override { return tr("Yield"); }
    HelpText help() const override;

protected:
    void offer(const LedgerNow& now) override;
    Question question() const override;

private:
    DropDown* m_grade;
};

/// What edges, cuts, blows and grain said.
class TriedPage : public LedgerPage {
    Q_OBJECT

public:
    TriedPage(Document& document, const Seams& seams, const Look& look);
    QString title() const override { return tr("Tried"); }
    HelpText help() const override;

protected:
    void offer(const LedgerNow& now) override;
    Question question() const override;

private:
    DropDown* m_grade;
    DropDown* m_by;
    DropDown* m_property;
};

} // namespace rollcall
