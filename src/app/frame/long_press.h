// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include <QObject>
#include <QPoint>
#include <QPointer>
#include <QTimer>
#include <QWidget>

namespace rollcall {

/// A finger that rests asks for what can be done there, as the right button of a mouse does. Buttons are left alone:
/// what they do they say; so is what prevents its context menu, because a press there draws or moves.
class LongPress : public QObject {
    Q_OBJECT

public:
    /// Watches the widgets of this window.
    explicit LongPress(QWidget* window);

signals:
    void asked(QWidget* widget, const QPoint& onScreen);

protected:
    bool eventFilter(QObject* watched, QEvent* event) override;

private:
    QWidget* m_window;
    QTimer m_rest{this};
    QPointer<QWidget> m_under;
    QPoint m_at; ///< on the screen
};

} // namespace rollcall
