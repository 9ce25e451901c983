// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/command.h"
#include "plot/look.h"

#include <functional>
#include <QDialog>
#include <vector>

class QLineEdit;

class QScrollArea;

namespace rollcall {

class WholeRows;

/// Something that can be done, as the menu lists it.
struct MenuEntry {
    Command command;
    QString key;
    QString place; ///< object name of the place that does it; empty: here, or everywhere
    QString where; ///< title of the place, for the eye
};

/// What can be done, in groups, a line each to click. Typing finds among all of it, also what other places do, by words
/// in any order; Enter or a click does it.
class MenuDialog : public QDialog {
    Q_OBJECT

public:
    MenuDialog(std::vector<MenuEntry> all, const Look& look, QWidget* parent);
    void ask(std::function<void(const MenuEntry&)> run);

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    QWidget* groups(int columns);
    void filter();
    void choose(std::size_t index);

    std::vector<MenuEntry> m_all;
    std::vector<std::size_t> m_shown; ///< places in m_all, in the order found
    const Look& m_look;
    QLineEdit* m_words;
    QScrollArea* m_groups;
    WholeRows* m_list;
    std::function<void(const MenuEntry&)> m_run;
};

} // namespace rollcall
