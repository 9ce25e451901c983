// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/frame/style.h"

namespace rollcall {

QString styleSheet(const Look& look) {
    const Palette& p = look.palette;
    QString sheet = QStringLiteral(R"(
        QWidget { background: @paper; color: @ink; }
        QDialog { background: @panel; border: 1px solid @line; }
        QDialog QWidget { background: @panel; }
        QLineEdit, QComboBox { background: @paper; color: @ink; border: 1px solid @line; padding: 2px 8px; selection-background-color: @primary; selection-color: @onprimary; }
        QLineEdit:focus, QComboBox:focus { border: 3px solid @primary; padding: 0px 6px; }
        QComboBox::drop-down { border: none; width: @24px; }
        QComboBox QAbstractItemView { background: @panel; color: @ink; border: 1px solid @line; selection-background-color: @window; selection-color: @ink; }
        QLineEdit:disabled, QComboBox:disabled { background: @panel; color: @muted; border: 1px dashed @line; }
        QTableView QComboBox:disabled { border: none; }
        QHeaderView::section { background: @paper; color: @muted; border: none; border-bottom: 1px solid @line; padding: 4px; }
        QTableView#ledger-table QHeaderView { background: @paper; border: none; border-bottom: 1px solid @line; }
        QTableView#ledger-table QHeaderView::section { border: none; }
        QLabel#hint { color: @muted; }
        QLabel#message { color: @fail; }
        QListView, QTableView, QScrollArea { background: @paper; border: none; outline: none; }
        QTableView { background: @panel; }
        QScrollBar:vertical { background: transparent; width: @8px; margin: 0; }
        QScrollBar::handle:vertical { background: @line; min-height: @24px; }
        QScrollBar:horizontal { background: transparent; height: @8px; margin: 0; }
        QScrollBar::handle:horizontal { background: @line; min-width: @24px; }
        QScrollBar::add-line, QScrollBar::sub-line { height: 0; width: 0; }
        QWidget#drags { background: @panel; }
        QSlider { background: @panel; }
        QSlider::groove:horizontal { height: 4px; background: @line; }
        QSlider::handle:horizontal { background: @primary; border: 2px solid @primary; width: @24px; margin: -@8px 0; }
        QSlider::handle:horizontal:focus { background: @panel; border: 3px solid @primary; }
        QMenuBar { background: @paper; color: @ink; border-bottom: 1px solid @hair; }
        QMenuBar::item { background: transparent; padding: @8px; }
        QMenu { background: @panel; color: @ink; border: 1px solid @line; }
        QMenu::item { padding: @8px @24px; }
        QMenuBar::item:selected, QMenu::item:selected { background: @window; color: @ink; }
        QCalendarWidget QAbstractItemView:enabled { color: @ink; selection-background-color: @primary; selection-color: @onprimary; }
        QCalendarWidget QAbstractItemView:disabled { color: @muted; }
        QCalendarWidget QToolButton { color: @ink; background: transparent; border: none; padding: @8px; }
        QCalendarWidget QToolButton::menu-indicator { image: none; }
        QCalendarWidget QToolButton#qt_calendar_prevmonth { qproperty-icon: none; qproperty-text: "<"; }
        QCalendarWidget QToolButton#qt_calendar_nextmonth { qproperty-icon: none; qproperty-text: ">"; }
        QToolTip { background: @panel; color: @ink; border: 1px solid @line; padding: 4px; }
    )");
    const auto put = [&](const char* token, const QString& value) { sheet.replace(QLatin1String(token), value); };
    put("@onprimary", p.on_primary.name());
    put("@primary", p.primary.name());
    put("@paper", p.paper.name());
    put("@panel", p.panel.name());
    put("@window", p.window.name());
    put("@muted", p.muted.name());
    put("@line", p.line.name());
    put("@fail", p.fail.name());
    put("@ink", p.ink.name());
    put("@hair", p.hair.name());
    for (const int size : {24, 8}) put(qPrintable(QStringLiteral("@%1").arg(size)), QString::number(look.px(size)));
    return sheet;
}

} // namespace rollcall
