// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/look.h"

#include <QDateTime>
#include <QLineEdit>

namespace rollcall {

/// What a field for a time asks for.
enum class Picks { nothing, day, moment, time };

/// A field for a day, a moment that has gone by, or a time of day, that is typed or picked: calendar and clock open by
/// its button or Alt+Down, at what is typed and else at now. What is picked is written as somebody would type it:
/// "2026-11-24 18:00".
class MomentField : public QLineEdit {
    Q_OBJECT

public:
    MomentField(Picks picks, const QDateTime& now, const Look& look, QWidget* parent = nullptr);
    /// Opens the calendar.
    void pick();

protected:
    void keyPressEvent(QKeyEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;

private:
    QDateTime typedOrNow() const;

    Picks m_picks;
    QDateTime m_now;
    const Look& m_look;
    QWidget* m_button;
};

} // namespace rollcall
