// SPDX-FileCopyrightText: 2026 The Rollcall makers
// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/cycle/cycle_page.h"
#include "app/shared/seams.h"

class QStackedWidget;

namespace rollcall {

class DayClock;
class OvenLink;
class SoakPage;

/// The Cycle gate: soak clock, temper ladder, recipe, the day's ovens, warp and temper colours, a page each.
class CycleBench : public QWidget {
    Q_OBJECT

public:
    enum class Page { soak, ladder, recipe, day, warp, colour };

    CycleBench(Document& document, OvenLink& oven, DayClock& day, const Seams& seams, const Look& look,
               QWidget* parent = nullptr);

    void refresh();
    ColumnContent content() const { return current()->content(); }
    void openPage(Page page);
    Page page() const;
    void act() { current()->act(); }
    void leftAct() { current()->leftAct(); }
    void rightAct() { current()->rightAct(); }
    bool key(QKeyEvent* event);
    /// A trace dropped on the window or chosen.
    void importTrace(const QString& path);

signals:
    void said(const QString& message, bool trouble);
    void temperWanted(double temperature_c, double hours);
    void changed(); ///< something on the page that the column shows too

protected:
    void paintEvent(QPaintEvent*) override;
    void mousePressEvent(QMouseEvent* event) override;

private:
    CyclePage* current() const;
    QRect tab(int index) const;

    Document& m_document;
    const Look& m_look;
    std::vector<CyclePage*> m_pages;
    SoakPage* m_soak;
    QStackedWidget* m_stack;
};

} // namespace rollcall
