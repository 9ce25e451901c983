// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/frame/verdict_column.h"
#include "app/shared/document.h"
#include "plot/look.h"

#include <QWidget>

class QKeyEvent;

namespace rollcall {

/// One page of the Cycle bench: what it shows, what the column says of it, and its keys.
class CyclePage : public QWidget {
    Q_OBJECT

public:
    CyclePage(Document& document, const Look& look) : m_document(document), m_look(look) {}

    virtual QString title() const = 0;
    virtual void refresh() { update(); }
    virtual ColumnContent content() const = 0;
    /// The primary act.
    virtual void act() = 0;
    virtual void leftAct() {}
    virtual void rightAct() {}
    /// True when the key was taken.
    virtual bool key(QKeyEvent* event) = 0;

signals:
    void said(const QString& message, bool trouble);
    void changed();

protected:
    const Palette& palette() const { return m_look.palette; }
    int px(double size) const { return m_look.px(size); }

    Document& m_document;
    const Look& m_look;
};

} // namespace rollcall
