// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/shared/bench.h"

#include <QTabBar>
#include <vector>

class QStackedWidget;

namespace rollcall {

/// The titles of a bench's pages, with the digit that opens each.
class PageTabs : public QTabBar {
    Q_OBJECT

public:
    explicit PageTabs(const Look& look, QWidget* parent = nullptr);

protected:
    QSize tabSizeHint(int index) const override;
    void paintEvent(QPaintEvent*) override;

private:
    const Look& m_look;
};

/// A bench of several pages under a row of titles: a digit, Ctrl+Tab or the mouse turns them.
class PagedBench : public Bench {
    Q_OBJECT

public:
    PagedBench(Document& document, const Look& look, QWidget* parent = nullptr);

    void setInFront(bool inFront) override;
    int pageIndex() const override;
    void openPageAt(int index) override;
    QString title() const override { return current()->title(); }
    HelpText help() const override { return current()->help(); }
    /// Of the page in sight; where it has none, of the gate.
    std::vector<ReportTable> tables() const override;
    void refresh() override;
    ColumnContent content() const override { return current()->content(); }
    void act() override { current()->act(); }
    void leftAct() override { current()->leftAct(); }
    void rightAct() override { current()->rightAct(); }
    Commands commands() override { return current()->commands(); }
    Commands everyCommand() override;
    QStringList offers() const override { return current()->offers(); }
    QStringList movements() const override;
    bool key(QKeyEvent* event) override;
    bool escape() override { return current()->escape(); }
    QString unsaved() const override { return current()->unsaved(); }
    bool wantsAll() const override { return current()->wantsAll(); }

protected:
    /// The page in sight.
    Bench* current() const;
    /// Puts a page behind those there are; this bench owns it.
    void addPage(Bench* page);
    void paintEvent(QPaintEvent*) override;

private:
    std::vector<Bench*> m_pages;
    PageTabs* m_tabs;
    QStackedWidget* m_stack;
};

} // namespace rollcall
