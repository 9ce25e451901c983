// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "plot/look.h"

#include <QAbstractButton>

namespace rollcall {

/// The one loud button of a screen: what to do, with what, and the key that does it.
class PrimaryButton : public QAbstractButton {
    Q_OBJECT

public:
    explicit PrimaryButton(const Look& look, QWidget* parent = nullptr);
    void show(const QString& act, const QString& detail, const QString& key);
    QSize sizeHint() const override;
    /// The height at which nothing of it is cut, for a width; 72 px where two lines do.
    bool hasHeightForWidth() const override { return true; }
    int heightForWidth(int width) const override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    QRect textArea(const QString& text, int size, bool bold, int width) const;

    const Look& m_look;
    QString m_detail;
    QString m_key;
};

/// A quiet button with its key: 40 px tall, one hairline frame.
class SideButton : public QAbstractButton {
    Q_OBJECT

public:
    SideButton(const QString& text, const QString& key, const Look& look, QWidget* parent = nullptr);
    void setKey(const QString& key);
    /// Whether what it stands for can be done now; it is muted where it cannot, and says why when it is clicked.
    void setReady(bool ready);
    QSize sizeHint() const override;
    /// The width at which its text is read whole, without its key.
    int leastWidth() const;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    const Look& m_look;
    QString m_key;
    bool m_ready = true;
};

/// A row of a list of choices: key cap, what it does, and a muted second line.
class RowButton : public QAbstractButton {
    Q_OBJECT

public:
    RowButton(const QString& key, const QString& text, const QString& detail, const Look& look,
              QWidget* parent = nullptr);
    /// Its key at the end of the row, in a list where not every row has one.
    void setKeyLast() { m_keyLast = true; }
    /// As SideButton::setReady.
    void setReady(bool ready) { m_ready = ready; }
    QSize sizeHint() const override;

protected:
    void paintEvent(QPaintEvent*) override;

private:
    const Look& m_look;
    QString m_key;
    QString m_detail;
    bool m_keyLast = false;
    bool m_ready = true;
};

/// Focus ring of a control, inside its own rectangle.
void paintFocus(QPainter& painter, const QWidget& widget, const Look& look);

} // namespace rollcall
