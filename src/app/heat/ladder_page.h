// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/bench.h"
#include "app/shared/stretch.h"
#include "core/judge/expectation.h"
#include "plot/temper_chart.h"

#include <memory>

namespace rollcall {

/// The temper ladder: what each temper was expected to give and gave, and the next one, moved by hand along the curve.
class LadderPage : public Bench {
    Q_OBJECT

public:
    LadderPage(Document& document, const Look& look);

    QString title() const override { return tr("Ladder"); }
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
    /// What lies at a place of it, in words.
    QString saysAt(const QPoint& at) const;

signals:
    void temperWanted(double temperature_c, double hours);
    void planWanted(double temperature_c, double hours);

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;

private:
    double step() const;
    void setTrial(double temperature_c);
    /// The trial spent on its number of tempers; none beyond the curve.
    std::optional<NextTemper> trial() const;
    std::optional<NextTemper> tried(double temperature_c, int tempers) const;
    std::vector<LadderRung> rungs() const;
    TemperChart chart() const;
    QRect chartArea() const;
    QString whyBlind() const;
    void why();

    auto& curves() const { return m_document.judged().tempers(static_cast<std::size_t>(m_document.bladeIndex())); }
    std::optional<TemperAdvice> m_advice;
    const Grade* m_grade = nullptr;
    std::string m_for; ///< blade, round and temper that the trial is meant for
    double m_temperature = 200;
    double m_hours = 2;
    int m_tempers = 1;
    bool m_cautious = false;
    std::optional<TemperBranch> m_branch;
    Stretch* m_stretch;
};

} // namespace rollcall
