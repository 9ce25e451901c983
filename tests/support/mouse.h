// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/acts/files_dialog.h"
#include "tests/support/window_driver.h"

#include <QAbstractItemView>
#include <QScrollArea>

namespace rollcall::fixtures {

/// A hand that has a mouse or a finger and no keyboard: clicks what is in sight and enabled, at its middle, and counts.
/// What is scrolled out of sight is scrolled to first.
class Mouse {
public:
    explicit Mouse(WindowDriver& driver) : m_d(driver) {}

    int clicks() const { return m_clicks; }

    void on(QWidget* widget) { on(widget, widget->rect().center()); }
    void on(QWidget* widget, const QPoint& at) {
        for (QWidget* up = widget->parentWidget(); up != nullptr; up = up->parentWidget()) {
            if (auto* scroll = qobject_cast<QScrollArea*>(up)) scroll->ensureWidgetVisible(widget, 0, 0);
        }
        if (!widget->isVisible()) qFatal("%s is not in sight", qPrintable(widget->objectName()));
        ++m_clicks;
        QTest::mouseClick(widget, Qt::LeftButton, {}, at);
        m_d.settle();
    }
    void primary() {
        QWidget* where = QApplication::activeModalWidget();
        auto* button = (where != nullptr ? where : &m_d.window())->findChild<PrimaryButton*>();
        if (button == nullptr) qFatal("no primary button in:\n%s", qPrintable(m_d.dialogText()));
        on(button);
    }
    /// A button of the window by its name.
    void button(const char* name) {
        auto* found = m_d.window().findChild<QAbstractButton*>(QLatin1String(name));
        if (found == nullptr) qFatal("no button %s", name);
        on(found);
    }
    /// A line of the open dialog that says this.
    void choose(const QString& text) {
        for (auto* row : m_d.dialog()->findChildren<RowButton*>()) {
            if (row->text() == text) return on(row);
        }
        qFatal("no choice %s in:\n%s", qPrintable(text), qPrintable(m_d.dialogText()));
    }
    /// What can be done here: by its button in the row, else by its line in the menu.
    void act(const char* id) {
        auto* found = m_d.window().findChild<QAbstractButton*>(QStringLiteral("do-") + QLatin1String(id));
        if (found != nullptr && found->isVisible()) return on(found);
        const Commands all = m_d.window().commands();
        const auto command =
            std::find_if(all.begin(), all.end(), [&](const Command& c) { return c.id == QLatin1String(id); });
        if (command == all.end()) qFatal("no command %s here", id);
        button("do-menu");
        choose(command->text);
    }
    /// A word or a number on the keys of the screen; '\n' is Enter.
    void keys(const QString& text) {
        QWidget* where = QApplication::activeModalWidget();
        for (const QChar c : text) key(where != nullptr ? where : &m_d.window(), c);
    }
    /// Puts a text into a field of the open form with the keys of the screen.
    void field(const char* name, const QString& text) {
        if (m_d.dialog() == nullptr) qFatal("no form for %s", name);
        auto* line = m_d.dialog()->findChild<QLineEdit*>(QLatin1String(name));
        if (auto* box = m_d.dialog()->findChild<QComboBox*>(QLatin1String(name))) line = box->lineEdit();
        if (line == nullptr) qFatal("no field %s in:\n%s", name, qPrintable(m_d.dialogText()));
        for (QWidget* up = line->parentWidget(); up != nullptr; up = up->parentWidget()) {
            if (auto* scroll = qobject_cast<QScrollArea*>(up)) scroll->ensureWidgetVisible(line, 0, 0);
        }
        ++m_clicks; // three clicks take hold of all of it, as one movement
        QTest::mouseClick(line, Qt::LeftButton);
        line->selectAll();
        keys(text);
    }
    /// Chooses in a drop-down of the open form.
    void pick(const char* name, const QString& text) {
        auto* box = m_d.dialog()->findChild<QComboBox*>(QLatin1String(name));
        on(box, {box->width() - 12, box->height() / 2}); // its arrow
        const int row = box->findText(text);
        if (row < 0) qFatal("no %s in %s", qPrintable(text), name);
        QAbstractItemView* list = box->view();
        list->scrollTo(list->model()->index(row, 0));
        ++m_clicks;
        QTest::mouseClick(list->viewport(), Qt::LeftButton, {},
                          list->visualRect(list->model()->index(row, 0)).center());
        m_d.settle();
    }
    /// A blade by its row in the roll.
    void blade(int row) {
        auto* list = m_d.window().findChild<Roll*>()->findChild<QAbstractItemView*>();
        const QModelIndex index = list->model()->index(row, 0);
        list->scrollTo(index);
        ++m_clicks;
        QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualRect(index).center());
        m_d.settle();
    }

private:
    void key(QWidget* where, QChar c) {
        QWidget* row = where->findChild<QWidget*>(QStringLiteral("key-row"));
        if (row == nullptr || !row->isVisible()) qFatal("no keys on the screen");
        static const QHash<QChar, QString> spoken{{'.', "point"}, {'-', "minus"}, {'\n', "enter"}, {' ', "blank"}};
        const bool letter = c.isLetter() || QStringLiteral("#/,; ").contains(c);
        if (letter) {
            auto* first = row->findChild<QAbstractButton*>(QStringLiteral("key-A"));
            if (!first->isVisible()) on(row->findChild<QAbstractButton*>(QStringLiteral("key-letters")));
            if (c.isLetter() && first->text().at(0).isUpper() != c.isUpper())
                on(row->findChild<QAbstractButton*>(QStringLiteral("key-capitals")));
        }
        const QString name = QStringLiteral("key-") + spoken.value(c, c.isLetter() ? QString(c.toUpper()) : QString(c));
        auto* button = row->findChild<QAbstractButton*>(name);
        if (button == nullptr) qFatal("no key %s", qPrintable(name));
        on(button);
    }

    WindowDriver& m_d;
    int m_clicks = 0;
};

} // namespace rollcall::fixtures
