// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/command.h"
#include "plot/look.h"

#include <QWidget>

namespace rollcall {

class SideButton;

/// The row of what can be done at a place, a button for each: whatever a key does, a finger can do. What does not fit
/// is behind the last button, the menu.
class CommandBar : public QWidget {
    Q_OBJECT

public:
    explicit CommandBar(const Look& look, QWidget* parent = nullptr);
    /// True when buttons came or went.
    bool show(Commands commands);

signals:
    void chosen(const QString& id);

protected:
    void paintEvent(QPaintEvent*) override;
    void resizeEvent(QResizeEvent*) override;

private:
    void arrange();

    const Look& m_look;
    Commands m_commands;
    std::vector<SideButton*> m_buttons;
    SideButton* m_more;
};

} // namespace rollcall
