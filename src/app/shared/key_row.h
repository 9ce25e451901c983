// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/look.h"

#include <QAbstractButton>
#include <QWidget>
#include <vector>

namespace rollcall {

/// The number keys as two rows on the screen, for a mouse or a finger: digits, point, minus, back and Enter; in a form
/// with letters that can be unfolded. A click is the key itself, sent to where the keyboard would go, so that the same
/// rules hold.
class KeyRow : public QWidget {
    Q_OBJECT

public:
    enum class Keys { numbers, letters };

    explicit KeyRow(const Look& look, Keys keys = Keys::numbers, QWidget* parent = nullptr);

    /// Whether the shop wants them wherever a number is asked for.
    static bool wished();
    static void wish(bool on);

private:
    void send(Qt::Key key, const QString& text);
    QWidget* letters();
    void turnCapitals();

    const Look& m_look;
    bool m_capitals = true;
    std::vector<QAbstractButton*> m_letters;
};

} // namespace rollcall
