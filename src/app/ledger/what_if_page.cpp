// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/ledger/what_if_page.h"

#include "app/shared/drop_down.h"
#include "app/shared/plain_text.h"
#include "words/units.h"
#include "words/words.h"

#include <QHBoxLayout>
#include <QPainter>
#include <QVBoxLayout>

namespace rollcall {

DragNumber::DragNumber(const QString& what, const QString& unit, double least, double most, double step,
                       const Look& look, QWidget* parent)
    : QWidget(parent), m_what(what), m_unit(unit), m_step(step), m_look(look), m_slider(new QSlider(Qt::Horizontal)) {
    setToolTip(plainTip(tr("%1: drag it, and the past is judged anew").arg(what)));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, look.px(46), 0, 0);
    m_slider->setRange(qRound(least / step), qRound(most / step));
    m_slider->setAccessibleName(what);
    m_slider->setMinimumHeight(look.px(40));
    column->addWidget(m_slider);
    connect(m_slider, &QSlider::valueChanged, this, [this] {
        update();
        emit changed();
    });
}

QString DragNumber::text() const {
    const double now = value();
    const QString number = QString::number(std::abs(now), 'f', m_step < 1 ? 1 : 0);
    const QString sign = m_slider->value() == 0 ? QStringLiteral("±")
                         : now > 0              ? QStringLiteral("+")
                                                : QString(QChar(0x2212));
    return sign + number + (m_unit.isEmpty() ? QString() : QLatin1Char(' ') + m_unit);
}

void DragNumber::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    const Palette& p = m_look.palette;
    painter.fillRect(rect(), p.panel);
    drawFitted(painter, 0, m_look.px(14), m_what, width(), m_look, 14, false, p.muted);
    drawFitted(painter, 0, m_look.px(42), text(), width(), m_look, 24, true,
               m_slider->value() == 0 ? p.muted : p.primary);
}

WhatIfPage::WhatIfPage(Document& document, const Seams& seams, const Look& look)
    : LedgerPage(document, seams, look, "ledger-what-if"), m_grade(addChoice("grade", tr("Grade"))),
      m_rule(addChoice("rule", tr("Rule"))) {
    m_rule->addItem(tr("each by its rule"));
    for (const DecisionRule rule :
         {DecisionRule::guarded, DecisionRule::plain, DecisionRule::allowance, DecisionRule::chance})
        m_rule->addItem(words::ruleName(rule));
    auto* row = new QWidget;
    row->setObjectName(QStringLiteral("drags"));
    auto* drags = new QHBoxLayout(row);
    drags->setContentsMargins(0, 0, 0, 0);
    drags->setSpacing(px(20));
    constexpr double window = 3; // HRC either way
    constexpr double error = 2;
    constexpr double temper = 40; // °C
    m_low = new DragNumber(tr("Lower limit"), tr("HRC"), -window, window, 0.1, look);
    m_high = new DragNumber(tr("Upper limit"), tr("HRC"), -window, window, 0.1, look);
    m_error = new DragNumber(tr("Tester reads harder by"), tr("HRC"), -error, error, 0.1, look);
    m_temper = new DragNumber(tr("Last temper hotter by"), QStringLiteral("°C"), -temper, temper, 5, look);
    const char* names[] = {"low-by", "high-by", "error-by", "temper-by"};
    int i = 0;
    for (DragNumber* drag : {m_low, m_high, m_error, m_temper}) {
        drag->setObjectName(QString::fromLatin1(names[i++]));
        connect(drag, &DragNumber::changed, this, &WhatIfPage::ask);
        drags->addWidget(drag);
    }
    addRow(row);
}

void WhatIfPage::offer(const LedgerNow& now) {
    offerGrades(m_grade, now, tr("All grades"));
}

WhatIf WhatIfPage::wish() const {
    WhatIf wish;
    if (m_grade->currentIndex() > 0) wish.grade = chosenGrade(m_grade);
    wish.low_by = m_low->value();
    wish.high_by = m_high->value();
    wish.error_by = m_error->value();
    wish.temper_by = m_temper->value();
    if (m_rule->currentIndex() > 0) wish.rule = static_cast<DecisionRule>(m_rule->currentIndex() - 1);
    return wish;
}

LedgerPage::Question WhatIfPage::question() const {
    return [wish = wish(), oven = m_document.state().shop().ovenSteps()](const LedgerNow& now) {
        return whatIfView(whatIf(*now.ledger, *now.tables, wish), wish,
                          forecastFor(*now.ledger, *now.tables, wish, oven));
    };
}

Commands WhatIfPage::commands() {
    Commands all = LedgerPage::commands();
    all.insert(all.begin(),
               {QStringLiteral("ledger-what-if.back"), tr("As it is"), tr("all four back to nothing"), Verb::none,
                [this] {
                    for (DragNumber* drag : {m_low, m_high, m_error, m_temper}) drag->setValue(0);
                    m_rule->setCurrentIndex(0);
                    ask();
                },
                [this] { return wish().nothing() ? tr("Nothing is moved.") : QString(); }});
    return all;
}

HelpText WhatIfPage::help() const {
    return {tr("Which past blades would be judged otherwise, if something had been another?"),
            {{Pictogram::window, tr("Drag a limit of the window, the tester's error or the temper; or choose a rule.")},
             {Pictogram::boxes, tr("The grey blocks are as it is, the others as it would be.")},
             {Pictogram::question, tr("The table lists every blade that changes; Enter opens its batch.")},
             {Pictogram::arrows, tr("With one grade chosen, the column foretells the next batch in that window.")}},
            {QStringLiteral("M15"), QStringLiteral("M20")},
            tr("It asks the rule again of each recorded mean; what else speaks at the gate stays. Nothing is stored.")};
}

} // namespace rollcall
