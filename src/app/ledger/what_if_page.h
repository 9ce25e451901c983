// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/ledger/ledger_page.h"

#include <QSlider>

namespace rollcall {

/// A number that is dragged or stepped by arrows, with what it means above it.
class DragNumber : public QWidget {
    Q_OBJECT

public:
    /// From least to most in steps; all multiples of the step.
    DragNumber(const QString& what, const QString& unit, double least, double most, double step, const Look& look,
               QWidget* parent = nullptr);
    double value() const { return m_slider->value() * m_step; }
    void setValue(double value) { m_slider->setValue(qRound(value / m_step)); }

signals:
    void changed();

protected:
    void paintEvent(QPaintEvent*) override;

private:
    QString text() const;

    QString m_what;
    QString m_unit;
    double m_step;
    const Look& m_look;
    QSlider* m_slider;
};

/// What if a window, the tester's error, the temper or the rule had been another: which past blades change.
class WhatIfPage : public LedgerPage {
    Q_OBJECT

public:
    WhatIfPage(Document& document, const Seams& seams, const Look& look);
    QString title() const override { return tr("What if"); }
    HelpText help() const override;
    Commands commands() override;

protected:
    void offer(const LedgerNow& now) override;
    Question question() const override;

private:
    WhatIf wish() const;

    DropDown* m_grade;
    DropDown* m_rule;
    DragNumber* m_low;
    DragNumber* m_high;
    DragNumber* m_error;
    DragNumber* m_temper;
};

} // namespace rollcall
