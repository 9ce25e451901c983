// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <functional>
#include <QString>
#include <Qt>
#include <vector>

namespace rollcall {

/// One thing the window can do. The one list of these feeds key handling, menu, help page and tests.
struct Command {
    QString id;
    Qt::Key key = Qt::Key_unknown; ///< function keys and the like
    QChar letter;                  ///< or a character, in either case
    Qt::KeyboardModifiers modifiers;
    QString shown; ///< the key as shown
    QString text;
    QString help;
    bool in_menu = true;
    std::function<void()> run;
};

using Commands = std::vector<Command>;

} // namespace rollcall
