// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/column_content.h"
#include "app/store/document.h"
#include "plot/look.h"

#include <QWidget>

class QKeyEvent;

namespace rollcall {

/// A place of work in the middle of the window, or a page of one: what it shows, what the column says of it, its keys.
class Bench : public QWidget {
    Q_OBJECT

public:
    Bench(Document& document, const Look& look, QWidget* parent = nullptr)
        : QWidget(parent), m_document(document), m_look(look) {}

    virtual QString title() const = 0;
    virtual void refresh() { update(); }
    virtual ColumnContent content() const = 0;
    /// The primary act.
    virtual void act() = 0;
    virtual void leftAct() {}
    virtual void rightAct() {}
    /// True when the key was taken.
    virtual bool key(QKeyEvent* event) = 0;
    /// A file dropped on the window; true when it was taken.
    virtual bool takeFile(const QString& path) {
        Q_UNUSED(path);
        return false;
    }
    /// True while it wants the whole window for itself.
    virtual bool wantsAll() const { return false; }

signals:
    void said(const QString& message, bool trouble);
    void changed(); ///< something on it that the column shows too

protected:
    /// Whether a file is named as a table is.
    static bool isTable(const QString& path) {
        return path.endsWith(QLatin1String(".csv"), Qt::CaseInsensitive) ||
               path.endsWith(QLatin1String(".txt"), Qt::CaseInsensitive);
    }
    const Palette& palette() const { return m_look.palette; }
    int px(double size) const { return m_look.px(size); }

    Document& m_document;
    const Look& m_look;
};

} // namespace rollcall
