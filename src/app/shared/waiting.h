// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "logbook/transfer/progress.h"
#include "plot/look.h"

#include <memory>
#include <QDialog>
#include <QTimer>

class QLabel;
class QProgressBar;

namespace rollcall {

class RowButton;

/// Says over the window how far a long work has come, and gives it up with Esc or its button. It comes only where the
/// work takes a moment, and goes with finish().
class Waiting : public QDialog {
    Q_OBJECT

public:
    /// what: what is being done, as "Taking in readings.csv".
    Waiting(const QString& what, std::shared_ptr<Progress> progress, const Look& look, QWidget* parent);
    /// The work has ended, one way or the other: it goes and is deleted.
    void finish();
    void reject() override;

private:
    void look();

    std::shared_ptr<Progress> m_progress;
    QLabel* m_far;
    QProgressBar* m_bar;
    RowButton* m_giveUp;
    QTimer m_soon;
    QTimer m_again;
};

} // namespace rollcall
