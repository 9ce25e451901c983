// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/bench.h"
#include "plot/temper_chart.h"

namespace rollcall {

/// The batch's recipe as a line of temperature through its stages, looked at against the grade. A change makes a new
/// version; the batch keeps the one it runs.
class RecipePage : public Bench {
    Q_OBJECT

public:
    RecipePage(Document& document, const Look& look);

    QString title() const override { return tr("Recipe"); }
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

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    const Recipe* recipe() const;
    const Grade* grade() const;
    RecipeLine line() const;
    QRect lineArea() const { return rect().adjusted(0, px(40), 0, -px(8)); }
    void fromTemplate();
    void editStage(bool added);
    void keep(Recipe changed);
    void choose();

    int m_stage = 0;
};

} // namespace rollcall
