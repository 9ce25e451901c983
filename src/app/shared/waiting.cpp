// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/shared/waiting.h"

#include "app/shared/buttons.h"
#include "app/shared/plain_text.h"

#include <cmath>
#include <QProgressBar>
#include <QVBoxLayout>

namespace rollcall {

namespace {
constexpr int aMoment_ms = 300;
constexpr int looked_ms = 100;
} // namespace

Waiting::Waiting(const QString& what, std::shared_ptr<Progress> progress, const Look& look, QWidget* parent)
    : QDialog(parent), m_progress(std::move(progress)) {
    setWindowTitle(what);
    setObjectName(QStringLiteral("waiting"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(look.px(24), look.px(20), look.px(24), look.px(20));
    column->setSpacing(look.px(12));
    auto* heading = new PlainLabel(what);
    heading->setFont(look.font(24, true));
    heading->setWordWrap(true);
    column->addWidget(heading);
    m_bar = new QProgressBar;
    m_bar->setRange(0, 100);
    m_bar->setTextVisible(false);
    m_bar->setAccessibleName(tr("How far it has come"));
    m_bar->setFixedHeight(look.px(16));
    m_bar->setStyleSheet(QStringLiteral("QProgressBar { border: 1px solid %1; background: %2 } "
                                        "QProgressBar::chunk { background: %3 }")
                             .arg(look.palette.line.name(), look.palette.panel.name(), look.palette.primary.name()));
    column->addWidget(m_bar);
    m_far = new PlainLabel(QString());
    m_far->setFont(look.font(20));
    column->addWidget(m_far);
    m_giveUp = new RowButton(tr("Esc"), tr("Give it up"), tr("nothing of it is kept"), look);
    m_giveUp->setObjectName(QStringLiteral("giveUp"));
    connect(m_giveUp, &QAbstractButton::clicked, this, &Waiting::reject);
    column->addWidget(m_giveUp);
    resize(look.px(560), sizeHint().height());
    m_soon.setSingleShot(true);
    connect(&m_soon, &QTimer::timeout, this, &QDialog::open);
    connect(&m_again, &QTimer::timeout, this, &Waiting::look);
    m_soon.start(aMoment_ms);
    m_again.start(looked_ms);
    this->look();
}

void Waiting::look() {
    const int far = static_cast<int>(std::lround(100 * m_progress->part()));
    m_bar->setValue(far);
    if (m_giveUp->isEnabled()) m_far->setText(tr("%1 % done").arg(far));
}

// It stays until the work has heard of it.
void Waiting::reject() {
    m_progress->giveUp();
    m_giveUp->setEnabled(false);
    m_far->setText(tr("Giving it up …"));
}

void Waiting::finish() {
    m_soon.stop();
    m_again.stop();
    accept();
    deleteLater();
}

} // namespace rollcall
