// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/ledger/ledger_chart_view.h"
#include "app/ledger/ledger_table.h"
#include "app/shared/bench.h"
#include "app/shared/seams.h"

#include <functional>
#include <QTimer>

class QBoxLayout;

namespace rollcall {

class DropDown;

/// A question to the ledger: what is asked above, the picture, and the table whose rows lead to their batches. The
/// answer is worked out beside the window, which stays free; a later question takes the place of an earlier one.
class LedgerPage : public Bench {
    Q_OBJECT

public:
    using Question = std::function<LedgerView(const LedgerNow& now)>;

    LedgerPage(Document& document, const Seams& seams, const Look& look, const char* name);

    bool needsBlade() const override { return false; }
    QWidget* focusTarget() override { return m_table; }
    void setInFront(bool inFront) override;
    void refresh() override;
    ColumnContent content() const override;
    void act() override;
    void leftAct() override;
    void rightAct() override;
    Commands commands() override;
    QStringList movements() const override;
    bool key(QKeyEvent* event) override;
    bool escape() override;
    std::vector<ReportTable> tables() const override;
    const LedgerView& view() const { return m_view; }
    /// Whether an answer is being worked out or batches are still to be gone through.
    bool busy() const { return m_working || m_fetching || m_left > 0 || m_stale; }

protected:
    /// A field with choices above the picture; the question is asked again when another is chosen.
    DropDown* addChoice(const char* name, const QString& what);
    void addControl(QWidget* control);
    /// Something of the page's own under the row of choices.
    void addRow(QWidget* row);
    LedgerChartView* chart() { return m_chart; }
    const LedgerTable* table() const { return m_table; }
    /// Fills the fields by what the ledger holds. Called before each question.
    virtual void offer(const LedgerNow& now) { (void)now; }
    /// The answer to a question is there: what came of choices that it worked out itself.
    virtual void answered() {}
    /// What is asked now, with all it needs in it: it is worked out on another thread.
    virtual Question question() const = 0;
    /// What the column adds under the lines of the view.
    virtual void addLines(ColumnContent& content) const { (void)content; }
    /// What is shown on paper, or as a PDF.
    void print(bool file);
    /// Asks again, of what is known already.
    void ask();
    /// The same, and the fields are filled anew.
    void askAnew();
    /// Puts these names into a field; whether they are others than before.
    static bool fill(DropDown* field, const QStringList& names);
    /// The grades that the ledger knows, with all of them together in front where that is wished.
    static void offerGrades(DropDown* field, const LedgerNow& now, const QString& all);
    static std::string chosenGrade(const DropDown* field);
    static bool picked(const DropDown* field);

    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    void fetch();
    void take(LedgerView view, int asked);
    void show();
    void fitTable();
    void open(int row);
    void chooseColumns();
    void chooseGroup();

    const Seams& m_seams;
    QBoxLayout* m_choices;
    LedgerChartView* m_chart;
    LedgerTable* m_table;
    QTimer m_again;
    LedgerNow m_now;
    std::shared_ptr<const Ledger> m_offeredFor; ///< that the fields were filled for
    LedgerView m_view;                          ///< as it was answered
    int m_group = -1;                           ///< column that rows are put together by
    std::size_t m_left = 0;
    int m_question = 0; ///< the last that was asked
    bool m_fetching = false;
    bool m_working = false;
    bool m_waiting = false; ///< another question came meanwhile
    bool m_stale = true;    ///< something has changed since the ledger was fetched
    int m_revision = -1;    ///< of the document that the ledger was fetched for
};

} // namespace rollcall
