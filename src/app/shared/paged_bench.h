// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/bench.h"

#include <vector>

class QStackedWidget;

namespace rollcall {

/// A bench of several pages under a row of titles: Tab, a digit or the mouse turns them.
class PagedBench : public Bench {
    Q_OBJECT

public:
    PagedBench(Document& document, const Look& look, QWidget* parent = nullptr);

    int pageIndex() const;
    void openPageAt(int index);
    QString title() const override { return current()->title(); }
    void refresh() override;
    ColumnContent content() const override { return current()->content(); }
    void act() override { current()->act(); }
    void leftAct() override { current()->leftAct(); }
    void rightAct() override { current()->rightAct(); }
    bool key(QKeyEvent* event) override;
    bool wantsAll() const override { return current()->wantsAll(); }

protected:
    /// Puts a page behind those there are; this bench owns it.
    void addPage(Bench* page);
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    Bench* current() const;
    QRect tab(int index) const;

    std::vector<Bench*> m_pages;
    QStackedWidget* m_stack;
};

} // namespace rollcall
