// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/look.h"

#include <QWidget>

namespace rollcall {

/// The number keys as a row on the screen, for a mouse or a finger: digits, point, minus, back and Enter. A click is
/// the key itself, sent to where the keyboard would go, so that the same rules hold.
class KeyRow : public QWidget {
    Q_OBJECT

public:
    explicit KeyRow(const Look& look, QWidget* parent = nullptr);
    QSize sizeHint() const override;

    /// Whether the shop wants them wherever a number is asked for.
    static bool wished();
    static void wish(bool on);

private:
    void send(Qt::Key key, const QString& text);

    const Look& m_look;
};

} // namespace rollcall
